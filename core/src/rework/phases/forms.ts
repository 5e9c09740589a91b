/** How phases are set, as a form asks for it, by kind: apart from what a kind declares, which more pages show. */
import { form as air } from './air/form.ts';
import { form as alloy } from './alloy/form.ts';
import { form as below } from './below/form.ts';
import { form as cut } from './cut/form.ts';
import type { Form } from './declaration.ts';
import { form as joint } from './joint/form.ts';
import { form as lift } from './lift/form.ts';
import { form as liftLegs } from './liftLegs/form.ts';
import { form as paste } from './paste/form.ts';
import { form as peel } from './peel/form.ts';
import { form as place } from './place/form.ts';
import { form as pool } from './pool/form.ts';
import { form as rest } from './rest/form.ts';
import { RANGES } from '../ranges.ts';
import type { KindName, Phase } from './schema.ts';
import { form as soften } from './soften/form.ts';
import { form as spike } from './spike/form.ts';
import { form as stroke } from './stroke/form.ts';
import { form as tin } from './tin/form.ts';
import { form as tweezers } from './tweezers/form.ts';
import { form as twist } from './twist/form.ts';
import { form as vacuum } from './vacuum/form.ts';

const FORMS: Record<KindName, Form> = {
  air,
  alloy,
  below,
  cut,
  lift,
  paste,
  peel,
  place,
  pool,
  press: lift,
  rest,
  soften,
  spike,
  stroke,
  tin,
  tweezers,
  twist,
  vacuum,
  'lift-legs': liftLegs,
  tack: joint,
  joint,
  fill: joint,
  // each of two irons has a side of its own
  irons2: { ...stroke, more: stroke.more.filter((f) => f.key !== 'irons') },
  drag: { ...joint, usual: [...joint.usual, { key: 'mm_s', label: 'Hand, mm a second', range: RANGES.fit.mm_s }] },
};
export const formOf = ({ kind }: Pick<Phase, 'kind'>): Form => FORMS[kind];
