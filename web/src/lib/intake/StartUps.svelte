<script lang="ts">
  // Start-ups on the bench supply: what was drawn at each stage, against a good unit.
  import { reload, send } from '$lib/jobs/send';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import TakeBack from '$lib/jobs/TakeBack.svelte';
  import type { GoodStartUp } from '$lib/diagnose/view';
  import type { JobView } from '$lib/jobs/view';
  import { formatReading, parseReading } from '@orthos/core/ground';
  import { type JobState, judgeStartUp, startUpSentence } from '@orthos/core/job';
  import { untrack } from 'svelte';
  import { v7 } from 'uuid';

  interface Props {
    view: JobView;
    job: JobState;
    recorder: Recorder;
    /** What good units of this kind of board draw, the latest first. */
    goodStartUps: GoodStartUp[];
  }
  let { view, job, recorder, goodStartUps }: Props = $props();
  const USUAL = ['connected', 'switched on', 'starting', 'running', 'asleep'];

  let startUpId = $state(untrack(() => job.intake.startUps.at(-1)?.id ?? v7()));
  const startUp = $derived(job.intake.startUps.find((s) => s.id === startUpId));
  const number = $derived(
    job.intake.startUps.findIndex((s) => s.id === startUpId) + 1 || job.intake.startUps.length + 1,
  );
  const stages = $derived(startUp?.stages ?? []);
  const good = $derived(goodStartUps[0] ?? null);
  const verdicts = $derived(judgeStartUp(stages, good?.stages ?? []));
  const names = $derived([...new Set([...(good?.stages.map((s) => s.stage) ?? []), ...USUAL])]);

  let stage = $state('');
  let at = $state('');
  let volts = $state('');
  let limit = $state('');
  let current = $state('');
  let unit = $state('');

  async function add(event: SubmitEvent) {
    event.preventDefault();
    const read = (text: string, what: string): number | null => {
      const value = parseReading(text);
      if (typeof value === 'number' && value >= 0) return value;
      recorder.problem = `${what}: a number such as 12, .42 or 35m.`;
      return null;
    };
    const name = stage.trim() || names.find((n) => !stages.some((s) => s.stage === n)) || 'running';
    const at_s = read(at || '0', 'Seconds');
    const supply_V = at_s === null ? null : read(volts, 'Volts of the supply');
    const limit_A = supply_V === null ? null : read(limit, 'Current limit');
    const current_A = limit_A === null ? null : read(current, 'Current');
    if (at_s === null || supply_V === null || limit_A === null || current_A === null) return;
    if (limit_A === 0) return (recorder.problem = 'Current limit: more than nothing.');
    const typed = [stage, at, current] as const;
    [stage, at, current] = ['', '', ''];
    if (!(await recorder.record({ type: 'supply-stage', startUpId, stage: name, at_s, supply_V, limit_A, current_A })))
      [stage, at, current] = typed;
  }
  async function keep() {
    const name = unit.trim() || view.serial || `No. ${view.ticket.number}`;
    try {
      await send('POST', `/api/boards/${view.modelId}/start-ups`, {
        id: v7(),
        unit: name,
        stages: stages.map(({ stage: s, at_s, current_A, limit_A }) => ({ stage: s, at_s, current_A, limit_A })),
      });
      recorder.problem = null;
      unit = '';
      await reload('job:model');
    } catch (e) {
      recorder.problem = (e as Error).message;
    }
  }
  /** When a stage is read that no good unit says, s. */
  const MOMENTS: Record<string, number> = { connected: 0.1, starting: 0.6, running: 2 };
  /** Longest that a run waits for its last stage, s; a good unit's later stages are left to be typed. */
  const LONGEST_S = 30;
  let running = $state(false);
  /** s since it was started, and how many it takes. */
  let clock = $state({ at: 0, of: 0 });
  /** The supply of the kit goes through the stages and switches off; what it read is logged as if it had been typed. */
  async function run() {
    const [supply_V, limit_A] = [parseReading(volts), parseReading(limit)];
    if (typeof supply_V !== 'number' || supply_V <= 0 || typeof limit_A !== 'number' || limit_A <= 0)
      return (recorder.problem = 'Volts of the supply and its limit first, such as 12 and .5.');
    const known = good?.stages.filter((s) => s.at_s <= LONGEST_S).map((s) => [s.stage, s.at_s] as const) ?? [];
    const plan = known.length > 0 ? known : Object.entries(MOMENTS);
    const id = stages.length > 0 ? v7() : startUpId;
    running = true;
    clock = { at: 0, of: Math.max(...plan.map(([, at]) => at)) };
    const ticking = setInterval(() => clock.at++, 1000);
    try {
      const at_s = plan.map(([, at]) => at).sort((a, b) => a - b);
      const answer = (await send('POST', `/api/jobs/${view.ticket.id}/supply`, { volts: supply_V, limit_A, at_s })) as {
        moments: { at_s: number; volts: number; current_A: number }[];
        simulated?: true;
      };
      recorder.problem = null;
      const names = plan.toSorted((a, b) => a[1] - b[1]).map(([name]) => name);
      const by = answer.simulated ? { simulated: true as const } : {};
      for (const [n, m] of answer.moments.entries()) {
        const shown = { at_s: Number(m.at_s.toFixed(2)), current_A: Number(m.current_A.toPrecision(3)) };
        const body = {
          type: 'supply-stage' as const,
          startUpId: id,
          stage: names[n],
          supply_V,
          limit_A,
          ...shown,
          ...by,
        };
        if (!(await recorder.record(body))) return;
        startUpId = id;
      }
    } catch (e) {
      recorder.problem = (e as Error).message;
    } finally {
      clearInterval(ticking);
      running = false;
    }
  }
  const TONE = { 'as a good unit': 'text-good', 'no reference': 'text-ink2' } as Record<string, string>;
</script>

<h3 class="mt-5 mb-1 flex items-baseline border-t border-line pt-3">
  Start-up {number} on the bench supply
  {#if job.intake.startUps.length > 0 && startUp}
    <button type="button" class="ml-auto text-[13px] text-evidence underline" onclick={() => (startUpId = v7())}
      >another start-up</button
    >
  {/if}
</h3>
{#if job.intake.startUps.length > 1}
  <p class="mb-1 flex gap-3 text-[13px]">
    {#each job.intake.startUps as s, n (s.id)}
      <button
        type="button"
        class="min-h-8 underline {s.id === startUpId ? 'font-semibold' : 'text-evidence'}"
        onclick={() => (startUpId = s.id)}>start-up {n + 1}</button
      >
    {/each}
  </p>
{/if}
{#if stages.length > 0}
  <p class="mb-1 font-semibold" role="status">{startUpSentence(verdicts)}</p>
  {#await import('./StartUpChart.svelte') then { default: StartUpChart }}
    <StartUpChart {stages} good={good?.stages ?? []} />
  {/await}
  <ul aria-label="Stages">
    {#each stages as s, n (s.id)}
      <li class="flex min-h-9 items-center gap-2 border-t border-faint">
        <span class="w-12 text-[13px] text-ink2">{s.at_s} s</span>
        <span class="min-w-0 flex-1"
          >{s.stage}
          <span class="block text-[13px] text-ink2"
            >{s.supply_V} V, limit {formatReading(s.limit_A, 'current')}{#if s.simulated}, <span class="text-caution"
                >simulated</span
              >{/if}</span
          ></span
        >
        <span class="w-18 text-right font-semibold">{formatReading(s.current_A, 'current')}</span>
        <span class="w-26 text-[13px] font-semibold {TONE[verdicts[n].state] ?? 'text-stop'}">{verdicts[n].state}</span>
        <TakeBack
          what={s.stage}
          onclick={() => recorder.record({ type: 'withdrawn', eventId: s.id, why: 'taken back' })}
        />
      </li>
    {/each}
  </ul>
{/if}
<form
  onsubmit={add}
  class="mt-1 grid grid-cols-[1fr_52px_60px_60px_64px_auto] items-end gap-1.5"
  aria-label="Stage of the start-up"
>
  <label
    ><span class="label">Stage</span><input
      class="field px-1.5"
      list="stages"
      bind:value={stage}
      placeholder={names.find((n) => !stages.some((s) => s.stage === n)) ?? ''}
      maxlength="80"
    /></label
  >
  <datalist id="stages"
    >{#each names as n (n)}<option value={n}></option>{/each}</datalist
  >
  <label
    ><span class="label">s</span><input
      class="field px-1.5"
      bind:value={at}
      inputmode="decimal"
      placeholder="0"
    /></label
  >
  <label><span class="label">V</span><input class="field px-1.5" bind:value={volts} placeholder="12" /></label>
  <label><span class="label">limit A</span><input class="field px-1.5" bind:value={limit} placeholder=".5" /></label>
  <label><span class="label">drawn A</span><input class="field px-1.5" bind:value={current} placeholder="35m" /></label>
  <button class="button px-3">Log</button>
</form>
<p class="mt-2 flex items-center gap-3">
  <button type="button" class="button" onclick={run} disabled={running}
    >{running ? `Running, ${clock.at} of ${Math.ceil(clock.of)} s` : 'Run it on the supply'}</button
  >
  <span class="text-[13px] text-ink2"
    >Volts and limit above; leads on, nobody’s hands on the board. Its output goes off after the last stage, and when
    its limit holds it.</span
  >
</p>
<p class="mt-1 text-[13px] text-ink2">
  Begin with a low limit. Each stage counts as power on the board: the power gate lapses.
</p>
{#if stages.length > 0}
  <div class="mt-2 flex gap-2">
    <input
      class="field"
      bind:value={unit}
      aria-label="Which good unit"
      placeholder={view.serial || 'which unit'}
      maxlength="80"
    />
    <button type="button" class="button" onclick={keep}>This was a good unit</button>
  </div>
{/if}
