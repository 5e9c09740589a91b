<script lang="ts">
  // A part as the newest tied photo from before shows it; nothing where none was tied there.
  import type { JobView } from '$lib/jobs/view';
  import { pointsText, seenFrom } from '$lib/part/seen';
  import { applyHomography, bodyRect, cornersOnBoard, invertHomography, type PlacedPart } from '@orthos/core/board';
  import type { JobState } from '@orthos/core/job';
  import { photoMatrix } from './placed';

  interface Props {
    view: Pick<JobView, 'photos'>;
    part: PlacedPart;
    placed: JobState['photosPlaced'];
    taken?: 'before' | 'after';
    class?: string;
  }
  let { view, part, placed, taken = 'before', class: size = 'h-14 w-14' }: Props = $props();
  const seen = $derived(seenFrom(part, part.side));
  const body = $derived(seen(cornersOnBoard(part, bodyRect(part))));
  const reach = $derived(1.4 * Math.max(1, ...body.map(([x, y]) => Math.max(Math.abs(x), Math.abs(y)))));
  const photo = $derived(
    view.photos.findLast((p) => {
      const at = placed.get(p.id);
      if (p.taken !== taken || at?.side !== part.side) return false;
      const [x, y] = applyHomography(invertHomography(at.toBoard), part.x_mm, part.y_mm);
      return x >= 0 && y >= 0 && x <= p.width && y <= p.height;
    }),
  );
  const toBoard = $derived(photo && placed.get(photo.id)?.toBoard);
</script>

{#if photo && toBoard}
  <svg
    viewBox="{-reach} {-reach} {2 * reach} {2 * reach}"
    class="border border-line {size}"
    role="img"
    aria-label="{part.ref ?? part.partId} {taken}"
  >
    <image
      href="/api/photos/{photo.id}"
      width={photo.width}
      height={photo.height}
      transform={photoMatrix({ w_px: photo.width, h_px: photo.height, toBoard }, seen)}
      preserveAspectRatio="none"
    />
    <polygon points={pointsText(body)} fill="none" stroke="var(--evidence)" stroke-width={reach / 40} />
  </svg>
{/if}
