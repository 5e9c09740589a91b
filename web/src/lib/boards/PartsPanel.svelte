<script lang="ts">
  // Placing parts: a package typed, put down by a click, slid onto the photo's edges; rows, boxes, moving, editing.
  import Fold from '$lib/ui/Fold.svelte';
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import type { Desk } from '$lib/jobs/desk.svelte';
  import type { StagePoint } from '$lib/stage/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import {
    addPart,
    changePart,
    cornersOnBoard,
    invertHomography,
    partName,
    type PlacedPart,
    removeParts,
    repeatRow,
  } from '@orthos/core/board';
  import { parseDecimal } from '@orthos/core/ground';
  import { lawWords, LIMITS } from '@orthos/core/materials';
  import { gripOf, packageById, packageDesignation } from '@orthos/core/packages';
  import { limitRowOf, readOwnLimit } from '@orthos/core/rework';
  import { partAt } from '@orthos/core/scene';
  import { untrack } from 'svelte';
  import { v7 } from 'uuid';
  import type { BoardTools } from './boardWorker';
  import type { Editor, Sketch } from './editor.svelte';
  import PackagePick from './PackagePick.svelte';
  import PartTable from './PartTable.svelte';
  import { photoPixels } from './photoPixels';

  interface Props {
    editor: Editor;
    desk: Desk;
    own: { label: string; designation: string }[];
    tools: BoardTools | undefined;
  }
  let { editor, desk, own, tools }: Props = $props();

  /** What a click on the board does. */
  let mode = $state<'choose' | 'place' | 'row' | 'box'>('choose');
  let armed = $state('');
  let rotation = $state(0);
  let typed = $state('');
  let typing = $state(false);
  let snapping = $state(true);
  /** Parts of a row, the first included; null: as many as fit at twice their width. */
  let rowCount = $state<number | null>(null);
  let boxLimit = $state('plastic-tht');
  let boxHeight = $state('5');
  let said = $state('');
  let pointer = $state.raw<StagePoint | null>(null);
  let drag = $state.raw<{ part: PlacedPart; dx: number; dy: number; moved: boolean } | null>(null);
  let boxFrom = $state.raw<[number, number] | null>(null);

  const selected = $derived(editor.doc.parts.find((p) => p.partId === desk.selected));
  const photo = $derived(editor.doc.photos?.find((p) => p.side === desk.side && p.toBoard));

  // the photo's pixels go to the worker once
  let given = '';
  $effect(() => {
    const wanted = photo?.photoId ?? '';
    if (!tools || !wanted || wanted === given) return;
    given = wanted;
    void photoPixels(wanted).then((p) => p && tools?.api.usePhoto(p.data, p.width, p.height));
  });

  const ghostPart = (at: { x_mm: number; y_mm: number }): PlacedPart => ({
    partId: 'ghost',
    package: armed,
    x_mm: at.x_mm,
    y_mm: at.y_mm,
    rotation_deg: rotation,
    side: desk.side,
  });
  function outlines(part: PlacedPart): NonNullable<Sketch['polygons']> {
    const pkg = packageById(part.package);
    return [
      ...pkg.terminals.map((t) => ({ points: cornersOnBoard(part, t.land), tone: 'ghost' as const })),
      { points: cornersOnBoard(part, { x: 0, y: 0, w: pkg.body.l, h: pkg.body.w }), tone: 'ghost' as const },
      // pin 1
      ...pkg.terminals.slice(0, 1).map((t) => ({
        points: cornersOnBoard(part, { ...t.land, w: t.land.w * 0.5, h: t.land.h * 0.5 }),
        tone: 'patch' as const,
      })),
    ];
  }
  const countOf = (to: StagePoint): number => {
    if (!selected) return 2;
    const { body } = packageById(selected.package);
    const length = Math.hypot(to.x_mm - selected.x_mm, to.y_mm - selected.y_mm);
    return rowCount ?? Math.max(2, Math.min(60, 1 + Math.round(length / (Math.max(body.l, body.w) + 0.6))));
  };

  const sketch = $derived.by((): Sketch => {
    if (mode === 'place' && pointer) return { polygons: outlines(ghostPart(pointer)) };
    if (mode === 'row' && pointer && selected) {
      const n = countOf(pointer);
      const made = repeatRow({ ...editor.doc, parts: [selected] }, selected, pointer, n, () => 'ghost').parts.slice(1);
      return { polygons: made.flatMap(outlines), note: { x: pointer.x_mm, y: pointer.y_mm, text: `${n} in all` } };
    }
    if (mode === 'box' && boxFrom && pointer) {
      const [x0, y0] = boxFrom;
      const { x_mm: x1, y_mm: y1 } = pointer;
      return {
        polygons: [
          {
            points: [
              [x0, y0],
              [x1, y0],
              [x1, y1],
              [x0, y1],
            ],
            tone: 'ghost',
          },
        ],
        note: { x: x1, y: y1, text: `${Math.abs(x1 - x0).toFixed(1)} × ${Math.abs(y1 - y0).toFixed(1)}` },
      };
    }
    if (drag?.moved && pointer)
      return { polygons: outlines({ ...drag.part, x_mm: pointer.x_mm - drag.dx, y_mm: pointer.y_mm - drag.dy }) };
    return {};
  });
  $effect(() => {
    editor.sketch = sketch;
  });

  function place(p: StagePoint) {
    const part = ghostPart(p);
    const partId = v7();
    editor.commit(`place ${packageById(armed).label}`, addPart(editor.doc, { ...part, partId }));
    desk.selected = partId;
    if (snapping && !p.alt) void snap(partId);
  }
  /** Slides a part onto the photo, unless a hand was on it since. */
  async function snap(partId: string) {
    const part = editor.doc.parts.find((q) => q.partId === partId);
    if (!part || !photo?.toBoard || !tools) return;
    const found = await tools.api.snap([...invertHomography(photo.toBoard)], $state.snapshot(part) as PlacedPart);
    const now = editor.doc.parts.find((q) => q.partId === partId);
    if (!found || !now || now.x_mm !== part.x_mm || now.y_mm !== part.y_mm || now.rotation_deg !== part.rotation_deg)
      return;
    const { x_mm, y_mm, rotation_deg } = found;
    // a few tenths of a degree are the photo's, not the part's
    const right = Math.round(rotation_deg / 90) * 90;
    const turned = Math.abs(rotation_deg - right) < 2 ? right : rotation_deg;
    editor.amend(changePart(editor.doc, partId, { x_mm, y_mm, rotation_deg: turned }));
    said = `slid ${Math.hypot(x_mm - part.x_mm, y_mm - part.y_mm).toFixed(2)} mm onto its edges`;
  }
  function finishBox(p: StagePoint) {
    if (!boxFrom) return;
    const [x0, y0] = boxFrom;
    const [w, h] = [Math.abs(p.x_mm - x0), Math.abs(p.y_mm - y0)];
    boxFrom = null;
    const height = parseDecimal(boxHeight);
    if (w < 0.3 || h < 0.3 || height === null || height <= 0) {
      said = 'A box of at least 0.3 mm, and a height.';
      return;
    }
    const round = (v: number) => Math.round(v * 100) / 100;
    try {
      const metal = /^(cell|elko|polymer|crystal|supercap|magnet)/.test(boxLimit);
      const id = packageDesignation('box', {
        l: round(w),
        w: round(h),
        h: round(height),
        limit: boxLimit,
        ...(metal ? { stuff: 'metal' } : {}),
      });
      const partId = v7();
      editor.commit(
        'place a box',
        addPart(editor.doc, {
          partId,
          package: id,
          x_mm: (x0 + p.x_mm) / 2,
          y_mm: (y0 + p.y_mm) / 2,
          rotation_deg: 0,
          side: desk.side,
          what: LIMITS.get(boxLimit)?.what,
        }),
      );
      desk.selected = partId;
      said = '';
    } catch (e) {
      said = (e as Error).message;
    }
  }

  $effect(() => {
    editor.tool = {
      cross: mode !== 'choose',
      down(p) {
        pointer = p;
        if (mode === 'place') place(p);
        else if (mode === 'row' && selected) {
          const first = selected;
          editor.commit(`row of ${countOf(p)}`, repeatRow(editor.doc, first, p, countOf(p), v7));
          mode = 'choose';
        } else if (mode === 'box') boxFrom = [p.x_mm, p.y_mm];
        else {
          const part = partAt(editor.doc, desk.side, p.x_mm, p.y_mm, 2 * p.mm_px);
          if (!part) return false;
          desk.selected = part.partId;
          drag = { part, dx: p.x_mm - part.x_mm, dy: p.y_mm - part.y_mm, moved: false };
        }
        return true;
      },
      move(p) {
        pointer = p;
        if (drag) {
          const far = Math.hypot(p.x_mm - drag.dx - drag.part.x_mm, p.y_mm - drag.dy - drag.part.y_mm);
          if (!drag.moved && far > 4 * p.mm_px) drag = { ...drag, moved: true };
          return true;
        }
        return mode !== 'choose';
      },
      up(p) {
        if (mode === 'box') {
          finishBox(p);
          return true;
        }
        const was = drag;
        drag = null;
        if (!was) return mode !== 'choose';
        if (was.moved)
          editor.commit(
            `move ${partName(was.part)}`,
            changePart(editor.doc, was.part.partId, { x_mm: p.x_mm - was.dx, y_mm: p.y_mm - was.dy }),
          );
        return true;
      },
    };
  });

  function pick(id: string) {
    armed = id;
    typing = false;
    typed = '';
    mode = 'place';
    said = '';
    (document.activeElement as HTMLElement | null)?.blur();
  }
  function turn(by: number) {
    if (mode === 'place') rotation = (rotation + by + 360) % 360;
    else if (selected)
      editor.commit(
        `turn ${partName(selected)}`,
        changePart(editor.doc, selected.partId, { rotation_deg: selected.rotation_deg + by }),
      );
  }
  const NUDGE: Record<string, [number, number]> = {
    ArrowLeft: [-1, 0],
    ArrowRight: [1, 0],
    ArrowUp: [0, -1],
    ArrowDown: [0, 1],
  };
  function nudge(key: string) {
    if (!selected) return;
    const [dx, dy] = NUDGE[key];
    // on the bottom the picture is mirrored: the part follows the arrow as it is seen
    const seen = desk.side === 'bottom' ? -dx : dx;
    editor.commit(
      `nudge ${partName(selected)}`,
      changePart(editor.doc, selected.partId, { x_mm: selected.x_mm + seen * 0.1, y_mm: selected.y_mm + dy * 0.1 }),
    );
  }
  function remove() {
    if (!selected) return;
    editor.commit(`remove ${partName(selected)}`, removeParts(editor.doc, [selected.partId]));
    desk.selected = null;
  }
  function rest() {
    if (mode === 'choose' && !typing) desk.selected = null;
    mode = 'choose';
    typing = false;
    boxFrom = null;
    pointer = null;
  }
  useKeys('Parts', () => [
    { keys: ['a'], label: 'add a part by name', run: () => (typing = true), line: true },
    { keys: ['r'], label: 'turn by 90°', run: () => turn(90), line: true },
    { keys: ['t'], label: 'turn by 15°', run: () => turn(15) },
    { keys: ['w'], label: 'row of the chosen part', run: () => selected && (mode = 'row'), line: true },
    { keys: ['b'], label: 'box: drag a neighbour', run: () => (mode = 'box'), line: true },
    { keys: ['s'], label: 'slide the chosen part onto its edges', run: () => selected && void snap(selected.partId) },
    { keys: Object.keys(NUDGE), label: 'nudge by 0.1 mm', run: nudge },
    { keys: ['Delete', 'Backspace'], label: 'remove', run: remove },
    { keys: ['Escape'], label: 'let go', run: rest },
  ]);

  function set(label: string, change: Partial<PlacedPart>) {
    if (selected) editor.commit(label, changePart(editor.doc, selected.partId, change));
  }
  /** "250 10": what its papers say it stands; empty: nothing. */
  function setOwnLimit(field: HTMLInputElement) {
    const read = readOwnLimit(field.value);
    if (read === null) said = 'What it stands: 30 to 500 °C, and 0.5 to 600 s if they say for how long.';
    else {
      said = '';
      set('what its papers say', { ownLimit: read });
    }
  }
  function setNumber(key: 'x_mm' | 'y_mm' | 'rotation_deg', text: string) {
    const n = parseDecimal(text);
    if (n === null || Math.abs(n) > 2000) said = `"${text}" is no number for it.`;
    else {
      said = '';
      set('change a place', { [key]: n });
    }
  }
  function setNets(text: string) {
    const nets: Record<string, string> = {};
    for (const pair of text.split(/[\n,;]+/)) {
      const m = /^\s*([^\s=:]+)\s*[=:\s]\s*(\S.*?)\s*$/.exec(pair);
      if (m) nets[m[1]] = m[2].slice(0, 120);
    }
    set('nets', { nets: Object.keys(nets).length ? nets : undefined });
  }
  // a part chosen elsewhere ends what was begun
  $effect(() => {
    void desk.side;
    untrack(() => {
      boxFrom = null;
      drag = null;
    });
  });
  const grip = $derived(selected ? gripOf(packageById(selected.package)) : null);
</script>

<div class="flex flex-wrap items-center gap-2">
  <button type="button" class="button px-3" aria-pressed={typing || mode === 'place'} onclick={() => (typing = true)}
    >Add part (A)</button
  >
  <button type="button" class="button px-3" aria-pressed={mode === 'box'} onclick={() => (mode = 'box')}>Box (B)</button
  >
  <Check class="ml-auto text-[13px]" bind:checked={snapping} disabled={!photo}>slide onto edges</Check>
</div>
{#if typing}
  <div class="mt-3">
    <PackagePick focus aria-label="Package" onpick={pick} onclose={() => (typing = false)} {own} bind:text={typed} />
  </div>
{/if}
<p class="my-3 min-h-10 border-y border-faint py-2 text-[13px] text-ink2" role="status">
  {#if mode === 'place'}
    <b class="text-ink">{packageById(armed).label}</b>, {rotation}°: click where it stands. R turns, Esc ends{photo
      ? ', Alt puts it down without sliding'
      : ''}.
    {#if said}<b class="block text-ink">{said}.</b>{/if}
  {:else if mode === 'row'}
    Click where the last of the row stands. <label
      >How many: <input
        class="field inline-block w-16"
        type="number"
        min="2"
        max="200"
        aria-label="Parts in the row"
        value={rowCount ?? ''}
        onchange={(e) =>
          (rowCount =
            Number(e.currentTarget.value) >= 2 ? Math.min(200, Math.round(Number(e.currentTarget.value))) : null)}
      /></label
    >
  {:else if mode === 'box'}
    Drag from corner to corner.
  {:else if said}
    {said}
  {:else if editor.doc.parts.length === 0}
    Start with the part you will change: press A and type its package.
  {:else}
    {editor.doc.parts.length} parts. Click one to change it, drag to move it.
  {/if}
</p>
{#if mode === 'box'}
  <div class="grid grid-cols-2 gap-3">
    <Select
      label="What it is"
      choices={[...LIMITS.values()].map((l) => ({ value: l.id, label: l.what }))}
      bind:value={boxLimit}
    />
    <label
      ><span class="label">Height, mm</span><input class="field" bind:value={boxHeight} inputmode="decimal" /></label
    >
  </div>
{:else if selected && mode === 'choose'}
  {#key selected.partId}
    <h2 class="mb-2 text-lg">
      {partName(selected)} <span class="text-[13px] font-normal text-ink2">{packageById(selected.package).label}</span>
    </h2>
    <div class="grid grid-cols-3 gap-x-3 gap-y-2">
      <label
        ><span class="label">Reference</span><input
          class="field"
          value={selected.ref ?? ''}
          maxlength="20"
          onchange={(e) => set('reference', { ref: e.currentTarget.value.trim() || undefined })}
        /></label
      >
      <label class="col-span-2"
        ><span class="label">What it is</span><input
          class="field"
          value={selected.what ?? ''}
          maxlength="200"
          onchange={(e) => set('what it is', { what: e.currentTarget.value.trim() || undefined })}
        /></label
      >
      <label
        ><span class="label">Value</span><input
          class="field"
          value={selected.value ?? ''}
          maxlength="200"
          onchange={(e) => set('value', { value: e.currentTarget.value.trim() || undefined })}
        /></label
      >
      <Select
        label="Stands"
        class="col-span-2"
        none={`as its package: ${LIMITS.get(packageById(selected.package).limit)?.what}`}
        choices={[...LIMITS.values()].map((l) => ({ value: l.id, label: `${l.what}: ${lawWords(l.law)}` }))}
        value={selected.limit ? limitRowOf(selected).id : ''}
        onchange={(v) => set('what it stands', { limit: v || undefined })}
      />
      <label class="col-span-2"
        ><span class="label">Its own papers say: °C, and for how many s</span><input
          class="field"
          value={selected.ownLimit
            ? `${selected.ownLimit.C}${selected.ownLimit.s ? ` ${selected.ownLimit.s}` : ''}`
            : ''}
          placeholder="nothing; 250 10"
          inputmode="decimal"
          onchange={(e) => setOwnLimit(e.currentTarget)}
        /></label
      >
      <label
        ><span class="label">x, mm</span><input
          class="field"
          value={selected.x_mm}
          inputmode="decimal"
          onchange={(e) => setNumber('x_mm', e.currentTarget.value)}
        /></label
      >
      <label
        ><span class="label">y, mm</span><input
          class="field"
          value={selected.y_mm}
          inputmode="decimal"
          onchange={(e) => setNumber('y_mm', e.currentTarget.value)}
        /></label
      >
      <label
        ><span class="label">Rotation, °</span><input
          class="field"
          value={selected.rotation_deg}
          inputmode="decimal"
          onchange={(e) => setNumber('rotation_deg', e.currentTarget.value)}
        /></label
      >
    </div>
    <Fold title="Another package, nets, missing lands" class="mt-3">
      <PackagePick aria-label="Another package" {own} onpick={(id) => set('another package', { package: id })} />
      <label class="mt-2 block"
        ><span class="label">Nets, one to a line: terminal and net</span>
        <textarea
          class="field"
          rows="3"
          spellcheck="false"
          value={Object.entries(selected.nets ?? {})
            .map(([t, n]) => `${t} ${n}`)
            .join('\n')}
          onchange={(e) => setNets(e.currentTarget.value)}></textarea>
      </label>
      <label class="mt-2 block"
        ><span class="label">Terminals without a land by design</span>
        <input
          class="field"
          value={(selected.noLand ?? []).join(' ')}
          onchange={(e) => {
            const ids = packageById(selected.package).terminals.map((t) => t.id);
            const wanted = e.currentTarget.value.split(/[\s,]+/).filter(Boolean);
            const unknown = wanted.filter((w) => !ids.includes(w));
            said = unknown.length ? `${unknown.join(', ')}: no such terminal.` : '';
            if (!unknown.length) set('lands missing by design', { noLand: wanted.length ? wanted : undefined });
          }}
        />
      </label>
    </Fold>
    <Check
      class="mt-2"
      checked={selected.blocksIron ?? false}
      onchange={(on) => set('in the way of an iron', { blocksIron: on || undefined })}
      >in the way of an iron at its neighbours</Check
    >
    {#if grip}
      <p class="text-[13px] text-ink2">
        Grip: {grip.tool}, {grip.faces}, {grip.width_mm.toFixed(1)} mm apart, {grip.height_mm.toFixed(1)} mm high.
      </p>
    {/if}
    <div class="mt-3 flex flex-wrap gap-2">
      <button type="button" class="button px-3" onclick={() => turn(90)}>Turn (R)</button>
      <button type="button" class="button px-3" onclick={() => (mode = 'row')}>Row (W)</button>
      <button type="button" class="button px-3" disabled={!photo} onclick={() => selected && snap(selected.partId)}
        >Slide (S)</button
      >
      <button type="button" class="button px-3 text-stop" onclick={remove}>Remove</button>
    </div>
  {/key}
{:else if mode === 'choose' && editor.doc.parts.length > 0 && !typing}
  <div class="h-[calc(100dvh-300px)] min-h-60">
    <PartTable
      parts={editor.doc.parts}
      selected={null}
      onselect={(part) => {
        desk.show(part);
      }}
    />
  </div>
{/if}
