<script lang="ts">
  import { page } from '$app/state';
  import DiagnosePanel from '$lib/diagnose/DiagnosePanel.svelte';
  import GateList from '$lib/jobs/GateList.svelte';
  import IntakePanel from '$lib/jobs/IntakePanel.svelte';
  import { stepLabel } from '$lib/jobs/words';
  import PlanPanel from '$lib/plan/PlanPanel.svelte';
  import type { Step } from '@orthos/core';

  let { data } = $props();
  const step = $derived(page.params.step as Step);
  const gates = $derived(data.view.gates.filter((g) => g.step === step));
</script>

<svelte:head><title>{stepLabel(step)} · No. {data.view.ticket.number} · Orthos</title></svelte:head>

{#key data.view.ticket.id}
  {#if step === 'intake'}
    <IntakePanel view={data.view} shop={data.shop} />
  {:else if step === 'diagnose'}
    <DiagnosePanel view={data.view} />
  {:else if step === 'plan'}
    <PlanPanel view={data.view} units={data.shop} />
  {:else}
    <div class="p-5">
      <h2 class="mb-1 text-xl">{stepLabel(step)}</h2>
      <p class="mb-4 text-ink2">What has to hold here, judged from what is recorded.</p>
      <GateList {gates} />
    </div>
  {/if}
{/key}
