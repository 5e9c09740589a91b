<script lang="ts">
  // A bare land as it was found.
  import type { LandMark } from '@orthos/core/hands';
  import { LAND_WORDS } from './landStates';
  import { pointsText, type Seen } from './seen';

  interface Props {
    points: readonly Seen[];
    at: Seen;
    size: number;
    hole: number | undefined;
    round: boolean;
    state: LandMark | undefined;
    due: boolean;
    mended: boolean;
    /** Something is seen through it. */
    clear: boolean;
    line: number;
  }
  let { points, at, size, hole, round, state, due, mended, clear, line }: Props = $props();

  const fill = $derived.by(() => {
    if (clear) return 'none';
    if (mended || state === 'good' || state === 'mask-gone' || state === 'lifted' || state === 'dirty')
      return 'var(--lead)';
    if (state === 'burnt') return 'color-mix(in srgb, var(--drawn) 75%, var(--hot))';
    return 'none';
  });
  const tone = $derived(state && LAND_WORDS[state].tone);
  const stroke = $derived.by(() => {
    if (due) return 'var(--hot)';
    if (mended) return 'var(--good)';
    return tone && tone !== 'good' ? `var(--${tone})` : 'var(--drawn)';
  });
  const drawn = $derived({
    fill,
    stroke,
    'stroke-width': due ? line * 3.5 : line * 1.3,
    'stroke-dasharray': state === undefined || state === 'torn' ? `${line * 3} ${line * 2}` : undefined,
  });
</script>

{#if state === 'mask-gone'}
  <polygon points={pointsText(points)} fill="none" stroke="var(--caution)" stroke-width={size * 0.5} opacity="0.5" />
{/if}
<g transform={state === 'lifted' ? `rotate(9 ${at[0]} ${at[1]})` : undefined}>
  {#if round}<circle cx={at[0]} cy={at[1]} r={size / 2} {...drawn} />
  {:else}<polygon points={pointsText(points)} {...drawn} pointer-events="all" />{/if}
</g>
{#if hole}
  <circle
    cx={at[0]}
    cy={at[1]}
    r={hole / 2}
    fill={state === 'plugged' ? 'var(--lead)' : state === undefined ? 'var(--board)' : 'var(--ink)'}
    stroke="var(--drawn)"
    stroke-width={line}
  />
{/if}
{#if state === 'dirty' && !mended}
  <ellipse
    cx={at[0]}
    cy={at[1]}
    rx={size * 0.62}
    ry={size * 0.62}
    fill="var(--lead)"
    stroke="var(--caution)"
    stroke-width={line * 1.6}
  />
{/if}
{#if state === 'burnt'}<polygon points={pointsText(points)} fill="url(#char)" />{/if}
{#if state === 'no-copper'}
  <line
    x1={at[0] - size / 2}
    x2={at[0] + size / 2}
    y1={at[1]}
    y2={at[1]}
    stroke="var(--drawn)"
    stroke-width={line * 2}
  />
{/if}
