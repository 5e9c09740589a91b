<script lang="ts">
  // Netlists and placement lists: read, looked at, corrected, then added to the board.
  import Fold from '$lib/ui/Fold.svelte';
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import {
    COLUMN_ROLES,
    PLACEMENT_UNITS,
    type NamedFile,
    type PlacementReading,
    type PlacementUnit,
  } from '@orthos/formats';
  import FileUp from '@lucide/svelte/icons/file-up';
  import type { BoardTools, TablePreview } from './boardWorker';
  import type { Editor } from './editor.svelte';

  let { editor, tools }: { editor: Editor; tools: BoardTools } = $props();
  let file = $state.raw<NamedFile | null>(null);
  let preview = $state.raw<TablePreview | null>(null);
  let problem = $state<string | null>(null);
  let said = $state('');

  async function read(chosen?: PlacementReading) {
    if (!file) return;
    problem = null;
    try {
      preview = await tools.api.readTable($state.snapshot(editor.doc) as typeof editor.doc, file, chosen);
    } catch (e) {
      problem = `${(e as Error).message}. Nothing was changed.`;
      if (!chosen) preview = null;
    }
  }
  async function take(list: FileList | null) {
    if (!list?.[0]) return;
    said = '';
    preview = null;
    file = { name: list[0].name, bytes: new Uint8Array(await list[0].arrayBuffer()) };
    await read();
  }
  function accept() {
    if (!preview) return;
    said = `${preview.added.length} parts added, ${preview.changed.length} changed. Undo takes it back.`;
    editor.commit(`read ${file?.name ?? 'a list'}`, preview.board);
    preview = null;
    file = null;
  }
  function change(next: Partial<PlacementReading>) {
    if (preview?.reading) void read({ ...preview.reading, ...next });
  }
</script>

<h2 class="text-lg">Add a netlist or placement list</h2>
<p class="mt-1 text-[13px] text-ink2">
  IPC-D-356 and -356A netlists give nets to parts that are there. Placement lists in any order of columns add parts, and
  values to parts that are there; those stay where they are.
</p>
<label class="button mt-3 cursor-pointer px-3 focus-within:outline-2 focus-within:outline-evidence">
  <FileUp size={17} aria-hidden="true" /> Choose a list
  <input
    class="sr-only"
    type="file"
    aria-label="Netlist or placement list"
    onchange={(e) => {
      const input = e.currentTarget;
      void take(input.files).then(() => (input.value = ''));
    }}
  />
</label>
<Notice text={problem} class="mt-3" />
{#if said}<p role="status" class="mt-3">{said}</p>{/if}
{#if preview}
  <h3 class="mt-4 font-semibold">{file?.name}</h3>
  <p>
    {preview.rows}
    {preview.kind === 'netlist' ? 'points' : 'rows'}: {preview.added.length} parts to add, {preview.changed.length}
    to change{preview.left.length ? `, ${preview.left.length} left out` : ''}.
  </p>
  <p class="text-[13px] text-ink2">
    Laid on the board by {preview.frame}{preview.off_mm === null ? '' : `, ${preview.off_mm.toFixed(2)} mm off`}.
  </p>
  {#if preview.reading}
    {@const reading = preview.reading}
    <ul class="mt-2 divide-y divide-faint">
      {#each reading.headings as heading, i (i)}
        <li class="flex min-h-11 items-center gap-2">
          <span class="min-w-0 flex-1 truncate">{heading || `column ${i + 1}`}</span>
          <Select
            class="w-32 shrink-0"
            choices={COLUMN_ROLES}
            aria-label="Column {heading}"
            value={reading.roles[i]}
            onchange={(v) => change({ roles: reading.roles.map((r, n) => (n === i ? v : r)) })}
          />
        </li>
      {/each}
    </ul>
    <div class="mt-2 flex items-center gap-4">
      <Select
        label="in"
        beside
        class="w-32 shrink-0"
        choices={Object.keys(PLACEMENT_UNITS) as PlacementUnit[]}
        value={reading.unit}
        onchange={(v) => change({ unit: v })}
      />
      <Check checked={reading.yUp} onchange={(yUp) => change({ yUp })}>y points up</Check>
    </div>
  {/if}
  {#each preview.notes as note (note)}<p class="text-[13px] text-caution">{note}</p>{/each}
  {#if preview.left.length}
    <Fold title="Left out" class="mt-2">
      <ul class="max-h-48 overflow-auto text-[13px]">
        {#each preview.left.slice(0, 200) as l (l.what)}<li>{l.what}: {l.why}</li>{/each}
      </ul>
    </Fold>
  {/if}
  <button
    type="button"
    class="button button-main mt-3"
    disabled={preview.added.length + preview.changed.length === 0}
    onclick={accept}>Add to the board</button
  >
{/if}
