/** The operations of the hands on a part, from board, part and plan: taking it off, preparing its lands, putting its like on. */
import { writeComposition } from '../alloys/index.ts';
import { type Instruction, kindOf, type Operation, wordsOf } from '../rework/index.ts';
import { fit } from './fit.ts';
import { prepare } from './prepare.ts';
import type { Work } from './work.ts';

export function operationFor(op: Operation, work: Work): Instruction[] {
  if (op === 'remove') return remove(work);
  return op === 'prepare' ? prepare(work) : fit(work);
}

/** Phase by phase, after what the plan counts on having been worked in. */
function remove(work: Work): Instruction[] {
  const { phases } = work.method;
  return [
    ...(brings(work) ? [] : workedIn(work)),
    ...onceFluxed(
      phases.flatMap((p, n) =>
        wordsOf(p, { ...work, until: p.until, goesOn: n < phases.length - 1 }).map((i) => ({ ...i, phase: p.id })),
      ),
    ),
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
      say: `Work ${writeComposition(alloy)} into ${terminals ? `joint ${terminals.slice(0, 4).join(', ')}${terminals.length > 4 ? ' …' : ''}` : 'every joint'}.`,
      watch: `${ratio} times its own solder; iron on until it has run in. In there already? Go on.`,
      tap: 'worked in',
      mark: 'done',
    })),
  );
}
