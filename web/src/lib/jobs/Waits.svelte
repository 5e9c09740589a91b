<script lang="ts">
  // What a job waits for, and until when; taken back with one tap once it is there.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import { calendarDay } from '$lib/ui/dates';
  import OneOf from '$lib/ui/OneOf.svelte';
  import type { JobState, WaitsFor } from '@orthos/core/job';

  interface Props {
    job: JobState;
    recorder: Recorder;
    /** What is known to be missing, said where nobody says anything else. */
    missing?: string;
  }
  let { job, recorder, missing = '' }: Props = $props();

  const WORDS: Record<WaitsFor, string> = { part: 'a part', answer: 'an answer', 'pick-up': 'being fetched' };
  const waits = $derived(job.intake.waits);
  let kind = $state<WaitsFor>('part');
  let what = $state('');
  let until = $state('');

  async function wait(event: SubmitEvent) {
    event.preventDefault();
    const said = what.trim() || (kind === 'part' ? missing : '');
    const stored = await recorder.record({
      type: 'waits',
      for: kind,
      ...(said ? { what: said.slice(0, 200) } : {}),
      ...(until ? { until } : {}),
    });
    if (stored) what = until = '';
  }
</script>

{#if waits}
  <p class="flex flex-wrap items-center gap-3 border-l-[3px] border-caution py-1 pl-3" role="status">
    <span
      ><span class="font-semibold">Waits for {waits.what || WORDS[waits.for]}</span>{waits.until
        ? `, until ${calendarDay(waits.until)}`
        : ''}</span
    >
    <button class="button" disabled={recorder.busy} onclick={() => void recorder.record({ type: 'waits', for: null })}
      >{waits.for === 'part' ? 'It is here' : waits.for === 'answer' ? 'It came' : 'Go on'}</button
    >
  </p>
{:else}
  <form onsubmit={wait} aria-label="Waits for">
    <OneOf aria-label="Waits for" choices={WORDS} bind:value={kind} />
    <div class="grid grid-cols-[1fr_9.5rem_auto] items-end gap-2">
      <label
        ><span class="label">What exactly</span><input
          class="field"
          maxlength="200"
          placeholder={kind === 'part' ? missing || 'order, donor' : ''}
          bind:value={what}
        /></label
      >
      <DateField label="Should be there" bind:value={until} />
      <button class="button" disabled={recorder.busy}>Wait</button>
    </div>
  </form>
{/if}
