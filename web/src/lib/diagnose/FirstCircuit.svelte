<script lang="ts">
  // No circuit yet: one of a rail is made from the board's nets by one press.
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import { circuitOfRail } from '@orthos/core/circuit';
  import type { CircuitEditor } from './circuitEditor.svelte';
  import { standing } from './question';
  import { lowestRail, railsOfBoard } from './rails';
  import type { DiagnoseView } from './view';

  let { view, editor }: { view: DiagnoseView; editor: CircuitEditor } = $props();
  const MOST = 6;
  const rails = $derived.by(() => {
    const all = railsOfBoard(view.board);
    const names = all.map((r) => r.net);
    const low = lowestRail(view.board, null, standing(stateOf(view.events)), names);
    return all
      .map((r) => ({ ...r, low: r.net === low }))
      .toSorted((a, b) => Number(b.low) - Number(a.low))
      .slice(0, MOST);
  });
</script>

{#if rails.length > 0}
  <section aria-label="Circuit from the board’s nets" class="border-l-[3px] border-evidence bg-evidence-soft p-4">
    <h2 class="text-lg leading-tight">Rank faults: which rail?</h2>
    <p class="text-[13px] text-ink2">
      Its circuit is made from the board’s nets: what stands on it, what feeds it, its divider. Roles and values can be
      corrected under Circuit.
    </p>
    <p class="mt-2 flex flex-wrap gap-2">
      {#each rails as { net, parts, low } (net)}
        <button
          type="button"
          class="button {low ? 'button-main' : ''}"
          disabled={editor.busy}
          onclick={() => editor.begin(`Round ${net}`, circuitOfRail(view.board, net))}
          >{net} <span class="text-[13px] font-normal">{low ? 'reads low' : `${parts} parts`}</span></button
        >
      {/each}
    </p>
    <Notice text={editor.problem} at="field" class="mt-2" />
  </section>
{/if}
