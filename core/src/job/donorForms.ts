/** What is said of two boards, a donor and a recipient: each is a job of its own, with its own power, lands and gates. */
import { z } from 'zod';
import { methodIdSchema } from '../rework/index.ts';
import { id, text } from './eventForms.ts';
import { DONORS } from './donors.ts';
import { HOLDINGS } from './storedForms.ts';

/** A job as another one names it. */
const otherJob = { ticketId: z.uuid(), number: z.int().positive() };
/** A place on the board of another job. */
export const elsewhereSchema = z.strictObject({ ...otherJob, partId: id });
export type Elsewhere = z.infer<typeof elsewhereSchema>;

const line = (most: number) => z.string().trim().max(most);

/** What a part brings with it from the board it came off. */
const partRecordSchema = z.strictObject({
  /** What it is called there, and what it is. */
  name: text.max(80),
  what: line(200).optional(),
  /** When it came off, UTC ms, and how; what of its body's limit that took: 1 is all of it, null where nothing told. */
  offAt: z.int().min(0).nullable(),
  methodId: methodIdSchema.optional(),
  /** Times it was hot there. */
  times: z.int().min(0).max(1000),
  peak_C: z.number().nullable(),
  dose: z.number().min(0).nullable(),
  /** Compositions of what is on its legs, and whether they were cleaned. */
  legs: z.array(line(200)).max(20),
  legsClean: z.boolean().nullable(),
  /** Where it lies. */
  place: line(200),
  /** How it was tested off its board. */
  tested: z.strictObject({ result: z.enum(['bad', 'good', 'not tested']), recipe: line(400).optional() }).nullable(),
  /** What its board did before it came off. */
  donor: z.enum(DONORS),
  provenBy: z.array(line(200)).max(60),
  /** What it holds, and what is known of that. */
  holds: z.array(z.enum(HOLDINGS)).max(HOLDINGS.length),
  copy: line(128).nullable(),
  firmware: line(200).optional(),
  settings: line(400).optional(),
});
export type PartRecord = z.infer<typeof partRecordSchema>;

export const donorEvents = [
  /** Parts are brought from the board of that job; null: from none. */
  z.strictObject({ type: z.literal('donor'), from: z.strictObject(otherJob).nullable() }),
  /** A part of another board lies here now, with its record. */
  z.strictObject({ type: z.literal('part-came'), partId: id, from: elsewhereSchema, record: partRecordSchema }),
  /** A board without parts, to be checked before any goes on: what is named was found so, what is not stays. */
  z.strictObject({
    type: z.literal('bare-board'),
    /** In its place with screws, plugs and cover, without solder. */
    dryFit: z.boolean().optional(),
    thickness_mm: z.number().min(0.2).max(6).optional(),
    /** Contacts that stay free of solder and flux. */
    masked: z.boolean().optional(),
  }),
] as const;
export type DonorEvent = z.infer<(typeof donorEvents)[number]>;
