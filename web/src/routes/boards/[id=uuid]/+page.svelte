<script lang="ts">
  import { Desk } from '$lib/jobs/desk.svelte';
  import Stage from '$lib/stage/Stage.svelte';
  import { formatLength, packageById, partName } from '@orthos/core';

  let { data } = $props();
  const desk = new Desk();
  const parts = $derived(
    [...data.board.parts].sort((a, b) => partName(a).localeCompare(partName(b), 'en', { numeric: true })),
  );
  /** So many rows at once; the rest is found by typing. */
  const MOST = 150;
  let filter = $state('');
  const found = $derived.by(() => {
    const text = filter.trim().toLowerCase();
    return text
      ? parts.filter((p) => `${partName(p)} ${p.package} ${p.what ?? ''} ${p.value ?? ''}`.toLowerCase().includes(text))
      : parts;
  });
  function choose(partId: string, side: 'top' | 'bottom') {
    desk.side = side;
    desk.selected = partId;
  }
</script>

<svelte:head><title>{data.model.name} · Boards · Orthos</title></svelte:head>

<div class="grid h-full grid-cols-[minmax(0,1fr)_minmax(340px,420px)] grid-rows-[auto_minmax(0,1fr)]">
  <header class="col-span-2 flex h-[62px] items-center gap-6 border-b border-line px-4">
    <h1 class="text-xl">{data.model.name}</h1>
    <p class="text-ink2">
      version {data.version}, {data.board.stack.length} layers, {formatLength(data.board.thickness_mm, data.shop)} thick,
      joints {data.board.jointAlloy}
    </p>
    <a class="button ml-auto" href="/boards/{data.model.id}/file" download>Save as file</a>
  </header>
  <Stage board={data.board} {desk} units={data.shop} />
  <aside class="isolate overflow-auto border-l border-line bg-sheet p-4" aria-label="Parts">
    <input
      class="field mb-3"
      type="search"
      bind:value={filter}
      placeholder="Part, package, value"
      aria-label="Find a part"
    />
    <ul>
      {#each found.slice(0, MOST) as part (part.partId)}
        <li class="row border-t border-faint {desk.selected === part.partId ? 'bg-evidence-soft' : ''}">
          <button type="button" class="w-full px-1 text-left" onclick={() => choose(part.partId, part.side)}>
            <span class="font-semibold">{partName(part)}</span>
            <span class="text-ink2">{packageById(part.package).label}</span>
            <span class="truncate">{part.what ?? part.value ?? ''}</span>
            <span class="text-ink2">{part.side}</span>
          </button>
        </li>
      {/each}
    </ul>
    {#if found.length === 0}<p class="text-ink2">No part of that name.</p>{/if}
    {#if found.length > MOST}<p class="pt-2 text-ink2">{MOST} of {found.length} shown; type to find the others.</p>{/if}
  </aside>
</div>

<style>
  .row {
    /* rows out of sight are not painted */
    content-visibility: auto;
    contain-intrinsic-size: auto 41px;
  }
  .row button {
    display: grid;
    grid-template-columns: 56px 130px minmax(0, 1fr) 56px;
    gap: 8px;
    align-items: center;
    min-height: 40px;
  }
</style>
