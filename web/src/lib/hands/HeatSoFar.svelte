<script lang="ts">
  // What lands and part have been through over all attempts, before they are heated again.
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import { heatsOf } from '@orthos/core/job';
  import { landWords, partWords } from './heatWords';

  let { view }: { view: JobView } = $props();
  const heats = $derived(heatsOf(stateOf(view.events)));
  const words = $derived([landWords(heats.lands), partWords(heats.part)].filter(Boolean).join('; '));
  const spent = $derived(heats.lands.left === 0 || (heats.part.dose ?? 0) >= 0.7);
</script>

{#if words}
  <p class="mt-2 text-[13px] {spent ? 'font-semibold text-caution' : 'text-ink2'}" data-testid="heat-so-far">
    <span aria-hidden="true">{spent ? '◆' : '●'}</span> Heat so far: {words}.
  </p>
{/if}
