<script lang="ts">
  // One probe of the sheet: what is good there, what it reads, typed or from the meter.
  import Notice from '$lib/ui/Notice.svelte';
  import { type Netlist, rangeOf } from '@orthos/core/circuit';
  import { compareReading, type Measured, type Place, UNITS } from '@orthos/core/ground';
  import type { JobState } from '@orthos/core/job';
  import { askMeter, sourceOf } from './askMeter';
  import { groundOf, placeWords, probeName, QUANTITY_OF, readTyped, shown } from './probes';
  import { benchMeter, referenceFor } from './question';
  import type { SheetKeeper } from './sheetKeeper.svelte';
  import type { SheetRow } from './sheetRows';
  import type { DiagnoseView } from './view';

  interface Props {
    row: SheetRow;
    /** Of its field. */
    id: string;
    view: DiagnoseView;
    netlist: Netlist | null;
    /** What was read there last. */
    reading: JobState['readings'][number] | undefined;
    /** What is typed and not entered yet. */
    typed: string;
    keeper: SheetKeeper;
    /** Goes on by so many rows. */
    onstep: (by: number) => void;
    /** The place whose reading is being typed, for the board. */
    onplace: (place: Place | null) => void;
  }
  let { row, id, view, netlist, reading, typed = $bindable(), keeper, onstep, onplace }: Props = $props();
  let problem = $state('');

  const probe = $derived(row.probe);
  const own = $derived(keeper.goodBoard ? undefined : reading);
  const reference = $derived(referenceFor(view, netlist, probe));
  const good = $derived.by(() => {
    if (!reference) return reading && reading.good !== null ? shown(probe.type, reading.good) : '';
    const { value, from, to, units } = reference;
    const spread = from !== null && to !== null ? `, ${shown(probe.type, from)} to ${shown(probe.type, to)}` : '';
    return `${shown(probe.type, value)}${spread} (${units})`;
  });
  const against = $derived(
    reading && compareReading(reading.value, reading.good ?? reference?.value ?? null, QUANTITY_OF[probe.type]),
  );
  /** The range it was read on, and what the kit's meter and leads may add. */
  function accuracyWords(value: Measured): string {
    const { type } = probe;
    const range = rangeOf(type, value) === 'auto' ? '' : rangeOf(type, value);
    const meter = benchMeter(view);
    if (!meter || typeof value !== 'number') return range;
    const percent = type === 'ohm' || type === 'cont' ? meter.ohmPercent : meter.voltPercent;
    const off = shown(type, Number((Math.abs(value * percent) / 100).toPrecision(1)));
    return [range, `± ${off}`].filter(Boolean).join(', ');
  }

  async function enter(event: SubmitEvent) {
    event.preventDefault();
    if (typed.trim() === '') return onstep(1);
    const read = readTyped(typed, probe.type);
    problem = 'problem' in read ? read.problem : '';
    if ('problem' in read || !(await keeper.store(probe, read.value, null))) return;
    typed = '';
    onstep(1);
  }
  /** The meter fills the cell and the walk goes on. */
  async function fromMeter() {
    try {
      const answer = await askMeter(view.ticket.id, probe);
      problem = '';
      if (await keeper.store(probe, answer.value, null, sourceOf(answer))) onstep(1);
    } catch (e) {
      problem = (e as Error).message;
    }
  }
  function onkeydown(event: KeyboardEvent) {
    if (event.key === 'PageDown') void fromMeter();
    else if (event.key === 'ArrowDown') onstep(1);
    else if (event.key === 'ArrowUp') onstep(-1);
    else return;
    event.preventDefault();
  }
</script>

<tr class="border-t border-faint align-top">
  <td class="py-1.5 pr-2">
    <label for={id} class="font-semibold">{probeName(probe, groundOf(view.board, netlist))}</label>
    <span class="block text-[13px] text-ink2">{placeWords(view.board, row.place)}</span>
  </td>
  <td class="py-1.5 pr-2 text-[13px] text-ink2">{good}</td>
  <td class="w-36 py-1">
    <form onsubmit={enter}>
      <input
        {id}
        class="field text-right text-base font-semibold"
        placeholder={own ? shown(probe.type, own.value) : UNITS[QUANTITY_OF[probe.type]]}
        bind:value={typed}
        {onkeydown}
        onfocus={() => onplace(row.place)}
        onblur={() => onplace(null)}
        autocomplete="off"
        aria-describedby={problem ? `${id}-problem` : undefined}
      />
    </form>
    {#if problem}<Notice text={problem} at="field" id="{id}-problem" />
    {:else if own}<p class="text-right text-[12px] text-ink2">
        {#if own.probe?.simulated}<span class="text-caution">simulated</span>{/if}
        {accuracyWords(own.value)}
      </p>{/if}
    {#if against === 'low' || against === 'high'}<p class="text-right text-[13px] font-semibold text-hot">
        {against === 'low' ? '▼ too low' : '▲ too high'}
      </p>{/if}
  </td>
</tr>
