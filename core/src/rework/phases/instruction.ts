/** Instructions for the hands, and the sentences that several kinds of work share: what to do (at most twelve words), what to watch, what a tap says. */
import { type BoardModel, partName, type PlacedPart } from '../../board/index.ts';
import { packageById } from '../../packages/index.ts';
import { meltOrder, type WindowPhase } from '../guide.ts';
import type { Guide, HandEvent, Mark } from '../handForms.ts';
import type { Until } from '../bench/drive.ts';
import type { Limbs } from './declaration.ts';
import type { Panel } from '../dials.ts';

export interface Words {
  /** At most twelve words. */
  say: string;
  watch: string;
}

export interface Instruction extends Words {
  id: string;
  /** The phase it belongs to; none where it stands between or after them. */
  phase?: string;
  /** What a tap says. */
  tap: string;
  mark: Mark;
  /** Written with the mark. */
  event?: HandEvent;
  /** Other words while the clock stands elsewhere in the window. */
  phases?: Partial<Record<WindowPhase, Words>>;
  /** Joints to go through one by one. */
  walk?: string[];
  /** They are only tried, not worked at. */
  trying?: true;
  /** What is told of those that hold after it, when they come round again. */
  again?: Words;
  /** Whether all of them are free: one may turn out to hold. */
  tries?: true;
  /** How long it takes at least, s. */
  lasts_s?: number;
  /** What the hands change while it goes on, in the order of time. */
  later?: (Words & { from_s: number })[];
  /** What each hand and the foot do meanwhile. */
  limbs?: Limbs;
}

/** What is told now: in the window and after it its own words, until then what the hands changed last. */
export function wordsAt(instruction: Instruction, phase: WindowPhase, elapsed_s: number): Words {
  const { phases, later = [] } = instruction;
  return phases?.[phase] ?? later.findLast((l) => elapsed_s >= l.from_s) ?? instruction;
}

/** Where the hands are: the part, what is predicted, what stands near. */
export interface Workplace {
  board: BoardModel;
  target: PlacedPart;
  guide: Guide | null;
  /** What stands nearest and may be hurt, as its name on the board. */
  nearest: string | null;
  /** What the dials at hand say, in the user's units. */
  panel: Panel;
  /** When the phase that is told hands over, and whether another follows it. */
  until?: Until;
  goesOn?: boolean;
  /** The part goes on. */
  fitting?: true;
  /** When the phase that is told is given up, s. */
  giveUp_s?: number;
  /** The joints that earlier phases left, where hands have gone through all of them. */
  held?: readonly string[];
}

/** Taking a part off with settings of a kind, or what that does before another phase takes it off. */
export type Say<S> = (settings: S, work: Workplace) => Instruction[];

/** A joint as the technician finds it: its number, or what it is. */
export function jointName({ target }: Pick<Workplace, 'target'>, terminal: string | null | undefined): string {
  if (!terminal) return 'the last joint';
  const kind = packageById(target.package).terminals.find((t) => t.id === terminal)?.kind;
  if (kind === 'pad') return 'the pad under the body';
  return kind === 'tab' ? 'the tab' : `joint ${terminal}`;
}

const expected = (s: number | null | undefined): string =>
  s === null || s === undefined ? '' : ` at about ${Math.round(s)} s`;

/** Joints as they are told: the first few of many. */
export const someJoints = (ids: readonly string[]): string =>
  `${ids.slice(0, 4).join(', ')}${ids.length > 4 ? ' …' : ''}`;

/** Joints that nobody sees: what shows is the part springing back from a nudge. */
function hidden({ target }: Workplace, terminal: string | null | undefined): boolean {
  const kind = packageById(target.package).terminals.find((t) => t.id === terminal)?.kind;
  return kind === 'pad' || kind === 'ball';
}

/** What to watch without a plan. */
const UNPREDICTED = 'Every joint turns shiny: corners and ground-heavy ones last.';
const NO_FORCE = 'No force: one solid joint tears its pad.';

/** Waiting until joints are wet, `how` telling what the hands do meanwhile, `later` what they change on the way. */
export function heating(work: Workplace, how: string, later?: Instruction['later']): Instruction[] {
  const { guide } = work;
  const order = guide ? meltOrder(guide) : [];
  const first = guide?.joints.find((j) => j.terminal === order[0]);
  const last = jointName(work, guide?.last);
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
    watch: `All wet: say so and lift at once. Not yet: take the heat away${work.giveUp_s === undefined ? '' : `, at ${Math.round(work.giveUp_s)} s at the latest`}.`,
  };
  return [
    {
      id: 'first-wet',
      say: how,
      watch: guide
        ? `First to ${hidden(work, order[0]) ? 'melt' : 'turn shiny'}: ${jointName(work, order[0])}${expected(first?.wet_s)}.`
        : UNPREDICTED,
      tap: 'first joint wet',
      mark: 'first-wet',
      phases: { look, late },
      ...(later ? { later } : {}),
    },
    {
      id: 'all-wet',
      say: how,
      watch: guide
        ? hidden(work, guide.last)
          ? `Last, and out of sight: ${last}${expected(guide.allWet_s)}. Then it springs back from a nudge.`
          : `Last to turn shiny: ${last}${expected(guide.allWet_s)}.`
        : UNPREDICTED,
      tap: 'all wet',
      mark: 'all-wet',
      phases: { look, late },
      ...(later ? { later } : {}),
    },
  ];
}

export function fluxIt(work: Workplace, otherwise: string): Instruction {
  return {
    id: 'flux',
    say: `Flux every joint of ${partName(work.target)}.`,
    watch: work.nearest ? `Keep it from creeping under ${work.nearest}.` : otherwise,
    tap: 'fluxed',
    mark: 'done',
  };
}

export const heatOn = (say: string, watch = 'The clock starts with your tap.'): Instruction => ({
  id: 'heat-on',
  say,
  watch,
  tap: 'heat on',
  mark: 'heat-on',
});

export const heatOff = (say: string, watch: string, tap: string): Instruction => ({
  id: 'heat-off',
  say,
  watch,
  tap,
  mark: 'heat-off',
});

/** Lifting; `late`: other words once the window has closed. */
export const lift = (say: string, watch: string, late?: string): Instruction => ({
  id: 'lift',
  say,
  watch,
  tap: 'lifted',
  mark: 'lifted',
  ...(late === undefined ? {} : { phases: { late: { say: late, watch: NO_FORCE } } }),
});
export const LIFT_LATE = 'Lift now, or take the heat away.';
export { NO_FORCE };

/** The look at a bare land or a leg when the part is off. */
export const COUNT: Instruction = {
  id: 'count',
  say: 'Count lands and legs. Anything torn?',
  watch: 'A land without a track by design is not a torn one.',
  tap: 'all there',
  mark: 'done',
};
