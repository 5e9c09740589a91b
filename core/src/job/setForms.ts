/** What is said of a set of parts that are done together. */
import { z } from 'zod';
import { coverSchema, guideSchema, methodIdSchema, phasesSchema } from '../rework/index.ts';
import { FATES, STAGES } from '../sets/index.ts';
import { elsewhereSchema } from './donorForms.ts';
import { id } from './eventForms.ts';

const words = (most: number) => z.string().trim().max(most).optional();
const MOST_PARTS = 60;

export const setItemSchema = z.strictObject({
  partId: id,
  do: z.enum(FATES),
  /** The side it stands on. */
  side: z.enum(['top', 'bottom']),
  /** What is there, where it is not as drawn. */
  value: words(80),
  rating: words(80),
  size: words(80),
  /** What goes in instead, and where it lies. */
  substitute: words(120),
  bin: words(80),
  /** It is not there yet: ordered, asked for. */
  missing: z.literal(true).optional(),
  /** Parts of the set that have to come off first. */
  after: z.array(id).max(MOST_PARTS).optional(),
  note: words(400),
  /** Where it comes from, and where it goes: on the board of another job. */
  from: elsewhereSchema.optional(),
  to: elsewhereSchema.optional(),
});
export type SetItem = z.infer<typeof setItemSchema>;

const { partId, side, ...told } = setItemSchema.shape;
/** What is said of a part: what is not named stays, null takes it back. A part that was not listed yet is renewed, unless it is said otherwise. */
const saidSchema = z.strictObject({
  partId,
  side,
  do: told.do.optional(),
  value: told.value.nullable(),
  rating: told.rating.nullable(),
  size: told.size.nullable(),
  substitute: told.substitute.nullable(),
  bin: told.bin.nullable(),
  missing: told.missing.nullable(),
  after: told.after.nullable(),
  note: told.note.nullable(),
  from: told.from.nullable(),
  to: told.to.nullable(),
});
export type SetSaid = z.infer<typeof saidSchema>;

const legSchema = z.strictObject({
  partId: id,
  op: z.enum(['remove', 'prepare', 'fit']),
  methodId: methodIdSchema.optional(),
  phases: phasesSchema.optional(),
  covers: z.array(coverSchema).max(60).optional(),
  guide: guideSchema.nullable(),
  /** On the clock of the stage, s. */
  start_s: z.number().min(0).max(1e6),
  end_s: z.number().min(0).max(1e6),
  start_C: z.number(),
  rest_s: z.number().min(0).max(36_000),
  /** Who has to be how cool before it begins, °C. */
  restFor: z.array(z.strictObject({ partId: id, C: z.number() })).max(40),
});
export type SetLeg = z.infer<typeof legSchema>;

export const setEvents = [
  /** Listed, or more said of it: each field for itself, so that two who write at once lose nothing. */
  z.strictObject({ type: z.literal('set-parts'), items: z.array(saidSchema).min(1).max(MOST_PARTS) }),
  z.strictObject({ type: z.literal('set-dropped'), partIds: z.array(id).min(1).max(MOST_PARTS) }),
  z.strictObject({
    type: z.literal('set-ordered'),
    stage: z.enum(STAGES),
    by: z.enum(['computed', 'hand']),
    legs: z.array(legSchema).max(3 * MOST_PARTS),
    /** Minutes of the whole stage, and of the list as it stood. */
    minutes: z.number().min(0).max(1e5),
    list_minutes: z.number().min(0).max(1e5),
    /** Of the board, bench and surroundings it was computed for; orders of older logs do not say. */
    hash: z.string().max(100).optional(),
  }),
  /** Hands go to this part. */
  z.strictObject({ type: z.literal('set-at'), partId: id }),
] as const;
export type SetEvent = z.infer<(typeof setEvents)[number]>;
export type SetOrdered = Extract<SetEvent, { type: 'set-ordered' }>;
