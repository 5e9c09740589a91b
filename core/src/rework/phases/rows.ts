/** Rows of joints as a tip comes to them, and what a bead along them brings. */
import { packageById, type Rect } from '../../packages/index.ts';

/** Lands in line within this, mm. */
const IN_LINE = 0.05;

/**
 * The side of the part that a land lies on, among all its lands: that of the row it stands in. End lands of a row (a flex tail's) are no side
 * of their own.
 */
export function sideOf(land: Rect, lands: readonly Rect[]): string {
  const inLine = (key: 'x' | 'y') => lands.filter((r) => Math.abs(r[key] - land[key]) < IN_LINE).length;
  const [below, beside] = [inLine('x'), inLine('y')];
  if (lands.length > 2 && below !== beside) return below > beside ? `x${Math.sign(land.x)}` : `y${Math.sign(land.y)}`;
  const [mx, my] = [Math.max(...lands.map((r) => Math.abs(r.x))), Math.max(...lands.map((r) => Math.abs(r.y)))];
  const upright = Math.abs(land.x) / (mx || 1) >= Math.abs(land.y) / (my || 1);
  return upright ? `x${Math.sign(land.x)}` : `y${Math.sign(land.y)}`;
}

const hidden = (kind: string) => kind === 'pad' || kind === 'ball';

/** Sides with joints that a tip can reach. */
export function sidesOf(joints: readonly { terminal: { kind: string; land: Rect } }[]): string[] {
  const lands = joints.map((j) => j.terminal.land);
  return [...new Set(joints.filter((j) => !hidden(j.terminal.kind)).map((j) => sideOf(j.terminal.land, lands)))];
}

/** How many sides of a package a tip can come to, and whether all its joints are pins. */
export function reachOf(packageId: string): { sides: number; pins: boolean } {
  const { terminals } = packageById(packageId);
  return {
    sides: sidesOf(terminals.map((terminal) => ({ terminal }))).length,
    pins: terminals.length > 0 && terminals.every((t) => t.kind === 'pin'),
  };
}

/** What no tip can reach of a package, in words; undefined where it reaches all. */
export function outOfReach(packageId: string): string | undefined {
  const { terminals } = packageById(packageId);
  if (terminals.some((t) => t.kind === 'ball')) return 'the balls under the body';
  return terminals.some((t) => t.kind === 'pad') ? 'the pad under the body' : undefined;
}

export interface Row {
  /** Ids of the terminals that stand in it. */
  terminals: string[];
  length_mm: number;
  /** Of the deepest land, across the row. */
  depth_mm: number;
}

/** The rows of a package that a tip can come to. */
export function rowsOf(packageId: string): Row[] {
  const open = packageById(packageId).terminals.filter((t) => !hidden(t.kind));
  const lands = open.map((t) => t.land);
  const sides = lands.map((land) => sideOf(land, lands));
  return [...new Set(sides)].map((side) => {
    const row = open.filter((_, i) => sides[i] === side);
    const upright = side.startsWith('x');
    const ends = row.flatMap(({ land: { x, y, w, h } }) => (upright ? [y - h / 2, y + h / 2] : [x - w / 2, x + w / 2]));
    return {
      terminals: row.map((t) => t.id),
      length_mm: Math.max(...ends) - Math.min(...ends),
      depth_mm: Math.max(...row.map(({ land }) => (upright ? land.w : land.h))),
    };
  });
}

/** What a bead along every row brings to each joint, mm³ by terminal, and in all; joints under the body get none. */
export function beadOn(
  packageId: string,
  bead_mm3_mm: number,
): { all_mm3: number; each_mm3: ReadonlyMap<string, number> } {
  const rows = rowsOf(packageId).map((row) => ({ ...row, mm3: bead_mm3_mm * row.length_mm }));
  return {
    all_mm3: rows.reduce((sum, row) => sum + row.mm3, 0),
    each_mm3: new Map(rows.flatMap((row) => row.terminals.map((id) => [id, row.mm3 / row.terminals.length]))),
  };
}
