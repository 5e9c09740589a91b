/** The order of a set that takes least time: from the list, from nearest neighbours and from the cheapest next one, each bettered by moving legs about. */
import { gapBetween, type PlacedPart } from '../board/index.ts';
import type { Leg } from './legs.ts';

/** Orders looked at, at most. */
const MOST_LOOKS = 20_000;

/** What has to be done before what: by leg, those that come first. */
export type Before = ReadonlyMap<Leg, readonly Leg[]>;

const mayCome = (leg: Leg, done: ReadonlySet<Leg>, before: Before): boolean =>
  (before.get(leg) ?? []).every((b) => done.has(b));

/** Legs one after the other, each the one that `pick` takes from those that may come now. Throws `RangeError` where what comes first is circular. */
function oneByOne(
  legs: readonly Leg[],
  before: Before,
  pick: (open: readonly Leg[], order: readonly Leg[]) => Leg,
): Leg[] {
  const order: Leg[] = [];
  const done = new Set<Leg>();
  const left = new Set(legs);
  while (left.size > 0) {
    const open = [...left].filter((l) => mayCome(l, done, before));
    if (open.length === 0) throw new RangeError('what has to come first goes round in a circle');
    const next = pick(open, order);
    order.push(next);
    done.add(next);
    left.delete(next);
  }
  return order;
}

/** As they are listed, but for what has to come first. */
export const listOrder = (legs: readonly Leg[], before: Before): Leg[] => oneByOne(legs, before, ([first]) => first);

const away = (a: PlacedPart, b: PlacedPart): number => (a === b ? -1 : gapBetween(a, b));

/** Always the nearest of what may come, from the first of the list on; whichever side it stands on. */
export const nearestOrder = (legs: readonly Leg[], before: Before): Leg[] =>
  oneByOne(legs, before, (open, order) => {
    const last = order.at(-1);
    if (!last) return open[0];
    return open.reduce((a, b) => (away(b.part, last.part) < away(a.part, last.part) ? b : a));
  });

const isAllowed = (order: readonly Leg[], before: Before): boolean => {
  const done = new Set<Leg>();
  return order.every((leg) => {
    const ok = mayCome(leg, done, before);
    done.add(leg);
    return ok;
  });
};

/** Orders that were bettered as far as they can be, the cheapest first, no two alike. `cost`: minutes. */
export function searchOrders(legs: readonly Leg[], before: Before, cost: (order: readonly Leg[]) => number): Leg[][] {
  const starts = [
    listOrder(legs, before),
    nearestOrder(legs, before),
    oneByOne(
      legs,
      before,
      (open, order) =>
        cheapest(
          open.map((l) => [...order, l]),
          cost,
        ).at(-1) as Leg,
    ),
    // one side after the other, tool by tool
    oneByOne(legs, before, (open, order) => {
      const last = order.at(-1);
      const like = (l: Leg) => [l.side === last?.side, l.tools[0] === last?.tools.at(-1), l.setting === last?.setting];
      const rank = (l: Leg) => like(l).reduce((sum, is, n) => sum + (is ? 4 >> n : 0), 0);
      return open.reduce((a, b) => (rank(b) > rank(a) ? b : a));
    }),
  ];
  const looks = { left: MOST_LOOKS };
  const found = starts.map((start) => bettered(start, before, cost, looks));
  const all = [...found, ...starts].map((order) => ({ order, minutes: cost(order) }));
  all.sort((a, b) => a.minutes - b.minutes);
  const seen = new Set<string>();
  return all.flatMap(({ order }) => {
    const key = order.map((l) => `${l.part.partId} ${l.op}`).join();
    if (seen.has(key)) return [];
    seen.add(key);
    return [order];
  });
}

const cheapest = (orders: readonly Leg[][], cost: (order: readonly Leg[]) => number): Leg[] => {
  const costs = orders.map(cost);
  return orders[costs.indexOf(Math.min(...costs))];
};

/** Blocks of up to three legs moved elsewhere, and two legs changed, as long as that helps. */
function bettered(
  start: readonly Leg[],
  before: Before,
  cost: (order: readonly Leg[]) => number,
  looks: { left: number },
): Leg[] {
  let best = [...start];
  let least = cost(best);
  for (let better = true; better && looks.left > 0;) {
    better = false;
    for (const order of neighbours(best)) {
      if (looks.left <= 0) break;
      if (!isAllowed(order, before)) continue;
      looks.left--;
      const minutes = cost(order);
      if (minutes >= least - 1e-9) continue;
      [best, least, better] = [order, minutes, true];
      break;
    }
  }
  return best;
}

function* neighbours(order: readonly Leg[]): Generator<Leg[]> {
  const n = order.length;
  for (let size = 1; size <= 3; size++)
    for (let from = 0; from + size <= n; from++) {
      const block = order.slice(from, from + size);
      const rest = [...order.slice(0, from), ...order.slice(from + size)];
      for (let to = 0; to <= rest.length; to++)
        if (to !== from) yield [...rest.slice(0, to), ...block, ...rest.slice(to)];
    }
  for (let a = 0; a < n; a++)
    for (let b = a + 1; b < n; b++) {
      const changed = [...order];
      [changed[a], changed[b]] = [order[b], order[a]];
      yield changed;
    }
}
