/**
 * Harm by heat. A dose law allows a body t₂ seconds at Tp and t₁ seconds at the lower T₁, in between
 * t₁·(t₂/t₁)^((T − T₁)/(Tp − T₁)); from 20 K below T₁ on every second uses up its share. At a sum of one it is harmed, or at once from 10 K over Tp.
 * Time spent at each temperature is kept in bins, so one history answers for every law, any shift of it, and adds up with others.
 */

import { z } from 'zod';
import { delaminates_s, type Laminate } from './laminate.ts';

/** What a body stands: dose (°C, s), threshold (°C), a laminate so many kelvin the worse for damp, or more than any solder. */
export type Law =
  | { kind: 'dose'; Tp_C: number; t2_s: number; T1_C: number; t1_s: number }
  | { kind: 'threshold'; Tp_C: number }
  | { kind: 'laminate'; laminate: Laminate; damp_K: number }
  | { kind: 'none' };

/** Below T₁ by more than this nothing counts, K. */
const COUNTS_FROM_K = 20;
/** Over Tp by this it is harmed at once, K. */
const AT_ONCE_K = 10;
/** Share of the dose, or kelvin below a threshold, from which a body is near. */
const NEAR_DOSE = 0.3;
const NEAR_K = 10;

/** Seconds the law allows at `T` °C. */
export function allowed_s(law: Extract<Law, { kind: 'dose' }>, T: number): number {
  return law.t1_s * (law.t2_s / law.t1_s) ** ((T - law.T1_C) / (law.Tp_C - law.T1_C));
}

/** What a second at `T` °C uses up of the law: 0 where it does not count, Infinity where it harms at once. */
export function rate(law: Law, T: number): number {
  if (law.kind === 'none') return 0;
  if (law.kind === 'threshold') return T >= law.Tp_C ? Infinity : 0;
  if (law.kind === 'laminate') return 1 / delaminates_s(law.laminate, T + law.damp_K);
  if (T >= law.Tp_C + AT_ONCE_K) return Infinity;
  return T > law.T1_C - COUNTS_FROM_K ? 1 / allowed_s(law, T) : 0;
}

/** Width of a bin, K. */
const BIN_K = 2;
/** The coldest bin begins here, °C: below it no law counts. */
const COLDEST_C = 20;

/** An exposure as it is kept: seconds in bins of 2 K from 20 °C up, and the peak, °C; null before anything was seen. */
export const exposureRecordSchema = z.strictObject({
  seconds: z.array(z.number().min(0)).max(2000),
  peak_C: z.number().nullable(),
});
export type ExposureRecord = z.infer<typeof exposureRecordSchema>;

/** Seconds a body has spent at each temperature, in bins of 2 K, and its peak, °C. */
export class Exposure {
  private readonly seconds: number[];
  peak_C: number;

  /** `before`: what it has been through already. */
  constructor(before: ExposureRecord = { seconds: [], peak_C: null }) {
    this.seconds = [...before.seconds];
    this.peak_C = before.peak_C ?? -Infinity;
  }

  record(): ExposureRecord {
    return { seconds: [...this.seconds], peak_C: this.peak_C === -Infinity ? null : this.peak_C };
  }

  add(T: number, dt: number): void {
    this.peak_C = Math.max(this.peak_C, T);
    const bin = Math.floor((T - COLDEST_C) / BIN_K);
    if (bin < 0) return;
    for (let b = this.seconds.length; b <= bin; b++) this.seconds.push(0);
    this.seconds[bin] += dt;
  }

  /** Share of the law used up were everything `hotter` K hotter. */
  dose(law: Law, hotter = 0): number {
    if (rate(law, this.peak_C + hotter) === Infinity) return Infinity;
    let sum = 0;
    for (let b = 0; b < this.seconds.length; b++)
      if (this.seconds[b] > 0) {
        // the middle of the last bin may lie above the peak
        const T = Math.min(COLDEST_C + (b + 0.5) * BIN_K, this.peak_C);
        sum += this.seconds[b] * rate(law, T + hotter);
      }
    return sum;
  }
}

export type Harm = 'hurts' | 'may hurt' | 'near' | 'clear';

export interface Judgement {
  says: Harm;
  /** Share of the law used up. */
  dose: number;
  /** How much hotter everything could have been, K; negative: by how much it was too hot. Null where nothing harms. */
  margin_K: number | null;
}

const FURTHEST_K = 1000;

/** Judges a history by a law known to `plusMinus_K`. */
export function judge(exposure: Exposure, law: Law, plusMinus_K: number): Judgement {
  if (law.kind === 'none' || exposure.peak_C === -Infinity) return { says: 'clear', dose: 0, margin_K: null };
  let [survives, harmed] = [-FURTHEST_K, FURTHEST_K];
  while (harmed - survives > 0.01) {
    const middle = (survives + harmed) / 2;
    if (exposure.dose(law, middle) >= 1) harmed = middle;
    else survives = middle;
  }
  const dose = exposure.dose(law);
  return {
    says: harmBy(harmed, plusMinus_K, law.kind === 'threshold' ? harmed < plusMinus_K + NEAR_K : dose >= NEAR_DOSE),
    dose,
    margin_K: survives,
  };
}

/** Harm by a margin, and whether it comes near all the same. */
export function harmBy(margin_K: number, plusMinus_K: number, near: boolean): Harm {
  if (margin_K <= 0) return 'hurts';
  if (margin_K <= plusMinus_K) return 'may hurt';
  return near ? 'near' : 'clear';
}
