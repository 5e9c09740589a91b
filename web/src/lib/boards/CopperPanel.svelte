<script lang="ts">
  // Copper as far as it is known: solid, partial or none under dragged rectangles. Heat goes where copper is.
  import OneOf from '$lib/ui/OneOf.svelte';
  import Select from '$lib/ui/Select.svelte';
  import type { Desk } from '$lib/jobs/desk.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { layerName, paintCopperPatch } from '@orthos/core/board';
  import type { Editor } from './editor.svelte';

  let { editor, desk }: { editor: Editor; desk: Desk } = $props();

  const KINDS = [
    ['solid', 1],
    ['partial', 0.5],
    ['none', 0],
  ] as const;
  let kind = $state<(typeof KINDS)[number][0]>('solid');
  let layer = $state('all');
  let from = $state.raw<[number, number] | null>(null);
  let to = $state.raw<[number, number] | null>(null);
  const coverage = $derived(KINDS.find(([k]) => k === kind)?.[1] ?? 1);
  const box = $derived.by(() => {
    if (!from || !to) return null;
    return {
      x_mm: Math.min(from[0], to[0]),
      y_mm: Math.min(from[1], to[1]),
      w_mm: Math.abs(to[0] - from[0]),
      h_mm: Math.abs(to[1] - from[1]),
    };
  });
  $effect(() => {
    editor.tool = {
      cross: true,
      down(p) {
        from = to = [p.x_mm, p.y_mm];
        return true;
      },
      move(p) {
        if (from) to = [p.x_mm, p.y_mm];
        return true;
      },
      up() {
        if (box && box.w_mm > 0.3 && box.h_mm > 0.3)
          editor.commit(
            `copper ${kind}`,
            paintCopperPatch(editor.doc, box, coverage, layer === 'all' ? 'all' : Number(layer)),
          );
        from = to = null;
        return true;
      },
    };
  });
  const shownLayer = $derived(
    layer === 'all' ? (desk.side === 'top' ? 0 : editor.doc.stack.length - 1) : Number(layer),
  );
  $effect(() => {
    const patches = editor.doc.copper
      .filter((c) => c.layer === shownLayer)
      .map((c) => ({
        points: [
          [c.x_mm, c.y_mm],
          [c.x_mm + c.w_mm, c.y_mm],
          [c.x_mm + c.w_mm, c.y_mm + c.h_mm],
          [c.x_mm, c.y_mm + c.h_mm],
        ] as [number, number][],
        tone: c.coverage > 0.05 ? ('patch' as const) : ('draft' as const),
      }));
    const drawn = box
      ? [
          {
            points: [
              [box.x_mm, box.y_mm],
              [box.x_mm + box.w_mm, box.y_mm],
              [box.x_mm + box.w_mm, box.y_mm + box.h_mm],
              [box.x_mm, box.y_mm + box.h_mm],
            ] as [number, number][],
            tone: 'ghost' as const,
          },
        ]
      : [];
    editor.sketch = { polygons: [...patches, ...drawn] };
  });
  useKeys('Copper', () => [
    { keys: ['1', '2', '3'], label: 'solid, partial, none', run: (k) => (kind = KINDS[Number(k) - 1][0]), line: true },
  ]);
  const word = (c: number) => (c > 0.75 ? 'solid' : c > 0.05 ? 'partial' : 'none');
  const nameOf = (l: number) => layerName(l, editor.doc.stack.length);
</script>

<h2 class="text-lg">Copper</h2>
<p class="text-[13px] text-ink2">
  {editor.doc.coverage
    ? 'Measured from the file already; a patch painted here wins over it.'
    : 'Drag over the areas you can see: a plane under the part makes the difference between 40 and 90 seconds.'}
</p>
<fieldset class="mt-3">
  <legend class="label">Under the rectangle it is</legend>
  <OneOf aria-label="Kind of copper" choices={KINDS.map(([k]) => k)} bind:value={kind} />
</fieldset>
<Select
  label="On"
  class="mt-1"
  choices={[
    { value: 'all', label: 'every layer' },
    ...editor.doc.stack.map((_, i) => ({ value: String(i), label: nameOf(i) })),
  ]}
  bind:value={layer}
/>
<h3 class="mt-4 text-[13px] text-ink2">Elsewhere, share of the surface</h3>
<ul class="divide-y divide-faint">
  {#each editor.doc.stack as s, i (i)}
    <li class="flex min-h-11 items-center gap-2">
      <span class="flex-1">{s.name}</span>
      <input
        class="field w-20 text-right"
        type="number"
        min="0"
        max="100"
        aria-label="Copper on {s.name}, percent"
        value={Math.round(s.coverage * 100)}
        disabled={editor.doc.coverage?.some((g) => g.layer === i)}
        onchange={(e) => {
          const v = Number(e.currentTarget.value) / 100;
          if (v >= 0 && v <= 1)
            editor.commit('copper share', {
              ...editor.doc,
              stack: editor.doc.stack.map((f, n) => (n === i ? { ...f, coverage: v } : f)),
            });
        }}
      />%
    </li>
  {/each}
</ul>
<h3 class="mt-4 text-[13px] text-ink2">Patches, later ones win</h3>
<ul class="divide-y divide-faint">
  {#each editor.doc.copper as c, i (i)}
    <li class="flex min-h-9 items-center gap-2 text-[13px]">
      <span class="flex-1"
        >{word(c.coverage)} on {nameOf(c.layer)}, {c.w_mm.toFixed(1)} × {c.h_mm.toFixed(1)} at {c.x_mm.toFixed(1)}, {c.y_mm.toFixed(
          1,
        )}</span
      >
      <button
        type="button"
        class="h-8 px-2 text-evidence underline"
        aria-label="Remove patch {i + 1}"
        onclick={() =>
          editor.commit('remove a patch', { ...editor.doc, copper: editor.doc.copper.filter((_, n) => n !== i) })}
        >remove</button
      >
    </li>
  {:else}
    <li class="py-2 text-[13px] text-ink2">None painted.</li>
  {/each}
</ul>
