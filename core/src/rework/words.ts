/** What hands are told in a phase, by its kind: apart from what a kind declares, which more pages show. */
import { sayFitting, sayRemoval } from './phases/air/say.ts';
import { say as alloy } from './phases/alloy/say.ts';
import { say as below } from './phases/below/say.ts';
import { say as cut } from './phases/cut/say.ts';
import { say as irons2 } from './phases/irons2/say.ts';
import { say as lift } from './phases/lift/say.ts';
import { say as liftLegs } from './phases/liftLegs/say.ts';
import { say as peel } from './phases/peel/say.ts';
import { say as pool } from './phases/pool/say.ts';
import { say as rest } from './phases/rest/say.ts';
import { say as soften } from './phases/soften/say.ts';
import { say as spike } from './phases/spike/say.ts';
import { say as stroke } from './phases/stroke/say.ts';
import { say as tweezers } from './phases/tweezers/say.ts';
import { say as twist } from './phases/twist/say.ts';
import { say as vacuum } from './phases/vacuum/say.ts';
import { kindOf } from './phases/index.ts';
import type { KindName, Phase, SettingsOf } from './phases/schema.ts';
import type { Instruction, Say, Workplace } from './phases/instruction.ts';

/** Putting a part on with a tool: before it is placed, and until the heat is off. */
type SayFitting<S> = (settings: S, work: Workplace) => { before: Instruction; heat: Instruction[] };

const SAY: { [K in KindName]: Say<SettingsOf<K>> } = {
  air: sayRemoval,
  alloy,
  below,
  cut,
  irons2,
  lift,
  peel,
  pool,
  rest,
  soften,
  spike,
  stroke,
  tweezers,
  twist,
  vacuum,
  'lift-legs': liftLegs,
};
const FIT: { [K in KindName]?: SayFitting<SettingsOf<K>> } = { air: sayFitting };

/** Before the tools of a phase are taken up, and after they are put away, whatever hand is free does it. */
const handsFree = ({ id, mark }: Instruction): boolean => id === 'flux' || id === 'count' || mark === 'heat-off';

/** What hands are told in a phase, with what each of them does while its tools are at work. */
export function wordsOf(phase: Phase, work: Workplace): Instruction[] {
  const { kind, settings } = phase;
  const list = (SAY[kind] as Say<Phase['settings']>)(settings, { ...work, giveUp_s: phase.giveUp_s });
  const limbs = kindOf(phase).limbs(settings);
  return list.map((i) => (handsFree(i) ? i : { limbs, ...i }));
}

/** Undefined where an iron puts the part on, joint by joint. */
export const fittingWordsOf = ({ kind, settings }: Phase, work: Workplace) =>
  (FIT[kind] as SayFitting<Phase['settings']> | undefined)?.(settings, work);
