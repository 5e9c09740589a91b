<script lang="ts">
  // What was tried before the work: the complaint itself, the functions, a start-up on the bench supply.
  import Select from '$lib/ui/Select.svelte';
  import FunctionList from '$lib/jobs/FunctionList.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { GoodStartUp } from '$lib/diagnose/view';
  import type { JobView } from '$lib/jobs/view';
  import { type DeviceKind, FUNCTION_LISTS, type JobState } from '@orthos/core/job';
  import { untrack } from 'svelte';
  import StartUps from './StartUps.svelte';

  interface Props {
    view: JobView;
    job: JobState;
    recorder: Recorder;
    goodStartUps: GoodStartUp[];
  }
  let { view, job, recorder, goodStartUps }: Props = $props();
  const SEEN = ['as told', 'otherwise', 'not seen', 'not tried'] as const;
  let note = $state(untrack(() => job.intake.complaintTried?.note ?? ''));
  let kind = $state<DeviceKind | ''>('');
  let why = $state(untrack(() => job.intake.proof?.why ?? ''));

  const said = $derived(job.intake.complaintTried);
  const proof = $derived(job.intake.proof);
  async function list(event: SubmitEvent) {
    event.preventDefault();
    if (!kind) return (recorder.problem = 'Choose the kind of device first.');
    await recorder.record({ type: 'functions-listed', kind, names: [...FUNCTION_LISTS[kind]] });
  }
  async function prove(by: 'running' | 'readings') {
    const reason = why.trim() || (by === 'running' ? 'the whole device is here' : 'only the board is here');
    await recorder.record({ type: 'proof', by, why: reason });
  }
</script>

<h2 class="mb-1 text-lg">The complaint, tried here</h2>
<p class="mb-2 text-ink2">{view.ticket.complaint}</p>
<div class="flex flex-wrap gap-2" role="group" aria-label="The complaint, tried here">
  {#each SEEN as s (s)}
    <button
      type="button"
      class="button px-3 {said?.seen === s ? 'button-main' : ''}"
      aria-pressed={said?.seen === s}
      onclick={() => recorder.record({ type: 'complaint-tried', seen: s, note: note.trim() })}
      >{s === 'as told' ? 'seen as told' : s === 'otherwise' ? 'seen otherwise' : s}</button
    >
  {/each}
</div>
<input
  class="field mt-2"
  bind:value={note}
  aria-label="What was seen"
  placeholder="what was seen, with which supply, after how long"
  maxlength="2000"
  onchange={() => said && recorder.record({ type: 'complaint-tried', seen: said.seen, note: note.trim() })}
/>

<h3 class="mt-5 mb-1 border-t border-line pt-3">Functions before the work</h3>
<FunctionList {view} {recorder} when="before" />
<form onsubmit={list} class="mt-2 flex gap-2" aria-label="List of functions">
  <Select
    none="list by kind of device"
    choices={Object.keys(FUNCTION_LISTS)}
    bind:value={kind}
    aria-label="Kind of device"
  />
  <button class="button">List them</button>
</form>

<StartUps {view} {job} {recorder} {goodStartUps} />

<h3 class="mt-5 mb-1 border-t border-line pt-3">Proof at the end</h3>
<div class="flex flex-wrap gap-2" role="group" aria-label="Proof at the end">
  {#each [['running', 'it can be run'], ['readings', 'it can only be measured']] as const as [by, label] (by)}
    <button
      type="button"
      class="button px-3 {proof?.by === by ? 'button-main' : ''}"
      aria-pressed={proof?.by === by}
      onclick={() => prove(by)}>{label}</button
    >
  {/each}
</div>
<input
  class="field mt-2"
  bind:value={why}
  aria-label="Why it can be run, or not"
  placeholder="why: no motor here, the car is elsewhere"
  maxlength="2000"
  onchange={() => proof && prove(proof.by)}
/>
{#if proof?.by === 'readings'}<p class="mt-1 text-[13px] text-ink2">
    At Verify the readings decide; the record says that it was not run.
  </p>{/if}
