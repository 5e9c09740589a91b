/** What is on the bench in front of the technician: shared by the stage and the step's panel of one job. */
import type { Side } from '@orthos/core/board';
import type { Netlist } from '@orthos/core/circuit';
import type { Place } from '@orthos/core/ground';
import type { FieldFrames } from '@orthos/core/rework';
import type { StageTool } from '$lib/stage/view';
import type { Isotherm } from '$lib/stage/heatLayer';
import { getContext, setContext } from 'svelte';

export type Lens = 'parts' | 'copper' | 'readings' | 'heat' | 'circuit';
export const LENS_NAMES: Record<Lens, string> = {
  parts: 'Parts',
  copper: 'Copper',
  readings: 'Readings',
  heat: 'Heat',
  circuit: 'Circuit',
};

export interface Callout {
  id: string;
  x_mm: number;
  y_mm: number;
  side: Side;
  title: string;
  detail: string;
  tone: 'hot' | 'evidence' | 'stop';
}

/** Damage on the board: strokes in board millimetres, or only a place. */
export interface PenMark {
  id: string;
  /** There before, done here, or being drawn. */
  tone: 'found' | 'ours' | 'now';
  side: Side;
  strokes: [number, number][][];
  at?: [number, number];
  label: string;
}

export interface HeatOnStage {
  frames: FieldFrames;
  side: Side;
  isotherms: Isotherm[];
}

/** The chosen method's times, for the scrubber. */
export interface MeltTimes {
  /** When each joint is molten, s. */
  joints: number[];
  allWet: number | null;
  allWetRange: { from: number | null; to: number | null };
  closes: number | null;
  closedBy: string;
  end: number;
}

export class Desk {
  side = $state<Side>('top');
  lens = $state<Lens>('parts');
  /** Copper layer shown by the copper lens, from the top; null: the side that is seen. */
  layer = $state<number | null>(null);
  /** Net that is lit up. */
  net = $state<string | null>(null);
  /** Selected part. */
  selected = $state<string | null>(null);
  /** Where the next reading or observation belongs. */
  place = $state<Place | null>(null);
  /** Where the next reading is to be taken. */
  probeNext = $state.raw<Place | null>(null);
  /** Where its other probe goes; `red`: the meter's red one is the other one. */
  otherProbe = $state.raw<{ place: Place; red: boolean } | null>(null);
  /** Circuit shown by the circuit lens. */
  netlist = $state.raw<Netlist | null>(null);
  /** Takes the pointer on the board before the stage does. */
  tool = $state.raw<StageTool | undefined>(undefined);
  /** Damage as it was marked, and what the pen draws now. */
  penMarks = $state.raw<PenMark[]>([]);
  callouts = $state.raw<Callout[]>([]);
  heat = $state.raw<HeatOnStage | null>(null);
  melt = $state.raw<MeltTimes | null>(null);
  /** Seconds on the scrubber. */
  time = $state(0);
  /** Joints of the target that melt last, drawn hot. */
  marked = $state.raw<{ partId: string; terminal: string } | null>(null);
}

const KEY = Symbol('desk');
export const provideDesk = () => setContext(KEY, new Desk());
export const useDesk = () => getContext<Desk>(KEY);
