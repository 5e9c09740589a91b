<script lang="ts">
  let { data } = $props();
</script>

<svelte:head><title>Boards · Orthos</title></svelte:head>

<div class="h-full overflow-auto px-8 py-7">
  <h1 class="mb-4 text-[26px]">Boards</h1>
  {#if data.boards.length === 0}
    <p class="max-w-xl border border-line bg-sheet p-8">
      No board model yet. <a class="text-evidence underline" href="/jobs/express">An express job</a> needs none.
    </p>
  {:else}
    <ul class="max-w-3xl divide-y divide-faint border border-line bg-sheet">
      {#each data.boards as board (board.id)}
        <li>
          <a
            class="grid grid-cols-[1fr_110px_90px_90px_80px] items-center px-4 py-3 hover:bg-bench"
            href="/boards/{board.id}"
          >
            <span class="text-lg font-semibold">{board.name}</span>
            <span class="text-ink2">{board.field}</span>
            <span>{board.parts} parts</span>
            <span>{board.layers} layers</span>
            <span class="text-right">{board.jobs} jobs</span>
          </a>
        </li>
      {/each}
    </ul>
  {/if}
</div>
