<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import Select from '$lib/ui/Select.svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { aboutWork } from '$lib/jobs/about';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import { recordEvent, reloadView, SendError, sendPlan, takeKnownPlan } from '$lib/jobs/send';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { UnitSettings } from '@orthos/core/ground';
  import { isDoable, methodName, type Phase, phaseOf } from '@orthos/core/rework';
  import { ENGINE_VERSION } from '@orthos/core/thermal';
  import { onDestroy, onMount, untrack } from 'svelte';
  import Ways from './Ways.svelte';
  import { EVEN, inTheEnd, type Planned, type Row, type Way, weighed, type Weights } from '@orthos/core/compare';
  import Neighbours from './Neighbours.svelte';
  import { Edits } from './edits';
  import { heatOnStage, meltTimes, planCallouts } from './onStage';
  import PlanHeading from './PlanHeading.svelte';
  import { plannerOf } from './planner.svelte';
  import { surroundingWords } from './surroundings';
  import { worthShowing } from './words';

  let { view, units }: { view: JobView; units: UnitSettings } = $props();
  const desk = useDesk();
  const planner = untrack(() => plannerOf(view.ticket.id));
  /** The page is still there; what was begun on it goes on without it. */
  let open = true;
  /** What the technician picked, against what is proposed; the address may ask for it. */
  let picked = $state<string | null>(
    untrack(() => {
      const asked = page.url.searchParams.get('method');
      return view.inputs?.methods.some((m) => m.method.id === asked && isDoable(m)) ? asked : null;
    }),
  );
  let chosen = $state<string | null>(untrack(() => picked));
  let editing = $state(false);
  let problem = $state<string | null>(null);
  let cancelled = $state(false);

  const inputs = $derived(view.inputs);
  const target = $derived(view.board.parts.find((p) => p.partId === inputs?.target));
  /** What is stored, with what was computed on this visit; nothing old while all is computed anew. */
  const results = $derived<Record<string, Planned>>(
    planner.anew ? planner.results : { ...view.plan?.results, ...planner.results },
  );
  /** What counts how much, as it is weighed on this page. */
  let weights = $state<Weights>(EVEN);
  /** What is known of each way: in full, else a first answer. */
  const rows = $derived<Record<string, Row>>(
    Object.fromEntries(
      [...Object.entries(planner.quick), ...Object.entries(results)].flatMap(([id, r]) => (r.row ? [[id, r.row]] : [])),
    ),
  );
  const sure = $derived(new Set(Object.keys(results)));
  /** Ways whose tools are all there. */
  const here = $derived(new Set(inputs?.methods.filter(isDoable).map((m) => m.method.id)));
  const end = $derived(inTheEnd(Object.values(rows).flatMap((r) => (here.has(r.id) ? [weighed(r, weights)] : []))));
  const stale = $derived(!planner.running && view.plan !== null && view.freshness === 'stale');
  const oldEngine = $derived(!planner.running && view.freshness === 'older-engine');
  const result = $derived(chosen ? results[chosen] : undefined);
  const method = $derived(inputs?.methods.find((m) => m.method.id === chosen)?.method);
  const panel = $derived(inputs?.panel ?? units);
  const byAir = $derived(method && phaseOf(method, 'air') !== undefined);
  const bead = $derived(method && phaseOf(method, 'stroke'));
  /** The method the hands follow, as long as its plan holds. */
  const inUse = $derived(
    view.gates.find((g) => g.id === 'plan-fresh')?.state === 'met' ? view.inUse?.method.id : undefined,
  );

  $effect(() => {
    if (chosen && (chosen === picked || chosen === inUse)) return;
    // the best so far, in full or by its first answer, once every way has one
    if (planner.anew)
      chosen = (planner.timing.quick === null ? null : end.rows.find((r) => !r.lastResort)?.id) ?? chosen;
    else if (!planner.running && !(chosen && results[chosen])) chosen = bestOf(results) ?? chosen;
  });

  /** The way to propose of those computed in full. */
  const bestOf = (at: Record<string, Planned>): string | null => {
    const full = Object.values(at).flatMap((r) => (r.row && here.has(r.row.id) ? [weighed(r.row, weights)] : []));
    return inTheEnd(full).rows.find((r) => !r.lastResort)?.id ?? Object.keys(at)[0] ?? null;
  };

  /** Somebody picked a way that was not computed in full: it is now, and kept with the others. */
  async function more(id: string) {
    const wanted = inputs?.methods.find((m) => m.method.id === id && !m.unfit)?.method;
    if (!inputs || !wanted || planner.anew || results[id]) return;
    const [from, before] = [inputs, results];
    if (!(await planner.add(view.board, from, wanted))) return;
    try {
      const all = { ...before, ...planner.results };
      const whole = view.plan?.whole ?? false;
      await sendPlan(view.ticket.id, { inputHash: from.hash, engineVersion: ENGINE_VERSION, results: all, whole });
    } catch (e) {
      problem = (e as Error).message;
      if (e instanceof SendError && e.status === 409) await reloadView();
    }
  }

  // asked for while others were computed, it comes after them
  let asked = '';
  $effect(() => {
    if (!picked || starting || planner.anew || stale || results[picked] || asked === picked) return;
    asked = picked;
    const id = picked;
    untrack(() => void more(id));
  });

  /** Asked for, and not begun: what was computed before may be taken over. */
  let starting = $state(false);
  async function compute() {
    asked = '';
    await edits.storing;
    if (!inputs || here.size === 0) return;
    starting = true;
    problem = null;
    cancelled = false;
    editing = false;
    desk.lens = 'heat';
    desk.time = 0;
    // the page may be left, or its inputs changed, while this goes on
    const [from, { board }] = [inputs, view];
    const { id } = view.ticket;
    try {
      // asked for again where it stands already, it is computed again; so it is while nobody answers
      const begun = view.freshness === 'fresh' && view.plan?.whole === false;
      if ((begun || view.freshness !== 'fresh') && (await takeKnownPlan(id).catch(() => false))) {
        planner.forget();
        look(view.plan?.results ?? {});
        return;
      }
      // begun before, and left: it goes on with what is there
      const known = (begun && view.plan?.results) || {};
      const computing = planner.compute(board, from, () => (picked ? [picked] : []), known);
      starting = false;
      const whole = await computing;
      if (whole) look(planner.results);
      // called off or failed, what is through by then stays
      else if (planner.running || Object.keys(planner.results).length <= Object.keys(known).length) return;
      await sendPlan(id, { inputHash: from.hash, engineVersion: ENGINE_VERSION, results: planner.results, whole });
    } catch (e) {
      problem = (e as Error).message;
      if (e instanceof SendError && e.status === 409) await reloadView();
    } finally {
      starting = false;
    }
  }
  /** Shows what was picked or is in use already, else the best, at the moment it is through. */
  function look(at: Record<string, Planned>) {
    if (!open) return;
    // what was picked and is not there yet comes after the others
    const wanted = inputs?.methods.some((m) => m.method.id === picked && !m.unfit) ? picked : null;
    chosen = wanted ?? (inUse && at[inUse] ? inUse : bestOf(at));
    desk.time = (chosen && at[chosen]?.allWet_s) || desk.time;
  }
  function cancel() {
    planner.cancel();
    cancelled = true;
  }
  const isStored = $derived(!planner.anew && chosen !== null && view.plan?.results[chosen] !== undefined);
  /** Computed in full, of today's inputs, and with tools that are there: hands may follow it, whether or not others are still computed. */
  const usable = $derived(
    chosen !== null && !stale && here.has(chosen) && (isStored || (planner.anew && results[chosen] !== undefined)),
  );
  let using = $state(false);
  async function use() {
    if (!chosen || !usable || using) return;
    using = true;
    const [methodId, { id }] = [chosen, view.ticket];
    try {
      const planId =
        isStored && view.plan
          ? view.plan.id
          : await sendPlan(id, {
              inputHash: planner.from?.hash,
              engineVersion: ENGINE_VERSION,
              results: planner.results,
              whole: false,
            });
      await recordEvent(id, { type: 'plan', planId, methodId, ...aboutWork(view) });
    } catch (e) {
      problem = (e as Error).message;
      if (e instanceof SendError && e.status === 409) await reloadView();
    } finally {
      using = false;
    }
  }
  const edits = new Edits({
    view: () => view,
    onKept: () => {
      planner.forget();
      editing = false;
    },
    onProblem: (message) => (problem = message),
  });
  /** Computed with what was changed, as soon as the server has it. */
  async function anew(kept: Promise<boolean>, then?: () => void) {
    if (!(await kept)) return;
    then?.();
    await compute();
  }
  /** The tip as cold as it may be. */
  async function tipAt(set_C: number) {
    if (!method) return;
    const phases = method.phases.map((p) => (p === bead ? { ...p, settings: { ...p.settings, set_C } } : p)) as Phase[];
    await anew(edits.method({ ...method, phases }));
  }
  async function takeWay({ row: { procedure } }: Way) {
    if (procedure) await anew(edits.way(procedure), () => (picked = chosen = procedure.method));
  }

  /** The neighbour that suffers most, where it stands on the side that is worked at. */
  const coverable = $derived.by(() => {
    const worst = view.board.parts.find((p) => p.partId === (chosen && rows[chosen]?.worst?.partId));
    return worst?.side === target?.side ? worst?.partId : undefined;
  });
  /** No way is safe as tools are usually set. */
  const shut = $derived(
    !planner.running && !stale && sure.size > 0 && !end.rows.some((r) => r.verdict === 'works' && !r.lastResort),
  );
  let finding = $state(false);
  let around = $state(false);
  const setAround = $derived(surroundingWords(inputs?.settings.surroundings ?? {}));

  onMount(() => {
    desk.selected = null;
    desk.lens = 'heat';
    if (target) desk.side = target.side;
    if (inputs && (!view.plan || (view.freshness === 'fresh' && !view.plan.whole)) && !planner.running) void compute();
  });
  onDestroy(() => {
    open = false;
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
  // until something is known, the picture is that of the way that is computed first
  const pictured = $derived(chosen ?? inputs?.methods.find(isDoable)?.method.id);
  const frames = $derived(pictured ? planner.frames[pictured] : undefined);
  $effect(() => {
    // while it is computed the picture is as old as the computation
    if (frames && planner.running && !result) desk.time = frames.times_s.at(-1) ?? 0;
  });
  layOver(desk, () => {
    if (!target || !inputs || stale) return {};
    return {
      ...(frames ? { heat: heatOnStage(view.board, target, frames, result, units) } : {}),
      ...(result
        ? {
            melt: meltTimes(view.board, result),
            callouts: planCallouts(view.board, target, result, inputs.settings.ambient_C, units),
            ...(result.last ? { marked: { partId: target.partId, terminal: result.last.terminal } } : {}),
          }
        : {}),
    };
  });

  useKeys('Plan actions', () => [
    {
      keys: ['c'],
      label: planner.running ? 'cancel' : 'compute',
      run: () => (planner.running ? cancel() : void compute()),
      line: true,
    },
    { keys: ['u', 'Enter'], label: 'use this plan', run: () => void use(), line: usable },
    { keys: ['s'], label: 'change settings', run: () => (editing = !editing) },
    ...(editing || around
      ? [{ keys: ['Escape'], label: 'close what is open', run: () => ([editing, around] = [false, false]) }]
      : []),
  ]);
</script>

<div
  class="p-5 pt-4"
  data-first-picture-ms={planner.timing.first?.toFixed(0)}
  data-quick-ms={planner.timing.quick?.toFixed(0)}
  data-all-ms={planner.timing.all?.toFixed(0)}
  data-whole={usable && !planner.running ? '' : undefined}
  data-shown={result && chosen && !stale ? methodName(chosen) : undefined}
>
  {#if !inputs || !target}
    <h2 class="mb-2 text-xl">No target yet</h2>
    <p class="mb-4 text-ink2">A plan needs the part that comes off or goes on.</p>
    <button class="button button-main" onclick={() => goto(`/jobs/${view.ticket.id}/diagnose`)}
      >Choose the suspect</button
    >
  {:else}
    {#await import('$lib/hands/HeatSoFar.svelte') then { default: HeatSoFar }}<HeatSoFar {view} />{/await}
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

    <div class="flex flex-wrap items-start gap-x-4 gap-y-2">
      <div class="min-w-64 flex-1 {stale ? 'opacity-60' : ''}" aria-live="polite">
        <PlanHeading
          board={view.board}
          target={inputs.target}
          running={planner.running}
          shown={result && chosen ? { id: chosen, result, method } : undefined}
          nothing={here.size === 0}
          {cancelled}
          {units}
        />
      </div>
      <div class="flex max-w-96 flex-wrap justify-end gap-2">
        {#if Object.keys(results).length > 0}
          <button class="button button-main" onclick={use} disabled={!usable || using || inUse === chosen}>
            {inUse === chosen ? 'In use' : 'Use this plan'}
          </button>
        {:else if !planner.running}
          <button class="button button-main" onclick={compute} disabled={here.size === 0}>Compute</button>
        {/if}
        {#if planner.running}
          <button class="button {usable ? '' : 'button-main'}" onclick={cancel}>Cancel</button>
        {/if}
        <button
          class="button"
          onclick={() => (editing = !editing)}
          disabled={!method || planner.running}
          aria-expanded={editing}>Change settings</button
        >
        <button
          class="button"
          onclick={() => (finding = !finding)}
          disabled={!method || planner.running || stale}
          aria-expanded={finding}>Find settings</button
        >
        {#if inputs.bench.names.length > 1}
          <Select
            class="w-auto max-w-44"
            aria-label="Bench"
            choices={Object.fromEntries(inputs.bench.names.map((name) => [name, name]))}
            bind:value={() => inputs.bench.name, (name) => void (name !== inputs.bench.name && anew(edits.bench(name)))}
            disabled={planner.running}
          />
        {/if}
        <button class="button" onclick={() => (around = !around)} disabled={planner.running} aria-expanded={around}
          >Surroundings{setAround ? `: ${setAround}` : ''}</button
        >
      </div>
    </div>

    <Ways
      board={view.board}
      methods={inputs.methods}
      bench={inputs.bench.names.length > 1 ? inputs.bench.name : ''}
      {rows}
      {sure}
      progress={planner.progress}
      bind:chosen={() => chosen, (id) => (chosen = picked = id)}
      bind:weights
      mustLive={inputs.settings.surroundings?.reused ?? false}
      units={panel}
      {stale}
      settling={planner.anew && planner.timing.quick === null}
      onLook={planner.running || stale || sure.size === 0
        ? undefined
        : (methods) => inputs && void planner.look(view.board, inputs, methods)}
    />

    {#if end.recommended === chosen && result && !planner.running}
      <div class="mt-2 border-l-[3px] border-good pl-3 text-[13px]">
        <p class="font-semibold">Recommended as weighed:</p>
        {#each end.reasons as line (line)}<p>{line}</p>{/each}
      </div>
    {/if}

    {#if shut}
      {#await import('./WayOut.svelte') then { default: WayOut }}
        <WayOut board={view.board} {inputs} units={panel} onTake={takeWay} />
      {/await}
    {/if}

    {#if result && !result.calibrated}
      <p class="mt-1 mb-3 text-[13px] text-caution">
        <span class="font-semibold"
          ><span aria-hidden="true">◆</span>
          {method && !byAir ? inputs.kit.iron.name : inputs.kit.station.name}: uncalibrated.</span
        >
        Trust the order and the risks; take the seconds as ranges.
      </p>
    {/if}

    {#if editing && method}
      {#key method.id}
        {#await import('./MethodSettings.svelte') then { default: MethodSettings }}<MethodSettings
            board={view.board}
            {inputs}
            {method}
            units={panel}
            onSave={(next) => edits.method(next)}
            onClose={() => (editing = false)}
          />{/await}
      {/key}
    {/if}

    {#if finding && method && !stale}
      {#key method.id}
        {#await import('./FindSettings.svelte') then { default: FindSettings }}<FindSettings
            board={view.board}
            {inputs}
            {method}
            {weights}
            units={panel}
            worst={coverable}
            onTake={(next, covers) => anew(edits.found(next, covers), () => (finding = false))}
            onClose={() => (finding = false)}
          />{/await}
      {/key}
    {/if}

    {#if around && target}
      {#await import('./Surroundings.svelte') then { default: SurroundingsForm }}
        <SurroundingsForm
          board={view.board}
          {target}
          value={inputs.settings.surroundings ?? {}}
          near={result ? worthShowing(result, 6).map((n) => n.partId) : []}
          {units}
          bench={inputs.bench}
          onSave={(next) => anew(edits.surroundings(next), () => (around = false))}
        />
      {/await}
    {/if}

    {#if result}
      <Neighbours board={view.board} {result} {units} onTakenOut={(partId) => anew(edits.takenOut(partId))} />
      {#await import('./Details.svelte') then { default: Details }}
        {#if method}<Details
            {inputs}
            board={view.board}
            {target}
            {method}
            {result}
            {units}
            tip_C={stale ? undefined : bead?.settings.set_C}
            onTip={tipAt}
          />{/if}
      {/await}
    {/if}
    <p class="mt-4 text-[13px] text-ink3">
      Hot surfaces and fumes: extraction on, eyes covered, cells out before heat. Wash hands after lead.
    </p>
  {/if}
</div>
