/**
 * The operations of the hands, generated from board, part and plan: what to do (at most twelve words), what
 * to watch, what a tap on the pedal means and writes down.
 */
import { partName, type BoardModel, type PlacedPart } from '../board/index.ts';
import type { JobEventBody, Mark, Operation, Guide } from '../job/events.ts';
import { packageById, terminalSides } from '../packages/index.ts';
import { meltOrder, type WindowPhase } from './guide.ts';
import type { Method } from './method.ts';

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
}

const times = (n: number) => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);

export function operationFor(op: Operation, work: Work): Instruction[] {
  if (op === 'remove') return work.method.kind === 'air' ? removeByAir(work) : removeByLowMelt(work);
  return op === 'prepare' ? prepare(work) : fit(work);
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

function removeByAir(work: Work): Instruction[] {
  const { method } = work;
  if (method.kind !== 'air') return [];
  return [
    fluxIt(work, 'A thin, even film.'),
    {
      id: 'heat-on',
      say: `Air on at ${method.set_C} °C, ${method.flow_L_min} litres. Start wide.`,
      watch: `Nozzle ${method.nozzle_mm} mm, ${method.standoff_mm} mm above the board. The clock starts with your tap.`,
      tap: 'heat on',
      mark: 'heat-on',
    },
    ...heating(work, {
      say: `Circle the body, ${method.standoff_mm} mm above it.`,
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

function removeByLowMelt(work: Work): Instruction[] {
  const { method, guide } = work;
  if (method.kind !== 'low-melt') return [];
  const sides = terminalSides(packageById(work.target.package));
  const hold =
    guide && guide.closes_s !== null && guide.closedBy === 'joints freeze'
      ? Math.round(guide.closes_s - method.stroke_s)
      : null;
  return [
    fluxIt(work, 'A flux that works at low temperatures.'),
    {
      id: 'alloy',
      say: `Lay low-melt alloy along ${sides === 1 ? 'the row' : sides === 2 ? 'both sides' : `all ${sides} sides`}.`,
      watch: `${method.bead_ratio} times the joint's own solder, an unbroken bead.`,
      tap: 'alloy laid',
      mark: 'done',
    },
    {
      id: 'heat-on',
      say: `Iron on at ${method.set_C} °C. Touch the bead.`,
      watch: 'The clock starts with your tap.',
      tap: 'heat on',
      mark: 'heat-on',
    },
    ...heating(work, { say: 'Stroke along each side in turn, a second each.', watch: '' }),
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

/** Part of the alloy that one round of flooding and braiding leaves on a land (bench judgement). */
const LEFT_PER_ROUND = 0.12;
/** Low-melt residue that may stay in a joint, as a part of its solder (guide value). */
const RESIDUE_GUIDE = 0.01;

/**
 * Rounds of leaded solder and braid until what is left of the low-melt alloy is below the guide, when the bead
 * was `bead_ratio` times the joint's own solder.
 */
export function cleanUpRounds(bead_ratio: number): number {
  const share = bead_ratio / (1 + bead_ratio);
  return Math.max(1, Math.ceil(Math.log(RESIDUE_GUIDE / share) / Math.log(LEFT_PER_ROUND)));
}

function prepare(work: Work): Instruction[] {
  const { method, nearest } = work;
  const rounds = method.kind === 'low-melt' ? cleanUpRounds(method.bead_ratio) : 1;
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
        say:
          rounds > 1 ? `Round ${i + 1} of ${rounds}: flood with leaded solder.` : 'Flood the lands with leaded solder.',
        watch: 'While the board is still warm. Fresh flux.',
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
  const turned = pkg.polarity !== 'none';
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
        say: `Air on at ${method.set_C} °C, ${method.flow_L_min} litres. Stay off.`,
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
