/**
 * The board model document. Millimetres in one frame for both sides: x right, y down as seen from the
 * top; rotation counter-clockwise as seen from the top. Bottom parts keep top-frame positions; their
 * local x is negated before rotation. Stacks and layer lists run from the top down.
 */
import { z } from 'zod';
import { isLimit, LAMINATES, ownLimitSchema } from '../materials/index.ts';
import { packageTrouble } from '../packages/index.ts';

/** What can feed a board; `none` says that nothing can. */
export const SOURCE_KINDS = ['lead', 'cell', 'capacitor', 'mains', 'none'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];

/** What comes off, or is undone, before a board can be worked on; `pry` is a spot where a lever does no harm. */
export const OPENING_KINDS = ['screw', 'clip', 'pry', 'cable', 'frame', 'shield', 'heatsink', 'glue', 'other'] as const;
export type OpeningKind = (typeof OPENING_KINDS)[number];

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
  limit: z.string().refine(isLimit, { error: 'is not a row of the limits table' }).optional(),
  /** What its own papers say it stands: °C, and for how many seconds; a rating where a fuse has one printed on it. */
  ownLimit: ownLimitSchema.optional(),
  /** Terminal → net, for the terminals that matter. */
  nets: z.record(z.string().max(20), z.string().max(120)).optional(),
  /** Terminals whose lands are missing by design: not to be taken for torn ones. */
  noLand: z.array(z.string().max(20)).max(400).optional(),
  /** Stands in the way of an iron at its neighbours, as the technician saw it. */
  blocksIron: z.boolean().optional(),
});

/** Copper over the board inside each cell of an even grid, row by row as base64 bytes 0 … 255. */
const coverageGrid = z
  .strictObject({
    layer: z.int().min(0).max(63),
    x_mm: coordinate,
    y_mm: coordinate,
    cell_mm: z.number().min(0.1).max(50),
    nx: z.int().min(1).max(2000),
    ny: z.int().min(1).max(2000),
    data: z.base64().max(200_000),
  })
  .refine((g) => g.nx * g.ny <= 100_000 && g.data.length === 4 * Math.ceil((g.nx * g.ny) / 3), {
    error: 'does not hold nx × ny bytes',
  });

/** A photo laid under the board: which one, and where its pixels lie. */
const boardPhoto = z.strictObject({
  photoId: z.uuid(),
  side,
  w_px: z.int().min(1).max(10_000),
  h_px: z.int().min(1).max(10_000),
  /** Row-major 3 × 3 homography from pixels to board millimetres; absent until it is placed. */
  toBoard: z.array(z.number()).length(9).optional(),
  /** One pixel at the middle of the photo, and how well that is known, mm. */
  pixel_mm: z.number().positive().optional(),
  pixelPlusMinus_mm: z.number().nonnegative().optional(),
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
  /** What is cut out of it. */
  cutouts_mm: z.array(z.array(point).min(3).max(5000)).max(500).optional(),
  thickness_mm: z.number().min(0.2).max(6),
  /** Copper layers, top down: foil thickness and coverage outside the patches. */
  stack: z
    .array(z.strictObject({ name: shortText, foil_um: z.number().positive().max(500), coverage: fraction }))
    .min(1)
    .max(32),
  /** Coverage measured from the copper itself; takes the place of the stack's figure, patches still win. */
  coverage: z.array(coverageGrid).max(32).optional(),
  /** Content hash of the copper drawing kept beside this document. */
  drawing: z.string().max(80).optional(),
  /** Areas where one layer's coverage differs; later patches win. */
  copper: z.array(rectangle.extend({ layer: z.int().min(0).max(31), coverage: fraction })).max(5000),
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
  photos: z.array(boardPhoto).max(8).optional(),
  /** What must come off, in this order, before the board can be worked on. */
  opening: z
    .array(
      z.strictObject({
        id: z.string().max(60),
        kind: z.enum(OPENING_KINDS),
        what: shortText,
        x_mm: coordinate.optional(),
        y_mm: coordinate.optional(),
        side: side.optional(),
      }),
    )
    .max(100)
    .optional(),
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
  /** Kind of laminate: decides from where it is soft and how long it stands heat. */
  laminate: z.enum(LAMINATES).optional(),
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
