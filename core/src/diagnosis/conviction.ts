/**
 * Whether the likeliest part may be convicted on what is known, or what has to be cleared up first. Shares say which single fault of the
 * circuit fits best; they do not say that it fits.
 */
import { modelNet, type Netlist, statesOf } from '../circuit/index.ts';
import { few, formatReading } from '../ground/index.ts';
import type { Dictionary } from './dictionary.ts';
import { likelihood, offScale, type Expected } from './evidence.ts';
import type { Beside } from './hypotheses.ts';
import { NONE } from './priors.ts';
import { explain, SOFTWARE, type Circumstances, type Ranking, type Taken } from './rank.ts';

/** A reading this much rarer under a fault than what the fault usually shows contradicts it. */
const CONTRADICTS = 0.02;
/** Off by more than this factor a good board's reading is no scatter. */
const FAR = 3;

export const MISFIT =
  'the readings fit no single fault: measure the odd one again, or there are two faults or one outside of this circuit';

const QUANTITY = { ohm: 'ohm', cont: 'ohm', diode: 'diode', dcv: 'dcv', isup: 'current' } as const;

const shown = (type: Taken['type'], value: Taken['value']) => formatReading(value, QUANTITY[type]);

/** Ohms from here on say no more than that nothing is there: leakage of boards and fingers rules them. */
const NOTHING_OHM = 1e6;

/** Chance of a reading against the chance of what is expected there most. */
function against(reading: Taken, expected: Expected): number {
  const { type, value } = reading;
  if (type === 'ohm' && offScale(type, expected.y) > NOTHING_OHM && (value === 'OL' || value > NOTHING_OHM)) return 1;
  const most = Math.max(likelihood(type, offScale(type, expected.y), expected), likelihood(type, 'OL', expected));
  return likelihood(type, value, expected) / most;
}

/** A reading outside of the circuit that is far from a good board's. */
function far({ type, value, good }: Taken): boolean {
  if (good === undefined) return false;
  if (value === 'OL' || good === 'OL') return value !== good;
  if (type === 'diode') return Math.abs(value - good) > 0.15;
  const floor = type === 'ohm' ? 0.5 : 0.05;
  return Math.abs(Math.log(Math.max(Math.abs(value), floor) / Math.max(Math.abs(good), floor))) > Math.log(FAR);
}

/** A low resistance is one in either state of power; more would be silicon asleep, Ω. */
const LOW_OHM = 10;
/** Supplies hold their limits no better than this. */
const SUPPLY_SCATTER = 1.5;

/** Ohms and volts of one net that cannot both be right: together they take more than what feeds the board gives. */
function impossible(netlist: Netlist, readings: readonly Taken[]): string | null {
  const { power } = netlist;
  const onGround = (r: Taken, type: Taken['type']) => r.type === type && r.black === netlist.ground;
  for (const v of readings.filter((r) => onGround(r, 'dcv'))) {
    const sources = [...(power?.sources ?? []), ...((v.state !== null && power?.states[v.state]?.sources) || [])];
    const given_W = sources.reduce((sum, s) => sum + Math.abs(s.v) * s.ilim, 0);
    const r = readings.findLast((o) => onGround(o, 'ohm') && o.red === v.red);
    if (given_W === 0 || typeof v.value !== 'number' || typeof r?.value !== 'number' || r.value > LOW_OHM) continue;
    const taken_W = v.value ** 2 / Math.max(r.value, 0.05);
    if (taken_W > SUPPLY_SCATTER * given_W)
      return `${v.red} reads ${shown('dcv', v.value)} under power and ${shown('ohm', r.shown ?? r.value)} without: that takes ${taken_W.toFixed(0)} W of a supply of ${given_W.toFixed(0)} W; one of them is from another time or place`;
  }
  return null;
}

/** Something outside with this share may as well be it. */
const ALSO = 0.04;

/** Parts of the board that may as well be it and that the circuit lacks; null without. */
function leftOutOf(ranking: Ranking, beside: readonly Beside[]): Doubt | null {
  const other = ranking.suspects.find((s) => s.ref === NONE && s.where && s.p > ALSO);
  const known = beside.find(({ net, parts }) => parts.length > 0 && other?.where.endsWith(` on ${net}`));
  if (!known) return null;
  const { net } = known;
  const refs = known.parts.map((p) => p.ref);
  const [are, stand] = refs.length > 1 ? ['are', 'stand'] : ['is', 'stands'];
  return { why: `${few(refs)} ${stand} on ${net} too and ${are} not in this circuit`, leftOut: { net, refs } };
}

/** Pins without which a well chip is silent. */
const WAKES = /^(N?RE?S(E)?T\w*|EN(ABLE)?\d*|CLK\w*|XTAL\w*|XI|OSC\w*|MUTE|SHDN|STBY|PG)$/i;

/** Supplies, resets, enables and clocks of a chip that nobody has read under power. */
function unreadInputs(netlist: Netlist, ref: string, readings: readonly Taken[]): string[] {
  const part = netlist.parts.find((p) => p.ref === ref);
  if (part?.kind !== 'IC' || statesOf(netlist).length === 0) return [];
  const read = new Set(readings.filter((r) => r.type === 'dcv').map((r) => modelNet(netlist, r.red)));
  const nets = Object.entries(part.pins).flatMap(([pin, net]) =>
    part.rail?.includes(pin) || WAKES.test(pin) || WAKES.test(net) ? [net] : [],
  );
  return [...new Set(nets)].filter((net) => net !== netlist.ground && !read.has(modelNet(netlist, net)));
}

export interface Doubt {
  why: string;
  /** The readings do not fit: whatever fits best may be surer than it should. */
  misfit?: true;
  /** Parts of the board that may as well be it and that the circuit lacks. */
  leftOut?: { net: string; refs: string[] };
  /** Nets of the part, where none of them has been read. */
  unread?: ReadonlySet<string>;
}

/**
 * Why the first part of a ranking is not convicted yet; null where nothing stands against it. `outside`: readings on nets that the circuit does
 * not hold.
 */
export function doubtOf(
  dictionary: Dictionary,
  ranking: Ranking,
  {
    readings,
    outside,
    circumstances,
    beside = [],
  }: {
    readings: readonly Taken[];
    outside: readonly Taken[];
    circumstances: Circumstances;
    beside?: readonly Beside[];
  },
): Doubt | null {
  const { netlist } = dictionary;
  const ref = ranking.parts[0]?.ref;
  const leading = (of: string) => ranking.suspects.find((s) => s.ref === of);
  const left = leftOutOf(ranking, beside);
  if (ref === NONE && left) return left;
  if (ref === NONE && leading(NONE)?.where)
    return { why: `what reads so is not in this circuit: something ${leading(NONE)?.where}` };
  if (ref === undefined || ref === NONE || ref === SOFTWARE)
    return { why: 'nothing of this circuit explains what was read' };
  if (ranking.contradiction) return { why: MISFIT, misfit: true };
  const torn = impossible(netlist, readings);
  if (torn) return { why: torn, misfit: true };
  const stray = outside.find(far);
  if (stray) {
    const beside = shown(stray.type, stray.good ?? 'OL');
    return {
      why: `${stray.red} reads ${shown(stray.type, stray.value)} where a good board reads ${beside}, and this circuit does not hold it`,
    };
  }
  for (const { reading, expected } of explain(dictionary, ranking, readings, { ref, rival: null }))
    if (against(reading, expected) < CONTRADICTS) {
      const would = shown(reading.type, offScale(reading.type, expected.y));
      return {
        misfit: true,
        why: `${reading.red || 'the supply'} reads ${shown(reading.type, reading.shown ?? reading.value)}; with ${ref} bad it would show about ${would}`,
      };
    }
  const { seen = [], offBoard = [], swapped = [] } = circumstances;
  if ([...seen, ...offBoard, ...swapped].some((c) => c.ref === ref)) return null;
  if (left) return left;
  const mode = leading(ref)?.mode;
  const silent = mode === 'dead' || mode === 'asleep' ? unreadInputs(netlist, ref, readings) : [];
  if (silent.length > 0)
    return {
      why: `${ref} may be silent because it is not let: ${silent.join(', ')} under power first, and its clock if it has one`,
      unread: new Set(silent),
    };
  const own = new Set(
    netlist.parts
      .filter((p) => ref.split(' + ').includes(p.ref))
      .flatMap((p) => Object.values(p.pins))
      .map((net) => modelNet(netlist, net)),
  );
  own.delete(modelNet(netlist, netlist.ground));
  const probed = readings.some(
    (r) => r.type === 'isup' || [r.red, r.black].some((net) => own.has(modelNet(netlist, net))),
  );
  return probed ? null : { why: `nothing has been read at ${ref} yet`, unread: own };
}
