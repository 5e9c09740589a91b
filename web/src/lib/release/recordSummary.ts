/** A record in a minute, for whoever owns the device: what was wrong, what was done, what was measured before and after, what to watch. */
import { placeName } from '$lib/diagnose/place';
import { stateOf } from '$lib/jobs/stateOf';
import { nameOf } from '$lib/jobs/nameOf';
import type { JobView } from '$lib/jobs/view';
import { formatReading } from '@orthos/core/ground';
import {
  attemptsOf,
  COMPLAINT,
  currentAttempt,
  heatsOf,
  isFitted,
  isOff,
  type JobState,
  openGates,
  type PART_ORIGINS,
  pointOf,
  readingsToRepeat,
  screwsOut,
  setProgress,
} from '@orthos/core/job';

export interface RecordSummary {
  wrong: string[];
  done: string[];
  measured: { what: string; before: string; after: string; good: string }[];
  watch: string[];
}

/** Lands that hold less than this of what they held are worth a word. */
const HOLDS_WELL = 0.8;

function wrongOf(job: JobState, view: JobView): string[] {
  return attemptsOf(job).flatMap(({ suspect, offBoardTest }) => {
    if (!suspect) return [];
    const part = view.board.parts.find((p) => p.partId === suspect.partId);
    const found = offBoardTest?.result === 'bad' ? 'bad' : offBoardTest?.result === 'good' ? 'found good' : '';
    return [`${[nameOf(view.board, suspect.partId), part?.what, found].filter(Boolean).join(', ')}: ${suspect.why}`];
  });
}

const PUT_ON: Record<(typeof PART_ORIGINS)[number], string> = {
  new: 'a new one put on',
  'donor board': 'one from another board put on',
  'the customer’s': 'the customer’s own put on',
  'the old one': 'the same one put back',
};

function doneOf(job: JobState, view: JobView): string[] {
  const lines = attemptsOf(job).flatMap((a, n) => {
    if (!a.suspect) return [];
    const name = nameOf(view.board, a.suspect.partId);
    const { newPart } = a;
    const what = newPart?.origin === undefined ? 'a part put on' : PUT_ON[newPart.origin];
    const steps = [
      isOff(a) && 'taken off',
      isFitted(a) && what,
      a.landRepairs.size > 0 && `${a.landRepairs.size} ${a.landRepairs.size === 1 ? 'land' : 'lands'} mended`,
    ].filter(Boolean);
    if (steps.length === 0) return [];
    return [`${name} ${steps.join(', ')}${attemptsOf(job).length > 1 ? ` (attempt ${n + 1})` : ''}`];
  });
  const whole = [...job.functions.values()].some((f) => f.closed === 'works' || f.closed === 'dead');
  return [...lines, ...setLines(job, view), ...(whole ? ['closed again and tested whole'] : [])];
}

/** Parts of a set that came to the same, in one line. */
function setLines(job: JobState, view: JobView): string[] {
  const groups = new Map<string, string[]>();
  for (const { item, state } of setProgress(job)?.parts ?? []) {
    if (state === 'waiting') continue;
    const what = [
      `${state}${item.to ? ` to No. ${item.to.number}` : ''}`,
      ...((state === 'renewed' || state === 'put on') && item.substitute ? [item.substitute] : []),
    ].join(', ');
    groups.set(what, [...(groups.get(what) ?? []), nameOf(view.board, item.partId)]);
  }
  return [...groups].map(
    ([what, names]) => `${names.length > 1 ? `${names.length} parts ` : ''}${what}: ${names.join(', ')}`,
  );
}

function measuredOf(job: JobState, view: JobView): RecordSummary['measured'] {
  const { off, again } = readingsToRepeat(job);
  const told = (r: JobState['readings'][number]) =>
    `${formatReading(r.value, r.quantity)}${r.probe?.simulated ? ' (simulated)' : ''}`;
  return off.map((r) => {
    const now = again.get(pointOf(r));
    const good = now?.good ?? r.good;
    return {
      what: placeName(view.board, r.place),
      before: told(r),
      after: now ? told(now) : 'not measured',
      good: good === null ? '' : formatReading(good, r.quantity),
    };
  });
}

function watchOf(job: JobState, view: JobView): string[] {
  const { newPart, proven } = currentAttempt(job);
  const { lands } = heatsOf(job);
  const named = (state: (f: { before?: string; after?: string; closed?: string }) => boolean) =>
    [...job.functions].filter(([name, f]) => name !== COMPLAINT && state(f)).map(([name]) => name);
  const last = (f: { after?: string; closed?: string }) => f.closed ?? f.after;
  const [before, since, untried] = [
    named((f) => f.before === 'dead' && last(f) !== 'works'),
    named((f) => f.before !== 'dead' && last(f) === 'dead'),
    named((f) => last(f) === undefined || last(f) === 'not tried').filter(
      (name) => job.functions.get(name)?.before !== 'dead',
    ),
  ];
  const hurt = [...proven.looked].flatMap(([id, is]) =>
    is === 'as before' ? [] : [`${nameOf(view.board, id)} ${is}`],
  );
  const left = [...job.intake.extras].filter(([, s]) => s === 'left').map(([name]) => name);
  const hard = openGates(view.gates, view.ticket.kind).filter((g) => g.hard);
  const out = screwsOut(job.intake);
  const open = (setProgress(job)?.parts ?? [])
    .filter((p) => p.left.length > 0)
    .map((p) => `${nameOf(view.board, p.item.partId)}${p.item.missing ? ' (part not here)' : ''}`);
  return [
    before.length > 0 && `did not work before either: ${before.join(', ')}`,
    since.length > 0 && `does not work now: ${since.join(', ')}`,
    untried.length > 0 && job.attempts.some((a) => a.runs.length > 0) && `not tried: ${untried.join(', ')}`,
    hurt.length > 0 && `seen after the work: ${hurt.join(', ')}`,
    newPart?.substitute && `${newPart.substitute.number} was put on instead: ${newPart.substitute.why}`,
    newPart?.origin === 'donor board' && newPart.donor !== 'ran until it came off'
      ? 'the part is from another board, of which nobody knows that it ran'
      : '',
    lands.holds !== null &&
      lands.holds < HOLDS_WELL &&
      'its lands were heated often: no further repair at this place without wires',
    left.length > 0 && `seen and left: ${left.join(', ')}`,
    out > 0 && `${out} screws are not back in`,
    open.length > 0 && `of the set still open: ${open.join(', ')}`,
    hard.length > 0 && `not proven: ${hard.map((g) => g.label.toLowerCase()).join(', ')}`,
  ].filter((w): w is string => typeof w === 'string' && w !== '');
}

export function summaryOf(view: JobView): RecordSummary {
  const job = stateOf(view.events);
  return {
    wrong: wrongOf(job, view),
    done: doneOf(job, view),
    measured: measuredOf(job, view),
    watch: watchOf(job, view),
  };
}

/** Photos from before and after in rows, each beside the other; a hole where one has no twin. */
export function sideBySide<P extends { taken: string }>(photos: readonly P[]): [P | undefined, P | undefined][] {
  const [before, after] = ['before', 'after'].map((taken) => photos.filter((p) => p.taken === taken));
  return Array.from({ length: Math.max(before.length, after.length) }, (_, i) => [before[i], after[i]]);
}
