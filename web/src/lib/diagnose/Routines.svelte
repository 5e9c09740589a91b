<script lang="ts">
  // The shop's own order of tests for this family of boards: walked here, written and changed here.
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { reload, send } from '$lib/jobs/send';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import type { Circuit, DiagnoseView, Routine } from './view';
  import { isPowered } from '@orthos/core/circuit';
  import { meetsRoutine, type RoutineStep } from '@orthos/core/diagnosis';
  import type { JobEventBody, JobState } from '@orthos/core/job';
  import { untrack } from 'svelte';
  import { v7 } from 'uuid';
  import { askMeter, sourceOf } from './askMeter';
  import { standing } from './question';
  import { modeName, placeOfProbe, probeKey, probeName, QUANTITY_OF, readTyped, shown, type Probe } from './probes';
  import RoutineForm from './RoutineForm.svelte';

  interface Props {
    view: DiagnoseView;
    job: JobState;
    circuit: Circuit | null;
    models: { id: string; name: string }[];
    record: (body: JobEventBody) => Promise<boolean>;
  }
  let { view, job, circuit, models, record }: Props = $props();
  const desk = useDesk();
  let chosen = $state(untrack(() => view.routines[0]?.id ?? ''));
  const routine = $derived(view.routines.find((r) => r.id === chosen) ?? view.routines[0]);
  let editing = $state<Routine | null>(null);
  let typed = $state<Record<string, string>>({});
  let problem = $state('');

  const ground = $derived(circuit?.netlist.ground ?? 'GND');
  const bare = $derived(circuit?.netlist ?? { ground, parts: [], alias: {}, pairs: [], jopen: [] });
  const doneOf = (step: RoutineStep) => (routine ? job.routineSteps.get(`${routine.id} ${step.id}`) : undefined);
  const next = $derived(routine?.steps.find((s) => !doneOf(s)));
  const off = $derived(routine?.steps.filter((s) => doneOf(s)?.result === 'off') ?? []);
  const probeOf = (r: NonNullable<RoutineStep['reading']>): Probe => ({
    type: r.type,
    red: r.red,
    black: r.black || ground,
    state: r.state,
  });
  const bounds = ({ type, least, most }: NonNullable<RoutineStep['reading']>) =>
    least !== null && most !== null
      ? `${shown(type, least)} to ${shown(type, most)}`
      : least !== null
        ? `at least ${shown(type, least)}`
        : most !== null
          ? `at most ${shown(type, most)}`
          : 'note it';
  const valueOf = (step: RoutineStep) => {
    if (!step.reading) return null;
    const key = probeKey(probeOf(step.reading));
    const taken = standing(job).findLast((r) => r.probe && probeKey(r.probe) === key);
    return taken ? shown(step.reading.type, taken.value) : null;
  };

  const say = (step: RoutineStep, result: 'as it should' | 'off' | 'skipped') =>
    routine && record({ type: 'routine-step', routineId: routine.id, step: step.id, result });
  async function read(step: RoutineStep, fromMeter: boolean) {
    const { reading } = step;
    if (!reading) return;
    const probe = probeOf(reading);
    let value;
    let by = {};
    if (fromMeter) {
      try {
        const answer = await askMeter(view.ticket.id, probe);
        value = answer.value;
        by = sourceOf(answer);
      } catch (e) {
        return (problem = (e as Error).message);
      }
    } else {
      const answer = readTyped(typed[step.id] ?? '', reading.type);
      if ('problem' in answer) return (problem = answer.problem);
      value = answer.value;
    }
    problem = '';
    const stored = await record({
      type: 'reading',
      place: placeOfProbe(probe, view.board, bare, desk.place),
      quantity: QUANTITY_OF[reading.type],
      value,
      good: null,
      powered: isPowered(reading.type),
      probe: { ...probe, ...by },
    });
    if (!stored) return;
    delete typed[step.id];
    await say(step, meetsRoutine(reading, value) ? 'as it should' : 'off');
  }
  const fresh = (): Routine => ({
    id: v7(),
    name: `${view.board.name}, first look`,
    steps: [],
    version: 0,
    modelIds: [view.modelId],
  });
  async function remove(r: Routine) {
    await send('DELETE', `/api/routines/${r.id}`).catch((e: Error) => {
      problem = `It could not be removed: ${e.message}`;
    });
    await reload('job:model');
  }
  async function save(r: Routine): Promise<string | null> {
    const { id, version, ...body } = r;
    try {
      if (version === 0) await send('POST', '/api/routines', { id, ...body });
      else await send('PUT', `/api/routines/${id}`, { version, ...body });
    } catch (e) {
      return (e as Error).message;
    }
    await reload('job:model');
    chosen = id;
    editing = null;
    return null;
  }
</script>

{#if editing}
  <RoutineForm {view} {circuit} {models} routine={editing} onSave={save} onLeave={() => (editing = null)} />
{:else if !routine}
  <p class="text-ink2">
    No routine for this family yet. Write down the tests that this shop does first, in their order, and walk them with
    every such board.
  </p>
  <button type="button" class="button button-main mt-3" onclick={() => (editing = fresh())}>Write a routine</button>
{:else}
  <div class="flex items-end gap-2">
    <Select
      label="Routine"
      class="min-w-0 flex-1"
      choices={view.routines.map((r) => ({ value: r.id, label: r.name }))}
      bind:value={() => routine.id, (v) => (chosen = v)}
    />
    <button type="button" class="button px-3" onclick={() => (editing = { ...routine })}>Change</button>
    <button type="button" class="button px-3" onclick={() => (editing = fresh())}>New</button>
  </div>
  <p class="mt-2" role="status">
    {#if !next}<b>Walked through.</b>{:else}<b>{routine.steps.filter(doneOf).length} of {routine.steps.length}</b>{/if}
    {#if off.length > 0}<span class="font-semibold text-hot">Off: {off.map((s) => s.says).join('; ')}</span>{/if}
  </p>
  <Notice text={problem} class="mt-1" />
  <ol class="mt-2" aria-label="Steps of the routine">
    {#each routine.steps as step, n (step.id)}
      {@const done = doneOf(step)}
      <li class="border-t border-faint py-2 {step === next ? 'border-l-[3px] border-l-evidence pl-3' : ''}">
        <p class="flex items-baseline gap-2">
          <span class="w-5 font-semibold">{n + 1}</span>
          <span class="min-w-0 flex-1 font-semibold">{step.says}</span>
          {#if done}<span
              class="text-[13px] font-semibold {done.result === 'off'
                ? 'text-hot'
                : done.result === 'skipped'
                  ? 'text-ink2'
                  : 'text-good'}"
              >{done.result === 'off' ? '▲ off' : done.result === 'skipped' ? 'skipped' : '✓ as it should'}</span
            >{/if}
        </p>
        {#if step.reading}
          <p class="pl-7 text-[13px] text-ink2">
            {probeName(probeOf(step.reading), ground)}, {modeName(step.reading)}: {bounds(step.reading)}{valueOf(step)
              ? `; reads ${valueOf(step)}`
              : ''}
          </p>
        {/if}
        {#if step === next}
          <div class="mt-1 flex flex-wrap gap-2 pl-7">
            {#if step.reading}
              <form
                class="flex gap-2"
                onsubmit={(e) => {
                  e.preventDefault();
                  void read(step, false);
                }}
              >
                <input
                  class="field w-28"
                  bind:value={typed[step.id]}
                  aria-label="Reading of step {n + 1}"
                  placeholder="4k7"
                />
                <button class="button button-main px-3">Enter</button>
              </form>
              <button type="button" class="button px-3" onclick={() => read(step, true)}>Meter</button>
            {:else}
              <button type="button" class="button button-main px-3" onclick={() => say(step, 'as it should')}
                >As it should</button
              >
              <button type="button" class="button px-3" onclick={() => say(step, 'off')}>Off</button>
            {/if}
            <button type="button" class="button px-3" onclick={() => say(step, 'skipped')}>Skip</button>
          </div>
        {:else if done}
          <button
            type="button"
            class="pl-7 text-[13px] text-evidence underline"
            onclick={() => record({ type: 'withdrawn', eventId: done.id, why: 'taken back' })}>once more</button
          >
        {/if}
      </li>
    {/each}
  </ol>
  <button type="button" class="button mt-3 px-3" onclick={() => remove(routine)}>Remove this routine</button>
{/if}
