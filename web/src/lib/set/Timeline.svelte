<script lang="ts">
  // A set on the clock: how warm the board is where hands get to, each part against what it would take from cold, rests, turns of the board.
  import type { Desk } from '$lib/jobs/desk.svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import type { JobView } from '$lib/jobs/view';
  import { AxisZoom } from '$lib/ui/axisZoom.svelte';
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import type { SetOrder } from '@orthos/core/sets';
  import { line, scaleLinear } from 'd3';
  import { mmss } from './words';

  interface Props {
    view: JobView;
    result: SetOrder;
    /** Added up, not run through: no curve yet. */
    rough: boolean;
    units: UnitSettings;
    desk: Desk;
  }
  let { view, result, rough, units, desk }: Props = $props();

  let width = $state(1100);
  const [H, LEFT, RIGHT] = [168, 96, 20];
  const [TOP, WARM, BARS, FOOT] = [14, 62, 78, 132];

  const legs = $derived(result.order);
  const end = $derived(Math.max(60, legs.at(-1)?.end_s ?? 0));
  const zoom = new AxisZoom(() => [LEFT, width - RIGHT]);
  const x = $derived(zoom.seen(scaleLinear([0, end], [LEFT, width - RIGHT])));
  const id = $props.id();
  const hottest = $derived(
    Math.max(60, ...legs.map((l) => l.start_C), ...legs.flatMap((l) => l.curve.map((c) => c.C))),
  );
  const y = $derived(scaleLinear([20, hottest], [WARM, TOP]));
  const longest = $derived(Math.max(5, ...legs.map((l) => Math.max(l.cold_s ?? 0, l.loose_s ?? 0))));
  const bar = $derived(scaleLinear([0, longest], [FOOT, BARS]));
  const path = $derived(
    line<{ s: number; C: number }>()
      .x((p) => x(p.s))
      .y((p) => y(p.C)),
  );
  const temperature = (C: number) => formatTemperature(C, units);
  /** Two names would run into each other: the later one is left out, unless it is picked. */
  const named = $derived.by(() => {
    let free = -Infinity;
    return new Set(
      legs.flatMap((leg) => {
        const name = nameOf(view.board, leg.partId);
        const [from, half] = [middle(leg), 4 * name.length + 3];
        if (from - half < free) return [];
        free = from + half;
        return [leg];
      }),
    );
  });
  const middle = (leg: SetOrder['order'][number]) => (x(leg.start_s) + x(Math.max(leg.start_s, leg.end_s))) / 2;
  const barWidth = (leg: SetOrder['order'][number]) =>
    Math.max(3, x(leg.start_s + Math.max(1, leg.loose_s ?? 0)) - x(leg.start_s));
  /** At whole minutes; drawn out, at whole seconds. */
  const ticks = $derived.by(() => {
    const [from, to] = x.domain();
    const unit = zoom.close ? 1 : 60;
    return scaleLinear([from / unit, to / unit], [0, 1])
      .ticks(Math.min(12, Math.max(4, Math.ceil((to - from) / 60))))
      .filter(Number.isInteger)
      .map((t) => t * unit);
  });
  const clock = (s: number) => (zoom.close ? mmss(s) : `${s / 60}${s === 0 ? ' min' : ''}`);
  const words = $derived(
    `${legs.length} steps in ${Math.round(result.minutes)} min: ${legs
      .map(
        (l) =>
          `${nameOf(view.board, l.partId)} at ${mmss(l.start_s)}${l.rest_s > 0 ? ` after a rest of ${Math.round(l.rest_s)} s` : ''}`,
      )
      .join(', ')}`,
  );
</script>

<div class="h-[168px] w-full min-w-0" bind:clientWidth={width} data-testid="set-timeline">
  <svg class="block h-full w-full" viewBox="0 0 {width} {H}" role="img" aria-label={words} {@attach zoom.gestures}>
    <clipPath {id}><rect x={LEFT - 4} y="0" width={width - RIGHT - LEFT + 8} height={FOOT + 20} /></clipPath>
    <text x="16" y={TOP + 10} class="fill-ink text-[12.5px] font-semibold">Board</text>
    <text x="16" y={TOP + 25} class="fill-ink2 text-[11.5px]">where hands are</text>
    <text x={LEFT - 6} y={y(20) + 4} text-anchor="end" class="fill-ink2 text-[11px]">{temperature(20)}</text>
    <text x={LEFT - 6} y={TOP + 4} text-anchor="end" class="fill-ink2 text-[11px]">{temperature(hottest)}</text>
    <line x1={LEFT} x2={width - RIGHT} y1={y(20)} y2={y(20)} stroke="var(--faint)" />
    <text x="16" y={BARS + 12} class="fill-ink text-[12.5px] font-semibold">Each, s</text>
    <text x="16" y={BARS + 27} class="fill-ink2 text-[11.5px]">frame: cold</text>
    <g clip-path="url(#{id})">
      {#each legs as leg (leg.partId + leg.op)}
        {@const picked = desk.selected === leg.partId}
        {#if leg.rest_s > 0}
          <rect
            x={x(leg.start_s - leg.rest_s)}
            y={TOP}
            width={x(leg.start_s) - x(leg.start_s - leg.rest_s)}
            height={FOOT - TOP}
            fill="var(--evidence)"
            fill-opacity="0.14"
          />
          <text
            x={(x(leg.start_s - leg.rest_s) + x(leg.start_s)) / 2}
            y={BARS - 4}
            text-anchor="middle"
            class="fill-ink2 text-[11px]">rest {Math.round(leg.rest_s)} s</text
          >
        {/if}
        {#if leg.flip}
          <line x1={x(leg.from_s)} x2={x(leg.from_s)} y1={TOP} y2={FOOT} stroke="var(--ink2)" stroke-dasharray="4 3" />
          <text x={x(leg.from_s) + 4} y={TOP + 10} class="fill-ink2 text-[11px]">turned</text>
        {/if}
        {#if !rough && leg.curve.length > 1}
          <path
            d={path(leg.curve)}
            fill="none"
            stroke={picked ? 'var(--hot)' : 'var(--ink2)'}
            stroke-width={picked ? 2.5 : 1.5}
          />
          <circle
            cx={x(leg.start_s)}
            cy={y(leg.start_C)}
            r={picked ? 4 : 2.5}
            fill={picked ? 'var(--hot)' : 'var(--ink2)'}
          />
        {/if}
        {#if leg.loose_s !== null}
          {#if leg.cold_s !== null}
            <rect
              x={x(leg.start_s)}
              y={bar(leg.cold_s)}
              width={barWidth(leg)}
              height={FOOT - bar(leg.cold_s)}
              fill="none"
              stroke="var(--ink3)"
              stroke-dasharray="2 3"
            />
          {/if}
          <rect
            x={x(leg.start_s)}
            y={bar(leg.loose_s)}
            width={barWidth(leg)}
            height={FOOT - bar(leg.loose_s)}
            fill={picked ? 'var(--hot)' : 'var(--hot-soft)'}
            stroke="var(--hot)"
          />
        {:else}
          <rect
            x={x(leg.start_s)}
            y={FOOT - 10}
            width={Math.max(3, x(leg.end_s) - x(leg.start_s))}
            height="10"
            fill="var(--evidence-soft)"
          />
        {/if}
        {#if picked || named.has(leg)}
          <text
            x={middle(leg)}
            y={FOOT + 14}
            text-anchor="middle"
            class="text-[11.5px] {picked ? 'fill-hot font-bold' : 'fill-ink'}">{nameOf(view.board, leg.partId)}</text
          >
        {/if}
        <rect
          class="cursor-pointer"
          x={x(leg.from_s)}
          y={TOP}
          width={Math.max(2, x(leg.end_s) - x(leg.from_s))}
          height={FOOT + 18 - TOP}
          fill="transparent"
          role="presentation"
          onclick={() => {
            const part = view.board.parts.find((p) => p.partId === leg.partId);
            if (part) desk.show(part);
          }}
        />
      {/each}
    </g>
    <line x1={LEFT} x2={width - RIGHT} y1={FOOT} y2={FOOT} stroke="var(--ink2)" />
    {#each ticks as s (s)}
      <text x={x(s)} y={H - 5} text-anchor="middle" class="fill-ink2 text-[11px]">{clock(s)}</text>
    {/each}
    {#if zoom.close}<text x={width - RIGHT} y="11" text-anchor="end" class="fill-ink3 text-[11px]"
        >double click: all of it</text
      >{/if}
  </svg>
</div>
