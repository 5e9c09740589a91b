/**
 * A package family: a few parameters that a person can read off a part or its drawing, and how the full
 * package follows from them. One declaration gives the check, the form and the drawing.
 */
import { OLD_LIMITS } from '../materials/index.ts';
import type { PackageShape } from './packageModel.ts';

export interface NumberParam {
  label: string;
  unit?: 'mm';
  min: number;
  max: number;
  initial: number;
  whole?: true;
}
export interface ChoiceParam<C extends string = string> {
  label: string;
  choices: readonly C[];
  initial: C;
  /** Values that are no longer offered, but understood where they are written. */
  retired?: readonly string[];
}
type Param = NumberParam | ChoiceParam;
type Params = Record<string, Param>;
type ParamValues<P extends Params> = { [K in keyof P]: P[K] extends ChoiceParam<infer C> ? C : number };

/** Figures fitted to measurements; where one is absent the family derives it from size. */
export interface Fitted {
  /** Heat capacity of the body, J/K. */
  C?: number;
  /** Conductance lead to body, W/K; metal loose with the joint, J/K. */
  G?: number;
  C_add?: number;
  /** The same for the pad under the body or the tab. */
  pad?: { G: number; C?: number };
}

type Checked = Record<string, number | string>;

export interface Family {
  id: string;
  title: string;
  params: Params;
  /** Says what does not fit together, or nothing. */
  refuse?: (p: Checked) => string | undefined;
  /** `p` has passed `checkParams`. */
  build: (p: Checked, fitted: Fitted) => PackageShape;
}

/** A family as it is written: `build` sees the types of its own parameters. */
interface TypedFamily<P extends Params> {
  id: string;
  title: string;
  params: P;
  refuse?: (p: ParamValues<P>) => string | undefined;
  build: (p: ParamValues<P>, fitted: Fitted) => PackageShape;
}

export const defineFamily = <const P extends Params>(family: TypedFamily<P>): Family => family as unknown as Family;

export const mm = (label: string, initial: number, min = 0.1, max = 120): NumberParam => ({
  label,
  unit: 'mm',
  min,
  max,
  initial,
});
export const count = (label: string, initial: number, min: number, max: number): NumberParam => ({
  label,
  min,
  max,
  initial,
  whole: true,
});
export const choice = <const C extends string>(label: string, choices: readonly C[], initial: C): ChoiceParam<C> => ({
  label,
  choices,
  initial,
});

/** What the body stands: rows of the limits table, and what these were called before. */
export const stands = <const C extends string>(
  label: string,
  rows: readonly C[],
  initial: NoInfer<C>,
): ChoiceParam<C> => ({
  ...choice(label, rows, initial),
  retired: OLD_LIMITS,
});

/** The values do not fit the family: which field and what would be accepted. */
export class PackageParamError extends Error {
  readonly field: string;
  constructor(field: string, message: string) {
    super(`${field}: ${message}`);
    this.name = 'PackageParamError';
    this.field = field;
  }
}

/** Checks raw values (numbers or text) against the family; absent ones take their initial value. */
export function checkParams(family: Family, raw: Record<string, unknown>): Checked {
  for (const key of Object.keys(raw))
    if (!Object.hasOwn(family.params, key))
      throw new PackageParamError(
        key,
        `is not a parameter of ${family.id}; it has ${Object.keys(family.params).join(', ')}`,
      );
  const values: Checked = {};
  for (const [key, p] of Object.entries(family.params)) {
    const given = raw[key] ?? p.initial;
    if ('choices' in p) {
      if (!p.choices.includes(String(given)) && !p.retired?.includes(String(given)))
        throw new PackageParamError(key, `is one of ${p.choices.join(', ')}`);
      values[key] = String(given);
      continue;
    }
    const n = typeof given === 'string' && given.trim() !== '' ? Number(given) : given;
    if (typeof n !== 'number' || !Number.isFinite(n)) throw new PackageParamError(key, 'is a number');
    if (n < p.min || n > p.max) throw new PackageParamError(key, `lies between ${p.min} and ${p.max}`);
    if (p.whole && !Number.isInteger(n)) throw new PackageParamError(key, 'is a whole number');
    values[key] = n;
  }
  const refused = family.refuse?.(values);
  if (refused) throw new PackageParamError('', refused);
  return values;
}
