<script lang="ts">
  import { nameOf } from '$lib/jobs/nameOf';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import { SLIPS } from '@orthos/core/hands';
  import type { Recorder } from './recorder.svelte';

  let { view, recorder }: { view: JobView; recorder: Recorder } = $props();
  const slips = $derived(stateOf(view.events).slips);
  let found = $state<Record<string, string>>({});

  async function follow(slipId: string, ok: boolean) {
    const result = (found[slipId] ?? '').trim() || (ok ? 'all right' : '');
    if (!result) return (recorder.problem = 'Say what is damaged.');
    await recorder.record({ type: 'slip-checked', slipId, ok, result });
  }
</script>

{#if slips.length > 0}
  <section class="mt-5" aria-label="Slips">
    <h3 class="mb-1 text-[13px] text-ink2">Slips</h3>
    {#each slips as s (s.id)}
      <div class="border-t border-faint py-2">
        <p class="flex gap-2">
          <span class="font-semibold">{SLIPS[s.kind].label}{s.partId ? `, ${nameOf(view.board, s.partId)}` : ''}</span>
          <span class="ml-auto font-semibold {s.checked ? (s.checked.ok ? 'text-good' : 'text-stop') : 'text-caution'}">
            {s.checked ? `${s.checked.ok ? '✓' : '▲'} ${s.checked.result}` : '○ not looked at'}
          </span>
        </p>
        {#if !s.checked || (s.kind === 'wrong-part' && !s.checked.ok)}
          <p class="text-[13px] text-ink2">{SLIPS[s.kind].check}</p>
          <div class="mt-1 flex gap-2">
            <input
              class="field"
              bind:value={found[s.id]}
              placeholder="what you found"
              aria-label="Found after: {SLIPS[s.kind].label}"
              maxlength="2000"
            />
            <button class="button px-3 whitespace-nowrap" onclick={() => follow(s.id, true)}>All right</button>
            <button class="button px-3" onclick={() => follow(s.id, false)}>Damage</button>
          </div>
        {/if}
      </div>
    {/each}
  </section>
{/if}
