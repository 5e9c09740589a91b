/** What an operation is made from: the part where it is, the method, what is in the joints, the shop's rule. */
import type { JointState, Method, PartOff, Surroundings, Workplace } from '../rework/index.ts';
import type { Flood } from './flood.ts';
import type { Said } from './laps.ts';
import type { Supplies } from './supplies.ts';

export interface Work extends Workplace {
  method: Method;
  /** What was said of the target's joints: spikes, rests of an earlier repair. */
  joints?: readonly JointState[];
  /** Parts that could suffer by the plan, as their names on the board, the worst first. */
  atRisk?: readonly string[];
  /** What the plan counts on round the part. */
  surroundings?: Surroundings;
  /** The shop's rule. */
  flood?: Flood;
  /** Lands with bare copper beside them. */
  bare?: readonly string[];
  /** The way it is to go on again, where one was chosen. */
  fitBy?: string;
  /** What the bench has besides its tools; everything where nothing is said. */
  supplies?: Supplies;
  /** As 2026-11-30. */
  today?: string;
  /** Where the part goes that comes off, as it is written on it. */
  place?: string;
  /** How hot its body gets by the plan. */
  heat?: PartOff['heat'];
  /** What hands have said of joints so far. */
  said?: Said;
  /** Joints that earlier work freed, before it was given up. */
  freed?: readonly string[];
}
