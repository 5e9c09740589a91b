/** Talking to the server about a job. Errors come back as sentences, never as exceptions to swallow. */
import { invalidate } from '$app/navigation';
import { navigating } from '$app/state';
import type { JobEventBody } from '@orthos/core/job';
import { v7 } from 'uuid';

export class SendError extends Error {
  readonly status: number;
  constructor(status: number, message: string) {
    super(message);
    this.status = status;
  }
}

/** What is sent as it is, not as JSON: a picture, a packed drawing. */
export class Bytes {
  readonly data: Blob | Uint8Array<ArrayBuffer>;
  readonly type: string;
  constructor(data: Blob | Uint8Array<ArrayBuffer>, type: string) {
    this.data = data;
    this.type = type;
  }
}

function contentOf(body: unknown): Pick<RequestInit, 'headers' | 'body'> {
  if (body === undefined) return {};
  if (body instanceof Bytes) return { headers: { 'content-type': body.type }, body: body.data };
  return { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
}

/**
 * Asks the server for something, or gives it something: JSON, or `Bytes` as they are. The answer is JSON, undefined where it is empty; throws `SendError`, with
 * status 0 when nobody answers.
 */
export async function send(method: 'GET' | 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<unknown> {
  let answer: Response;
  try {
    answer = await fetch(path, { method, ...contentOf(body) });
  } catch {
    throw new SendError(0, 'The server does not answer. Nothing was stored; try again.');
  }
  if (answer.ok) return answer.status === 204 ? undefined : answer.json();
  const problem = (await answer.json().catch(() => ({}))) as { message?: string };
  throw new SendError(answer.status, problem.message ?? 'The server refused it.');
}

/** Whether the server is there, and well. */
export const isWell = (): Promise<boolean> =>
  fetch('/api/health').then(
    (answer) => answer.ok,
    () => false,
  );

/** Loads that were asked for: one after the other, for of two at once the earlier would be called done before anything has come. */
let loading = Promise.resolve();

/** Loads a part of the job again; a page that is being gone to is waited for, since loading now would call it off. */
export function reload(part: 'job:view' | 'job:board' | 'job:model'): Promise<void> {
  const next = loading.then(async () => {
    // who waited for the load before this one may go elsewhere now: its page comes first
    await new Promise((go) => setTimeout(go));
    await navigating.complete?.catch(() => undefined);
    await invalidate(part);
  });
  loading = next.catch(() => undefined);
  return next;
}

export const reloadView = (): Promise<void> => reload('job:view');

/** Writes one event to a job's log and reloads the view; gives the event's id back. */
export async function recordEvent(ticketId: string, body: JobEventBody): Promise<string> {
  const id = v7();
  await send('POST', `/api/jobs/${ticketId}/events`, { id, body });
  await reloadView();
  return id;
}

/** Several at once, in their order; the page is told of them when all are there, or as far as they got. */
export async function recordEvents(ticketId: string, bodies: readonly JobEventBody[]): Promise<void> {
  try {
    for (const body of bodies) await send('POST', `/api/jobs/${ticketId}/events`, { id: v7(), body });
  } finally {
    await reloadView();
  }
}

export async function sendPlan(ticketId: string, plan: Record<string, unknown>): Promise<string> {
  const id = v7();
  await send('POST', `/api/jobs/${ticketId}/plans`, { id, ...plan });
  await reloadView();
  return id;
}

/** Takes over a plan that was computed before from the same inputs; false when there is none. */
export async function takeKnownPlan(ticketId: string): Promise<boolean> {
  if (!(await send('POST', `/api/jobs/${ticketId}/plans/known`, { id: v7() }))) return false;
  await reloadView();
  return true;
}

export async function sendPlanSettings(ticketId: string, version: number, settings: unknown): Promise<void> {
  await send('PUT', `/api/jobs/${ticketId}/plan-settings`, { version, settings });
  await reloadView();
}
