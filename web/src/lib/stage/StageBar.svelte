<script lang="ts">
  // The line above the board: lenses, side, ruler, what the pointer or the selection is on.
  import { tip } from '$lib/ui/tip.svelte';
  import { LENS_NAMES, type Desk, type Lens } from '$lib/jobs/desk.svelte';
  import FlipHorizontal2 from '@lucide/svelte/icons/flip-horizontal-2';
  import Ruler from '@lucide/svelte/icons/ruler';
  import Scan from '@lucide/svelte/icons/scan';

  interface Props {
    desk: Desk;
    lenses: Lens[];
    measuring: boolean;
    status: string;
    onFlip: () => void;
    onRuler: () => void;
    onFit: () => void;
  }
  let { desk, lenses, measuring, status, onFlip, onRuler, onFit }: Props = $props();
</script>

<div class="@container flex h-11 shrink-0 items-center gap-1 px-3.5">
  {#if lenses.length > 1}
    <div role="group" aria-label="Lens" class="flex">
      {#each lenses as lens, i (lens)}
        <button
          type="button"
          aria-pressed={desk.lens === lens}
          {@attach tip(`${LENS_NAMES[lens]} lens (${i + 1})`)}
          class="h-10 border-b-2 px-2.5 {desk.lens === lens
            ? 'border-evidence font-semibold'
            : 'border-transparent text-ink2'}"
          onclick={() => (desk.lens = lens)}>{LENS_NAMES[lens]}</button
        >
      {/each}
    </div>
  {/if}
  <button
    type="button"
    class="ml-2 flex h-10 items-center gap-1.5 px-2 whitespace-nowrap"
    onclick={onFlip}
    {@attach tip('Turn the board over (F)')}
  >
    <FlipHorizontal2 size={18} aria-hidden="true" />
    <span class="sr-only @[540px]:not-sr-only">{desk.side === 'top' ? 'Top' : 'Bottom, mirrored'}</span>
  </button>
  <button
    type="button"
    class="flex h-10 items-center gap-1.5 px-2 {measuring ? 'font-semibold text-evidence' : ''}"
    aria-pressed={measuring}
    onclick={onRuler}
    {@attach tip('Ruler (R): drag, or step from part to part')}
  >
    <Ruler size={18} aria-hidden="true" /> <span class="sr-only @[540px]:not-sr-only">Ruler</span>
  </button>
  <button
    type="button"
    class="grid h-10 w-10 place-items-center"
    onclick={onFit}
    {@attach tip('Whole board (0)')}
    aria-label="Whole board"
  >
    <Scan size={18} aria-hidden="true" />
  </button>
  <p class="ml-auto truncate pl-3 text-[13px] text-ink2" aria-live="polite">{status}</p>
</div>
