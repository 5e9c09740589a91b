/** The phase model against published melting ranges: one table for tests and notes. */
import { trustIn, type Confidence } from '../src/alloys/confidence.ts';
import { elementsOf, moleFractions, type Composition } from '../src/alloys/elements.ts';
import { solidusOf } from '../src/alloys/equilibrium.ts';
import { liquidusOf } from '../src/alloys/liquidus.ts';
import { systemOf } from '../src/alloys/phases.ts';
import { PUBLISHED } from '../src/alloys/published.ts';

export interface AlloyRow {
  name: string;
  confidence: Confidence;
  published: { solidus: number; liquidus: number; sure: string };
  model: { solidus: number; liquidus: number };
}

const nameOf = (wt: Composition) =>
  Object.entries(wt)
    .map(([e, w]) => `${e}${w}`)
    .join(' ');

export function alloyRows(): AlloyRow[] {
  return PUBLISHED.map(({ wt, solidus_C, liquidus_C, sure, matrix }) => {
    const elements = elementsOf(wt);
    const [system, x] = [systemOf(elements), moleFractions(wt, elements)];
    const l = liquidusOf(system, x);
    const liquidus = (matrix ? l.matrix_K : l.true_K) - 273.15;
    return {
      name: nameOf(wt),
      confidence: trustIn(wt).confidence,
      published: { solidus: solidus_C, liquidus: liquidus_C, sure },
      model: { solidus: solidusOf(system, x, l.true_K) - 273.15, liquidus },
    };
  });
}

export const errorsOf = (rows: readonly AlloyRow[], key: 'solidus' | 'liquidus'): number[] =>
  rows.map((r) => Math.abs(r.model[key] - r.published[key])).sort((a, b) => a - b);

export const medianOf = (sorted: readonly number[]): number => sorted[Math.floor((sorted.length - 1) / 2)];
export const meanOf = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / values.length;
