/** One way of working, from its ensemble to a row of the comparison. */
import { type BoardModel, partName, type PlacedPart } from '../board/index.ts';
import { roundsAfter } from '../hands/index.ts';
import {
  type Ensemble,
  kindOf,
  LIFT_S,
  mainPhase,
  type Method,
  methodName,
  type JointState,
  type Phase,
  type PlanInput,
  type PlanRun,
  recipeOf,
  rowsOf,
  type Surroundings,
  STUCK,
  stuckShare,
  TASK_SPREAD,
  wetAt,
  windowEnd,
} from '../rework/index.ts';
import { Draws, shareOf, spreadOf } from './draws.ts';
import type { Row, Spread, Weights } from './forms.ts';
import { bodyHarm, type HarmSpread, neighbourHarms } from './harm.ts';
import { benchMinutes, fitMinutes } from './minutes.ts';
import { EVEN, scoreOf, WORKS } from './order.ts';

/** What the rows of one comparison share. */
export interface Place {
  board: BoardModel;
  target: PlacedPart;
  /** What is known of its joints, what lies over its neighbours. */
  joints: readonly JointState[];
  covers: Surroundings['covers'];
  /** The part has to live. */
  mustLive: boolean;
  /** What the hands' times are multiplied by. */
  pace: number;
  seed: number;
  weights: Weights;
  /** Tools and room, for what is computed besides. */
  bench: Pick<PlanInput, 'station' | 'ambient_C'>;
  /** The part goes on: it has to live, nothing pulls at its lands, its own air may blow it off. */
  fitting: boolean;
}

/** The place of a plan. */
export function placeOf(found: PlanInput, weights: Weights = EVEN, seed = 1): Place {
  const { board, joints = [], covers, reused = false, pace = 1, fitting = false } = found;
  const target = board.parts.find((p) => p.partId === found.target);
  if (!target) throw new Error(`The board has no part "${found.target}".`);
  return {
    board,
    target,
    joints,
    covers,
    mustLive: reused || fitting,
    pace,
    seed,
    weights,
    fitting,
    bench: found,
  };
}

/** The weak model of the wind is right within this factor (two standard deviations). */
const WIND_WITHIN = 2;
/** Whether its own air leaves it on its lands, by draw. */
function stays(draws: Draws, { fitting, target }: Place): boolean[] {
  const noise = draws.noise();
  const N = draws.ensemble.nominal.outcomes?.wind.find((w) => w.partId === target.partId)?.N ?? 0;
  return noise.map((z) => !fitting || N * WIND_WITHIN ** (z / 2) < 1);
}

/** A window open in this share of all benches is tight. */
const TIGHT = 0.5;
/** How long solder stays molten is known to this share. */
const HOLD_SPREAD = 0.5;
/** What is rarer than this is not told, as a share. */
const TOLD = 0.02;

/** When a small part comes loose in the wind, or a heavy one falls off the far side; null where neither happens. */
function loosened_s(run: PlanRun): number | null {
  const at = run.neighbours.flatMap((n) => {
    if (n.loosens_s === null || n.takeOut) return [];
    const blown = !n.far && run.outcomes?.wind.some((w) => w.partId === n.partId && w.verdict !== 'stays');
    return blown || n.hangs ? [n.loosens_s] : [];
  });
  return at.length > 0 ? Math.min(...at) : null;
}

/** Seconds that hands and pins take beyond what the runs hold, by draw: each task its own, each plugged pin once more. */
function extras(draws: Draws, phases: readonly Phase[], board: BoardModel, pins: number, pace: number): number[] {
  const { nominal } = draws.ensemble;
  const hands_s = (nominal.phases ?? []).reduce((sum, p) => sum + (p.hands_s ?? 0), 0);
  const tasks = Math.max(1, pins / 4);
  const spread = Math.log(TASK_SPREAD) / Math.sqrt(tasks);
  const own = draws.noise().map((z) => hands_s * (Math.exp(spread * z) - 1));
  if (phases[phases.length - 1].kind !== 'vacuum') return own;
  const p = stuckShare(board);
  // as many more or fewer than usual stay plugged
  const [mean, sd] = [pins * p, Math.sqrt(pins * p * (1 - p))];
  const more = draws.noise().map((z) => Math.max(-mean, sd * z) * STUCK.again_s * pace);
  return own.map((s, n) => s + more[n]);
}

/** How long joints stay molten once the tools have left, by draw, s. */
function holds(draws: Draws): number[] {
  const noise = draws.noise();
  return draws
    .values((r) => (r.allWet_s === null ? 0 : (r.hold_s ?? LIFT_S)), 0)
    .map((s, n) => s * Math.exp((HOLD_SPREAD / 2) * noise[n]));
}

/** Chance that what the tool itself does tears a land. */
function toolTears(phases: readonly Phase[], { joints, target }: Place): number {
  const corroded = joints.some((j) => j.corroded || j.leaking);
  return 1 - phases.reduce((left, p) => left * (1 - (kindOf(p).tears?.(target.package, corroded) ?? 0)), 1);
}

/** What ends the window, by the part it is, or what happens to the joints. */
function closedBy(run: PlanRun, board: BoardModel): string | null {
  const end = windowEnd(run);
  if (end === null) return null;
  const part = run.closes?.at_s === end ? board.parts.find((p) => p.partId === run.closes?.partId) : undefined;
  return part ? partName(part) : 'joints freeze';
}

/** The verdict on a way that is done, with the reason; `harms` the worst first. */
function judged(p_open: number, harms: readonly HarmSpread[], lastResort: boolean): Row['verdict'] {
  const mayHurt = harms.some((h) => h.word === 'hurts' || h.word === 'may hurt');
  if (p_open >= WORKS && !mayHurt && !lastResort) return 'works';
  return p_open >= TIGHT ? 'tight' : 'no';
}

const about = (s: number | null | undefined): string =>
  s === null || s === undefined ? 'never' : `${Math.round(s)} s`;

export function rowOf(method: Method, ensemble: Ensemble, place: Place): Row {
  const { board, target, weights, pace, mustLive: must, fitting } = place;
  const { phases } = method;
  const { nominal } = ensemble;
  const draws = new Draws(ensemble, place.seed);
  const extra = extras(draws, phases, board, nominal.joints.length, pace);
  const later = (times: (number | null)[]) => times.map((t, n) => (t === null ? null : Math.max(0.5, t + extra[n])));

  const joints = nominal.joints.map(({ terminal }) => {
    const noise = draws.noise();
    const own = (run: PlanRun) => {
      const joint = run.joints.find((j) => j.terminal === terminal);
      return joint && wetAt(joint);
    };
    return { terminal, times: later(draws.times(own, noise)), plain: later(draws.times(own)) };
  });
  const all = draws.times((r) => r.allWet_s);
  const loose = later(all);
  const share = nominal.allWet_s ? (nominal.heat_s ?? 0) / nominal.allWet_s : 0;
  // what heats is the same part of the time on every bench
  const heat = loose.map((t) => (t === null ? null : share * t));
  const neighbours = neighbourHarms(draws);
  const destroys = phases.map((p) => kindOf(p).destroys).find(Boolean);
  const body = bodyHarm(draws, target.partId);
  const harms = must ? [...neighbours, body] : neighbours;
  const freezes = later(draws.times((r) => r.freezes_s));
  const blown = later(draws.times(loosened_s));
  const shut = later(draws.times(windowEnd));
  const dead = must && destroys !== undefined;
  const main = kindOf(mainPhase(method));
  const held = main.handsFull?.(target.package) ? holds(draws) : null;
  const laid = stays(draws, place);
  const open = loose.map((t, n) => {
    if (t === null || dead || !laid[n] || harms.some((h) => h.hurt[n])) return false;
    if (held && held[n] < LIFT_S) return false;
    return [freezes[n], blown[n]].every((end) => end === null || end >= t + LIFT_S);
  });
  const p_open = shareOf(open);
  const loose_s = spreadOf(loose);
  const shut_s = spreadOf(shut);

  const torn = nominal.outcomes?.torn;
  const early = loose_s.p95 === null || (shut_s.p50 !== null && shut_s.p50 < loose_s.p95);
  // what is cut or broken off is not pulled from its lands
  const lifted = !torn || destroys || fitting ? 0 : early ? torn.early_p : torn.p;
  const p_torn = 1 - (1 - lifted) * (1 - toolTears(phases, place));
  // a part that is scrap cannot be hurt
  const p_part = must ? (destroys ? 1 : body.p_hurt) : 0;
  const rounds = fitting ? 0 : roundsAfter({ board, target, method, joints: place.joints });
  const longest_s = loose_s.p50 ?? ensemble.limit_s;
  const minutes = (fitting ? fitMinutes : benchMinutes)(phases, target.package, place.covers, {
    loose_s: longest_s,
    rounds,
    pace,
  });
  const worst = neighbours.length > 0 ? neighbours[0] : null;
  const score = scoreOf({ p_open, p_torn, p_hurt: worst?.p_hurt ?? 0, p_part, minutes }, weights);
  const lastResort = recipeOf(method.id)?.lastResort;
  const out = nominal.neighbours.filter((n) => n.takeOut).map((n) => n.partId);
  const verdict = judged(p_open, harms, lastResort !== undefined || out.length > 0);
  const facts = { nominal, out, loose_s, shut_s, worst, destroys: dead ? destroys : undefined, verdict, p_open };
  return {
    id: method.id,
    name: methodName(method.id),
    verdict,
    loose_s,
    heat_s: spreadOf(heat),
    window: { open_s: loose_s, shut_s, by: closedBy(nominal, board), p_open },
    joints: joints.map(({ terminal, plain }) => ({ terminal, loose_s: spreadOf(plain) })),
    last: lastShares(joints),
    worst: worst && { partId: worst.partId, margin_K: worst.margin_K, p_hurt: worst.p_hurt, word: worst.word },
    land: torn ? { terminal: torn.terminal, p_torn } : null,
    part: {
      p_hurt: p_part,
      dose: nominal.outcomes?.body.dose ?? null,
      margin_K: nominal.outcomes?.body.margin_K ?? null,
      word: destroys ? 'hurts' : body.word,
    },
    rounds,
    minutes,
    score,
    ...(lastResort && verdict !== 'no' ? { why: lastResort } : reasonOf(method, facts, place)),
    ...(lastResort ? { lastResort } : {}),
    procedure: null,
  };
}

/** Which joint is the last, and in which share of benches. */
function lastShares(joints: readonly { terminal: string; times: readonly (number | null)[] }[]): Row['last'] {
  const draws = joints[0]?.times.length ?? 0;
  const counts = new Map<string, number>();
  for (let n = 0; n < draws; n++) {
    const last = joints.reduce((a, b) => ((b.times[n] ?? Infinity) > (a.times[n] ?? Infinity) ? b : a));
    counts.set(last.terminal, (counts.get(last.terminal) ?? 0) + 1);
  }
  return [...counts]
    .map(([terminal, n]) => ({ terminal, p: n / draws }))
    .filter((l) => l.p >= TOLD)
    .sort((a, b) => b.p - a.p);
}

interface Facts {
  nominal: PlanRun;
  /** What has to be taken off the board first. */
  out: readonly string[];
  loose_s: Spread;
  shut_s: Spread;
  worst: HarmSpread | null;
  /** How it kills a part that has to live. */
  destroys: string | undefined;
  verdict: Row['verdict'];
  p_open: number;
}

/** Why a row stands where it does, and the cheapest change that would save one that does not work. */
function reasonOf(method: Method, facts: Facts, { board, target, fitting }: Place): { why: string; cheapest?: string } {
  const { nominal, out, loose_s, shut_s, worst, destroys, verdict } = facts;
  const named = (partId: string) => {
    const part = board.parts.find((p) => p.partId === partId);
    return part ? partName(part) : partId;
  };
  const kind = kindOf(mainPhase(method));
  if (out.length > 0) return { why: `take ${out.map(named).join(', ')} out first: no limit is safe for it` };
  if (kind.handsFull?.(target.package) && verdict !== 'works' && nominal.allWet_s !== null)
    return {
      why: `both hands hold irons: it freezes on ${rowsOf(target.package).length} sides before one is free to lift it`,
      cheapest: 'Low-melt alloy instead of solder: it waits for the hand.',
    };
  if (destroys) return { why: `${destroys}, and the part has to live`, cheapest: 'any way that melts its joints' };
  if (verdict === 'works') {
    const shuts = shut_s.p50 === null ? 'nothing closes the window' : `window until about ${about(shut_s.p50)}`;
    return fitting
      ? { why: `every joint made after about ${about(loose_s.p50)}` }
      : { why: `all loose after about ${about(loose_s.p50)}, ${shuts}` };
  }
  if (loose_s.p50 === null) {
    const last = nominal.last;
    const why = last
      ? `joint ${last.terminal} ${nominal.allWet_s === null ? 'stays' : 'may stay'} solid: ${last.why}`
      : 'joints stay solid';
    return { why, ...(kind.wayOut ? { cheapest: kind.wayOut } : {}) };
  }
  if (worst && worst.p_hurt > 1 - WORKS) {
    const why = `${named(worst.partId)} ${worst.word === 'hurts' ? 'is hurt' : 'may be hurt'} before ${fitting ? 'every joint is made' : 'all is loose'}`;
    return { why, cheapest: `${kind.spare} or take ${named(worst.partId)} out of the way.` };
  }
  const by = nominal.closes?.why;
  if (by === 'wind')
    return {
      why: `${named(nominal.closes?.partId ?? '')} comes loose in the wind`,
      cheapest: `Cover ${named(nominal.closes?.partId ?? '')}.`,
    };
  if (by === 'falls')
    return { why: `${named(nominal.closes?.partId ?? '')} falls off the far side`, cheapest: 'Prop it.' };
  if (by === 'body')
    return { why: 'the part itself gets too hot, and has to live', cheapest: 'Colder and longer, or low-melt alloy.' };
  if (loose_s.p95 === null) {
    return {
      why: `joint ${nominal.last?.terminal ?? ''} may stay solid: ${nominal.last?.why ?? ''}`,
      ...(kind.wayOut ? { cheapest: kind.wayOut } : {}),
    };
  }
  return { why: 'the window is short against what is uncertain', ...(kind.wayOut ? { cheapest: kind.wayOut } : {}) };
}

/** A row for a way this bench lacks tools for. */
export function notHere(method: Method, lacking: readonly string[]): Row {
  return {
    id: method.id,
    name: methodName(method.id),
    verdict: 'not here',
    ...{ loose_s: null, heat_s: null, window: null, joints: null, last: null, worst: null, land: null, part: null },
    ...{ rounds: null, minutes: null, score: null, procedure: null },
    why: `needs ${lacking.join(' and ')}, which this bench does not have`,
  };
}
