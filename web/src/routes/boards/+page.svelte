<script lang="ts">
  let { data } = $props();
  let filter = $state('');
  const shown = $derived(
    data.boards.filter((b) => `${b.name} ${b.field} ${b.origin}`.toLowerCase().includes(filter.trim().toLowerCase())),
  );
</script>

<svelte:head><title>Boards · Orthos</title></svelte:head>

<div class="h-full overflow-auto px-8 py-7">
  <header class="mb-4 flex max-w-5xl flex-wrap items-center gap-3">
    <h1 class="mr-auto text-[26px]">Boards</h1>
    <a class="button button-main" href="/boards/new">Trace from a photo</a>
    <a class="button" href="/boards/import">Read a board file</a>
    <a class="button" href="/boards/packages">Packages</a>
  </header>
  {#if data.boards.length === 0}
    <p class="max-w-xl border border-line bg-sheet p-8">
      No board model yet. Trace one from a photo in two minutes, or read a board file; <a
        class="text-evidence underline"
        href="/jobs/express">an express job</a
      > needs none.
    </p>
  {:else}
    <input
      class="field mb-3 max-w-5xl"
      type="search"
      bind:value={filter}
      placeholder="Name, field, origin"
      aria-label="Find a board"
    />
    <ul class="max-w-5xl divide-y divide-faint border border-line bg-sheet">
      {#each shown as board (board.id)}
        <li class="[contain-intrinsic-size:auto_48px] [content-visibility:auto]">
          <a
            class="grid min-h-12 grid-cols-[minmax(0,1fr)_100px_80px_80px_90px_minmax(0,200px)_60px] items-center gap-2 px-4 hover:bg-bench"
            href="/boards/{board.id}"
          >
            <span class="truncate text-lg font-semibold">{board.name}</span>
            <span class="text-ink2">{board.field}</span>
            <span>{board.parts} parts</span>
            <span>{board.layers} {board.layers === 1 ? 'layer' : 'layers'}</span>
            <span>{board.version === null ? 'draft' : `version ${board.version}`}</span>
            <span class="truncate text-[13px] text-ink2">{board.origin}</span>
            <span class="text-right">{board.jobs} jobs</span>
          </a>
        </li>
      {/each}
    </ul>
    {#if shown.length === 0}<p class="mt-3 text-ink2">No board of that name.</p>{/if}
  {/if}
</div>
