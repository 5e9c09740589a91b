<script lang="ts">
  import { page } from '$app/state';
  import type { DiagnoseView } from '$lib/diagnose/view';
  import { stepLabel } from '$lib/jobs/words';
  import type { Step } from '@orthos/core/hands';

  let { data } = $props();
  const step = $derived(page.params.step as Step);
  const diagnosed = $derived<DiagnoseView | null>(
    data.diagnose ? { ...data.view, ...data.diagnose, circuits: data.circuits } : null,
  );
</script>

<svelte:head><title>{stepLabel(step)} · No. {data.view.ticket.number} · Orthos</title></svelte:head>

{#key data.view.ticket.id}
  {@const { panel } = data}
  {#if panel.intake && data.intake}
    <panel.intake view={data.view} {...data.intake} shop={data.shop} />
  {:else if panel.diagnose && diagnosed && data.diagnose}
    <panel.diagnose view={diagnosed} models={data.diagnose.models} />
  {:else if panel.plan}
    <panel.plan view={data.view} units={data.shop} />
  {:else if panel.protect}
    <panel.protect view={data.view} units={data.shop} />
  {:else if panel.verify && data.verify}
    <panel.verify view={data.view} units={data.shop} {...data.verify} />
  {:else if panel.release}
    <panel.release view={data.view} />
  {:else if panel.hands}
    {#key panel.op}
      <panel.hands view={data.view} units={data.shop} op={panel.op} />
    {/key}
  {/if}
{/key}
