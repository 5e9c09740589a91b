<script lang="ts">
  // Small things done while the device is open anyway; asked for at intake, ticked off at the end.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobState } from '@orthos/core/job';

  type State = 'wanted' | 'done' | 'left';
  interface Props {
    job: JobState;
    recorder: Recorder;
    /** What can be said about one here. */
    states: State[];
  }
  let { job, recorder, states }: Props = $props();
  const WORDS: Record<State, string> = { wanted: 'wanted', done: 'done', left: 'left alone' };
  let name = $state('');

  async function add(event: SubmitEvent) {
    event.preventDefault();
    if (!name.trim()) return (recorder.problem = 'Name it: new cell, clean the fan, fresh paste.');
    if (await recorder.record({ type: 'extra', name: name.trim(), state: 'wanted' })) name = '';
  }
</script>

<h3 class="mt-5 mb-1 border-t border-line pt-3">While it is open</h3>
<ul aria-label="While it is open">
  {#each job.intake.extras as [extra, state] (extra)}
    <li class="flex items-center gap-2 border-t border-faint py-1" aria-label={extra}>
      <span class="flex-1 font-semibold">{extra}</span>
      {#each states as s (s)}
        <button
          type="button"
          class="button px-2.5 {state === s ? 'button-main' : ''}"
          aria-pressed={state === s}
          onclick={() => recorder.record({ type: 'extra', name: extra, state: s })}>{WORDS[s]}</button
        >
      {/each}
    </li>
  {/each}
</ul>
<form onsubmit={add} class="mt-1 flex gap-2" aria-label="Another extra">
  <input
    class="field"
    bind:value={name}
    placeholder="new cell, fresh paste, clean contacts"
    aria-label="Extra"
    maxlength="200"
  />
  <button class="button">Add</button>
</form>
