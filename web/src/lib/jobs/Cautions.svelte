<script lang="ts">
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import type { Step } from '@orthos/core/hands';

  let { view, step }: { view: JobView; step: Step } = $props();
  /** What they depend on; the words of all tools come after the page. */
  const facts = $derived({
    board: view.board,
    target: view.board.parts.find((p) => p.partId === view.inputs?.target),
    method: view.inUse?.method,
    alloyed: view.inputs?.settings.surroundings?.joints?.some((j) => (j.with?.length ?? 0) > 0),
    sources: [
      ...view.board.powerSources.map((s) => s.kind ?? 'lead'),
      ...stateOf(view.events).sources.map((s) => s.kind),
    ],
  });
</script>

{#await import('./cautions') then { cautionsFor }}
  {@const cautions = cautionsFor(step, facts)}
  {#if cautions.length > 0}
    <section class="mt-5 border-l-[3px] border-caution py-0.5 pl-3" aria-label="Cautions">
      <h3 class="mb-1 text-[13px] font-semibold text-caution"><span aria-hidden="true">▲</span> Mind</h3>
      <ul class="space-y-1 text-[13px] text-ink2">
        {#each cautions as c (c)}<li>{c}</li>{/each}
      </ul>
    </section>
  {/if}
{/await}
