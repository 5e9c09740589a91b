<script lang="ts">
  // Chooses one of a job's photos by its thumbnail.
  import Select from '$lib/ui/Select.svelte';
  import type { JobView } from '$lib/jobs/view';

  let { view, photoId = $bindable() }: { view: JobView; photoId: string } = $props();
  const at = $derived(view.photos.find((p) => p.id === photoId));
</script>

<div class="flex items-center gap-2">
  <Select
    none={view.photos.length === 0 ? 'no photo taken yet' : 'without a photo'}
    choices={view.photos.map((p, n) => ({ value: p.id, label: `photo ${n + 1}, ${p.taken}` }))}
    bind:value={photoId}
    aria-label="Photo"
    disabled={view.photos.length === 0}
  />
  {#if at}<img
      class="h-10 w-14 border border-line object-cover"
      src="/api/photos/{at.id}?small"
      alt="the chosen one"
    />{/if}
</div>
