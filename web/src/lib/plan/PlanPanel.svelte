<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import Select from '$lib/ui/Select.svelte';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { Way } from '@orthos/core/compare';
  import type { UnitSettings } from '@orthos/core/ground';
  import { isDoable, methodName, type Phase, phaseOf } from '@orthos/core/rework';
  import { onDestroy, onMount, untrack } from 'svelte';
  import Ways from './Ways.svelte';
  import { heatOnStage, meltTimes, planCallouts } from './onStage';
  import PlanHeading from './PlanHeading.svelte';
  import { PlanKeeper } from './planKeeper.svelte';
  import { surroundingWords } from './surroundings';
  import { worthShowing } from './words';

  let { view, units }: { view: JobView; units: UnitSettings } = $props();
  const desk = useDesk();
  let editing = $state(false);
  const keeper = new PlanKeeper(
    () => view,
    untrack(() => page.url.searchParams.get('method')),
    {
      begins() {
        editing = false;
        desk.lens = 'heat';
        desk.time = 0;
      },
      changed: () => (editing = false),
      shows: ({ allWet_s }) => (desk.time = allWet_s || desk.time),
    },
  );
  const { planner, edits } = keeper;
  const { inputs, rows, sure, chosen, result, method, stale, usable, inUse, end } = $derived(keeper);
  const target = $derived(view.board.parts.find((p) => p.partId === inputs?.target));
  const panel = $derived(inputs?.panel ?? units);
  const byAir = $derived(method && phaseOf(method, 'air') !== undefined);
  const bead = $derived(method && phaseOf(method, 'stroke'));
  /** The tip as cold as it may be. */
  async function tipAt(set_C: number) {
    if (!method) return;
    const phases = method.phases.map((p) => (p === bead ? { ...p, settings: { ...p.settings, set_C } } : p)) as Phase[];
    await keeper.anew(edits.method({ ...method, phases }));
  }
  async function takeWay({ row: { procedure } }: Way) {
    if (procedure) await keeper.anew(edits.way(procedure), () => keeper.pick(procedure.method));
  }

  /** The neighbour that suffers most, where it stands on the side that is worked at. */
  const coverable = $derived.by(() => {
    const worst = view.board.parts.find((p) => p.partId === (chosen && rows[chosen]?.worst?.partId));
    return worst?.side === target?.side ? worst?.partId : undefined;
  });
  let finding = $state(false);
  let around = $state(false);
  const setAround = $derived(surroundingWords(inputs?.settings.surroundings ?? {}));

  onMount(() => {
    desk.selected = null;
    desk.lens = 'heat';
    if (target) desk.side = target.side;
    if (inputs && (!view.plan || (view.freshness === 'fresh' && !view.plan.whole)) && !planner.running)
      void keeper.compute();
  });
  onDestroy(() => keeper.leave());

  $effect(() => keeper.picture());
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
      run: () => (planner.running ? keeper.cancel() : void keeper.compute()),
      line: true,
    },
    { keys: ['u', 'Enter'], label: 'use this plan', run: () => void keeper.use(), line: usable },
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
        <button class="button button-main" onclick={() => keeper.compute()}>Compute again</button>
      </div>
    {:else if keeper.oldEngine}
      <p class="mb-3 font-semibold text-caution">
        <span aria-hidden="true">◆</span> Computed by an older version of the model; compute again for today's.
      </p>
    {/if}
    <Notice text={keeper.problem} at="panel" class="mb-3" />
    <Notice text={planner.error && `The computation stopped: ${planner.error}`} at="panel" class="mb-3" />

    <div class="flex flex-wrap items-start gap-x-4 gap-y-2">
      <div class="min-w-64 flex-1 {stale ? 'opacity-60' : ''}" aria-live="polite">
        <PlanHeading
          board={view.board}
          target={inputs.target}
          running={planner.running}
          shown={result && chosen ? { id: chosen, result, method } : undefined}
          nothing={keeper.here.size === 0}
          cancelled={keeper.cancelled}
          {units}
        />
      </div>
      <div class="flex max-w-96 flex-wrap justify-end gap-2">
        {#if sure.size > 0}
          <button
            class="button button-main"
            onclick={() => keeper.use()}
            disabled={!usable || keeper.using || inUse === chosen}
          >
            {inUse === chosen ? 'In use' : 'Use this plan'}
          </button>
        {:else if !planner.running}
          <button class="button button-main" onclick={() => keeper.compute()} disabled={keeper.here.size === 0}
            >Compute</button
          >
        {/if}
        {#if planner.running}
          <button class="button {usable ? '' : 'button-main'}" onclick={() => keeper.cancel()}>Cancel</button>
        {/if}
        <button class="button" onclick={() => (editing = !editing)} disabled={!method} aria-expanded={editing}
          >Change settings</button
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
            bind:value={
              () => inputs.bench.name, (name) => void (name !== inputs.bench.name && keeper.anew(edits.bench(name)))
            }
          />
        {/if}
        <button class="button" onclick={() => (around = !around)} aria-expanded={around}
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
      bind:chosen={() => chosen, (id) => keeper.pick(id)}
      bind:weights={keeper.weights}
      mustLive={inputs.settings.surroundings?.reused ?? false}
      units={panel}
      {stale}
      settling={planner.anew && planner.timing.quick === null}
      onLook={planner.running || stale || sure.size === 0 ? undefined : (methods) => keeper.first(methods)}
    />

    {#if end.recommended === chosen && result && !planner.running}
      <div class="mt-2 border-l-[3px] border-good pl-3 text-[13px]">
        <p class="font-semibold">Recommended as weighed:</p>
        {#each end.reasons as line (line)}<p>{line}</p>{/each}
      </div>
    {/if}

    {#if keeper.shut}
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
            weights={keeper.weights}
            units={panel}
            worst={coverable}
            onTake={(next, covers) => keeper.anew(edits.found(next, covers), () => (finding = false))}
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
          onSave={(next) => keeper.anew(edits.surroundings(next), () => (around = false))}
        />
      {/await}
    {/if}

    {#if result}
      {#await import('./Neighbours.svelte') then { default: Neighbours }}<Neighbours
          board={view.board}
          {result}
          {units}
          onTakenOut={(partId) => keeper.anew(edits.takenOut(partId))}
        />{/await}
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
