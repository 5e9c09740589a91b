/**
 * The board model document. Millimetres in one frame for both sides: x right, y down as seen from the
 * top; rotation counter-clockwise as seen from the top. Bottom parts keep top-frame positions; their
 * local x is negated before rotation. Stacks and layer lists run from the top down.
 */
import { z } from 'zod';
import { SOURCE_KINDS } from '../job/events.ts';
import { NEIGHBOUR_LIMITS } from '../materials/limits.ts';
import { packageTrouble } from '../packages/index.ts';

const coordinate = z.number().min(-2000).max(2000);
const point = z.tuple([coordinate, coordinate]);
const fraction = z.number().min(0).max(1);
const side = z.enum(['top', 'bottom']);
const shortText = z.string().max(200);

/** A library row or a designation (see `packages/library`). */
const packageName = z
  .string()
  .max(300)
  .superRefine((id, ctx) => {
    const trouble = packageTrouble(id);
    if (trouble) ctx.addIssue({ code: 'custom', message: trouble });
  });

const partSchema = z.strictObject({
  partId: z.string().min(1).max(60),
  ref: z.string().max(20).optional(),
  package: packageName,
  x_mm: coordinate,
  y_mm: coordinate,
  rotation_deg: z.number().min(-360).max(360),
  side,
  what: shortText.optional(),
  value: shortText.optional(),
  /** Row of the limits table when the part is more delicate than its package says. */
  limit: z
    .string()
    .refine((id) => NEIGHBOUR_LIMITS.has(id), { error: 'is not a row of the limits table' })
    .optional(),
  /** Terminal → net, for the terminals that matter. */
  nets: z.record(z.string(), z.string().max(60)).optional(),
});

const rectangle = z.strictObject({
  x_mm: coordinate,
  y_mm: coordinate,
  w_mm: z.number().positive(),
  h_mm: z.number().positive(),
});

export const boardModelSchema = z.strictObject({
  v: z.literal(1),
  name: z.string().min(1).max(120),
  outline_mm: z.array(point).min(3).max(5000),
  thickness_mm: z.number().min(0.2).max(6),
  /** Copper layers, top down: foil thickness and coverage outside the patches. */
  stack: z
    .array(z.strictObject({ name: shortText, foil_um: z.number().positive().max(500), coverage: fraction }))
    .min(1)
    .max(16),
  /** Areas where one layer's coverage differs; later patches win. */
  copper: z.array(rectangle.extend({ layer: z.int().min(0).max(15), coverage: fraction })).max(5000),
  /** Areas with plated vias, per square millimetre. */
  vias: z.array(rectangle.extend({ per_mm2: z.number().nonnegative().max(20) })).max(5000),
  holes: z
    .array(z.strictObject({ x_mm: coordinate, y_mm: coordinate, d_mm: z.number().positive().max(100) }))
    .max(2000),
  parts: z.array(partSchema).max(5000),
  landmarks: z
    .array(z.strictObject({ id: z.string().max(60), x_mm: coordinate, y_mm: coordinate, label: shortText }))
    .max(50),
  /** The view of the bottom is mirrored about this upright line. */
  flipAxis_mm: coordinate,
  /** What can feed this board with power. */
  powerSources: z
    .array(z.strictObject({ id: z.string().max(60), label: shortText, kind: z.enum(SOURCE_KINDS).optional() }))
    .max(20),
  /** Supplies to measure for a short before power, where, and what is healthy there. */
  rails: z
    .array(
      z.strictObject({
        id: z.string().max(60),
        label: z.string().min(1).max(120),
        partId: z.string().max(60),
        terminal: z.string().max(20),
        good_ohm: z.number().positive().optional(),
        nature: z.strictObject({ why: z.string().min(1).max(200), least_ohm: z.number().positive() }).optional(),
      }),
    )
    .max(50)
    .optional(),
  /** What plugs on and can be left off for a first power-up. */
  loads: z
    .array(z.strictObject({ id: z.string().max(60), label: z.string().min(1).max(120) }))
    .max(20)
    .optional(),
  /** Conformal coating over the parts. */
  coating: z.enum(['polyurethane', 'acrylic', 'silicone', 'unknown']).optional(),
  /** What its failure can harm: decides which cautions appear. */
  service: z
    .array(z.enum(['mains', 'vehicle', 'industrial']))
    .max(3)
    .optional(),
  /** Alloy of the joints: row of the solder table. */
  jointAlloy: z.string().max(60),
});

export type BoardModel = z.infer<typeof boardModelSchema>;
export type PlacedPart = BoardModel['parts'][number];
export type Side = z.infer<typeof side>;

/** Width and height of the outline's bounding box and its corner, mm. */
export function boardBounds(board: BoardModel) {
  const xs = board.outline_mm.map(([x]) => x);
  const ys = board.outline_mm.map(([, y]) => y);
  const [x0, y0] = [Math.min(...xs), Math.min(...ys)];
  return { x0, y0, x1: Math.max(...xs), y1: Math.max(...ys) };
}

/** How a part is called on screen: its reference, else what it is. */
export function partName(part: PlacedPart): string {
  return part.ref ?? part.what ?? part.partId;
}
