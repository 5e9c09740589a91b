/** What an operation is made from: the part where it is, the method, what is in the joints, the shop's rule. */
import type { JointState, Method, Workplace } from '../rework/index.ts';
import type { Flood } from './flood.ts';
import type { Said } from './laps.ts';

export interface Work extends Workplace {
  method: Method;
  /** What was said of the target's joints: spikes, rests of an earlier repair. */
  joints?: readonly JointState[];
  /** The shop's rule. */
  flood?: Flood;
  /** What hands have said of joints so far. */
  said?: Said;
}
