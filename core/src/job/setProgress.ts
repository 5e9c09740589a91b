/** How far a set has come: part by part, stage by stage, and what comes next. */
import { type Op, opsIn, type Stage } from '../sets/index.ts';
import { type Attempt, isFitted, isOff, type JobState, workAt } from './jobState.ts';
import { landIsGood } from './lands.ts';
import { leftOf, STAGE_OF } from './set.ts';
import type { SetItem, SetLeg } from './setForms.ts';

export interface SetPart {
  item: SetItem;
  done: Record<Op, boolean>;
  left: Op[];
  /** What it has come to, in a word or two. */
  state: string;
}

export interface SetProgress {
  parts: SetPart[];
  /** The stage that is on: all off, all prepared, all fitted, or part by part; null once nothing is left. */
  stage: Stage | null;
  /** By operation: done, and to do in all. */
  counts: Record<Op, { done: number; all: number }>;
  /** What comes next, in the order that was said. */
  next: { partId: string; op: Op; leg?: SetLeg } | null;
  /** What is still to come of the stage, in order. */
  ahead: { partId: string; op: Op }[];
  /** Parts that are not there yet. */
  missing: SetItem[];
}

const isPrepared = (a: Attempt): boolean =>
  a.runs.some((r) => r.op === 'prepare' && r.ended?.outcome === 'finished') ||
  (a.landsClean === true && [...a.lands.values()].every(landIsGood));

const OPS: readonly Op[] = ['remove', 'prepare', 'fit'];

const LAST_WORD: Record<SetItem['do'], string> = {
  renew: 'renewed',
  leave: 'left off',
  move: 'moved',
  salvage: 'salvaged',
  lend: 'given back',
  place: 'put on',
};

function stateOf(item: SetItem, work: Attempt | undefined, done: Record<Op, boolean>, left: readonly Op[]): string {
  if (left.length === 0) return LAST_WORD[item.do];
  const run = work?.runs.findLast((r) => !r.ended);
  if (run) return 'now';
  if (done.prepare) return 'lands ready';
  if (done.remove) return 'off';
  return work?.runs.some((r) => r.ended?.outcome === 'given up') ? 'given up' : 'waiting';
}

/** Null where nothing is listed. */
export function setProgress(state: JobState): SetProgress | null {
  const { set } = state;
  if (!set || set.items.size === 0) return null;
  const parts = [...set.items.values()].map((item): SetPart => {
    const work = workAt(state, item.partId);
    const done = {
      remove: work !== undefined && isOff(work),
      prepare: work !== undefined && isPrepared(work),
      fit: work !== undefined && isFitted(work),
    };
    const left = leftOf(item, done);
    return { item, done, left, state: stateOf(item, work, done, left) };
  });
  const each = set.ordered.has('each');
  const op = OPS.find((o) => parts.some((p) => p.left.includes(o)));
  const stage = op === undefined ? null : each ? 'each' : STAGE_OF[op];
  const ahead = stage === null ? [] : aheadIn(stage, parts, set.ordered.get(stage)?.legs ?? []);
  const first = ahead.at(0);
  const leg =
    first && stage && set.ordered.get(stage)?.legs.find((l) => l.partId === first.partId && l.op === first.op);
  return {
    parts,
    stage,
    counts: {
      remove: countOf(parts, 'remove'),
      prepare: countOf(parts, 'prepare'),
      fit: countOf(parts, 'fit'),
    },
    next: first ? { ...first, ...(leg ? { leg } : {}) } : null,
    ahead,
    missing: parts.filter((p) => p.item.missing && p.left.length > 0).map((p) => p.item),
  };
}

const countOf = (parts: readonly SetPart[], op: Op) => {
  const all = parts.filter((p) => opsIn('each', p.item.do).includes(op));
  return { done: all.filter((p) => p.done[op]).length, all: all.length };
};

/** What is left of a stage: in the order that was said, what is not named behind it. */
function aheadIn(stage: Stage, parts: readonly SetPart[], legs: readonly SetLeg[]): SetProgress['ahead'] {
  const rank = ({ partId, op }: { partId: string; op: Op }) => {
    const n = legs.findIndex((l) => l.partId === partId && l.op === op);
    return n < 0 ? legs.length : n;
  };
  return parts
    .flatMap(({ item, left }) =>
      left
        // a part that is not there yet is fitted when it is
        .filter((op) => opsIn(stage, item.do).includes(op) && !(op === 'fit' && item.missing))
        .map((op) => ({ partId: item.partId, op })),
    )
    .toSorted((a, b) => rank(a) - rank(b));
}
