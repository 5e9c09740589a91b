<script lang="ts">
  // Slow or fast, for this job: time, the worst neighbour and the lands against the set-point, where it works, and where both schools stand.
  import { runInPool } from '$lib/compute/pool';
  import type { PlanInputs } from '$lib/jobs/view';
  import Notice from '$lib/ui/Notice.svelte';
  import type { BoardModel } from '@orthos/core/board';
  import type { Around, Row } from '@orthos/core/compare';
  import { heatOnDial, kindOf, type Method, phaseOf, type Panel } from '@orthos/core/rework';
  import { line, scaleLinear } from 'd3';
  import { onDestroy, untrack } from 'svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import { planInputOf } from './planInput';
  import { numbersFree } from './settings';

  interface Props {
    board: BoardModel;
    inputs: PlanInputs;
    method: Method;
    units: Panel;
  }
  let { board, inputs, method, units }: Props = $props();

  const POINTS = 9;
  /** The set-point that melts: the last one that can be turned. */
  const hot = untrack(() => {
    const phase = method.phases.findLast((p) => numbersFree(inputs.free[method.id]?.[`${p.id}.set_C`]).length > 1);
    const [lo, hi] = phase ? numbersFree(inputs.free[method.id][`${phase.id}.set_C`]) : [0, 0];
    return phase && { key: `${phase.id}.set_C`, phase, lo, hi, air: phase.kind === 'air' };
  });
  const temperatures = hot
    ? Array.from({ length: POINTS }, (_, n) => Math.round(hot.lo + ((hot.hi - hot.lo) * n) / (POINTS - 1)))
    : [];
  let around = $state.raw<Around | null>(null);
  let problem = $state('');
  const abort = new AbortController();
  onDestroy(() => abort.abort());
  if (hot)
    untrack(() =>
      runInPool<Around>(
        'plan.around',
        {
          ...planInputOf(board, inputs, method, false),
          quality: 'coarse',
          as: method.id,
          at: temperatures.map((T) => ({ [hot.key]: T })),
        },
        { signal: abort.signal, onProgress: (_, part) => (around = (part as Around | undefined) ?? around) },
      )
        .then((all) => (around = all))
        .catch((e: Error) => {
          if (e.name !== 'AbortError') problem = e.message;
        }),
    );

  const shown = (T: number) => heatOnDial(T, hot?.air ? 'air' : undefined, units);
  const setAt = (m: Method | undefined): number | undefined => {
    const phase = m && phaseOf(m, 'air');
    return phase?.settings.set_C;
  };
  /** Where both schools set their air. */
  const schools = $derived(
    hot?.air
      ? (['air-slow', 'air-fast'] as const).flatMap((id) => {
          const T = setAt(inputs.methods.find((m) => m.method.id === id)?.method);
          return T === undefined || T < hot.lo || T > hot.hi ? [] : [{ T, name: id === 'air-slow' ? 'slow' : 'fast' }];
        })
      : [],
  );
  const points = $derived((around?.rows ?? []).map((row, n) => ({ T: temperatures[n], row, verdict: row.verdict })));

  const [W, H, LEFT, RIGHT] = [560, 74, 44, 60];
  const x = $derived(scaleLinear([hot?.lo ?? 0, hot?.hi ?? 1], [LEFT, W - RIGHT]));
  const half = $derived(hot ? (x(hot.hi) - x(hot.lo)) / (POINTS - 1) / 2 : 0);
  type Of = (row: Row) => number | null;
  const panels = $derived.by(() => {
    const worst = around?.known.worst ? nameOf(board, around.known.worst.partId) : 'neighbour';
    return [
      { name: 'all loose', unit: 's', of: ((r) => r.loose_s?.p50 ?? null) as Of },
      { name: `margin of ${worst}`, unit: 'K', of: ((r) => r.worst?.margin_K ?? null) as Of },
      { name: 'land torn', unit: '%', of: ((r) => r.land && 100 * r.land.p_torn) as Of },
    ].flatMap((p) => {
      const values = points.flatMap(({ T, row }) => {
        const v = p.of(row);
        return v === null ? [] : [[T, v] as [number, number]];
      });
      if (values.length === 0) return [];
      const all = values.map(([, v]) => v);
      const y = scaleLinear([Math.min(0, ...all), Math.max(1, ...all)], [H - 8, 10]);
      const d = line<[number, number]>()
        .x(([T]) => x(T))
        .y(([, v]) => y(v))(values);
      return [{ ...p, values, y, d: d ?? '' }];
    });
  });
  const TONE: Record<Row['verdict'], string> = {
    works: 'var(--good-soft)',
    tight: 'var(--caution-soft)',
    no: 'transparent',
    'not here': 'transparent',
  };
  const safe = $derived(points.filter((p) => p.verdict === 'works').map((p) => shown(p.T)));
  const degrees = $derived(shown(0).unit);
</script>

{#if !hot}
  <p class="py-1 text-[13px] text-ink2">No set-point of it can be turned on this bench.</p>
{:else}
  <Notice text={problem} at="panel" class="mt-1" />
  <p class="text-[13px]">
    {#if points.length < POINTS && !problem}
      Looking from {shown(hot.lo).value} to {shown(hot.hi).value}
      {degrees} …
    {:else if safe.length > 0}
      Works from {safe[0].value} to {safe.at(-1)?.value}
      {degrees}, with everything else of {kindOf(hot.phase).name.toLowerCase()} as set (≈).
    {:else}
      No set-point works with everything else as set.
    {/if}
  </p>
  {#each panels as p (p.name)}
    <p class="mt-1 text-[12px] text-ink2">{p.name}, {p.unit}</p>
    <svg class="block w-full" viewBox="0 0 {W} {H}" role="img" aria-label="{p.name} against the set-point">
      {#each points as { T, verdict } (T)}
        <rect x={x(T) - half} width={2 * half} y="4" height={H - 10} fill={TONE[verdict]} />
      {/each}
      <line x1={LEFT} x2={W - RIGHT} y1={p.y(0)} y2={p.y(0)} stroke="var(--line)" />
      {#each schools as s (s.name)}
        <line x1={x(s.T)} x2={x(s.T)} y1="4" y2={H - 6} stroke="var(--ink2)" stroke-dasharray="2 3" />
      {/each}
      <path d={p.d} fill="none" stroke="var(--evidence)" stroke-width="2" />
      {#each p.values as [T, v] (T)}<circle cx={x(T)} cy={p.y(v)} r="3" fill="var(--evidence)" />{/each}
      {#each p.y.domain() as v (v)}
        <text x={LEFT - 5} y={p.y(v) + 4} text-anchor="end" class="fill-ink2 text-[12px]">{Math.round(v)}</text>
      {/each}
      <text x={W - RIGHT + 6} y={p.y(p.values[p.values.length - 1][1]) + 4} class="fill-ink text-[12px]"
        >{Math.round(p.values[p.values.length - 1][1])} {p.unit}</text
      >
    </svg>
  {/each}
  {#if points.length > 0}
    <svg class="block w-full" viewBox="0 0 {W} 34" aria-hidden="true">
      {#each temperatures.filter((_, n) => n % 2 === 0) as T (T)}
        <text x={x(T)} y="12" text-anchor="middle" class="fill-ink2 text-[12px]">{shown(T).value}</text>
      {/each}
      <text x={W - RIGHT + 18} y="12" class="fill-ink2 text-[12px]">{degrees}</text>
      {#each schools as s (s.name)}
        <text x={x(s.T)} y="29" text-anchor="middle" class="fill-ink text-[12px] font-semibold">{s.name}</text>
      {/each}
    </svg>
    <p class="flex gap-4 text-[13px] text-ink2">
      <span><span aria-hidden="true" class="inline-block h-3 w-4 bg-good-soft align-middle"></span> works</span>
      <span><span aria-hidden="true" class="inline-block h-3 w-4 bg-caution-soft align-middle"></span> tight</span>
      {#if schools.length > 0}<span>dashed: where both schools set their air</span>{/if}
    </p>
  {/if}
{/if}
