/** What one run tells. */
import { z } from 'zod';
import { sideEffectsSchema } from './sideEffectsForm.ts';

const joint = z.strictObject({
  terminal: z.string(),
  /** Begins to melt, is molten through. */
  solidus_s: z.number().nullable(),
  liquidus_s: z.number().nullable(),
  /** Lets go: molten and, where alloy has to mix in or the metal is corroded, wetted. Plans of older engines lack it. */
  wet_s: z.number().nullable().optional(),
  peak_C: z.number(),
  /** Melting range of what is in it. */
  solidus_C: z.number().optional(),
  liquidus_C: z.number().optional(),
});

/** Heat into a joint just before it melted, W; negative where it drains. */
const paths = z.strictObject({ tool_W: z.number(), air_W: z.number(), body_W: z.number(), board_W: z.number() });
export type Paths = z.infer<typeof paths>;

const neighbour = z.strictObject({
  partId: z.string(),
  distance_mm: z.number(),
  /** On the other side of the board; hangs too heavy there to stay when its solder melts. */
  far: z.boolean().optional(),
  hangs: z.boolean().optional(),
  /** No method works with it there. */
  takeOut: z.boolean().optional(),
  /** What it stands for some seconds; null where no temperature harms it. */
  limit_C: z.number().nullable(),
  limitPlusMinus_C: z.number(),
  /** Harm until the part is off, share of what it stands, and how much hotter all could have been, K. Plans of older engines lack them. */
  says: z.enum(['hurts', 'may hurt', 'near', 'clear']).optional(),
  /** Null where it is harmed at once. */
  dose: z.number().nullable().optional(),
  margin_K: z.number().nullable().optional(),
  /** Highest temperature until the part is off, or of the whole run when its joints are never wet. */
  atWet_C: z.number(),
  peak_C: z.number(),
  /** When it is harmed. */
  over_s: z.number().nullable(),
  /** When the neighbour's own joints melt, if they do. */
  loosens_s: z.number().nullable(),
});

const fieldFrames = z.strictObject({
  /** Cell edges on the board, mm. */
  x_mm: z.array(z.number()),
  y_mm: z.array(z.number()),
  times_s: z.array(z.number()),
  /** times × ny × nx, row-major, °C, working side. */
  values: z.custom<Float32Array>((v) => v instanceof Float32Array),
});
export type FieldFrames = z.infer<typeof fieldFrames>;

export const planRunSchema = z.strictObject({
  joints: z.array(joint),
  /** All joints molten at the same time, s; null when they never are. */
  allWet_s: z.number().nullable(),
  /** When the first joint freezes again after that (low-melt: the iron has left), if it does. */
  freezes_s: z.number().nullable(),
  /** How long all stay movable after the iron has left, s; null while they still were at the end. Of beads only. */
  hold_s: z.number().nullable().optional(),
  /** From when the heat has left what was put on, or what the part was lifted from, until every joint holds, and until all are solid through, s; null where one does not in two minutes. */
  sets: z
    .strictObject({
      frozen_s: z.number().nullable(),
      solid_s: z.number().nullable(),
      /** What a part was lifted from: until no land is past half of the way from room to melting. */
      warm_s: z.number().nullable().optional(),
    })
    .optional(),
  last: z.strictObject({ terminal: z.string(), why: z.string(), paths: paths.optional() }).nullable(),
  body_C: z.number(),
  pads_C: z.number(),
  neighbours: z.array(neighbour),
  /** Each phase and when it went on, s. Plans of older engines had one. */
  phases: z
    .array(
      z.strictObject({
        id: z.string(),
        from_s: z.number(),
        to_s: z.number(),
        /** Of that time, and of what changing tools before it took, so much the hands had nothing hot on the board, s. */
        hands_s: z.number().optional(),
      }),
    )
    .optional(),
  /** How long something heated until all were loose, or to the end, s; the rest of that time is the hands' own. */
  heat_s: z.number().optional(),
  /** What ends the window first: a limit, a small part loose in the wind, a heavy one falling off the other side, the part's own body. */
  closes: z
    .strictObject({
      at_s: z.number(),
      partId: z.string(),
      why: z.enum(['limit', 'wind', 'falls', 'body']).optional(),
    })
    .nullable(),
  ended_s: z.number(),
  cells: z.number(),
  steps: z.number(),
  frames: fieldFrames.optional(),
  /** What else it does; plans of older engines lack it. */
  outcomes: sideEffectsSchema.optional(),
  /** Heat put in, kept and lost, J, where `books` asked for it. */
  energy: z.strictObject({ input_J: z.number(), stored_J: z.number(), lost_J: z.number() }).optional(),
});
export type PlanRun = z.infer<typeof planRunSchema>;
