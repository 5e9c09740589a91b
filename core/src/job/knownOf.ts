/** What a job's log says of the part that went on and of what stands round it: what the next try is chosen by. */
import { type BoardModel, isPolarised, partName, type PlacedPart, solderedTerminals } from '../board/index.ts';
import { judgeOrientation, drawnMark } from '../hands/index.ts';
import { judgeProof, jointMatters, legsToPush, type Proofs, proofsOf, type Symptom } from '../prove/index.ts';
import { attemptsOf, currentAttempt, type Attempt, type JobState } from './jobState.ts';
import { COMPLAINT } from './provingRules.ts';
import { copyOf, type Stored } from './stored.ts';
import { judgeShort } from '../diagnosis/index.ts';

const CABLES = new Set(['cable', 'frame', 'shield']);

function wayRoundOf({ orientation }: Attempt, part: PlacedPart): Proofs['wayRound'] {
  if (!orientation) return 'not checked';
  if (!orientation.seen) return 'by word';
  return judgeOrientation(orientation.seen, drawnMark(part)).ok ? 'agrees' : 'differs';
}

/** What is off its hooks by the list of opening: plugs, shields, frames. */
function stillOff({ opened, closed }: JobState['intake']): number {
  return opened.filter((o) => CABLES.has(o.kind) && !closed.has(o.id)).length;
}

/** Something it holds is not back, or not as it was. */
function isStoredOpen(stored: Stored, sameChip: boolean): boolean {
  const holds = stored.holds ?? [];
  const { state: is, read } = copyOf(stored);
  return (
    (holds.includes('data') && (is !== 'copy' || stored.after.at(-1)?.checksum !== read?.checksum)) ||
    (holds.includes('firmware') && !sameChip && stored.firmware === undefined) ||
    (holds.includes('settings') && stored.settings === undefined)
  );
}

/** The stop of the last first power; none once another one came after it. */
export function lastStop(state: JobState): Attempt['proven']['stopped'] {
  const { stopped } = currentAttempt(state).proven;
  const last = state.intake.startUps.at(-1);
  return stopped?.startUpId === undefined || stopped.startUpId === last?.id ? stopped : undefined;
}

/** `fn`: what does not work. */
export function knownOf(state: JobState, board: BoardModel, part: PlacedPart, fn?: string): Proofs {
  const attempt = currentAttempt(state);
  const { joints, proven, newPart, offBoardTest, suspect } = attempt;
  const ends = solderedTerminals(part);
  const proofs = proofsOf(board, part);
  const read = proofs.flatMap((p) => {
    const at = proven.proofs.get(p.key);
    return at ? [{ ...p, ...judgeProof(p, at.read) }] : [];
  });
  const bad = read.filter((r) => r.state === 'unmet');
  const legs = legsToPush(part);
  const stored = suspect && state.stored.get(suspect.partId);
  // a start-up from before the work says nothing of the board now; in a soak the limit holds whatever wants to start
  const since = state.intake.startUps.slice(state.beforeWork?.startUps ?? Infinity);
  const last = since.at(-1)?.stages.at(-1);
  const found = Object.fromEntries([...joints].filter(([, s]) => jointMatters(s)));
  const gives = [...proven.pushed].flatMap(([t, firm]) => (firm ? [] : [[t, 'open'] as const]));
  return {
    ...(fn === undefined || fn === COMPLAINT ? {} : { fn }),
    pins: ends.map((t) => {
      const net = part.nets?.[t.id];
      return { terminal: t.id, ...(net === undefined ? {} : { net }) };
    }),
    polarised: isPolarised(part),
    hidden: ends.some((t) => t.kind === 'ball' || t.kind === 'pad'),
    joints: { ...Object.fromEntries(gives), ...found },
    bridged: bad.filter((r) => r.kind === 'apart').map((r) => `${r.terminal}–${r.to.terminal}`),
    broken: bad.filter((r) => r.kind === 'through').map((r) => r.terminal),
    unproven:
      ends.filter((t) => !joints.has(t.id)).length +
      legs.filter((t) => !proven.pushed.has(t)).length +
      (proofs.length - read.length),
    tilted: state.slips.some((s) => s.kind === 'tilted' && !s.checked?.ok),
    wayRound: wayRoundOf(attempt, part),
    part: {
      origin: newPart?.origin ?? null,
      donor: newPart?.donor ?? null,
      substitute: newPart?.substitute !== undefined,
      measured: newPart?.ok ?? null,
    },
    hurt: [...proven.looked].flatMap(([id, is]) => {
      const other = board.parts.find((p) => p.partId === id);
      return is === 'as before' || !other ? [] : [`${partName(other)} ${is}`];
    }),
    storedOpen: stored !== undefined && isStoredOpen(stored, newPart?.origin === 'the old one'),
    slips: state.slips.filter((s) => !s.checked).length,
    limited: last !== undefined && last.stage !== 'soak' && last.current_A >= 0.97 * last.limit_A,
    unplugged: stillOff(state.intake),
    fluxLeft: [...joints.values()].includes('flux'),
    oldGood: offBoardTest?.result === 'good',
    attempts: attemptsOf(state).length,
  };
}

/** What the log itself shows after the work, the gravest first; with the function that speaks of it. */
export function symptomsOf(state: JobState): { symptom: Symptom; fn?: string }[] {
  const { shortChecks } = currentAttempt(state);
  const stop = lastStop(state)?.stop;
  const shown: { symptom: Symptom; fn?: string }[] = [];
  const latest = new Map(shortChecks.map((c) => [`${c.rail}\n${c.load ?? ''}`, c]));
  if (stop === 'over-voltage') shown.push({ symptom: 'over-voltage' });
  if ([...latest.values()].some((c) => judgeShort(c).state === 'unmet')) shown.push({ symptom: 'shorted' });
  if (stop === 'too much' || stop === 'at the limit') shown.push({ symptom: 'draws more' });
  if (stop === 'warm') shown.push({ symptom: 'hot' });
  for (const [name, { before, after }] of state.functions) {
    if (after !== 'dead') continue;
    if (name === COMPLAINT) shown.push({ symptom: 'still there' });
    else if (before === 'works') shown.push({ symptom: 'dead since', fn: name });
    else if (before !== 'dead') shown.push({ symptom: 'no output', fn: name });
  }
  return shown;
}
