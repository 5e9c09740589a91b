<script lang="ts">
  // Parts: a package typed, put down by a click, slid onto the photo's edges; rows, boxes, moving; the one that is chosen.
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import type { Desk } from '$lib/jobs/desk.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { LIMITS } from '@orthos/core/materials';
  import { packageById } from '@orthos/core/packages';
  import { untrack } from 'svelte';
  import type { BoardTools } from './boardWorker';
  import type { Editor } from './editor.svelte';
  import PackagePick from './PackagePick.svelte';
  import PartForm from './PartForm.svelte';
  import PartTable from './PartTable.svelte';
  import { photoPixels } from './photoPixels';
  import { NUDGE_KEYS, Placing } from './placing.svelte';

  interface Props {
    editor: Editor;
    desk: Desk;
    own: { label: string; designation: string }[];
    tools: BoardTools | undefined;
  }
  let { editor, desk, own, tools }: Props = $props();

  const placing = untrack(() => new Placing(editor, desk, () => tools));
  let typed = $state('');
  let typing = $state(false);

  // the photo's pixels go to the worker once
  let given = '';
  $effect(() => {
    const wanted = placing.photo?.photoId ?? '';
    if (!tools || !wanted || wanted === given) return;
    given = wanted;
    void photoPixels(wanted).then((p) => p && tools?.api.usePhoto(p.data, p.width, p.height));
  });

  $effect(() => {
    editor.sketch = placing.sketch;
  });
  $effect(() => {
    editor.tool = placing.tool;
  });

  function pick(id: string) {
    typing = false;
    typed = '';
    placing.arm(id);
    (document.activeElement as HTMLElement | null)?.blur();
  }
  function rest() {
    if (placing.mode === 'choose' && !typing) desk.selected = null;
    typing = false;
    placing.rest();
  }
  useKeys('Parts', () => [
    { keys: ['a'], label: 'add a part by name', run: () => (typing = true), line: true },
    { keys: ['r'], label: 'turn by 90°', run: () => placing.turn(90), line: true },
    { keys: ['t'], label: 'turn by 15°', run: () => placing.turn(15) },
    { keys: ['w'], label: 'row of the chosen part', run: () => placing.selected && (placing.mode = 'row'), line: true },
    { keys: ['b'], label: 'box: drag a neighbour', run: () => (placing.mode = 'box'), line: true },
    {
      keys: ['s'],
      label: 'slide the chosen part onto its edges',
      run: () => placing.selected && void placing.snap(placing.selected.partId),
    },
    { keys: NUDGE_KEYS, label: 'nudge by 0.1 mm', run: (key) => placing.nudge(key) },
    { keys: ['Delete', 'Backspace'], label: 'remove', run: () => placing.remove() },
    { keys: ['Escape'], label: 'let go', run: rest },
  ]);

  // a part chosen elsewhere ends what was begun
  $effect(() => {
    void desk.side;
    untrack(() => placing.leaveOff());
  });
</script>

<div class="flex flex-wrap items-center gap-2">
  <button
    type="button"
    class="button px-3"
    aria-pressed={typing || placing.mode === 'place'}
    onclick={() => (typing = true)}>Add part (A)</button
  >
  <button type="button" class="button px-3" aria-pressed={placing.mode === 'box'} onclick={() => (placing.mode = 'box')}
    >Box (B)</button
  >
  <Check class="ml-auto text-[13px]" bind:checked={placing.snapping} disabled={!placing.photo}>slide onto edges</Check>
</div>
{#if typing}
  <div class="mt-3">
    <PackagePick focus aria-label="Package" onpick={pick} onclose={() => (typing = false)} {own} bind:text={typed} />
  </div>
{/if}
<p class="my-3 min-h-10 border-y border-faint py-2 text-[13px] text-ink2" role="status">
  {#if placing.mode === 'place'}
    <b class="text-ink">{packageById(placing.armed).label}</b>, {placing.rotation}°: click where it stands. R turns, Esc
    ends{placing.photo ? ', Alt puts it down without sliding' : ''}.
    {#if placing.said}<b class="block text-ink">{placing.said}.</b>{/if}
  {:else if placing.mode === 'row'}
    Click where the last of the row stands. <label
      >How many: <input
        class="field inline-block w-16"
        type="number"
        min="2"
        max="200"
        aria-label="Parts in the row"
        value={placing.rowCount ?? ''}
        onchange={(e) =>
          (placing.rowCount =
            Number(e.currentTarget.value) >= 2 ? Math.min(200, Math.round(Number(e.currentTarget.value))) : null)}
      /></label
    >
  {:else if placing.mode === 'box'}
    Drag from corner to corner.
  {:else if placing.said}
    {placing.said}
  {:else if editor.doc.parts.length === 0}
    Start with the part you will change: press A and type its package.
  {:else}
    {editor.doc.parts.length} parts. Click one to change it, drag to move it.
  {/if}
</p>
{#if placing.mode === 'box'}
  <div class="grid grid-cols-2 gap-3">
    <Select
      label="What it is"
      choices={[...LIMITS.values()].map((l) => ({ value: l.id, label: l.what }))}
      bind:value={placing.boxLimit}
    />
    <label
      ><span class="label">Height, mm</span><input
        class="field"
        bind:value={placing.boxHeight}
        inputmode="decimal"
      /></label
    >
  </div>
{:else if placing.selected && placing.mode === 'choose'}
  {#key placing.selected.partId}
    <PartForm part={placing.selected} {editor} {placing} {own} />
  {/key}
{:else if placing.mode === 'choose' && editor.doc.parts.length > 0 && !typing}
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
