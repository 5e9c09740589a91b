<script lang="ts">
  import { Desk } from '$lib/jobs/desk.svelte';
  import Stage from '$lib/stage/Stage.svelte';
  import { formatLength, packageById, partName } from '@orthos/core';

  let { data } = $props();
  const desk = new Desk();
  const parts = $derived(
    [...data.board.parts].sort((a, b) => partName(a).localeCompare(partName(b), 'en', { numeric: true })),
  );
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
  <aside class="overflow-auto border-l border-line bg-sheet p-4" aria-label="Parts">
    <table class="w-full">
      <thead class="text-left text-[13px] text-ink2"
        ><tr
          ><th class="pb-1 font-normal">Part</th><th class="font-normal">Package</th><th class="font-normal">What</th
          ><th class="font-normal">Side</th></tr
        ></thead
      >
      <tbody>
        {#each parts as part (part.partId)}
          <tr class="border-t border-faint {desk.selected === part.partId ? 'bg-evidence-soft' : ''}">
            <td
              ><button
                type="button"
                class="h-8 w-full text-left font-semibold"
                onclick={() => choose(part.partId, part.side)}>{partName(part)}</button
              ></td
            >
            <td class="text-ink2">{packageById(part.package).label}</td>
            <td>{part.what ?? part.value ?? ''}</td>
            <td class="text-ink2">{part.side}</td>
          </tr>
        {/each}
      </tbody>
    </table>
  </aside>
</div>
