/**
 * The operations of the hands, generated from board, part and plan: what to do (at most twelve words), what
 * to watch, what a tap on the pedal means and writes down.
 */
import {
  type CleanUpPlace,
  type Composition,
  jointMetal,
  LOW_MELT,
  mixedByVolume,
  normalised,
  PLACES,
  residualLimits,
  roundsUntil,
  SOLDER_ALLOYS,
  writeComposition,
} from '../alloys/index.ts';
import { type BoardModel, isPolarised, partName, type PlacedPart } from '../board/index.ts';
import type { Guide, HandEvent, Mark, Operation } from './forms.ts';
import { packageById, terminalSides } from '../packages/index.ts';
import {
  type AirMethod,
  beadOn,
  dialOf,
  type IronMethod,
  type JointState,
  type LowMeltMethod,
  type Method,
  type StationModel,
} from '../rework/index.ts';
import { meltOrder, type WindowPhase } from './guide.ts';

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
  event?: HandEvent;
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
  /** What was said of the target's joints: spikes, rests of an earlier repair. */
  joints?: readonly JointState[];
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
  if (method.kind === 'low-melt') return removeByBead(work, method);
  const list =
    method.kind === 'air'
      ? removeByAir(work, method)
      : method.tool === 'tweezers'
        ? removeByTweezers(work, method)
        : removeBySuction(work, method);
  return [...spikes(work), ...list];
}

/** Alloy that the plan counts on being worked into joints before the heat. */
function spikes({ joints = [] }: Work): Instruction[] {
  return joints.flatMap(({ terminals, with: others = [] }, i) =>
    others.map(({ alloy, ratio }, k): Instruction => ({
      id: `spike-${i + 1}-${k + 1}`,
      say: `Work ${writeComposition(alloy)} into ${terminals ? `joint ${terminals.slice(0, 4).join(', ')}${terminals.length > 4 ? ' …' : ''}` : 'every joint'}.`,
      watch: `${ratio} times its own solder; iron on until it has run in. In there already? Go on.`,
      tap: 'worked in',
      mark: 'done',
    })),
  );
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

/** Joints that nobody sees: what shows is the part springing back from a nudge. */
function hidden(work: Work, terminal: string | null | undefined): boolean {
  const kind = packageById(work.target.package).terminals.find((t) => t.id === terminal)?.kind;
  return kind === 'pad' || kind === 'ball';
}

/** What to watch without a plan. */
const UNPREDICTED = 'Every joint turns shiny: corners and ground-heavy ones last.';

function heating(work: Work, how: Words): Instruction[] {
  const { guide } = work;
  const order = guide ? meltOrder(guide) : [];
  const first = guide?.joints.find((j) => j.terminal === order[0]);
  const last = joint(work, guide?.last);
  const over = guide?.closedBy;
  const look: Words = {
    say: hidden(work, guide?.last) ? 'Look now. Nudge it: does it spring back?' : `Look now. Is ${last} shiny?`,
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
      watch: guide
        ? `First to ${hidden(work, order[0]) ? 'melt' : 'turn shiny'}: ${joint(work, order[0])}${expected(first?.wet_s)}.`
        : UNPREDICTED,
      tap: 'first joint wet',
      mark: 'first-wet',
      phases: { look, late },
    },
    {
      id: 'all-wet',
      ...how,
      watch: guide
        ? hidden(work, guide.last)
          ? `Last, and out of sight: ${last}${expected(guide.allWet_s)}. Then it springs back from a nudge.`
          : `Last to turn shiny: ${last}${expected(guide.allWet_s)}.`
        : UNPREDICTED,
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
      watch: 'Handle into its stand, fan runs on. The board stays hot for minutes.',
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
      watch: beadWords(work.target.package, method.bead_mm3_mm),
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

/** A bead as hands see it: how wide (half round on its lands), and how much wire it takes. */
function beadWords(packageId: string, bead_mm3_mm: number): string {
  const wide_mm = Math.sqrt((8 / Math.PI) * bead_mm3_mm);
  const { all_mm3 } = beadOn(packageId, bead_mm3_mm);
  const wire_mm = all_mm3 / (Math.PI / 4);
  return `An unbroken bead about ${wide_mm.toFixed(1)} mm wide: ${Math.ceil(wire_mm)} mm of solid wire of 1 mm in all.`;
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

/** Rounds that what was worked in costs, by the joint that took most of it: a bead, a spike, the rest of an earlier repair. */
export function roundsFor({ target, board, method, joints = [], flood }: Work, place: CleanUpPlace): number {
  const bead = method.kind === 'low-melt' ? beadOn(target.package, method.bead_mm3_mm).each_mm3 : undefined;
  const leadFree = staysLeadFree(board, flood);
  return Math.max(
    1,
    ...packageById(target.package).terminals.map((t) => {
      const said = joints.filter((j) => j.terminals?.includes(t.id) ?? true);
      const own = said.findLast((j) => j.alloy)?.alloy ?? SOLDER_ALLOYS.get(board.jointAlloy)?.wt ?? { Sn: 100 };
      const others = [...(said.findLast((j) => j.with)?.with ?? [])];
      const bead_mm3 = bead?.get(t.id) ?? 0;
      if (method.kind === 'low-melt' && bead_mm3 > 0)
        others.push({ alloy: method.alloy ?? LOW_MELT, ratio: bead_mm3 / t.volume_mm3 });
      return roundsOfMix(mixedByVolume(own, others), place, leadFree);
    }),
  );
}

/** Rounds of solder and braid until nothing of a mixture is above its guide. */
function roundsOfMix(wt: Composition, place: CleanUpPlace, leadFree: boolean): number {
  const share = normalised(wt);
  return Math.max(
    0,
    ...residualLimits(share, leadFree).map(
      ({ element, limit_wt }) =>
        roundsUntil({ c_wt: share[element] ?? 0, mass: 1 }, { wick: PLACES[place].wick, add: 1, limit_wt }).cycles,
    ),
  );
}

/** Whether no lead may come onto a board: it has none, and the shop floods with a board's own solder. */
export const staysLeadFree = ({ jointAlloy }: Pick<BoardModel, 'jointAlloy'>, flood?: Flood): boolean =>
  flood === 'own' && SOLDER_ALLOYS.get(jointAlloy)?.lead === false;

/** What lands are flooded with, as it is called at the bench. */
export const floodSolder = ({ jointAlloy }: Pick<BoardModel, 'jointAlloy'>, flood: Flood = 'leaded'): string =>
  flood === 'own' ? `fresh ${jointAlloy}` : 'leaded solder';

function prepare(work: Work): Instruction[] {
  const { method, nearest } = work;
  const own = work.flood === 'own';
  const solder = floodSolder(work.board, work.flood);
  const place = packageById(work.target.package).terminals.some((t) => t.drill_mm) ? 'holes' : 'lands';
  const sucked = method.kind === 'iron' && method.tool === 'vacuum';
  // holes that were sucked empty stay empty, unless something has to come out of them that suction leaves
  const needed = roundsFor(work, place);
  const rounds = sucked && needed === 1 ? 0 : needed;
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
    ...(rounds === 0
      ? [
          {
            id: 'through',
            say: 'Hold it against the light: is every hole open?',
            watch: 'One that is not: fresh solder, then suck it once more.',
            tap: 'holes open',
            mark: 'done' as const,
          },
        ]
      : []),
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

/** An iron for ordinary solder, whatever the part came off with, °C. */
const ORDINARY_IRON_C = 350;
/** What a part goes on with: ordinary solder, never the alloy it came off with. */
const fitSolder = ({ board, flood }: Work): string => (flood === 'own' ? board.jointAlloy : 'leaded solder');

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
      say: `Tin one corner land with ${fitSolder(work)}. Flux the others.`,
      watch: nearest ? `Keep the iron away from ${nearest}.` : 'Little solder: it only has to hold.',
      tap: 'tinned',
      mark: 'done',
    },
    ...place,
    {
      id: 'heat-on',
      say: `Iron on at ${Math.max(method.set_C, ORDINARY_IRON_C)} °C. Tack one corner.`,
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
