<script lang="ts">
  // Parts of the board on the circuit's nets that the circuit lacks, to be taken in by one press.
  import type { Netlist } from '@orthos/core/circuit';
  import { besideOf, WEIGHTS, type Weights } from '@orthos/core/diagnosis';
  import { few } from '@orthos/core/ground';
  import type { CircuitEditor } from './circuitEditor.svelte';
  import type { DiagnoseView } from './view';

  let { view, netlist, editor }: { view: DiagnoseView; netlist: Netlist; editor: CircuitEditor } = $props();
  const left = $derived.by(() => {
    const able = besideOf(view.board, netlist).flatMap(({ net, parts }) => {
      // a plug or a test point pulls nothing down
      const refs = parts.filter(({ cls }) => pullsDown(WEIGHTS[cls])).map((p) => p.ref);
      return refs.length > 0 ? [{ net, refs }] : [];
    });
    return able.toSorted((a, b) => b.refs.length - a.refs.length);
  });
  const pullsDown = ({ short = 0, leaky = 0, pins = 0 }: Weights) => short + leaky + pins > 0;
  const refs = $derived([...new Set(left.flatMap((l) => l.refs))]);
  const placed = (names: readonly string[]) => view.board.parts.filter((p) => names.includes(p.ref ?? p.partId));
</script>

{#if left.length > 0}
  <section aria-label="Not in the circuit" class="mt-3 border-l-[3px] border-line py-1 pl-3 text-[13px]">
    <p class="font-semibold">On its nets and not in the circuit</p>
    <ul>
      {#each left.slice(0, 6) as l (l.net)}
        <li class="flex min-h-9 items-center gap-2">
          <span class="min-w-0 flex-1"><b>{l.net}</b> {few(l.refs, 6)}</span>
          <button type="button" class="button px-3" disabled={editor.busy} onclick={() => editor.takeIn(placed(l.refs))}
            >Take in</button
          >
        </li>
      {/each}
    </ul>
    {#if left.length > 1}
      <button type="button" class="button mt-1" disabled={editor.busy} onclick={() => editor.takeIn(placed(refs))}
        >Take in all {refs.length}</button
      >
    {/if}
  </section>
{/if}
