<script lang="ts">
  // Where it goes on, before anything is hot: gaps to what stands round it, how far it may be off, drawn on the stage.
  import { layOnStage, useDesk } from '$lib/jobs/desk.svelte';
  import LandSheet from '$lib/part/LandSheet.svelte';
  import type { BoardModel, PlacedPart, Side } from '@orthos/core/board';
  import { formatGap, type UnitSettings } from '@orthos/core/ground';
  import { alignmentOf } from '@orthos/core/hands';
  import { packageById } from '@orthos/core/packages';
  import { solderedTerminals } from '@orthos/core/board';

  interface Props {
    board: BoardModel;
    target: PlacedPart;
    /** The side it is put on from. */
    side: Side;
    units: UnitSettings;
  }
  let { board, target, side, units }: Props = $props();
  const desk = useDesk();
  let turns = $state(0);
  const alignment = $derived(alignmentOf(board, target));
  const pins = $derived(packageById(target.package).terminals.some((t) => t.drill_mm));
  layOnStage(desk, sheet);
</script>

{#snippet sheet()}
  <LandSheet
    {board}
    {target}
    {side}
    {turns}
    lands={solderedTerminals(target).map((t) => ({ terminal: t.id, state: 'good', due: false, mended: false }))}
    {units}
    {alignment}
    onTurn={() => turns++}
  />
{/snippet}

<section class="mt-3 border-t border-faint py-2" aria-label="Set it by">
  <p class="font-semibold">Set it by</p>
  {#if alignment.gaps.length > 0}
    <p>
      {#each alignment.gaps as g, n (g.to)}{n > 0 ? ', ' : ''}<b>{formatGap(g.mm, units)}</b> to {g.name}{/each}: body
      to body.
    </p>
  {:else}
    <p class="text-ink2">Nothing stands beside it within 40 mm: by its lands alone.</p>
  {/if}
  <p class="text-[13px] text-ink2">
    {pins
      ? 'Its pins hold it: every one through its hole, flat or at the height it had.'
      : `It may be off by ${formatGap(alignment.shift_mm, units)}, or turned by ${alignment.turn_deg.toFixed(1)}°, and every lead still lies on its land.`}
  </p>
</section>
