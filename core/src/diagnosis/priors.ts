/**
 * How often parts fail, and how: relative weights per part, engineering judgement rather than field data.
 * The shop's own counts take over as they grow (`shopFactor`).
 */
import type { PartClass } from '../board/index.ts';

/**
 * Ways to fail that the ranking knows; `turns`: some of a winding's, `pins`: one pin of an IC, `several` of them, `through`: all of a MOSFET at
 * once, or an output stage to its supply, `bridge`: neighbouring pins of a plug, `under`: under voltage alone, `wrong`: a regulator holds another
 * voltage.
 */
type Way =
  | ('short' | 'leaky' | 'open' | 'up' | 'down' | 'turns' | 'dead' | 'under' | 'wrong')
  | ('gs' | 'gd' | 'be' | 'through' | 'pins' | 'several' | 'bridge');
/** The same, with what hands and soldering do. */
export type FailureWay = Way | 'joint' | 'missing';
export type Weights = Partial<Record<Way, number>>;

/** Of every class of parts. */
export const WEIGHTS = {
  mlcc: { short: 1, leaky: 0.35, open: 0.35, under: 0.05 },
  mlccbig: { short: 1.6, leaky: 0.5, open: 0.3, under: 0.1 },
  elko: { open: 1.6, leaky: 0.4, short: 0.15, under: 0.1 },
  tant: { short: 1.2, leaky: 0.4, open: 0.2, under: 0.2 },
  film: { short: 0.2, leaky: 0.1, open: 0.2 },
  res: { open: 0.35, up: 0.12, down: 0.03, short: 0.03 },
  pres: { open: 1, up: 0.32, down: 0.08 },
  shunt: { open: 0.8, up: 0.16, down: 0.04 },
  coil: { open: 0.3, turns: 0.1 },
  ferrite: { open: 0.6 },
  fuse: { open: 3 },
  relay: { open: 0.6, turns: 0.15, short: 0.03 },
  // a closed contact is drawn as its few milliohms: burnt, or under a film; an open one as a resistor of megohms: welded
  contact: { open: 0.6, up: 0.6, short: 0.4 },
  crystal: { open: 0.8, leaky: 0.1, short: 0.05 },
  diode: { short: 0.9, open: 0.35, leaky: 0.25, under: 0.1 },
  schottky: { short: 1.2, open: 0.4, leaky: 0.5, under: 0.1 },
  tvs: { short: 1.2, open: 0.3, leaky: 0.3, under: 0.3 },
  led: { open: 0.8, short: 0.1 },
  mosfet: { short: 1.6, gs: 0.8, gd: 0.4, through: 0.5, open: 0.4, under: 0.1 },
  bjt: { short: 0.8, be: 0.4, open: 0.4 },
  power: { short: 1.1, leaky: 0.6, pins: 0.8, several: 0.25, dead: 1.8, wrong: 0.4, through: 0.4, under: 0.1 },
  load: { short: 0.6, leaky: 0.5, pins: 0.5, several: 0.25, dead: 1.2, wrong: 0.2, through: 0.2, under: 0.1 },
  esd: { pins: 1.6, short: 0.3, several: 0.2 },
  conn: { open: 0.7, bridge: 0.3 },
} as const satisfies Record<PartClass, Weights>;

/** Weight of a solder bridge per pair of neighbouring pins, and of a cracked joint per part. */
export const BRIDGE_WEIGHT = 0.12;
export const JOINT_WEIGHT = 0.1;
/** Weight of a part that is not there at all; only a board that was worked on before has any. */
export const MISSING_WEIGHT = 0.01;
/** The same of a resistor of another value, and of a diode the wrong way round. */
export const WRONG_VALUE_WEIGHT = 0.01;
/** Two in each other's place, where the board was worked on. */
export const EXCHANGED_WEIGHT = 0.02;
export const REVERSED_WEIGHT = 0.02;
/** Name under which what is none of the circuit's parts stands in a ranking. */
export const NONE = 'none of these';
/** Weight of something on a net that nobody drew: less than one small ceramic. */
export const OUTSIDE = { short: 0.25, leaky: 0.1 };
/** The same across two nets of which neither is ground. */
export const ACROSS = { short: 0.04, leaky: 0.02 };
/** Share of "none of these". */
export const NONE_PRIOR = 0.02;
/** Share of an IC's failures that show at its pins at all. */
export const IC_SHOWS = 0.85;

/** What happened to the board before it came in. */
export const EVENTS = ['rework', 'drop', 'liquid', 'reversed', 'sudden', 'creeping', 'intermittent'] as const;
export type BoardEvent = (typeof EVENTS)[number];

/** Factor of an event on one way of one class to fail. */
export function eventFactor(event: BoardEvent, cls: PartClass, way: FailureWay): number {
  const dried = cls === 'elko' && way === 'open';
  switch (event) {
    case 'rework':
      return way === 'bridge' || way === 'missing' ? 10 : 1;
    case 'drop':
      return way === 'joint' || cls === 'crystal' || (cls === 'mlccbig' && way !== 'open') ? 5 : 1;
    case 'liquid':
      // corrosion eats through film, windings and joints
      if (way === 'open' && ['res', 'pres', 'ferrite', 'coil', 'relay', 'fuse'].includes(cls)) return 4;
      if (cls === 'contact') return 4;
      return way === 'bridge' || way === 'joint' || cls === 'conn' || cls === 'esd' ? 5 : 1;
    case 'reversed':
      if (way === 'open') return 1;
      // what stood in the way first; then every junction that was driven backwards
      if (['tvs', 'diode', 'schottky', 'elko', 'tant'].includes(cls)) return 10;
      return ['mosfet', 'bjt', 'power', 'load'].includes(cls) ? 4 : 1;
    case 'sudden':
      return way === 'short' || way === 'gs' || way === 'gd' || cls === 'fuse' ? 2 : dried || way === 'up' ? 0.4 : 1;
    case 'creeping':
      return dried || way === 'leaky' || way === 'up' || way === 'down' ? 3 : way === 'short' ? 0.5 : 1;
    case 'intermittent':
      return way === 'joint' ? 6 : cls === 'conn' || cls === 'contact' ? 4 : way === 'short' ? 0.4 : 1;
  }
}

/** What eyes found at a part, and how much more likely that makes it. */
export const SIGNS = {
  burnt: 300,
  hole: 1000,
  swollen: 100,
  cracked: 200,
  missing: 10_000,
  lifted: 10_000,
  reversed: 10_000,
  crust: 5,
  hot: 10,
  'looks well': 0.8,
} as const;
export type Sign = keyof typeof SIGNS;

/** Ways to be without a part while the fault is looked for. */
export const SWAPS = ['good board', 'new part', 'leg lifted'] as const;
export type Swap = (typeof SWAPS)[number];

/** Parts that feed or command one that was acquitted; factor on their weight. */
export const BESIDE_ACQUITTED_FACTOR = 2;

/** Parts that a failure tends to take along or to come from; factor on their weight. */
export const VICTIM_FACTOR = 5;

/** Pseudo-jobs that the built-in weights are worth against the shop's own. */
const PRIOR_JOBS = 20;

/**
 * Factor on a part's weight from the shop's record of this board: `culprit` of `jobs` jobs were this
 * part, `share` is what the weights alone give it.
 */
export function shopFactor(share: number, culprit: number, jobs: number): number {
  if (jobs === 0 || share <= 0) return 1;
  return (PRIOR_JOBS * share + culprit) / ((PRIOR_JOBS + jobs) * share);
}
