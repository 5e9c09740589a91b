/** Joints gone through one by one: those that hold come round again, and nothing is lifted until each is said free. */
import type { Instruction } from '../rework/index.ts';

/** What was said of a joint, at which instruction; logs of old do not say at which. */
export interface Walked {
  instruction?: string;
  terminal: string;
  state: string;
}

/** What hands have said of joints in a run. */
export interface Said {
  walked: readonly Walked[];
  /** How often one was found to hold after all had been said free. */
  doubts: number;
}

/** How it is marked that one was found to hold, the first time and later. */
const DOUBT = 'one-holds-';
export const doubtId = (before: number): string => `${DOUBT}${before + 1}`;

/** What the marks and joints of a run come to. */
export const saidIn = (run: { walked: readonly Walked[]; marks: readonly { instruction: string }[] }): Said => ({
  walked: run.walked,
  doubts: run.marks.filter((m) => m.instruction.startsWith(DOUBT)).length,
});
const FREE = 'done';
/** After so many laps a joint that still holds is none for this tool. */
const GIVES_UP = 3;
const OTHER_WAY =
  'Three times in vain: another way is kinder to its land. Hold, give up here; what is free stays free.';

/** What was said of the joints at one instruction; without a name it was said at the first of its operation. */
function statesAt(id: string, isFirst: boolean, { walked }: Said): Map<string, string> {
  const here = walked.filter((w) => (w.instruction === undefined ? isFirst : w.instruction === id));
  return new Map(here.map((w) => [w.terminal, w.state]));
}

interface Laps {
  list: Instruction[];
  /** Joints that hold after the last lap; undefined while it is gone through. */
  held?: string[];
}

/** A walk, and again with what holds after it, as often as something does. */
function lapsOf(walk: Instruction, isFirst: boolean, said: Said): Laps {
  const list = [walk];
  for (;;) {
    const lap = list[list.length - 1];
    const states = statesAt(lap.id, isFirst && list.length === 1, said);
    const joints = lap.walk ?? [];
    if (!joints.every((t) => states.has(t))) return { list };
    const held = joints.filter((t) => states.get(t) !== FREE);
    if (held.length === 0 || !walk.again) return { list, held };
    const { trying, ...work } = walk;
    const { again } = walk;
    const watch = list.length < GIVES_UP ? again.watch : `${again.watch} ${OTHER_WAY}`;
    list.push({ ...work, say: again.say, watch, id: `${walk.id}-${list.length + 1}`, walk: held });
  }
}

const TRIED: Omit<Instruction, 'id'> = {
  say: 'Try every joint: does this one move?',
  watch: 'A push sideways, no more. The tap says it moves.',
  tap: 'it moves',
  mark: 'done',
  trying: true,
};

/** The walks of a list with their laps; before it is asked whether all are free, what was doubted then. `held`: as far as all was gone through. */
export function withLaps(list: readonly Instruction[], said: Said): Laps {
  const walks = list.filter((i) => i.walk);
  let held: string[] | undefined;
  const out = list.flatMap((i) => {
    if (i.walk) {
      const laps = lapsOf(i, i === walks[0], said);
      held = laps.held && (i === walks[0] ? laps.held : held && [...held, ...laps.held]);
      return laps.list;
    }
    if (!i.tries) return [i];
    const joints = walks.flatMap((w) => w.walk ?? []);
    const doubted = Array.from({ length: said.doubts }, (_, n) => {
      const push: Instruction = { id: `try-${n + 1}`, ...TRIED, walk: joints, again: walks.at(-1)?.again };
      const laps = lapsOf(push, false, said);
      held = laps.held;
      return laps.list;
    });
    return [...doubted.flat(), i];
  });
  return { list: out, held };
}
