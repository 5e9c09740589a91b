<script lang="ts">
  // What eyes found, with its sign when it speaks about a part.
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import TakeBack from '$lib/jobs/TakeBack.svelte';
  import { type Sign, SIGNS } from '@orthos/core/diagnosis';
  import type { JobEventBody, JobState } from '@orthos/core/job';
  import type { JobView } from '$lib/jobs/view';
  import { placeName } from './place';

  interface Props {
    view: JobView;
    job: JobState;
    record: (body: JobEventBody) => Promise<boolean>;
    withdraw: (id: string) => void;
  }
  let { view, job, record, withdraw }: Props = $props();
  const desk = useDesk();
  let note = $state('');
  let sign = $state<Sign | ''>('');
  let problem = $state('');
  let input = $state<HTMLInputElement>();
  /** Puts the cursor where a sight is noted. */
  export function focus(): void {
    input?.focus();
  }

  async function add(event: SubmitEvent) {
    event.preventDefault();
    const text = note.trim() || sign;
    if (!text) return (problem = 'Say what you see.');
    if (sign && !desk.place?.partId) return (problem = 'Click the part that it is about first.');
    problem = '';
    const place = desk.place ?? undefined;
    if (await record({ type: 'observation', text, ...(place ? { place } : {}), ...(sign ? { sign } : {}) })) {
      note = '';
      sign = '';
    }
  }
</script>

<h3 class="mt-5 mb-1 text-[13px] text-ink2">Seen</h3>
<ul>
  {#each job.observations as o (o.id)}
    <li class="flex items-start border-t border-faint py-1.5">
      <span class="flex-1"
        >{#if o.place}<span class="font-semibold">{placeName(view.board, o.place)}</span>:
        {/if}{#if o.sign && o.sign !== o.text}<b>{o.sign},</b>
        {/if}{o.text}</span
      >
      <TakeBack what={o.text} onclick={() => withdraw(o.id)} />
    </li>
  {/each}
</ul>
<form onsubmit={add} class="mt-1 flex gap-2" aria-label="Observation">
  <input
    class="field min-w-0 flex-1"
    bind:value={note}
    bind:this={input}
    placeholder={desk.place ? `at ${placeName(view.board, desk.place)}: burn, crust` : 'burn, crust, missing part'}
    aria-label="What you see"
    maxlength="2000"
    aria-describedby={problem ? 'p-note' : undefined}
  />
  <Select class="w-28 shrink-0" none="no sign" choices={Object.keys(SIGNS)} bind:value={sign} aria-label="Sign" />
  <button class="button">Note</button>
</form>
<Notice text={problem} at="field" id="p-note" class="mt-1" />
