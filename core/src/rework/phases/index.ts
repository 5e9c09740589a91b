/** Every kind of phase there is: one folder each, and this list. */
import { z } from 'zod';
import type { Until } from '../bench/drive.ts';
import { RANGES } from '../ranges.ts';
import { air } from './air/index.ts';
import { alloy } from './alloy/index.ts';
import { below } from './below/index.ts';
import { cut } from './cut/index.ts';
import type { PhaseKind } from './declaration.ts';
import { irons2 } from './irons2/index.ts';
import { lift } from './lift/index.ts';
import { liftLegs } from './liftLegs/index.ts';
import { peel } from './peel/index.ts';
import { pool } from './pool/index.ts';
import { rest } from './rest/index.ts';
import { soften } from './soften/index.ts';
import { spike } from './spike/index.ts';
import { stroke } from './stroke/index.ts';
import { tweezers } from './tweezers/index.ts';
import { twist } from './twist/index.ts';
import { vacuum } from './vacuum/index.ts';

const KINDS = {
  air,
  stroke,
  tweezers,
  vacuum,
  spike,
  alloy,
  below,
  irons2,
  pool,
  cut,
  'lift-legs': liftLegs,
  twist,
  peel,
  rest,
  lift,
  soften,
} as const;
type Kinds = typeof KINDS;
export type KindName = keyof Kinds;
/** What a kind is set by. */
export type SettingsOf<K extends KindName> = Kinds[K] extends PhaseKind<K, infer S> ? S : never;

/** A phase as set. */
export type PhaseOf<K extends KindName> = {
  id: string;
  kind: K;
  settings: SettingsOf<K>;
  until: Until;
  giveUp_s: number;
  else?: string;
};
export type Phase = { [K in KindName]: PhaseOf<K> }[KindName];

const id = z.string().min(1).max(40);
const untilSchema: z.ZodType<Until> = z.union([
  z.strictObject({ loose: z.union([z.literal('all'), z.array(z.string().max(20)).min(1).max(400)]) }),
  z.strictObject({
    C: z.number().min(0).max(400),
    at: z.union([z.enum(['board', 'body']), z.strictObject({ x_mm: z.number(), y_mm: z.number() })]),
  }),
  z.strictObject({ s: z.number().min(0).max(RANGES.phase.giveUp_s[1]) }),
  z.strictObject({ told: z.literal(true) }),
]);
const schemaOf = (kind: KindName) =>
  z.strictObject({
    id,
    kind: z.literal(kind),
    settings: KINDS[kind].settings as z.ZodType,
    until: untilSchema,
    giveUp_s: z.number().min(RANGES.phase.giveUp_s[0]).max(RANGES.phase.giveUp_s[1]),
    else: id.optional(),
  });
const [first, ...others] = (Object.keys(KINDS) as KindName[]).map(schemaOf);
export const phaseSchema = z.discriminatedUnion('kind', [first, ...others]) as unknown as z.ZodType<Phase>;

/** The longest a whole procedure may take, s. */
export const LONGEST_S = 1800;
export const phasesSchema = z
  .array(phaseSchema)
  .min(1)
  .max(12)
  .refine((phases) => new Set(phases.map((p) => p.id)).size === phases.length, { error: 'two phases of one id' })
  .refine((phases) => phases.every((p, n) => !p.else || phases.findIndex((q) => q.id === p.else) > n), {
    error: 'a phase that is given up goes on to a later one',
  })
  .refine((phases) => phases.reduce((sum, p) => sum + p.giveUp_s, 0) <= LONGEST_S, {
    error: `takes longer than ${LONGEST_S} s in all`,
  });

/** What a phase's kind declares, for its settings. */
export const kindOf = <P extends Phase>({ kind }: P): PhaseKind<P['kind'], P['settings']> =>
  KINDS[kind] as unknown as PhaseKind<P['kind'], P['settings']>;

/** The names of all kinds. */
export const KIND_NAMES = Object.keys(KINDS) as KindName[];
