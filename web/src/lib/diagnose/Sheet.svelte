<script lang="ts">
  // Readings one after the other, in the order that moves the probe least; a good board fills the same sheet.
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import { netAt } from '@orthos/core/circuit';
  import type { Diagnosis } from '@orthos/core/diagnosis';
  import type { Place } from '@orthos/core/ground';
  import type { JobEventBody, JobState } from '@orthos/core/job';
  import { tick } from 'svelte';
  import { placeName, placeNamed } from './place';
  import { probeKey, probeOfReading } from './probes';
  import { benchMeter, standing } from './question';
  import SheetFile from './SheetFile.svelte';
  import { SheetKeeper } from './sheetKeeper.svelte';
  import SheetRow from './SheetRow.svelte';
  import { modesOf, probesOf, rowsOf } from './sheetRows';
  import type { Circuit, DiagnoseView } from './view';

  interface Props {
    view: DiagnoseView;
    job: JobState;
    circuit: Circuit | null;
    record: (body: JobEventBody) => Promise<boolean>;
    result: Diagnosis | null;
  }
  let { view, job, circuit, record, result }: Props = $props();
  const desk = useDesk();
  /** Place whose reading is being typed. */
  let typedAt = $state.raw<Place | null>(null);
  layOver(desk, () => (typedAt ? { probes: { next: typedAt } } : {}));
  let mode = $state('ohm|');
  /** What is typed and not entered, by probe: it stays while the meter is on something else. */
  let typed = $state<Record<string, string>>({});

  const netlist = $derived(circuit?.netlist ?? null);
  const keeper = new SheetKeeper(() => ({ view, netlist, clicked: desk.place, record }));
  /** Nets and places named by hand, where no circuit says which. */
  let added = $state<string[]>([]);
  let adding = $state('');
  const modes = $derived(modesOf(view, netlist));
  const rows = $derived(rowsOf(view, netlist, mode, added));
  const taken = $derived.by(() => {
    const map = new Map<string, JobState['readings'][number]>();
    for (const r of standing(job)) {
      const probe = probeOfReading(r, view.board, netlist);
      if (probe) map.set(probeKey(probe), r);
    }
    return map;
  });
  const meter = $derived(benchMeter(view));
  function focusRow(i: number) {
    document.getElementById(`sheet-${i}`)?.focus();
  }
  /** A net or a place of the board, as its row is called; null when the board has neither. */
  function rowNamed(text: string): string | null {
    const name = text.trim();
    const nets = view.board.parts.flatMap((p) => Object.values(p.nets ?? {}));
    const net = nets.find((n) => n.toLowerCase() === name.toLowerCase());
    if (net !== undefined) return net;
    const place = placeNamed(view.board, name);
    return place && (netAt(view.board, null, place) ?? placeName(view.board, place));
  }
  function add(event: SubmitEvent) {
    event.preventDefault();
    const row = rowNamed(adding);
    if (row === null)
      return (keeper.message = `${adding.trim() || 'Nothing'}: no net and no part of this board. C7.1, U4.25, 3V3.`);
    [keeper.message, adding] = ['', ''];
    if (!added.includes(row)) added.push(row);
    void tick().then(() => focusRow(rows.findIndex((r) => r.probe.red === row)));
  }
  // a click on the board names the place
  $effect(() => {
    if (netlist === null && desk.place) adding = placeName(view.board, desk.place);
  });
</script>

{#if !netlist}<p class="mb-3 text-[13px] text-ink2">
    No circuit yet: the board’s rails, and every place that was read here, before, or on a good board. With the circuit
    of a rail the sheet follows its faults.
  </p>{/if}
{#if result}
  <p class="mb-3 border-l-[3px] border-hot py-1 pl-3" aria-live="polite">
    {#each result.parts.slice(0, 3) as p, i (p.ref)}<span class="mr-4 whitespace-nowrap"
        ><b class={i === 0 ? 'text-base' : ''}>{p.ref}</b> {Math.round(100 * p.p)} %</span
      >{/each}
  </p>
{/if}
<div class="flex flex-wrap items-end gap-2">
  <div class="w-40">
    <Select
      label="Meter on"
      choices={modes.map(({ key, name }) => ({ value: key, label: name }))}
      id="sheet-mode"
      bind:value={mode}
    />
  </div>
  <Check class="text-[13px]" bind:checked={keeper.goodBoard}>a good board</Check>
  {#if keeper.goodBoard}
    <input
      class="field w-36"
      bind:value={keeper.unit}
      placeholder="its serial"
      aria-label="Which good board"
      maxlength="80"
    />
  {/if}
</div>
{#if keeper.goodBoard}<p class="mt-2 text-[13px] font-semibold text-evidence">
    These go to the references of {view.board.name}, not to this job.
  </p>{/if}
{#if meter}<p class="mt-2 text-[13px] text-ink2">
    {meter.name}: ± {meter.ohmPercent} % ohms, ± {meter.voltPercent} % volts, leads {meter.leadsOhm} Ω taken off.
  </p>{/if}
<p class="mt-1 text-[13px] text-ink2">Enter goes on, arrows go up and down, PageDown or the pedal reads the meter.</p>
<table class="mt-3 w-full">
  <thead class="text-left text-[13px] text-ink2">
    <tr><th class="font-normal">Red, black</th><th class="font-normal">Good</th><th class="font-normal">Reads</th></tr>
  </thead>
  <tbody>
    {#each rows as row, i (probeKey(row.probe))}
      {@const key = probeKey(row.probe)}
      <SheetRow
        {row}
        id="sheet-{i}"
        {view}
        {netlist}
        reading={taken.get(key)}
        bind:typed={() => typed[key] ?? '', (text) => (typed[key] = text)}
        {keeper}
        onstep={(by) => focusRow(i + by)}
        onplace={(place) => (typedAt = place)}
      />
    {/each}
  </tbody>
</table>
{#if !netlist}
  <form onsubmit={add} class="mt-2 flex gap-2" aria-label="Another place">
    <input
      class="field"
      bind:value={adding}
      aria-label="Net or place"
      placeholder="C7.1, 3V3, or click"
      autocomplete="off"
      maxlength="80"
    />
    <button class="button px-3 whitespace-nowrap">Add a row</button>
  </form>
{/if}
<SheetFile {view} {netlist} probes={() => probesOf(view, netlist, added)} {taken} {keeper} />
{#if keeper.message}<p role="status" class="mt-2 text-[13px] font-semibold">{keeper.message}</p>{/if}
