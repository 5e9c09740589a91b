<script lang="ts">
  // Where a mark lies, shown by tapping the place on a small drawing, or on the photo as it was before, turned as the board.
  import { photoMatrix, type PlacedPhoto } from '$lib/photos/placed';
  import { centreOf, outlineOnBoard, pointsText, seenFrom } from '$lib/part/seen';
  import { bodyRect, cornersOnBoard, type PlacedPart, type Side } from '@orthos/core/board';
  import { markPlaces } from '@orthos/core/hands';
  import { packageById } from '@orthos/core/packages';
  import { RadioGroup } from 'bits-ui';

  interface Props {
    target: PlacedPart;
    side: Side;
    /** Terminal next to the mark; empty while nobody said. */
    value: string;
    label: string;
    /** The part itself, or the board without it. */
    of: 'part' | 'board';
    photo?: PlacedPhoto | undefined;
  }
  let { target, side, value = $bindable(), label, of, photo }: Props = $props();

  const id = $props.id();
  const pkg = $derived(packageById(target.package));
  const seen = $derived(seenFrom(target, side));
  const body = $derived(seen(cornersOnBoard(target, bodyRect(target))));
  const outline = $derived(pointsText(seen(outlineOnBoard(target))));
  const lands = $derived(pkg.terminals.map((t) => ({ id: t.id, points: seen(cornersOnBoard(target, t.land)) })));
  const half = $derived(
    1.25 *
      Math.max(...[...body, ...lands.flatMap((l) => l.points)].map(([x, y]) => Math.max(Math.abs(x), Math.abs(y)))),
  );
  const [bw, bh] = $derived([Math.max(...body.map((p) => p[0])), Math.max(...body.map((p) => p[1]))]);
  const places = $derived(
    markPlaces(target).map((id) => {
      const [x, y] = centreOf(lands.find((l) => l.id === id)?.points ?? body);
      // inside the body, at the corner or end next to the terminal
      const within = 0.72 * Math.min(1, bw / Math.max(Math.abs(x), 1e-9), bh / Math.max(Math.abs(y), 1e-9));
      const inside = (v: number, b: number) => Math.sign(v) * Math.min(Math.abs(v), 0.72 * b);
      const at: [number, number] =
        markPlaces(target).length === 2 ? [x * within, y * within] : [inside(x, bw), inside(y, bh)];
      return { id, at, where: whereOf(at) };
    }),
  );
  function whereOf([x, y]: [number, number]): string {
    const [h, v] = [
      x < -0.2 * bw ? 'left' : x > 0.2 * bw ? 'right' : '',
      y < -0.2 * bh ? 'upper' : y > 0.2 * bh ? 'lower' : '',
    ];
    return [v, h].filter(Boolean).join(' ') || 'middle';
  }
  /** A stripe is drawn over its end of the body; a dot is where it was tapped. */
  const stripe = $derived.by(() => {
    const end = packageById(target.package).terminals.find((t) => t.id === value)?.land;
    if (!end || pkg.polarity === 'pin1' || pkg.polarity === 'none' || places.length !== 2) return null;
    const { w, h } = bodyRect(target);
    const band = 0.16 * w;
    return seen(cornersOnBoard(target, { x: (Math.sign(end.x) * (w - band)) / 2, y: 0, w: band, h }));
  });
  const percent = (v: number) => `${50 + (50 * v) / half}%`;
</script>

<div class="w-40">
  <p class="text-[13px] font-semibold">{label}</p>
  <RadioGroup.Root class="relative aspect-square border border-line" aria-label={label} bind:value>
    <svg viewBox="{-half} {-half} {2 * half} {2 * half}" class="bg-board h-full w-full" aria-hidden="true">
      {#if photo && 'href' in photo.of}
        <image
          href={photo.of.href}
          width={photo.w_px}
          height={photo.h_px}
          preserveAspectRatio="none"
          transform={photoMatrix(photo, seen)}
        />
      {/if}
      {#each lands as l (l.id)}
        <polygon
          points={pointsText(l.points)}
          fill={photo ? 'none' : 'var(--lead)'}
          stroke="var(--drawn)"
          stroke-width={half / 120}
        />
      {/each}
      <polygon
        points={outline}
        fill={of === 'part' ? 'var(--part)' : 'none'}
        fill-opacity="0.9"
        stroke="var(--drawn)"
        stroke-width={half / 60}
        stroke-dasharray={of === 'part' ? undefined : `${half / 16} ${half / 24}`}
      />
      {#if stripe && !photo}
        <clipPath id="{id}-body"><polygon points={outline} /></clipPath>
        <polygon points={pointsText(stripe)} fill="var(--drawn)" clip-path="url(#{id}-body)" />
      {/if}
    </svg>
    {#each places as p (p.id)}
      <RadioGroup.Item
        value={p.id}
        aria-label="{p.where}, by {p.id}"
        class="absolute h-8 w-8 -translate-x-1/2 -translate-y-1/2 rounded-full border text-[13px] font-bold data-[state=checked]:border-[3px] data-[state=checked]:border-evidence data-[state=checked]:bg-sheet data-[state=checked]:text-evidence data-[state=unchecked]:border-ink3 {photo
          ? 'bg-sheet'
          : ''}"
        style="left: {percent(p.at[0])}; top: {percent(p.at[1])}">{p.id}</RadioGroup.Item
      >
    {/each}
  </RadioGroup.Root>
</div>
