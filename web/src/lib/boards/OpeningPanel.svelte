<script lang="ts">
  // What must come off before the board can be worked on, in order, and what stands in an iron's way.
  import Select from '$lib/ui/Select.svelte';
  import type { Desk } from '$lib/jobs/desk.svelte';
  import { type BoardModel, OPENING_KINDS, partName } from '@orthos/core/board';
  import { packageById } from '@orthos/core/packages';
  import { v7 } from 'uuid';
  import type { Editor } from './editor.svelte';

  let { editor, desk }: { editor: Editor; desk: Desk } = $props();
  type Step = NonNullable<BoardModel['opening']>[number];
  let kind = $state<Step['kind']>('screw');
  let what = $state('');
  /** The step that the next click on the board says the place of. */
  let placing = $state<string | null>(null);

  const steps = $derived(editor.doc.opening ?? []);
  function set(label: string, next: Step[]) {
    editor.commit(label, { ...editor.doc, opening: next.length ? next : undefined });
  }
  function add() {
    const step: Step = { id: v7(), kind, what: what.trim() };
    set('opening step', [...steps, step]);
    what = '';
    placing = step.id;
  }
  $effect(() => {
    editor.tool = placing
      ? {
          cross: true,
          down(p) {
            const round = (v: number) => Math.round(v * 100) / 100;
            set(
              'place of an opening step',
              steps.map((s) =>
                s.id === placing ? { ...s, x_mm: round(p.x_mm), y_mm: round(p.y_mm), side: desk.side } : s,
              ),
            );
            placing = null;
            return true;
          },
          move: () => true,
          up: () => true,
        }
      : undefined;
  });
  $effect(() => {
    editor.sketch = {
      dots: steps.flatMap((s, i) =>
        s.x_mm !== undefined && s.y_mm !== undefined && s.side === desk.side
          ? [{ x: s.x_mm, y: s.y_mm, label: String(i + 1) }]
          : [],
      ),
    };
  });
  /** Taller than an iron's tip is long past the joint, mm. */
  const TALL_MM = 8;
  const inTheWay = $derived(editor.doc.parts.filter((p) => p.blocksIron || packageById(p.package).body.h >= TALL_MM));
</script>

<h2 class="text-lg">What comes off first</h2>
<form
  class="mt-2 flex flex-wrap items-end gap-2"
  onsubmit={(e) => {
    e.preventDefault();
    add();
  }}
>
  <Select label="Kind" class="w-28 shrink-0" choices={OPENING_KINDS} bind:value={kind} />
  <label class="min-w-0 flex-1"
    ><span class="label">Which</span><input
      class="field"
      bind:value={what}
      maxlength="200"
      placeholder="two, M3, under the label"
    /></label
  >
  <button class="button px-3">Add</button>
</form>
{#if placing}<p class="mt-2 text-[13px] text-ink2" role="status">
    Click where it is on the board, or <button
      type="button"
      class="text-evidence underline"
      onclick={() => (placing = null)}>leave it without a place</button
    >.
  </p>{/if}
<ol class="mt-3 divide-y divide-faint">
  {#each steps as s, i (s.id)}
    <li class="flex min-h-10 items-center gap-2">
      <span class="w-6 font-semibold">{i + 1}</span>
      <span class="min-w-0 flex-1">{s.kind}{s.what ? `: ${s.what}` : ''}</span>
      <button
        type="button"
        class="h-8 px-1.5 text-evidence underline"
        disabled={i === 0}
        aria-label="Move step {i + 1} up"
        onclick={() => set('order of opening', [...steps.slice(0, i - 1), s, steps[i - 1], ...steps.slice(i + 1)])}
        >up</button
      >
      <button
        type="button"
        class="h-8 px-1.5 text-evidence underline"
        aria-label="Place of step {i + 1}"
        onclick={() => (placing = s.id)}>place</button
      >
      <button
        type="button"
        class="h-8 px-1.5 text-evidence underline"
        aria-label="Remove step {i + 1}"
        onclick={() =>
          set(
            'remove an opening step',
            steps.filter((x) => x.id !== s.id),
          )}>remove</button
      >
    </li>
  {:else}
    <li class="py-2 text-ink2">Nothing noted: screws, clips, frames, shields, in the order in which they come off.</li>
  {/each}
</ol>
<h2 class="mt-6 text-lg">In the way of an iron</h2>
<ul class="divide-y divide-faint">
  {#each inTheWay as p (p.partId)}
    <li class="flex min-h-9 items-center gap-2">
      <button
        type="button"
        class="flex-1 text-left"
        onclick={() => {
          desk.show(p);
        }}>{partName(p)}, {packageById(p.package).label}</button
      >
      <span class="text-[13px] text-ink2">{p.blocksIron ? 'noted' : `${packageById(p.package).body.h} mm high`}</span>
    </li>
  {:else}
    <li class="py-2 text-ink2">No part of 8 mm or more; note others on the part itself.</li>
  {/each}
</ul>
