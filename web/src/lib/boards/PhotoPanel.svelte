<script lang="ts">
  // The photo of a side: brought in, then tied to the board by its corners, a known pitch or landmarks.
  import Slider from '$lib/ui/Slider.svelte';
  import OneOf from '$lib/ui/OneOf.svelte';
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { Bytes, send } from '$lib/jobs/send';
  import type { Desk } from '$lib/jobs/desk.svelte';
  import CameraSnap from '$lib/photos/CameraSnap.svelte';
  import { smaller } from '$lib/photos/smaller';
  import {
    applyHomography,
    boardBounds,
    type BoardModel,
    fitPhoto,
    invertHomography,
    type PointPair,
    provisionalFrame,
  } from '@orthos/core/board';
  import { parseDecimal } from '@orthos/core/ground';
  import Camera from '@lucide/svelte/icons/camera';
  import FileUp from '@lucide/svelte/icons/file-up';
  import { untrack } from 'svelte';
  import { v7 } from 'uuid';
  import type { Editor } from './editor.svelte';

  let { editor, desk, clearness = $bindable(100) }: { editor: Editor; desk: Desk; clearness?: number } = $props();

  type Photo = NonNullable<BoardModel['photos']>[number];
  const WAYS = [
    ['corners', 'four corners'],
    ['pitch', 'a known pitch'],
    ['landmarks', 'landmarks'],
  ] as const;
  const CORNERS = ['upper left', 'upper right', 'lower right', 'lower left'];

  let way = $state<(typeof WAYS)[number][0]>('corners');
  let camera = $state(false);
  let busy = $state(false);
  let problem = $state<string | null>(null);
  let pairs = $state.raw<PointPair[]>([]);
  let names = $state.raw<string[]>([]);
  /** Size of the rectangle whose corners are clicked. */
  let width = $state('');
  let height = $state('');
  let isBoard = $state(true);
  let pins = $state('8');
  let pitch = $state('1.27');
  let knownPoint = $state('');

  const photo = $derived(editor.doc.photos?.find((p) => p.side === desk.side));
  const bounds = $derived(boardBounds(editor.doc));
  const frame = $derived(
    photo ? (photo.toBoard ?? provisionalFrame(photo.w_px, photo.h_px, bounds, photo.side)) : null,
  );
  const size = $derived.by(() => {
    const [w, h] = [parseDecimal(width), parseDecimal(height)];
    return w !== null && h !== null && w >= 1 && h >= 1 && w <= 1500 && h <= 1500 ? { w, h } : null;
  });
  // the rectangle starts as the board's own size
  $effect(() => {
    const b = bounds;
    untrack(() => {
      if (!width) width = String(Math.round((b.x1 - b.x0) * 100) / 100);
      if (!height) height = String(Math.round((b.y1 - b.y0) * 100) / 100);
    });
  });
  /** Points of the board that can be found again on the other side. */
  const known = $derived.by(() => {
    const b = bounds;
    const list: { id: string; label: string; x: number; y: number }[] = [
      { id: 'nw', label: 'corner upper left', x: b.x0, y: b.y0 },
      { id: 'ne', label: 'corner upper right', x: b.x1, y: b.y0 },
      { id: 'se', label: 'corner lower right', x: b.x1, y: b.y1 },
      { id: 'sw', label: 'corner lower left', x: b.x0, y: b.y1 },
      ...editor.doc.holes.map((h, i) => ({
        id: `hole${i}`,
        label: `hole ${i + 1}, ${h.d_mm} mm at ${h.x_mm}, ${h.y_mm}`,
        x: h.x_mm,
        y: h.y_mm,
      })),
      ...editor.doc.landmarks.map((m) => ({ id: `m${m.id}`, label: m.label, x: m.x_mm, y: m.y_mm })),
    ];
    return list;
  });

  function change(label: string, next: Photo[]) {
    editor.commit(label, { ...editor.doc, photos: next.length ? next : undefined });
  }
  async function take(picture: Blob | undefined) {
    if (!picture) return;
    problem = null;
    busy = true;
    camera = false;
    try {
      const body = await smaller(picture);
      const query = new URLSearchParams({ id: v7(), side: desk.side });
      const told = await send('POST', `/api/boards/${editor.id}/photos?${query}`, new Bytes(body, 'image/jpeg'));
      const { id, w_px, h_px } = told as { id: string; w_px: number; h_px: number };
      const made: Photo = { photoId: id, side: desk.side, w_px, h_px };
      change('lay a photo under it', [...(editor.doc.photos ?? []).filter((p) => p.side !== desk.side), made]);
      begin();
    } catch (e) {
      problem = `${(e as Error).message} Nothing was stored.`;
    } finally {
      busy = false;
    }
  }
  function begin() {
    pairs = [];
    names = [];
  }
  /** What the pairs clicked so far say, and whether they belong to this side. */
  const fitted = $derived(photo && pairs.length >= 2 ? fitPhoto(pairs, photo.side) : null);
  const wrongWay = $derived(
    fitted !== null && photo !== undefined && pairs.length > 2 && fitted.mirrored !== (photo.side === 'bottom'),
  );

  function store(outline: BoardModel['outline_mm'] | null) {
    if (!photo || !fitted) return;
    const round = (v: number) => Number(v.toPrecision(12));
    const placed: Photo = {
      ...photo,
      toBoard: fitted.toBoard.map(round),
      pixel_mm: round(fitted.pixel_mm),
      pixelPlusMinus_mm: round(fitted.pixelPlusMinus_mm),
    };
    const photos = (editor.doc.photos ?? []).map((p) => (p.photoId === placed.photoId ? placed : p));
    const w = size?.w ?? 0;
    editor.commit('place the photo', {
      ...editor.doc,
      photos,
      ...(outline ? { outline_mm: outline, flipAxis_mm: Math.round((w / 2) * 1e4) / 1e4 } : {}),
    });
  }

  /** Where a click lies in the photo, pixels. */
  const pixelAt = (x: number, y: number): [number, number] =>
    frame ? applyHomography(invertHomography(frame), x, y) : [0, 0];

  function click(x: number, y: number): boolean {
    if (!photo || !frame) return false;
    problem = null;
    const px = pixelAt(x, y);
    if (way === 'corners') {
      if (!size) {
        problem = 'Say the size of the rectangle first, in mm.';
        return true;
      }
      if (pairs.length >= 4) begin();
      const { w, h } = size;
      const [ox, oy] = isBoard ? [0, 0] : [bounds.x0, bounds.y0];
      // seen from below, the left corners are the board's right ones
      const [l, r] = photo.side === 'bottom' ? [ox + w, ox] : [ox, ox + w];
      const corner: [number, number] = [
        [l, oy],
        [r, oy],
        [r, oy + h],
        [l, oy + h],
      ][pairs.length] as [number, number];
      names = [...names, CORNERS[pairs.length]];
      pairs = [...pairs, { px, mm: corner }];
      if (pairs.length === 4) {
        if (!fitted) {
          problem = 'These four points make no rectangle. Click the corners again.';
          begin();
        } else
          store(
            isBoard
              ? [
                  [0, 0],
                  [w, 0],
                  [w, h],
                  [0, h],
                ]
              : null,
          );
      }
    } else if (way === 'pitch') {
      const [n, step] = [Number(pins), parseDecimal(pitch)];
      if (!Number.isInteger(n) || n < 2 || step === null || step <= 0) {
        problem = 'How many pins from the first to the last, and their pitch in mm.';
        return true;
      }
      if (pairs.length >= 2) begin();
      if (pairs.length === 0) {
        names = ['first pin'];
        pairs = [{ px, mm: [x, y] }];
      } else {
        // the row lies along the axis that it nearly lies along now
        const [fx, fy] = pairs[0].mm;
        const length = (n - 1) * step;
        const upright = Math.abs(y - fy) > Math.abs(x - fx);
        const mm: [number, number] = upright
          ? [fx, fy + Math.sign(y - fy) * length]
          : [fx + Math.sign(x - fx) * length, fy];
        names = [...names, 'last pin'];
        pairs = [...pairs, { px, mm }];
        if (fitted) store(null);
        else {
          problem = 'The two clicks lie in one place. Click the first pin again.';
          begin();
        }
      }
    } else {
      const point = known.find((k) => k.id === knownPoint);
      if (!point) {
        problem = 'Choose which point it is, then click it in the photo.';
        return true;
      }
      names = [...names, point.label];
      pairs = [...pairs, { px, mm: [point.x, point.y] }];
      knownPoint = '';
      if (pairs.length >= 3 && !fitted) problem = 'These points lie in one line or one place; choose others.';
    }
    return true;
  }
  $effect(() => {
    editor.tool =
      photo && !camera
        ? { cross: true, down: (p) => click(p.x_mm, p.y_mm), move: () => true, up: () => true }
        : undefined;
  });
  $effect(() => {
    const f = frame;
    const marks = pairs;
    const labels = names;
    editor.sketch = f
      ? {
          dots: marks.map((p, i) => {
            const [x, y] = applyHomography(f, ...p.px);
            return { x, y, label: labels[i] };
          }),
        }
      : {};
  });
  let lastSide = '';
  $effect(() => {
    const side = desk.side;
    untrack(() => {
      if (lastSide !== side) begin();
      lastSide = side;
    });
  });
  const micro = (v: number) => (v * 1000).toFixed(v < 0.1 ? 1 : 0);
</script>

<svelte:window
  ondragover={(e) => e.preventDefault()}
  ondrop={(e) => {
    e.preventDefault();
    void take(e.dataTransfer?.files[0]);
  }}
/>

<h2 class="text-lg">Photo of the {desk.side}</h2>
<div class="mt-2 flex flex-wrap gap-2">
  <label
    class="button cursor-pointer px-3 focus-within:outline-2 focus-within:outline-evidence {photo ? '' : 'button-main'}"
  >
    <FileUp size={17} aria-hidden="true" />
    {busy ? 'Storing' : photo ? 'Another photo' : 'Choose or drop a photo'}
    <input
      class="sr-only"
      type="file"
      accept="image/*"
      disabled={busy}
      aria-label="Photo of the {desk.side}"
      onchange={(e) => {
        const input = e.currentTarget;
        void take(input.files?.[0]).then(() => (input.value = ''));
      }}
    />
  </label>
  <button type="button" class="button px-3" aria-expanded={camera} onclick={() => (camera = !camera)}>
    <Camera size={17} aria-hidden="true" /> Camera
  </button>
</div>
{#if camera}<div class="mt-3"><CameraSnap onsnap={(b) => void take(b)} onclose={() => (camera = false)} /></div>{/if}
<Notice text={problem} class="mt-2" />

{#if !photo}
  <p class="mt-3 text-ink2">
    Square above the board, whole outline in the picture. Location and camera data are removed when it is stored.
    Without a photo, go on with Board: parts can be placed on an empty outline as well.
  </p>
{:else}
  <p class="label mt-4" aria-hidden="true">How clear the photo is</p>
  <Slider aria-label="How clear the photo is" min={10} bind:value={clearness} />
  <fieldset class="mt-3">
    <legend class="label">Tie it to the board by</legend>
    <OneOf aria-label="Tie it to the board by" choices={Object.fromEntries(WAYS)} bind:value={way} onchange={begin} />
  </fieldset>
  {#if way === 'corners'}
    <div class="grid grid-cols-2 gap-3">
      <label><span class="label">Width, mm</span><input class="field" bind:value={width} inputmode="decimal" /></label>
      <label><span class="label">Height, mm</span><input class="field" bind:value={height} inputmode="decimal" /></label
      >
    </div>
    <Check class="mt-1" bind:checked={isBoard}>these are the board's own corners</Check>
    <p class="border-y border-faint py-2" role="status">
      {pairs.length < 4
        ? `Click the ${CORNERS[pairs.length]} corner.`
        : 'All four corners are set. A click starts again.'}
    </p>
  {:else if way === 'pitch'}
    <div class="grid grid-cols-2 gap-3">
      <label
        ><span class="label">Pins, first to last</span><input
          class="field"
          bind:value={pins}
          inputmode="numeric"
        /></label
      >
      <label><span class="label">Pitch, mm</span><input class="field" bind:value={pitch} inputmode="decimal" /></label>
    </div>
    <p class="mt-2 border-y border-faint py-2" role="status">
      {pairs.length === 0
        ? 'Click the first pin of the row.'
        : pairs.length === 1
          ? 'Click the last pin of the row.'
          : 'Scale is set. A click starts again.'}
    </p>
  {:else}
    <Select
      label="Point of the board"
      none="choose, then click it in the photo"
      choices={known.map((k) => ({ value: k.id, label: k.label, disabled: names.includes(k.label) }))}
      bind:value={knownPoint}
    />
    <ul class="mt-2 divide-y divide-faint">
      {#each pairs as p, i (i)}
        {@const at = fitted ? applyHomography(fitted.toBoard, ...p.px) : null}
        <li class="flex min-h-9 items-center gap-2 text-[13px]">
          <span class="flex-1">{names[i]}</span>
          {#if at && pairs.length > 3}<span class="text-ink2"
              >{Math.hypot(at[0] - p.mm[0], at[1] - p.mm[1]).toFixed(2)} mm off</span
            >{/if}
          <button
            type="button"
            class="h-8 px-2 text-evidence underline"
            aria-label="Take out {names[i]}"
            onclick={() => {
              pairs = pairs.filter((_, n) => n !== i);
              names = names.filter((_, n) => n !== i);
            }}>take out</button
          >
        </li>
      {/each}
    </ul>
    <button
      type="button"
      class="button mt-2"
      disabled={!fitted || pairs.length < 3 || wrongWay}
      onclick={() => store(null)}>Place the photo</button
    >
    <p class="mt-1 text-[13px] text-ink2" role="status">
      {pairs.length < 3 ? `${3 - pairs.length} more at least; four allow for a slanted camera.` : ''}
    </p>
  {/if}
  {#if wrongWay}
    <Notice class="mt-2">
      These points show the {photo.side === 'bottom' ? 'top' : 'bottom'}, or left and right are swapped: seen from
      below, the board's right edge is on the left.
    </Notice>
  {/if}
  {#if photo.pixel_mm}
    <p class="mt-3 border-t border-faint pt-2">
      <b>1 pixel = {micro(photo.pixel_mm)} ± {micro(photo.pixelPlusMinus_mm ?? 0)} µm</b>
      <span class="text-[13px] text-ink2">
        in its middle: over 50 mm that is ± {(((photo.pixelPlusMinus_mm ?? 0) / photo.pixel_mm) * 50).toFixed(2)} mm.
        {fitted && fitted.off_mm !== null ? `Points are ${fitted.off_mm.toFixed(2)} mm off.` : ''}
      </span>
    </p>
  {/if}
{/if}
