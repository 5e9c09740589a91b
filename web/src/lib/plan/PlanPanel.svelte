<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { goto } from '$app/navigation';
  import { aboutWork } from '$lib/jobs/about';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import { recordEvent, reloadView, SendError, sendPlan, sendPlanSettings } from '$lib/jobs/send';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { SOLDER_ALLOYS } from '@orthos/core/alloys';
  import { toBoard } from '@orthos/core/board';
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import { packageById } from '@orthos/core/packages';
  import {
    fateOf,
    harmOf,
    type Method,
    methodName,
    type Phase,
    phaseOf,
    type PlanResult,
    type Surroundings,
    wetAt,
    windowEnd,
  } from '@orthos/core/rework';
  import { ENGINE_VERSION } from '@orthos/core/thermal';
  import { onDestroy, onMount, untrack } from 'svelte';
  import Joints from './Joints.svelte';
  import LiftRows from './LiftRows.svelte';
  import SurroundingsForm from './Surroundings.svelte';
  import SideEffects from './SideEffects.svelte';
  import MethodSettings from './MethodSettings.svelte';
  import { plannerOf } from './planner.svelte';
  import { surroundingWords } from './surroundings';
  import {
    bestMethod,
    closedBy,
    explanation,
    fateText,
    headline,
    MARK,
    nameOf,
    neighbourKind,
    rangeText,
    seconds,
    verdictOf,
    worthShowing,
  } from './words';

  const TONE = { good: 'text-good', caution: 'text-caution', stop: 'text-stop' } as const;

  let { view, units }: { view: JobView; units: UnitSettings } = $props();
  const desk = useDesk();
  const planner = untrack(() => plannerOf(view.ticket.id));
  /** The page is still there; what was begun on it goes on without it. */
  let here = true;
  let chosen = $state<string | null>(null);
  let editing = $state(false);
  let problem = $state<string | null>(null);
  let cancelled = $state(false);

  const inputs = $derived(view.inputs);
  const target = $derived(view.board.parts.find((p) => p.partId === inputs?.target));
  /** Fresh results of this visit, else what is stored. */
  const computed = $derived(Object.keys(planner.results).length > 0);
  const results = $derived<Record<string, PlanResult>>(
    planner.running || computed ? planner.results : (view.plan?.results ?? {}),
  );
  const stale = $derived(!planner.running && view.plan !== null && view.freshness === 'stale');
  const oldEngine = $derived(!planner.running && view.freshness === 'older-engine');
  const result = $derived(chosen ? results[chosen] : undefined);
  const method = $derived(inputs?.methods.find((m) => m.method.id === chosen)?.method);
  /** Units, and what the air dial of this station says. */
  const panel = $derived({ ...units, air: inputs?.station.air });
  const byAir = $derived(method && phaseOf(method, 'air') !== undefined);
  const bead = $derived(method && phaseOf(method, 'stroke'));
  /** The method the hands follow, as long as its plan holds. */
  const inUse = $derived(
    view.gates.find((g) => g.id === 'plan-fresh')?.state === 'met' ? view.inUse?.method.id : undefined,
  );
  const unfit = $derived(inputs?.methods.filter((m) => m.unfit) ?? []);

  $effect(() => {
    const best = bestMethod(results);
    if (!chosen || !results[chosen]) {
      if (best && !planner.running) chosen = best;
      else if (planner.running) chosen ??= inputs?.methods[0]?.method.id ?? null;
    }
  });

  async function compute() {
    if (!inputs) return;
    problem = null;
    cancelled = false;
    editing = false;
    desk.lens = 'heat';
    desk.time = 0;
    const { hash } = inputs;
    const { id } = view.ticket;
    if (!(await planner.compute(view.board, inputs))) return;
    if (here) {
      chosen = bestMethod(planner.results);
      desk.time = (chosen && planner.results[chosen].allWet_s) || desk.time;
    }
    try {
      await sendPlan(id, { inputHash: hash, engineVersion: ENGINE_VERSION, results: planner.results });
    } catch (e) {
      problem = (e as Error).message;
      if (e instanceof SendError && e.status === 409) await reloadView();
    }
  }
  function cancel() {
    planner.cancel();
    cancelled = true;
  }
  async function use() {
    if (!view.plan || !chosen || stale || planner.running) return;
    try {
      await recordEvent(view.ticket.id, {
        type: 'plan',
        planId: view.plan.id,
        methodId: chosen,
        ...aboutWork(view),
      });
    } catch (e) {
      problem = (e as Error).message;
    }
  }
  async function saveSettings(next: Method): Promise<boolean> {
    if (!inputs) return false;
    const methods = inputs.settings.methods.map((m) => (m.id === next.id ? next : m));
    return keep({ ...inputs.settings, methods });
  }
  /** The tip as cold as it may be, and all computed again. */
  async function tipAt(set_C: number) {
    if (!method) return;
    const phases = method.phases.map((p) => (p === bead ? { ...p, settings: { ...p.settings, set_C } } : p)) as Phase[];
    if (await saveSettings({ ...method, phases })) await compute();
  }
  /** Stores settings; what was computed from the old ones goes. True when the server has them. */
  async function keep(settings: unknown): Promise<boolean> {
    try {
      await sendPlanSettings(view.ticket.id, view.ticket.version, settings);
      planner.results = {};
      planner.frames = {};
      editing = false;
      return true;
    } catch (e) {
      problem = (e as Error).message;
      return false;
    }
  }
  async function saveSurroundings(surroundings: Surroundings) {
    if (!inputs) return;
    const set = Object.keys(surroundings).length > 0;
    if (!(await keep({ ...inputs.settings, surroundings: set ? surroundings : undefined }))) return;
    around = false;
    await compute();
  }

  /** The part is off the board meanwhile: computed again without it. */
  async function takenOut(partId: string) {
    const { surroundings = {} } = inputs?.settings ?? {};
    await saveSurroundings({ ...surroundings, absent: [...new Set([...(surroundings.absent ?? []), partId])] });
  }

  let around = $state(false);
  /** What a neighbour's temperature may be off by, in the user's degrees. */
  function spread(partId: string): string {
    const off = result?.neighbourRanges?.find((n) => n.partId === partId)?.atWetPlusMinus_K;
    return off === undefined ? '' : `± ${Math.round(off * (units.temperature === 'F' ? 1.8 : 1))}`;
  }
  const setAround = $derived(surroundingWords(inputs?.settings.surroundings ?? {}));

  onMount(() => {
    desk.selected = null;
    desk.lens = 'heat';
    if (target) desk.side = target.side;
    if (inputs && !view.plan && !planner.running) void compute();
  });
  onDestroy(() => {
    here = false;
    desk.heat = null;
    desk.melt = null;
    desk.marked = null;
    desk.callouts = [];
  });

  // a stored plan brings no field: compute the chosen method's again
  $effect(() => {
    const label = chosen;
    if (!label || !inputs || stale || planner.running || !results[label] || !method) return;
    untrack(() => void planner.fetchFrames(view.board, inputs, method));
  });
  let placedAt = '';
  $effect(() => {
    if (!result || !chosen || placedAt === chosen) return;
    placedAt = chosen;
    desk.time = result.allWet_s ?? result.ended_s;
  });
  $effect(() => {
    const frames = chosen ? planner.frames[chosen] : undefined;
    const own = SOLDER_ALLOYS.get(view.board.jointAlloy);
    const last = result?.joints.find((j) => j.terminal === result.last?.terminal);
    const melts = last?.solidus_C !== undefined && last.liquidus_C !== undefined;
    const range = melts ? [last.solidus_C, last.liquidus_C] : own && [own.Ts.value, own.Tl.value];
    if (!frames || !target || !range || stale) {
      desk.heat = null;
      return;
    }
    const isotherms = [
      { celsius: range[0] as number, dashed: true },
      { celsius: range[1] as number, dashed: false },
    ]
      .filter((i, n, all) => n === all.length - 1 || i.celsius < all[n + 1].celsius - 5)
      .map((i) => ({ ...i, label: formatTemperature(i.celsius, units) }));
    desk.heat = { frames, side: target.side, isotherms };
    if (planner.running && !result) desk.time = frames.times_s.at(-1) ?? 0;
  });
  $effect(() => {
    if (!result || !target || !inputs || stale) {
      desk.melt = null;
      desk.callouts = [];
      desk.marked = null;
      return;
    }
    desk.melt = {
      joints: result.joints.flatMap((j) => wetAt(j) ?? []),
      allWet: result.allWet_s,
      allWetRange: result.allWetRange_s,
      closes: windowEnd(result),
      closedBy: closedBy(view.board, result),
      end: result.ended_s,
    };
    desk.marked = result.last ? { partId: target.partId, terminal: result.last.terminal } : null;
    const close = shownNeighbours
      .filter((n) => n.takeOut || ((harmOf(n).margin_K ?? Infinity) < 40 && n.atWet_C > inputs.settings.ambient_C + 8))
      .slice(0, 2);
    desk.callouts = [
      ...(result.last
        ? [
            {
              id: 'last',
              ...terminalPoint(result.last.terminal),
              side: target.side,
              title: `joint ${result.last.terminal} is last`,
              detail:
                result.allWet_s === null ? verdictOf(result).word : `${seconds(result.allWet_s)}, ${rangeText(result)}`,
              tone: 'hot' as const,
            },
          ]
        : []),
      ...close.flatMap((n) => {
        const part = view.board.parts.find((p) => p.partId === n.partId);
        if (!part) return [];
        return [
          {
            id: n.partId,
            x_mm: part.x_mm,
            y_mm: part.y_mm,
            side: part.side,
            title: `${nameOf(view.board, n.partId)} ${formatTemperature(n.atWet_C, units)}`,
            detail: calloutOf(n),
            tone: 'stop' as const,
          },
        ];
      }),
    ];
  });

  /** Where a joint of the target lies on the board. */
  function terminalPoint(id: string): { x_mm: number; y_mm: number } {
    if (!target) return { x_mm: 0, y_mm: 0 };
    const terminal = packageById(target.package).terminals.find((t) => t.id === id);
    const [x_mm, y_mm] = toBoard(target, terminal?.land.x ?? 0, terminal?.land.y ?? 0);
    return { x_mm, y_mm };
  }

  function calloutOf(n: PlanResult['neighbours'][number]): string {
    if (!result) return '';
    const fate = fateOf(result, n);
    return [fate.word, fateText(n, fate, units)].filter(Boolean).join(', ');
  }

  const shownNeighbours = $derived(result ? worthShowing(result, 6) : []);

  useKeys('Plan actions', () => [
    {
      keys: ['c'],
      label: planner.running ? 'cancel' : 'compute',
      run: () => (planner.running ? cancel() : void compute()),
      line: true,
    },
    { keys: ['u', 'Enter'], label: 'use this plan', run: () => void use(), line: view.plan !== null && !stale },
    { keys: ['s'], label: 'change settings', run: () => (editing = !editing) },
    ...(editing || around
      ? [{ keys: ['Escape'], label: 'close what is open', run: () => ([editing, around] = [false, false]) }]
      : []),
  ]);
</script>

<div
  class="p-5 pt-4"
  data-first-picture-ms={planner.timing.first?.toFixed(0)}
  data-all-ms={planner.timing.all?.toFixed(0)}
>
  {#if !inputs || !target}
    <h2 class="mb-2 text-xl">No target yet</h2>
    <p class="mb-4 text-ink2">A plan needs the part that comes off or goes on.</p>
    <button class="button button-main" onclick={() => goto(`/jobs/${view.ticket.id}/diagnose`)}
      >Choose the suspect</button
    >
  {:else}
    {#if stale}
      <div role="status" class="mb-3 flex items-center gap-3 border-l-[3px] border-caution bg-caution-soft px-3 py-2">
        <p class="flex-1 font-semibold text-caution">
          <span aria-hidden="true">◆</span> Stale: the inputs changed after this plan was computed.
        </p>
        <button class="button button-main" onclick={compute}>Compute again</button>
      </div>
    {:else if oldEngine}
      <p class="mb-3 font-semibold text-caution">
        <span aria-hidden="true">◆</span> Computed by an older version of the model; compute again for today's.
      </p>
    {/if}
    <Notice text={problem} at="panel" class="mb-3" />
    <Notice text={planner.error && `The computation stopped: ${planner.error}`} at="panel" class="mb-3" />

    <div class={stale ? 'opacity-60' : ''} aria-live="polite">
      {#if planner.running && !result}
        <h2 class="mb-1 text-xl">Computing {nameOf(view.board, inputs.target)}</h2>
        <p class="mb-3 text-ink2">Each method as set, then eight quick times with everything uncertain a little off.</p>
      {:else if result && chosen}
        <h2 class="mb-1 text-xl">{headline(chosen, result, view.board)}</h2>
        <p class="mb-3 text-ink2">{method ? explanation(result, view.board, method, units) : ''}</p>
      {:else if cancelled}
        <h2 class="mb-1 text-xl">Cancelled</h2>
        <p class="mb-3 text-ink2">Nothing was stored.</p>
      {:else}
        <h2 class="mb-1 text-xl">Plan for {nameOf(view.board, inputs.target)}</h2>
        <p class="mb-3 text-ink2">Not computed yet.</p>
      {/if}
    </div>

    <LiftRows
      board={view.board}
      methods={inputs.methods}
      {results}
      progress={planner.progress}
      bind:chosen
      units={panel}
      {stale}
    />

    {#if !result?.calibrated}
      <p class="mt-1 mb-3 text-[13px] text-caution">
        <span class="font-semibold"
          ><span aria-hidden="true">◆</span>
          {method && !byAir ? 'The iron' : inputs.kit.station.name}: uncalibrated.</span
        >
        Trust the order and the risks; take the seconds as ranges.
      </p>
    {/if}

    <div class="mb-1 flex flex-wrap gap-2">
      {#if planner.running}
        <button class="button button-main" onclick={cancel}>Cancel</button>
      {:else if Object.keys(results).length === 0}
        <button class="button button-main" onclick={compute}>Compute</button>
      {:else}
        <button class="button button-main" onclick={use} disabled={stale || !result || !view.plan || inUse === chosen}>
          {inUse === chosen ? 'In use' : 'Use this plan'}
        </button>
      {/if}
      <button
        class="button"
        onclick={() => (editing = !editing)}
        disabled={!method || planner.running}
        aria-expanded={editing}>Change settings</button
      >
      <button class="button" onclick={() => (around = !around)} disabled={planner.running} aria-expanded={around}
        >Surroundings{setAround ? `: ${setAround}` : ''}</button
      >
    </div>
    {#if editing && method}
      {#key method.id}
        <MethodSettings {method} units={panel} onSave={saveSettings} onClose={() => (editing = false)} />
      {/key}
    {/if}

    {#if around && target}
      <SurroundingsForm
        board={view.board}
        {target}
        value={inputs.settings.surroundings ?? {}}
        near={shownNeighbours.map((n) => n.partId)}
        {units}
        onSave={saveSurroundings}
      />
    {/if}

    {#if result}
      <h3 class="mt-5 mb-1 text-[13px] text-ink2">
        {result.allWet_s === null ? `Neighbours in ${seconds(result.ended_s)}` : 'Neighbours until the part is off'}
      </h3>
      {#if shownNeighbours.length === 0}
        <p class="border-t border-faint py-2 text-ink2">None comes within 90 K of harm.</p>
      {/if}
      <table class="w-full">
        <tbody>
          {#each shownNeighbours as n (n.partId)}
            {@const fate = fateOf(result, n)}
            <tr class="border-t border-faint">
              <th scope="row" class="w-14 py-1.5 text-left font-semibold">{nameOf(view.board, n.partId)}</th>
              <td class="py-1 text-[13px] leading-tight text-ink2"
                >{n.far ? 'other side, ' : ''}{neighbourKind(view.board, n.partId)}</td
              >
              <td class="w-24 text-right whitespace-nowrap"
                ><span class="text-base font-bold">{formatTemperature(n.atWet_C, units)}</span>
                <span class="text-ink2">{spread(n.partId)}</span></td
              >
              <td class="w-20 pl-2 text-right whitespace-nowrap text-ink2">{fateText(n, fate, units)}</td>
              <td class="w-24 pl-3 font-semibold whitespace-nowrap {TONE[fate.tone]}">
                <span aria-hidden="true">{MARK[fate.tone]}</span>
                {#if fate.first === 'out'}
                  <button class="underline" onclick={() => takenOut(n.partId)}>{fate.word}</button>
                {:else}{fate.word}{/if}
              </td>
            </tr>
          {/each}
        </tbody>
      </table>
      <Joints {result} {units} />
      {#if result.outcomes}<SideEffects board={view.board} {result} {units} />{/if}
      <h3 class="mt-4 mb-1 text-[13px] text-ink2">What matters most</h3>
      <ul class="border-t border-faint pt-1">
        {#each result.matters.slice(0, 4) as m (m.input)}
          <li class="flex justify-between py-0.5">
            <span>{m.input}</span>
            <span class="font-semibold"
              >{m.shift_s === null
                ? 'decides whether it melts'
                : `${m.shift_s >= 0 ? '+' : '−'}${Math.abs(Math.round(m.shift_s))} s`}</span
            >
          </li>
        {/each}
      </ul>
      {#if bead && !stale && result.lowestTip_C !== undefined}
        {@const lowest = result.lowestTip_C}
        <div class="mt-2 flex items-center gap-3 border-t border-faint pt-2">
          <p class="flex-1 text-ink2">
            {#if lowest === null}
              No tip keeps every joint liquid for a lift once the iron has left: lift while it strokes.
            {:else}
              <strong class="text-ink">{formatTemperature(lowest, units)}</strong> is the lowest tip that keeps every
              joint liquid for a lift once the iron has left{lowest === bead.settings.set_C ? ': as set' : ''}.
            {/if}
          </p>
          {#if lowest !== null && lowest !== bead.settings.set_C}
            <button class="button" onclick={() => tipAt(lowest)}>Set {formatTemperature(lowest, units)}</button>
          {/if}
        </div>
      {/if}
      <p class="mt-2 text-ink2">
        Heat left on to {Math.round(result.ended_s)} s: body up to
        <strong>{formatTemperature(result.body_C, units)}</strong>, lands up to
        <strong>{formatTemperature(result.pads_C, units)}</strong>.
        <span class="text-ink3"
          >{result.cells.toLocaleString('en')} cells, {result.steps.toLocaleString('en')} steps.</span
        >
      </p>
    {/if}
    {#if unfit.length > 0}
      <h3 class="mt-4 mb-1 text-[13px] text-ink2">Not on this job</h3>
      {#each unfit as u (u.method.id)}<p><strong>{methodName(u.method.id)}</strong>: {u.unfit}.</p>{/each}
    {/if}
    <p class="mt-4 text-[13px] text-ink3">
      Hot surfaces and fumes: extraction on, eyes covered, cells out before heat. Wash hands after lead.
    </p>
  {/if}
</div>
