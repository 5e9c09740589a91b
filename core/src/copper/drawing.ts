/**
 * Copper as it lies on a board: strokes, areas and discs per layer, in board millimetres. Kept beside the board
 * model (which holds what heat needs: coverage), for the copper lens and for lighting up a net.
 */
import { z } from 'zod';

const number = z.number().min(-5000).max(5000);
const net = z.int().min(-1).max(200_000);
const erase = z.literal(1).optional();

const shapeSchema = z.discriminatedUnion('k', [
  /** Stroke with round ends along x0, y0, x1, y1, …, of width `w`. */
  z.strictObject({ k: z.literal('line'), n: net, w: z.number().nonnegative().max(500), p: z.array(number), e: erase }),
  /** Closed rings x0, y0, x1, y1, …; even-odd. */
  z.strictObject({ k: z.literal('area'), n: net, r: z.array(z.array(number)), e: erase }),
  z.strictObject({
    k: z.literal('disc'),
    n: net,
    x: number,
    y: number,
    d: z.number().nonnegative().max(500),
    e: erase,
  }),
]);

export const copperDrawingSchema = z.strictObject({
  v: z.literal(1),
  nets: z.array(z.string().max(200)).max(200_000),
  /** Top down, as the board's stack; shapes in the order in which they are laid (`e: 1` takes copper away). */
  layers: z.array(z.strictObject({ name: z.string().max(200), shapes: z.array(shapeSchema).max(1_000_000) })).max(64),
});

/** `n` is an index into `nets`, −1 for no net. */
export type CopperShape = z.infer<typeof shapeSchema>;
export type CopperDrawing = z.infer<typeof copperDrawingSchema>;

/** A tenth of a micrometre is finer than any board. */
const round = (v: number) => Math.round(v * 1e4) / 1e4;

/** Moves a shape, mm, where it stands: there may be hundreds of thousands. */
export function moveShape(s: CopperShape, dx: number, dy: number): void {
  const move = (p: number[]) => {
    for (let i = 0; i < p.length; i++) p[i] = round(p[i] + (i % 2 ? dy : dx));
  };
  if (s.k === 'disc') {
    s.x = round(s.x + dx);
    s.y = round(s.y + dy);
  } else if (s.k === 'line') move(s.p);
  else s.r.forEach(move);
}
