<script lang="ts">
  // Lets the hands go on although a hard gate is not met: with a reason, kept and printed.
  import { aboutWork } from '$lib/jobs/about';
  import type { JobView } from '$lib/jobs/view';
  import { blocks, type GateResult } from '@orthos/core/job';
  import type { Recorder } from './recorder.svelte';

  let { view, gates, recorder }: { view: JobView; gates: JobView['gates']; recorder: Recorder } = $props();
  const blocked = $derived(gates.filter(blocks));
  let open = $state<GateResult | null>(null);
  let why = $state('');

  async function pass(event: SubmitEvent) {
    event.preventDefault();
    if (!open || !why.trim()) return (recorder.problem = 'Say why; it stays on the record.');
    if (await recorder.record({ type: 'override', gate: open.id, why, ...aboutWork(view) })) {
      open = null;
      why = '';
    }
  }
</script>

{#each blocked as g (g.id)}
  {#if open?.id === g.id}
    <form onsubmit={pass} class="mt-2 flex gap-2" aria-label="Override {g.label}">
      <input
        class="field"
        bind:value={why}
        placeholder="why it is safe to go on"
        aria-label="Reason"
        maxlength="2000"
      />
      <button class="button">Override</button>
    </form>
  {:else}
    <button class="mt-1 min-h-10 text-[13px] text-ink2 underline" onclick={() => (open = g)}
      >Override “{g.label}” with a reason</button
    >
  {/if}
{/each}
