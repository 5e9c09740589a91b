<script lang="ts">
  import OneOf from '$lib/ui/OneOf.svelte';
  import Check from '$lib/ui/Check.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import { goto } from '$app/navigation';
  import ClosingList from '$lib/intake/ClosingList.svelte';
  import Cautions from '$lib/jobs/Cautions.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import FunctionList from '$lib/jobs/FunctionList.svelte';
  import GateHead from '$lib/jobs/GateHead.svelte';
  import GateList from '$lib/jobs/GateList.svelte';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import { send } from '$lib/jobs/send';
  import Photos from '$lib/photos/Photos.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { parseDecimal } from '@orthos/core/ground';
  import { benchMinutes, openGates, outcomeWord } from '@orthos/core/job';
  import { untrack } from 'svelte';

  let { view }: { view: JobView } = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));
  untrack(() => {
    desk.lens = 'parts';
  });
  const job = $derived(stateOf(view.events));
  const released = $derived(job.released);
  const closed = $derived(view.gates.find((g) => g.id === 'closed'));
  const open = $derived(openGates(view.gates, view.ticket.kind).filter((g) => g.id !== 'outcome'));
  const offered = $derived(
    job.intake.offer?.tiers.find((t) => t.label === job.intake.taken) ?? job.intake.offer?.tiers[0],
  );
  let outcome = $state<'repaired' | 'not repaired' | 'declined'>('repaired');
  let minutes = $state(untrack(() => String(Math.round(benchMinutes(view.events)))));
  let lead = $state(untrack(() => view.leadUsed));
  let note = $state('');

  async function release(event: SubmitEvent) {
    event.preventDefault();
    const m = parseDecimal(minutes);
    if (m === null || m < 0 || m > 100_000) return (recorder.problem = 'Minutes at the bench: a number from 0 up.');
    await recorder.record({ type: 'released', outcome, minutes: m, lead, ...(note.trim() ? { note } : {}) });
  }
  async function reopen() {
    try {
      const { id } = (await send('POST', `/api/jobs/${view.ticket.id}/reopen`, {})) as { id: string };
      await goto(`/jobs/${id}/intake`);
    } catch (e) {
      recorder.problem = (e as Error).message;
    }
  }
</script>

<div class="p-5 pt-4">
  <h2 class="text-xl">{released ? `Released: ${outcomeWord(view.ticket.kind, released.outcome)}` : 'Release'}</h2>
  <Notice text={recorder.problem} at="panel" class="mt-2" />
  {#if released}
    {#if released.note}<p class="mt-1 text-ink2">{released.note}</p>{/if}
    <div class="mt-4 flex flex-wrap gap-2">
      <a class="button button-main" href="/record/{view.ticket.id}">The record</a>
      <a class="button" href="/record/{view.ticket.id}/pdf">PDF</a>
      <button class="button" onclick={reopen}>It came back: reopen</button>
      {#if !job.handedOver}<button
          class="button"
          disabled={recorder.busy}
          onclick={() => recorder.record({ type: 'handed-over' })}>Handed over</button
        >{/if}
    </div>
    {#if job.handedOver}<p class="mt-2 text-good">✓ The owner has it back.</p>{/if}
  {:else}
    <form onsubmit={release} class="mt-3 space-y-3" aria-label="Release">
      <fieldset>
        <legend class="label">How it ended</legend>
        <OneOf
          aria-label="Outcome"
          choices={(['repaired', 'not repaired', 'declined'] as const).map((o) => ({
            value: o,
            label: outcomeWord(view.ticket.kind, o),
          }))}
          bind:value={outcome}
        />
      </fieldset>
      <div class="flex gap-4">
        <div class="w-32">
          <label class="label" for="rel-min">Bench minutes</label>
          <input id="rel-min" class="field" bind:value={minutes} inputmode="decimal" />
          {#if offered}<p class="text-[12px] text-ink2">offered {offered.minutes} min</p>{/if}
        </div>
        <Check class="self-end" bind:checked={lead}>leaded solder was used</Check>
      </div>
      <div>
        <label class="label" for="rel-note">Worth remembering</label>
        <textarea id="rel-note" class="field" rows="3" bind:value={note} maxlength="4000"></textarea>
      </div>
      <div class="flex gap-2">
        <button class="button button-main">Release</button>
        <a class="button" href="/record/{view.ticket.id}">Look at the record first</a>
      </div>
    </form>
  {/if}
  {#if view.reopenings.earlier}
    <p class="mt-4">
      Takes up <a class="underline" href="/jobs/{view.reopenings.earlier.id}/release"
        >No. {view.reopenings.earlier.number}</a
      >.
    </p>
  {/if}
  {#each view.reopenings.later as r (r.id)}
    <p class="mt-4">Taken up again by <a class="underline" href="/jobs/{r.id}">No. {r.number}</a>.</p>
  {/each}

  {#if !released}
    <ClosingList {job} {recorder} />
    {#if closed}
      <GateHead title="Closed: tested whole" gate={closed} />
      <FunctionList {view} {recorder} when="closed" />
    {/if}
  {/if}
  {#if open.length > 0}
    <h3 class="mt-5 mb-1 text-[13px] text-ink2">Not done, and so it goes on the record</h3>
    <GateList gates={open} />
  {/if}
  <Photos {view} taken="after" title="Photos after" />
  <Cautions {view} step="release" />
  <div class="mt-5"><GateList gates={view.gates.filter((g) => g.id === 'outcome')} /></div>
</div>
