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

/** `loose_s` on the clock of the heat; `rounds` of clean-up; `pace` multiplies what hands do. */
export function benchMinutes(
  phases: readonly Phase[],
  packageId: string,
  covers: Surroundings['covers'],
  { loose_s, rounds, pace }: { loose_s: number; rounds: number; pace: number },
): number {
  const tools = new Set(phases.map((p) => kindOf(p).tool));
  const setUp = [...tools].reduce((sum, t) => sum + SET_UP[t], 0);
  const covered = (covers ?? []).reduce((sum, c) => sum + COVER_S[c.kind], 0);
  const flux = FLUX_S.part + FLUX_S.land * packageById(packageId).terminals.length;
  const row = rowsOf(packageId).reduce((sum, r) => sum + ROUND_S.row + ROUND_S.mm * r.length_mm, 0);
  const hands = setUp + BOARD_HOLD_S + covered + flux + rounds * row + WASH_S;
  return (pace * hands + loose_s + LIFT_S) / 60;
}

/** The same for putting a part on, from lands that are ready until it is washed. `loose_s`: until every joint is made. */
export function fitMinutes(
  phases: readonly Phase[],
  packageId: string,
  covers: Surroundings['covers'],
  { loose_s, pace }: { loose_s: number; pace: number },
): number {
  const pkg = packageById(packageId);
  const { terminals } = pkg;
  const tools = new Set(phases.map((p) => kindOf(p).tool));
  const setUp = [...tools].reduce((sum, t) => sum + SET_UP[t], 0);
  const covered = (covers ?? []).reduce((sum, c) => sum + COVER_S[c.kind], 0);
  const laid = phases.reduce((sum, p) => {
    if (p.kind === 'paste' || (p.kind === 'tin' && !p.settings.one))
      return sum + TIN_S.start + TIN_S.land * terminals.length;
    return p.kind === 'tin' ? sum + TIN_S.start + TIN_S.land : sum;
  }, 0);
  const flux = FLUX_S.part + FLUX_S.land * terminals.length;
  const look = LOOK_JOINT_S * terminals.length;
  const hands = setUp + BOARD_HOLD_S + covered + laid + flux + ORIENT_S + placing_s(pkg) + look + WASH_S;
  return (pace * hands + loose_s + LIFT_S) / 60;
}
