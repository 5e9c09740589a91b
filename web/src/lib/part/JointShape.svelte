<script lang="ts">
  // A joint of a part that is on, as it was found.
  import type { JointFinding } from '@orthos/core/prove';
  import { JOINT_WORDS } from './jointStates';
  import { pointsText, type Seen } from './seen';

  interface Props {
    points: readonly Seen[];
    at: Seen;
    size: number;
    round: boolean;
    state: JointFinding | undefined;
    due: boolean;
    /** Where the next one lies, which a bridge leads to. */
    next: Seen | undefined;
    line: number;
  }
  let { points, at, size, round, state, due, next, line }: Props = $props();

  const tone = $derived(state === undefined || state === 'good' ? 'drawn' : JOINT_WORDS[state].tone);
  const drawn = $derived({
    fill: state === undefined || state === 'open' || state === 'lean' ? 'none' : 'var(--lead)',
    stroke: due ? 'var(--hot)' : `var(--${tone})`,
    'stroke-width': due ? line * 3.5 : line * 1.3,
    'stroke-dasharray': state === undefined ? `${line * 3} ${line * 2}` : undefined,
  });
  /** The same shape, so much smaller. */
  const shrunk = (by: number): Seen[] => points.map(([x, y]) => [at[0] + by * (x - at[0]), at[1] + by * (y - at[1])]);
  /** Beside it, outwards. */
  const beside = $derived.by((): Seen => {
    const far = Math.hypot(...at) || 1;
    return [at[0] + (at[0] / far) * size * 1.1, at[1] + (at[1] / far) * size * 1.1];
  });
</script>

{#if state === 'flux'}
  <polygon points={pointsText(points)} fill="none" stroke="var(--caution)" stroke-width={size * 0.6} opacity="0.45" />
{/if}
{#if state === 'bridge' && next}
  <line x1={at[0]} y1={at[1]} x2={next[0]} y2={next[1]} stroke="var(--stop)" stroke-width={size * 0.62} />
  <line x1={at[0]} y1={at[1]} x2={next[0]} y2={next[1]} stroke="var(--lead)" stroke-width={size * 0.4} />
{/if}
<g transform={state === 'lifted' ? `rotate(9 ${at[0]} ${at[1]})` : undefined}>
  {#if round}<circle cx={at[0]} cy={at[1]} r={size / 2} {...drawn} />
  {:else}<polygon points={pointsText(points)} {...drawn} pointer-events="all" />{/if}
</g>
{#if state === 'lean'}<polygon points={pointsText(shrunk(0.5))} fill="var(--lead)" />{/if}
{#if state === 'dull'}<polygon points={pointsText(points)} fill="url(#char)" />{/if}
{#if state === 'open'}
  <path
    d="M{shrunk(0.7)[0].join(',')} L{shrunk(0.7)[2].join(',')} M{shrunk(0.7)[1].join(',')} L{shrunk(0.7)[3].join(',')}"
    stroke="var(--stop)"
    stroke-width={line * 2}
  />
{/if}
{#if state === 'ball'}
  <circle
    cx={beside[0]}
    cy={beside[1]}
    r={size * 0.32}
    fill="var(--lead)"
    stroke="var(--stop)"
    stroke-width={line * 1.6}
  />
{/if}
