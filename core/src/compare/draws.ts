/**
 * Draws over an ensemble: inputs at random by their plus-minus, hands' own times and retries on top, and from them what happens in which share of benches.
 * Times come from effects on rates, temperatures from effects as they are; the run as set is the middle of all.
 */
import { randomOf } from '../ground/index.ts';
import { effectsOf, type Ensemble, type PlanRun, rateOf, timeOf } from '../rework/index.ts';
import type { Spread } from './forms.ts';

const DRAWS = 512;
/** Quick runs are a little off the full one; nothing is known better than to this share (two standard deviations). */
const LEAST_SPREAD = 0.04;

/** Numbers of the normal distribution from a seed (Box & Muller). */
function normals(seed: number): () => number {
  const random = randomOf(seed);
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
}

export class Draws {
  readonly ensemble: Ensemble;
  /** By draw: how far each input is off, in its plus-minus. */
  private readonly inputs: readonly (readonly number[])[];
  private readonly normal: () => number;

  constructor(ensemble: Ensemble, seed: number) {
    this.ensemble = ensemble;
    this.normal = normals(seed);
    // a plus-minus is two standard deviations
    this.inputs = Array.from({ length: DRAWS }, () => ensemble.inputs.map(() => this.normal() / 2));
  }

  get count(): number {
    return DRAWS;
  }

  /** Standard normal numbers of their own, one a draw. */
  noise(): number[] {
    return Array.from({ length: DRAWS }, () => this.normal());
  }

  /** A time by draw, s; null where it does not happen. */
  times(time: (run: PlanRun) => number | null | undefined, noise?: readonly number[]): (number | null)[] {
    const { nominal, centre, members, limit_s, inputs } = this.ensemble;
    const effects = effectsOf(
      members.map((m) => rateOf(time(m))),
      inputs.length,
    );
    const [rate, quickRate] = [rateOf(time(nominal)), rateOf(time(centre))];
    // the quick centre is coarser than the run as set: what it is off by scales the effects
    const scale = rate > 0 && quickRate > 0 ? rate / quickRate : 1;
    const middle = rate > 0 ? rate : quickRate;
    return this.inputs.map((z, n) => {
      const own = noise ? (noise[n] * LEAST_SPREAD * middle) / 2 : 0;
      return timeOf(middle + own + z.reduce((sum, v, k) => sum + scale * effects[k] * v, 0), limit_s);
    });
  }

  /** A quantity by draw; `where` says what stands for a run that does not tell it. */
  values(value: (run: PlanRun) => number | null | undefined, where: number): number[] {
    const { nominal, members, inputs } = this.ensemble;
    const effects = effectsOf(
      members.map((m) => value(m) ?? where),
      inputs.length,
    );
    const middle = value(nominal) ?? where;
    return this.inputs.map((z) => middle + z.reduce((sum, v, k) => sum + effects[k] * v, 0));
  }
}

/** Percentiles of times; one that does not happen counts as the longest. */
export function spreadOf(times: readonly (number | null)[]): Spread {
  const sorted = times.map((t) => t ?? Infinity).sort((a, b) => a - b);
  const at = (p: number) => {
    const t = sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))];
    return Number.isFinite(t) ? t : null;
  };
  return { p5: at(0.05), p50: at(0.5), p95: at(0.95) };
}

export const shareOf = (found: readonly boolean[]): number => found.filter(Boolean).length / found.length;

/** The value that a share of all lie below. */
export function percentile(values: readonly number[], p: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))];
}
