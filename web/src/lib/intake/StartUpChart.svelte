<script lang="ts">
  // Current over time, in steps from stage to stage; a square-root scale keeps standby and start-up both visible.
  import { AxisZoom } from '$lib/ui/axisZoom.svelte';
  import { formatReading } from '@orthos/core/ground';
  import type { SupplyPoint } from '@orthos/core/job';
  import { curveStepAfter, line, scaleLinear, scaleSqrt } from 'd3';

  let { stages, good }: { stages: SupplyPoint[]; good: SupplyPoint[] } = $props();
  const [W, H, LEFT, TOP, BOTTOM] = [412, 132, 52, 10, 20];

  const end = $derived(Math.max(1, ...[...stages, ...good].map((s) => s.at_s)) * 1.15);
  const most = $derived(
    Math.max(0.01, ...[...stages, ...good].map((s) => s.current_A), ...stages.map((s) => s.limit_A ?? 0)),
  );
  const zoom = new AxisZoom(() => [LEFT, W - 6]);
  const x = $derived(zoom.seen(scaleLinear([0, end], [LEFT, W - 6])));
  const id = $props.id();
  const y = $derived(scaleSqrt([0, most * 1.05], [H - BOTTOM, TOP]));
  const path = (points: [number, number][]) =>
    line<[number, number]>()
      .x((p) => x(p[0]))
      .y((p) => y(p[1]))
      .curve(curveStepAfter)(points) ?? '';
  /** The last stage goes on to the end of the chart. */
  const steps = (points: SupplyPoint[], of: (s: SupplyPoint) => number): [number, number][] => {
    const sorted = points.toSorted((a, b) => a.at_s - b.at_s);
    const last = sorted[sorted.length - 1];
    return last ? [...sorted.map((s): [number, number] => [s.at_s, of(s)]), [end, of(last)]] : [];
  };
  /** Where the good unit draws most, there is room for its name. */
  const highest = $derived(good.toSorted((a, b) => b.current_A - a.current_A)[0]);
  const ticks = $derived(y.ticks(3).filter((t) => t > 0));
  const told = $derived(
    `Current over ${Math.round(end)} s: ${stages.map((s) => `${s.stage} ${formatReading(s.current_A, 'current')}`).join(', ')}${good.length > 0 ? `; a good unit: ${good.map((s) => `${s.stage} ${formatReading(s.current_A, 'current')}`).join(', ')}` : ''}`,
  );
</script>

<svg
  class="my-1 w-full border border-faint bg-bench"
  viewBox="0 0 {W} {H}"
  role="img"
  aria-label={told}
  {@attach zoom.gestures}
>
  <clipPath {id}><rect x={LEFT - 4} y="0" width={W - 6 - LEFT + 8} height={H - BOTTOM + 4} /></clipPath>
  {#each ticks as t (t)}
    <line x1={LEFT} x2={W - 6} y1={y(t)} y2={y(t)} stroke="var(--faint)" />
    <text x={LEFT - 6} y={y(t) + 4} text-anchor="end" class="fill-ink2 text-[11px]">{formatReading(t, 'current')}</text>
  {/each}
  {#each x.ticks(6) as t (t)}
    <text x={x(t)} y={H - 6} text-anchor="middle" class="fill-ink2 text-[11px]">{t} s</text>
  {/each}
  <g clip-path="url(#{id})">
    {#if good.length > 0}
      <path
        d={path(steps(good, (s) => s.current_A))}
        fill="none"
        stroke="var(--evidence)"
        stroke-width="6"
        stroke-opacity="0.35"
      />
      <text x={x(highest.at_s) + 4} y={y(highest.current_A) - 7} class="fill-evidence text-[11px] font-semibold"
        >good unit</text
      >
    {/if}
    <path d={path(steps(stages, (s) => s.limit_A ?? 0))} fill="none" stroke="var(--ink3)" stroke-dasharray="3 3" />
    <text x={LEFT + 4} y={y(stages[0]?.limit_A ?? 0) + 13} class="fill-ink2 text-[11px]">limit</text>
    <path d={path(steps(stages, (s) => s.current_A))} fill="none" stroke="var(--hot)" stroke-width="2" />
    {#each stages as s (s.at_s + s.stage)}<circle cx={x(s.at_s)} cy={y(s.current_A)} r="3" fill="var(--hot)" />{/each}
  </g>
  {#if zoom.close}<text x={W - 6} y="11" text-anchor="end" class="fill-ink3 text-[11px]">double click: all of it</text
    >{/if}
</svg>
