/**
 * From where a tool and a hand come to a part, by what stands round it: hours of a clock on the board as seen from the working side, 12 at its upper
 * edge. Geometry alone; what air does to neighbours is in rows round a plan (`around.ts`).
 */
import { bodyRect, type BoardModel, cornersOnBoard, type PlacedPart, toBoard } from '../board/index.ts';
import { gripOf, packageById } from '../packages/index.ts';

/** A nozzle that leans stands so far from upright. */
export const LEAN_DEG = 30;
/** The hour of a lean as air is set: 0 from the right, 90 from the upper edge. */
export const hourOf = (approach_deg: number): number => ((((3 - approach_deg / 30 + 11) % 12) + 12) % 12) + 1;
export const HOURS_DEG: readonly number[] = Array.from({ length: 12 }, (_, n) => 30 * n);

/**
 * A tool over the board: how steep it stands, its half width at its point and how fast it widens, mm. Measures of pencil irons, twin tips and tweezers
 * as they lie in the hand; estimates.
 */
const TOOLS = {
  iron: { slope_deg: 40, half_mm: 1.5, widens: 0.15 },
  tweezers: { slope_deg: 60, half_mm: 2, widens: 0.15 },
  grip: { slope_deg: 65, half_mm: 0.8, widens: 0.08 },
} as const;
export type ApproachTool = keyof typeof TOOLS;

/** A tool is looked at so far out, mm: what stands further off is over its handle's height. */
const REACH_MM = 40;
/** What a technician marked as in the way of irons is taken for as tall as this. */
const BLOCKS_MM = 30;

export interface Hour {
  /** 1 to 12. */
  hour: number;
  /** Who stands in the way; undefined where nobody does. */
  blockedBy?: string;
}

/** The direction of an hour on the board: x right, y down; mirrored for parts that are worked at from behind. */
const towards = (hour: number, side: PlacedPart['side']): [number, number] => {
  const a = ((3 - hour) * 30 * Math.PI) / 180;
  return [(side === 'bottom' ? -1 : 1) * Math.cos(a), -Math.sin(a)];
};

const spanOf = (points: readonly (readonly [number, number])[], [ux, uy]: readonly [number, number]) => {
  const along = points.map(([x, y]) => x * ux + y * uy);
  return { from: Math.min(...along), to: Math.max(...along) };
};

/** Which hours a tool can come from to reach a part's edge. `absent`: off the board meanwhile. */
export function hoursFor(
  board: BoardModel,
  target: PlacedPart,
  tool: ApproachTool,
  absent: readonly string[] = [],
): Hour[] {
  const { slope_deg, half_mm, widens } = TOOLS[tool];
  const rise = Math.tan((slope_deg * Math.PI) / 180);
  const own = cornersOnBoard(target, bodyRect(target));
  const others = board.parts.filter(
    (p) => p.side === target.side && p.partId !== target.partId && !absent.includes(p.partId),
  );
  return Array.from({ length: 12 }, (_, n): Hour => {
    const hour = n + 1;
    const u = towards(hour, target.side);
    const v: [number, number] = [-u[1], u[0]];
    const [edge, middle] = [spanOf(own, u).to, spanOf(own, v)];
    const axis = (middle.from + middle.to) / 2;
    const inWay = others.filter((p) => {
      const corners = cornersOnBoard(p, bodyRect(p));
      const [ahead, beside] = [spanOf(corners, u), spanOf(corners, v)];
      const d = Math.max(0, ahead.from - edge);
      if (ahead.to <= edge || d > REACH_MM) return false;
      const half = half_mm + widens * d;
      if (beside.to < axis - half || beside.from > axis + half) return false;
      const height = tool !== 'grip' && p.blocksIron ? BLOCKS_MM : packageById(p.package).body.h;
      // the tool's lower side over the near edge of what stands there
      return height > d * rise - half_mm + LOW_MM;
    });
    const tall = inWay.toSorted((a, b) => packageById(b.package).body.h - packageById(a.package).body.h).at(0);
    return { hour, ...(tall ? { blockedBy: tall.partId } : {}) };
  });
}

/** A part so low beside the point of a tool is no obstacle: it is passed over. */
const LOW_MM = 1.5 + 0.6;

/** How a part is taken hold of once it is loose: where its faces are free of legs and two jaws find room across from each other. */
export interface Hold {
  by: 'body' | 'leg' | 'cup' | 'pick';
  /** Of the jaws, or of the hand. */
  hours: number[];
  tool: string;
}

/** The hour that a direction in a part's own frame points to. */
function hourTo(part: PlacedPart, x: number, y: number): number {
  const [bx, by] = toBoard(part, x, y);
  const right = (part.side === 'bottom' ? -1 : 1) * (bx - part.x_mm);
  const deg = (Math.atan2(part.y_mm - by, right) * 180) / Math.PI;
  return ((((Math.round(3 - deg / 30) - 1) % 12) + 12) % 12) + 1;
}
const opposite = (hour: number): number => ((hour + 5) % 12) + 1;

/** By the body where its free faces have room, else by suction on its top, by a leg where jaws do get down, or with a pick from the freest side. */
export function holdFor(board: BoardModel, target: PlacedPart, absent: readonly string[] = []): Hold {
  const { faces, tool } = gripOf(packageById(target.package));
  const { terminals } = packageById(target.package);
  const free = new Set(hoursFor(board, target, 'grip', absent).flatMap((h) => (h.blockedBy ? [] : [h.hour])));
  const [x, y] = [hourTo(target, 1, 0), hourTo(target, 0, 1)];
  const axes = { 'both sides': [x], 'both ends': [y], 'any two opposite': [x, y], 'top only': [] }[faces];
  const body = axes.find((hour) => free.has(hour) && free.has(opposite(hour)));
  const cup = tool === 'vacuum cup';
  if (body !== undefined && !cup) return { by: 'body', hours: [body, opposite(body)], tool };
  if (cup) return { by: 'cup', hours: [], tool };
  const leg = terminals.some((t) => t.kind === 'gull')
    ? [x, y, opposite(x), opposite(y)].find((h) => free.has(h))
    : undefined;
  if (leg !== undefined) return { by: 'leg', hours: [leg], tool: 'fine tweezers' };
  return { by: 'pick', hours: [...free].slice(0, 1), tool: 'pick, and a cup on its top' };
}
