<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { goto } from '$app/navigation';
  import { aboutWork } from '$lib/jobs/about';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import { recordEvent, reloadView, SendError, sendPlan, sendPlanSettings, takeKnownPlan } from '$lib/jobs/send';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { UnitSettings } from '@orthos/core/ground';
  import {
    type Method,
    methodName,
    type Phase,
    phaseOf,
    type PlanResult,
    type Surroundings,
  } from '@orthos/core/rework';
  import { ENGINE_VERSION } from '@orthos/core/thermal';
  import { onDestroy, onMount, untrack } from 'svelte';
  import Joints from './Joints.svelte';
  import LiftRows from './LiftRows.svelte';
  import SurroundingsForm from './Surroundings.svelte';
  import SideEffects from './SideEffects.svelte';
  import Matters from './Matters.svelte';
  import MethodSettings from './MethodSettings.svelte';
  import Neighbours from './Neighbours.svelte';
  import { heatOnStage, meltTimes, planCallouts } from './onStage';
  import { plannerOf } from './planner.svelte';
  import { surroundingWords } from './surroundings';
  import { bestMethod, explanation, headline, nameOf, worthShowing } from './words';

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
    // the page may be left, or its inputs changed, while this goes on
    const [from, { board }] = [inputs, view];
    const { id } = view.ticket;
    try {
      // asked for again where it stands already, it is computed again; so it is while nobody answers
      if (view.freshness !== 'fresh' && (await takeKnownPlan(id).catch(() => false))) {
        planner.forget();
        look(view.plan?.results ?? {});
        return;
      }
      if (!(await planner.compute(board, from))) return;
      look(planner.results);
      await sendPlan(id, { inputHash: from.hash, engineVersion: ENGINE_VERSION, results: planner.results });
    } catch (e) {
      problem = (e as Error).message;
      if (e instanceof SendError && e.status === 409) await reloadView();
    }
  }
  /** Shows the best method at the moment it is through. */
  function look(at: Record<string, PlanResult>) {
    if (!here) return;
    chosen = bestMethod(at);
    desk.time = (chosen && at[chosen].allWet_s) || desk.time;
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
      planner.forget();
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
  const setAround = $derived(surroundingWords(inputs?.settings.surroundings ?? {}));

  onMount(() => {
    desk.selected = null;
    desk.lens = 'heat';
    if (target) desk.side = target.side;
    if (inputs && !view.plan && !planner.running) void compute();
  });
  onDestroy(() => {
    here = false;
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
  const frames = $derived(chosen ? planner.frames[chosen] : undefined);
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
        near={result ? worthShowing(result, 6).map((n) => n.partId) : []}
        {units}
        onSave={saveSurroundings}
      />
    {/if}

    {#if result}
      <Neighbours board={view.board} {result} {units} onTakenOut={takenOut} />
      <Joints {result} {units} />
      {#if result.outcomes}<SideEffects board={view.board} {result} {units} />{/if}
      <Matters {result} {units} tip_C={stale ? undefined : bead?.settings.set_C} onTip={tipAt} />
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
