<script lang="ts">
  // Chooses one of a job's photos by its thumbnail.
  import type { JobView } from '$lib/jobs/view';

  let { view, photoId = $bindable() }: { view: JobView; photoId: string } = $props();
  const at = $derived(view.photos.find((p) => p.id === photoId));
</script>

<div class="flex items-center gap-2">
  <select class="field" bind:value={photoId} aria-label="Photo" disabled={view.photos.length === 0}>
    <option value="">{view.photos.length === 0 ? 'no photo taken yet' : 'without a photo'}</option>
    {#each view.photos as p, n (p.id)}<option value={p.id}>photo {n + 1}, {p.taken}</option>{/each}
  </select>
  {#if at}<img
      class="h-10 w-14 border border-line object-cover"
      src="/api/photos/{at.id}?small"
      alt="the chosen one"
    />{/if}
</div>
