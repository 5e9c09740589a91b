<script lang="ts">
  // The sheet as a file: its readings out, readings of another meter or another day in.
  import type { Netlist } from '@orthos/core/circuit';
  import type { JobState } from '@orthos/core/job';
  import { BoardFileError, readReadings, writeReadings } from '@orthos/formats';
  import { groundOf, probeKey, type Probe } from './probes';
  import { referenceFor } from './question';
  import type { SheetKeeper } from './sheetKeeper.svelte';
  import type { DiagnoseView } from './view';

  interface Props {
    view: DiagnoseView;
    netlist: Netlist | null;
    /** Every probe of the sheet, in all modes. */
    probes: () => Probe[];
    taken: ReadonlyMap<string, JobState['readings'][number]>;
    keeper: SheetKeeper;
  }
  let { view, netlist, probes, taken, keeper }: Props = $props();

  function download() {
    const list = probes().map((probe) => {
      const reading = taken.get(probeKey(probe));
      return {
        ...probe,
        state: probe.state ?? '',
        value: reading?.value ?? null,
        good: reading?.good ?? referenceFor(view, netlist, probe)?.value ?? null,
      };
    });
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
    try {
      keeper.message = await take(readReadings(await file.text()));
    } catch (e) {
      keeper.message = e instanceof BoardFileError ? `${file.name}: ${e.sentence}` : (e as Error).message;
    }
  }
  /** Stores the rows of a file; gives what became of them. */
  async function take(list: ReturnType<typeof readReadings>): Promise<string> {
    const ground = groundOf(view.board, netlist);
    const rows = list.map(({ type, red, black, state, value, good }) => ({
      probe: { type, red, black: black || ground, state: state || null },
      value,
      good,
    }));
    // good values without a reading are what a good board shows, not this one
    const references = rows.flatMap(({ probe, value, good }) =>
      value === null && good !== null ? [{ probe, value: good }] : [],
    );
    if (references.length > 0 && !keeper.unit.trim()) {
      keeper.goodBoard = true;
      return `${references.length} good values stand alone in it. Say which good board they are of, then read the file again; nothing was stored.`;
    }
    if (references.length > 0 && !(await keeper.storeGood(references))) return keeper.message;
    let count = 0;
    for (const { probe, value, good } of rows) {
      if (value === null) continue;
      if (!(await keeper.store(probe, value, good))) return `Stored ${count} of ${rows.length}; the rest was refused.`;
      count++;
    }
    return `${count} readings stored${references.length > 0 ? `, ${references.length} good values kept for ${view.board.name}` : ''}.`;
  }
</script>

<div class="mt-4 flex items-center gap-2">
  <button type="button" class="button" onclick={download}>Save as CSV</button>
  <label class="button cursor-pointer">
    Read CSV
    <input type="file" accept=".csv,text/csv" class="sr-only" onchange={upload} />
  </label>
</div>
