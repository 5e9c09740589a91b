/** How far the phase-diagram model may be trusted for a composition; rules by what it was fitted to. */
import { elementsOf, normalised, type Composition, type Element } from './elements.ts';
import { PUBLISHED } from './published.ts';

export type Confidence = 'high' | 'medium' | 'low';

/** What the liquidus may be off by, K. */
export const PLUS_MINUS_K: Record<Confidence, number> = { high: 5, medium: 10, low: 20 };

/** Farther than this (sum of differences, wt%) from every fitted row and every straight mixture of two: one step less. */
const FAR = 15;

export interface Trust {
  confidence: Confidence;
  plusMinus_K: number;
  /** What is weak about it. */
  notes: string[];
}

export function trustIn(composition: Composition): Trust {
  const wt = normalised(composition);
  const of = (e: Element) => wt[e] ?? 0;
  const only = (...allowed: Element[]) => elementsOf(wt).every((e) => allowed.includes(e));
  const notes: string[] = [];
  const leadSilver = of('Pb') > 80 && of('Ag') > 0;
  const common = of('Ag') <= 5 && of('Cu') <= 1 && !leadSilver;
  const threeOrMore = elementsOf(wt).length >= 3;
  let step = 2;
  if ((only('Sn', 'Pb', 'Ag', 'Cu', 'Bi') && common && of('Bi') <= 5) || only('Sn', 'Bi', 'Ag')) step = 0;
  else if (only('Sn', 'Pb', 'Bi', 'Ag', 'Cu') && common) step = 1;
  else if (only('Pb', 'In') || only('Sn', 'In') || only('Bi', 'In')) step = 1;
  else if ((only('Sn', 'Sb') && of('Sb') <= 6) || (only('Sn', 'Zn') && of('Zn') <= 10)) step = 1;
  if (elementsOf(wt).length === 1) step = 0;
  const partners = (['Sn', 'Pb', 'Bi'] as const).filter((e) => of(e) > 0).length;
  if (of('In') > 0 && partners >= 2) {
    step = 2;
    notes.push('indium in such mixtures: the solidus is indicative only');
  }
  if (of('In') > 3 && of('Ag') > 0) {
    step = 2;
    notes.push('indium beside silver: the solidus may read 20 °C low');
  }
  if (threeOrMore && (['Cd', 'Zn', 'Sb'] as const).some((e) => of(e) > 1)) step = 2;
  if (leadSilver || of('Ag') > 5 || of('Cu') > 1.5) step = elementsOf(wt).length === 1 ? 0 : 2;
  if (step < 2 && farFromAll(wt)) {
    step++;
    notes.push('far from every published alloy and from mixtures of two of them');
  }
  const confidence = (['high', 'medium', 'low'] as const)[step];
  return { confidence, plusMinus_K: PLUS_MINUS_K[confidence], notes };
}

/** Distance from the straight lines between published rows, by a scan of each. */
function farFromAll(wt: Composition): boolean {
  const elements = elementsOf(wt);
  const rows = PUBLISHED.filter((row) => elementsOf(row.wt).every((e) => elements.includes(e))).map((row) => {
    const n = normalised(row.wt);
    return elements.map((e) => n[e] ?? 0);
  });
  const mine = elements.map((e) => wt[e] ?? 0);
  const distance = (a: number[], b: number[], t: number) =>
    mine.reduce((sum, v, i) => sum + Math.abs(v - a[i] - t * (b[i] - a[i])), 0);
  return rows.every((a, n) =>
    rows.slice(n).every((b) => {
      for (let t = 0; t <= 1; t += 0.02) if (distance(a, b, t) <= FAR) return false;
      return true;
    }),
  );
}
