<script lang="ts">
  // Current over time, in steps from stage to stage; a square-root scale keeps standby and start-up both visible.
  import Chart from '$lib/ui/Chart.svelte';
  import { formatReading } from '@orthos/core/ground';
  import type { SupplyPoint } from '@orthos/core/job';
  import { curveStepAfter, line, type ScaleLinear, scaleSqrt } from 'd3';

  let { stages, good }: { stages: SupplyPoint[]; good: SupplyPoint[] } = $props();
  const [W, H, LEFT, TOP, FOOT] = [412, 132, 52, 10, 20];

  const end = $derived(Math.max(1, ...[...stages, ...good].map((s) => s.at_s)) * 1.15);
  const most = $derived(
    Math.max(0.01, ...[...stages, ...good].map((s) => s.current_A), ...stages.map((s) => s.limit_A ?? 0)),
  );
  const y = $derived(scaleSqrt([0, most * 1.05], [H - FOOT, TOP]));
  const current = (s: SupplyPoint) => s.current_A;
  const limit = (s: SupplyPoint) => s.limit_A ?? 0;
  const limited = $derived(stages.filter((s) => s.limit_A !== undefined));
  /** From stage to stage in steps; the last one goes on to the end of the chart. */
  const steps = (x: ScaleLinear<number, number>, points: SupplyPoint[], of: (s: SupplyPoint) => number) => {
    const sorted = points.toSorted((a, b) => a.at_s - b.at_s);
    const last = sorted.at(-1);
    return (
      line<SupplyPoint>()
        .x((s) => x(s.at_s))
        .y((s) => y(of(s)))
        .curve(curveStepAfter)(last ? [...sorted, { ...last, at_s: end }] : []) ?? ''
    );
  };
  /** Where the good unit draws most, there is room for its name. */
  const highest = $derived(good.toSorted((a, b) => b.current_A - a.current_A)[0]);
  const words = (points: SupplyPoint[]) =>
    points.map((s) => `${s.stage} ${formatReading(s.current_A, 'current')}`).join(', ');
  const told = $derived(
    `Current over ${Math.round(end)} s: ${words(stages)}${good.length > 0 ? `; a good unit: ${words(good)}` : ''}`,
  );
</script>

<Chart
  size={[W, H]}
  room={{ left: LEFT, right: 6, foot: FOOT }}
  over={[0, end]}
  levels={y
    .ticks(3)
    .filter((t) => t > 0)
    .map((t) => ({ y: y(t), name: formatReading(t, 'current') }))}
  unit=" s"
  class="my-1 text-[11px]"
  {told}
>
  {#snippet children(x)}
    {#if good.length > 0}
      <path d={steps(x, good, current)} fill="none" stroke="var(--evidence)" stroke-width="6" stroke-opacity="0.35" />
      <text x={x(highest.at_s) + 4} y={y(highest.current_A) - 7} class="fill-evidence font-semibold">good unit</text>
    {/if}
    <path d={steps(x, limited, limit)} fill="none" stroke="var(--ink3)" stroke-dasharray="3 3" />
    {#each limited.slice(0, 1) as s (s)}
      <text x={x(s.at_s) + 4} y={Math.max(TOP, y(limit(s)) - 4)} class="fill-ink2">limit</text>
    {/each}
    <path d={steps(x, stages, current)} fill="none" stroke="var(--hot)" stroke-width="2" />
    {#each stages as s (s.at_s + s.stage)}<circle cx={x(s.at_s)} cy={y(s.current_A)} r="3" fill="var(--hot)" />{/each}
  {/snippet}
</Chart>
