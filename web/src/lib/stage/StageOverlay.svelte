<script lang="ts">
  // What is drawn over the board as SVG: selection, landmarks, callouts, ruler, scale bar, heat scale.
  import {
    boardBounds,
    type BoardModel,
    boxOnBoard,
    cornersOnBoard,
    partName,
    type PlacedPart,
    toBoard,
  } from '@orthos/core/board';
  import { formatLength, type UnitSettings } from '@orthos/core/ground';
  import { packageById } from '@orthos/core/packages';
  import type { Snippet } from 'svelte';
  import type { Desk } from '$lib/jobs/desk.svelte';
  import { labelSize } from './painter';
  import { type LabelBox, placeLabels, type StageRect } from './placeLabels';
  import { scaleBar, toScreen, type StageView } from './view';

  interface Props {
    board: BoardModel;
    partOf: (id: string | null) => BoardModel['parts'][number] | undefined;
    desk: Desk;
    view: StageView;
    size: { w: number; h: number };
    hovered: string | null;
    measured: { from: [number, number]; to: [number, number] } | null;
    units: UnitSettings;
    /** Legend of what the board is coloured by. */
    scale?: Snippet;
  }
  let { board, partOf, desk, view, size, hovered, measured, units, scale }: Props = $props();

  const bar = $derived(scaleBar(view, 160));
  const distance = $derived(
    measured ? Math.hypot(measured.to[0] - measured.from[0], measured.to[1] - measured.from[1]) : 0,
  );
  const polygon = (points: [number, number][]) => points.map(([x, y]) => toScreen(view, x, y).join(',')).join(' ');
  const bodyOf = (part: PlacedPart) => {
    const { body } = packageById(part.package);
    return polygon(cornersOnBoard(part, { x: 0, y: 0, w: body.l, h: body.w }));
  };
  const outlineOf = (id: string) => {
    const part = partOf(id);
    return part && part.side === desk.side ? bodyOf(part) : '';
  };
  /** The selected part from its solder side: its body behind the board, its pins, the first one first. */
  const behind = $derived.by(() => {
    const part = partOf(desk.selected);
    if (!part || part.side === desk.side) return null;
    const pins = packageById(part.package).terminals.filter((t) => t.drill_mm);
    return pins.length > 0
      ? { body: bodyOf(part), pins: pins.map((t) => ({ id: t.id, points: polygon(cornersOnBoard(part, t.land)) })) }
      : null;
  });
  const markedLand = $derived.by(() => {
    const part = partOf(desk.over.marked?.partId ?? null);
    const terminal = part && packageById(part.package).terminals.find((t) => t.id === desk.over.marked?.terminal);
    return part && terminal && part.side === desk.side && desk.lens === 'heat'
      ? polygon(cornersOnBoard(part, terminal.land))
      : '';
  });
  /** Terminals on the net that is lit up, on this side. */
  const litTerminals = $derived.by(() => {
    if (desk.net === null || desk.lens !== 'copper') return [];
    return board.parts.flatMap((part) => {
      if (part.side !== desk.side || !part.nets) return [];
      return packageById(part.package)
        .terminals.filter((t) => part.nets?.[t.id] === desk.net)
        .map((t) => toBoard(part, t.land.x, t.land.y));
    });
  });
  const NUMBER = {
    done: { fill: 'var(--good)', stroke: 'var(--good)' },
    now: { fill: 'var(--hot)', stroke: 'var(--hot)' },
    next: { fill: 'var(--evidence)', stroke: 'var(--ink2)' },
    listed: { fill: 'var(--evidence)', stroke: 'var(--evidence)' },
  } as const;
  /** How far from a part's middle its lean is drawn, and how long, pixels. */
  const LEAN = { from: 18, to: 40, head: 6 };
  /** On this side, or with pins that come through to it. */
  const isSeen = (part: PlacedPart) =>
    part.side === desk.side || packageById(part.package).terminals.some((t) => t.drill_mm);
  /** Parts of a set where they stand on the screen. */
  const numbered = $derived(
    desk.over.numbered.flatMap((item) => {
      const part = partOf(item.partId);
      if (!part || !isSeen(part)) return [];
      const at = toScreen(view, part.x_mm, part.y_mm);
      return [{ ...item, at, body: bodyOf(part), lean: item.from_deg === undefined ? '' : leanAt(at, item.from_deg) }];
    }),
  );
  /** An arrow to the part from where the nozzle leans: 0 from the right, 90 from the upper edge. */
  function leanAt([x, y]: [number, number], deg: number): string {
    const [ux, uy] = [Math.cos((deg * Math.PI) / 180), -Math.sin((deg * Math.PI) / 180)];
    const tip = [x + ux * LEAN.from, y + uy * LEAN.from];
    const side = (s: number) => `${tip[0] + LEAN.head * (ux - s * uy)} ${tip[1] + LEAN.head * (uy + s * ux)}`;
    return `M${x + ux * LEAN.to} ${y + uy * LEAN.to}L${tip.join(' ')}M${side(1)}L${tip.join(' ')}L${side(-1)}`;
  }
  /** The way from one to the next, as far as it is on this side. */
  const way = $derived.by(() => {
    const order = numbered.filter((p) => p.n > 0).toSorted((a, b) => a.n - b.n);
    return order.length > 1 ? `M${order.map((p) => p.at.join(' ')).join('L')}` : '';
  });
  /** A part's box on the screen. */
  function onStage(part: BoardModel['parts'][number]) {
    const { body } = packageById(part.package);
    const b = boxOnBoard(part, { x: 0, y: 0, w: body.l, h: body.w });
    const [[xa, y0], [xb, y1]] = [toScreen(view, b.x0, b.y0), toScreen(view, b.x1, b.y1)];
    return { left: Math.min(xa, xb), top: y0, w: Math.abs(xb - xa), h: y1 - y0 };
  }
  /** Half of the hole there, mm; a pad's without one. */
  const radiusAt = (x_mm: number, y_mm: number) =>
    (board.holes.find((h) => Math.hypot(h.x_mm - x_mm, h.y_mm - y_mm) < 0.5)?.d_mm ?? 2) / 2;
  /** Where a part's name stands on the screen, if it has room for one. */
  function nameOnStage(part: BoardModel['parts'][number]) {
    const { left, top, w, h } = onStage(part);
    const text = partName(part);
    const size_px = labelSize(w, h, text);
    if (size_px === null) return [];
    const [tw, th] =
      h > w * 1.6 ? [size_px * 1.2, size_px * 0.62 * text.length] : [size_px * 0.62 * text.length, size_px * 1.2];
    return [{ left: left + (w - tw) / 2, top: top + (h - th) / 2, w: tw, h: th }];
  }
  /** The edges of the board on the screen, as if it were a rectangle. */
  const rim = $derived.by((): StageRect[] => {
    const { x0, y0, x1, y1 } = boardBounds(board);
    const [[xa, top], [xb, bottom]] = [toScreen(view, x0, y0), toScreen(view, x1, y1)];
    const [left, right] = [Math.min(xa, xb), Math.max(xa, xb)];
    return [
      { left, top, w: right - left, h: 1 },
      { left, top: bottom, w: right - left, h: 1 },
      { left, top, w: 1, h: bottom - top },
      { left: right, top, w: 1, h: bottom - top },
    ];
  });
  /** A label of one line, 13 px unless it says otherwise. */
  const line = (text: string, px = 13) => ({ text, w: text.length * px * 0.56, h: px * 1.25 });
  interface Label extends LabelBox {
    kind: 'probe' | 'pen' | 'mark';
    text: string;
    colour: string;
  }
  const PEN = { ours: 'var(--stop)', now: 'var(--hot)', found: 'var(--ink2)' };
  /** Everything that has a label besides callouts, the most important first. */
  const marks = $derived.by((): Label[] => {
    const on = (at: { x_mm: number; y_mm: number }) => {
      const [x, y] = toScreen(view, at.x_mm, at.y_mm);
      return { x, y };
    };
    const { side } = desk;
    const { next, other } = desk.over.probes ?? {};
    const probes: Label[] = [];
    if (next?.side === side)
      probes.push({
        ...on(next),
        ...line('probe here next'),
        kind: 'probe',
        colour: 'var(--evidence)',
        clear: 17,
      });
    if (other?.place.side === side)
      probes.push({
        ...on(other.place),
        ...line(other.red ? 'red' : 'black'),
        kind: 'probe',
        colour: 'var(--ink)',
        clear: 10,
      });
    const pens = (desk.lens === 'parts' ? desk.over.penMarks : []).flatMap((m): Label[] =>
      m.at && m.side === side
        ? [
            {
              ...on({ x_mm: m.at[0], y_mm: m.at[1] }),
              ...line(m.label),
              kind: 'pen',
              colour: PEN[m.tone],
              clear: 10,
            },
          ]
        : [],
    );
    const landmarks = board.landmarks.map((m): Label => ({
      ...on(m),
      ...line(m.label, 12),
      kind: 'mark',
      colour: 'var(--ink2)',
      clear: radiusAt(m.x_mm, m.y_mm) * view.scale,
      optional: true,
    }));
    return [
      ...probes,
      ...pens,
      ...landmarks.filter((m) => m.x > -20 && m.x < size.w + 20 && m.y > -20 && m.y < size.h + 20),
    ];
  });
  /** Labels and callouts where they stand. */
  const labelled = $derived.by(() => {
    const shown = desk.over.callouts.filter((c) => c.side === desk.side);
    const boxes = shown.map((c): LabelBox => {
      const [x, y] = toScreen(view, c.x_mm, c.y_mm);
      return { x, y, w: Math.max(c.title.length * 8.2, c.detail.length * 6.2) + 18, h: c.detail ? 40 : 24 };
    });
    // probes stand where they must; what is explained comes next, what only helps to find one's way last
    const probes = marks.filter((m) => m.kind === 'probe');
    const others = marks.filter((m) => m.kind !== 'probe');
    const all = [...probes, ...boxes, ...others];
    if (all.length === 0) return { labels: [], callouts: [] };
    const spoken = board.parts.filter(
      (p) => p.side === desk.side && (shown.some((c) => c.id === p.partId) || p.partId === desk.over.marked?.partId),
    );
    const isNear = (r: StageRect) =>
      all.some((b) => b.x > r.left - 260 && b.x < r.left + r.w + 260 && b.y > r.top - 260 && b.y < r.top + r.h + 260);
    const seen = board.parts.filter((p) => p.side === desk.side);
    // scale bar and heat scale have the foot of the stage
    const places = placeLabels(all, size.w, size.h - 24, {
      spoken: spoken.map(onStage),
      names: seen
        .filter((p) => p.ref)
        .flatMap(nameOnStage)
        .filter(isNear),
      bodies: seen.map(onStage).filter(isNear),
      edges: rim,
    });
    const at = <T>(list: readonly T[], from: number) =>
      list.flatMap((item, i) => {
        const place: StageRect | null = places[from + i];
        return place ? [{ ...item, ...place }] : [];
      });
    return {
      labels: [...at(probes, 0), ...at(others, probes.length + boxes.length)],
      callouts: at(
        shown.map((c, i) => ({ ...c, ...boxes[i] })),
        probes.length,
      ),
    };
  });
</script>

<svg class="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
  {#if hovered && hovered !== desk.selected}
    <polygon points={outlineOf(hovered)} fill="none" stroke="var(--evidence)" stroke-width="1.5" />
  {/if}
  {#if desk.selected}
    <polygon
      points={outlineOf(desk.selected)}
      fill="var(--evidence)"
      fill-opacity="0.12"
      stroke="var(--evidence)"
      stroke-width="2.5"
    />
  {/if}
  {#if behind}
    <polygon points={behind.body} fill="none" stroke="var(--evidence)" stroke-width="2" stroke-dasharray="7 5" />
    {#each behind.pins as pin, i (pin.id)}
      <polygon
        points={pin.points}
        fill="var(--evidence)"
        fill-opacity={i === 0 ? 0.85 : 0.3}
        stroke="var(--evidence)"
        stroke-width="2"
      />
    {/each}
  {/if}
  {#if markedLand}<polygon
      points={markedLand}
      fill="var(--hot)"
      fill-opacity="0.55"
      stroke="var(--hot)"
      stroke-width="2.5"
    />{/if}
  {#if desk.over.cut?.side === desk.side}
    <polygon
      points={polygon(desk.over.cut.points)}
      fill="none"
      stroke="var(--hot)"
      stroke-width="2"
      stroke-dasharray="9 4"
    />
  {/if}
  {#if way}<path d={way} fill="none" stroke="var(--ink2)" stroke-width="1.5" stroke-dasharray="2 4" />{/if}
  {#each numbered as part (part.partId)}
    {@const [x, y] = part.at}
    <polygon
      points={part.body}
      fill={NUMBER[part.tone].fill}
      fill-opacity="0.22"
      stroke={NUMBER[part.tone].stroke}
      stroke-width={part.tone === 'now' ? 3 : 2}
    />
    {#if part.lean}<path d={part.lean} fill="none" stroke={NUMBER[part.tone].stroke} stroke-width="2.5" />{/if}
    {#if part.n > 0}
      <rect
        x={x - 12}
        y={y - 10}
        width="24"
        height="20"
        rx="3"
        fill={part.tone === 'now' ? 'var(--hot)' : 'var(--sheet)'}
        stroke={NUMBER[part.tone].stroke}
        stroke-width="1.5"
      />
      <text
        {x}
        y={y + 4.5}
        text-anchor="middle"
        class="text-[13px] font-bold {part.tone === 'now' ? 'fill-sheet' : 'fill-ink'}"
        >{part.tone === 'done' ? '✓' : ''}{part.n}</text
      >
    {/if}
  {/each}
  {#each litTerminals as [x, y], i (i)}
    {@const [sx, sy] = toScreen(view, x, y)}
    <circle cx={sx} cy={sy} r="7" fill="none" stroke="var(--evidence)" stroke-width="2" />
  {/each}
  {#if desk.place && !desk.place.partId && desk.place.side === desk.side}
    {@const [x, y] = toScreen(view, desk.place.x_mm, desk.place.y_mm)}
    <path d="M{x - 8} {y}H{x + 8}M{x} {y - 8}V{y + 8}" stroke="var(--evidence)" stroke-width="2" />
  {/if}
  {#if desk.over.probes?.next.side === desk.side}
    {@const { next } = desk.over.probes}
    {@const [x, y] = toScreen(view, next.x_mm, next.y_mm)}
    <circle cx={x} cy={y} r="10" fill="none" stroke="var(--evidence)" stroke-width="3" />
    <circle cx={x} cy={y} r="16" fill="none" stroke="var(--evidence)" stroke-width="1.5" stroke-dasharray="4 3" />
  {/if}
  {#if desk.over.probes?.other?.place.side === desk.side}
    {@const { place } = desk.over.probes.other}
    {@const [x, y] = toScreen(view, place.x_mm, place.y_mm)}
    <rect x={x - 8} y={y - 8} width="16" height="16" fill="none" stroke="var(--ink)" stroke-width="3" />
  {/if}
  {#if desk.lens === 'parts'}
    {#each desk.over.penMarks.filter((m) => m.side === desk.side) as m (m.id)}
      {@const colour = PEN[m.tone]}
      {#each m.strokes as stroke, i (i)}
        <polyline
          points={polygon(stroke)}
          fill="none"
          stroke={colour}
          stroke-width="3"
          stroke-linecap="round"
          stroke-linejoin="round"
          stroke-dasharray={m.tone === 'found' ? '1 6' : undefined}
        />
      {/each}
      {#if m.at}
        {@const [x, y] = toScreen(view, ...m.at)}
        {#if m.tone === 'ours'}<path d="M{x} {y - 9}L{x + 9} {y + 7}H{x - 9}Z" fill={colour} />
        {:else}<path
            d="M{x} {y - 9}L{x + 9} {y}L{x} {y + 9}L{x - 9} {y}Z"
            fill="var(--sheet)"
            stroke={colour}
            stroke-width="2"
          />{/if}
      {/if}
    {/each}
  {/if}
  {#each labelled.labels as l (`${l.kind} ${l.text} ${l.x} ${l.y}`)}
    <text
      x={l.left}
      y={l.top + l.h * 0.8}
      fill={l.colour}
      class={l.kind === 'mark' ? 'text-[12px]' : 'text-[13px] font-semibold'}
      stroke="var(--board)"
      stroke-width="3"
      paint-order="stroke">{l.text}</text
    >
  {/each}
  {#each labelled.callouts as c (c.id)}
    {@const colour = `var(--${c.tone})`}
    <line
      x1={c.x}
      y1={c.y}
      x2={Math.min(Math.max(c.x, c.left), c.left + c.w)}
      y2={Math.min(Math.max(c.y, c.top), c.top + c.h)}
      stroke={colour}
      stroke-width="1.5"
    />
    <circle cx={c.x} cy={c.y} r="4" fill={colour} />
    <rect x={c.left} y={c.top} width={c.w} height={c.h} fill="var(--sheet)" stroke={colour} stroke-width="1.5" />
    <text x={c.left + 8} y={c.top + 16} class="fill-ink text-[14px] font-bold">{c.title}</text>
    <text x={c.left + 8} y={c.top + 33} class="fill-ink2 text-[12.5px]">{c.detail}</text>
  {/each}
  {#if measured}
    {@const [x1, y1] = toScreen(view, ...measured.from)}
    {@const [x2, y2] = toScreen(view, ...measured.to)}
    <line {x1} {y1} {x2} {y2} stroke="var(--evidence)" stroke-width="2" />
    <circle cx={x1} cy={y1} r="3.5" fill="var(--evidence)" />
    <circle cx={x2} cy={y2} r="3.5" fill="var(--evidence)" />
    <text
      x={(x1 + x2) / 2}
      y={(y1 + y2) / 2 - 8}
      text-anchor="middle"
      class="fill-ink text-[15px] font-bold"
      stroke="var(--bench)"
      stroke-width="3"
      paint-order="stroke">{formatLength(distance, units)}</text
    >
  {/if}
  <g transform="translate(16 {size.h - 14})">
    <path d="M0 -5V0H{bar.px}V-5" fill="none" stroke="var(--ink2)" stroke-width="1.2" />
    <text x={bar.px + 8} y="1" class="fill-ink2 text-[12px]">{formatLength(bar.mm, units)}</text>
  </g>
  {@render scale?.()}
</svg>
