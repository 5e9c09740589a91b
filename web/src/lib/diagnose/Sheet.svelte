<script lang="ts">
  // Readings one after the other, in the order that moves the probe least; a good board fills the same sheet.
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import { reload, send } from '$lib/jobs/send';
  import { isPowered, netAt, rangeOf } from '@orthos/core/circuit';
  import type { Diagnosis } from '@orthos/core/diagnosis';
  import { compareReading, type Measured, type Place, UNITS } from '@orthos/core/ground';
  import type { JobEventBody, JobState } from '@orthos/core/job';
  import { readReadings, writeReadings, BoardFileError } from '@orthos/formats';
  import { tick } from 'svelte';
  import { v7 } from 'uuid';
  import type { Circuit, DiagnoseView } from './view';
  import { askMeter, sourceOf } from './askMeter';
  import { benchMeter, referenceFor, standing } from './question';
  import { placeName, placeNamed } from './place';
  import {
    groundOf,
    placeOfProbe,
    placeWords,
    probeKey,
    probeName,
    probeOfReading,
    QUANTITY_OF,
    readTyped,
    shown,
    type Probe,
  } from './probes';
  import { modesOf, probesOf, rowsOf } from './sheetRows';

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
  let unit = $state('');
  let goodBoard = $state(false);
  let typed = $state<Record<string, string>>({});
  let problems = $state<Record<string, string>>({});
  let message = $state('');

  const netlist = $derived(circuit?.netlist ?? null);
  const ground = $derived(groundOf(view.board, netlist));
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
  const referenceWords = (probe: Probe) => {
    const ref = referenceFor(view, netlist, probe);
    if (!ref) return '';
    const spread =
      ref.from !== null && ref.to !== null ? `, ${shown(probe.type, ref.from)} to ${shown(probe.type, ref.to)}` : '';
    return `${shown(probe.type, ref.value)}${spread} (${ref.units})`;
  };

  const meter = $derived(benchMeter(view));
  /** The range it was read on, and what the kit's meter and leads may add. */
  function accuracyWords({ type }: Probe, value: Measured): string {
    const range = rangeOf(type, value);
    if (!meter || typeof value !== 'number') return range === 'auto' ? '' : range;
    const percent = type === 'ohm' || type === 'cont' ? meter.ohmPercent : meter.voltPercent;
    return [range === 'auto' ? '' : range, `± ${shown(type, Number((Math.abs(value * percent) / 100).toPrecision(1)))}`]
      .filter(Boolean)
      .join(', ');
  }

  async function enter(probe: Probe, i: number) {
    const key = probeKey(probe);
    if ((typed[key] ?? '').trim() === '') return focusRow(i + 1);
    const read = readTyped(typed[key], probe.type);
    if ('problem' in read) return void (problems[key] = read.problem);
    delete problems[key];
    if (await store(probe, read.value, null)) {
      typed[key] = '';
      focusRow(i + 1);
    }
  }
  async function store(
    probe: Probe,
    value: Measured,
    good: Measured | null,
    by: { meter?: string; simulated?: true } = {},
  ): Promise<boolean> {
    if (goodBoard) return storeGood([{ probe, value }]);
    return record({
      type: 'reading',
      place: placeOfProbe(probe, view.board, netlist, desk.place),
      quantity: QUANTITY_OF[probe.type],
      value,
      good,
      ...(good === null ? {} : { goodFrom: 'good board' as const }),
      powered: isPowered(probe.type),
      probe: {
        type: probe.type,
        red: probe.red,
        black: probe.black,
        state: probe.state,
        range: rangeOf(probe.type, value),
        ...by,
      },
    });
  }
  async function storeGood(list: { probe: Probe; value: Measured }[]): Promise<boolean> {
    if (!unit.trim()) {
      message = 'Say which good board this is: its serial or a nickname.';
      return false;
    }
    const readings = list.map(({ probe, value }) => ({
      id: v7(),
      unit: unit.trim(),
      type: probe.type,
      red: probe.red,
      black: probe.black,
      state: probe.state ?? '',
      value,
    }));
    try {
      await send('POST', `/api/boards/${view.modelId}/references`, { readings });
      await reload('job:model');
      message = '';
      return true;
    } catch (e) {
      message = (e as Error).message;
      return false;
    }
  }
  function focusRow(i: number) {
    document.getElementById(`sheet-${i}`)?.focus();
  }
  /** The meter fills the cell and the walk goes on. */
  async function fromMeter(probe: Probe, i: number) {
    try {
      const answer = await askMeter(view.ticket.id, probe);
      delete problems[probeKey(probe)];
      if (await store(probe, answer.value, null, sourceOf(answer))) focusRow(i + 1);
    } catch (e) {
      problems[probeKey(probe)] = (e as Error).message;
    }
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
      return (message = `${adding.trim() || 'Nothing'}: no net and no part of this board. C7.1, U4.25, 3V3.`);
    [message, adding] = ['', ''];
    if (!added.includes(row)) added.push(row);
    void tick().then(() => focusRow(rows.findIndex((r) => r.probe.red === row)));
  }
  // a click on the board names the place
  $effect(() => {
    if (netlist === null && desk.place) adding = placeName(view.board, desk.place);
  });
  function onKey(event: KeyboardEvent, i: number) {
    if (event.key === 'PageDown') void fromMeter(rows[i].probe, i);
    else if (event.key === 'ArrowDown') focusRow(i + 1);
    else if (event.key === 'ArrowUp') focusRow(i - 1);
    else return;
    event.preventDefault();
  }

  function download() {
    const list = probesOf(view, netlist, added).map((t) => ({
      ...t,
      state: t.state ?? '',
      value: taken.get(probeKey(t))?.value ?? null,
      good: taken.get(probeKey(t))?.good ?? referenceFor(view, netlist, t)?.value ?? null,
    }));
    const url = URL.createObjectURL(new Blob([writeReadings(list)], { type: 'text/csv' }));
    const a = document.createElement('a');
    a.href = url;
    a.download = `readings-${view.ticket.number}.csv`;
    a.click();
    URL.revokeObjectURL(url);
  }
  async function upload(event: Event & { currentTarget: HTMLInputElement }) {
    const [file] = event.currentTarget.files ?? [];
    event.currentTarget.value = '';
    if (!file) return;
    let count = 0;
    try {
      const list = readReadings(await file.text());
      // good values without a reading are what a good board shows, not this one
      const references = list.flatMap(({ type, red, black, state, value, good }) =>
        value === null && good !== null
          ? [{ probe: { type, red, black: black || ground, state: state || null }, value: good }]
          : [],
      );
      if (references.length > 0 && !unit.trim()) {
        goodBoard = true;
        message = `${references.length} good values stand alone in it. Say which good board they are of, then read the file again; nothing was stored.`;
        return;
      }
      if (references.length > 0 && !(await storeGood(references))) return;
      for (const row of list) {
        if (row.value === null) continue;
        const probe = {
          type: row.type,
          red: row.red,
          black: row.black || ground,
          state: row.state || null,
        };
        if (!(await store(probe, row.value, row.good))) {
          message = `Stored ${count} of ${list.length}; the rest was refused.`;
          return;
        }
        count++;
      }
      message = `${count} readings stored${references.length > 0 ? `, ${references.length} good values kept for ${view.board.name}` : ''}.`;
    } catch (e) {
      message = e instanceof BoardFileError ? `${file.name}: ${e.sentence}` : (e as Error).message;
    }
  }
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
  <Check class="text-[13px]" bind:checked={goodBoard}>a good board</Check>
  {#if goodBoard}
    <input class="field w-36" bind:value={unit} placeholder="its serial" aria-label="Which good board" maxlength="80" />
  {/if}
</div>
{#if goodBoard}<p class="mt-2 text-[13px] font-semibold text-evidence">
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
    {#each rows as { probe, place }, i (probeKey(probe))}
      {@const key = probeKey(probe)}
      {@const reading = taken.get(key)}
      {@const reference = referenceFor(view, netlist, probe)}
      {@const d = reading
        ? compareReading(reading.value, reading.good ?? reference?.value ?? null, QUANTITY_OF[probe.type])
        : null}
      <tr class="border-t border-faint align-top">
        <td class="py-1.5 pr-2">
          <label for="sheet-{i}" class="font-semibold">{probeName(probe, ground)}</label>
          <span class="block text-[13px] text-ink2">{placeWords(view.board, place)}</span>
        </td>
        <td class="py-1.5 pr-2 text-[13px] text-ink2"
          >{referenceWords(probe) || (reading && reading.good !== null ? shown(probe.type, reading.good) : '')}</td
        >
        <td class="w-36 py-1">
          <form
            onsubmit={(e) => {
              e.preventDefault();
              void enter(probe, i);
            }}
          >
            <input
              id="sheet-{i}"
              class="field text-right text-base font-semibold"
              placeholder={reading && !goodBoard ? shown(probe.type, reading.value) : UNITS[QUANTITY_OF[probe.type]]}
              bind:value={typed[key]}
              onkeydown={(e) => onKey(e, i)}
              onfocus={() => (typedAt = place)}
              onblur={() => (typedAt = null)}
              autocomplete="off"
              aria-describedby={problems[key] ? `sheet-p-${i}` : undefined}
            />
          </form>
          {#if problems[key]}<Notice text={problems[key]} at="field" id="sheet-p-{i}" />
          {:else if reading && !goodBoard}<p class="text-right text-[12px] text-ink2">
              {#if reading.probe?.simulated}<span class="text-caution">simulated</span>{/if}
              {accuracyWords(probe, reading.value)}
            </p>{/if}
          {#if d === 'low' || d === 'high'}<p class="text-right text-[13px] font-semibold text-hot">
              {d === 'low' ? '▼ too low' : '▲ too high'}
            </p>{/if}
        </td>
      </tr>
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
<div class="mt-4 flex items-center gap-2">
  <button type="button" class="button" onclick={download}>Save as CSV</button>
  <label class="button cursor-pointer">
    Read CSV
    <input type="file" accept=".csv,text/csv" class="sr-only" onchange={upload} />
  </label>
</div>
{#if message}<p role="status" class="mt-2 text-[13px] font-semibold">{message}</p>{/if}
