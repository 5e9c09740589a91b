/**
 * What is written down when a device comes in: the complaint tried, how it opens, damage that was there
 * already, start-ups on a bench supply, what is offered and promised.
 */
import { z } from 'zod';
import { OPENING_KINDS } from '../board/index.ts';
import { placeSchema as place } from '../ground/index.ts';
import { id, text } from './eventForms.ts';

export const DAMAGE_KINDS = [
  'heat mark',
  'molten plastic',
  'pry mark',
  'liquid',
  'corrosion',
  'earlier repair',
  'broken off',
  'crack',
] as const;
export type DamageKind = (typeof DAMAGE_KINDS)[number];

export const DECLINE_REASONS = [
  'not economic',
  'too much damage',
  'part not to be had',
  'not safe to repair',
  'needs licensed people',
  'owner does not want it',
] as const;
export type DeclineReason = (typeof DECLINE_REASONS)[number];

const stroke = z
  .array(z.tuple([z.number(), z.number()]))
  .min(2)
  .max(400);
const minor = z.int().min(0).max(100_000_000);

const tierSchema = z.strictObject({
  label: text.max(120),
  /** Bench minutes of the first attempt. */
  minutes: z.number().min(0).max(10_000),
  parts_minor: minor,
  /** Attempts to expect. */
  attempts: z.number().min(1).max(20),
  price_minor: minor,
});
export type Tier = z.infer<typeof tierSchema>;

/** What a job can wait for while nobody's hands can do anything. */
const WAITS_FOR = ['part', 'answer', 'pick-up'] as const;
export type WaitsFor = (typeof WAITS_FOR)[number];

/** The events of intake, for the union of all. */
export const intakeEvents = [
  /** Hands wait, for what, and until when it should be there; `for` null: they wait no longer. */
  z.strictObject({
    type: z.literal('waits'),
    for: z.enum(WAITS_FOR).nullable(),
    what: z.string().trim().max(200).optional(),
    until: z.iso.date().optional(),
  }),
  z.strictObject({
    type: z.literal('complaint-tried'),
    seen: z.enum(['as told', 'otherwise', 'not seen', 'not tried']),
    note: z.string().trim().max(2000),
  }),
  z.strictObject({ type: z.literal('extra'), name: text.max(200), state: z.enum(['wanted', 'done', 'left']) }),
  z.strictObject({
    type: z.literal('functions-listed'),
    kind: text.max(60),
    names: z.array(text.max(120)).min(1).max(60),
  }),
  z.strictObject({
    type: z.literal('opened'),
    kind: z.enum(OPENING_KINDS),
    what: z.string().trim().max(200),
    /** How many of them. */
    count: z.int().min(1).max(200),
    /** The board model's own step that this was. */
    modelStep: id.optional(),
    photoId: z.uuid().optional(),
  }),
  z.strictObject({ type: z.literal('closed-again'), stepId: id }),
  z.strictObject({
    type: z.literal('damage'),
    kind: z.enum(DAMAGE_KINDS),
    /** There before the board came in, or done by this bench. */
    whose: z.enum(['found', 'ours']),
    note: z.string().trim().max(2000),
    place: place.optional(),
    photoId: z.uuid().optional(),
    /** Pen marks: board millimetres as seen from the top, or fractions of the photo's width and height. */
    pen: z.strictObject({ on: z.enum(['board', 'photo']), strokes: z.array(stroke).min(1).max(40) }).optional(),
  }),
  z.strictObject({
    type: z.literal('supply-stage'),
    startUpId: z.uuid(),
    stage: text.max(80),
    /** Since the supply came on. */
    at_s: z.number().min(0).max(86_400),
    supply_V: z.number().min(0).max(2000),
    limit_A: z.number().positive().max(1000),
    current_A: z.number().min(0).max(1000),
    /** It comes from the simulated supply. */
    simulated: z.literal(true).optional(),
  }),
  z.strictObject({ type: z.literal('proof'), by: z.enum(['running', 'readings']), why: text }),
  z.strictObject({
    type: z.literal('offer'),
    currency: z.string().regex(/^[A-Z]{3}$/, 'is not a currency, e.g. EUR'),
    tiers: z.array(tierSchema).min(1).max(6),
    /** What the device is worth to its owner. */
    worth_minor: minor.nullable(),
  }),
  z.strictObject({ type: z.literal('offer-taken'), tier: text.max(120) }),
  z.strictObject({
    type: z.literal('warranty'),
    months: z.int().min(0).max(120),
    terms: text,
  }),
] as const;
export type IntakeEvent = z.infer<(typeof intakeEvents)[number]>;
