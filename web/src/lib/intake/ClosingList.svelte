<script lang="ts">
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { closingSteps, type JobState, screwsOut } from '@orthos/core/job';

  let { job, recorder }: { job: JobState; recorder: Recorder } = $props();
  const steps = $derived(closingSteps(job.intake));
  const out = $derived(screwsOut(job.intake));
</script>

{#if steps.length > 0}
  <h3 class="mt-5 mb-1 flex items-baseline border-t border-line pt-3">
    Closing, in this order
    <span class="ml-auto text-[13px] font-semibold {out > 0 ? 'text-ink2' : 'text-good'}"
      >{out > 0 ? `${out} screws still out` : '✓ no screw left over'}</span
    >
  </h3>
  <ol aria-label="Closing">
    {#each steps as s, n (s.stepId)}
      <li class="flex min-h-11 items-center gap-2 border-t border-faint">
        <span class="w-6 font-semibold">{n + 1}</span>
        <span class="min-w-0 flex-1 first-letter:uppercase {s.done ? 'text-ink2' : ''}">{s.says}</span>
        {#if s.done}<span class="font-semibold text-good"><span aria-hidden="true">✓</span> back</span>
        {:else}<button
            type="button"
            class="button px-3"
            aria-label="{s.says}: it is back"
            onclick={() => recorder.record({ type: 'closed-again', stepId: s.stepId })}>Back</button
          >{/if}
      </li>
    {/each}
  </ol>
{/if}
