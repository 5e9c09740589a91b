/** What the hands of a job work by: method, prediction, instructions. */
import { stateOf } from '$lib/jobs/stateOf';
import type { JobView } from '$lib/jobs/view';
import { atRisk } from '$lib/jobs/atRisk';
import { handsAt } from '$lib/jobs/handsAt';
import { nameOf } from '$lib/jobs/nameOf';
import { fitsFor, standsThere } from '$lib/plan/fitInputs';
import { legOf, wayOf } from '$lib/set/atPart';
import { partName } from '@orthos/core/board';
import { freedBefore, operationFor, saidIn, type Work } from '@orthos/core/hands';
import { type Guide, guideOf, type Instruction, isDoable, type Method, type Operation } from '@orthos/core/rework';
import { mustLive } from '@orthos/core/sets';
import { currentAttempt, isOff, type JobEvent, type JobState, lastRun, type Run } from '@orthos/core/job';

/** The log as the page knows it: the server's, then what was made here and is not in it yet. */
export function mergedLog(stored: readonly JobEvent[], made: readonly JobEvent[]): JobEvent[] {
  const there = new Set(stored.map((e) => e.id));
  return [...stored, ...made.filter((e) => !there.has(e.id))];
}

/** How the part came off, as hands really did it; what comes after goes by that. */
export function cameOffBy(view: JobView): Method | undefined {
  const attempt = currentAttempt(stateOf(view.events));
  const run = isOff(attempt) ? lastRun(attempt, 'remove') : undefined;
  return run?.phases && { id: run.methodId, phases: run.phases };
}

/** The ways for a part of this job, the one that was chosen first. */
export function methodsOf(view: JobView, op: Operation): Method[] {
  const { inputs } = view;
  const all =
    op === 'fit' ? fitsFor(inputs?.fits ?? [], standsThere(currentAttempt(stateOf(view.events)))) : inputs?.methods;
  const ways = all?.filter((m) => !m.unfit) ?? [];
  // hands are told even where the list of tools says that nothing can be done
  const here = (ways.some(isDoable) ? ways.filter(isDoable) : ways).map((m) => m.method);
  const ordered = wayOf(view, op === 'fit' ? 'fit' : 'remove');
  if (op === 'fit') {
    const sorted = [...here].sort((a, b) => Number(b.id === inputs?.fitBy) - Number(a.id === inputs?.fitBy));
    return ordered && !inputs?.fitBy ? [ordered, ...sorted.filter((m) => m.id !== ordered.id)] : sorted;
  }
  const planned = view.inUse?.method ?? ordered;
  const used = op === 'remove' ? planned : (cameOffBy(view) ?? planned);
  return used ? [used, ...here.filter((m) => m.id !== used.id)] : here;
}

/** Removals of this attempt that were given up before a run, or so far: the part is still on. */
export function runsBefore(state: JobState, run: Run | null): Run[] {
  const all = currentAttempt(state).runs.filter((r) => r.op === 'remove');
  const at = run ? all.findIndex((r) => r.id === run.id) : all.length;
  const before = all.slice(0, Math.max(0, at));
  // once it was off, what stands there now has no past
  const off = before.findLastIndex((r) => r.ended?.outcome === 'finished' || r.marks.some((m) => m.what === 'lifted'));
  return before.slice(off + 1).filter((r) => r.ended);
}

/** The prediction of the plan in use, or of the set's order, for removal by this method. */
export function removalGuide(view: JobView, method: Method | undefined): Guide | null {
  if (view.inUse)
    return view.inUse.method.id === method?.id ? guideOf(view.inUse.result, view.board, view.inUse.method) : null;
  const leg = legOf(view, 'remove');
  return leg?.methodId === method?.id ? (leg?.guide ?? null) : null;
}

/** Lands that were seen with their mask gone: varnished once the part is on. */
const bareLands = (view: JobView): string[] =>
  [...currentAttempt(stateOf(view.events)).lands].flatMap(([land, state]) => (state === 'mask-gone' ? [land] : []));

/** How hot the part gets by the plan in use. */
function heatOf(view: JobView, method: Method): Pick<Work, 'heat'> {
  const body = view.inUse?.method.id === method.id ? view.inUse.result.outcomes?.body : undefined;
  return body ? { heat: { peak_C: Math.round(body.peak_C), dose: body.dose ?? null } } : {};
}

/** Of a set: whether the part in hand has to live. What comes from another board does once its place is free, what goes to one while it is still on. */
function livesOn(view: JobView): Pick<Work, 'surroundings'> {
  const state = stateOf(view.events);
  const attempt = currentAttempt(state);
  const item = attempt.ofSet === undefined ? undefined : state.set?.items.get(attempt.ofSet);
  if (!item) return {};
  const reused = isOff(attempt) || item.do === 'place' ? item.from !== undefined : mustLive(item.do);
  const { reused: _, ...around } = view.inputs?.settings.surroundings ?? {};
  return { surroundings: { ...around, ...(reused ? { reused: true } : {}) } };
}

export function workOf(view: JobView, method: Method, guide: Guide | null): Omit<Work, 'said' | 'freed'> | null {
  const target = view.board.parts.find((p) => p.partId === view.inputs?.target);
  if (!target || !view.inputs) return null;
  const near = [...(view.inUse?.result.neighbours ?? [])].sort((a, b) => a.distance_mm - b.distance_mm);
  const nearest = near.at(0)?.partId;
  return {
    board: view.board,
    target,
    method,
    guide,
    nearest: nearest ? nameOf(view.board, nearest) : null,
    atRisk: atRisk(view, legOf(view, 'remove')).map((r) => r.name),
    panel: view.inputs.panel,
    place: `tray No. ${view.ticket.number} ${partName(target)}`,
    ...heatOf(view, method),
    ...handsAt(view.inputs),
    ...livesOn(view),
    bare: bareLands(view),
    today: new Date().toISOString().slice(0, 10),
  };
}

/** A run under way: its instructions and the one that is due. */
export interface Course {
  run: Run;
  list: Instruction[];
  /** Index of the instruction due; the length of the list when all are done. */
  at: number;
}

/** Whether joints are gone through one by one: with any tool of a run, and with its last one. */
export function walksOf({ list, run }: Course): { any: boolean; last: boolean } {
  const walks = list.filter((i) => i.walk && !i.trying);
  const last = run.phases?.at(-1)?.id;
  return { any: walks.length > 0, last: walks.some((i) => last === undefined || i.phase === last) };
}

export function courseOf(view: JobView, events: readonly JobEvent[], op: Operation): Course | null {
  const state = stateOf(events);
  const run = lastRun(currentAttempt(state), op);
  // what the run was begun with, not what its method has become since
  const method =
    run &&
    (run.phases ? { id: run.methodId, phases: run.phases } : methodsOf(view, op).find((m) => m.id === run.methodId));
  if (!run || !method) return null;
  const work = workOf(view, method, run.guide);
  if (!work) return null;
  const freed = op === 'remove' ? freedBefore(runsBefore(state, run)) : [];
  const list = operationFor(op, { ...work, said: saidIn(run), freed });
  return { run, list, at: positionIn(list, run) };
}

/** Behind the furthest instruction that was marked: those passed over stay unmarked. */
function positionIn(list: readonly Instruction[], run: Run): number {
  const marked = new Set(run.marks.map((m) => m.instruction));
  return list.findLastIndex((i) => marked.has(i.id)) + 1;
}

/** Until when lands are past half of the way to melting, UTC ms: a tip that comes by then has only the other half to do. Null where no plan says. */
export function warmUntil(state: JobState): number | null {
  const run = lastRun(currentAttempt(state), 'remove');
  const warm_s = run?.guide?.warm_s;
  const off = run?.marks.findLast((m) => m.what === 'lifted')?.at ?? run?.ended?.at;
  return warm_s && off !== undefined ? off + 1000 * warm_s : null;
}
