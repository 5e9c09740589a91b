<script lang="ts">
  // No circuit yet: one of a rail is made from the board's nets by one press.
  import { stateOf } from '$lib/jobs/stateOf';
  import { circuitOfRail, isGroundNet } from '@orthos/core';
  import type { CircuitEditor } from './circuitEditor.svelte';
  import { standing } from './finder.svelte';
  import { lowestRail } from './rails';
  import type { DiagnoseView } from './view';

  let { view, editor }: { view: DiagnoseView; editor: CircuitEditor } = $props();
  /** Fewer parts than this on a net make no rail. */
  const RAIL_PARTS = 3;
  const MOST = 6;
  const rails = $derived.by(() => {
    const count = new Map<string, number>();
    for (const part of view.board.parts)
      for (const net of new Set(Object.values(part.nets ?? {})))
        if (!isGroundNet(net)) count.set(net, (count.get(net) ?? 0) + 1);
    const names = [...count.keys()].filter((net) => (count.get(net) ?? 0) >= RAIL_PARTS);
    const low = lowestRail(view.board, null, standing(stateOf(view.events)), names);
    const rank = (net: string) => (net === low ? Infinity : (count.get(net) ?? 0));
    return names
      .toSorted((a, b) => rank(b) - rank(a))
      .slice(0, MOST)
      .map((net) => ({ net, parts: count.get(net) ?? 0, low: net === low }));
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
    {#if editor.problem}<p role="alert" class="mt-2 text-[13px] font-semibold text-stop">{editor.problem}</p>{/if}
  </section>
{/if}
