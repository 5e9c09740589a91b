/** What becomes of a neighbour until the part is off: what heat does to it, unless something else comes first. */
import type { Harm } from '../materials/index.ts';
import type { PlanRun } from './bench/runForm.ts';
import { harmOf, LIFT_S } from './bench/runTimes.ts';

export interface Fate {
  word: Harm | 'take it out' | 'flies' | 'skews' | 'falls off' | 'loosens';
  tone: 'good' | 'caution' | 'stop';
  /** Comes before what its temperature does. */
  first?: 'out' | 'wind' | 'falls' | 'loosens';
}

/** How bad each harm is. */
export const HARM_TONE: Readonly<Record<Harm, Fate['tone']>> = {
  hurts: 'stop',
  'may hurt': 'stop',
  near: 'caution',
  clear: 'good',
};

export function fateOf(
  run: Pick<PlanRun, 'allWet_s' | 'ended_s' | 'outcomes'>,
  n: PlanRun['neighbours'][number],
): Fate {
  if (n.takeOut) return { word: 'take it out', tone: 'stop', first: 'out' };
  const off_s = run.allWet_s === null ? run.ended_s : run.allWet_s + LIFT_S;
  if (n.loosens_s !== null && n.loosens_s <= off_s) {
    const wind = run.outcomes?.wind.find((w) => w.partId === n.partId);
    if (wind?.verdict === 'flies') return { word: 'flies', tone: 'stop', first: 'wind' };
    if (wind?.verdict === 'skews') return { word: 'skews', tone: 'caution', first: 'wind' };
    if (n.hangs) return { word: 'falls off', tone: 'stop', first: 'falls' };
    if (n.far) return { word: 'loosens', tone: 'caution', first: 'loosens' };
  }
  const { says } = harmOf(n);
  return { word: says, tone: HARM_TONE[says] };
}
