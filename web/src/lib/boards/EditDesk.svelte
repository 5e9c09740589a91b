<script lang="ts">
  // A board being traced or edited: the stage with the photo below it, and one panel at a time beside it.
  import { tip } from '$lib/ui/tip.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { beforeNavigate, goto } from '$app/navigation';
  import { Desk } from '$lib/jobs/desk.svelte';
  import { send, SendError } from '$lib/jobs/send';
  import Stage from '$lib/stage/Stage.svelte';
  import { toScreen, type StageView } from '$lib/stage/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { boardBounds, type BoardModel, provisionalFrame } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import Redo2 from '@lucide/svelte/icons/redo-2';
  import Undo2 from '@lucide/svelte/icons/undo-2';
  import { onMount } from 'svelte';
  import Tabs from '$lib/ui/Tabs.svelte';
  import { startBoardTools, type BoardTools } from './boardWorker';
  import BoardPanel from './BoardPanel.svelte';
  import CopperPanel from './CopperPanel.svelte';
  import type { Draft } from './drafts';
  import { Editor } from './editor.svelte';
  import ListsPanel from './ListsPanel.svelte';
  import OpeningPanel from './OpeningPanel.svelte';
  import { photoTransform } from './photoCss';
  import PartsPanel from './PartsPanel.svelte';
  import PhotoPanel from './PhotoPanel.svelte';

  interface Props {
    model: { id: string; version: number; draft: BoardModel; published: number | null };
    /** What this browser keeps of it. */
    kept: Draft;
    own: { label: string; designation: string }[];
    units: UnitSettings;
  }
  let { model, kept, own, units }: Props = $props();

  const PANELS = {
    photo: 'Photo',
    board: 'Board',
    parts: 'Parts',
    copper: 'Copper',
    opening: 'Opening',
    lists: 'Lists',
  };
  type Panel = keyof typeof PANELS;

  // svelte-ignore state_referenced_locally
  const editor = new Editor(model.id, model.version, model.draft, kept);
  const desk = new Desk();
  let at = $state<Panel>(editor.doc.photos?.length ? 'parts' : editor.doc.parts.length ? 'parts' : 'photo');
  let tools = $state.raw<BoardTools>();
  let clearness = $state(100);
  let problem = $state<string | null>(null);
  let publishing = $state(false);
  /** Asked to throw the draft away: a second press means it. */
  let doomed = $state(false);

  const photo = $derived(editor.doc.photos?.find((p) => p.side === desk.side));
  const frame = $derived(
    photo ? (photo.toBoard ?? provisionalFrame(photo.w_px, photo.h_px, boardBounds(editor.doc), photo.side)) : null,
  );

  onMount(() => {
    tools = startBoardTools();
    return () => {
      tools?.end();
      editor.end();
    };
  });
  beforeNavigate(() => void editor.flush());
  function open(next: Panel) {
    editor.tool = undefined;
    editor.sketch = {};
    at = next;
  }
  /** An empty board is published only when that is said twice. */
  let sure = $state(false);
  async function publish() {
    problem = null;
    if (editor.doc.parts.length === 0 && !sure) {
      sure = true;
      return;
    }
    publishing = true;
    try {
      if (!(await editor.flush())) throw new SendError(0, 'The draft is not saved yet; it stays in this browser.');
      await send('POST', `/api/boards/${model.id}/publish`, {});
      await goto(`/boards/${model.id}`, { invalidateAll: true });
    } catch (e) {
      problem = e instanceof SendError ? e.message : 'It could not be published.';
    } finally {
      publishing = false;
    }
  }
  async function discard() {
    try {
      await send('DELETE', `/api/boards/${model.id}`);
    } catch (e) {
      problem = `It could not be thrown away: ${(e as Error).message}`;
      return;
    }
    editor.forget();
    await goto('/boards');
  }
  useKeys('Edit', () => [
    { keys: ['u'], label: 'undo', run: () => editor.undo(), line: true },
    { keys: ['y'], label: 'redo', run: () => editor.redo(), line: true },
    { keys: ['[', ']'], label: 'panel before, next panel', run: (k) => step(k === ']' ? 1 : -1) },
  ]);
  function step(by: number) {
    const all = Object.keys(PANELS) as Panel[];
    open(all[(all.indexOf(at) + by + all.length) % all.length]);
  }
  function onkeydown(e: KeyboardEvent) {
    if (!(e.ctrlKey || e.metaKey) || e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement)
      return;
    const key = e.key.toLowerCase();
    if (key === 'z' && !e.shiftKey) editor.undo();
    else if (key === 'y' || (key === 'z' && e.shiftKey)) editor.redo();
    else return;
    e.preventDefault();
  }
  const SAVED: Record<Editor['state'], string> = {
    saved: 'saved',
    waiting: 'kept here, saving',
    saving: 'saving',
    away: 'server away: kept in this browser, tried again',
    refused: 'not saved',
    conflict: 'two drafts',
  };
  const UNKEPT = { 'not yet': 'keeping it', never: 'this browser keeps nothing: stay until it is saved' };
  const on = (view: StageView, points: readonly (readonly [number, number])[]) =>
    points.map(([x, y]) => toScreen(view, x, y).join(',')).join(' ');
  const TONE = {
    ghost: 'fill-evidence/15 stroke-evidence',
    draft: 'fill-transparent stroke-hot',
    patch: 'fill-hot/20 stroke-hot',
  } as const;
</script>

<svelte:window {onkeydown} />

<div class="grid h-full grid-cols-[minmax(0,1fr)_minmax(360px,420px)] grid-rows-[auto_minmax(0,1fr)]">
  <header class="col-span-2 flex min-h-[62px] flex-wrap items-center gap-3 border-b border-line px-4 py-2">
    <label class="sr-only" for="board-name">Name of the board</label>
    <input
      id="board-name"
      class="field max-w-xs text-lg font-semibold"
      value={editor.doc.name}
      maxlength="120"
      onchange={(e) => {
        const name = e.currentTarget.value.trim();
        if (name) editor.commit('rename', { ...editor.doc, name });
        else e.currentTarget.value = editor.doc.name;
      }}
    />
    <p
      class="text-[13px] {['refused', 'conflict'].includes(editor.state) ? 'font-semibold text-stop' : 'text-ink2'}"
      role="status"
    >
      {editor.state !== 'saved' && editor.kept !== 'yes' ? UNKEPT[editor.kept] : SAVED[editor.state]}{editor.trouble
        ? `: ${editor.trouble}`
        : ''}
    </p>
    <div class="ml-auto flex items-center gap-2">
      <button
        type="button"
        class="button px-3"
        disabled={!editor.undoLabel}
        onclick={() => editor.undo()}
        {@attach tip('Undo (U)')}
        aria-label="Undo {editor.undoLabel ?? ''}"
      >
        <Undo2 size={18} aria-hidden="true" />
      </button>
      <button
        type="button"
        class="button px-3"
        disabled={!editor.redoLabel}
        onclick={() => editor.redo()}
        {@attach tip('Redo (Y)')}
        aria-label="Redo {editor.redoLabel ?? ''}"
      >
        <Redo2 size={18} aria-hidden="true" />
      </button>
      {#if model.published !== null}
        <a class="button" href="/boards/{model.id}">Leave</a>
      {:else}
        <button
          type="button"
          class="button {doomed ? 'text-stop' : ''}"
          onclick={() => (doomed ? discard() : (doomed = true))}
          onblur={() => (doomed = false)}>{doomed ? 'For good?' : 'Discard'}</button
        >
      {/if}
      <button
        type="button"
        class="button button-main"
        disabled={publishing}
        onclick={publish}
        onblur={() => (sure = false)}
      >
        {sure
          ? 'Nothing is placed. Publish it empty?'
          : model.published === null
            ? 'Publish'
            : `Publish as version ${model.published + 1}`}
      </button>
    </div>
    <Notice text={problem} class="w-full" />
    {#if editor.other}
      <div role="alert" class="flex w-full items-center gap-3 border border-stop bg-stop-soft px-3 py-2">
        <p class="mr-auto">
          Another draft of this board was saved meanwhile ({editor.other.doc.parts.length} parts; yours has {editor.doc
            .parts.length}).
        </p>
        <button type="button" class="button" onclick={() => editor.settle(true)}>Keep mine</button>
        <button type="button" class="button" onclick={() => editor.settle(false)}
          >Take the other; undo brings mine back</button
        >
      </div>
    {/if}
  </header>
  <Stage
    board={editor.doc}
    {desk}
    {units}
    lenses={['parts', 'copper']}
    tool={editor.tool}
    under={photo ? beneath : undefined}
    over={above}
  />
  <aside class="isolate flex min-h-0 flex-col border-l border-line bg-sheet" aria-label="Edit the board">
    <Tabs
      label="Panel"
      tabs={PANELS}
      bind:at={() => at, open}
      class="flex min-h-0 flex-1 flex-col"
      bar="border-b border-line px-3 pt-1"
      body="min-h-0 flex-1 overflow-auto p-4"
    >
      {#snippet panel()}
        {#if at === 'photo'}
          <PhotoPanel {editor} {desk} bind:clearness />
        {:else if at === 'board'}
          <BoardPanel {editor} {desk} />
        {:else if at === 'parts'}
          <PartsPanel {editor} {desk} {own} {tools} />
        {:else if at === 'copper'}
          <CopperPanel {editor} {desk} />
        {:else if at === 'opening'}
          <OpeningPanel {editor} {desk} />
        {:else if tools}
          <ListsPanel {editor} {tools} />
        {/if}
      {/snippet}
    </Tabs>
  </aside>
</div>

{#snippet beneath(view: StageView)}
  {#if photo && frame}
    <img
      src="/api/photos/{photo.photoId}"
      alt=""
      width={photo.w_px}
      height={photo.h_px}
      class="max-w-none origin-top-left"
      style:transform={photoTransform(view, frame)}
      style:opacity={clearness / 100}
      style:width="{photo.w_px}px"
      style:height="{photo.h_px}px"
    />
  {/if}
{/snippet}

{#snippet above(view: StageView)}
  <svg class="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
    {#each editor.sketch.polygons ?? [] as p, i (i)}
      {#if p.open}
        <polyline points={on(view, p.points)} class="fill-none stroke-hot" stroke-width="2" />
      {:else}
        <polygon points={on(view, p.points)} class={TONE[p.tone]} stroke-width="2" />
      {/if}
    {/each}
    {#each editor.sketch.dots ?? [] as d, i (i)}
      {@const [x, y] = toScreen(view, d.x, d.y)}
      <circle cx={x} cy={y} r="5" class="fill-none stroke-hot" stroke-width="2" />
      <path d="M{x - 9} {y}H{x - 3}M{x + 3} {y}H{x + 9}M{x} {y - 9}V{y - 3}M{x} {y + 3}V{y + 9}" class="stroke-hot" />
      {#if d.label}<text
          x={x + 10}
          y={y - 8}
          class="fill-ink text-[13px] font-bold"
          stroke="var(--bench)"
          stroke-width="3"
          paint-order="stroke">{d.label}</text
        >{/if}
    {/each}
    {#if editor.sketch.note}
      {@const [x, y] = toScreen(view, editor.sketch.note.x, editor.sketch.note.y)}
      <text
        x={x + 14}
        y={y - 14}
        class="fill-ink text-[14px] font-bold"
        stroke="var(--bench)"
        stroke-width="3"
        paint-order="stroke">{editor.sketch.note.text}</text
      >
    {/if}
  </svg>
{/snippet}
