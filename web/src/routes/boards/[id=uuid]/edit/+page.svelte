<script lang="ts">
  import { browser } from '$app/environment';
  import { openDraft } from '$lib/boards/drafts';
  import EditDesk from '$lib/boards/EditDesk.svelte';
  let { data } = $props();
</script>

<svelte:head><title>Edit {data.model.draft.name} · Orthos</title></svelte:head>
{#key data.model.id}
  {#if browser}
    {#await openDraft(data.model.id) then kept}
      <EditDesk model={data.model} {kept} own={data.own} units={data.shop} />
    {/await}
  {/if}
{/key}
