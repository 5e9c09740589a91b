<script lang="ts">
  // The board itself: outline, thickness, layers, foils, holes, landmarks.
  import { type Choice, ticked } from '$lib/ui/choices';
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import type { Desk } from '$lib/jobs/desk.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { SOLDER_ALLOYS } from '@orthos/core/alloys';
  import { boardBounds, type BoardModel, stackOf } from '@orthos/core/board';
  import { parseDecimal } from '@orthos/core/ground';
  import { LAMINATE_KINDS, LAMINATES } from '@orthos/core/materials';
  import { v7 } from 'uuid';
  import type { Editor } from './editor.svelte';

  let { editor, desk }: { editor: Editor; desk: Desk } = $props();

  let mode = $state<'none' | 'outline' | 'hole' | 'landmark'>('none');
  const laminates: Choice<(typeof LAMINATES)[number]>[] = LAMINATES.map((value) => ({
    value,
    label: LAMINATE_KINDS[value].what,
  }));
  let points = $state.raw<[number, number][]>([]);
  let pointer = $state.raw<[number, number] | null>(null);
  let diameter = $state('3.2');
  let label = $state('');
  let problem = $state<string | null>(null);

  const b = $derived(boardBounds(editor.doc));
  const micron = (v: number) => Math.round(v * 1e4) / 1e4;
  function set(what: string, change: Partial<BoardModel>) {
    editor.commit(what, { ...editor.doc, ...change });
  }
  function resize(w: number | null, h: number | null) {
    if (w === null || h === null || w < 1 || h < 1 || w > 1500 || h > 1500) {
      problem = 'Width and height between 1 and 1500 mm.';
      return;
    }
    problem = null;
    set('resize the board', {
      outline_mm: [
        [0, 0],
        [w, 0],
        [w, h],
        [0, h],
      ],
      flipAxis_mm: micron(w / 2),
    });
  }
  function closeOutline() {
    if (points.length < 3) {
      problem = 'An outline has three points at least.';
      return;
    }
    const xs = points.map(([x]) => x);
    set('outline', { outline_mm: points, flipAxis_mm: micron((Math.min(...xs) + Math.max(...xs)) / 2) });
    points = [];
    mode = 'none';
  }
  const isRectangle = $derived(editor.doc.outline_mm.length === 4);
  $effect(() => {
    editor.tool =
      mode === 'none'
        ? undefined
        : {
            cross: true,
            down(p) {
              const at: [number, number] = [micron(p.x_mm), micron(p.y_mm)];
              problem = null;
              if (mode === 'outline') points = [...points, at];
              else if (mode === 'hole') {
                const d = parseDecimal(diameter);
                if (d === null || d <= 0 || d > 100) problem = 'A diameter up to 100 mm.';
                else set('hole', { holes: [...editor.doc.holes, { x_mm: at[0], y_mm: at[1], d_mm: d }] });
              } else {
                const text = label.trim() || `mark ${editor.doc.landmarks.length + 1}`;
                set('landmark', {
                  landmarks: [
                    ...editor.doc.landmarks,
                    { id: v7(), x_mm: at[0], y_mm: at[1], label: text.slice(0, 200) },
                  ],
                });
                label = '';
              }
              return true;
            },
            move(p) {
              pointer = [p.x_mm, p.y_mm];
              return true;
            },
            up: () => true,
          };
  });
  $effect(() => {
    editor.sketch =
      mode === 'outline' && points.length
        ? {
            polygons: [{ points: pointer ? [...points, pointer] : points, tone: 'draft', open: true }],
            dots: points.map(([x, y]) => ({ x, y })),
          }
        : {};
  });
  useKeys('Board', () => [
    ...(mode === 'outline'
      ? [
          { keys: ['Enter'], label: 'close the outline', run: closeOutline, line: true },
          {
            keys: ['Backspace'],
            label: 'take the last point back',
            run: () => (points = points.slice(0, -1)),
            line: true,
          },
        ]
      : []),
    {
      keys: ['Escape'],
      label: 'let go',
      run: () => {
        mode = 'none';
        points = [];
      },
    },
  ]);
  function toggle(next: typeof mode) {
    mode = mode === next ? 'none' : next;
    points = [];
    problem = null;
  }
</script>

<h2 class="text-lg">Outline</h2>
<div class="mt-2 grid grid-cols-2 gap-3">
  <label
    ><span class="label">Width, mm</span>
    <input
      class="field"
      inputmode="decimal"
      value={micron(b.x1 - b.x0)}
      onchange={(e) => resize(parseDecimal(e.currentTarget.value), b.y1 - b.y0)}
    />
  </label>
  <label
    ><span class="label">Height, mm</span>
    <input
      class="field"
      inputmode="decimal"
      value={micron(b.y1 - b.y0)}
      onchange={(e) => resize(b.x1 - b.x0, parseDecimal(e.currentTarget.value))}
    />
  </label>
</div>
<div class="mt-2 flex flex-wrap items-center gap-2">
  <button type="button" class="button px-3" aria-pressed={mode === 'outline'} onclick={() => toggle('outline')}
    >Click the outline</button
  >
  {#if mode === 'outline'}
    <button type="button" class="button px-3" onclick={closeOutline}>Close it ({points.length})</button>
  {:else}
    <span class="text-[13px] text-ink2"
      >{isRectangle
        ? 'a rectangle'
        : `${editor.doc.outline_mm.length} points; width and height make it a rectangle`}</span
    >
  {/if}
</div>
<Notice text={problem} class="mt-2" />

<h2 class="mt-5 text-lg">Build</h2>
<div class="mt-2 grid grid-cols-2 gap-3">
  <Select
    label="Copper layers"
    choices={[...new Set([1, 2, 4, 6, 8, editor.doc.stack.length])]
      .sort((x, y) => x - y)
      .map((n) => ({ value: String(n), label: String(n) }))}
    value={String(editor.doc.stack.length)}
    onchange={(v) =>
      set('layers', {
        stack: stackOf(Number(v), editor.doc.stack[0].foil_um),
        copper: editor.doc.copper.filter((c) => c.layer < Number(v)),
        coverage: undefined,
      })}
  />
  <label
    ><span class="label">Thickness, mm</span>
    <input
      class="field"
      inputmode="decimal"
      value={editor.doc.thickness_mm}
      onchange={(e) => {
        const t = parseDecimal(e.currentTarget.value);
        if (t === null || t < 0.2 || t > 6) problem = 'A thickness between 0.2 and 6 mm.';
        else {
          problem = null;
          set('thickness', { thickness_mm: t });
        }
      }}
    />
  </label>
  <Select
    label="Copper weight, all layers"
    choices={[...new Set([18, 35, 70, 105, 140, editor.doc.stack[0].foil_um])]
      .sort((x, y) => x - y)
      .map((um) => ({ value: String(um), label: `${um} µm` }))}
    value={String(editor.doc.stack[0].foil_um)}
    onchange={(v) =>
      set('copper weight', {
        stack: editor.doc.stack.map((s) => ({ ...s, foil_um: Number(v) })),
      })}
  />
  <Select
    label="Joints are of"
    choices={[...SOLDER_ALLOYS.keys()]}
    value={editor.doc.jointAlloy}
    onchange={(v) => set('joint alloy', { jointAlloy: v })}
  />
  <Select
    label="Laminate"
    choices={laminates}
    value={editor.doc.laminate ?? 'standard'}
    onchange={(v) => set('laminate', { laminate: v })}
  />
  <Select
    label="Coating"
    none="none"
    choices={['polyurethane', 'acrylic', 'silicone', 'unknown']}
    value={editor.doc.coating ?? ''}
    onchange={(v) => set('coating', { coating: (v || undefined) as BoardModel['coating'] })}
  />
</div>
<fieldset class="mt-2">
  <legend class="label">Where it serves</legend>
  <div class="flex flex-wrap gap-x-5">
    {#each ['mains', 'vehicle', 'industrial'] as const as s (s)}
      <Check
        checked={editor.doc.service?.includes(s) ?? false}
        onchange={(on) => {
          const next = ticked(editor.doc.service ?? [], s, on);
          set('service', { service: next.length ? next : undefined });
        }}>{s}</Check
      >
    {/each}
  </div>
</fieldset>

<h2 class="mt-5 text-lg">Holes and landmarks</h2>
<p class="text-[13px] text-ink2">
  They tie the photo of the other side to this one, and tell a technician where he is.
</p>
<div class="mt-2 flex flex-wrap items-end gap-2">
  <label class="w-24"
    ><span class="label">Hole, mm</span><input class="field" bind:value={diameter} inputmode="decimal" /></label
  >
  <button type="button" class="button px-3" aria-pressed={mode === 'hole'} onclick={() => toggle('hole')}
    >Click holes</button
  >
  <label class="w-28"
    ><span class="label">Landmark</span><input
      class="field"
      bind:value={label}
      placeholder="hole by C3"
      maxlength="60"
    /></label
  >
  <button type="button" class="button px-3" aria-pressed={mode === 'landmark'} onclick={() => toggle('landmark')}
    >Click it</button
  >
</div>
<ul class="mt-2 divide-y divide-faint">
  {#each editor.doc.holes as h, i (i)}
    <li class="flex min-h-9 items-center gap-2 text-[13px]">
      <span class="flex-1">hole {h.d_mm} mm at {h.x_mm}, {h.y_mm}</span>
      <button
        type="button"
        class="h-8 px-2 text-evidence underline"
        aria-label="Remove hole {i + 1}"
        onclick={() => set('remove a hole', { holes: editor.doc.holes.filter((_, n) => n !== i) })}>remove</button
      >
    </li>
  {/each}
  {#each editor.doc.landmarks as m (m.id)}
    <li class="flex min-h-9 items-center gap-2 text-[13px]">
      <button
        type="button"
        class="flex-1 text-left"
        onclick={() => (desk.place = { x_mm: m.x_mm, y_mm: m.y_mm, side: desk.side })}
        >{m.label} at {m.x_mm}, {m.y_mm}</button
      >
      <button
        type="button"
        class="h-8 px-2 text-evidence underline"
        aria-label="Remove {m.label}"
        onclick={() => set('remove a landmark', { landmarks: editor.doc.landmarks.filter((x) => x.id !== m.id) })}
        >remove</button
      >
    </li>
  {/each}
</ul>
