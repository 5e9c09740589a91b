<script lang="ts">
  // Which way round, before anything is hot: the part's mark, the board's, the photo before, side by side, and what continuity says.
  import OneOf from '$lib/ui/OneOf.svelte';
  import PhotoPick from '$lib/photos/PhotoPick.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import { isPolarised, partName, type PlacedPart, type Side } from '@orthos/core/board';
  import {
    drawnMark,
    groundPlaces,
    judgeOrientation,
    LOOKED_WORDS,
    markByGround,
    type Orientation,
  } from '@orthos/core/hands';
  import { currentAttempt } from '@orthos/core/job';
  import { packageById } from '@orthos/core/packages';
  import MarkAt from './MarkAt.svelte';
  import { MARK_MEANS } from './markMeans';

  interface Props {
    view: JobView;
    target: PlacedPart;
    side: Side;
    recorder: Recorder;
  }
  let { view, target, side, recorder }: Props = $props();

  const job = $derived(stateOf(view.events));
  const said = $derived(currentAttempt(job).orientation);
  const gate = $derived(view.gates.find((g) => g.id === 'orientation'));
  const polarised = $derived(isPolarised(target));
  const drawn = $derived(drawnMark(target));
  const grounds = $derived(groundPlaces(target));

  let lies = $state('');
  let silkscreen = $state('');
  let onPhoto = $state('');
  let through = $state('');
  /** Chosen by hand; else the last one from before that is tied to this side. */
  let chosen = $state<string>();
  const tied = $derived(
    view.photos.findLast((p) => p.taken === 'before' && job.photosPlaced.get(p.id)?.side === side)?.id ?? '',
  );
  const photoId = $derived(chosen ?? tied);
  const photo = $derived.by(() => {
    const [p, at] = [view.photos.find((own) => own.id === photoId), job.photosPlaced.get(photoId)];
    if (!p || at?.side !== side) return undefined;
    return { of: { href: `/api/photos/${p.id}` }, w_px: p.width, h_px: p.height, toBoard: at.toBoard };
  });
  const measured = $derived(through ? markByGround(target, through) : null);
  const seen = $derived<Orientation | null>(
    lies
      ? {
          lies,
          belongs: [
            ...(onPhoto ? [{ by: 'photo' as const, at: onPhoto, ...(photoId ? { photoId } : {}) }] : []),
            ...(silkscreen ? [{ by: 'silkscreen' as const, at: silkscreen }] : []),
            ...(measured ? [{ by: 'continuity' as const, at: measured }] : []),
          ],
        }
      : null,
  );
  const judged = $derived(seen && seen.belongs.length > 0 ? judgeOrientation(seen, drawn) : null);

  async function check() {
    if (!seen) return (recorder.problem = 'Tap where the mark of the part in your tweezers lies.');
    if (seen.belongs.length === 0)
      return (recorder.problem = 'Look at this board as well: its photo before, its mark, or continuity.');
    await recorder.record({
      type: 'orientation-checked',
      against: seen.belongs.map((b) => LOOKED_WORDS[b.by]),
      seen,
    });
  }
</script>

<div class="border-t border-faint py-2" role="group" aria-label="Orientation">
  <p class="font-semibold">
    Orientation
    {#if !polarised}<span class="font-normal text-ink2">{partName(target)} has no wrong way round</span>
    {:else if said && gate}<span class="font-normal {gate.state === 'met' ? 'text-good' : 'text-stop'}"
        >{gate.state === 'met' ? '✓' : '▲'} {gate.why}</span
      >{/if}
  </p>
  {#if polarised}
    <p class="text-[13px] text-ink2">
      {MARK_MEANS[packageById(target.package).polarity]} Tap where each mark lies, as seen from the {side}.
    </p>
    <div class="mt-1 flex flex-wrap items-start gap-4">
      <MarkAt {target} {side} of="part" label="Mark of the part" bind:value={lies} />
      <MarkAt {target} {side} of="board" label="Mark of the board" bind:value={silkscreen} />
      <div class="w-40">
        <MarkAt {target} {side} of="board" label="Old part, photo" {photo} bind:value={onPhoto} />
        <div class="mt-1"><PhotoPick {view} bind:photoId={() => photoId, (id) => (chosen = id)} /></div>
        {#if photoId && !photo}
          <p class="text-[13px] text-ink2">
            Lay it over the drawing below and it lies here too, turned as the board.
            <a class="underline" href="/api/photos/{photoId}" target="_blank" rel="noopener">Look at it</a>
          </p>
        {/if}
      </div>
      {#if grounds.length > 0}
        <div class="w-40">
          <p class="text-[13px] font-semibold">Continuity</p>
          <p class="text-[13px] text-ink2">Board dead, part off: ground reads through at</p>
          <OneOf
            aria-label="Ground reads through at"
            choices={[{ value: '', label: 'not tried' }, ...grounds.map((g) => ({ value: g, label: `land ${g}` }))]}
            bind:value={through}
          />
        </div>
      {/if}
    </div>
    <div class="mt-2 flex items-center gap-3">
      <button class="button px-3" disabled={recorder.busy} onclick={check}>Checked</button>
      {#if judged}<p class="text-[13px] {judged.ok ? 'text-good' : 'font-semibold text-stop'}" role="status">
          {judged.ok ? '●' : '▲'}
          {judged.why}
        </p>{/if}
    </div>
  {/if}
</div>
