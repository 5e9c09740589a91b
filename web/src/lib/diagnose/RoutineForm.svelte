<script lang="ts">
  // Writes a routine: steps in their order, and the kinds of board it is for.
  import { guarded } from '$lib/ui/unsaved.svelte';
  import { ticked } from '$lib/ui/choices';
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import type { Circuit, DiagnoseView, Routine } from './view';
  import { METER_TYPES, type MeterType, netsOf } from '@orthos/core/circuit';
  import type { RoutineStep } from '@orthos/core/diagnosis';
  import { parseReading } from '@orthos/core/ground';
  import { untrack } from 'svelte';
  import { v7 } from 'uuid';

  interface Props {
    view: DiagnoseView;
    circuit: Circuit | null;
    models: { id: string; name: string }[];
    routine: Routine;
    /** A sentence when it could not be saved. */
    onSave: (routine: Routine) => Promise<string | null>;
    onLeave: () => void;
  }
  let { view, circuit, models, routine, onSave, onLeave }: Props = $props();
  const MODES: Record<MeterType, string> = {
    ohm: 'ohms',
    cont: 'continuity',
    diode: 'diode mode',
    dcv: 'volts',
    isup: 'supply current',
  };
  let name = $state(untrack(() => routine.name));
  let steps = $state.raw<RoutineStep[]>(untrack(() => routine.steps));
  let modelIds = $state<string[]>(untrack(() => routine.modelIds));
  let says = $state('');
  let type = $state<MeterType | ''>('');
  let red = $state('');
  let black = $state('');
  let state_ = $state('');
  let least = $state('');
  let most = $state('');
  let problem = $state('');
  let busy = $state(false);

  const nets = $derived([
    ...new Set([
      ...(circuit ? netsOf(circuit.netlist) : []),
      ...view.board.parts.flatMap((p) => Object.values(p.nets ?? {})),
    ]),
  ]);
  const states = $derived(Object.keys(circuit?.netlist.power?.states ?? {}));
  function bound(text: string): number | null | undefined {
    if (text.trim() === '') return null;
    const value = parseReading(text);
    return typeof value === 'number' ? value : undefined;
  }
  function add() {
    const [from, to] = [bound(least), bound(most)];
    if (!says.trim()) return (problem = 'Say what is done: unplug the motor, read the 5 V rail.');
    if (type && (from === undefined || to === undefined))
      return (problem = 'At least and at most: numbers such as 4k7, or empty.');
    if (type && typeof from === 'number' && typeof to === 'number' && from > to)
      return (problem = 'The least is above the most.');
    if (type && type !== 'isup' && !red.trim()) return (problem = 'Which net is the red probe on?');
    problem = '';
    steps = [
      ...steps,
      {
        id: v7(),
        says: says.trim(),
        ...(type
          ? {
              reading: {
                type,
                red: red.trim(),
                black: black.trim(),
                state: state_.trim() || null,
                least: from ?? null,
                most: to ?? null,
              },
            }
          : {}),
      },
    ];
    [says, red, black, least, most] = ['', '', '', '', ''];
  }
  function move(n: number, by: number) {
    const list = [...steps];
    const [step] = list.splice(n, 1);
    list.splice(n + by, 0, step);
    steps = list;
  }
  async function save(event: SubmitEvent) {
    event.preventDefault();
    if (!name.trim()) return (problem = 'Give the routine a name.');
    if (modelIds.length === 0) return (problem = 'For which kind of board? Choose one at least.');
    if (steps.length === 0) return (problem = 'Write down one step at least.');
    busy = true;
    problem = (await onSave({ ...routine, name: name.trim(), steps, modelIds })) ?? '';
    busy = false;
  }
</script>

<form onsubmit={save} {@attach guarded} aria-label="Routine">
  <label><span class="label">Name of the routine</span><input class="field" bind:value={name} maxlength="80" /></label>
  <ol class="mt-3" aria-label="Steps written">
    {#each steps as s, n (s.id)}
      <li class="flex min-h-10 items-center gap-2 border-t border-faint">
        <span class="w-5 font-semibold">{n + 1}</span>
        <span class="min-w-0 flex-1"
          >{s.says}
          {#if s.reading}<span class="text-[13px] text-ink2">{MODES[s.reading.type]} {s.reading.red}</span>{/if}</span
        >
        <button
          type="button"
          class="h-8 px-1.5 text-evidence underline disabled:text-ink3"
          disabled={n === 0}
          aria-label="Move step {n + 1} up"
          onclick={() => move(n, -1)}>up</button
        >
        <button
          type="button"
          class="h-8 px-1.5 text-evidence underline"
          aria-label="Remove step {n + 1}"
          onclick={() => (steps = steps.filter((x) => x !== s))}>remove</button
        >
      </li>
    {/each}
  </ol>
  <fieldset class="mt-2 grid grid-cols-[1fr_1fr_1fr] gap-2 border-t border-line pt-2">
    <legend class="sr-only">Next step</legend>
    <input
      class="field col-span-3"
      bind:value={says}
      placeholder="what is done"
      aria-label="What is done"
      maxlength="300"
      onkeydown={(e) => {
        if (e.key !== 'Enter') return;
        e.preventDefault();
        add();
      }}
    />
    <Select
      none="look or try"
      choices={METER_TYPES.map((t) => ({ value: t, label: MODES[t] }))}
      bind:value={type}
      aria-label="Meter on"
    />
    {#if type}
      {#if type !== 'isup'}
        <input
          class="field"
          list="routine-nets"
          bind:value={red}
          placeholder="red on"
          aria-label="Red on"
          maxlength="80"
        />
        <input
          class="field"
          list="routine-nets"
          bind:value={black}
          placeholder="black: ground"
          aria-label="Black on"
          maxlength="80"
        />
        <datalist id="routine-nets"
          >{#each nets as n (n)}<option value={n}></option>{/each}</datalist
        >
      {/if}
      <input class="field" bind:value={least} placeholder="at least" aria-label="At least" />
      <input class="field" bind:value={most} placeholder="at most" aria-label="At most" />
      {#if type === 'dcv' || type === 'isup'}
        <input
          class="field"
          list="routine-states"
          bind:value={state_}
          placeholder="state: awake"
          aria-label="State of power"
          maxlength="80"
        />
        <datalist id="routine-states"
          >{#each states as s (s)}<option value={s}></option>{/each}</datalist
        >
      {/if}
    {/if}
    <button type="button" class="button justify-self-start" onclick={add}>Add the step</button>
  </fieldset>
  <fieldset class="mt-3 border-t border-line pt-2">
    <legend class="text-[13px] text-ink2">Family: the boards it is for</legend>
    <div class="flex flex-wrap gap-x-5">
      {#each models as m (m.id)}
        <Check bind:checked={() => modelIds.includes(m.id), (on) => (modelIds = ticked(modelIds, m.id, on))}
          >{m.name}</Check
        >
      {/each}
    </div>
  </fieldset>
  <Notice text={problem} class="mt-2" />
  <div class="mt-3 flex gap-2">
    <button class="button button-main" disabled={busy}>Save the routine</button>
    <button type="button" class="button" onclick={onLeave}>Leave it</button>
  </div>
</form>
