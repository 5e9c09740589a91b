<script lang="ts">
  // The record of a part that comes from another board: read there, taken over here, so that it stays with the part.
  import { recordWords } from './recordWords';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { send } from '$lib/jobs/send';
  import type { UnitSettings } from '@orthos/core/ground';
  import { type Elsewhere, type JobState, legsCleaned, type PartRecord, workAt } from '@orthos/core/job';

  interface Props {
    partId: string;
    from: Elsewhere;
    job: JobState;
    recorder: Recorder;
    units: UnitSettings;
    /** Told once the record is there. */
    onRecord: (record: PartRecord) => void;
  }
  let { partId, from, job, recorder, units, onRecord }: Props = $props();

  const came = $derived(job.came.get(partId));
  let read = $state.raw<PartRecord | null>(null);
  let problem = $state('');
  async function look({ ticketId, partId: there }: Elsewhere) {
    try {
      read = (await send('GET', `/api/jobs/${ticketId}/part-record?part=${encodeURIComponent(there)}`)) as PartRecord;
      problem = '';
      onRecord(read);
    } catch (e) {
      problem = (e as Error).message;
    }
  }
  $effect(() => void look(from));
  const shown = $derived(came?.record ?? read);
  const cleaned = $derived(legsCleaned(workAt(job, partId)?.runs ?? []));
  const isOff = $derived(read?.offAt !== null);
</script>

<div class="my-1 border-l-[3px] {came ? 'border-good' : 'border-caution'} pl-3" data-testid="came-with">
  {#if problem}<p class="font-semibold text-stop">{problem}</p>{/if}
  {#if shown}
    {#each recordWords(shown, from.number, units, cleaned) as line (line)}<p class="text-[14px]">{line}.</p>{/each}
  {/if}
  {#if came}
    <p class="text-[13px] text-good">✓ its record goes with it</p>
  {:else if read && !isOff}
    <p class="text-caution">
      <span aria-hidden="true">◆</span> Still on its board:
      <a class="underline" href="/jobs/{from.ticketId}">No. {from.number}</a> first.
    </p>
  {:else if read}
    <button
      class="button mt-1"
      disabled={recorder.busy}
      onclick={() => read && void recorder.record({ type: 'part-came', partId, from, record: read })}
      >It is here: its record goes with it</button
    >
  {/if}
</div>
