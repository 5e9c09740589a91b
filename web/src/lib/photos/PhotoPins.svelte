<script lang="ts">
  // A photo in the board's place, on which a few points are shown one after the other, so that it can be laid over the drawing.
  import { useKeys } from '$lib/ui/keys.svelte';
  import { type Lie, zoomable } from '$lib/ui/zoom';
  import type { PointPair } from '@orthos/core/board';
  import type { Wanted } from './placed';

  interface Props {
    href: string;
    w_px: number;
    h_px: number;
    wanted: readonly Wanted[];
    onTied: (pairs: PointPair[]) => void;
    onClose: () => void;
  }
  let { href, w_px, h_px, wanted, onTied, onClose }: Props = $props();

  let host = $state<HTMLElement>();
  let lie = $state.raw<Lie | null>(null);
  let pairs = $state.raw<PointPair[]>([]);
  /** Where a press began: a drag moves the picture, a tap shows a point. */
  let from: [number, number] | null = null;

  function whole(): Lie {
    const { clientWidth: w, clientHeight: h } = host as HTMLElement;
    const k = Math.min(w / w_px, h / h_px);
    return { k, x: (w - k * w_px) / 2, y: (h - k * h_px) / 2 };
  }
  $effect(() => {
    if (host && !lie) lie = whole();
  });
  function tap(e: PointerEvent) {
    const began = from;
    from = null;
    if (!began || !lie || !host || Math.hypot(e.clientX - began[0], e.clientY - began[1]) > 4) return;
    const box = host.getBoundingClientRect();
    const px: [number, number] = [(e.clientX - box.left - lie.x) / lie.k, (e.clientY - box.top - lie.y) / lie.k];
    if (px[0] < 0 || px[1] < 0 || px[0] > w_px || px[1] > h_px) return;
    const next = [...pairs, { px, mm: wanted[pairs.length].mm }];
    if (next.length < wanted.length) pairs = next;
    else {
      pairs = [];
      onTied(next);
    }
  }
  useKeys('Photo', () => [
    pairs.length > 0
      ? { keys: ['Escape'], label: 'take back the last point', run: () => (pairs = pairs.slice(0, -1)), line: true }
      : { keys: ['Escape'], label: 'leave the photo', run: onClose, line: true },
  ]);
</script>

<div class="absolute inset-0 flex flex-col bg-bench" data-testid="photo-pins">
  <div class="flex items-center gap-3 px-4 py-2">
    <p class="flex-1" role="status">
      Tap <b>{wanted[pairs.length]?.label}</b> in the photo.
      <span class="text-[13px] text-ink2">{pairs.length + 1} of {wanted.length}; wheel zooms, dragging moves.</span>
    </p>
    <button class="button px-3" onclick={onClose}>Leave</button>
  </div>
  <!-- svelte-ignore a11y_no_static_element_interactions -->
  <div
    bind:this={host}
    class="relative min-h-0 flex-1 cursor-crosshair touch-none overflow-hidden select-none"
    onpointerdown={(e) => (from = [e.clientX, e.clientY])}
    onpointerup={tap}
    {@attach zoomable({ get: () => lie ?? whole(), set: (next) => (lie = next), scales: [0.02, 40] })}
  >
    {#if lie}
      <img
        src={href}
        alt="to be tied to the board"
        draggable="false"
        class="absolute top-0 left-0 max-w-none origin-top-left"
        style:width="{w_px}px"
        style:height="{h_px}px"
        style:transform="translate({lie.x}px, {lie.y}px) scale({lie.k})"
      />
      {#each pairs as p, n (n)}
        <span
          class="pointer-events-none absolute h-5 w-5 -translate-x-1/2 -translate-y-1/2 rounded-full border-[3px] border-evidence"
          style:left="{lie.x + p.px[0] * lie.k}px"
          style:top="{lie.y + p.px[1] * lie.k}px"
        ></span>
      {/each}
    {/if}
  </div>
</div>
