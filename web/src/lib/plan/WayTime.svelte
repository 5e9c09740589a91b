<script lang="ts">
  // One way on the axis of seconds: hands, heat, all loose, the window and who closes it.
  import type { Row } from '@orthos/core/compare';
  import type { ScaleLinear } from 'd3';
  import { lasts } from './ways';

  interface Props {
    row: Row;
    x: ScaleLinear<number, number>;
    /** First answer: computed once, without what is uncertain. */
    quick: boolean;
    label: string;
    /** Putting on: how long it is held still afterwards, s; no window stands open. */
    held_s?: number | null;
  }
  let { row, x, quick, label, held_s }: Props = $props();

  const [, width] = $derived(x.range());
  const end = $derived(x.domain()[1]);
  const loose = $derived(row.loose_s?.p50 ?? null);
  const hands = $derived(loose === null ? 0 : Math.max(0, loose - (row.heat_s?.p50 ?? 0)));
  const shut = $derived(row.window?.shut_s.p50 ?? null);
  const beyond = $derived(loose !== null && loose > end);
  const at = (s: number) => Math.min(width, Math.max(0, x(s)));
</script>

<svg width={width + 6} height="36" viewBox="0 0 {width + 6} 36" role="img" aria-label={label}>
  <line x1="0" x2={width} y1="14" y2="14" stroke="var(--faint)" />
  {#if loose === null}
    <rect x="0" y="11" {width} height="6" fill="var(--ink3)" opacity="0.5" />
    <text x={width - 2} y="31" text-anchor="end" class="fill-stop text-[12px] font-semibold">stays solid</text>
  {:else if beyond}
    <rect x="0" y="8" {width} height="12" fill="url(#hands-dots)" stroke="var(--line)" />
    <rect x={width / 2 - 50} y="3" width="100" height="20" fill="var(--sheet)" />
    <text x={width / 2} y="18" text-anchor="middle" class="fill-ink text-[13px] font-semibold">{lasts(loose)}</text>
  {:else}
    <rect x="0" y="8" width={at(hands)} height="12" fill="url(#hands-dots)" stroke="var(--line)" />
    <rect x={at(hands)} y="8" width={at(loose) - at(hands)} height="12" fill="var(--ink3)" opacity="0.7" />
    {#if row.verdict !== 'no'}
      <rect
        x={at(loose)}
        y="6"
        width={Math.max(0, at(held_s === undefined ? (shut ?? end) : loose + (held_s ?? 0)) - at(loose))}
        height="16"
        fill="var(--good-soft)"
        stroke="var(--good)"
      />
    {/if}
    {#if shut !== null && shut < end}
      <rect x={at(shut)} y="6" width={Math.min(34, width - at(shut))} height="16" fill="url(#ways-hatch)" />
      <text
        x={Math.min(at(shut) + 3, width - 40)}
        y="18"
        class="fill-stop text-[12px] font-bold"
        stroke="var(--sheet)"
        stroke-width="3.5"
        paint-order="stroke">{row.window?.by === 'joints freeze' ? 'freezes' : row.window?.by}</text
      >
    {/if}
    <rect x={at(loose) - 1.5} y="3" width="3" height="22" fill="var(--ink)" opacity={quick ? 0.5 : 1} />
    {#if !quick && typeof row.loose_s?.p5 === 'number'}
      {@const to = row.loose_s.p95 ?? end}
      <path
        d="M{at(row.loose_s.p5)} 27v6M{at(row.loose_s.p5)} 30H{at(to)}M{at(to)} 27v6"
        stroke="var(--ink2)"
        fill="none"
      />
    {/if}
  {/if}
</svg>
