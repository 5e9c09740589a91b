<script lang="ts">
  // Where it goes on, before anything is hot: gaps to what stands round it, how far it may be off, drawn on the stage.
  import { layOnStage, useDesk } from '$lib/jobs/desk.svelte';
  import LandSheet from '$lib/part/LandSheet.svelte';
  import { holdWords } from '$lib/part/holdWords';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import type { PlacedPhoto } from '$lib/photos/placed';
  import { type PlacedPart, type Side, solderedTerminals } from '@orthos/core/board';
  import { holdFor } from '@orthos/core/compare';
  import { formatGap, type UnitSettings } from '@orthos/core/ground';
  import { alignmentOf } from '@orthos/core/hands';
  import { packageById } from '@orthos/core/packages';
  import type { ComponentProps } from 'svelte';
  import type PhotoPins from '$lib/photos/PhotoPins.svelte';

  interface Props {
    view: JobView;
    target: PlacedPart;
    /** The side it is put on from. */
    side: Side;
    recorder: Recorder;
    units: UnitSettings;
  }
  let { view, target, side, recorder, units }: Props = $props();
  const board = $derived(view.board);
  let photo = $state.raw<PlacedPhoto>();
  let clearness = $state(55);
  let tying = $state.raw<Omit<ComponentProps<typeof PhotoPins>, 'onClose'>>();
  const desk = useDesk();
  let turns = $state(0);
  const alignment = $derived(alignmentOf(board, target));
  const pins = $derived(packageById(target.package).terminals.some((t) => t.drill_mm));
  const hold = $derived(holdFor(board, target, view.inputs?.settings.surroundings?.absent));
  layOnStage(desk, sheet);
</script>

{#snippet sheet()}
  {#if tying}{#await import('$lib/photos/PhotoPins.svelte') then { default: PhotoPins }}<PhotoPins
        {...tying}
        onClose={() => (tying = undefined)}
      />{/await}
  {:else}<LandSheet
      {board}
      {target}
      {side}
      {turns}
      lands={solderedTerminals(target).map((t) => ({ terminal: t.id, state: 'good', due: false, mended: false }))}
      {units}
      {alignment}
      photo={photo && { ...photo, clearness }}
      onTurn={() => turns++}
    />{/if}
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
  <p class="text-[13px]">
    <span class="text-ink2">Hold it</span>
    {holdWords(hold)}{hold.by === 'body' ? ', half-way up: it sits below the tips' : ''}.
  </p>
  {#await import('./PhotoOver.svelte') then { default: PhotoOver }}<PhotoOver
      {view}
      {target}
      {side}
      {recorder}
      bind:photo
      bind:clearness
      bind:tying
    />{/await}
</section>
