/** Every kind of phase there is: one folder each, and this list. */
import { air } from './air/index.ts';
import { alloy } from './alloy/index.ts';
import { below } from './below/index.ts';
import { cut } from './cut/index.ts';
import type { PhaseKind } from './declaration.ts';
import { irons2 } from './irons2/index.ts';
import { lift } from './lift/index.ts';
import { liftLegs } from './liftLegs/index.ts';
import { peel } from './peel/index.ts';
import { pool } from './pool/index.ts';
import { rest } from './rest/index.ts';
import type { KindName, Phase, SettingsOf } from './schema.ts';
import { soften } from './soften/index.ts';
import { spike } from './spike/index.ts';
import { stroke } from './stroke/index.ts';
import { tweezers } from './tweezers/index.ts';
import { twist } from './twist/index.ts';
import { drag } from './drag/index.ts';
import { fill, joint } from './joint/index.ts';
import { paste } from './paste/index.ts';
import { place } from './place/index.ts';
import { press } from './press/index.ts';
import { tack } from './tack/index.ts';
import { tin } from './tin/index.ts';
import { vacuum } from './vacuum/index.ts';

const KINDS: { [K in KindName]: PhaseKind<K, SettingsOf<K>> } = {
  air,
  stroke,
  tweezers,
  vacuum,
  spike,
  alloy,
  below,
  irons2,
  pool,
  cut,
  'lift-legs': liftLegs,
  twist,
  peel,
  rest,
  lift,
  soften,
  tin,
  paste,
  place,
  tack,
  joint,
  fill,
  drag,
  press,
};
/** What a phase's kind declares, for its settings. */
export const kindOf = <P extends Phase>({ kind }: P): PhaseKind<P['kind'], P['settings']> =>
  KINDS[kind] as unknown as PhaseKind<P['kind'], P['settings']>;
