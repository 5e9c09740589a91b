/** A phase as it is written: what each kind is set by, without what it declares besides. Whoever only reads a log needs no more. */
import { z } from 'zod';
import type { Until } from '../bench/drive.ts';
import { RANGES } from '../ranges.ts';
import { airSettings } from './air/settings.ts';
import { alloySettings } from './alloy/settings.ts';
import { belowSettings } from './below/settings.ts';
import { cutSettings } from './cut/settings.ts';
import { liftSettings } from './lift/settings.ts';
import { liftLegsSettings } from './liftLegs/settings.ts';
import { peelSettings } from './peel/settings.ts';
import { poolSettings } from './pool/settings.ts';
import { restSettings } from './rest/settings.ts';
import { softenSettings } from './soften/settings.ts';
import { spikeSettings } from './spike/settings.ts';
import { strokeSettings } from './stroke/settings.ts';
import { tweezersSettings } from './tweezers/settings.ts';
import { twistSettings } from './twist/settings.ts';
import { tinSettings } from './tin/settings.ts';
import { pasteSettings } from './paste/settings.ts';
import { placeSettings } from './place/settings.ts';
import { jointSettings } from './joint/settings.ts';
import { dragSettings } from './drag/settings.ts';
import { vacuumSettings } from './vacuum/settings.ts';

const SETTINGS = {
  air: airSettings,
  stroke: strokeSettings,
  tweezers: tweezersSettings,
  vacuum: vacuumSettings,
  spike: spikeSettings,
  alloy: alloySettings,
  below: belowSettings,
  irons2: strokeSettings,
  pool: poolSettings,
  cut: cutSettings,
  'lift-legs': liftLegsSettings,
  twist: twistSettings,
  peel: peelSettings,
  rest: restSettings,
  lift: liftSettings,
  soften: softenSettings,
  tin: tinSettings,
  paste: pasteSettings,
  place: placeSettings,
  tack: jointSettings,
  joint: jointSettings,
  fill: jointSettings,
  drag: dragSettings,
  press: liftSettings,
} as const;
export type KindName = keyof typeof SETTINGS;
/** What a kind is set by. */
export type SettingsOf<K extends KindName> = z.infer<(typeof SETTINGS)[K]>;

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

/** The names of all kinds. */
export const KIND_NAMES = Object.keys(SETTINGS) as KindName[];

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
    settings: SETTINGS[kind] as z.ZodType,
    until: untilSchema,
    giveUp_s: z.number().min(RANGES.phase.giveUp_s[0]).max(RANGES.phase.giveUp_s[1]),
    else: id.optional(),
  });
const [first, ...others] = KIND_NAMES.map(schemaOf);
const phaseSchema = z.discriminatedUnion('kind', [first, ...others]) as unknown as z.ZodType<Phase>;

/** The longest a whole procedure may take, s. */
export const LONGEST_S = 1800;
export const MOST_PHASES = 12;
export const phasesSchema = z
  .array(phaseSchema)
  .min(1)
  .max(MOST_PHASES)
  .refine((phases) => new Set(phases.map((p) => p.id)).size === phases.length, { error: 'two phases of one id' })
  .refine((phases) => phases.every((p, n) => !p.else || phases.findIndex((q) => q.id === p.else) > n), {
    error: 'a phase that is given up goes on to a later one',
  })
  .refine((phases) => phases.reduce((sum, p) => sum + p.giveUp_s, 0) <= LONGEST_S, {
    error: `takes longer than ${LONGEST_S} s in all`,
  });
