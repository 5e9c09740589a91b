/**
 * The operations of the hands, generated from board, part and plan: what to do (at most twelve words), what
 * to watch, what a tap on the pedal means and writes down.
 */
import { PLACES, residualLimits, roundsUntil, type CleanUpPlace } from '../alloys/cleanUp.ts';
import { normalised, type Composition } from '../alloys/elements.ts';
import { jointMetal } from '../alloys/jointMetal.ts';
import { LOW_MELT } from '../alloys/library.ts';
import { partName, type BoardModel, type PlacedPart } from '../board/index.ts';
import type { JobEventBody, Mark, Operation, Guide } from '../job/events.ts';
import { isPolarised } from '../diagnosis/compare.ts';
import { packageById, terminalSides } from '../packages/index.ts';
import { meltOrder, type WindowPhase } from './guide.ts';
import {
  dialOf,
  type AirMethod,
  type IronMethod,
  type LowMeltMethod,
  type Method,
  type StationModel,
} from './method.ts';

/** Alloys that melt below this are called low-melt, °C. */
const LOW_MELTING_C = 165;

export interface Words {
  /** At most twelve words. */
  say: string;
  watch: string;
}

export interface Instruction extends Words {
  id: string;
  /** What a tap says. */
  tap: string;
  mark: Mark;
  /** Written with the mark. */
  event?: JobEventBody;
  /** Other words while the clock stands elsewhere in the window. */
  phases?: Partial<Record<WindowPhase, Words>>;
  /** Joints to go through one by one. */
  walk?: string[];
  /** How long it takes at least, s. */
  lasts_s?: number;
}

export interface Work {
  board: BoardModel;
  target: PlacedPart;
  method: Method;
  guide: Guide | null;
  /** What stands nearest and may be hurt, as its name on the board. */
  nearest: string | null;
  /** The air station, as far as its dial goes. */
  station: Pick<StationModel, 'air'>;
  /** The shop's rule: lands are flooded with leaded solder, or with the board's own where it has to stay what it is. */
  flood?: Flood;
}

export const FLOODS = ['leaded', 'own'] as const;
export type Flood = (typeof FLOODS)[number];

/** "390 °C, 45 litres", or how far an unmarked dial is turned up. */
function airSetting({ station }: Work, method: AirMethod): string {
  const { value, unit } = dialOf(method.flow_L_min, station);
  return `${method.set_C} °C, ${unit === '%' ? `dial at ${value} %` : `${value} litres`}`;
}

const times = (n: number) => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);

export function operationFor(op: Operation, work: Work): Instruction[] {
  if (op === 'remove') return removeBy(work, work.method);
  return op === 'prepare' ? prepare(work) : fit(work);
}

function removeBy(work: Work, method: Method): Instruction[] {
  if (method.kind === 'air') return removeByAir(work, method);
  if (method.kind === 'low-melt') return removeByBead(work, method);
  return method.tool === 'tweezers' ? removeByTweezers(work, method) : removeBySuction(work, method);
}

/** A joint as the technician finds it: its number, or what it is. */
function joint(work: Work, terminal: string | null | undefined): string {
  if (!terminal) return 'the last joint';
  const kind = packageById(work.target.package).terminals.find((t) => t.id === terminal)?.kind;
  if (kind === 'pad') return 'the pad under the body';
  return kind === 'tab' ? 'the tab' : `joint ${terminal}`;
}

const expected = (s: number | null | undefined): string =>
  s === null || s === undefined ? '' : ` at about ${Math.round(s)} s`;

/** What to watch without a plan. */
const UNPREDICTED = 'Every joint turns shiny: corners and ground-heavy ones last.';

function heating(work: Work, how: Words): Instruction[] {
  const { guide } = work;
  const order = guide ? meltOrder(guide) : [];
  const first = guide?.joints.find((j) => j.terminal === order[0]);
  const last = joint(work, guide?.last);
  const over = guide?.closedBy;
  const look: Words = {
    say: `Look now. Is ${last} shiny?`,
    watch: 'Every joint bright and moving before anything is lifted.',
  };
  const late: Words = {
    say:
      over && over !== 'joints freeze'
        ? `Over the limit of ${over}. Heat off?`
        : 'Later than planned. Fresh flux, or heat off?',
    watch: 'All wet: say so and lift at once. Not yet: take the heat away.',
  };
  return [
    {
      id: 'first-wet',
      ...how,
      watch: guide ? `First to turn shiny: ${joint(work, order[0])}${expected(first?.wet_s)}.` : UNPREDICTED,
      tap: 'first joint wet',
      mark: 'first-wet',
      phases: { look, late },
    },
    {
      id: 'all-wet',
      ...how,
      watch: guide ? `Last to turn shiny: ${last}${expected(guide.allWet_s)}.` : UNPREDICTED,
      tap: 'all wet',
      mark: 'all-wet',
      phases: { look, late },
    },
  ];
}

function fluxIt(work: Work, otherwise: string): Instruction {
  return {
    id: 'flux',
    say: `Flux every joint of ${partName(work.target)}.`,
    watch: work.nearest ? `Keep it from creeping under ${work.nearest}.` : otherwise,
    tap: 'fluxed',
    mark: 'done',
  };
}

const COUNT: Instruction = {
  id: 'count',
  say: 'Count lands and legs. Anything torn?',
  watch: 'A land without a track by design is not a torn one.',
  tap: 'all there',
  mark: 'done',
};

function removeByAir(work: Work, method: AirMethod): Instruction[] {
  return [
    fluxIt(work, 'A thin, even film.'),
    {
      id: 'heat-on',
      say: `Air on at ${airSetting(work, method)}. Start wide.`,
      watch: `Nozzle ${method.nozzle_mm} mm, ${method.standoff_mm} mm above the board. The clock starts with your tap.`,
      tap: 'heat on',
      mark: 'heat-on',
    },
    ...heating(work, {
      say: `${method.sweep_deg === undefined ? 'Circle the body' : 'To and fro along it'}, ${method.standoff_mm} mm above it.`,
      watch: '',
    }),
    {
      id: 'lift',
      say: `Nudge it. It floats? Lift straight up.`,
      watch: 'Heat stays on while lifting. No force: one solid joint tears its pad.',
      tap: 'lifted',
      mark: 'lifted',
      phases: { late: { say: 'Lift now, or take the heat away.', watch: 'No force: one solid joint tears its pad.' } },
    },
    {
      id: 'heat-off',
      say: 'Heat off. Hold the part clear and level.',
      watch: 'Cap on the nozzle stand, fan runs on. The board stays hot for minutes.',
      tap: 'heat off',
      mark: 'heat-off',
    },
    COUNT,
  ];
}

function removeByBead(work: Work, method: LowMeltMethod): Instruction[] {
  const { guide } = work;
  const low = isLowMelting(method);
  const sides = terminalSides(packageById(work.target.package));
  const hold =
    guide && guide.closes_s !== null && guide.closedBy === 'joints freeze'
      ? Math.round(guide.closes_s - method.stroke_s)
      : null;
  return [
    fluxIt(work, low ? 'A flux that works at low temperatures.' : 'A thin, even film.'),
    {
      id: 'alloy',
      say: `Lay ${low ? 'low-melt alloy' : 'fresh solder'} along ${sides === 1 ? 'the row' : sides === 2 ? 'both sides' : `all ${sides} sides`}.`,
      watch: `${method.bead_ratio} times the joint's own solder, an unbroken bead.`,
      tap: 'alloy laid',
      mark: 'done',
    },
    {
      id: 'heat-on',
      say: `${method.irons === 2 ? 'Both irons' : 'Iron'} on at ${method.set_C} °C. Touch the bead.`,
      watch: 'The clock starts with your tap.',
      tap: 'heat on',
      mark: 'heat-on',
    },
    ...heating(work, { say: strokes(method), watch: '' }),
    {
      id: 'lift',
      say: 'Nudge it. It floats? Lift straight up.',
      watch:
        hold === null
          ? 'The alloy stays liquid for a while.'
          : `The bead stays liquid about ${hold} s after the iron leaves.`,
      tap: 'lifted',
      mark: 'lifted',
      phases: {
        late: { say: 'Freezing. Iron back on, do not pull.', watch: 'No force: one solid joint tears its pad.' },
      },
    },
    {
      id: 'heat-off',
      say: 'Iron into its stand.',
      watch: 'Wipe the alloy off the tip first.',
      tap: 'iron away',
      mark: 'heat-off',
    },
    COUNT,
  ];
}

/** How the irons move along a bead. */
function strokes({ irons = 1, pass_s = 1, rest_s = 0 }: LowMeltMethod): string {
  const each = pass_s + 2 * rest_s === 1 ? 'a second' : `${pass_s + 2 * rest_s} s`;
  return irons === 2
    ? `An iron on each side: stroke both, ${each} each.`
    : `Stroke along each side in turn, ${each} each.`;
}

/** Whether a bead is of an alloy made to stay liquid, not of ordinary solder. */
function isLowMelting({ alloy = LOW_MELT }: LowMeltMethod): boolean {
  return jointMetal(alloy).Tl < LOW_MELTING_C;
}

function removeByTweezers(work: Work, method: IronMethod): Instruction[] {
  return [
    fluxIt(work, 'A thin, even film.'),
    {
      id: 'feed',
      say: 'Fresh solder on both ends.',
      watch: 'It wets the tips and carries their heat.',
      tap: 'fed',
      mark: 'done',
    },
    {
      id: 'heat-on',
      say: `Hot tweezers at ${method.set_C} °C. Grip both ends.`,
      watch: 'Both tips flat on their joints. The clock starts with your tap.',
      tap: 'heat on',
      mark: 'heat-on',
    },
    ...heating(work, { say: 'Hold both ends. Do not squeeze.', watch: '' }),
    {
      id: 'lift',
      say: 'It turns freely? Lift it straight up.',
      watch: 'No force: one solid joint tears its pad.',
      tap: 'lifted',
      mark: 'lifted',
      phases: { late: { say: 'Lift now, or take the heat away.', watch: 'No force: one solid joint tears its pad.' } },
    },
    {
      id: 'heat-off',
      say: 'Tweezers into their stand.',
      watch: 'Tin both tips.',
      tap: 'tweezers away',
      mark: 'heat-off',
    },
    COUNT,
  ];
}

function removeBySuction(work: Work, method: IronMethod): Instruction[] {
  const pins = packageById(work.target.package).terminals.map((t) => t.id);
  return [
    fluxIt(work, 'On both faces.'),
    {
      id: 'feed',
      say: 'Feed fresh solder into every hole.',
      watch: 'Old solder alone does not carry the heat through.',
      tap: 'fed',
      mark: 'done',
    },
    {
      id: 'heat-on',
      say: `Vacuum iron at ${method.set_C} °C on the first pin.`,
      watch: 'The clock starts with your tap.',
      tap: 'heat on',
      mark: 'heat-on',
    },
    {
      id: 'pins',
      say: 'Molten through? Wait, turn the tip, then suck.',
      watch: `${method.dwell_s} s more once it is molten. Ground pins last longest.`,
      tap: 'this pin empty',
      mark: 'done',
      walk: pins,
    },
    {
      id: 'all-wet',
      say: 'Push every pin. Do all of them move?',
      watch: 'One that holds: fresh solder, once more, or a breath of air.',
      tap: 'all free',
      mark: 'all-wet',
    },
    {
      id: 'lift',
      say: 'Lift it out straight. No prying.',
      watch: 'A pin that holds pulls the plating out of its hole.',
      tap: 'lifted',
      mark: 'lifted',
    },
    {
      id: 'heat-off',
      say: 'Vacuum iron into its stand.',
      watch: 'Empty its chamber.',
      tap: 'iron away',
      mark: 'heat-off',
    },
    COUNT,
  ];
}

/** Rounds of leaded solder and braid until what is left of a bead of `alloy` is below the guides, the bead `bead_ratio` times the joint. */
export function cleanUpRounds(
  bead_ratio: number,
  alloy: Composition = LOW_MELT,
  place: CleanUpPlace = 'lands',
): number {
  const share = normalised(alloy);
  const rounds = residualLimits(share, false).map(({ element, limit_wt }) => {
    const c_wt = ((share[element] ?? 0) * bead_ratio) / (1 + bead_ratio);
    return roundsUntil({ c_wt, mass: 1 }, { wick: PLACES[place].wick, add: 1, limit_wt }).cycles;
  });
  return Math.max(1, ...rounds);
}

/** What lands are flooded with, as it is called at the bench. */
export const floodSolder = ({ jointAlloy }: Pick<BoardModel, 'jointAlloy'>, flood: Flood = 'leaded'): string =>
  flood === 'own' ? `fresh ${jointAlloy}` : 'leaded solder';

function prepare(work: Work): Instruction[] {
  const { method, nearest } = work;
  const own = work.flood === 'own';
  const solder = floodSolder(work.board, work.flood);
  const place = packageById(work.target.package).terminals.some((t) => t.drill_mm) ? 'holes' : 'lands';
  const rounds = method.kind === 'low-melt' ? cleanUpRounds(method.bead_ratio, method.alloy, place) : 1;
  return [
    {
      id: 'scan',
      say: 'Scan the surroundings. Compare with the photo.',
      watch: nearest
        ? `${nearest} first: softened, leaning, shifted? Then every small part.`
        : 'Nothing shifted, missing, softened.',
      tap: 'as before',
      mark: 'done',
      event: { type: 'surroundings-scanned', ok: true, after: 'removal' },
    },
    ...Array.from({ length: rounds }, (_, i): Instruction[] => [
      {
        id: `flood-${i + 1}`,
        say: rounds > 1 ? `Round ${i + 1} of ${rounds}: flood with ${solder}.` : `Flood the lands with ${solder}.`,
        watch: own
          ? 'It wets later and wants a hotter tip: fresh flux, 30 K more, no longer on a land.'
          : 'While the board is still warm. Fresh flux.',
        tap: 'flooded',
        mark: 'done',
      },
      {
        id: `braid-${i + 1}`,
        say: 'Braid on, iron on the braid. Both off hot.',
        watch: 'Never scrape. A braid that froze on tears the pad: heat it again.',
        tap: 'braided',
        mark: 'done',
      },
    ]).flat(),
    {
      id: 'wash',
      say: 'Iron away. Wash the flux off with alcohol.',
      watch: 'No heat, no spark near alcohol. Let it dry.',
      tap: 'washed',
      mark: 'done',
    },
    {
      id: 'lands',
      say: 'Look at every land: flat, shiny, nothing lifted?',
      watch: 'No balls, no hairs, holes open on both faces.',
      tap: 'lands clean',
      mark: 'done',
      event: { type: 'lands-clean', ok: true },
    },
  ];
}

function fit(work: Work): Instruction[] {
  const { method, target, nearest } = work;
  const name = partName(target);
  const pkg = packageById(target.package);
  const turned = isPolarised(target);
  const place: Instruction[] = [
    {
      id: 'place',
      say: turned ? `Place ${name}. Check its mark once more.` : `Place ${name} on its lands.`,
      watch: turned ? 'Mark against photo and silkscreen, before anything melts.' : 'Centred, flat, not tilted.',
      tap: 'placed',
      mark: 'done',
    },
  ];
  const finish: Instruction[] = [
    {
      id: 'cool',
      say: 'Hold still until it has frozen.',
      watch: 'Solder turns dull when it is solid. No blowing.',
      tap: 'cooled',
      mark: 'fitted',
    },
    {
      id: 'wash',
      say: 'Wash the flux off. Let it dry.',
      watch: 'Nothing hot near alcohol.',
      tap: 'washed',
      mark: 'done',
    },
  ];
  if (method.kind === 'air')
    return [
      {
        id: 'flux',
        say: 'Thin film of solder on the lands, then flux.',
        watch: pkg.terminals.some((t) => t.kind === 'pad')
          ? 'A film only on the centre pad, or the edges will not touch.'
          : 'Even height: a fat land tilts the part.',
        tap: 'fluxed',
        mark: 'done',
      },
      ...place,
      {
        id: 'heat-on',
        say: `Air on at ${airSetting(work, method)}. Stay off.`,
        watch: `${method.standoff_mm} mm above the board, so that nothing is blown away.`,
        tap: 'heat on',
        mark: 'heat-on',
      },
      ...heating(work, { say: `Circle wide, ${method.standoff_mm} mm above it.`, watch: '' }).map((i) => ({
        ...i,
        ...(i.id === 'all-wet' ? { watch: `${i.watch} It settles by itself.` } : {}),
        phases: i.phases && {
          ...i.phases,
          look: {
            say: 'Look now. Has it settled on its lands?',
            watch: `Last to melt: ${joint(work, work.guide?.last)}.`,
          },
        },
      })),
      {
        id: 'heat-off',
        say: 'Heat off. Do not touch the part.',
        watch: 'Draw the air straight up.',
        tap: 'heat off',
        mark: 'heat-off',
      },
      ...finish,
    ];
  const terminals = pkg.terminals.map((t) => t.id);
  return [
    {
      id: 'tin',
      say: 'Tin one corner land. Flux the others.',
      watch: nearest ? `Keep the iron away from ${nearest}.` : 'Little solder: it only has to hold.',
      tap: 'tinned',
      mark: 'done',
    },
    ...place,
    {
      id: 'heat-on',
      say: `Iron on at ${method.set_C} °C. Tack one corner.`,
      watch: 'Press nothing. Look from above: is every leg over its land?',
      tap: 'tacked',
      mark: 'heat-on',
    },
    {
      id: 'solder',
      say: `Solder joint by joint, ${terminals.length} in all.`,
      watch: 'A second or two each. Solder to the land, not to the tip.',
      tap: 'this joint done',
      mark: 'done',
      walk: terminals,
    },
    {
      id: 'heat-off',
      say: 'Iron into its stand.',
      watch: `Drag bridges off with braid, ${times(1)}, hot.`,
      tap: 'iron away',
      mark: 'heat-off',
    },
    ...finish,
  ];
}
