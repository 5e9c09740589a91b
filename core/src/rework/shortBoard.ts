/** A board said in a few lines: a kind of the express job, its size, and where parts stand. */
import { z } from 'zod';
import { type BoardModel, boxOnBoard, type PlacedPart } from '../board/index.ts';
import { isLimit } from '../materials/index.ts';
import { packageById, readPackage } from '../packages/index.ts';
import { BOARD_KINDS, hotCopper } from './expressBoard.ts';

const name = z.string().min(1).max(60);
const size_mm = z.number().min(5).max(500);
const place_mm = z.number().min(0).max(500);

export const shortBoardSchema = z
  .strictObject({
    kind: z.enum(Object.keys(BOARD_KINDS) as [keyof typeof BOARD_KINDS]),
    lx_mm: size_mm,
    ly_mm: size_mm,
    thickness_mm: z.number().min(0.2).max(6).optional(),
    /** Id of the solder it is made with. */
    alloy: z.string().max(40).optional(),
    parts: z
      .array(
        z.strictObject({
          id: name,
          package: z.string().transform((text, ctx) => {
            const read = readPackage(text);
            if ('id' in read) return read.id;
            ctx.addIssue({ code: 'custom', message: read.problem });
            return z.NEVER;
          }),
          x_mm: place_mm,
          y_mm: place_mm,
          rotation_deg: z.number().min(-360).max(360).default(0),
          side: z.enum(['top', 'bottom']).default('top'),
          /** A row of the limits table, or a figure of its own: °C, for so many seconds, give or take K. */
          limit: z
            .union([
              z.string().refine(isLimit, { error: 'is not a row of the limits table' }),
              z.strictObject({
                C: z.number().min(30).max(400),
                s: z.number().min(1).max(600).optional(),
                K: z.number().min(0).max(100).optional(),
              }),
            ])
            .optional(),
        }),
      )
      .min(1)
      .max(500),
  })
  .superRefine(({ lx_mm, ly_mm, parts }, context) => {
    for (const [n, { x_mm, y_mm }] of parts.entries())
      if (x_mm > lx_mm || y_mm > ly_mm)
        context.addIssue({
          code: 'custom',
          path: ['parts', n, x_mm > lx_mm ? 'x_mm' : 'y_mm'],
          message: 'lies off the board',
        });
  });

export function shortBoard({ kind: k, lx_mm, ly_mm, ...short }: z.infer<typeof shortBoardSchema>): BoardModel {
  const kind = BOARD_KINDS[k];
  const parts = short.parts.map(({ id, limit, ...at }): PlacedPart => {
    const own = typeof limit === 'object' ? { ownLimit: { C: limit.C, ...(limit.s ? { s: limit.s } : {}) } } : {};
    return { partId: id, ...at, ...(typeof limit === 'string' ? { limit } : own) };
  });
  const hot = parts.flatMap((part) => hotCopper(packageById(part.package), (rect) => boxOnBoard(part, rect)));
  const last = kind.stack.length - 1;
  return {
    v: 1,
    name: `${kind.label}, ${lx_mm} × ${ly_mm} mm`,
    outline_mm: [
      [0, 0],
      [lx_mm, 0],
      [lx_mm, ly_mm],
      [0, ly_mm],
    ],
    thickness_mm: short.thickness_mm ?? kind.thickness_mm,
    stack: kind.stack.map(([layer, foil_um, coverage]) => ({ name: layer, foil_um, coverage })),
    copper: hot.flatMap((area) => [
      { ...area, layer: 0, coverage: 1 },
      { ...area, layer: last, coverage: 0.9 },
    ]),
    vias: hot.map((area) => ({ ...area, per_mm2: 0.5 })),
    holes: [],
    parts,
    landmarks: [],
    flipAxis_mm: lx_mm / 2,
    powerSources: [],
    jointAlloy: short.alloy ?? kind.alloy,
  };
}
