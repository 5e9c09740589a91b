/** What hands have done so far, as phases that a run can be computed from: work that was given up before, and a tool that came late. */
import type { Composition } from '../alloys/index.ts';
import { type Instruction, kindOf, LONGEST_S, type Mark, MOST_PHASES, type Phase } from '../rework/index.ts';

interface Marked {
  marks: readonly { instruction: string; what: Mark; phase?: string; at: number }[];
}
/** A removal as its log tells it; times are UTC ms. */
interface DoneRun extends Marked {
  phases?: Phase[];
  walked: readonly { terminal: string; state: string }[];
  ended?: { at: number };
}

/** So long after the heat has left, a board is as cold as the room, s. */
const COLD_S = 600;
/** Shorter than this hands do not wait: it is in every tap, s. */
const NO_WAIT_S = 5;

const rest = (id: string, s: number, below = false): Phase => ({
  id,
  kind: 'rest',
  settings: below ? { below: 'stays' } : {},
  until: { s },
  giveUp_s: s + 1,
});

/** A phase as far as hands got with it; undefined where nothing of it touched the board. */
function asFar(phase: Phase, { marks, ended }: DoneRun): Phase | undefined {
  const mine = marks.filter((m) => m.phase === phase.id && m.instruction !== 'flux');
  if (mine.length === 0) return undefined;
  const { else: _, ...alone } = phase;
  const on = mine.find((m) => m.what === 'heat-on');
  const off = mine.find((m) => m.what === 'heat-off')?.at ?? ended?.at;
  // what starts no clock, as feeding alloy, is done once it is marked
  if (!on || off === undefined) return alone;
  const s = Math.max(1, (off - on.at) / 1000);
  return { ...alone, until: { s }, giveUp_s: s + 1 };
}

/** What was done to a part by runs that were given up, the board cooling after each, until now (UTC ms). */
export function doneBefore(runs: readonly DoneRun[], now: number): Phase[] {
  return runs.flatMap((run, n): Phase[] => {
    const done = (run.phases ?? []).flatMap((p) => asFar(p, run) ?? []);
    if (done.length === 0 || !run.ended) return [];
    const next = runs.slice(n + 1).find((r) => r.marks.length > 0)?.marks[0].at ?? now;
    const cools_s = Math.min(COLD_S, Math.max(0, (next - run.ended.at) / 1000));
    const named = done.map((p) => ({ ...p, id: `${n + 1}-${p.id}`.slice(0, 40) }));
    return [...named, ...(cools_s > NO_WAIT_S ? [rest(`${n + 1}-cooled`, cools_s)] : [])];
  });
}

/** Joints that runs before freed. */
export const freedBefore = (runs: readonly DoneRun[]): string[] => {
  const said = new Map(runs.flatMap((r) => r.walked.map((w) => [w.terminal, w.state] as const)));
  return [...said].flatMap(([terminal, state]) => (state === 'done' ? [terminal] : []));
};

/** All that is computed for what hands go through now: with what was done before, and the wait for a tool that came late; undefined where it is too long to compute. */
export function asDone(phases: readonly Phase[], before: readonly Phase[], late_s = 0): Phase[] | undefined {
  const last = phases.length - 1;
  const waited = late_s > 0 && last > 0 ? [rest('late', late_s, true)] : [];
  const all = [...before, ...phases.slice(0, last), ...waited, phases[last]];
  return all.reduce((sum, p) => sum + p.giveUp_s, 0) <= LONGEST_S && all.length <= MOST_PHASES ? all : undefined;
}

/** Hands may be this much later than planned before their times are computed anew, s. */
const LATE_S = 15;

/** How much later than planned the tool came whose clock it is, s; 0 where it is in time, or where there is nothing to be late for. */
export function lateBy(
  list: readonly Instruction[],
  { marks, begun }: Marked & { begun: number },
  starts_s: number | undefined,
): number {
  const on = marks.find((m) => m.what === 'heat-on');
  const first = list.findIndex((i) => i.limbs);
  if (!on || starts_s === undefined || first < 0) return 0;
  // the first tool touches the board when what comes before it is done
  const touched = first === 0 ? begun : marks.find((m) => m.instruction === list[first - 1].id)?.at;
  const late_s = touched === undefined ? 0 : (on.at - touched) / 1000 - starts_s;
  return late_s > LATE_S ? Math.round(late_s) : 0;
}

/** Another alloy than the plan's, in every phase that lays or works one in. */
export const withAlloy = (phases: readonly Phase[], alloy: Composition): Phase[] =>
  phases.map((p) => (kindOf(p).brings ? ({ ...p, settings: { ...p.settings, alloy } } as Phase) : p));
