<script lang="ts">
  // Which copper layer the lens shows; a word when only painted patches are known.
  import { tip } from '$lib/ui/tip.svelte';
  import { type BoardModel, layerName } from '@orthos/core/board';
  import type { Desk } from '$lib/jobs/desk.svelte';

  let { board, desk, drawn }: { board: BoardModel; desk: Desk; drawn: boolean } = $props();
  const outer = $derived(desk.side === 'top' ? 0 : board.stack.length - 1);
</script>

<div class="flex items-center gap-1 overflow-x-auto border-b border-line px-3.5 py-1 whitespace-nowrap">
  <span class="mr-1 text-[13px] text-ink2">Layer</span>
  <div role="group" aria-label="Copper layer" class="flex">
    {#each board.stack as foil, i (i)}
      {@const on = (desk.layer ?? outer) === i}
      <button
        type="button"
        aria-pressed={on}
        {@attach tip(
          `${foil.foil_um} µm${foil.name === layerName(i, board.stack.length) ? '' : `, ${foil.name} in its file`}`,
        )}
        class="h-9 border-b-2 px-2 {on ? 'border-evidence font-semibold' : 'border-transparent text-ink2'}"
        onclick={() => (desk.layer = i === outer ? null : i)}
      >
        {layerName(i, board.stack.length)}
        <span class="text-[12px] text-ink2">{Math.round(foil.coverage * 100)} %</span>
      </button>
    {/each}
  </div>
  <span class="ml-auto pl-3 text-[13px] text-ink2">
    {desk.net ? `net ${desk.net} is lit` : drawn ? 'copper as the file has it' : 'patches as they were painted'}
  </span>
</div>
