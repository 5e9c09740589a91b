<script lang="ts">
  import { stepLabel } from '$lib/jobs/words';
  import RunView from '$lib/run/RunView.svelte';
  import { outbox } from '$lib/run/outbox.svelte';
  import { onMount } from 'svelte';

  let { data } = $props();
  // marks live in the browser first: the run is drawn there, the server only brings what it knows
  let here = $state(false);
  onMount(() => void outbox().ready.then(() => (here = true)));
  /** Photos come in meanwhile; without a server neither they nor this are missed. */
  let Inbox = $state.raw<typeof import('$lib/photos/PhotoInbox.svelte').default>();
  onMount(() => {
    import('$lib/photos/PhotoInbox.svelte').then(
      (m) => (Inbox = m.default),
      () => {},
    );
  });
</script>

<svelte:head><title>{stepLabel(data.op)} · No. {data.view.ticket.number} · Orthos</title></svelte:head>

{#if Inbox}<Inbox ticketId={data.view.ticket.id} step={data.op} watches={data.shop.photoFolder !== undefined} />{/if}
{#if here}
  {#key `${data.view.ticket.id}/${data.op}`}
    <RunView view={data.view} op={data.op} demo={data.demo} />
  {/key}
{/if}
