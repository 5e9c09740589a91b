<script lang="ts">
  // The readings of a job, newest first, beside what a good board reads.
  import TakeBack from '$lib/jobs/TakeBack.svelte';
  import type { BoardModel } from '@orthos/core/board';
  import { compareReading, formatReading } from '@orthos/core/ground';
  import type { JobState } from '@orthos/core/job';
  import { placeName } from './place';

  interface Props {
    board: BoardModel;
    readings: JobState['readings'];
    withdraw: (id: string) => void;
  }
  let { board, readings, withdraw }: Props = $props();
  const newest = $derived([...readings].reverse());
</script>

<h3 class="mt-5 mb-1 text-[13px] text-ink2">Readings</h3>
{#if newest.length === 0}
  <p class="border-t border-faint py-3 text-ink2">
    None yet. Click a joint on the board, type what the meter shows, press Enter.
  </p>
{:else}
  <table class="w-full">
    <thead class="sr-only"
      ><tr><th>Place</th><th>Reading</th><th>Good board</th><th>Difference</th><th>Take back</th></tr></thead
    >
    <tbody>
      {#each newest as r (r.id)}
        {@const d = compareReading(r.value, r.good, r.quantity)}
        <tr class="border-t border-faint">
          <td class="py-1.5 pr-2">
            <span class="font-semibold">{placeName(board, r.place)}</span>
            {#if r.probe && r.quantity !== 'current'}<span class="text-ink2">{r.probe.red}</span>{/if}
          </td>
          <td class="pr-2 text-right text-base font-bold whitespace-nowrap"
            >{formatReading(r.value, r.quantity)}
            {#if r.probe?.simulated}<span class="block text-[12px] font-normal text-caution">simulated</span>{/if}</td
          >
          <td class="pr-2 text-right whitespace-nowrap text-ink2"
            >{r.good === null ? '' : formatReading(r.good, r.quantity)}</td
          >
          <td class="w-20 {d === 'same' ? 'text-evidence' : d ? 'font-semibold text-hot' : 'text-ink3'}">
            {d === 'same'
              ? '= as good'
              : d === 'low'
                ? '▼ too low'
                : d === 'high'
                  ? '▲ too high'
                  : r.probe
                    ? ''
                    : 'no reference'}
          </td>
          <td class="w-9">
            <TakeBack what={`the reading at ${placeName(board, r.place)}`} onclick={() => withdraw(r.id)} />
          </td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
