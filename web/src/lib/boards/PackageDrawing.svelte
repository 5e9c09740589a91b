<script lang="ts">
  // One package drawn to scale: lands, leads, body, where pin 1 is, its measures.
  import { packageById } from '@orthos/core/packages';
  import PackageShapes, { roomOf } from './PackageShapes.svelte';

  let { id }: { id: string } = $props();
  const pkg = $derived(packageById(id));
  const e = $derived(roomOf(id));
  const margin = $derived(Math.max(0.8, (e.x1 - e.x0) * 0.14));
  const box = $derived({
    x: e.x0 - margin,
    y: e.y0 - margin,
    w: e.x1 - e.x0 + 2 * margin,
    h: e.y1 - e.y0 + 2.4 * margin,
  });
  const unit = $derived(Math.max(box.w, box.h) / 100);
  const first = $derived(pkg.terminals[0]);
</script>

<svg
  viewBox="{box.x} {box.y} {box.w} {box.h}"
  class="h-full max-h-[420px] w-full"
  role="img"
  aria-label="Drawing of {pkg.label}"
>
  <PackageShapes {id} line={unit * 0.35} />
  {#if first}
    <text
      x={first.land.x}
      y={first.land.y + unit * 1.2}
      font-size={unit * 3.6}
      text-anchor="middle"
      class="fill-hot font-bold">{first.id}</text
    >
  {/if}
  <g stroke="var(--ink2)" stroke-width={unit * 0.3} fill="none">
    <path
      d="M{-pkg.body.l / 2} {e.y1 + margin * 0.5}v{margin * 0.4}M{pkg.body.l / 2} {e.y1 + margin * 0.5}v{margin *
        0.4}M{-pkg.body.l / 2} {e.y1 + margin * 0.7}H{pkg.body.l / 2}"
    />
  </g>
  <text x="0" y={e.y1 + margin * 0.7 + unit * 5} font-size={unit * 4.2} text-anchor="middle" class="fill-ink2"
    >{pkg.body.l} × {pkg.body.w}, {pkg.body.h} high</text
  >
</svg>
