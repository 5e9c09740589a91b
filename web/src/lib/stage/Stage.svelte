<script lang="ts">
  import { boardBounds, type BoardModel, boxOnBoard, partName } from '@orthos/core/board';
  import type { CopperDrawing, CopperShape } from '@orthos/core/copper';
  import { formatLength, formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import { packageById } from '@orthos/core/packages';
  import { boardScene, partAt, terminalAt } from '@orthos/core/scene';
  import { LENS_NAMES, type Desk, type Lens } from '$lib/jobs/desk.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { useCommands } from '$lib/ui/palette.svelte';
  import { onThemeChange } from '$lib/ui/theme';
  import { zoomable } from '$lib/ui/zoom';
  import { onMount, type Snippet } from 'svelte';
  import { batchCopper, batchCopperScene, batchScene, readPalette, type Palette } from './painter';
  import { Raster } from './raster';
  import StageBar from './StageBar.svelte';
  import StageOverlay from './StageOverlay.svelte';
  import {
    fitView,
    flipped,
    SCALES,
    toBoardPoint,
    toScreen,
    zoomAt,
    type StagePoint,
    type StageTool,
    type StageView,
  } from './view';

  interface Props {
    board: BoardModel;
    desk: Desk;
    units: UnitSettings;
    lenses?: Lens[];
    /** Copper as it lies, for the copper lens; without it the lens shows the patches of the model. */
    copper?: CopperDrawing | null;
    /** Takes the pointer before the stage does. */
    tool?: StageTool;
    /** Lies below the board and moves with it; the board is then drawn clear. */
    under?: Snippet<[StageView]>;
    /** Lies over it, in screen pixels of the given view. */
    over?: Snippet<[StageView]>;
    /** Takes the board's place, which stays behind it. */
    instead?: Snippet;
    /** The stage it stands beside: same view, same side, and its keys move both. */
    beside?: Desk;
  }
  let { board, desk, units, lenses = ['parts'], copper = null, tool, under, over, instead, beside }: Props = $props();

  let host = $state<HTMLElement>();
  let picture = $state<HTMLElement>();
  let groundCanvas = $state<HTMLCanvasElement>();
  let heatCanvas = $state<HTMLCanvasElement>();
  let partsCanvas = $state<HTMLCanvasElement>();
  let size = $state({ w: 0, h: 0 });
  /** Whose view and side it is seen in. */
  const lead = $derived(beside ?? desk);
  const view = $derived(lead.stage);
  /** The view in which the canvases are painted: behind `view` while a large board moves. */
  let pictureView = $state.raw<StageView>();
  let palette = $state.raw<Palette>();
  let hovered = $state<string | null>(null);
  let pointer = $state.raw<[number, number] | null>(null);
  /** Once the user has zoomed or moved, a change of size no longer fits the board anew. */
  let moved = false;
  let measuring = $state(false);
  let measured = $state.raw<{ from: [number, number]; to: [number, number] } | null>(null);

  const PAN: Record<string, [number, number]> = { h: [60, 0], j: [0, -60], k: [0, 60], l: [-60, 0] };
  const scene = $derived(boardScene(board, lead.side));
  /** Shapes of the layer that the copper lens shows. */
  const layerShapes = $derived.by((): readonly CopperShape[] => {
    if (desk.lens !== 'copper') return [];
    const layer = desk.layer ?? (lead.side === 'top' ? 0 : board.stack.length - 1);
    if (copper) return copper.layers[layer]?.shapes ?? [];
    return board.copper
      .filter((c) => c.layer === layer)
      .map((c) => {
        const [x0, y0, x1, y1] = [c.x_mm, c.y_mm, c.x_mm + c.w_mm, c.y_mm + c.h_mm];
        return { k: 'area', n: -1, r: [[x0, y0, x1, y0, x1, y1, x0, y1]], ...(c.coverage < 0.05 ? { e: 1 } : {}) };
      });
  });
  const layerBatches = $derived(batchCopper(layerShapes, 'track'));
  const litBatches = $derived.by(() => {
    const n = desk.net !== null && copper ? copper.nets.indexOf(desk.net) : -1;
    return n < 0
      ? []
      : batchCopper(
          layerShapes.filter((s) => s.n === n),
          'lit',
        );
  });
  const batches = $derived(
    desk.lens === 'copper' ? batchCopperScene(scene, layerBatches, litBatches, layerShapes.length) : batchScene(scene),
  );
  const bounds = $derived(boardBounds(board));
  const here = $derived(
    board.parts
      .filter((p) => p.side === lead.side)
      .sort((a, b) => Math.round(a.y_mm / 4) - Math.round(b.y_mm / 4) || a.x_mm - b.x_mm),
  );
  const byId = $derived(new Map(board.parts.map((p) => [p.partId, p])));
  const partOf = (id: string | null) => (id === null ? undefined : byId.get(id));
  const heatShown = $derived(desk.lens === 'heat' && desk.over.heat?.side === lead.side ? desk.over.heat : null);
  let heat = $state.raw<typeof import('./heat')>();
  $effect(() => {
    if (heatShown && !heat) void import('./heat').then((m) => (heat = m));
  });
  const field = $derived(heatShown && heat ? heat.evenField(heatShown.frames, desk.time) : null);
  const underPointer = $derived.by(() => {
    if (!field || !heat || !pointer) return null;
    return heat.fieldAt(field, ...toBoardPoint(view, ...pointer));
  });

  function fit() {
    moved = false;
    if (size.w > 0 && !beside)
      lead.stage = fitView(bounds, size.w, size.h, 34, lead.side === 'bottom', board.flipAxis_mm);
  }
  function flip() {
    lead.side = lead.side === 'top' ? 'bottom' : 'top';
  }
  // the side may also be changed by a panel: the view follows
  $effect(() => {
    const mirrored = lead.side === 'bottom';
    if (view.mirrored !== mirrored && !beside) lead.stage = flipped(view, size.w);
  });
  function change(next: StageView) {
    moved = true;
    lead.stage = next;
  }
  const zoom = (factor: number) => change(zoomAt(view, size.w / 2, size.h / 2, factor));
  const pan = (dx: number, dy: number) => change({ ...view, ox: view.ox + dx, oy: view.oy + dy });

  function select(id: string | null) {
    const from = partOf(desk.selected);
    const to = partOf(id);
    if (measuring && from && to && from !== to) measured = { from: [from.x_mm, from.y_mm], to: [to.x_mm, to.y_mm] };
    desk.selected = id;
    if (to) {
      desk.place = { x_mm: to.x_mm, y_mm: to.y_mm, side: to.side, partId: to.partId };
      reveal(to.x_mm, to.y_mm);
    }
  }
  function reveal(x: number, y: number) {
    const [px, py] = toScreen(view, x, y);
    if (px < 20 || py < 20 || px > size.w - 20 || py > size.h - 20)
      lead.stage = { ...view, ox: view.ox + size.w / 2 - px, oy: view.oy + size.h / 2 - py };
  }
  function step(by: number) {
    if (here.length === 0) return;
    const at = here.findIndex((p) => p.partId === desk.selected);
    const next = at < 0 ? (by > 0 ? 0 : here.length - 1) : (at + by + here.length) % here.length;
    select(here[next].partId);
  }

  useKeys('Stage', () =>
    beside
      ? []
      : [
          ...lenses.map((lens, i) => ({
            keys: [String(i + 1)],
            label: `${LENS_NAMES[lens].toLowerCase()} lens`,
            run: () => (desk.lens = lens),
          })),
          { keys: ['f'], label: 'flip side', run: flip, line: true },
          { keys: [',', '.'], label: 'part before, next part', run: (key) => step(key === '.' ? 1 : -1), line: true },
          { keys: ['+', '='], shown: ['+'], label: 'closer', run: () => zoom(1.25) },
          { keys: ['-'], label: 'further', run: () => zoom(0.8) },
          { keys: ['0'], label: 'whole board', run: fit },
          { keys: ['h', 'j', 'k', 'l'], label: 'move left, down, up, right', run: (key) => pan(...PAN[key]) },
          { keys: ['r'], label: 'ruler', run: () => toggleRuler() },
          measuring
            ? { keys: ['Escape'], label: 'put the ruler away', run: () => toggleRuler() }
            : { keys: ['Escape'], label: 'let go of the part', run: () => select(null) },
        ],
  );
  useCommands(() =>
    (beside ? [] : board.parts).map((p) => ({
      group: 'part' as const,
      title: `${partName(p)} ${p.what ?? p.value ?? ''}`.trim(),
      hint: `${packageById(p.package).label}, ${p.side}`,
      words: p.package,
      run: () => {
        lead.side = p.side;
        select(p.partId);
      },
    })),
  );
  function toggleRuler() {
    measuring = !measuring;
    measured = null;
  }

  let press: { x: number; y: number; moved: boolean; ruler: boolean } | null = null;
  /** The tool has the pointer. */
  let held = false;
  const zoomed = zoomable({
    get: () => ({ k: view.scale, x: view.ox, y: view.oy }),
    set: ({ k, x, y }) => change({ ...view, scale: k, ox: x, oy: y }),
    scales: SCALES,
    leaves: (e) => e.type !== 'wheel' && (held || measuring),
  });
  const local = (e: PointerEvent): [number, number] => {
    const box = (host as HTMLElement).getBoundingClientRect();
    return [e.clientX - box.left, e.clientY - box.top];
  };
  function atPoint(e: PointerEvent): StagePoint {
    const [x_mm, y_mm] = toBoardPoint(view, ...local(e));
    return { x_mm, y_mm, mm_px: 1 / view.scale, alt: e.altKey, shift: e.shiftKey };
  }
  function onpointerdown(e: PointerEvent) {
    const [x, y] = local(e);
    // a second finger: both zoom, and choose nothing
    if (!e.isPrimary) return (press = null);
    held = e.button === 0 && (tool?.down?.(atPoint(e)) ?? false);
    if (held) {
      (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
      return;
    }
    press = { x, y, moved: false, ruler: measuring };
    if (measuring) measured = { from: toBoardPoint(view, x, y), to: toBoardPoint(view, x, y) };
    (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
  }
  function onpointermove(e: PointerEvent) {
    if (!press && tool?.move?.(atPoint(e))) return;
    const [x, y] = local(e);
    // only the heat lens tells what lies under the pointer
    if (field) pointer = [x, y];
    if (press) {
      if (Math.hypot(x - press.x, y - press.y) > 3) press.moved = true;
      if (press.ruler && measured) measured = { ...measured, to: toBoardPoint(view, x, y) };
      return;
    }
    hovered = partAt(board, lead.side, ...toBoardPoint(view, x, y), 2 / view.scale)?.partId ?? null;
  }
  function onpointerup(e: PointerEvent) {
    held = false;
    if (!press && tool?.up?.(atPoint(e))) return;
    const was = press;
    press = null;
    if (!was || was.moved || was.ruler) return;
    const [bx, by] = toBoardPoint(view, ...local(e));
    const part = partAt(board, lead.side, bx, by, 2 / view.scale);
    select(part?.partId ?? null);
    const round = (n: number) => Math.round(n * 1000) / 1000;
    desk.place = {
      x_mm: round(bx),
      y_mm: round(by),
      side: lead.side,
      ...(part
        ? { partId: part.partId, ...(terminalAt(part, bx, by) ? { terminal: terminalAt(part, bx, by) as string } : {}) }
        : {}),
    };
  }

  let raster: Raster | undefined;
  $effect(() => {
    if (!palette || !picture || !groundCanvas || !partsCanvas || size.w === 0) return;
    raster ??= new Raster(picture, groundCanvas, partsCanvas, (shown) => (pictureView = shown));
    raster.draw({
      scene: batches,
      view,
      palette,
      clearness: field ? 0.45 : under ? 0.35 : 1,
      clearBoard: under !== undefined,
    });
  });
  let heatPainted = false;
  $effect(() => {
    const ctx = heatCanvas?.getContext('2d');
    if (!ctx || !palette || !pictureView) return;
    if (!field || !heat || !heatShown) {
      // clear once, then leave the canvas alone while the view moves
      if (heatPainted) ctx.reset();
      heatPainted = false;
      return;
    }
    ctx.reset();
    heatPainted = true;
    const { isotherms } = heatShown;
    heat.paintHeat(
      ctx,
      field,
      pictureView,
      devicePixelRatio,
      palette.scope,
      palette.ink,
      palette.fill.board,
      isotherms,
    );
  });

  onMount(() => {
    palette = readPalette();
    const off = onThemeChange(() => (palette = readPalette()));
    // labels are painted with the shop's font once it is there
    void document.fonts.ready.then(() => (palette = readPalette()));
    const observer = new ResizeObserver(([entry]) => {
      const { width, height } = entry.contentRect;
      size = { w: width, h: height };
      for (const canvas of [groundCanvas, heatCanvas, partsCanvas])
        if (canvas) {
          canvas.width = Math.round(width * devicePixelRatio);
          canvas.height = Math.round(height * devicePixelRatio);
        }
      if (!moved) fit();
      else lead.stage = { ...view };
    });
    observer.observe(host as HTMLElement);
    return () => {
      off();
      observer.disconnect();
      raster?.stop();
    };
  });

  const describe = (id: string | null) => {
    const part = partOf(id);
    if (!part) return '';
    const pkg = packageById(part.package);
    return [partName(part), part.ref ? part.what : undefined, part.value, pkg.label].filter(Boolean).join(', ');
  };
  const gap = $derived.by(() => {
    const [a, b] = [partOf(desk.selected), partOf(hovered)];
    if (!a || !b || a === b) return '';
    const box = (p: typeof a) =>
      boxOnBoard(p, { x: 0, y: 0, w: packageById(p.package).body.l, h: packageById(p.package).body.w });
    const [p, q] = [box(a), box(b)];
    const d = Math.hypot(Math.max(0, p.x0 - q.x1, q.x0 - p.x1), Math.max(0, p.y0 - q.y1, q.y0 - p.y1));
    return `, ${formatLength(d, units)} from ${partName(a)}`;
  });
  const status = $derived(
    hovered
      ? describe(hovered) + gap
      : desk.selected
        ? describe(desk.selected)
        : `${board.name}, ${lead.side} side, ${here.length} parts`,
  );
</script>

<section class="flex h-full min-h-0 flex-col" aria-label="Board">
  <StageBar {desk} {lenses} {measuring} {status} onFlip={flip} onRuler={toggleRuler} onFit={fit} />
  <div class="relative flex min-h-0 flex-1 flex-col">
    <!-- the board is the control: parts are stepped through by keys, named in the live line above -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex -->
    <div
      bind:this={host}
      role="application"
      aria-label="{board.name}, {lead.side} side. Comma and full stop step through the parts."
      tabindex="0"
      class="relative min-h-0 flex-1 touch-none overflow-hidden [contain:strict] select-none {measuring || tool?.cross
        ? 'cursor-crosshair'
        : hovered
          ? 'cursor-pointer'
          : ''}"
      {onpointerdown}
      {onpointermove}
      {onpointerup}
      onpointerleave={() => {
        hovered = null;
        pointer = null;
      }}
      {@attach zoomed}
    >
      <div
        bind:this={picture}
        class="pointer-events-none absolute inset-0 origin-top-left will-change-transform *:absolute *:inset-0 *:h-full *:w-full"
        aria-hidden="true"
      >
        {#if under && pictureView}<div>{@render under(pictureView)}</div>{/if}
        <canvas bind:this={groundCanvas}></canvas>
        <canvas bind:this={heatCanvas}></canvas>
        <canvas bind:this={partsCanvas} data-testid="stage-parts"></canvas>
      </div>
      <StageOverlay {board} {partOf} {desk} {view} {size} {hovered} {measured} {units}>
        {#snippet scale()}
          {#if heatShown && heat && palette}<heat.HeatScale {size} {units} scope={palette.scope} />{/if}
        {/snippet}
      </StageOverlay>
      {@render over?.(view)}
      {#if underPointer !== null && pointer}
        <p class="pointer-events-none absolute top-2 right-3 border border-line bg-sheet px-2 py-0.5 font-semibold">
          {formatTemperature(underPointer, units)} here
        </p>
      {/if}
    </div>
    {#if instead}{@render instead()}{/if}
  </div>
</section>
