/**
 * What happens in a job, as an append-only log. Corrections are events too; nothing is ever changed or
 * erased. The state of a job is the fold of its log (`jobState.ts`), the gates follow from it.
 */
import { z } from 'zod';

const text = z.string().trim().min(1, 'say it in a few words').max(2000);
const id = z.string().min(1).max(60);
const place = z.strictObject({
  x_mm: z.number().min(-2000).max(2000),
  y_mm: z.number().min(-2000).max(2000),
  side: z.enum(['top', 'bottom']),
  /** The part or terminal there, if any. */
  partId: z.string().max(60).optional(),
  terminal: z.string().max(20).optional(),
});
export type Place = z.infer<typeof place>;

const measured = z.union([z.number(), z.literal('OL')]);
export type Measured = z.infer<typeof measured>;

export const QUANTITIES = ['ohm', 'diode', 'dcv', 'current'] as const;
const slipKinds = ['powered-while-hot', 'slipped', 'bumped', 'dropped', 'too-hot', 'not-coming-off'] as const;

export const jobEventSchema = z.discriminatedUnion('type', [
  z.strictObject({ type: z.literal('observation'), text, place: place.optional() }),
  z.strictObject({
    type: z.literal('reading'),
    place,
    quantity: z.enum(QUANTITIES),
    value: measured,
    /** What a good board reads there, or what was expected. */
    good: measured.nullable(),
    goodFrom: z.enum(['good board', 'expected']).optional(),
    /** Taken with the board under power. */
    powered: z.boolean(),
  }),
  z.strictObject({ type: z.literal('withdrawn'), eventId: id, why: text }),
  z.strictObject({ type: z.literal('suspect'), partId: id, why: text }),
  z.strictObject({ type: z.literal('plan'), planId: id, label: z.string().max(100) }),
  z.strictObject({ type: z.literal('power-gone'), sourceId: id, how: text }),
  z.strictObject({ type: z.literal('power-connected'), sourceId: id }),
  z.strictObject({ type: z.literal('target-confirmed'), landmarks: z.array(id).min(2, 'two landmarks').max(10) }),
  z.strictObject({ type: z.literal('neighbour-covered'), partId: id, how: text }),
  z.strictObject({ type: z.literal('all-wet') }),
  z.strictObject({ type: z.literal('lifted') }),
  z.strictObject({ type: z.literal('surroundings-scanned'), ok: z.boolean() }),
  z.strictObject({ type: z.literal('lands-clean'), ok: z.boolean() }),
  z.strictObject({ type: z.literal('off-board-test'), result: z.enum(['bad', 'good', 'not tested']) }),
  z.strictObject({ type: z.literal('new-part-measured'), ok: z.boolean() }),
  z.strictObject({ type: z.literal('orientation-checked'), against: z.array(text).min(1) }),
  z.strictObject({ type: z.literal('fitted') }),
  z.strictObject({ type: z.literal('short-check'), ok: z.boolean(), judgedBy: text }),
  z.strictObject({ type: z.literal('readings-back'), ok: z.boolean() }),
  z.strictObject({ type: z.literal('functions-tried'), ok: z.boolean() }),
  z.strictObject({ type: z.literal('slip'), kind: z.enum(slipKinds) }),
  z.strictObject({ type: z.literal('slip-checked'), slipId: id, result: text }),
  z.strictObject({ type: z.literal('override'), gate: id, why: text }),
  z.strictObject({ type: z.literal('new-attempt'), why: text }),
  z.strictObject({ type: z.literal('released'), outcome: z.enum(['repaired', 'not repaired', 'declined']) }),
]);
export type JobEventBody = z.infer<typeof jobEventSchema>;

/** An event as kept: who and when, UTC milliseconds. `v` is the version of the body's form. */
export interface JobEvent {
  id: string;
  at: number;
  actor: string;
  v: 1;
  body: JobEventBody;
}
