/** A set of parts of one board: what becomes of each, in which order they are done. */
import { z } from 'zod';
import {
  guideSchema,
  methodSchema,
  reworkPlaceSchema,
  shopLimitsSchema,
  stationSchema,
  surroundingsSchema,
} from '../rework/index.ts';
import { FATES, STAGES } from './fates.ts';

const place = reworkPlaceSchema.shape;
const partId = z.string().min(1).max(60);
const MOST_PARTS = 60;

export const setInput = z
  .strictObject({
    board: place.board,
    kit: place.kit,
    set: z
      .array(
        z.strictObject({
          partId,
          do: z.enum(FATES),
          /** By its id, as it is usual; or as it is set. The best of this bench where nothing is said. */
          method: z.union([z.string().max(60), methodSchema]).optional(),
          /** Parts that have to come first. */
          after: z.array(partId).max(MOST_PARTS).optional(),
        }),
      )
      .min(1)
      .max(MOST_PARTS),
    stage: z.enum(STAGES),
    ambient_C: place.ambient_C,
    surroundings: place.surroundings,
    /** The station as it is known; as usual without. Rows of the limits table as this shop wants them. */
    station: stationSchema.optional(),
    limits: shopLimitsSchema.optional(),
    /** Ways this shop does not work by. */
    never: z.array(z.string().max(60)).max(60).optional(),
    pace: place.pace,
    seed: place.seed,
    /** Done in this order instead of the best. */
    order: z.array(partId).max(MOST_PARTS).optional(),
    /** What went already, in its order: when its heat came on, and how long until it was off, s. */
    did: z
      .array(
        z.strictObject({
          partId,
          start_s: z.number().min(0).max(1e6),
          loose_s: z.number().min(0).max(1e5),
        }),
      )
      .max(MOST_PARTS)
      .optional(),
    /** How many of the best orders are run through with the heat they carry; none: all of it by adding single runs. */
    finalists: z.int().min(0).max(5).default(5),
  })
  .superRefine(({ board, set, order, did }, context) => {
    const issue = (path: (string | number)[], message: string) => context.addIssue({ code: 'custom', path, message });
    const parts = new Set(board.parts.map((p) => p.partId));
    const own = new Set<string>();
    for (const [n, item] of set.entries()) {
      if (!parts.has(item.partId)) issue(['set', n, 'partId'], `the board has no part "${item.partId}"`);
      if (own.has(item.partId)) issue(['set', n, 'partId'], 'is listed twice');
      own.add(item.partId);
    }
    for (const [n, item] of set.entries())
      for (const [k, a] of (item.after ?? []).entries())
        if (!own.has(a)) issue(['set', n, 'after', k], `"${a}" is not in the set`);
    for (const [field, ids] of [
      ['order', order],
      ['did', did?.map((d) => d.partId)],
    ] as const)
      for (const [n, id] of (ids ?? []).entries()) if (!own.has(id)) issue([field, n], `"${id}" is not in the set`);
    if (order && new Set(order).size !== order.length) issue(['order'], 'names a part twice');
  });
export type SetInput = z.infer<typeof setInput>;

const seconds = z.number().nullable();
const worst = z.strictObject({ partId, margin_K: z.number() }).nullable();

const legSchema = z.strictObject({
  partId,
  op: z.enum(['remove', 'prepare', 'fit']),
  /** On the clock of the whole: hands begin on it, its heat comes on, hands are free. */
  from_s: z.number(),
  start_s: z.number(),
  end_s: z.number(),
  /** Hottest land, or body, when it starts. */
  start_C: z.number(),
  /** Waited for the board to cool. */
  rest_s: z.number(),
  flip: z.boolean(),
  tool: z.string(),
  method: z.string().nullable(),
  /** From when its heat comes on; null where there is none, or it never comes loose. */
  loose_s: seconds,
  /** The same from cold, by itself. */
  cold_s: seconds,
  minutes: z.number(),
  worst,
  /** Who has to be how cool before it begins. */
  restFor: z.array(z.strictObject({ partId, C: z.number() })),
  /** What hands are told of it; null where nothing was run through. */
  guide: guideSchema.nullable(),
  /** The board where the part stands, while hands get to it. */
  curve: z.array(z.strictObject({ s: z.number(), C: z.number() })),
});

export const setOutput = z.strictObject({
  order: z.array(legSchema),
  minutes: z.number(),
  list_minutes: z.number(),
  nearest_minutes: z.number(),
  /** Methods as they were computed. */
  methods: z.array(
    z.strictObject({
      partId,
      op: z.enum(['remove', 'fit']),
      method: methodSchema,
      covers: surroundingsSchema.shape.covers,
    }),
  ),
  /** What cannot be done here, and why. */
  cannot: z.array(z.strictObject({ partId, op: z.enum(['remove', 'fit']), why: z.string() })),
});
export type SetOrder = z.infer<typeof setOutput>;
