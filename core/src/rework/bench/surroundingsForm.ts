/** What a plan finds at the bench besides board and tool. */
import { z } from 'zod';
import { compositionSchema } from '../../alloys/index.ts';
import { MAT, STUCK_ON } from './around.ts';
import { coverSchema, rectangle } from './coverForm.ts';

const underSchema = z.discriminatedUnion('kind', [
  /** Warm air or a plate from below; `window`: only there (a plate with a cut-out). */
  z.strictObject({
    kind: z.literal('preheater'),
    T_C: z.number().min(30).max(300),
    h: z.number().min(1).max(2000).default(40),
    window: rectangle.optional(),
  }),
  /** Infrared from below, W/m² that arrive. */
  z.strictObject({
    kind: z.literal('infrared'),
    flux_W_m2: z.number().min(0).max(60_000),
    window: rectangle.optional(),
  }),
  /** Lying on a mat. */
  z.strictObject({
    kind: z.literal(MAT.kind),
    contact_R: z.number().min(1e-4).max(1).default(MAT.contact_R),
    h: z.number().min(1).max(1000).default(MAT.h),
  }),
]);

/** Metal that nobody planned to heat, glue that leads heat into the board, a label or coating that has to come off first. */
const sinkSchema = z
  .strictObject({
    kind: z.enum(['heatsink', 'clip', 'shield', ...STUCK_ON]),
    /** The part it sits on. */
    partId: z.string().max(60),
    mass_g: z.number().min(0.05).max(2000).optional(),
    /** A clip or heatsink holds these leads of the target, not its body. */
    terminals: z.array(z.string().max(20)).min(1).max(400).optional(),
  })
  .refine((s) => !s.terminals || s.kind === 'clip' || s.kind === 'heatsink', {
    error: 'only a clip or a heatsink sits on leads',
    path: ['terminals'],
  });

/** What holds the board and takes heat from its lower face; in its housing nothing of it shows but the upper face. */
const heldSchema = z.discriminatedUnion('kind', [
  /** A rim of this width all round. */
  z.strictObject({ kind: z.literal('frame'), width_mm: z.number().min(0.5).max(20) }),
  z.strictObject({
    kind: z.literal('props'),
    d_mm: z.number().min(0.5).max(30),
    places: z
      .array(z.strictObject({ x_mm: z.number().min(-2000).max(2000), y_mm: z.number().min(-2000).max(2000) }))
      .min(1)
      .max(40),
  }),
  z.strictObject({ kind: z.literal('housing') }),
]);

/** What is known of joints of the target: all of them, or the named ones. Later entries win. */
export const jointStateSchema = z.strictObject({
  terminals: z.array(z.string().max(20)).min(1).max(400).optional(),
  /** Its own solder, where it is not the board's. */
  alloy: compositionSchema.optional(),
  /** What is in it besides, by volume of its own solder: a spike, or the rest of an earlier repair. */
  with: z
    .array(z.strictObject({ alloy: compositionSchema, ratio: z.number().min(0.001).max(20) }))
    .max(5)
    .optional(),
  /** Solder in it against a paste-printed joint: by hand 1.5 to 2.5. */
  volume: z.number().min(0.1).max(10).optional(),
  /** Oxidised or eaten: passes heat badly and wets slowly. */
  corroded: z.boolean().optional(),
  /** Under what leaked out of a can: crusted, worse than corroded. */
  leaking: z.boolean().optional(),
});
export type JointState = z.infer<typeof jointStateSchema>;

/** Whether parts were baked before. */
const moistureSchema = z.enum(['baked', 'unknown', 'damp']);
export type Moisture = z.infer<typeof moistureSchema>;

/** What is found at the bench: under, round and on the board, and in the target's joints. Open, still air and sound joints without. */
export const surroundingsSchema = z.strictObject({
  under: underSchema.optional(),
  held: heldSchema.optional(),
  /** How much stronger than still air the room's air cools. */
  draught: z.number().min(1).max(10).optional(),
  covers: z.array(coverSchema).max(60).optional(),
  sinks: z.array(sinkSchema).max(40).optional(),
  joints: z.array(jointStateSchema).max(40).optional(),
  /** Whether board and parts were baked before; unknown without. */
  moisture: moistureSchema.optional(),
  /** Parts that are off the board or unplugged meanwhile. */
  absent: z.array(z.string().max(60)).max(60).optional(),
  /** The part goes on again, so it has to live. */
  reused: z.boolean().optional(),
});
export type Surroundings = z.infer<typeof surroundingsSchema>;
