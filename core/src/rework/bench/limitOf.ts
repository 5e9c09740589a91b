/** What one part on one board stands: its own figure, else the shop's, else the row of its kind, less what dampness takes. */
import { z } from 'zod';
import type { PlacedPart } from '../../board/index.ts';
import type { Moisture } from './surroundingsForm.ts';
import {
  bodyClass_C,
  type Law,
  type LimitRow,
  LIMITS,
  mouldLaw,
  type OwnLimit,
  ownLimitSchema,
  solidusLaw,
} from '../../materials/index.ts';
import { SOLDER_ALLOYS } from '../../alloys/index.ts';
import { parseDecimal } from '../../ground/index.ts';
import { limitOfPackage, packageById } from '../../packages/index.ts';

/** "250 10" or "250": °C, and seconds where they are said; undefined for nothing, null where it is no such thing. */
export function readOwnLimit(text: string): OwnLimit | undefined | null {
  const words = text.trim().split(/\s+/).filter(Boolean);
  if (words.length === 0) return undefined;
  const [C, s] = words.map((w) => parseDecimal(w.replace(/(°C|s)$/, '')) ?? NaN);
  const read = ownLimitSchema.safeParse({ C, ...(words.length > 1 ? { s } : {}) });
  return read.success && words.length <= 2 ? read.data : null;
}

/** Rows of the limits table as a shop wants them. */
export const shopLimitsSchema = z
  .record(z.string().max(40), ownLimitSchema)
  .refine((rows) => Object.keys(rows).every((id) => LIMITS.has(id)), { error: 'names a row that is not there' });
export type ShopLimits = z.infer<typeof shopLimitsSchema>;

export const DAMP_SHARE = { baked: 0, unknown: 0.5, damp: 1 } as const;

export interface LimitFacts {
  board: { jointAlloy: string };
  moisture?: Moisture;
  limits?: ShopLimits;
}

export interface Limit extends Pick<LimitRow, 'id' | 'what' | 'at' | 'why' | 'plusMinus_K' | 'takeOut' | 'care'> {
  law: Law;
}

/** A printed figure is known better than a kind, K. */
const PRINTED_K = 5;
/** A bare body with a figure of its own: so much lower for a minute, K. */
const USUAL_SLOPE_K = 40;

/** Today's row for a part. Throws when its name was never one. */
export function limitRowOf(part: PlacedPart): LimitRow {
  const pkg = packageById(part.package);
  return LIMITS.get(limitOfPackage(pkg, part.limit ?? pkg.limit)) as LimitRow;
}

/** The law of a row for this part. `asTarget`: its own balls and rims are to melt, so its body alone is judged. */
export function limitOf(
  part: PlacedPart,
  { board, moisture = 'unknown', limits = {} }: LimitFacts,
  asTarget = false,
): Limit {
  const pkg = packageById(part.package);
  const own = limitRowOf(part);
  const row = asTarget && own.at === 'land' ? (LIMITS.get('ic') as LimitRow) : own;
  const printed = part.ownLimit;
  const figure = printed ?? limits[row.id];
  const known = lawOf(row, pkg.body, board.jointAlloy, figure);
  return {
    id: row.id,
    what: row.what,
    at: row.at,
    why: row.why,
    takeOut: row.takeOut,
    care: row.care,
    plusMinus_K: printed ? Math.min(row.plusMinus_K || PRINTED_K, PRINTED_K) : row.plusMinus_K,
    law: colder(known, DAMP_SHARE[moisture] * row.damp_K),
  };
}

function lawOf(row: LimitRow, body: { l: number; w: number; h: number }, jointAlloy: string, figure?: OwnLimit): Law {
  const { law } = row;
  if (!('from' in law)) return figure ? withFigure(law, figure) : law;
  switch (law.from) {
    case 'class':
      return withFigure(mouldLaw(bodyClass_C(body)), figure);
    case 'rating':
      return { kind: 'threshold', Tp_C: figure ? figure.C - law.below_K : law.unknown_C - law.below_K };
    case 'solidus': {
      const solidus = SOLDER_ALLOYS.get(law.alloy ?? jointAlloy)?.Ts.value ?? 217;
      return withFigure(solidusLaw(solidus, law), figure);
    }
  }
}

/** The law moved so that it ends at the figure. */
function withFigure(law: Law, figure: OwnLimit | undefined): Law {
  if (!figure) return law;
  if (law.kind === 'threshold') return { kind: 'threshold', Tp_C: figure.C };
  const slope = law.kind === 'dose' ? law.Tp_C - law.T1_C : USUAL_SLOPE_K;
  const [t2_s, t1_s] = law.kind === 'dose' ? [law.t2_s, law.t1_s] : [10, 60];
  const short_s = figure.s ?? t2_s;
  return { kind: 'dose', Tp_C: figure.C, t2_s: short_s, T1_C: figure.C - slope, t1_s: Math.max(t1_s, 1.5 * short_s) };
}

function colder(law: Law, by_K: number): Law {
  if (law.kind === 'none' || law.kind === 'laminate') return law;
  if (law.kind === 'threshold') return { ...law, Tp_C: law.Tp_C - by_K };
  return { ...law, Tp_C: law.Tp_C - by_K, T1_C: law.T1_C - by_K };
}
