<script lang="ts">
  // The working side at one time: bands of temperature, where solder begins to melt, the part and its joints.
  import { evenField, heatColour } from '$lib/stage/heatLayer';
  import { currentTheme, onThemeChange } from '$lib/ui/theme';
  import { type BoardModel, boxOnBoard } from '@orthos/core/board';
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import { packageById } from '@orthos/core/packages';
  import type { FieldFrames } from '@orthos/core/rework';
  import { contours } from 'd3';
  import { onMount } from 'svelte';

  interface Props {
    board: BoardModel;
    frames: FieldFrames;
    time: number;
    target: string;
    units: UnitSettings;
    /** Joint to point at. */
    marked?: string;
    /** Isotherm of the melting, °C, and its words. */
    melts: { celsius: number; label: string } | null;
    told: string;
  }
  let { board, frames, time, target, units, marked, melts, told }: Props = $props();

  /** Seen round the part, mm. */
  const AROUND = 22;
  const BANDS = [50, 75, 100, 125, 150, 175, 200, 225, 250, 275, 300];
  let scope = $state(false);
  onMount(() => {
    scope = currentTheme() === 'scope';
    return onThemeChange(() => (scope = currentTheme() === 'scope'));
  });
  const colour = $derived(heatColour(scope));
  const part = $derived(board.parts.find((p) => p.partId === target));
  const view = $derived({ x: (part?.x_mm ?? 0) - AROUND, y: (part?.y_mm ?? 0) - AROUND * 0.7 });
  const field = $derived(evenField(frames, time));
  const lines = $derived.by(() => {
    const { nx, ny, x0, y0, step } = field;
    const values = Array.from(field.values);
    const contour = contours().size([nx, ny]);
    const path = (polygons: number[][][][]) =>
      polygons
        .flatMap((rings) =>
          rings.map(
            (ring) =>
              `M${ring.map(([x, y]) => `${(x0 + x * step).toFixed(2)} ${(y0 + y * step).toFixed(2)}`).join('L')}Z`,
          ),
        )
        .join('');
    const bands = contour
      .thresholds(BANDS)(values)
      .flatMap((b) => (b.coordinates.length ? [{ celsius: b.value, d: path(b.coordinates) }] : []));
    const isotherm = melts ? path(contour.thresholds([melts.celsius])(values)[0].coordinates) : '';
    return { bands, isotherm };
  });
  /** Where each band begins, straight down from the part. */
  const marks = $derived.by(() => {
    const { nx, ny, x0, y0, step, values } = field;
    const i = Math.min(nx - 1, Math.max(0, Math.round(((part?.x_mm ?? 0) - x0) / step)));
    const found: { celsius: number; y: number }[] = [];
    for (let j = 1; j < ny; j++) {
      const [above, below] = [values[(j - 1) * nx + i], values[j * nx + i]];
      for (const celsius of BANDS)
        if (above >= celsius && below < celsius)
          found.push({ celsius, y: y0 + (j - 0.5 + (above - celsius) / (above - below)) * step });
    }
    const edge = Math.max(0, ...boxes.filter((b) => b.id === target).map((b) => b.body.y1));
    const foot = view.y + 1.4 * AROUND;
    return found.filter((m, n) => m.y > edge + 1 && m.y < foot && (n === 0 || m.y - found[n - 1].y > 1.4));
  });
  const boxes = $derived(
    board.parts
      .filter((p) => p.side === part?.side)
      .map((p) => {
        const pkg = packageById(p.package);
        return {
          id: p.partId,
          body: boxOnBoard(p, { x: 0, y: 0, w: pkg.body.l, h: pkg.body.w }),
          lands: pkg.terminals.map((t) => ({ id: t.id, ...boxOnBoard(p, t.land) })),
        };
      }),
  );
</script>

<svg
  class="w-full border border-line bg-bench"
  viewBox="{view.x} {view.y} {2 * AROUND} {1.4 * AROUND}"
  role="img"
  aria-label={told}
>
  {#each lines.bands as b (b.celsius)}<path d={b.d} fill={colour(b.celsius + 12)} fill-opacity="0.8" />{/each}
  {#each boxes as p (p.id)}
    {#each p.lands as l (l.id)}
      <rect
        x={l.x0}
        y={l.y0}
        width={l.x1 - l.x0}
        height={l.y1 - l.y0}
        fill="none"
        stroke={p.id === target && l.id === marked ? 'var(--hot)' : 'var(--ink2)'}
        stroke-width={p.id === target && l.id === marked ? 0.35 : 0.1}
      />
    {/each}
    <rect
      x={p.body.x0}
      y={p.body.y0}
      width={p.body.x1 - p.body.x0}
      height={p.body.y1 - p.body.y0}
      fill="none"
      stroke="var(--ink)"
      stroke-width="0.18"
    />
  {/each}
  {#each marks as m (m.celsius)}
    <text
      x={part?.x_mm}
      y={m.y - 0.35}
      text-anchor="middle"
      class="fill-ink"
      font-size="1.1"
      stroke="var(--sheet)"
      stroke-width="0.3"
      paint-order="stroke">{formatTemperature(m.celsius, units)}</text
    >
  {/each}
  {#if lines.isotherm}
    <path d={lines.isotherm} fill="none" stroke="var(--ink)" stroke-width="0.25" stroke-dasharray="0.9 0.6" />
    <text
      x={view.x + 0.8}
      y={view.y + 1.8}
      class="fill-ink font-semibold"
      font-size="1.2"
      stroke="var(--sheet)"
      stroke-width="0.35"
      paint-order="stroke">dashed: {melts?.label}</text
    >
  {/if}
</svg>
