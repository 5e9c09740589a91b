/**
 * A package as drawing and heat model share it. Local frame: millimetres from the centre, x right, y
 * down, as seen from the top with rotation 0; terminals numbered counter-clockwise from top left.
 */
import { currentLimit, type Mount } from '../materials/index.ts';

/** Depth of the holes whose solder packages tell, mm, and the part of it that stands outside as fillets. */
const HOLE_DEPTH = 1.6;
const HOLE_FILLETS = 0.3;

export interface Rect {
  x: number;
  y: number;
  w: number;
  h: number;
}

export type TerminalKind =
  | 'gull'
  | 'jlead'
  | 'chip'
  | 'leadless'
  | 'castellation'
  | 'pad'
  | 'ball'
  | 'tab'
  | 'leg'
  | 'pin'
  | 'can'
  | 'flex';

export interface Terminal {
  id: string;
  kind: TerminalKind;
  /** Land on the board (centre and size, mm). */
  land: Rect;
  /** Land, ball or pin that is round. */
  round?: true;
  /** Diameter of the plated hole, mm, for through pins. */
  drill_mm?: number;
  /** Metal of the part, for drawing; absent when hidden under the body. */
  lead?: Rect;
  /** Solder of one paste-printed joint (through pins: a filled hole in 1.6 mm), mm³. */
  volume_mm3: number;
  /** Conductance lead to body, W/K. */
  G_W_K: number;
  /** Heat capacity of the metal that melts loose with the joint, J/K. */
  C_add_J_K: number;
}

export const TEXTURES = ['mould', 'ceramic', 'metal', 'plastic', 'glass'] as const;
export type Texture = (typeof TEXTURES)[number];
export const POLARITIES = ['none', 'pin1', 'cathode', 'minus-stripe', 'plus-stripe'] as const;
export type Polarity = (typeof POLARITIES)[number];

/** What a family makes of its parameters: everything but name and origin. */
export interface PackageShape {
  shape: 'rect' | 'round';
  /** Body size and height, stand-off gap below, mm. */
  body: { l: number; w: number; h: number; gap: number };
  texture: Texture;
  polarity: Polarity;
  /** Heat capacity of the body, J/K. */
  C_J_K: number;
  terminals: Terminal[];
  /** Row of the limits table: what the body itself stands. */
  limit: string;
}

export interface PackageModel extends PackageShape {
  id: string;
  label: string;
  family: string;
  /** Further words by which it is found. */
  words: string;
  /** Spread of real parts round these figures: sizes in mm, heat figures as a fraction. */
  plusMinus: { mm: number; heat: number };
  /** Where the numbers are from. */
  source: string;
}

/** Solder of a joint on a board of this thickness, mm³: a hole is as deep as its board. */
export function solderVolume({ volume_mm3, drill_mm }: Terminal, thickness_mm: number): number {
  return drill_mm ? volume_mm3 * (HOLE_FILLETS + (1 - HOLE_FILLETS) * (thickness_mm / HOLE_DEPTH)) : volume_mm3;
}

/** How it is mounted, for what depends on that. */
export function mountOf({ terminals }: Pick<PackageShape, 'terminals'>): Mount {
  if (terminals.length === 0) return 'none';
  return terminals.some((t) => t.drill_mm) ? 'pins' : 'flat';
}

/** What a name of the limits table means for this package. */
export function limitOfPackage(p: Pick<PackageShape, 'terminals' | 'shape' | 'body'>, id: string): string {
  const { l, w, h } = p.body;
  return currentLimit(id, {
    mount: mountOf(p),
    round: p.shape === 'round',
    l: Math.max(l, w),
    h,
    joints: p.terminals.length,
  });
}

/** Sides on which terminals stand: decides which methods are possible. */
export function terminalSides(p: PackageModel): number {
  const sides = new Set(
    p.terminals
      .filter((t) => t.kind !== 'pad')
      .map(({ land }) =>
        Math.abs(land.x) / (p.body.l / 2) > Math.abs(land.y) / (p.body.w / 2)
          ? `x${Math.sign(land.x)}`
          : `y${Math.sign(land.y)}`,
      ),
  );
  return sides.size;
}

/** Box round body, leads and lands in the local frame, mm. */
export function extentOf(p: PackageShape): { x0: number; x1: number; y0: number; y1: number } {
  const rects = [
    { x: 0, y: 0, w: p.body.l, h: p.body.w },
    ...p.terminals.flatMap((t) => (t.lead ? [t.land, t.lead] : [t.land])),
  ];
  return {
    x0: Math.min(...rects.map((r) => r.x - r.w / 2)),
    x1: Math.max(...rects.map((r) => r.x + r.w / 2)),
    y0: Math.min(...rects.map((r) => r.y - r.h / 2)),
    y1: Math.max(...rects.map((r) => r.y + r.h / 2)),
  };
}
