<script lang="ts">
  import { page } from '$app/state';
  import type { DiagnoseView } from '$lib/diagnose/view';
  import DiagnosePanel from '$lib/diagnose/DiagnosePanel.svelte';
  import HandsPanel from '$lib/hands/HandsPanel.svelte';
  import IntakePanel from '$lib/intake/IntakePanel.svelte';
  import { stepLabel } from '$lib/jobs/words';
  import PlanPanel from '$lib/plan/PlanPanel.svelte';
  import ProtectPanel from '$lib/protect/ProtectPanel.svelte';
  import ReleasePanel from '$lib/release/ReleasePanel.svelte';
  import VerifyPanel from '$lib/verify/VerifyPanel.svelte';
  import type { Step } from '@orthos/core/hands';

  let { data } = $props();
  const step = $derived(page.params.step as Step);
  const diagnosed = $derived<DiagnoseView | null>(
    data.diagnose ? { ...data.view, ...data.diagnose, circuits: data.circuits } : null,
  );
</script>

<svelte:head><title>{stepLabel(step)} · No. {data.view.ticket.number} · Orthos</title></svelte:head>

{#key data.view.ticket.id}
  {#if step === 'intake' && data.intake}
    <IntakePanel view={data.view} {...data.intake} shop={data.shop} />
  {:else if step === 'diagnose' && diagnosed && data.diagnose}
    <DiagnosePanel view={diagnosed} models={data.diagnose.models} />
  {:else if step === 'plan'}
    <PlanPanel view={data.view} units={data.shop} />
  {:else if step === 'protect'}
    <ProtectPanel view={data.view} units={data.shop} />
  {:else if step === 'verify'}
    <VerifyPanel view={data.view} />
  {:else if step === 'release'}
    <ReleasePanel view={data.view} />
  {:else if step === 'remove' || step === 'prepare' || step === 'fit'}
    {#key step}
      <HandsPanel view={data.view} op={step} />
    {/key}
  {/if}
{/key}
