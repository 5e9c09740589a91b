/** The operations of the hands on a part, from board, part and plan: taking it off, preparing its lands, putting its like on. */
import { writeComposition } from '../alloys/index.ts';
import { formatTemperature } from '../ground/index.ts';
import { packageById } from '../packages/index.ts';
import { type Instruction, kindOf, type Operation, someJoints, wordsOf } from '../rework/index.ts';
import { fit } from './fit.ts';
import { fluxed } from './flux.ts';
import { withLaps } from './laps.ts';
import { heatBelow } from './protection.ts';
import { putAway } from './partOff.ts';
import { prepare } from './prepare.ts';
import type { Work } from './work.ts';

export function operationFor(op: Operation, work: Work): Instruction[] {
  if (op === 'remove') return overHeat(remove(work), work).map((i) => (i.id === 'flux' ? fluxed(i, work) : i));
  return op === 'prepare' ? prepare(work) : fit(work);
}

/** Phase by phase, after what the plan counts on having been worked in; where a lap has left nothing that holds, the tools after it have nothing to do. */
function remove(work: Work): Instruction[] {
  const list = brings(work) ? [] : workedIn(work);
  const { phases } = work.method;
  const said = work.said ?? { walked: [], doubts: 0 };
  let held = stillHeld(work);
  for (const [n, p] of phases.entries()) {
    const told = (goesOn: boolean) => {
      const words = wordsOf(p, { ...work, until: p.until, goesOn, held });
      return withLaps(
        words.map((i) => ({ ...i, phase: p.id })),
        said,
      );
    };
    const goesOn = n < phases.length - 1;
    const laps = told(goesOn);
    if (goesOn && laps.held?.length === 0) return keptAfter(onceFluxed([...list, ...told(false).list]), work);
    list.push(...laps.list);
    held = laps.held ?? held;
  }
  return keptAfter(onceFluxed(list), work);
}

/** The part goes into its place once the tools are away, before anything is counted. */
function keptAfter(list: readonly Instruction[], work: Work): Instruction[] {
  const off = list.findLastIndex((i) => i.mark === 'heat-off');
  return off < 0 ? [...list] : [...list.slice(0, off + 1), putAway(work), ...list.slice(off + 1)];
}

/** The joints that work given up before has left; undefined where it freed none. */
function stillHeld({ target, freed = [] }: Work): readonly string[] | undefined {
  if (freed.length === 0) return undefined;
  const all = packageById(target.package).terminals.map((t) => t.id);
  const held = all.filter((t) => !freed.includes(t));
  // where each was said free and the part is still on, that is in doubt
  return held.length > 0 ? held : undefined;
}

/** Heat from below that is there all the time comes under the board as the clock starts: the times count from there. */
function overHeat(list: readonly Instruction[], { method, surroundings = {}, panel }: Work): Instruction[] {
  const below = heatBelow(surroundings);
  if (!below) return [...list];
  const { name, setPoint } = below;
  const set = setPoint.unit === '°C' ? formatTemperature(setPoint.value, panel) : `${setPoint.value} ${setPoint.unit}`;
  const on = `Board over the ${name} now.`;
  const own = list.filter((i) => i.phase === method.phases[0].id && i.id !== 'flux');
  // a chain may begin with a tool that starts no clock of its own
  const first = list.indexOf(own.find((i) => i.mark === 'heat-on') ?? own[0]);
  return [
    {
      id: 'under',
      say: `Set the ${name} to ${set}, beside the board.`,
      watch: 'Let it get there. The board comes over it with the first tool, not before: the times count from there.',
      tap: 'it is hot',
      mark: 'done',
    },
    ...list.map((i, n) => (n === first ? { ...i, watch: `${on} ${i.watch}` } : i)),
  ];
}

/** Flux that is on needs no second word. */
function onceFluxed(list: readonly Instruction[]): Instruction[] {
  const first = list.findIndex((i) => i.id === 'flux');
  return list.filter((i, n) => i.id !== 'flux' || n === first);
}

/** Whether an alloy is laid on anyway: what was worked in before goes with it. */
const brings = ({ method }: Work) => method.phases.some((p) => kindOf(p).bridges);

/** Alloy that the plan counts on being worked into joints before the heat. */
function workedIn({ joints = [] }: Work): Instruction[] {
  return joints.flatMap(({ terminals, with: others = [] }, i) =>
    others.map(({ alloy, ratio }, k): Instruction => ({
      id: `spike-${i + 1}-${k + 1}`,
      say: `Work ${writeComposition(alloy)} into ${terminals ? `joint ${someJoints(terminals)}` : 'every joint'}.`,
      watch: `${ratio} times its own solder; iron on until it has run in. In there already? Go on.`,
      tap: 'worked in',
      mark: 'done',
    })),
  );
}
