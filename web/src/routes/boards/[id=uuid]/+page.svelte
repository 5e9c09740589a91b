<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { dayIn } from '$lib/ui/dates';
  import { goto } from '$app/navigation';
  import CopperBar from '$lib/boards/CopperBar.svelte';
  import NetList from '$lib/boards/NetList.svelte';
  import Menu from '$lib/ui/Menu.svelte';
  import Tabs from '$lib/ui/Tabs.svelte';
  import PartTable from '$lib/boards/PartTable.svelte';
  import { loadDrawing } from '$lib/boards/store';
  import { Desk } from '$lib/jobs/desk.svelte';
  import { send, SendError } from '$lib/jobs/send';
  import Stage from '$lib/stage/Stage.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { CopperDrawing } from '@orthos/core/copper';
  import { formatLength } from '@orthos/core/ground';
  import { v7 } from 'uuid';

  let { data } = $props();
  const desk = new Desk();
  let drawing = $state.raw<CopperDrawing | null>(null);
  let view = $state<'parts' | 'nets' | 'versions'>('parts');
  let problem = $state<string | null>(null);

  // the drawing of a large board is only asked for when copper is looked at
  $effect(() => {
    const hash = data.board.drawing;
    if (desk.lens === 'copper' && hash) void loadDrawing(hash).then((d) => (drawing = d));
  });

  async function copy() {
    problem = null;
    const id = v7();
    try {
      await send('POST', `/api/boards/${data.model.id}/copy`, { id, name: `${data.model.name}, next revision` });
      await goto(`/boards/${id}/edit`);
    } catch (e) {
      problem = e instanceof SendError ? e.message : 'It could not be copied.';
    }
  }
  useKeys('Board', () => [
    { keys: ['e'], label: 'edit', run: () => void goto(`/boards/${data.model.id}/edit`), line: true },
    {
      keys: ['p', 'n', 'v'],
      label: 'parts, nets, versions',
      run: (k) => (view = k === 'p' ? 'parts' : k === 'n' ? 'nets' : 'versions'),
    },
  ]);
  const EXPORTS = [
    ['board', 'Board model (JSON)'],
    ['top', 'Drawing of the top, 1:1 (SVG)'],
    ['bottom', 'Drawing of the bottom, 1:1 (SVG)'],
    ['placement', 'Placement list (CSV)'],
  ] as const;
  const day = (at: Date | string) => dayIn(data.shop.timeZone, at);
</script>

<svelte:head><title>{data.model.name} · Boards · Orthos</title></svelte:head>

<div
  class="grid h-full grid-cols-[minmax(0,1fr)_minmax(340px,420px)] grid-rows-[auto_minmax(0,1fr)] overflow-hidden print:block print:h-auto"
>
  <header class="col-span-2 flex min-h-[62px] flex-wrap items-center gap-x-6 gap-y-1 border-b border-line px-4 py-2">
    <h1 class="text-xl">{data.model.name}</h1>
    <p class="text-ink2">
      {data.version === null ? 'draft, not published' : `version ${data.version}`}, {data.board.stack.length}
      {data.board.stack.length === 1 ? 'layer' : 'layers'}, {formatLength(data.board.thickness_mm, data.shop)} thick, joints
      {data.board.jointAlloy}{data.model.origin ? `, ${data.model.origin}` : ''}
    </p>
    <div class="ml-auto flex items-center gap-2">
      {#if data.changed}<span class="text-[13px] text-caution">draft differs from version {data.version}</span>{/if}
      <a class="button {data.version === null || data.changed ? 'button-main' : ''}" href="/boards/{data.model.id}/edit"
        >Edit</a
      >
      {#if data.version !== null}<a class="button" href="/jobs/new?board={data.model.id}">New job with this board</a
        >{/if}
      <button type="button" class="button" onclick={copy}>Copy to a new revision</button>
      <Menu
        label="Save as…"
        choices={EXPORTS.map(([what, title]) => ({ title, href: `/boards/${data.model.id}/file?as=${what}` }))}
      />
    </div>
    <Notice text={problem} class="w-full" />
  </header>
  <div class="flex min-h-0 flex-col">
    {#if desk.lens === 'copper'}<CopperBar board={data.board} {desk} drawn={data.board.drawing !== undefined} />{/if}
    <div class="min-h-0 flex-1">
      <Stage board={data.board} {desk} units={data.shop} lenses={['parts', 'copper']} copper={drawing} />
    </div>
  </div>
  <aside class="isolate flex min-h-0 flex-col border-l border-line bg-sheet p-4" aria-label="About the board">
    <Tabs
      label="Show"
      tabs={{ parts: 'Parts', nets: 'Nets', versions: 'Versions' }}
      bind:at={view}
      class="flex min-h-0 flex-1 flex-col"
      bar="-mt-2 mb-3 border-b border-line"
      body="min-h-0 flex-1 {view === 'versions' ? 'overflow-auto' : ''}"
    >
      {#snippet panel()}
        {#if view === 'parts'}
          <PartTable
            parts={data.board.parts}
            selected={desk.selected}
            onselect={(part) => {
              desk.show(part);
            }}
          />
        {:else if view === 'nets'}
          <NetList board={data.board} {desk} />
        {:else if data.versions.length === 0}
          <p class="text-ink2">Nothing published yet. Edit the draft and publish it; then jobs can use it.</p>
        {:else}
          <ol class="divide-y divide-faint">
            {#each data.versions as v, i (v.id)}
              {@const before = data.versions[i + 1]}
              <li class="flex min-h-10 items-baseline gap-3 py-2">
                <span class="font-semibold">version {v.number}</span>
                <span class="text-[13px] text-ink2">{day(v.publishedAt)}</span>
                <span class="text-[13px] text-ink2">{v.jobs} {v.jobs === 1 ? 'job' : 'jobs'}</span>
                {#if before}
                  <a
                    class="ml-auto text-evidence underline"
                    href="/boards/{data.model.id}/compare?from={before.number}&to={v.number}">against {before.number}</a
                  >
                {/if}
              </li>
            {/each}
          </ol>
          {#if data.changed}
            <p class="mt-3">
              <a class="text-evidence underline" href="/boards/{data.model.id}/compare?from={data.version}&to=draft"
                >What the draft changes</a
              >
            </p>
          {/if}
          <p class="mt-3 text-[13px] text-ink2">A job keeps the version it began with; later edits never reach it.</p>
        {/if}
      {/snippet}
    </Tabs>
  </aside>
</div>
