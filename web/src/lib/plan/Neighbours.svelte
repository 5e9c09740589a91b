<script lang="ts">
  // Neighbours until the part is off: how hot, how far from harm, and what to do about it.
  import type { BoardModel } from '@orthos/core/board';
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import { fateOf, type PlanResult } from '@orthos/core/rework';
  import { nameOf } from '$lib/jobs/nameOf';
  import { fateText, MARK, neighbourKind, seconds, worthShowing } from './words';

  interface Props {
    board: BoardModel;
    result: PlanResult;
    units: UnitSettings;
    /** The part is off the board meanwhile. */
    onTakenOut: (partId: string) => void;
  }
  let { board, result, units, onTakenOut }: Props = $props();

  const TONE = { good: 'text-good', caution: 'text-caution', stop: 'text-stop' } as const;
  const shown = $derived(worthShowing(result, 6));
  /** What a neighbour's temperature may be off by, in the user's degrees. */
  function spread(partId: string): string {
    const off = result.neighbourRanges?.find((n) => n.partId === partId)?.atWetPlusMinus_K;
    return off === undefined ? '' : `± ${Math.round(off * (units.temperature === 'F' ? 1.8 : 1))}`;
  }
</script>

<h3 class="mt-5 mb-1 text-[13px] text-ink2">
  {result.allWet_s === null ? `Neighbours in ${seconds(result.ended_s)}` : 'Neighbours until the part is off'}
</h3>
{#if shown.length === 0}
  <p class="border-t border-faint py-2 text-ink2">None comes within 90 K of harm.</p>
{/if}
<table class="w-full">
  <tbody>
    {#each shown as n (n.partId)}
      {@const fate = fateOf(result, n)}
      <tr class="border-t border-faint">
        <th scope="row" class="w-14 py-1.5 text-left font-semibold">{nameOf(board, n.partId)}</th>
        <td class="py-1 text-[13px] leading-tight text-ink2"
          >{n.far ? 'other side, ' : ''}{neighbourKind(board, n.partId)}</td
        >
        <td class="w-24 text-right whitespace-nowrap"
          ><span class="text-base font-bold">{formatTemperature(n.atWet_C, units)}</span>
          <span class="text-ink2">{spread(n.partId)}</span></td
        >
        <td class="w-20 pl-2 text-right whitespace-nowrap text-ink2">{fateText(n, fate, units)}</td>
        <td class="w-24 pl-3 font-semibold whitespace-nowrap {TONE[fate.tone]}">
          <span aria-hidden="true">{MARK[fate.tone]}</span>
          {#if fate.first === 'out'}
            <button class="underline" onclick={() => onTakenOut(n.partId)}>{fate.word}</button>
          {:else}{fate.word}{/if}
        </td>
      </tr>
    {/each}
  </tbody>
</table>
