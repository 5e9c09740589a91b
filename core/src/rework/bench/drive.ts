/**
 * How a phase of work drives a run, as the run sees it. A phase says what comes onto the bench with it (`Stint`); once everything there is
 * known as lumps, it makes its `Drive`, which acts at every step until the next phase takes over. The kinds of phases are in `../phases`.
 */
import type { Composition } from '../../alloys/index.ts';
import type { BoardMesh } from '../../thermal/index.ts';
import type { ReworkCase } from './caseForm.ts';
import type { Lumps, Tip } from './lumps.ts';
import type { StuckOn } from './around.ts';
import type { Wind } from './wind.ts';

/** Air over board and lumps. */
export interface AirOn {
  /** Jet heat transfer and driving temperature at the open board, per column. */
  h: Float64Array;
  wall: Float64Array;
  /** The same for each exposed lump. */
  lumps: { h: number; wall: number; hSide: number }[];
}

/** What a phase may do to the board while it goes on. Joints are numbered as in `lumps.joints`. */
export interface Workpiece {
  /** Molten through, and wetted. */
  isLiquid(joint: number): boolean;
  /** Temperature of a joint, °C. */
  temperature(joint: number): number;
  /** Temperature of the part's body, °C. */
  body_C(): number;
  /** What sat on the part is off. */
  bare(what: StuckOn): void;
  /** Conductance of a link between lumps, W/K. */
  setLink(link: number, G: number): void;
  /** Solder goes into a joint, mm³: its temperature stays, and it has to mix before it is loose. */
  feed(joint: number, alloy: Composition, mm3: number): void;
  /** Solder goes out of a joint, all but this share: its temperature stays. */
  take(joint: number, left: number): void;
  /** Whether the tool has done with a joint. */
  isFreed(joint: number): boolean;
  /** The part comes onto its lands, as warm as the room; until then it was not there. */
  lay(): void;
  /** A joint lets go of the part for good, molten or not: sucked empty, its leg lifted off. */
  free(joint: number): void;
  /** A lead is cut off the body: free, and no heat goes that way any more. */
  cut(joint: number): void;
  /** Alloy of so many mm³ per mm of row lies from joint to joint, of those given, or of all. */
  bridge(bead_mm3_mm: number, joints?: readonly number[]): void;
}

/** What makes a joint the last one, against the others. */
export interface LastJoint {
  /** Share of the tip that it got of what the others got. */
  tip: number;
  /** From where the hand aims, mm: this one, the others on average. */
  far_mm: number;
  others_mm: number;
}

/** Times are counted since the phase began, s. */
export interface Drive {
  /** Until then all loose is not for good: strokes loosen and lose joints by turns, s. */
  readonly settled_s: number;
  /** From then on it heats as it does, to its end, s; absent where something of it still changes by turns. */
  readonly steadyFrom_s?: number;
  /** Joints let go here only when the tool frees them, not by being molten. */
  readonly frees?: true;
  /** What it puts under the board; it stays there in the phases that follow, until the board is left to cool. */
  readonly under?: ReworkCase['under'];
  /** What tips had on each joint so far, W/K·s. */
  readonly touched?: Float64Array;
  /** What its wind does to small parts. */
  readonly wind?: Wind;
  /** Whether a tip is down, and when one last came down somewhere else, or left, s. */
  readonly down: boolean;
  readonly moved_s: number;
  /** Whether joints can turn within a few steps: they are looked at after each. */
  readonly brisk: boolean;
  /** Nothing is left to do: a technician would say so. */
  readonly done?: boolean;
  /** The air that blows at a time; the same object as long as nothing changes. */
  airAt(t: number): AirOn | undefined;
  /** Does what is due when the phase begins. */
  begin?(work: Workpiece): void;
  /** Does what is due at a time; nothing where it is a boundary of the board alone. */
  act?(work: Workpiece, t: number): void;
  /** Takes its tools away. */
  end?(work: Workpiece): void;
  /** Why a joint is last, where nothing of the joint itself says it. */
  lastBecause(joint: LastJoint): string;
}

/** Everything a drive may look at when it is made. */
export interface Scene {
  input: ReworkCase;
  mesh: BoardMesh;
  lumps: Lumps;
  /** The tips of this phase. */
  tips: readonly Tip[];
  /** Where the hand aims, m on the board. */
  at: { x: number; y: number };
}

/** When a phase hands over: joints loose, somewhere up to a temperature (down to it, where the board cools), a time over, or the technician says so. */
export type Until =
  | { loose: 'all' | string[] }
  | { C: number; at: 'board' | 'body' | { x_mm: number; y_mm: number } }
  | { s: number }
  | { told: true };

/** A phase as a run sees it. */
export interface Stint {
  id: string;
  until: Until;
  /** s after which it has failed, and the phase that then takes over; without one the work ends there. */
  giveUp_s: number;
  else?: string;
  /** The hands change tools before it, s; only after another phase. */
  change_s: number;
  /** Irons it brings. */
  tips: readonly { power_W: number; set_C: number }[];
  /** Alloy may lie from joint to joint. */
  bridges: boolean;
  /** The part comes onto its lands here: before, it is not there. */
  lays?: true;
  /** Nothing heats in it: what lay under the board is taken away, and a temperature is one to come down to. */
  cools?: true;
  /** The tools of the phase before it stay on for so long, s. */
  stays_s?: number;
  /** What is hottest of it, °C. */
  hottest_C: number;
  drive(scene: Scene): Drive;
}
