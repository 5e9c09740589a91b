<script lang="ts">
  // A board file read in a worker, looked at, corrected, accepted. Nothing is stored before that.
  import { tip } from '$lib/ui/tip.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { goto } from '$app/navigation';
  import { Desk } from '$lib/jobs/desk.svelte';
  import { SendError } from '$lib/jobs/send';
  import Stage from '$lib/stage/Stage.svelte';
  import { layerName } from '@orthos/core/board';
  import type { CopperDrawing } from '@orthos/core/copper';
  import { formatLength, type UnitSettings } from '@orthos/core/ground';
  import { packageById } from '@orthos/core/packages';
  import { LAYER_ROLES, type FootprintMatch, type LayerRole, type NamedFile } from '@orthos/formats';
  import FileUp from '@lucide/svelte/icons/file-up';
  import { importInWorker, type BoardReading } from './boardWorker';
  import CopperBar from './CopperBar.svelte';
  import PackagePick from './PackagePick.svelte';
  import { replaceBoard, storeBoard } from './store';

  interface Props {
    units: UnitSettings;
    /** The board that the file is of, where it was taken in already. */
    into?: { id: string; name: string };
  }
  let { units, into }: Props = $props();
  const desk = new Desk();
  let files = $state.raw<NamedFile[]>([]);
  let roles = $state.raw<Record<string, LayerRole>>({});
  let packages = $state.raw<Record<string, string>>({});
  let made = $state.raw<BoardReading | null>(null);
  let name = $state('');
  let done = $state<number | null>(null);
  let problem = $state<string | null>(null);
  let storing = $state(false);
  let over = $state(false);
  let correcting = $state<string | null>(null);
  let stop: AbortController | null = null;

  async function read() {
    stop?.abort();
    const mine = (stop = new AbortController());
    problem = null;
    done = 0;
    try {
      const result = await importInWorker(
        files,
        { roles, packages },
        {
          signal: mine.signal,
          // progress comes by a way of its own and may arrive after the result
          onProgress: (d) => {
            if (stop === mine && done !== null) done = d;
          },
        },
      );
      if (!made) name = into?.name ?? result.board.name;
      made = result;
    } catch (e) {
      if ((e as Error).name === 'AbortError') return;
      problem = `${(e as Error).message}. Nothing was changed.`;
    } finally {
      if (stop === mine) done = null;
    }
  }
  async function take(list: FileList | null | undefined) {
    if (!list?.length) return;
    made = null;
    roles = {};
    packages = {};
    files = await Promise.all(
      [...list].map(async (f) => ({ name: f.name, bytes: new Uint8Array(await f.arrayBuffer()) })),
    );
    await read();
  }
  function cancel() {
    stop?.abort();
    done = null;
  }
  function choose(match: FootprintMatch, id: string) {
    packages = { ...packages, [match.key]: id };
    correcting = null;
    void read();
  }
  async function accept() {
    if (!made) return;
    storing = true;
    problem = null;
    try {
      const doc = { ...made.board, name: name.trim() || made.board.name };
      if (into) {
        await replaceBoard(into.id, doc, made.drawingText);
        return await goto(`/boards/${into.id}`);
      }
      const id = await storeBoard(doc, {
        drawingText: made.drawingText,
        origin: `read from ${files[0].name}`.slice(0, 200),
        publish: true,
      });
      await goto(`/boards/${id}`);
    } catch (e) {
      problem = e instanceof SendError ? e.message : 'It could not be stored.';
    } finally {
      storing = false;
    }
  }
  const drawing = $derived(
    made?.drawingText && desk.lens === 'copper' ? (JSON.parse(made.drawingText) as CopperDrawing) : null,
  );
  const doubtful = (m: FootprintMatch) => m.by === 'box' || m.by === 'family' || m.off_mm > 0.25;
  const matches = $derived(
    [...(made?.matches ?? [])].sort((a, b) => Number(doubtful(b)) - Number(doubtful(a)) || b.off_mm - a.off_mm),
  );
  const HOW = { library: 'by its pads', family: 'made from its pads', box: 'a box only', chosen: 'chosen' } as const;
  const percent = (v: number) => `${(v * 100).toFixed(1)} %`;
</script>

{#snippet chooser(main: boolean)}
  <label class="button {main ? 'button-main' : ''} cursor-pointer focus-within:outline-2 focus-within:outline-evidence">
    <FileUp size={18} aria-hidden="true" />
    {main ? 'Choose files' : 'Other files'}
    <input
      class="sr-only"
      type="file"
      multiple
      aria-label="Board files"
      onchange={(e) => {
        const input = e.currentTarget;
        void take(input.files).then(() => (input.value = ''));
      }}
    />
  </label>
{/snippet}

<svelte:window
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={(e) => {
    if (!e.relatedTarget) over = false;
  }}
  ondrop={(e) => {
    e.preventDefault();
    over = false;
    void take(e.dataTransfer?.files);
  }}
/>

{#if !made}
  <div class="h-full overflow-auto px-8 py-7">
    <h1 class="mb-4 text-[26px]">Read a board file</h1>
    <div
      class="max-w-3xl border-2 border-dashed p-8 {over ? 'border-evidence bg-evidence-soft' : 'border-line bg-sheet'}"
    >
      {#if done !== null}
        <p class="mb-2 text-lg" role="status">Reading {files[0]?.name ?? ''}</p>
        <progress class="h-3 w-full accent-evidence" max="1" value={done} aria-label="Reading"></progress>
        <button type="button" class="button mt-4" onclick={cancel}>Cancel</button>
      {:else}
        <p class="mb-4 text-lg">Drop files here, or choose them.</p>
        {@render chooser(true)}
      {/if}
      <Notice text={problem} class="mt-4" />
    </div>
    <dl class="mt-6 grid max-w-3xl grid-cols-[190px_1fr] gap-x-6 gap-y-3">
      <dt class="font-semibold">S-expression board</dt>
      <dd>
        <code>.kicad_pcb</code>, format 3 and later: outline, layers, foils, footprints with all pads, nets, tracks,
        arcs, vias, zone fills. Left out: texts, graphics on copper, keep-outs, 3-D models, zones that were not filled.
      </dd>
      <dt class="font-semibold">Photoplots and drills</dt>
      <dd>
        Gerber X2 or RS-274X with Excellon, as files or a zip: outline, copper of every layer, vias, and parts where
        pads name them. Left out: masks, paste, legends.
      </dd>
      <dt class="font-semibold">To add to a board</dt>
      <dd>Netlists (IPC-D-356A) and placement lists (CSV) are added to a board that is there: open it, Edit, Lists.</dd>
    </dl>
  </div>
{:else}
  <div class="grid h-full grid-cols-[minmax(0,1fr)_minmax(380px,460px)] grid-rows-[auto_minmax(0,1fr)]">
    <header class="col-span-2 flex min-h-[62px] flex-wrap items-center gap-3 border-b border-line px-4 py-2">
      <label class="sr-only" for="board-name">Name of the board</label>
      <input id="board-name" class="field max-w-sm text-lg font-semibold" bind:value={name} maxlength="120" />
      <p class="text-ink2">not stored yet</p>
      {#if done !== null}<progress class="w-40 accent-evidence" max="1" value={done} aria-label="Reading again"
        ></progress>{/if}
      <div class="ml-auto flex gap-2">
        {@render chooser(false)}
        <button type="button" class="button button-main" disabled={storing || done !== null} onclick={accept}>
          {storing ? 'Storing' : 'Accept the board'}
        </button>
      </div>
      <Notice text={problem} class="w-full" />
    </header>
    <div class="flex min-h-0 flex-col">
      {#if desk.lens === 'copper'}<CopperBar board={made.board} {desk} drawn />{/if}
      <div class="min-h-0 flex-1">
        <Stage board={made.board} {desk} {units} lenses={['parts', 'copper']} copper={drawing} />
      </div>
    </div>
    <aside class="isolate overflow-auto border-l border-line bg-sheet p-4" aria-label="What was read">
      <h2 class="text-lg">What was read</h2>
      <p class="text-ink2">{made.format}</p>
      <dl class="my-3 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        <dt class="text-ink2">size</dt>
        <dd>{formatLength(made.bbox_mm.w, units)} × {formatLength(made.bbox_mm.h, units)}</dd>
        <dt class="text-ink2">footprints</dt>
        <dd>
          {made.counts.footprints}: {made.counts.top} top, {made.counts.bottom} bottom; {made.board.parts.length} are parts
        </dd>
        <dt class="text-ink2">pads, nets</dt>
        <dd>{made.counts.pads}, {made.counts.nets}</dd>
        {#each Object.entries(made.coverage) as [layer, fraction] (layer)}
          {@const at = made.board.stack.findIndex((s) => s.name === layer)}
          <dt class="text-ink2">
            copper {at < 0 ? layer : layerName(at, made.board.stack.length)}, {layer} in its file
          </dt>
          <dd>{percent(fraction)}</dd>
        {/each}
      </dl>
      {#if made.notes.length || Object.keys(made.ignored).length}
        <h3 class="mt-3 font-semibold">Left out or doubtful</h3>
        <ul class="mb-3 list-inside list-disc text-[13px]">
          {#each made.notes as note (note)}<li>{note}</li>{/each}
          {#each Object.entries(made.ignored) as [what, n] (what)}<li>{what}: {n}</li>{/each}
        </ul>
      {/if}
      {#if made.roles}
        <h3 class="mt-3 font-semibold">Which file is what</h3>
        <ul class="mb-3 divide-y divide-faint">
          {#each made.roles as r (r.name)}
            <li class="flex min-h-11 items-center gap-2">
              <span class="min-w-0 flex-1 break-all">{r.name}</span>
              <span class="text-[13px] text-ink2">{r.why}</span>
              <Select
                class="w-32 shrink-0"
                choices={LAYER_ROLES}
                aria-label="Layer of {r.name}"
                value={r.role}
                onchange={(v) => {
                  roles = { ...roles, [r.name]: v };
                  void read();
                }}
              />
            </li>
          {/each}
        </ul>
      {/if}
      <h3 class="mt-3 font-semibold">Packages</h3>
      {#if matches.length === 0}<p class="text-ink2">The file names no parts.</p>{/if}
      <ul class="divide-y divide-faint">
        {#each matches as m (m.key)}
          <li class="py-1.5 [contain-intrinsic-size:auto_62px] [content-visibility:auto]">
            <div class="flex items-baseline gap-2">
              <button
                type="button"
                class="min-w-0 flex-1 truncate text-left font-semibold"
                {@attach tip('Show the first of them')}
                onclick={() => {
                  const part = made?.board.parts.find((p) => p.partId === m.partIds[0]);
                  if (part) {
                    desk.show(part);
                  }
                }}>{packageById(m.package).label}</button
              >
              <span class="text-[13px] {doubtful(m) ? 'text-caution' : 'text-ink2'}">
                {doubtful(m) ? '◇ ' : ''}{HOW[m.by]}{m.by === 'box' ? '' : `, ${m.off_mm.toFixed(2)} mm off`}
              </span>
              <button
                type="button"
                class="h-9 px-2 text-evidence underline"
                aria-expanded={correcting === m.key}
                aria-label="Another package for {m.footprint}"
                onclick={() => (correcting = correcting === m.key ? null : m.key)}>change</button
              >
            </div>
            <p class="truncate text-[13px] text-ink2">{m.partIds.length} × {m.footprint || 'unnamed footprint'}</p>
            {#if correcting === m.key}
              <PackagePick
                focus
                aria-label="Package for {m.footprint}"
                onpick={(id) => choose(m, id)}
                onclose={() => (correcting = null)}
              />
            {/if}
          </li>
        {/each}
      </ul>
    </aside>
  </div>
{/if}
