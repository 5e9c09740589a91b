/** Loads where a job stands; in the browser only what was written to its log since the last look. */
import { browser } from '$app/environment';
import { error } from '@sveltejs/kit';
import type { JobEvent } from '@orthos/core/job';
import type { JobAnswer, JobStanding } from './view';

/** The job looked at last in this window. */
let last: { id: string; job: JobStanding & { events: JobEvent[] } } | undefined;

/** @throws the server's refusal; a server that is away changes nothing on a page that has the job already */
export async function loadJob(
  id: string,
  fetch: typeof globalThis.fetch,
): Promise<JobStanding & { events: JobEvent[] }> {
  const known = last?.id === id ? last.job : undefined;
  const newest = known?.events.at(-1);
  let answer: Response;
  try {
    answer = await fetch(`/api/jobs/${id}${newest ? `?after=${newest.id}` : ''}`);
  } catch (e) {
    if (known) return known;
    throw e;
  }
  if (!answer.ok) {
    if (known && answer.status >= 500) return known;
    error(
      answer.status,
      ((await answer.json().catch(() => ({}))) as { message?: string }).message ?? 'The job could not be loaded.',
    );
  }
  const { log, ...standing } = (await answer.json()) as JobAnswer;
  // nothing new: the log stays the same list, and what was made of it
  const events =
    log.after === null
      ? log.events
      : log.events.length === 0 && known
        ? known.events
        : [...(known?.events ?? []), ...log.events];
  const job = { ...standing, events };
  if (browser) last = { id, job };
  return job;
}
