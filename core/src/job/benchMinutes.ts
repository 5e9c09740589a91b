/** How long a job was on the bench, from its log. */
import type { JobEvent } from './events.ts';

/** Nobody was at it any more when nothing was written for so long, ms; the last thing before it took this much. */
const PAUSE_MS = 15 * 60_000;
const TAIL_MS = 2 * 60_000;

/**
 * Minutes at the bench: everything that was written down, from opening to closing, with pauses left out. A run counts from its beginning to its
 * end, however long nobody touched a key.
 */
export function benchMinutes(events: readonly JobEvent[]): number {
  const runs = new Map<string, { from: number; to: number }>();
  for (const { at, body } of events) {
    if (body.type === 'run-begun') runs.set(body.runId, { from: at, to: at });
    else if ('runId' in body && body.runId) {
      const run = runs.get(body.runId);
      if (run) run.to = Math.max(run.to, at);
    }
  }
  const spans = [...runs.values()];
  const times = events.map((e) => e.at).toSorted((a, b) => a - b);
  let ms = 0;
  for (let i = 1; i < times.length; i++) {
    const [from, to] = [times[i - 1], times[i]];
    const working = spans.some((s) => s.from <= from && s.to >= to);
    ms += working || to - from <= PAUSE_MS ? to - from : TAIL_MS;
  }
  return ms / 60_000;
}
