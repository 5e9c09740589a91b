<script lang="ts">
  // The part under the hands, near its neighbours, turned to the technician's view: joints in the order in
  // which they should melt, the last one marked. From its solder side: its rows and pin 1, the rows of its
  // neighbours in grey, and where the landmarks lie from there.
  import { type BoardModel, cornersOnBoard, partName, type PlacedPart, type Side } from '@orthos/core/board';
  import { type Guide, meltOrder, rowsOf } from '@orthos/core/rework';
  import type { LandMark } from '@orthos/core/hands';
  import type { JointMark } from '@orthos/core/job';
  import { formatLength, type UnitSettings } from '@orthos/core/ground';
  import { packageById } from '@orthos/core/packages';
  import { bearings } from './landmarks';
  import { centreOf, outlineOnBoard, pointsText, seenFrom, turnedBy } from './seen';

  interface Props {
    board: BoardModel;
    target: PlacedPart;
    /** The side one works on. */
    side: Side;
    units: UnitSettings;
    guide?: Guide | null;
    /** Quarter turns, counter-clockwise. */
    turns?: number;
    wet?: ReadonlySet<string>;
    /** What was said of joints, or of bare lands. */
    joints?: ReadonlyMap<string, JointMark | LandMark> | undefined;
    current?: string | null;
    class?: string;
  }
  let {
    board,
    target,
    side,
    units,
    guide,
    turns = 0,
    wet,
    joints,
    current,
    class: kind = 'h-full w-full',
  }: Props = $props();

  /** So much of the board is shown round a part on its solder side, mm. */
  const AROUND_MM = 8;
  const pkg = $derived(packageById(target.package));
  const mirrored = $derived(side === 'bottom');
  /** Seen from the solder side: the pins stand before the body. */
  const behind = $derived(side !== target.side);
  /** From the board to the view, mm from the target's middle. */
  const seen = $derived(seenFrom(target, side, turns));
  const turned = (right: number, down: number) => turnedBy(right, down, turns);
  const text = pointsText;
  const centre = centreOf;
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
  const outline = $derived(seen(outlineOnBoard(target)));
  const reach = $derived(
    Math.max(...[...body, ...lands.flatMap((l) => l.points)].map(([x, y]) => Math.max(Math.abs(x), Math.abs(y)))),
  );
  // from behind, the rows next to it are what one mistakes for its own
  const half = $derived(behind ? Math.max(1.6 * reach, reach + AROUND_MM) : 1.6 * reach);
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
  /** Pins of other parts that come out on this side, in rows that look like the target's own. */
  const strangers = $derived(
    behind
      ? board.parts
          .filter((p) => p.partId !== target.partId && p.side === target.side)
          .flatMap((p) => {
            const pins = packageById(p.package)
              .terminals.filter((t) => t.drill_mm)
              .map((t) => seen(cornersOnBoard(p, t.land)))
              .filter((points) => points.some(([x, y]) => Math.abs(x) < half && Math.abs(y) < half));
            return pins.length > 0 ? [{ id: p.partId, name: partName(p), pins, at: centre(pins.flat()) }] : [];
          })
      : [],
  );
  /** Two landmarks, at the edge in their direction. */
  const marks = $derived(
    behind
      ? bearings(board, target, side)
          .slice(0, 2)
          .map((m) => {
            const [x, y] = turned(-m.right_mm, -m.down_mm);
            const out = (0.9 * half) / Math.max(Math.abs(x), Math.abs(y), 1e-9);
            return { ...m, x: x * out, y: y * out, angle: (Math.atan2(y, x) * 180) / Math.PI };
          })
      : [],
  );
  /** Where each row begins and ends. */
  const ends = $derived(
    new Set(rowsOf(target.package).flatMap((r) => [r.terminals[0], r.terminals[r.terminals.length - 1]])),
  );
  const size = $derived(half / 13);
  /** Where they are named: above where one of them stands low, so that no mark lies under its own name. */
  const legend = $derived(
    marks.some((m) => m.y > half / 2)
      ? -half + size * (order.length > 1 ? 2.4 : 1.3)
      : half - size * (1.1 * marks.length - 0.5),
  );
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
    const said = joints?.get(id);
    if (said === 'done' || said === 'good') return 'var(--good)';
    if (said && said !== 'skipped') return said === 'dirty' || said === 'weak' ? 'var(--caution)' : 'var(--stop)';
    if (wet?.has(id)) return 'var(--good-soft)';
    if (id === guide?.last) return 'var(--hot)';
    return rank < 0
      ? 'var(--lead)'
      : `color-mix(in srgb, var(--hot) ${Math.round((55 * rank) / lands.length)}%, var(--lead))`;
  };
  const numbered = $derived(lands.length <= 12);
</script>

<svg
  viewBox="{-half} {-half} {2 * half} {2 * half}"
  class="bg-board {kind}"
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
  {#each strangers as s (s.id)}
    {#each s.pins as pin, i (i)}
      <polygon points={text(pin)} fill="var(--faint)" stroke="var(--line)" stroke-width={half / 200} />
    {/each}
    <text x={s.at[0]} y={s.at[1] + size / 3} font-size={size * 0.8} text-anchor="middle" fill="var(--ink2)"
      >{s.name}</text
    >
  {/each}
  {#if behind}
    <polygon
      points={text(outline)}
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
      points={text(outline)}
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
    {#if numbered || ends.has(l.id) || l.id === guide?.last || l.id === current || l.id === first.id}
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
  {#if behind}
    <text
      x={half - size * 0.6}
      y={half - size * 0.6}
      font-size={size * 0.8}
      text-anchor="end"
      fill="var(--ink2)"
      stroke="var(--board)"
      stroke-width={size * 0.3}
      paint-order="stroke">{side}{mirrored ? ', mirrored as seen' : ''}</text
    >
  {/if}
  {#each marks as m, i (m.id)}
    <g transform="translate({m.x} {m.y})" fill="var(--evidence)">
      <path
        transform="rotate({m.angle})"
        d="M{size * 0.7} 0 L{-size * 0.3} {-size * 0.5} L{-size * 0.3} {size * 0.5} Z"
      />
      <text
        x={-Math.sign(m.x) * size * 0.9}
        y={size * 0.3}
        font-size={size * 0.85}
        font-weight="700"
        text-anchor="middle">{'AB'[i]}</text
      >
    </g>
    <text
      x={-half + size * 0.6}
      y={legend + size * 1.1 * i}
      font-size={size * 0.8}
      fill="var(--evidence)"
      stroke="var(--board)"
      stroke-width={size * 0.3}
      paint-order="stroke">{'AB'[i]} {m.label}, {formatLength(m.distance_mm, units)}</text
    >
  {/each}
  <text x="0" y={size * 0.4} font-size={size * 1.1} font-weight="700" text-anchor="middle" fill="var(--ink)"
    >{partName(target)}</text
  >
</svg>
