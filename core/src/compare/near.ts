/**
 * What a way comes to while its settings are dragged: from rows known along each setting alone, every setting taken to act by itself. Times multiply,
 * margins and chances add. Good to say which way it goes, never which joint is the last.
 */
import type { Row } from './forms.ts';

/** What a row says while something is dragged. */
export interface Near {
  /** Null where joints stay solid. */
  loose_s: number | null;
  margin_K: number | null;
  p_torn: number;
  p_open: number;
}

/** Rows along one setting, by its value, in rising order. */
export type Along = readonly { value: number; row: Near }[];

export const nearOf = ({ loose_s, worst, land, window }: Row): Near => ({
  loose_s: loose_s?.p50 ?? null,
  margin_K: worst?.margin_K ?? null,
  p_torn: land?.p_torn ?? 0,
  p_open: window?.p_open ?? 0,
});

/** A quantity along a setting, linear between what is known, level beyond; null nearer to where it is unknown than to where it is known. */
function along(known: Along, at: number, of: (row: Near) => number | null): number | null {
  const above = known.findIndex((k) => k.value >= at);
  if (above === 0 || known.length === 1) return of(known[0].row);
  if (above < 0) return of(known[known.length - 1].row);
  const [a, b] = [known[above - 1], known[above]];
  const [from, to] = [of(a.row), of(b.row)];
  if (b.value === at) return to;
  const part = (at - a.value) / (b.value - a.value);
  if (from === null || to === null) return part < 0.5 ? from : to;
  return from + (to - from) * part;
}

const within = (p: number): number => Math.min(1, Math.max(0, p));

/** The row of settings each at its value; `set`: the row as set. Settings whose effect is not known change nothing. */
export function nearRow(set: Near, turned: readonly { known: Along; from: number; to: number }[]): Near {
  const moved = (of: (row: Near) => number | null): number | null => {
    const start = of(set);
    if (start === null) return null;
    let sum = start;
    for (const { known, from, to } of turned) {
      if (known.length === 0 || from === to) continue;
      const [a, b] = [along(known, from, of), along(known, to, of)];
      if (b === null) return null;
      if (a !== null) sum += b - a;
    }
    return sum;
  };
  const rate = moved(({ loose_s }) => (loose_s === null ? null : Math.log(loose_s)));
  return {
    loose_s: rate === null ? null : Math.exp(rate),
    margin_K: moved((r) => r.margin_K),
    p_torn: within(moved((r) => r.p_torn) ?? 0),
    p_open: within(moved((r) => r.p_open) ?? 0),
  };
}
