<script lang="ts">
  // Lines over one axis, with names at their ends and marks across.
  import Chart from '$lib/ui/Chart.svelte';
  import { extent, line, scaleLinear, type ScaleLinear, scaleLog } from 'd3';

  interface Props {
    lines: { name: string; points: [number, number][]; tone: 'hot' | 'evidence' }[];
    xName: string;
    yName: string;
    /** Level marks across. */
    levels?: { y: number; name: string }[];
    /** Upright marks. */
    at?: { x: number; name: string }[];
    log?: boolean;
    /** The x axis counts. */
    whole?: boolean;
    told: string;
  }
  let { lines, xName, yName, levels = [], at = [], log = false, whole = false, told }: Props = $props();
  const [W, H, LEFT, RIGHT, TOP, FOOT] = [560, 230, 52, 16, 14, 36];
  const all = $derived(lines.flatMap((l) => l.points));
  const [first = 0, last = 1] = $derived(extent(all, (p) => p[0]));
  const ys = $derived([...all.map((p) => p[1]), ...levels.map((l) => l.y)]);
  const positive = $derived(ys.filter((v) => v > 0));
  const y = $derived(
    log
      ? scaleLog([Math.min(...positive) / 1.5, Math.max(...positive) * 1.3], [H - FOOT, TOP])
      : scaleLinear(
          [Math.min(0, ...ys) === 0 && Math.min(...ys) < 5 ? 0 : Math.min(...ys) - 5, Math.max(...ys) * 1.04],
          [H - FOOT, TOP],
        ),
  );
  const path = (x: ScaleLinear<number, number>, points: [number, number][]) =>
    line<[number, number]>()
      .x((p) => x(p[0]))
      .y((p) => y(p[1]))(points) ?? '';
  const ticks = $derived(log ? y.ticks(4).filter((t) => Math.abs(Math.log10(t) % 1) < 1e-9) : y.ticks(5));
</script>

<Chart
  size={[W, H]}
  room={{ left: LEFT, right: RIGHT, foot: FOOT }}
  over={[first, last]}
  levels={ticks.map((t) => ({ y: y(t), name: String(Number(t.toPrecision(3))) }))}
  numbers={7}
  {whole}
  {told}
>
  {#snippet frame()}
    <text x={W - RIGHT} y={H - 5} text-anchor="end" class="fill-ink2">{xName}</text>
    <text x="6" y="12" class="fill-ink2">{yName}</text>
    {#each levels as l (l.name)}
      <line x1={LEFT} x2={W - RIGHT} y1={y(l.y)} y2={y(l.y)} stroke="var(--stop)" stroke-dasharray="5 4" />
      <text x={W - RIGHT - 4} y={y(l.y) - 5} text-anchor="end" class="fill-stop font-semibold">{l.name}</text>
    {/each}
  {/snippet}
  {#snippet children(x)}
    {#each at as m (m.name)}
      <line x1={x(m.x)} x2={x(m.x)} y1={TOP} y2={H - FOOT} stroke="var(--ink2)" stroke-dasharray="2 3" />
      {@const left = x(m.x) > W - 140}
      <text
        x={x(m.x) + (left ? -5 : 5)}
        y={TOP + 14}
        text-anchor={left ? 'end' : 'start'}
        class="fill-ink font-semibold">{m.name}</text
      >
    {/each}
    {#each lines as l (l.name)}
      <path d={path(x, l.points)} fill="none" stroke="var(--{l.tone})" stroke-width="2.5" />
      {#if l.points.length < 12}{#each l.points as p (p[0])}<circle
            cx={x(p[0])}
            cy={y(p[1])}
            r="4"
            fill="var(--{l.tone})"
          />{/each}{/if}
    {/each}
  {/snippet}
</Chart>
<p class="mt-1 flex gap-5 text-[13px]">
  {#each lines as l (l.name)}<span class="font-semibold"
      ><span aria-hidden="true" class={l.tone === 'hot' ? 'text-hot' : 'text-evidence'}>▬</span> {l.name}</span
    >{/each}
</p>
