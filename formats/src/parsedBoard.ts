/** What a board file says, whatever its form: geometry in the file's own mm frame (y down, seen from the top). */
import type { Side } from '@orthos/core/board';
import type { CopperDrawing } from '@orthos/core/copper';

export interface ParsedPad {
  /** Pad number or name; several pads may share one. */
  number: string;
  x: number;
  y: number;
  /** Size before turning, mm, and angle. */
  w: number;
  h: number;
  angle_deg: number;
  round: boolean;
  /** Diameter of the hole, 0 for none. */
  drill: number;
  net: string;
  /** Whether copper is meant to be soldered to a part (not a mechanical hole). */
  plated: boolean;
}

export interface ParsedFootprint {
  ref: string;
  value: string;
  /** Name of the footprint in its library. */
  name: string;
  side: Side;
  x: number;
  y: number;
  rotation_deg: number;
  pads: ParsedPad[];
  /** Size of the body as drawn, in the footprint's own frame, when it is drawn. */
  body?: { w: number; h: number };
}

export interface ParsedBoard {
  format: string;
  outline: number[];
  cutouts: number[][];
  thickness_mm: number | undefined;
  /** Foil per copper layer, top down; names as in the file. */
  foils: { name: string; foil_um: number | undefined }[];
  copper: CopperDrawing;
  footprints: ParsedFootprint[];
  vias: { x: number; y: number; drill: number }[];
  /** Holes without copper. */
  holes: { x: number; y: number; d: number }[];
  /** What was seen and not taken, with how often. */
  ignored: Record<string, number>;
  /** Sentences about what is doubtful. */
  notes: string[];
  /** Pads counted as the file has them. */
  padCount: number;
}

/** A board of which nothing has been read yet. */
export const unreadBoard = (format: string): ParsedBoard => ({
  format,
  outline: [],
  cutouts: [],
  thickness_mm: undefined,
  foils: [],
  copper: { v: 1, nets: [], layers: [] },
  footprints: [],
  vias: [],
  holes: [],
  ignored: {},
  notes: [],
  padCount: 0,
});
