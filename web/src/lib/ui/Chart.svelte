<script lang="ts">
  // The frame of a chart: levels across, numbers at the foot of an axis that is drawn out. What lies in it comes from outside.
  import { AxisZoom } from './axisZoom.svelte';
  import { scaleLinear, type ScaleLinear } from 'd3';
  import type { Snippet } from 'svelte';

  interface Props {
    /** Of the drawing: width, height. */
    size: [number, number];
    /** Room for the numbers: at the left and the right end, at the foot. */
    room: { left: number; right: number; foot: number };
    /** What the axis goes over when nothing is drawn out. */
    over: [number, number];
    /** Levels across: how high in the drawing, and what stands at the left of each. */
    levels: { y: number; name: string }[];
    /** Numbers at the foot, about. */
    numbers?: number;
    /** Follows each of them. */
    unit?: string;
    /** The axis counts. */
    whole?: boolean;
    /** The chart in words. */
    told: string;
    /** Size of its letters, room around it. */
    class?: string;
    /** Names and marks that stay where they are. */
    frame?: Snippet;
    /** What moves with the axis; gets its scale. */
    children: Snippet<[ScaleLinear<number, number>]>;
  }
  let {
    size,
    room,
    over,
    levels,
    numbers = 6,
    unit = '',
    whole = false,
    told,
    class: more = 'text-[12px]',
    frame,
    children,
  }: Props = $props();
  const [W, H] = $derived(size);
  const [from, to, foot] = $derived([room.left, W - room.right, H - room.foot]);
  const zoom = new AxisZoom(() => [from, to]);
  const x = $derived(zoom.seen(scaleLinear(over, [from, to])));
  const ticks = $derived(x.ticks(numbers).filter((v) => !whole || Number.isInteger(v)));
  /** As many digits as tell one number from the next. */
  const number = $derived(x.tickFormat(numbers, 'f'));
  const id = $props.id();
</script>

<svg
  class="w-full border border-faint bg-bench {more}"
  viewBox="0 0 {W} {H}"
  role="img"
  aria-label={told}
  {@attach zoom.gestures}
>
  <clipPath {id}><rect x={from - 4} y="0" width={to - from + 8} height={foot + 4} /></clipPath>
  {#each levels as { y, name } (y)}
    <line x1={from} x2={to} y1={y} y2={y} stroke="var(--faint)" />
    <text x={from - 6} y={y + 4} text-anchor="end" class="fill-ink2">{name}</text>
  {/each}
  {#each ticks as t (t)}
    <text x={x(t)} y={foot + 15} text-anchor="middle" class="fill-ink2">{whole ? t : number(t)}{unit}</text>
  {/each}
  {@render frame?.()}
  <g clip-path="url(#{id})">{@render children(x)}</g>
  {#if zoom.close}<text x={to} y="11" text-anchor="end" class="fill-ink3">double click: all of it</text>{/if}
</svg>
