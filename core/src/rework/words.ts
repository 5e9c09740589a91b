/** What hands are told in a phase, by its kind: apart from what a kind declares, which more pages show. */
import { say as air } from './phases/air/say.ts';
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
import { say as drag } from './phases/drag/say.ts';
import { sayFill, sayJoints, sayTack } from './phases/joint/say.ts';
import { say as paste } from './phases/paste/say.ts';
import { say as place } from './phases/place/say.ts';
import { say as press } from './phases/press/say.ts';
import { say as tin } from './phases/tin/say.ts';
import { say as vacuum } from './phases/vacuum/say.ts';
import { kindOf } from './phases/index.ts';
import type { KindName, Phase, SettingsOf } from './phases/schema.ts';
import type { Instruction, Say, Workplace } from './phases/instruction.ts';

const SAY: { [K in KindName]: Say<SettingsOf<K>> } = {
  air,
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
  drag,
  paste,
  place,
  press,
  tin,
  tack: sayTack,
  joint: sayJoints,
  fill: sayFill,
  'lift-legs': liftLegs,
};

/** Before the tools of a phase are taken up, and after they are put away, whatever hand is free does it. */
const handsFree = ({ id, mark }: Instruction): boolean => id === 'flux' || id === 'count' || mark === 'heat-off';

/** What hands are told in a phase, with what each of them does while its tools are at work. */
export function wordsOf(phase: Phase, work: Workplace): Instruction[] {
  const { kind, settings } = phase;
  const list = (SAY[kind] as Say<Phase['settings']>)(settings, { ...work, giveUp_s: phase.giveUp_s });
  const limbs = kindOf(phase).limbs(settings);
  return list.map((i) => (handsFree(i) ? i : { limbs, ...i }));
}
