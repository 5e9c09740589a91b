<script lang="ts">
  // The circuit lens: the netlist as a tidy drawing, tied to the board both ways.
  import Notice from '$lib/ui/Notice.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import type { BoardModel } from '@orthos/core/board';
  import { boardPartOf, type Netlist } from '@orthos/core/circuit';
  import { layOutSchematic, type Drawing, type DrawnNode } from './layOutSchematic';
  import PartSymbol from './Symbol.svelte';
  import { type Lie, zoomable } from '$lib/ui/zoom';

  let { board, netlist }: { board: BoardModel; netlist: Netlist | null } = $props();
  const desk = useDesk();
  let drawing = $state.raw<Drawing | null>(null);
  let problem = $state('');
  let lit = $state<string | null>(null);
  let width = $state(800);
  let height = $state(600);
  /** Where it was moved to; until then it fills the width. */
  let moved = $state.raw<Lie | null>(null);

  $effect(() => {
    if (!netlist) {
      drawing = null;
      return;
    }
    let stale = false;
    layOutSchematic(netlist).then(
      (made) => {
        if (!stale) [drawing, problem] = [made, ''];
      },
      (e: unknown) => {
        if (!stale) problem = (e as Error).message;
      },
    );
    return () => (stale = true);
  });
  const partOf = (ref: string) => {
    const part = netlist?.parts.find((p) => p.ref === ref);
    return part && boardPartOf(board, part);
  };
  const fit = $derived(drawing ? Math.min(1.4, Math.max(0.55, (width - 24) / drawing.w)) : 1);
  const lie = $derived<Lie>(moved ?? { k: fit, x: 12, y: 12 });
  const SCALES: [number, number] = [0.2, 5];
  const zoomed = zoomable({ get: () => lie, set: (next) => (moved = next), scales: SCALES });
  /** Larger or smaller about the middle of what is seen. */
  function zoom(factor: number) {
    const k = Math.min(SCALES[1], Math.max(SCALES[0], lie.k * factor));
    const about = (at: number, middle: number) => middle - ((middle - at) * k) / lie.k;
    moved = { k, x: about(lie.x, width / 2), y: about(lie.y, height / 2) };
  }
  /** Brings a part that the keys have come to into sight. */
  function reveal(n: DrawnNode) {
    const shift = (at: number, from: number, long: number, room: number) => {
      const [a, b] = [at + from * lie.k, at + (from + long) * lie.k];
      return a >= 0 && b <= room ? at : at + room / 2 - (a + b) / 2;
    };
    moved = { k: lie.k, x: shift(lie.x, n.x, n.w, width), y: shift(lie.y, n.y, n.h, height) };
  }
  const isSelected = (n: DrawnNode) => desk.selected !== null && partOf(n.ref)?.partId === desk.selected;
  function choose(n: DrawnNode) {
    const placed = partOf(n.ref);
    if (!placed) return;
    desk.show(placed);
  }
</script>

<div class="absolute inset-0 flex flex-col bg-sheet">
  {#if problem}
    <Notice text="The circuit could not be drawn: {problem}" class="p-4" />
  {:else if !netlist}
    <p class="p-6 text-ink2">No circuit is drawn for this board yet. Begin one under Diagnose, Circuit.</p>
  {:else if !drawing}
    <p class="p-6 text-ink2" role="status">Drawing the circuit …</p>
  {:else}
    <div
      class="min-h-0 flex-1 cursor-grab touch-none overflow-clip active:cursor-grabbing"
      bind:clientWidth={width}
      bind:clientHeight={height}
      {@attach zoomed}
    >
      <svg class="block h-full w-full" role="group" aria-label="Circuit">
        <g transform="translate({lie.x} {lie.y}) scale({lie.k})">
          {#each drawing.wires as w, i (i)}
            <polyline
              points={w.points.map((p) => p.join(',')).join(' ')}
              fill="none"
              stroke={lit === w.net ? 'var(--evidence)' : 'var(--drawn)'}
              stroke-width={lit === w.net ? 3 : 1.4}
            />
          {/each}
          {#each drawing.nodes as n (n.ref)}
            <g transform="translate({n.x} {n.y})">
              {#if isSelected(n)}<rect
                  x="-3"
                  y="-3"
                  width={n.w + 6}
                  height={n.h + 6}
                  fill="var(--evidence-soft)"
                  stroke="var(--evidence)"
                  stroke-width="2"
                />{/if}
              <PartSymbol node={n} />
              {#each n.ports as p (p.pin)}
                {#if p.flag === 'ground'}
                  <path
                    transform="translate({p.x} {p.y}) rotate({p.side === 'WEST'
                      ? 90
                      : p.side === 'EAST'
                        ? -90
                        : p.side === 'NORTH'
                          ? 180
                          : 0})"
                    d="M0 0V7M-9 7H9M-5 11H5M-2 15H2"
                    fill="none"
                    stroke="var(--drawn)"
                    stroke-width="1.6"
                  />
                {:else if p.flag === 'net'}
                  <text
                    x={p.side === 'WEST' ? p.x - 5 : p.side === 'EAST' ? p.x + 5 : p.x}
                    y={p.side === 'NORTH' ? p.y - 4 : p.side === 'SOUTH' ? p.y + 14 : p.y + 4}
                    text-anchor={p.side === 'WEST' ? 'end' : p.side === 'EAST' ? 'start' : 'middle'}
                    class="text-[12px] font-semibold {lit === p.net ? 'fill-evidence' : 'fill-ink2'}">{p.net}</text
                  >
                {/if}
              {/each}
              <text
                x={n.hanging ? n.w + 2 : n.w / 2}
                y={n.hanging ? 26 : n.kind === 'IC' ? n.h / 2 + 5 : n.kind === 'M' || n.kind === 'Q' ? 32 : -4}
                dx={n.kind === 'M' || n.kind === 'Q' ? 16 : 0}
                text-anchor={n.hanging || n.kind === 'M' || n.kind === 'Q' ? 'start' : 'middle'}
                class="fill-ink text-[13px] font-bold">{n.ref}</text
              >
              {#if n.note && n.kind !== 'IC'}
                <text
                  x={n.hanging ? n.w + 2 : n.w / 2}
                  y={n.hanging ? 41 : n.h + 11}
                  text-anchor={n.hanging ? 'start' : 'middle'}
                  class="fill-ink2 text-[11px]">{n.note}</text
                >
              {/if}
              <rect
                x="-4"
                y="-4"
                width={n.w + 8}
                height={n.h + 8}
                fill="transparent"
                role="button"
                tabindex="0"
                aria-label="{n.ref}, {n.note}"
                class="cursor-pointer outline-offset-2"
                onclick={() => choose(n)}
                onfocus={(e) => e.currentTarget.matches(':focus-visible') && reveal(n)}
                onkeydown={(e) => {
                  if (e.key === 'Enter' || e.key === ' ') {
                    e.preventDefault();
                    choose(n);
                  }
                }}
                onpointerenter={() => (lit = n.ports.find((p) => p.flag !== 'ground')?.net ?? null)}
                onpointerleave={() => (lit = null)}
              />
            </g>
          {/each}
        </g>
      </svg>
    </div>
    <div class="flex items-center gap-1 border-t border-faint px-3">
      <button type="button" class="h-10 px-3" onclick={() => zoom(0.8)}>Smaller</button>
      <button type="button" class="h-10 px-3" onclick={() => zoom(1.25)}>Larger</button>
      <button type="button" class="h-10 px-3" onclick={() => (moved = null)}>Whole width</button>
      <p class="ml-auto text-[13px] text-ink2">A part chosen here is marked on the board, and the other way round.</p>
    </div>
  {/if}
</div>
