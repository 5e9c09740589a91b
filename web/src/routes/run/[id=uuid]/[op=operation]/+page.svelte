<script lang="ts">
  import { stepLabel } from '$lib/jobs/words';
  import RunView from '$lib/run/RunView.svelte';

  let { data } = $props();
</script>

<svelte:head><title>{stepLabel(data.op)} · No. {data.view.ticket.number} · Orthos</title></svelte:head>

{#key `${data.view.ticket.id}/${data.op}`}
  <RunView view={data.view} op={data.op} demo={data.demo} />
{/key}
