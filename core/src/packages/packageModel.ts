/**
 * A package as drawing and heat model share it. Local frame: millimetres from the centre, x right, y
 * down, as seen from the top with rotation 0; terminals numbered counter-clockwise from top left.
 */
export interface Rect {
  x: number;
  y: number;
  w: number;
  h: number;
}

type TerminalKind = 'gull' | 'chip' | 'leadless' | 'pad' | 'tab' | 'leg' | 'pin' | 'can';

export interface Terminal {
  id: string;
  kind: TerminalKind;
  /** Land on the board (centre and size, mm). */
  land: Rect;
  /** Metal of the part, for drawing; absent when hidden under the body. */
  lead?: Rect;
  /** Solder of one paste-printed joint, mm³. */
  volume_mm3: number;
  /** Conductance lead to body, W/K. */
  G_W_K: number;
  /** Heat capacity of the metal that melts loose with the joint, J/K. */
  C_add_J_K: number;
}

export type Texture = 'mould' | 'ceramic' | 'metal' | 'plastic' | 'glass';
export type Polarity = 'none' | 'pin1' | 'cathode' | 'minus-stripe' | 'plus-stripe';

export interface PackageModel {
  id: string;
  label: string;
  shape: 'rect' | 'round';
  /** Body size and height, stand-off gap below, mm. */
  body: { l: number; w: number; h: number; gap: number };
  texture: Texture;
  polarity: Polarity;
  /** Heat capacity of the body, J/K. */
  C_J_K: number;
  /** Heat capacity and link of a metal tab that hangs on the body, when there is one. */
  terminals: Terminal[];
  /** Row of the limits table that the body itself has to keep as a neighbour. */
  limit: string;
  /** Where the numbers are from. */
  source: string;
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
