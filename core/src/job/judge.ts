/** Whether an event may be written to a job as it stands now: what it names is there, no hard gate is passed unmet, nothing is done twice. */
import { type BoardModel, solderedTerminals } from '../board/index.ts';
import type { JobEventBody } from './events.ts';
import { blocks } from './gates.ts';
import type { GateResult } from './gateRule.ts';
import { attemptFor, currentAttempt, type JobState } from './jobState.ts';

/** A job under its lock. */
export interface Standing {
  closed: boolean;
  state: JobState;
  gates: readonly GateResult[];
  board: BoardModel;
  /** Whether the log has an event of this id. */
  hasEvent(id: string): boolean;
  /** Whether the log has the beginning of this run. */
  hasRun(runId: string): boolean;
  /** The plan computed last for the target. */
  plan: { id: string; methods: readonly string[] } | null;
  /** Whether the shop has this step of a routine for this kind of board. */
  hasRoutineStep(routineId: string, step: string): boolean;
  /** Whether the job has this photo. */
  hasPhoto(photoId: string): boolean;
}

/** Twice what one list says: whoever lists anew what is there already is not refused. */
const MOST_IN_SET = 120;

/** Why not: `field` where the event itself names something that is not there, else the job's state forbids it. */
export interface Refusal {
  message: string;
  field?: string;
}

/** What the hands did before the release may arrive after it. */
const LATE = new Set<JobEventBody['type']>([
  'run-begun',
  'run-changed',
  'mark',
  'mark-moved',
  'run-ended',
  'joint',
  'slip',
  'slip-checked',
  'surroundings-scanned',
  'lands-clean',
  'part-off',
  'withdrawn',
  'handed-over',
]);

/** The refusal, or nothing when the event may be written. */
export function judgeEvent(body: JobEventBody, job: Standing): Refusal | undefined {
  if (job.closed && !LATE.has(body.type)) return { message: 'This job is released. Reopen it to go on.' };
  const missing = missingReference(body, job);
  if (missing) return missing;
  // what was begun while the server was away has happened
  if (body.type === 'run-begun' && !body.offline)
    if (attemptFor(job.state, body).runs.some((r) => r.op === body.op && !r.ended))
      return { message: 'This has been begun in another window: go on there.' };
  const gate = blockedBy(body, job);
  return gate && { message: `${gate.label}: ${gate.why}.` };
}

/** The hard gate that an event would pass unmet. A run that was begun while the server was away has happened: it is taken as it is. */
function blockedBy(body: JobEventBody, { state, gates }: Standing): GateResult | undefined {
  const needs: string[] = [];
  if (body.type === 'run-begun' && !body.offline) {
    needs.push('power-gone');
    if (body.op === 'fit') needs.push('orientation');
  }
  const now = currentAttempt(state);
  const worked = (now.ofSet === undefined ? [now] : state.attempts).some((a) => a.runs.length > 0);
  if (body.type === 'power-connected' || body.type === 'supply-stage')
    needs.push('restored', ...(worked ? ['short-check'] : []));
  return gates.find((g) => needs.includes(g.id) && blocks(g));
}

const terminalsOf = (part: BoardModel['parts'][number]): Set<string> =>
  new Set(solderedTerminals(part).map((t) => t.id));

/** The field of an event that names something this job does not have. */
function missingReference(body: JobEventBody, job: Standing): Refusal | undefined {
  const { board } = job;
  const noPart = (partId: string | undefined, field: string) =>
    partId !== undefined && !board.parts.some((p) => p.partId === partId)
      ? { field, message: `the board has no part "${partId}"` }
      : undefined;
  const noEvent = (eventId: string, field: string) =>
    job.hasEvent(eventId) ? undefined : { field, message: 'is not an event of this job' };
  const noRun = (runId: string | undefined) =>
    runId === undefined || job.hasRun(runId) ? undefined : { field: 'body.runId', message: 'is not a run of this job' };
  const stranger =
    ('partId' in body ? noPart(body.partId, 'body.partId') : undefined) ??
    ('target' in body ? noPart(body.target, 'body.target') : undefined);
  if (stranger) return stranger;
  switch (body.type) {
    case 'reading':
    case 'observation':
    case 'damage':
      return noPart(body.place?.partId, 'body.place.partId');
    case 'plan':
      if (job.plan?.id !== body.planId)
        return { field: 'body.planId', message: 'is not the plan computed last for this target' };
      return job.plan.methods.includes(body.methodId)
        ? undefined
        : { field: 'body.methodId', message: `the plan has ${job.plan.methods.join(', ')}` };
    case 'power-gone':
    case 'power-connected':
      return [...board.powerSources, ...job.state.sources].some((s) => s.id === body.sourceId)
        ? undefined
        : { field: 'body.sourceId', message: `the board has no source "${body.sourceId}"` };
    case 'target-confirmed': {
      const known = new Set([...board.landmarks.map((l) => l.id), ...board.parts.map((p) => p.partId)]);
      const strange = body.landmarks.find((l) => !known.has(l));
      return strange === undefined
        ? undefined
        : { field: 'body.landmarks', message: `the board has no landmark "${strange}"` };
    }
    case 'run-begun':
      return body.offline || body.planId === undefined || currentAttempt(job.state).plan?.planId === body.planId
        ? undefined
        : { field: 'body.planId', message: 'is not the plan in use' };
    case 'mark':
    case 'run-changed':
    case 'run-ended':
    case 'joint':
    case 'slip':
      return noRun(body.runId);
    case 'slip-checked':
      return noEvent(body.slipId, 'body.slipId');
    case 'closed-again':
      return noEvent(body.stepId, 'body.stepId');
    case 'offer-taken':
      return job.state.intake.offer?.tiers.some((t) => t.label === body.tier)
        ? undefined
        : { field: 'body.tier', message: 'is not on the last offer' };
    case 'routine-step':
      return job.hasRoutineStep(body.routineId, body.step)
        ? undefined
        : { field: 'body.routineId', message: 'this kind of board has no such routine step' };
    case 'mark-moved':
    case 'withdrawn':
      return noEvent(body.eventId, 'body.eventId');
    case 'leg-pushed':
    case 'proved': {
      const own = board.parts.find((p) => p.partId === currentAttempt(job.state).suspect?.partId);
      if (!own) return { message: 'No part is chosen yet.' };
      const has = (p: typeof own | undefined, t: string) => p !== undefined && terminalsOf(p).has(t);
      if (!has(own, body.terminal))
        return { field: 'body.terminal', message: `the target has no terminal "${body.terminal}"` };
      if (body.type === 'leg-pushed') return undefined;
      const { to } = body;
      return has(
        board.parts.find((p) => p.partId === to.partId),
        to.terminal,
      )
        ? undefined
        : { field: 'body.to', message: `the board has no ${to.partId}.${to.terminal}` };
    }
    case 'set-parts':
      for (const [n, { partId, side, after }] of body.items.entries()) {
        const field = `body.items.${n}`;
        const part = board.parts.find((p) => p.partId === partId);
        if (!part) return noPart(partId, `${field}.partId`);
        if (part.side !== side) return { field: `${field}.side`, message: `stands on the ${part.side}` };
        if (terminalsOf(part).size === 0) return { field: `${field}.partId`, message: 'has no joints to melt' };
        const stranger = (after ?? []).map((a) => noPart(a, `${field}.after`)).find(Boolean);
        if (stranger) return stranger;
      }
      return (job.state.set?.items.size ?? 0) + body.items.length > MOST_IN_SET
        ? { field: 'body.items', message: `a set has at most ${MOST_IN_SET} parts` }
        : undefined;
    case 'part-came': {
      const item = job.state.set?.items.get(body.partId);
      const meant = item?.from;
      return meant?.ticketId === body.from.ticketId && meant.partId === body.from.partId
        ? undefined
        : { field: 'body.from', message: 'is not where the set says that it comes from' };
    }
    case 'set-ordered': {
      const strange = body.legs.find((l) => !job.state.set?.items.has(l.partId));
      return strange && { field: 'body.legs', message: `"${strange.partId}" is not in the set` };
    }
    case 'set-at':
      return job.state.set?.items.has(body.partId) ? undefined : { field: 'body.partId', message: 'is not in the set' };
    case 'photo-placed':
      return job.hasPhoto(body.photoId) ? undefined : { field: 'body.photoId', message: 'is no photo of this job' };
    case 'orientation-checked': {
      const own = board.parts.find((p) => p.partId === currentAttempt(job.state).suspect?.partId);
      const ends = own ? terminalsOf(own) : new Set<string>();
      const { lies, belongs = [] } = body.seen ?? {};
      const strange = [lies, ...belongs.map((b) => b.at)].find((t) => t !== undefined && !ends.has(t));
      if (strange !== undefined) return { field: 'body.seen', message: `the target has no terminal "${strange}"` };
      return belongs.every((b) => b.photoId === undefined || job.hasPhoto(b.photoId))
        ? undefined
        : { field: 'body.seen', message: 'names no photo of this job' };
    }
    case 'override':
      return job.gates.some((g) => g.id === body.gate && g.hard)
        ? undefined
        : { field: 'body.gate', message: 'is not a hard gate' };
    default:
      return undefined;
  }
}
