<script lang="ts">
  // The part under the hands, near its neighbours, turned to the technician's view: joints in the order in
  // which they should melt, the last one marked.
  import { type BoardModel, cornersOnBoard, partName, type PlacedPart, type Side } from '@orthos/core/board';
  import { type Guide, meltOrder } from '@orthos/core/rework';
  import type { JointMark } from '@orthos/core/job';
  import { packageById } from '@orthos/core/packages';

  interface Props {
    board: BoardModel;
    target: PlacedPart;
    /** The side one works on. */
    side: Side;
    guide: Guide | null;
    /** Quarter turns, counter-clockwise. */
    turns: number;
    wet: ReadonlySet<string>;
    joints: ReadonlyMap<string, JointMark> | undefined;
    current: string | null;
  }
  let { board, target, side, guide, turns, wet, joints, current }: Props = $props();

  const pkg = $derived(packageById(target.package));
  const mirrored = $derived(side === 'bottom');
  /** Seen from the solder side: the pins stand before the body. */
  const behind = $derived(side !== target.side);
  /** From the board to the view, mm from the target's middle. */
  const seen = $derived((points: [number, number][]): [number, number][] =>
    points.map(([bx, by]) => {
      let [x, y] = [(bx - target.x_mm) * (mirrored ? -1 : 1), by - target.y_mm];
      for (let i = 0; i < turns % 4; i++) [x, y] = [y, -x];
      return [x, y];
    }),
  );
  const text = (points: [number, number][]) => points.map((p) => p.map((v) => v.toFixed(3)).join(',')).join(' ');
  const centre = (points: [number, number][]): [number, number] => [
    points.reduce((s, p) => s + p[0], 0) / points.length,
    points.reduce((s, p) => s + p[1], 0) / points.length,
  ];
  const body = $derived(seen(cornersOnBoard(target, { x: 0, y: 0, w: pkg.body.l, h: pkg.body.w })));
  const order = $derived(guide ? meltOrder(guide) : []);
  const lands = $derived(
    pkg.terminals.map((t) => {
      const points = seen(cornersOnBoard(target, t.land));
      return {
        id: t.id,
        points,
        at: centre(points),
        rank: order.indexOf(t.id),
        under: !behind && (t.kind === 'pad' || t.kind === 'pin'),
      };
    }),
  );
  const half = $derived(
    1.6 * Math.max(...[...body, ...lands.flatMap((l) => l.points)].map(([x, y]) => Math.max(Math.abs(x), Math.abs(y)))),
  );
  const neighbours = $derived(
    board.parts
      .filter(
        (p) =>
          p.side === side &&
          p.partId !== target.partId &&
          Math.hypot(p.x_mm - target.x_mm, p.y_mm - target.y_mm) < 2.2 * half + 8,
      )
      .map((p) => {
        const box = packageById(p.package).body;
        const points = seen(cornersOnBoard(p, { x: 0, y: 0, w: box.l, h: box.w }));
        return { id: p.partId, name: partName(p), points, at: centre(points) };
      }),
  );
  const size = $derived(half / 13);
  // pin 1 is told by the corner of the body next to it
  const first = $derived(lands[0]);
  const corner = $derived(
    first
      ? body.reduce((best, p) =>
          Math.hypot(p[0] - first.at[0], p[1] - first.at[1]) < Math.hypot(best[0] - first.at[0], best[1] - first.at[1])
            ? p
            : best,
        )
      : body[0],
  );
  const tone = (id: string, rank: number): string => {
    if (joints?.get(id) === 'done') return 'var(--good)';
    if (joints?.get(id) === 'stuck') return 'var(--stop)';
    if (wet.has(id)) return 'var(--good-soft)';
    if (id === guide?.last) return 'var(--hot)';
    return rank < 0
      ? 'var(--lead)'
      : `color-mix(in srgb, var(--hot) ${Math.round((55 * rank) / lands.length)}%, var(--lead))`;
  };
  const numbered = $derived(lands.length <= 12);
</script>

<svg
  viewBox="{-half} {-half} {2 * half} {2 * half}"
  class="bg-board h-full w-full"
  role="img"
  aria-label="{partName(target)}, seen from the {side}{guide?.last ? `, joint ${guide.last} is last` : ''}"
>
  <rect x={-half} y={-half} width={2 * half} height={2 * half} fill="var(--board)" />
  {#each neighbours as n (n.id)}
    <polygon points={text(n.points)} fill="var(--part)" stroke="var(--line)" stroke-width={half / 160} />
    <text x={n.at[0]} y={n.at[1] + size / 3} font-size={size * 0.8} text-anchor="middle" fill="var(--ink2)"
      >{n.name}</text
    >
  {/each}
  {#if behind}
    <polygon
      points={text(body)}
      fill="none"
      stroke="var(--drawn)"
      stroke-width={half / 160}
      stroke-dasharray="{half / 20} {half / 30}"
    />
  {/if}
  {#each lands.filter((l) => !l.under) as l (l.id)}
    <polygon
      points={text(l.points)}
      fill={tone(l.id, l.rank)}
      stroke={l.id === current || l.id === guide?.last ? 'var(--ink)' : 'var(--drawn)'}
      stroke-width={l.id === current ? half / 50 : l.id === guide?.last ? half / 80 : half / 200}
    />
  {/each}
  {#if !behind}<polygon
      points={text(body)}
      fill="var(--part)"
      fill-opacity="0.94"
      stroke="var(--drawn)"
      stroke-width={half / 110}
    />{/if}
  {#if pkg.polarity !== 'none' && first}
    <circle cx={corner[0] * 0.82} cy={corner[1] * 0.82} r={size * 0.32} fill="var(--drawn)" />
  {/if}
  {#each lands.filter((l) => l.under) as l (l.id)}
    <polygon
      points={text(l.points)}
      fill={tone(l.id, l.rank)}
      fill-opacity={l.id === current || joints?.has(l.id) ? 0.9 : 0.35}
      stroke={l.id === current ? 'var(--ink)' : tone(l.id, l.rank)}
      stroke-width={half / (l.id === current ? 50 : 90)}
      stroke-dasharray={l.id === current ? undefined : `${half / 30} ${half / 45}`}
    />
  {/each}
  {#each lands as l (l.id)}
    {#if numbered || l.id === guide?.last || l.id === current || l.id === first.id}
      <text
        x={l.at[0]}
        y={l.at[1] + size * 0.3}
        font-size={size * (numbered ? 0.85 : 0.75)}
        font-weight="700"
        text-anchor="middle"
        fill="var(--ink)"
        stroke="var(--board)"
        stroke-width={size * 0.22}
        paint-order="stroke">{l.id}</text
      >
    {/if}
  {/each}
  {#if order.length > 1}
    <text
      x={-half + size * 0.6}
      y={-half + size * 1.3}
      font-size={size * 0.8}
      fill="var(--ink2)"
      stroke="var(--board)"
      stroke-width={size * 0.3}
      paint-order="stroke"
      >{order.length <= 6 ? `melts ${order.join(', ')}` : `first ${order[0]}, last ${guide?.last ?? ''}`}</text
    >
  {/if}
  <text x="0" y={size * 0.4} font-size={size * 1.1} font-weight="700" text-anchor="middle" fill="var(--ink)"
    >{partName(target)}</text
  >
</svg>
