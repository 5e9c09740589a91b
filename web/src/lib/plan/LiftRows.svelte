<script lang="ts">
  import StopHatch from '$lib/ui/StopHatch.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { BoardModel } from '@orthos/core/board';
  import { type Method, methodName, type PlanResult, wetAt, windowEnd } from '@orthos/core/rework';
  import { RadioGroup } from 'bits-ui';
  import { scaleLinear } from 'd3';
  import { closedBy, rangeText, seconds, verdictOf } from './words';
  import { settingLine, type Panel } from './settings';

  interface Props {
    board: BoardModel;
    methods: { method: Method; unfit?: string }[];
    results: Record<string, PlanResult>;
    progress: Record<string, number>;
    chosen: string | null;
    units: Panel;
    stale: boolean;
  }
  let { board, methods, results, progress, chosen = $bindable(), units, stale }: Props = $props();

  const WIDTH = 212;
  const fit = $derived(methods.filter((m) => !m.unfit));
  const end = $derived(Math.max(60, ...Object.values(results).map((r) => Math.min(r.ended_s, 150))));
  const x = $derived(scaleLinear([0, end], [0, WIDTH]));
  const ticks = $derived(x.ticks(5));

  function move(by: number) {
    const ids = fit.map((m) => m.method.id);
    const at = ids.indexOf(chosen ?? '');
    chosen = ids[(at + by + ids.length) % ids.length] ?? null;
  }
  useKeys('Plan', () => [
    { keys: ['ArrowUp', 'ArrowDown'], label: 'method', run: (key) => move(key === 'ArrowDown' ? 1 : -1), line: true },
  ]);

  function bars(r: PlanResult) {
    const melts = r.joints.flatMap((j) => wetAt(j) ?? []);
    const closes = windowEnd(r);
    const opens = r.allWet_s;
    return {
      first: melts.length ? Math.min(...melts) : null,
      last: opens,
      from: r.allWetRange_s.from,
      to: r.allWetRange_s.to ?? (r.allWetRange_s.from === null ? null : end),
      green: opens === null ? null : ([opens, Math.max(opens, closes ?? r.ended_s)] as const),
      closes,
      /** Until the heat comes on that takes the part off: what is done before it. */
      before: r.phases?.at(-1)?.from_s ?? 0,
    };
  }
</script>

<RadioGroup.Root bind:value={() => chosen ?? '', (id) => (chosen = id)} aria-label="Methods" class={{ stale }}>
  {#each fit as { method } (method.id)}
    {@const r = results[method.id]}
    {@const here = chosen === method.id}
    <RadioGroup.Item
      value={method.id}
      class="grid w-full grid-cols-[minmax(0,1fr)_auto] items-center gap-2.5 border-l-[3px] py-[7px] pr-3 pl-[13px] text-left focus-visible:-outline-offset-2 {here
        ? 'border-hot bg-hot-soft'
        : 'border-transparent hover:bg-bench'}"
    >
      <span class="min-w-0">
        <span class="block font-semibold">{methodName(method.id)}</span>
        <span class="block text-[13px] text-ink2">{settingLine(method, units)}</span>
        {#if r}
          {@const v = verdictOf(r, board)}
          <span
            class="block text-[13px] font-semibold {v.kind === 'good'
              ? 'text-good'
              : v.kind === 'tight'
                ? 'text-caution'
                : 'text-stop'}"
          >
            <span aria-hidden="true">{v.mark}</span>
            {v.word}{v.window_s !== null ? `, ${seconds(v.window_s)}${v.open ? ' or more' : ''}` : ''}
          </span>
        {/if}
      </span>
      <svg
        width={WIDTH + 8}
        height="44"
        viewBox="0 -2 {WIDTH + 8} 44"
        role="img"
        aria-label={r
          ? `${methodName(method.id)}: ${rangeText(r) ? `all wet ${rangeText(r)}` : 'stays solid'}${closedBy(board, r) ? `, then ${closedBy(board, r)}` : ''}`
          : `${methodName(method.id)}: computing`}
      >
        <line x1="0" x2={WIDTH} y1="20" y2="20" stroke="var(--line)" />
        {#if r}
          {@const b = bars(r)}
          {#if b.before > 0}<rect x="0" y="18.5" width={x(b.before)} height="3" fill="var(--ink2)" />{/if}
          {#if b.first !== null}<rect
              x={x(b.first)}
              y="16"
              width={Math.max(1, x(b.last ?? end) - x(b.first))}
              height="8"
              fill="var(--ink3)"
              opacity="0.7"
            />{/if}
          {#if b.green}
            <rect
              x={x(b.green[0])}
              y="9"
              width={Math.max(0, Math.min(WIDTH, x(b.green[1])) - x(b.green[0]))}
              height="22"
              fill="var(--good-soft)"
              stroke="var(--good)"
            />
          {/if}
          {#if b.from !== null && b.to !== null}
            <path d="M{x(b.from)} 32v6M{x(b.from)} 35H{x(b.to)}M{x(b.to)} 32v6" stroke="var(--ink2)" fill="none" />
          {/if}
          {#if b.closes !== null && b.closes < end}
            <rect x={x(b.closes)} y="9" width={WIDTH - x(b.closes)} height="22" fill="url(#stop-hatch)" />
            <text
              x={Math.min(x(b.closes) + 4, WIDTH - 44)}
              y="24"
              class="fill-stop text-[12.5px] font-bold"
              stroke="var(--sheet)"
              stroke-width="3.5"
              paint-order="stroke">{closedBy(board, r)}</text
            >
          {/if}
          {#if b.last !== null}<rect x={x(b.last) - 1.5} y="6" width="3" height="28" fill="var(--ink)" />{/if}
        {:else}
          <rect x="0" y="17" width={WIDTH * (progress[method.id] ?? 0)} height="6" fill="var(--evidence)" />
        {/if}
      </svg>
    </RadioGroup.Item>
  {/each}
  <svg width={WIDTH + 8} height="34" class="mr-3 ml-auto block" aria-hidden="true">
    <StopHatch id="stop-hatch" />
    {#each ticks as t (t)}<text x={x(t)} y="12" text-anchor={t === 0 ? 'start' : 'middle'} class="fill-ink2 text-[12px]"
        >{t}</text
      >{/each}
    <text x={WIDTH} y="28" text-anchor="end" class="fill-ink2 text-[12px]">seconds from cold</text>
  </svg>
</RadioGroup.Root>

<style>
  :global(.stale) svg {
    opacity: 0.45;
  }
</style>
