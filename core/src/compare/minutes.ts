/** Minutes at the bench for taking a part off one way, and the lands made ready after it; rates of 17-hands (docs/physics/hands.md). */
import { packageById } from '../packages/index.ts';
import {
  BOARD_HOLD_S,
  COVER_S,
  FLUX_S,
  kindOf,
  LIFT_S,
  LOOK_JOINT_S,
  ORIENT_S,
  type Phase,
  placing_s,
  ROUND_S,
  rowsOf,
  SET_UP,
  type Surroundings,
  TIN_S,
  WASH_S,
} from '../rework/index.ts';

type Covers = Surroundings['covers'];
export type Tool = keyof typeof SET_UP;

/** Tools of the work, each once, in the order they are taken up. */
export const toolsOf = (phases: readonly Phase[]): Tool[] => [...new Set(phases.map((p) => kindOf(p).tool))];

const setUp_s = (phases: readonly Phase[]) => toolsOf(phases).reduce((sum, t) => sum + SET_UP[t], 0);
const terminalsOf = (packageId: string) => packageById(packageId).terminals.length;
const flux_s = (packageId: string) => FLUX_S.part + FLUX_S.land * terminalsOf(packageId);

/** Hands until the heat comes onto a part that comes off: covers and flux, s. */
export const beforeOff_s = (packageId: string, covers: Covers): number =>
  (covers ?? []).reduce((sum, c) => sum + COVER_S[c.kind], 0) + flux_s(packageId);

/** Lands made ready: rounds of solder and braid, washed, s. */
export function clean_s(packageId: string, rounds: number): number {
  const row = rowsOf(packageId).reduce((sum, r) => sum + ROUND_S.row + ROUND_S.mm * r.length_mm, 0);
  return rounds * row + WASH_S;
}

/** Hands until the heat comes onto a part that goes on: lands laid, flux, the part turned and placed, s. */
export function beforeOn_s(phases: readonly Phase[], packageId: string, covers: Covers): number {
  const terminals = terminalsOf(packageId);
  const laid = phases.reduce((sum, p) => {
    if (p.kind === 'paste' || (p.kind === 'tin' && !p.settings.one)) return sum + TIN_S.start + TIN_S.land * terminals;
    return p.kind === 'tin' ? sum + TIN_S.start + TIN_S.land : sum;
  }, 0);
  return beforeOff_s(packageId, covers) + laid + ORIENT_S + placing_s(packageById(packageId));
}

/** Joints looked at, s. */
export const look_s = (packageId: string): number => LOOK_JOINT_S * terminalsOf(packageId);

/** `loose_s` on the clock of the heat; `rounds` of clean-up; `pace` multiplies what hands do. */
export function benchMinutes(
  phases: readonly Phase[],
  packageId: string,
  covers: Covers,
  { loose_s, rounds, pace }: { loose_s: number; rounds: number; pace: number },
): number {
  const hands = setUp_s(phases) + BOARD_HOLD_S + beforeOff_s(packageId, covers) + clean_s(packageId, rounds);
  return (pace * hands + loose_s + LIFT_S) / 60;
}

/** The same for putting a part on, from lands that are ready until it is washed. `loose_s`: until every joint is made. */
export function fitMinutes(
  phases: readonly Phase[],
  packageId: string,
  covers: Covers,
  { loose_s, pace }: { loose_s: number; pace: number },
): number {
  const hands = setUp_s(phases) + BOARD_HOLD_S + beforeOn_s(phases, packageId, covers) + look_s(packageId) + WASH_S;
  return (pace * hands + loose_s + LIFT_S) / 60;
}
