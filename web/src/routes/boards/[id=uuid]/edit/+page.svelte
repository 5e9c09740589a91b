<script lang="ts">
  import EditDesk from '$lib/boards/EditDesk.svelte';
  let { data } = $props();
</script>

<svelte:head><title>Edit {data.model.draft.name} · Orthos</title></svelte:head>
{#key data.model.id}<EditDesk model={data.model} own={data.own} units={data.shop} />{/key}
