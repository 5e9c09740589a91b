<script lang="ts">
  import { page } from '$app/state';
  import type { DiagnoseView } from '$lib/diagnose/view';
  import { stateOf } from '$lib/jobs/stateOf';
  import { stepLabel } from '$lib/jobs/words';
  import type { JobType } from '@orthos/core/job';
  import type { Step } from '@orthos/core/hands';

  /** Kinds of job that are mostly about several parts. */
  const SETS = new Set<JobType>(['refurbish', 'conversion', 'transplant']);
  let { data } = $props();
  const step = $derived(page.params.step as Step);
  /** As long as the step stays: with every entry of the log the rest of the data comes anew. */
  const panel = $derived(data.panel);
  const diagnosed = $derived<DiagnoseView | null>(
    data.diagnose ? { ...data.view, ...data.diagnose, circuits: data.circuits } : null,
  );
  const set = $derived((stateOf(data.view.events).set?.items.size ?? 0) > 0);
  /** Parts are done together in this job, or its kind is for that. */
  const listed = $derived(set || SETS.has(data.view.ticket.kind) || page.url.searchParams.has('set'));
</script>

<svelte:head><title>{stepLabel(step)} · No. {data.view.ticket.number} · Orthos</title></svelte:head>

{#key data.view.ticket.id}
  {#if panel.intake && data.intake}
    <panel.intake view={data.view} {...data.intake} shop={data.shop} />
  {:else if panel.diagnose && diagnosed && data.diagnose}
    {#if listed}{#await panel.list() then { default: SetPanel }}<SetPanel view={data.view} />{/await}{/if}
    <panel.diagnose view={diagnosed} models={data.diagnose.models} />
    {#if !listed}<p class="px-5 pb-5"><a class="underline" href="?set">Several parts together</a></p>{/if}
  {:else if panel.plan && set}
    {#await panel.order() then { default: SetOrder }}<SetOrder view={data.view} units={data.shop} />{/await}
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
