<script lang="ts">
  // First power after the work: in stages on the supply of the kit, or by hand with the same limits.
  import type { GoodStartUp } from '$lib/diagnose/view';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import Select from '$lib/ui/Select.svelte';
  import { voltsOf } from '@orthos/core/board';
  import { formatReading, parseReading } from '@orthos/core/ground';
  import {
    blocks,
    firstPower,
    lastStop,
    type PowerSample,
    type PowerStage,
    type Stop,
    STOPS,
    type SupplyPoint,
  } from '@orthos/core/job';
  import { onDestroy, untrack } from 'svelte';
  import { v7 } from 'uuid';
  import { runFirstPower } from './firstPower';

  interface Props {
    view: JobView;
    recorder: Recorder;
    goodStartUps: GoodStartUp[];
  }
  let { view, recorder, goodStartUps }: Props = $props();
  const job = $derived(stateOf(view.events));
  const stopped = $derived(lastStop(job));
  const shut = $derived(view.gates.find((g) => g.id === 'short-check' && blocks(g)));
  const good = $derived<SupplyPoint[]>(goodStartUps[0]?.stages ?? []);
  // a capacitor is charged by the others, not connected
  const sources = $derived(
    [...view.board.powerSources, ...job.sources].filter((s) => s.kind !== 'none' && s.kind !== 'capacitor'),
  );
  const mains = $derived(sources.some((s) => s.kind === 'mains'));
  const rails = $derived(
    (view.board.rails ?? []).flatMap((r) => {
      const net = view.board.parts.find((p) => p.partId === r.partId)?.nets?.[r.terminal];
      const volts = voltsOf(r.label) ?? (net === undefined ? null : voltsOf(net));
      return net === undefined || volts === null ? [] : [{ label: r.label, net, volts }];
    }),
  );

  let typed = $state(
    untrack(() => {
      const before = job.intake.startUps.at(-1)?.stages.at(-1)?.supply_V;
      const named = [...view.board.powerSources].map((s) => voltsOf(s.label)).find((v) => v !== null);
      return String(before ?? named ?? '');
    }),
  );
  let watched = $state(untrack(() => rails.at(-1)?.net ?? ''));
  const volts = $derived.by(() => {
    const value = parseReading(typed);
    return typeof value === 'number' && value > 0 && value <= 60 ? value : null;
  });
  const plan = $derived(volts === null ? null : firstPower(volts, good));
  const watch = $derived(rails.find((r) => r.net === watched));

  type Sample = { stage: PowerStage['stage'] } & PowerSample;
  let samples = $state<Sample[]>([]);
  let running = $state<AbortController | null>(null);
  let ended = $state<string | null>(null);
  const now = $derived(samples.at(-1));
  /** On one clock, with the limit that held then. */
  const curve = $derived.by(() => {
    const from: Partial<Record<PowerStage['stage'], number>> = {};
    let begun = 0;
    for (const s of plan?.stages ?? []) {
      from[s.stage] = begun;
      begun += s.for_s;
    }
    return samples.map((s) => ({
      stage: s.stage,
      at_s: (from[s.stage] ?? 0) + s.at_s,
      current_A: s.current_A,
      limit_A: plan?.stages.find((p) => p.stage === s.stage)?.limit_A ?? 0,
    }));
  });
  onDestroy(() => running?.abort());

  const stopIt = (stop: Stop, why: string, more: { startUpId?: string; simulated?: true } = {}) =>
    recorder.record({ type: 'power-stopped', stop, why, ...(watch ? { rail: watch.label } : {}), ...more });

  async function run() {
    if (volts === null || !plan) return (recorder.problem = 'Volts of the supply first, such as 12.');
    const startUpId = v7();
    const calledOff = new AbortController();
    running = calledOff;
    [samples, ended] = [[], null];
    let simulated: { simulated?: true } = {};
    let end: { stop: Stop; why: string } | null = null;
    try {
      const over = await runFirstPower(
        view.ticket.id,
        { volts, ...(watch ? { watch: { net: watch.net, volts: watch.volts } } : {}) },
        (s) => samples.push(s),
        calledOff.signal,
      );
      simulated = over.simulated ? { simulated: true } : {};
      end = over.end === 'passed' ? null : over.end;
      recorder.problem = null;
    } catch (e) {
      if (calledOff.signal.aborted) end = { stop: 'called off', why: '' };
      else recorder.problem = (e as Error).message;
    } finally {
      running = null;
    }
    if (samples.length === 0) return;
    for (const { stage, limit_A } of plan.stages) {
      const last = curve.findLast((s) => s.stage === stage);
      if (!last) continue;
      const at = { at_s: Number(last.at_s.toFixed(2)), current_A: Number(last.current_A.toPrecision(3)) };
      const told = { type: 'supply-stage' as const, startUpId, stage, supply_V: volts, limit_A, ...at, ...simulated };
      if (!(await recorder.record(told))) return;
    }
    if (end) await stopIt(end.stop, end.why, { startUpId, ...simulated });
    else ended = 'passed';
  }
</script>

<h3 class="mt-5 mb-1 border-t border-line pt-3">First power, in stages</h3>
{#if mains}
  <p class="mb-1 border-l-[3px] border-stop pl-2 text-[13px]">
    <b>Mains primary:</b> by qualified people alone. A lamp in series on an isolating transformer, which takes the residual-current
    device behind it out of play; one hand, strap off, nobody alone. Local rules come first.
  </p>
{/if}
{#if stopped && !ended}
  <p class="font-semibold text-stop" role="status">
    <span aria-hidden="true">▲</span> Stopped: {STOPS[stopped.stop]}{stopped.why ? `, ${stopped.why}` : ''}
    {#if stopped.simulated}<span class="text-[12px] text-caution">simulated</span>{/if}
  </p>
{:else if shut}
  <p class="text-[13px] font-semibold text-stop"><span aria-hidden="true">▲</span> {shut.why}</p>
{/if}
<div class="flex flex-wrap items-end gap-2">
  <label class="w-20"
    ><span class="label">Supply V</span><input class="field" bind:value={typed} placeholder="12" /></label
  >
  {#if rails.length > 0}
    <div class="min-w-40 flex-1">
      <Select
        label="Rail the meter watches"
        choices={[
          { value: '', label: 'none' },
          ...rails.map((r) => ({ value: r.net, label: `${r.label}, stops above ${(1.1 * r.volts).toFixed(1)} V` })),
        ]}
        bind:value={watched}
      />
    </div>
  {/if}
  {#if running}
    <button class="button button-main bg-stop px-6" onclick={() => running?.abort()}>Stop</button>
  {:else}
    <button class="button button-main px-4" onclick={run} disabled={shut !== undefined || plan === null}
      >Leads on, hands off: start</button
    >
  {/if}
</div>
{#if plan}
  <table class="mt-2 w-full text-[13px]">
    <thead class="text-left text-ink2">
      <tr
        ><th class="font-normal">Stage</th><th class="font-normal">limit</th><th class="font-normal">for</th><th
          class="font-normal">good unit</th
        ><th class="font-normal">stops</th></tr
      >
    </thead>
    <tbody>
      {#each plan.stages as s (s.stage)}
        <tr class="border-t border-faint {now?.stage === s.stage && running ? 'font-semibold' : ''}">
          <td>{s.stage}</td>
          <td>{formatReading(s.limit_A, 'current')}</td>
          <td>{s.for_s.toFixed(0)} s</td>
          <td>{s.good_A === null ? '?' : formatReading(s.good_A, 'current')}</td>
          <td
            >{s.stage === 'soak'
              ? 'held down for 2 s'
              : s.most_A === null
                ? 'held'
                : `above ${formatReading(s.most_A, 'current')}, or held`}</td
          >
        </tr>
      {/each}
    </tbody>
  </table>
  <p class="text-[13px] text-ink2">
    {plan.from === 'a good unit'
      ? 'Limits from what a good unit draws.'
      : 'No good unit known: limits are an estimate.'} Feel for warmth after each stage; anything warm, smoke or smell: stop.
  </p>
{/if}
{#if now}
  <p class="mt-1 text-xl font-semibold" role={running ? undefined : 'status'} data-testid="first-power">
    {now.stage}: {formatReading(now.current_A, 'current')}, {now.volts.toFixed(1)} V{now.rail_V === undefined
      ? ''
      : `, ${watch?.label ?? 'rail'} ${now.rail_V.toFixed(2)} V`}
    {#if ended}<span class="text-good">✓ passed</span>{/if}
  </p>
  {#await import('$lib/intake/StartUpChart.svelte') then { default: StartUpChart }}<StartUpChart
      stages={curve.filter((_, n) => n % 4 === 0)}
      {good}
    />{/await}
{/if}
<div class="mt-1">
  {#each sources as s (s.id)}
    {@const gone = job.powerGone.has(s.id)}
    <div class="flex items-center gap-2 border-t border-faint py-1">
      <span class="flex-1">By hand: {s.label}</span>
      <button
        class="button px-3"
        onclick={() => recorder.record({ type: 'power-connected', sourceId: s.id })}
        disabled={!gone && job.powerLapse !== undefined}
        >{gone || job.powerLapse === undefined ? 'Connect' : 'Connected'}</button
      >
    </div>
  {:else}
    <p class="text-ink2">No source is listed for this board.</p>
  {/each}
  {#if job.powerLapse !== undefined}
    <div class="flex flex-wrap items-center gap-2 border-t border-faint py-1">
      <span class="text-[13px] text-ink2">Switched off again, because</span>
      {#each ['over-voltage', 'at the limit', 'warm'] as const as stop (stop)}
        <button class="button px-2.5" onclick={() => stopIt(stop, '')}>{STOPS[stop]}</button>
      {/each}
    </div>
  {/if}
</div>
