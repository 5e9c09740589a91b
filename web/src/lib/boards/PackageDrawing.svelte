<script lang="ts">
  // One package drawn to scale: lands, leads, body, where pin 1 is, its measures.
  import { blankBoard } from '@orthos/core/board';
  import { extentOf, packageById } from '@orthos/core/packages';
  import { boardScene } from '@orthos/core/scene';

  let { id }: { id: string } = $props();
  const pkg = $derived(packageById(id));
  const e = $derived(extentOf(pkg));
  const margin = $derived(Math.max(0.8, (e.x1 - e.x0) * 0.14));
  const box = $derived({
    x: e.x0 - margin,
    y: e.y0 - margin,
    w: e.x1 - e.x0 + 2 * margin,
    h: e.y1 - e.y0 + 2.4 * margin,
  });
  const unit = $derived(Math.max(box.w, box.h) / 100);
  const shapes = $derived(
    boardScene(
      {
        ...blankBoard('one', 1, 1, 1, 1.6),
        parts: [{ partId: 'p', ref: ' ', package: id, x_mm: 0, y_mm: 0, rotation_deg: 0, side: 'top' }],
      },
      'top',
    ).shapes.filter((s) => s.partId),
  );
  const FILL: Record<string, string> = {
    land: 'var(--copper)',
    lead: 'var(--lead)',
    mould: 'var(--part)',
    ceramic: 'var(--part)',
    metal: 'var(--metal)',
    plastic: 'var(--plastic)',
    glass: 'var(--sheet)',
    mark: 'var(--drawn)',
  };
  const first = $derived(pkg.terminals[0]);
</script>

<svg
  viewBox="{box.x} {box.y} {box.w} {box.h}"
  class="h-full max-h-[420px] w-full"
  role="img"
  aria-label="Drawing of {pkg.label}"
>
  {#each shapes as s, i (i)}
    {#if s.r !== undefined}
      <circle
        cx={s.points[0][0]}
        cy={s.points[0][1]}
        r={s.r}
        fill={FILL[s.style]}
        stroke="var(--drawn)"
        stroke-width={unit * 0.35}
        fill-opacity="0.85"
      />
    {:else}
      <polygon
        points={s.points.map((p) => p.join(',')).join(' ')}
        fill={FILL[s.style]}
        fill-opacity={s.style === 'land' ? 1 : 0.85}
        stroke={s.style === 'land' || s.style === 'mark' ? 'none' : 'var(--drawn)'}
        stroke-width={unit * 0.35}
      />
    {/if}
  {/each}
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
