/** What diagnosis knows besides the job: circuits, good boards, routines of its kind of board, meters of the kit. */
import type { MeterType, Netlist } from '@orthos/core/circuit';
import type { RoutineStep } from '@orthos/core/diagnosis';
import type { Measured } from '@orthos/core/ground';
import type { ModelHistory, SupplyPoint } from '@orthos/core/job';
import type { JobView } from '../jobs/view.ts';

/** A circuit drawn round a fault of a kind of board. */
export interface Circuit {
  id: string;
  modelId: string;
  name: string;
  netlist: Netlist;
  updatedAt: Date;
  version: number;
}

export interface GoodReading {
  id: string;
  unit: string;
  type: MeterType;
  red: string;
  black: string;
  /** State of power; empty without. */
  state: string;
  value: Measured;
}

export interface GoodStartUp {
  id: string;
  /** Which unit it was. */
  unit: string;
  stages: SupplyPoint[];
}

export interface Routine {
  id: string;
  name: string;
  steps: RoutineStep[];
  version: number;
  /** Kinds of board that it is for. */
  modelIds: string[];
}

/** A meter of the kit: what it and its leads add to a reading. */
interface BenchMeter {
  id: string;
  name: string;
  ohmPercent: number;
  voltPercent: number;
  leadsOhm: number;
}

export interface DiagnoseView extends JobView {
  /** Circuits drawn for this kind of board. */
  circuits: Circuit[];
  /** What good boards of it read. */
  goodReadings: GoodReading[];
  /** What earlier jobs on it knew. */
  history: ModelHistory;
  /** What good units draw as they start, the latest first. */
  goodStartUps: GoodStartUp[];
  /** The shop's routines for it. */
  routines: Routine[];
  meters: BenchMeter[];
}
