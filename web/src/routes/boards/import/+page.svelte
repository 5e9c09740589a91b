<script lang="ts">
  import ImportDesk from '$lib/boards/ImportDesk.svelte';
  let { data } = $props();
</script>

<svelte:head><title>Read a board file · Orthos</title></svelte:head>
<ImportDesk units={data.shop} into={data.into} />
