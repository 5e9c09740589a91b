<script lang="ts">
  // The lands of a part as seen under the lens, in the board's place: what was found of each, the one that is due, wires; or, as it goes on, its
  // body and the gaps that set it.
  import {
    bodyRect,
    type BoardModel,
    cornersOnBoard,
    partName,
    type PlacedPart,
    type Side,
    toBoard,
  } from '@orthos/core/board';
  import { formatGap, formatLength, type UnitSettings } from '@orthos/core/ground';
  import type { Alignment, LandMark, Wire } from '@orthos/core/hands';
  import { packageById } from '@orthos/core/packages';
  import { photoMatrix, type PlacedPhoto } from '$lib/photos/placed';
  import type { Snippet } from 'svelte';
  import FlipHorizontal2 from '@lucide/svelte/icons/flip-horizontal-2';
  import RotateCcw from '@lucide/svelte/icons/rotate-ccw';
  import { LAND_WORDS } from './landStates';
  import LandShape from './LandShape.svelte';
  import { centreOf, outlineOnBoard, pointsText, type Seen, seenFrom } from './seen';

  interface Drawn {
    terminal: string;
    state?: LandMark | undefined;
    due: boolean;
    mended?: boolean;
    /** Of a joint: how grave what was found there is, in which word, and to which other one it may be bridged. */
    tone?: Tone;
    says?: string | undefined;
    to?: string | undefined;
  }
  type Tone = 'good' | 'caution' | 'stop';
  /** A joint as it lies there. */
  type JointPlace = {
    terminal: string;
    points: readonly Seen[];
    at: Seen;
    size: number;
    round: boolean;
    due: boolean;
    next: Seen | undefined;
    line: number;
  };
  interface Props {
    board: BoardModel;
    target: PlacedPart;
    side: Side;
    turns: number;
    /** The lands of the face that is seen. */
    lands: readonly Drawn[];
    units: UnitSettings;
    /** In a corner: how far one is. */
    count?: string;
    wires?: readonly Wire[];
    /** Where each wire begins. */
    from?: readonly string[];
    /** The part goes on: its body lies over its lands. */
    alignment?: Alignment;
    /** Lies under all that is drawn, at the same scale and turn; bodies are outlines then. */
    photo?: (PlacedPhoto & { clearness: number }) | undefined;
    /** The part is on: draws a joint instead of a bare land. */
    joint?: Snippet<[JointPlace]>;
    onPick?: (terminal: string) => void;
    onTurn: () => void;
    onFlip?: () => void;
  }
  let {
    board,
    target,
    side,
    turns,
    lands,
    units,
    count,
    wires = [],
    from = [],
    alignment,
    photo,
    joint,
    onPick,
    onTurn,
    onFlip,
  }: Props = $props();

  const pkg = $derived(packageById(target.package));
  const seen = $derived(seenFrom(target, side, turns));
  const shapes = $derived(
    lands.flatMap((l) => {
      const t = pkg.terminals.find((own) => own.id === l.terminal);
      if (!t) return [];
      const [points, other] = [seen(cornersOnBoard(target, t.land)), pkg.terminals.find((o) => o.id === l.to)];
      const shape = {
        ...{ points, at: centreOf(points), hole: t.drill_mm, round: t.round ?? false },
        size: Math.min(t.land.w, t.land.h),
        next: other && centreOf(seen(cornersOnBoard(target, other.land))),
      };
      const words = l.state && LAND_WORDS[l.state];
      const [tone, says] = [l.tone ?? words?.tone ?? 'good', l.says ?? words?.label];
      return [{ ...l, ...shape, mended: l.mended ?? false, tone, says }];
    }),
  );
  const body = $derived(seen(cornersOnBoard(target, bodyRect(target))));
  const outline = $derived(pointsText(seen(outlineOnBoard(target))));
  const reach = $derived(
    Math.max(1, ...[...body, ...shapes.flatMap((s) => s.points)].map(([x, y]) => Math.hypot(x, y))),
  );
  /** Radius of the field that is seen, mm: as far as the nearest neighbours. */
  const field = $derived(reach * 1.15 + 1.2);
  const line = $derived(field / 160);
  const name = $derived(partName(target));
  const round = $derived(
    board.parts
      .filter((p) => p.side === side && p.partId !== target.partId)
      .map((p) => {
        const points = seen(cornersOnBoard(p, bodyRect(p)));
        const terminals = packageById(p.package).terminals.map((t) => seen(cornersOnBoard(p, t.land)));
        return { id: p.partId, name: partName(p), points, at: centreOf(points), terminals };
      })
      .filter((n) => Math.hypot(...n.at) < field + 3),
  );
  /** Numbers fit where lands are far enough apart. */
  const pitch = $derived(
    Math.min(...shapes.slice(1).map((s, n) => Math.hypot(s.at[0] - shapes[n].at[0], s.at[1] - shapes[n].at[1])), reach),
  );
  const font = $derived(Math.min(field / 16, Math.max(field / 34, pitch * 0.75)));
  /** Each number inwards of its land, along the way the land lies; outwards where the part is on. */
  function inward({ at: [x, y], points }: (typeof shapes)[number]): Seen {
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    const [w, h] = [Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)];
    const lies = Math.abs(w - h) < 0.05 ? Math.abs(x) >= Math.abs(y) : w > h;
    const by = ((lies ? w : h) / 2 + font * 0.75) * (on ? -1 : 1);
    return lies ? [x - Math.sign(x) * by, y] : [x, y - Math.sign(y) * by];
  }
  const on = $derived(joint !== undefined);
  const told = $derived(pitch > font * 0.8);

  const placeOf = (partId: string, terminal: string): Seen | undefined => {
    const part = board.parts.find((p) => p.partId === partId);
    const t = part && packageById(part.package).terminals.find((own) => own.id === terminal);
    return part && t && seen([toBoard(part, t.land.x, t.land.y)])[0];
  };
  /** A wire bows away from the part's middle. */
  const paths = $derived(
    wires.flatMap((w, n) => {
      const [a, b] = [placeOf(target.partId, from[n]), placeOf(w.to.partId, w.to.terminal)];
      if (!a || !b) return [];
      const mid: Seen = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
      const far = Math.hypot(...mid) || 1;
      const bow = 0.25 * Math.hypot(a[0] - b[0], a[1] - b[1]);
      const out: Seen = [mid[0] + (mid[0] / far) * bow, mid[1] + (mid[1] / far) * bow];
      return [{ key: from[n], d: `M${a.join(',')} Q${out.join(',')} ${b.join(',')}` }];
    }),
  );
  /** As far along a line as the lens shows. */
  function inField([ax, ay]: Seen, [bx, by]: Seen): Seen {
    const at = (t: number): Seen => [ax + t * (bx - ax), ay + t * (by - ay)];
    let t = 1;
    while (t > 0.05 && Math.hypot(...at(t)) > 0.97 * field) t -= 0.05;
    return at(t);
  }
  const gaps = $derived(
    (alignment?.gaps ?? []).map((g) => {
      const other = board.parts.find((p) => p.partId === g.partId);
      const box = (p: PlacedPart) => {
        const c = cornersOnBoard(p, bodyRect(p));
        return {
          x0: Math.min(...c.map((q) => q[0])),
          x1: Math.max(...c.map((q) => q[0])),
          y0: Math.min(...c.map((q) => q[1])),
          y1: Math.max(...c.map((q) => q[1])),
        };
      };
      const [body, round] = [box(target), other ? box(other) : box(target)];
      const ends: [number, number][] = {
        left: [
          [round.x1, g.at_mm],
          [body.x0, g.at_mm],
        ] as [number, number][],
        right: [
          [body.x1, g.at_mm],
          [round.x0, g.at_mm],
        ] as [number, number][],
        up: [
          [g.at_mm, round.y1],
          [g.at_mm, body.y0],
        ] as [number, number][],
        down: [
          [g.at_mm, body.y1],
          [g.at_mm, round.y0],
        ] as [number, number][],
      }[g.to];
      const [own, its] = g.to === 'left' || g.to === 'up' ? [ends[1], ends[0]] : ends;
      const [a, far] = seen([own, its]);
      const b = inField(a, far);
      return { ...g, a, b, at: centreOf([a, b]) };
    }),
  );
  const first = $derived(shapes.find((s) => s.terminal === pkg.terminals[0]?.id));
  const corner = $derived(
    first &&
      body.reduce((a, b) =>
        Math.hypot(b[0] - first.at[0], b[1] - first.at[1]) < Math.hypot(a[0] - first.at[0], a[1] - first.at[1]) ? b : a,
      ),
  );
  const shows = (node: HTMLVideoElement, stream: MediaStream) => {
    node.srcObject = stream;
    void node.play();
  };
  const stroke = ({ due, mended, tone }: (typeof shapes)[number]) => {
    if (due) return 'var(--hot)';
    if (mended) return 'var(--good)';
    return tone === 'good' ? 'var(--drawn)' : `var(--${tone})`;
  };
</script>

{#snippet land(s: (typeof shapes)[number])}
  {#if joint}
    {@render joint({ ...s, line })}
  {:else}
    <LandShape {...s} state={s.state} clear={photo !== undefined} {line} />
  {/if}
{/snippet}

<div class="absolute inset-0 flex flex-col bg-bench" data-testid="land-sheet">
  <div class="flex items-start justify-between gap-3 px-4 pt-2 text-[13px]">
    <p>
      <b>{formatLength(2 * field, units)} field</b>
      <span class="block text-ink2"
        >{turns % 4 === 0 ? 'not turned' : `turned ${90 * (turns % 4)}°`}, {side === 'bottom'
          ? 'bottom, mirrored as seen'
          : 'top'}</span
      >
    </p>
    <div class="flex gap-1">
      <button class="button flex items-center gap-1.5 px-3" onclick={onTurn}
        ><RotateCcw size={16} aria-hidden="true" />Turn</button
      >
      {#if onFlip}<button class="button flex items-center gap-1.5 px-3" onclick={onFlip}
          ><FlipHorizontal2 size={16} aria-hidden="true" />Other face</button
        >{/if}
    </div>
    {#if count}<p class="text-right"><span class="text-xl font-semibold">{count}</span></p>{/if}
  </div>
  <svg
    viewBox="{-field * 1.12} {-field * 1.06} {field * 2.24} {field * 2.12}"
    class="min-h-0 w-full flex-1"
    role="group"
    aria-label="{name}, {alignment ? 'as it goes on' : on ? 'its joints' : 'its lands'}, seen from the {side}"
  >
    <defs>
      <clipPath id="lens"><circle r={field} /></clipPath>
      <pattern id="char" width={field / 40} height={field / 40} patternUnits="userSpaceOnUse">
        <circle cx={field / 80} cy={field / 80} r={field / 160} fill="var(--board)" />
      </pattern>
    </defs>
    <circle r={field} fill="var(--board)" stroke="var(--drawn)" stroke-width={line} />
    {#each [0, 90, 180, 270] as a (a)}
      <line x1={field} x2={field * 1.03} stroke="var(--drawn)" stroke-width={line} transform="rotate({a})" />
    {/each}
    <g clip-path="url(#lens)">
      {#if photo}
        <g transform={photoMatrix(photo, seen)} opacity={photo.clearness / 100} data-testid="photo-over">
          {#if 'href' in photo.of}<image
              href={photo.of.href}
              width={photo.w_px}
              height={photo.h_px}
              preserveAspectRatio="none"
            />
          {:else}<foreignObject width={photo.w_px} height={photo.h_px}
              ><video class="h-full w-full object-fill" muted playsinline use:shows={photo.of.stream}
              ></video></foreignObject
            >{/if}
        </g>
      {/if}
      {#each round as n (n.id)}
        {#each n.terminals as t, i (i)}<polygon points={pointsText(t)} fill="var(--lead)" opacity="0.5" />{/each}
        <polygon
          points={pointsText(n.points)}
          fill={photo ? 'none' : 'var(--part)'}
          stroke="var(--drawn)"
          stroke-width={line}
          opacity="0.85"
        />
        <text x={n.at[0]} y={n.at[1] + font * 0.35} font-size={font} text-anchor="middle" fill="var(--ink2)"
          >{n.name}</text
        >
      {/each}
      <polygon
        points={outline}
        fill="none"
        stroke="var(--drawn)"
        stroke-width={line}
        stroke-dasharray="{line * 6} {line * 4}"
      />
      {#each shapes as s (s.terminal)}
        {#if onPick}
          <g
            role="button"
            tabindex="-1"
            aria-label="{joint ? 'joint' : 'land'} {s.terminal}: {s.says?.toLowerCase() ?? 'not looked at'}"
            class="cursor-pointer"
            onclick={() => onPick(s.terminal)}
            onkeydown={(e) => e.key === 'Enter' && onPick(s.terminal)}>{@render land(s)}</g
          >
        {:else}{@render land(s)}{/if}
      {/each}
      <!-- what lies over lands lets the pointer through -->
      <g class="pointer-events-none">
        {#each paths as p (p.key)}
          <path d={p.d} fill="none" stroke="var(--drawn)" stroke-width={line * 5} stroke-linecap="round" />
          <path d={p.d} fill="none" stroke="var(--hot)" stroke-width={line * 3} stroke-linecap="round" />
        {/each}
        {#if alignment || on}
          <polygon
            points={outline}
            fill={photo ? 'none' : 'var(--part)'}
            fill-opacity="0.8"
            stroke={photo ? 'var(--evidence)' : 'var(--drawn)'}
            stroke-width={line * 1.5}
          />
          {#if corner && pkg.polarity !== 'none'}<circle
              cx={corner[0] * 0.82}
              cy={corner[1] * 0.82}
              r={field / 40}
              fill="var(--drawn)"
            />{/if}
        {/if}
      </g>
    </g>
    <g class="pointer-events-none">
      {#if told || alignment}
        {#each shapes as s (s.terminal)}
          {#if told || s.due || s.tone !== 'good'}
            {@const [x, y] = inward(s)}
            <text
              {x}
              y={y + font * 0.35}
              font-size={font}
              font-weight={s.due || s.tone !== 'good' ? 700 : 400}
              text-anchor="middle"
              fill={s.due ? 'var(--hot)' : s.tone !== 'good' ? stroke(s) : 'var(--ink2)'}
              stroke="var(--board)"
              stroke-width={font * 0.25}
              paint-order="stroke">{s.terminal}</text
            >
          {/if}
        {/each}
      {/if}
      <text
        y={alignment ? font * 0.5 : font * 0.6}
        font-size={font * 1.6}
        font-weight="600"
        text-anchor="middle"
        fill="var(--ink2)"
        stroke="var(--board)"
        stroke-width={font * 0.3}
        paint-order="stroke">{name}</text
      >
      {#each gaps as g (g.to)}
        <line x1={g.a[0]} y1={g.a[1]} x2={g.b[0]} y2={g.b[1]} stroke="var(--evidence)" stroke-width={line * 2} />
        <text
          x={g.at[0]}
          y={g.at[1] + font * (g.to === 'left' || g.to === 'right' ? -0.5 : 0.4)}
          font-size={font * 1.1}
          font-weight="700"
          text-anchor="middle"
          fill="var(--evidence)"
          stroke="var(--board)"
          stroke-width={font * 0.35}
          paint-order="stroke">{formatGap(g.mm, units)}</text
        >
      {/each}
    </g>
  </svg>
</div>
