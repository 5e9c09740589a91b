/** Times of the next part of a set from what really went before it. */
import type { JobView } from '$lib/jobs/view';
import type { JobState, SetProgress } from '@orthos/core/job';
import type { Guide } from '@orthos/core/rework';
import { didOf, setInputOf, setPlannerOf } from './setPlanner.svelte';

/** Null where nothing can be told: hands go by the order's own times. */
export async function retimed(view: JobView, state: JobState, set: SetProgress, partId: string): Promise<Guide | null> {
  const stage = set.stage ?? 'off';
  const did = didOf(state, set, stage);
  const input = setInputOf(view, set, stage, did);
  if (!input || did.length === 0) return null;
  const first = Math.min(
    ...state.attempts.flatMap((a) => (a.ofSet === undefined ? [] : a.runs.map((r) => heatOn(r.marks)))),
  );
  const order = set.ahead.map((a) => a.partId);
  const planner = setPlannerOf(view.ticket.id);
  const resume_s = Number.isFinite(first) ? Math.max(0, (Date.now() - first) / 1000) : undefined;
  const there = await planner.ask(input, { did, order, ...(resume_s === undefined ? {} : { resume_s }) });
  const leg = there ? planner.result?.order.find((l) => l.partId === partId && l.op === 'remove') : undefined;
  return leg?.guide ?? null;
}

const heatOn = (marks: readonly { what: string; at: number }[]): number =>
  marks.find((m) => m.what === 'heat-on')?.at ?? Infinity;
