<script lang="ts">
  // Every way of working on the same axes, best first as it is weighed; what does not work, and why, below.
  import Fold from '$lib/ui/Fold.svelte';
  import StopHatch from '$lib/ui/StopHatch.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { BoardModel } from '@orthos/core/board';
  import { type FitRow, inTheEnd, type Row, weighed, type Weights } from '@orthos/core/compare';
  import { isDoable, type Method, type MethodChoice, methodName, type OnOrOff } from '@orthos/core/rework';
  import { RadioGroup } from 'bits-ui';
  import { scaleLinear } from 'd3';
  import { type Bar, COUNT_NAMES, COUNTS, lasts, neighboursBar, nextWeight, padsBar, partBar, VERDICT } from './ways';
  import WayTime from './WayTime.svelte';
  import { settingLine } from './settingLine';
  import type { Panel } from './settings';

  interface Props {
    board: BoardModel;
    methods: MethodChoice[];
    /** The bench they are compared on; empty where there is but one. */
    bench: string;
    /** What is known of each, by its id: of those computed in full, and first answers. */
    rows: Record<string, Row>;
    sure: ReadonlySet<string>;
    progress: Record<string, number>;
    chosen: string | null;
    weights: Weights;
    /** The part goes on again; else nobody asks what becomes of it. */
    mustLive: boolean;
    /** What it is ways of; taking it off where nothing is said. */
    op?: OnOrOff;
    units: Panel;
    stale: boolean;
    /** First answers are on their way: none has its place before all are there, so that no row moves under a hand. */
    settling?: boolean;
    /** Gives first answers of those that have none; absent while others are computed. */
    onLook?: (methods: Method[]) => void;
  }
  let {
    board,
    methods,
    bench,
    rows,
    sure,
    progress,
    chosen = $bindable(),
    weights = $bindable(),
    mustLive,
    op = 'remove',
    units,
    stale,
    settling = false,
    onLook,
  }: Props = $props();

  const WIDTH = 216;
  /** Longer than this is said in words, s. */
  const LONGEST_S = 240;

  const fit = $derived(methods.filter(isDoable));
  const elsewhere = $derived(methods.filter((m) => !m.unfit && m.lacks));
  const unfit = $derived(methods.filter((m) => m.unfit));
  const byId = $derived(new Map(fit.map((m) => [m.method.id, m.method])));
  const ordered = $derived(
    inTheEnd(
      settling ? [] : fit.flatMap(({ method }) => (rows[method.id] ? [weighed(rows[method.id], weights)] : [])),
      op,
    ).rows,
  );
  const usable = $derived(ordered.filter((r) => r.verdict === 'works' || r.verdict === 'tight'));
  const others = $derived(ordered.filter((r) => r.verdict === 'no'));
  const waiting = $derived(fit.filter(({ method }) => settling || !rows[method.id]));
  const end = $derived(
    Math.min(
      LONGEST_S,
      Math.max(60, ...usable.map((r) => 1.2 * Math.min(LONGEST_S, r.loose_s?.p95 ?? r.loose_s?.p50 ?? 0))),
    ),
  );
  const done = $derived(op === 'fit' ? 'every joint made' : 'all loose');
  const x = $derived(scaleLinear([0, end], [0, WIDTH]));
  const ids = $derived([
    ...[...usable, ...others].map((r) => r.id),
    ...[...waiting, ...elsewhere].map((w) => w.method.id),
  ]);

  function move(by: number) {
    const at = ids.indexOf(chosen ?? '');
    chosen = ids[(at + by + ids.length) % ids.length] ?? null;
  }
  useKeys('Plan', () => [
    { keys: ['ArrowUp', 'ArrowDown'], label: 'method', run: (key) => move(key === 'ArrowDown' ? 1 : -1), line: true },
  ]);
  const count = (c: keyof Weights) => (weights = { ...weights, [c]: nextWeight(weights[c]) });

  const heldOf = (r: Row) => (op === 'fit' ? { held_s: 'hold_s' in r ? (r as FitRow).hold_s : null } : {});

  function told(r: Row): string {
    const { p5 = null, p50 = null, p95 = null } = r.loose_s ?? {};
    const ends = sure.has(r.id) && p5 !== null && p95 !== null ? `${Math.round(p5)} to ${Math.round(p95)} s` : null;
    const when = p50 === null ? 'stays solid' : `${done} ${ends ?? `after about ${Math.round(p50)} s`}`;
    return `${r.name}: ${r.verdict}, ${when}; ${r.why}`;
  }
  /** What is known of a way that has no place among the others yet. */
  function soFar(method: Method): string {
    const r = rows[method.id];
    if (!r) return `${settling ? 'waiting' : 'not looked at yet'}: ${settingLine(method, units)}`;
    if (r.verdict === 'no' || !r.loose_s?.p50) return r.why;
    return `${sure.has(r.id) ? '' : '≈ '}${r.verdict}, ${done} after about ${lasts(r.loose_s.p50)}`;
  }
  const TONES = { good: 'var(--ink2)', caution: 'var(--caution)', stop: 'var(--stop)' } as const;
</script>

{#snippet meter(bar: Bar | null, what: string)}
  <span class="block min-w-0">
    {#if bar}
      <svg width="100%" height="12" viewBox="0 0 60 12" preserveAspectRatio="none" aria-hidden="true" class="block">
        <line x1="0" x2="60" y1="6" y2="6" stroke="var(--line)" />
        <rect x="0" y="2" width={60 * bar.part} height="8" fill={TONES[bar.tone]} />
        <line x1="59" x2="59" y1="0" y2="12" stroke="var(--stop)" stroke-width="2" />
      </svg>
      <span
        class="block truncate text-[12px] {bar.tone === 'stop'
          ? 'font-semibold text-stop'
          : bar.tone === 'caution'
            ? 'text-caution'
            : 'text-ink2'}"><span class="sr-only">{what} </span>{bar.word}</span
      >
    {:else}<span class="block text-[12px] text-ink3"><span class="sr-only">{what} </span>–</span>{/if}
  </span>
{/snippet}

<div class="@container {stale ? 'stale' : ''}">
  <div class="ways mb-1 items-end text-[13px]">
    <span class="text-ink2"
      >{#if settling}looking at each{:else}<strong class="text-ink"
          >{usable.length} {usable.length === 1 ? 'way' : 'ways'}</strong
        >, best first{/if}</span
    >
    <svg width={WIDTH + 6} height="18" aria-hidden="true">
      <StopHatch id="ways-hatch" />
      <defs>
        <pattern id="hands-dots" width="5" height="5" patternUnits="userSpaceOnUse">
          <rect width="5" height="5" fill="var(--sheet)" /><circle cx="2.5" cy="2.5" r="1" fill="var(--ink2)" />
        </pattern>
      </defs>
      {#each x.ticks(5) as t (t)}<text
          x={x(t)}
          y="13"
          text-anchor={t === 0 ? 'start' : 'middle'}
          class="fill-ink2 text-[12px]">{t}{t === 0 ? ' s' : ''}</text
        >{/each}
    </svg>
    <span></span>
    {#each COUNTS as c, n (c)}
      <button
        type="button"
        class="wide-{n} min-h-6 text-left leading-tight hover:text-ink"
        aria-label="{COUNT_NAMES[c]} count {weights[c]} of 3: change"
        onclick={() => count(c)}
      >
        <span class="block font-semibold">{COUNT_NAMES[c]}</span>
        <span class="block tracking-tight text-evidence" aria-hidden="true"
          >{'●'.repeat(weights[c])}<span class="text-ink3">{'○'.repeat(3 - weights[c])}</span></span
        >
      </button>
    {/each}
  </div>

  <RadioGroup.Root bind:value={() => chosen ?? '', (id) => (chosen = id)} aria-label="Methods">
    {#each usable as r, n (r.id)}
      {@const v = VERDICT[r.verdict]}
      {@const method = byId.get(r.id)}
      {@const here = chosen === r.id}
      <RadioGroup.Item
        value={r.id}
        onclick={() => (chosen = r.id)}
        class="ways w-full items-center border-b border-l-[3px] border-b-faint py-1.5 text-left focus-visible:-outline-offset-2 {here
          ? 'border-l-hot bg-hot-soft'
          : 'border-l-transparent hover:bg-bench'}"
      >
        <span class="flex min-w-0 gap-2">
          <span class="w-4 shrink-0 text-right font-semibold {n === 0 ? 'text-hot' : 'text-ink2'}" aria-hidden="true"
            >{n + 1}</span
          >
          <span class="min-w-0">
            <span class="block leading-tight font-semibold">{r.name}</span>
            {#if method}<span class="block truncate text-[12px] leading-tight text-ink2"
                >{settingLine(method, units)}</span
              >{/if}
            {#if r.verdict === 'tight'}<span class="block text-[12px] leading-tight text-caution">{r.why}</span>{/if}
          </span>
        </span>
        <span class="block">
          <WayTime row={r} {x} quick={!sure.has(r.id)} label={told(r)} {...heldOf(r)} />
          {#if (progress[r.id] ?? 1) < 1}
            <span class="block h-1 bg-faint"
              ><svg width={WIDTH} height="4" class="block" aria-hidden="true"
                ><rect width={WIDTH * (progress[r.id] ?? 0)} height="4" fill="var(--evidence)" /></svg
              ></span
            >
          {/if}
        </span>
        <span
          class="text-center text-[12px] leading-tight font-semibold {v.tone === 'good' ? 'text-good' : 'text-caution'}"
        >
          <span class="block" aria-hidden="true">{v.mark}</span>{sure.has(r.id) ? '' : '≈ '}{r.verdict}
        </span>
        {@render meter(padsBar(r), 'Land torn')}
        {@render meter(neighboursBar(r, board), 'Worst neighbour')}
        <span class="wide-2">{@render meter(mustLive ? partBar(r) : null, 'Part')}</span>
        <span class="text-right">
          <span class="block font-semibold">{Math.round(r.minutes ?? 0)}</span>
          {#if r.rounds}<span class="block text-[12px] text-ink2" aria-label="{r.rounds} rounds of clean-up"
              >{'|'.repeat(Math.min(6, r.rounds))}</span
            >{/if}
        </span>
      </RadioGroup.Item>
    {/each}
    {#each waiting as { method } (method.id)}
      <RadioGroup.Item
        value={method.id}
        onclick={() => (chosen = method.id)}
        class="flex w-full items-baseline gap-3 border-b border-l-[3px] border-b-faint py-1 pl-6 text-left {chosen ===
        method.id
          ? 'border-l-hot bg-hot-soft'
          : 'border-l-transparent hover:bg-bench'}"
      >
        <span class="shrink-0 font-semibold">{methodName(method.id)}</span>
        <span class="min-w-0 truncate text-[13px] text-ink2">{soFar(method)}</span>
      </RadioGroup.Item>
    {/each}
    {#if waiting.length > 0 && onLook}
      <button type="button" class="button mt-2" onclick={() => onLook(waiting.map((w) => w.method))}
        >Look at these too</button
      >
    {/if}
    {#if others.length > 0}
      <p class="mt-3 mb-1 text-[13px] font-semibold">Why not</p>
      {#each others as r (r.id)}
        {@const method = byId.get(r.id)}
        <RadioGroup.Item
          value={r.id}
          onclick={() => (chosen = r.id)}
          class="grid w-full grid-cols-[minmax(0,1fr)_minmax(0,1.7fr)_minmax(0,1.3fr)] gap-3 border-l-[3px] py-1 text-left text-[13px] focus-visible:-outline-offset-2 {chosen ===
          r.id
            ? 'border-l-hot bg-hot-soft'
            : 'border-l-transparent hover:bg-bench'}"
        >
          <span class="pl-1.5 leading-tight"
            ><span class="text-stop" aria-hidden="true">▲</span> <strong>{r.name}</strong>{#if method}<span
                class="block truncate text-[12px] text-ink2">{settingLine(method, units)}</span
              >{/if}</span
          >
          <span class="leading-tight text-stop">{r.why}</span>
          <span class="leading-tight text-ink2">{r.cheapest ? `→ ${r.cheapest}` : ''}</span>
        </RadioGroup.Item>
      {/each}
    {/if}
    {#if elsewhere.length > 0}
      <p class="mt-3 mb-1 text-[13px] font-semibold">Not on {bench ? `the ${bench}` : 'this bench'}</p>
      {#each elsewhere as { method, lacks = [] } (method.id)}
        {@const r = rows[method.id]}
        <RadioGroup.Item
          value={method.id}
          onclick={() => (chosen = method.id)}
          class="grid w-full grid-cols-[minmax(0,1fr)_minmax(0,1.7fr)_minmax(0,1.3fr)] gap-3 border-l-[3px] py-1 text-left text-[13px] focus-visible:-outline-offset-2 {chosen ===
          method.id
            ? 'border-l-hot bg-hot-soft'
            : 'border-l-transparent hover:bg-bench'}"
        >
          <span class="pl-1.5 leading-tight"
            ><span aria-hidden="true">○</span> <strong>{methodName(method.id)}</strong></span
          >
          <span class="leading-tight text-ink2">needs {lacks.join(', ')}</span>
          <span class="leading-tight text-ink2">{r ? `with it: ${r.verdict}; ${r.why}` : ''}</span>
        </RadioGroup.Item>
      {/each}
    {/if}
  </RadioGroup.Root>

  <p class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1 text-[12px] text-ink2" aria-hidden="true">
    <span class="flex items-center gap-1"
      ><svg width="22" height="10"
        ><rect x="0.5" y="0.5" width="21" height="9" fill="url(#hands-dots)" stroke="var(--line)" /></svg
      >hands</span
    >
    <span class="flex items-center gap-1"
      ><svg width="22" height="10"><rect width="22" height="10" fill="var(--ink3)" opacity="0.7" /></svg>heat</span
    >
    <span class="flex items-center gap-1"
      ><svg width="6" height="12"><rect x="1.5" width="3" height="12" fill="var(--ink)" /></svg>{done}</span
    >
    <span class="flex items-center gap-1"
      ><svg width="22" height="10"
        ><rect x="0.5" y="0.5" width="21" height="9" fill="var(--good-soft)" stroke="var(--good)" /></svg
      >{op === 'fit' ? 'held still' : 'look and lift'}</span
    >
    <span class="flex items-center gap-1"
      ><svg width="22" height="10"><rect width="22" height="10" fill="url(#ways-hatch)" /></svg>closed, by whom</span
    >
    {#if op === 'remove'}<span>| a round of clean-up</span>{/if}
    <span>short bars are kind</span>
  </p>
  {#if unfit.length > 0}
    <Fold title="For other parts: {unfit.length}" quiet class="mt-1">
      {#each unfit as u (u.method.id)}
        <p class="text-[13px]">
          <strong>{methodName(u.method.id)}</strong>: {u.unfit}{u.cheapest ? `; ${u.cheapest}` : ''}.
        </p>
      {/each}
    </Fold>
  {/if}
</div>

<style>
  .ways,
  :global(button.ways) {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 222px 3.4rem 3.6rem 4.4rem 2.2rem;
    column-gap: 8px;
  }
  .wide-2,
  :global(.ways .wide-2) {
    display: none;
  }
  @container (min-width: 640px) {
    .ways,
    :global(button.ways) {
      grid-template-columns: minmax(0, 1fr) 222px 3.4rem 4.2rem 5rem 4rem 2.4rem;
    }
    .wide-2,
    :global(.ways .wide-2) {
      display: block;
    }
  }
  .stale :global(svg) {
    opacity: 0.45;
  }
</style>
