<script lang="ts">
  // Suspects without a circuit: from what a good board reads in the same places.
  import { useDesk } from '$lib/jobs/desk.svelte';
  import { formatReading, NONE } from '@orthos/core';
  import type { JobView } from '$lib/server/jobView';
  import { compared } from './finder.svelte';
  import { percent } from './words';

  let { view, onConvict }: { view: JobView; onConvict: (partId: string, why: string) => void } = $props();
  const desk = useDesk();
  const found = $derived(compared(view));
  const top = $derived(found.suspects.filter((s, i) => i < 6 && s.p > 0.02));
  const says = (indices: number[]) =>
    indices
      .slice(0, 2)
      .map((i) => {
        const r = found.readings[i];
        return `${r.net} reads ${formatReading(r.value, r.quantity)}, a good board ${formatReading(r.good, r.quantity)}`;
      })
      .join('; ');
</script>

{#if found.readings.length > 0}
  <section aria-label="Suspects">
    <h3 class="mt-5 mb-1 text-[13px] text-ink2">Suspects, from good-board readings alone</h3>
    {#each top as s (s.partId || s.ref)}
      <div class="border-t border-faint py-2">
        <div class="flex items-baseline gap-2">
          <span class="text-base font-bold">{s.ref}</span>
          <span class="min-w-0 flex-1 truncate text-ink2"
            >{view.board.parts.find((p) => p.partId === s.partId)?.what ?? ''}</span
          >
          <span class="text-base font-bold">{percent(s.p)}</span>
        </div>
        {#if s.ref !== NONE}
          {#if s.speaksFor.length}<p class="text-[13px]"><b>For:</b> {says(s.speaksFor)}</p>{/if}
          <p class="text-[13px] text-ink2"><b>Against:</b> {says(s.against) || 'nothing yet'}</p>
          {#if s === top[0] || desk.selected === s.partId}
            <button
              type="button"
              class="button mt-1"
              onclick={() => onConvict(s.partId, says(s.speaksFor) || 'the likeliest on its line')}
              >{s === top[0] ? `Convict ${s.ref}` : `Overrule: ${s.ref} it is`}</button
            >
          {/if}
        {/if}
      </div>
    {/each}
    <p class="mt-1 text-[13px] text-ink2">
      Draw the circuit to know what each fault would read, and what to measure next.
    </p>
  </section>
{/if}
