import type { CalcIssue } from '@orthos/core/ground';
import type { ThreadAnswer, ThreadJob } from '../../../hosts/thread';
import { Lane } from './thread';

const MAX_SECONDS = 10;
const lane = new Lane({ file: 'thread.mjs', atOnce: 2, mostWaiting: 0, most_s: MAX_SECONDS });

export type CalcAnswer =
  | { kind: 'done'; json: string }
  | { kind: 'refused'; issues: CalcIssue[] }
  | { kind: 'busy' }
  | { kind: 'too-long' };

/** Runs one calculation in a thread of its own, so that the server keeps answering. */
export async function calcInThread(name: string, input: unknown, signal: AbortSignal): Promise<CalcAnswer> {
  const job: ThreadJob = { name, input, maxCost_s: MAX_SECONDS };
  const answer = await lane.run<ThreadAnswer>(job, signal);
  if (answer === 'busy') return { kind: 'busy' };
  if (answer === 'stopped') return { kind: 'too-long' };
  if (answer.ok) return { kind: 'done', json: answer.json };
  if ('issues' in answer) return { kind: 'refused', issues: answer.issues };
  throw new Error(answer.internal);
}
