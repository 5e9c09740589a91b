/** Every way of putting one part on, computed on one bench and put in order. */
import { packageById, solderVolume } from '../packages/index.ts';
import type { CalcContext } from '../ground/index.ts';
import {
  type Ensemble,
  type JointState,
  kindOf,
  type Method,
  ownWind,
  type OwnWind,
  type PlanRun,
  rowsOf,
  wetAt,
} from '../rework/index.ts';
import { compareWays, targetOf } from './compare.ts';
import { Draws, spreadOf } from './draws.ts';
import type { FitInput, FitRow, Fitting, Row } from './forms.ts';
import { notHere, type Place, rowOf } from './row.ts';

/** Nobody sees solder turn dull to better than this, s. */
const SEEN_S = 1;
/** A joint's own solder is told between these shares of the usual. */
const [LEAST_SHARE, MOST_SHARE] = [0.1, 10];

/** Throws `OutOfBoundsError` rather than tell a temperature that is not possible. */
export function compareFits({ lands = [], ...input }: FitInput, context: CalcContext): Promise<Fitting> {
  const { case: asked } = input;
  const found = { ...asked, joints: [...(asked.joints ?? []), ...statesOf(lands, input)] };
  return compareWays(
    { ...input, case: lands.length > 0 ? found : asked },
    { op: 'fit', rowOf: fitRowOf, notHere: (method, lacking) => ({ ...notHere(method, lacking), ...NOTHING }) },
    context,
  );
}
const NOTHING = { wind: null, frozen_s: null, hold_s: null, order: null };

/** What lies on lands, as joints have it. */
function statesOf(lands: NonNullable<FitInput['lands']>, { case: asked }: Pick<FitInput, 'case'>): JointState[] {
  const { terminals } = packageById(targetOf(asked).package);
  return lands.flatMap(({ terminal, wt, mm3 }) => {
    const t = terminals.find((own) => own.id === terminal);
    if (!t) return [];
    const share = mm3 / solderVolume(t, asked.board.thickness_mm);
    return [{ terminals: [terminal], alloy: wt, volume: Math.min(MOST_SHARE, Math.max(LEAST_SHARE, share)) }];
  });
}

/** One way of putting it on, from its ensemble. */
export function fitRowOf(method: Method, ensemble: Ensemble, place: Place): FitRow {
  const { nominal } = ensemble;
  const draws = new Draws(ensemble, place.seed);
  const solid = spreadOf(draws.times((r) => r.sets?.solid_s));
  const wind = ownWind(place.target, method.phases, place.bench);
  const pace = paceOf(method, nominal, place);
  return {
    ...blown(softened(rowOf(method, ensemble, place), nominal), wind),
    wind,
    frozen_s: nominal.sets ? spreadOf(draws.times((r) => r.sets?.frozen_s)) : null,
    hold_s: solid.p95 === null ? null : Math.ceil(solid.p95 + SEEN_S),
    order: madeIn(nominal),
    ...(pace ? { pace } : {}),
  };
}

/** A way that its own air spoils says so, and what would keep the part where it is. */
function blown(row: Row, { verdict, standoff_mm, flow_L_min }: OwnWind): Row {
  if (row.verdict === 'works' || verdict === 'stays') return row;
  const ways = [
    ...(standoff_mm === undefined ? [] : [`start at ${standoff_mm} mm`]),
    ...(flow_L_min === undefined ? [] : [`with ${flow_L_min} L/min`]),
  ];
  return {
    ...row,
    why: `the air ${verdict === 'flies' ? 'blows it off its lands' : 'may push it off its lands'}`,
    cheapest: ways.length > 0 ? `It stays where you ${ways.join(', or ')}.` : 'An iron, which does not blow.',
  };
}

/** Joints that begin to melt below this let go on a warm day, °C; below that they stand no hot place. */
const [LETS_GO_C, NOT_HOT_C] = [110, 150];

/** What a joint's metal would not stand afterwards: bismuth and lead together, or bismuth alone. */
function softened(row: Row, { joints }: PlanRun): Row {
  const softest = joints.reduce((a, b) => ((b.solidus_C ?? Infinity) < (a.solidus_C ?? Infinity) ? b : a));
  const { solidus_C = Infinity, terminal } = softest;
  const at = `${Math.round(solidus_C)} °C`;
  if (solidus_C < LETS_GO_C)
    return {
      ...row,
      verdict: 'no',
      why: `joint ${terminal} would soften at ${at} already: lead and bismuth in it`,
      cheapest: 'Flood and braid the lands without lead first.',
    };
  return solidus_C < NOT_HOT_C
    ? { ...row, why: `${row.why}; its joints soften at ${at}: nowhere hot, nowhere loaded` }
    : row;
}

/** Joints in the order in which they are made; those that never are come last. */
const madeIn = ({ joints }: PlanRun): string[] =>
  [...joints].sort((a, b) => (wetAt(a) ?? Infinity) - (wetAt(b) ?? Infinity)).map((j) => j.terminal);

/** How fast an iron gets on, over all that it works at; undefined where none goes from joint to joint. */
function paceOf({ phases }: Method, run: PlanRun, { target }: Place): FitRow['pace'] {
  const ids = phases.filter((p) => kindOf(p).inTurn).map((p) => p.id);
  const spent = (run.phases ?? []).filter((p) => ids.includes(p.id)).reduce((sum, p) => sum + p.to_s - p.from_s, 0);
  const made = run.joints.filter((j) => wetAt(j) !== null).length;
  if (ids.length === 0 || made === 0 || spent <= 0) return undefined;
  const length_mm = rowsOf(target.package).reduce((sum, r) => sum + r.length_mm, 0);
  return { s_per_joint: spent / made, mm_s: length_mm / spent };
}
