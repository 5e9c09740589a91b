/** A set on a bench: how each part is done, what it is by itself, and orders of all of them. */
import type { PlacedPart } from '../board/index.ts';
import { glanceAtWays, hotter } from '../compare/index.ts';
import { type CalcContext, CalcInputError } from '../ground/index.ts';
import { roundsAfter, workSide } from '../hands/index.ts';
import {
  caseOf,
  effectsOf,
  ensembleOf,
  type Guide,
  guideOf,
  type Method,
  methodsOn,
  PACES,
  partOf,
  pieceOn,
  type PlanInput,
  type PlanResult,
  rateOf,
  type ReworkPlace,
  windowEnd,
} from '../rework/index.ts';
import { type Ran, realise } from './chain.ts';
import type { SetInput, SetOrder } from './forms.ts';
import type { Bench } from './heat.ts';
import { mustLive, type Op, opsIn } from './fates.ts';
import { type Leg, legOf, putOn } from './legs.ts';
import { estimate, minutesOf, type Timed, type Went } from './schedule.ts';
import { type Before, listOrder, nearestOrder, searchOrders } from './search.ts';
import { type Single, singlesOf } from './single.ts';

type Item = SetInput['set'][number] & { part: PlacedPart };
type Did = NonNullable<SetInput['did']>;

/** What is asked of a set: an order of somebody's, what of it went already, since when hands are free again, s. */
export interface Asked {
  order?: readonly string[];
  did?: Did;
  resume_s?: number;
  finalists: number;
}

/** Shares of the work, for progress: ways chosen, legs by themselves. */
const [CHOOSING, SINGLES] = [0.3, 0.7];

export class SetPlan {
  readonly legs: readonly Leg[];
  readonly cannot: SetOrder['cannot'];
  readonly methods: SetOrder['methods'];
  private readonly input: SetInput;
  private readonly bench: Bench;
  private readonly pace: number;
  private readonly singles: ReadonlyMap<Leg, Single>;
  private readonly before: Before;
  private readonly lives: (leg: Leg) => boolean;
  private readonly spreads = new Map<string, Spread>();

  private constructor(input: SetInput, chosen: Chosen, singles: readonly Single[]) {
    this.input = input;
    this.bench = benchOf(input);
    this.pace = paceOf(input);
    const own = new Map(singles.map((s) => [keyOf(s.leg), s.leg]));
    this.legs = chosen.legs.map((l) => own.get(keyOf(l)) ?? l);
    this.cannot = chosen.cannot;
    this.methods = this.legs.flatMap(({ part, op, method, phases, covers }) =>
      op === 'prepare' || !method || !phases
        ? []
        : [{ partId: part.partId, op, method: { id: method, phases: [...phases] }, ...(covers ? { covers } : {}) }],
    );
    this.singles = new Map(singles.map((s) => [s.leg, s]));
    this.before = comesFirst(this.legs, chosen.items);
    this.lives = chosen.lives;
  }

  /** Throws `OutOfBoundsError` rather than tell what is not possible. */
  static async of(input: SetInput, context: CalcContext): Promise<SetPlan> {
    const chosen = await choose(input, partOf(context, 0, CHOOSING));
    const heated = chosen.legs.filter((l) => l.phases);
    const bench: Bench = { ...benchOf(input), quality: 'search' };
    const { lives } = chosen;
    const singles = await singlesOf(bench, heated, { lives, kit: input.kit }, partOf(context, CHOOSING, SINGLES));
    return new SetPlan(input, chosen, singles);
  }

  /** The best orders that begin with what was done already, the cheapest first; with the list's and the nearest neighbours'. */
  private orders(did: Did): { best: Leg[][]; list: Leg[]; nearest: Leg[] } {
    const { before } = this;
    const done = this.doneOf(did);
    const left = this.legs.filter((l) => !done.includes(l));
    const open: Before = new Map(left.map((l) => [l, (before.get(l) ?? []).filter((b) => !done.includes(b))]));
    const whole = (order: readonly Leg[]) => [...done, ...order];
    try {
      return {
        best: searchOrders(left, open, (order) =>
          minutesOf(this.estimate(whole(order), { legs: this.wentOf(did) })),
        ).map(whole),
        list: whole(listOrder(left, open)),
        nearest: whole(nearestOrder(left, open)),
      };
    } catch (e) {
      if (e instanceof RangeError) throw new CalcInputError([{ field: 'set', message: e.message }]);
      throw e;
    }
  }

  /** As somebody wants it: parts in an order, what is not named behind them as listed. Throws `CalcInputError` where something has to come first. */
  private asAsked(partIds: readonly string[], did: Did): Leg[] {
    const done = this.doneOf(did);
    const rank = (l: Leg) => {
      const n = partIds.indexOf(l.part.partId);
      return n < 0 ? partIds.length : n;
    };
    const left = this.legs.filter((l) => !done.includes(l));
    const order = [...done, ...left.toSorted((a, b) => rank(a) - rank(b))];
    for (const [n, leg] of order.entries()) {
      const late = (this.before.get(leg) ?? []).find((b) => order.indexOf(b) > n);
      if (late)
        throw new CalcInputError([
          {
            field: 'order',
            message: `${late.part.ref ?? late.part.partId} has to come before ${leg.part.ref ?? leg.part.partId}`,
          },
        ]);
    }
    return order;
  }

  /** An order by adding up single legs. */
  private estimate(order: readonly Leg[], did: Went): Timed[] {
    return estimate(order, this.singles, { ambient_C: this.input.ambient_C, pace: this.pace, did });
  }

  /** An order with the heat that it carries. */
  private realise(order: readonly Leg[], did: Went, context: CalcContext): Promise<Ran[]> {
    const { bench, singles, pace, lives } = this;
    const absent = putOn(this.legs);
    return realise(bench, order, singles, { pace, absent, lives, did }, context);
  }

  /** The best order, or the one that is asked for, against the list and the nearest next. `early`: told by adding up, before any is run through. */
  async best(asked: Asked, context: CalcContext, early?: (order: SetOrder) => void): Promise<SetOrder> {
    const { did = [], finalists } = asked;
    const went: Went = {
      legs: this.wentOf(did),
      ...(asked.resume_s === undefined ? {} : { resume_s: asked.resume_s }),
    };
    const { best, list, nearest } = this.orders(did);
    const tried = asked.order ? [this.asAsked(asked.order, did)] : best.slice(0, Math.max(1, finalists));
    const all = [...tried, list, nearest];
    const added = all.map((order) => this.estimate(order, went));
    // the list, or what is nearest, may turn out to be best
    const open = asked.order ? [0] : all.map((_, n) => n);
    const answer = (told: readonly (readonly (Timed | Ran)[])[]): SetOrder => {
      // what was not run through is told as it adds up, as far off as the first one is
      const off = minutesOf(told[0]) / Math.max(1e-9, minutesOf(added[0]));
      const minutes = added.map((a, n) => (told[n] ? minutesOf(told[n]) : off * minutesOf(a)));
      const first = open.reduce((a, b) => (minutes[b] < minutes[a] ? b : a));
      return {
        order: this.tell(told[first]),
        minutes: minutes[first],
        list_minutes: minutes[all.length - 2],
        nearest_minutes: minutes[all.length - 1],
        methods: this.methods,
        cannot: this.cannot,
      };
    };
    if (finalists === 0) return answer(added);
    early?.(answer(added));
    await this.learnSpreads({ ...context, progress: () => undefined });
    const ran: Ran[][] = [];
    const runs = asked.order ? tried : all;
    for (const [n, order] of runs.entries()) {
      const known = runs.findIndex((o) => o.every((leg, i) => leg === order[i]));
      const share = partOf(context, n / runs.length, 1 / runs.length);
      ran.push(known < n ? ran[known] : await this.realise(order, went, share));
    }
    return answer(ran);
  }

  /** What is told of an order. */
  private tell(told: readonly (Timed | Ran)[]): SetOrder['order'] {
    let from_s = 0;
    return told.map((timed) => {
      const { leg, start_s, end_s, start_C, rest_s, flip, loose_s } = timed;
      const one = this.singles.get(leg);
      const begun = from_s;
      from_s = end_s;
      return {
        ...{ partId: leg.part.partId, op: leg.op, from_s: begun, start_s, end_s, start_C, rest_s, flip },
        ...{ tool: leg.tools[0], method: leg.method ?? null, loose_s, cold_s: one?.cold_s ?? null },
        minutes: (end_s - begun) / 60,
        worst: 'worst' in timed ? timed.worst : (one?.worst ?? null),
        restFor: (one?.watched ?? []).map((w) => ({ partId: w.part.partId, C: w.most_C })),
        curve: 'curve' in timed ? timed.curve : [],
        guide: 'told' in timed && timed.told ? this.guideOf(leg, timed.told) : null,
      };
    });
  }

  private guideOf(leg: Leg, told: NonNullable<Ran['told']>): Guide {
    const { slow, quick } = this.spreads.get(wayOf(leg)) ?? { slow: UNKNOWN_SPREAD, quick: 1 / UNKNOWN_SPREAD };
    const between = (s: number | null) => ({ from: s && s * quick, to: s && s * slow });
    const result: PlanResult = {
      ...told,
      allWetRange_s: between(told.allWet_s),
      closesRange_s: between(windowEnd(told)),
      matters: [],
      calibrated: this.bench.station.calibrated,
    };
    return guideOf(result, this.input.board, { phases: [...(leg.phases ?? [])] });
  }

  /** How far a way's time may be off, by the first leg that is done by it. */
  private async learnSpreads(context: CalcContext): Promise<void> {
    for (const leg of this.legs) {
      const { phases } = leg;
      if (!phases || this.spreads.has(wayOf(leg))) continue;
      const found = {
        ...this.bench,
        target: leg.part.partId,
        frames: false,
        ...(leg.covers ? { covers: leg.covers } : {}),
      };
      this.spreads.set(wayOf(leg), await spreadOf({ ...found, phases: [...phases], quality: 'search' }, context));
    }
  }

  private doneOf(did: Did): Leg[] {
    return did.flatMap((d) => this.legs.find((l) => l.part.partId === d.partId && l.phases) ?? []);
  }
  private wentOf(did: Did): Map<Leg, Did[number]> {
    return new Map(this.doneOf(did).map((leg) => [leg, did.find((d) => d.partId === leg.part.partId) as Did[number]]));
  }
}

/** The best order of a set, by what the calculation is asked. Throws as `SetPlan.of`. */
export async function orderSet(input: SetInput, context: CalcContext): Promise<SetOrder> {
  const plan = await SetPlan.of(input, partOf(context, 0, 0.5));
  const { did, finalists, order } = input;
  return plan.best({ finalists, ...(did ? { did } : {}), ...(order ? { order } : {}) }, partOf(context, 0.5, 0.5));
}

/** As many times slower, and quicker, as it may be: where nothing was computed of it. */
const UNKNOWN_SPREAD = 1.4;
interface Spread {
  slow: number;
  quick: number;
}
const wayOf = (leg: Leg) => `${leg.method} ${leg.part.package} ${leg.op}`;

/** Where 19 of 20 benches lie round a run as set, as factors of its time. */
async function spreadOf(input: PlanInput, context: CalcContext): Promise<Spread> {
  const ensemble = await ensembleOf(input, { quality: 'search', nominalCosts: 1 }, context);
  const rates = ensemble.members.map((m) => rateOf(m.allWet_s));
  const rate = rateOf(ensemble.nominal.allWet_s);
  if (rate === 0) return { slow: UNKNOWN_SPREAD, quick: 1 / UNKNOWN_SPREAD };
  const half = Math.hypot(LEAST_SPREAD * rate, ...effectsOf(rates, ensemble.inputs.length));
  return { slow: Math.min(MOST_SLOWER, rate / Math.max(1e-9, rate - half)), quick: rate / (rate + half) };
}
/** Nothing is known better than to this share, and slower than this is said as this. */
const [LEAST_SPREAD, MOST_SLOWER] = [0.06, 4];

const keyOf = (l: Leg) => `${l.part.partId} ${l.op}`;
const paceOf = (input: SetInput): number => (input.pace ? PACES[input.pace] : 1);

/** What every run of the set finds. */
function benchOf(input: SetInput): Bench {
  const { board, kit, ambient_C, surroundings, pace, station, limits } = input;
  const place: ReworkPlace = {
    ...{ board, target: input.set[0].partId, op: 'remove', mustLive: false, ambient_C },
    ...(kit ? { kit } : {}),
    ...(surroundings ? { surroundings } : {}),
    ...(pace ? { pace } : {}),
  };
  const { target: _, covers: __, ...found } = caseOf(place);
  return { ...found, ...(station ? { station } : {}), ...(limits ? { limits } : {}), quality: 'coarse' };
}

interface Chosen {
  items: readonly Item[];
  legs: readonly Leg[];
  cannot: SetOrder['cannot'];
  lives(leg: Leg): boolean;
}

/** A way for every part: what was asked for, else what this bench does best with the first of its kind. */
async function choose(input: SetInput, context: CalcContext): Promise<Chosen> {
  const { board, set, stage } = input;
  const parts = new Map(board.parts.map((p) => [p.partId, p]));
  const items = set.map((item): Item => ({ ...item, part: parts.get(item.partId) as PlacedPart }));
  const known = new Map<string, Promise<Way>>();
  const way = (item: Item, op: 'remove' | 'fit', share: CalcContext): Promise<Way> => {
    const said = wayAsked(input, item, op);
    if (said) return Promise.resolve(said);
    const key = `${op} ${item.part.package} ${item.part.side} ${mustLive(item.do)}`;
    const found = known.get(key) ?? bestWay(input, item, op, share);
    known.set(key, found);
    return found;
  };
  const legs: Leg[] = [];
  const cannot: SetOrder['cannot'] = [];
  for (const [n, item] of items.entries()) {
    const share = partOf(context, n / items.length, 1 / items.length);
    const ops = opsIn(stage, item.do);
    for (const op of ops) {
      const leg = await legFor(input, item, op, way, share);
      if ('why' in leg) cannot.push(leg);
      else legs.push(leg);
    }
    share.progress?.(1);
  }
  const fates = new Map(items.map((i) => [i.part, i.do]));
  return { items, legs, cannot, lives: (leg) => leg.op === 'fit' || mustLive(fates.get(leg.part) ?? 'renew') };
}

type Way = { method: Method } | { why: string };

async function legFor(
  input: SetInput,
  item: Item,
  op: Op,
  way: (item: Item, op: 'remove' | 'fit', share: CalcContext) => Promise<Way>,
  context: CalcContext,
): Promise<Leg | SetOrder['cannot'][number]> {
  const { part, partId } = item;
  const pace = paceOf(input);
  const covers = input.surroundings?.covers;
  // of what never stood there nothing is left on its lands
  const off = op === 'fit' || item.do === 'place' ? undefined : await way(item, 'remove', context);
  if (op === 'prepare') {
    const method = off && 'method' in off ? off.method : undefined;
    const rounds = method ? roundsAfter({ target: part, board: input.board, method }) : 1;
    return legOf(part, op, { rounds, pace, side: workSide(part, 'prepare') });
  }
  const done = off ?? (await way(item, 'fit', context));
  if ('why' in done) return { partId, op, why: done.why };
  const { method } = done;
  return legOf(part, op, { method, pace, side: workSide(part, op, method.phases), ...(covers ? { covers } : {}) });
}

/** What was asked for: by its id as it is usual here, or as it is set. */
function wayAsked(input: SetInput, { method, part }: Item, op: 'remove' | 'fit'): Way | undefined {
  if (method === undefined) return undefined;
  if (typeof method !== 'string') return op === 'remove' ? { method } : undefined;
  const found = choicesOf(input, part, op).find((c) => c.method.id === method);
  if (!found) return op === 'remove' ? { why: `"${method}" is no way known here` } : undefined;
  return found.unfit ? { why: found.unfit } : { method: found.method };
}

function choicesOf(input: SetInput, part: PlacedPart, op: 'remove' | 'fit') {
  const { board, kit, surroundings, never } = input;
  return methodsOn(part.package, pieceOn(board, part, surroundings), {
    ...{ kit, dials: benchOf(input).station, op },
    ...(never ? { never } : {}),
    housed: surroundings?.held?.kind === 'housing',
  });
}

/** Where no way works as it is usual: so far from there to the most that the bench can. */
const HOTTER_BY = [0, 1 / 3, 2 / 3, 1];

async function bestWay(input: SetInput, item: Item, op: 'remove' | 'fit', context: CalcContext): Promise<Way> {
  const { part } = item;
  const covers = input.surroundings?.covers;
  const found = {
    ...benchOf(input),
    ...{ target: part.partId, frames: false },
    ...(covers ? { covers } : {}),
    ...(mustLive(item.do) ? { reused: true } : {}),
    ...(op === 'fit' ? { fitting: true } : {}),
  };
  const choices = choicesOf(input, part, op);
  let first: string | undefined;
  // as it is usual, else as hot and near as this bench can
  for (const share of HOTTER_BY) {
    const set = choices.map((c) => ({ ...c, method: hotter(c.method, input.kit, share) }));
    const { best, why } = await glanceAtWays(found, set, context);
    if (best) return { method: best };
    first ??= why;
  }
  return { why: first ?? 'nothing here does it' };
}

/** What has to be done before each leg: a part's own work in its order; what stands over another comes off before it, and goes on after it. */
function comesFirst(legs: readonly Leg[], items: readonly Item[]): Map<Leg, Leg[]> {
  const of = (partId: string, op: Op) => legs.find((l) => l.part.partId === partId && l.op === op);
  const before = new Map(legs.map((l) => [l, [] as Leg[]]));
  const needs = (leg: Leg | undefined, first: Leg | undefined) => {
    if (leg && first) before.get(leg)?.push(first);
  };
  for (const { partId, after = [] } of items) {
    needs(of(partId, 'prepare'), of(partId, 'remove'));
    needs(of(partId, 'fit'), of(partId, 'prepare'));
    for (const other of after) {
      needs(of(partId, 'remove'), of(other, 'remove'));
      needs(of(other, 'fit'), of(partId, 'fit'));
    }
  }
  return before;
}
