/** Computes the methods of a plan one after the other in the worker pool; cancellable, shows what is done so far. */
import { runInPool } from '$lib/compute/pool';
import type { PlanInputs } from '$lib/jobs/view';
import type { Task } from '$lib/compute/workers';
import type { BoardModel } from '@orthos/core/board';
import type { FieldFrames, Method, PlanInput, PlanResult, PlanRun } from '@orthos/core/rework';
import { planInputOf } from './planInput';

/** Results that stay at hand with their fields, by the board and by all else they were computed from. */
const AT_HAND = 16;
const atHand = new WeakMap<BoardModel, Map<string, PlanResult>>();

/** A method's result: as it was computed before from the same input, else computed now. A changed method leaves the others as they are. */
async function resultOf(input: PlanInput, task: Task): Promise<PlanResult> {
  const { board, ...rest } = input;
  const results = atHand.get(board) ?? new Map<string, PlanResult>();
  atHand.set(board, results);
  const key = JSON.stringify(rest);
  const result = results.get(key) ?? (await runInPool<PlanResult>('plan.heat', input, task));
  results.delete(key);
  results.set(key, result);
  for (const oldest of results.keys()) if (results.size > AT_HAND) results.delete(oldest);
  return result;
}

export class Planner {
  running = $state(false);
  error = $state<string | null>(null);
  /** Fraction done, by method. */
  progress = $state<Record<string, number>>({});
  results = $state.raw<Record<string, PlanResult>>({});
  frames = $state.raw<Record<string, FieldFrames>>({});
  /** Milliseconds until the first picture and until everything was there. */
  timing = $state<{ first: number | null; all: number | null }>({ first: null, all: null });
  private abort: AbortController | null = null;

  /** Computes all methods that fit; resolves true when every one is done, false when cancelled or failed. */
  async compute(board: BoardModel, inputs: PlanInputs): Promise<boolean> {
    this.cancel();
    const abort = new AbortController();
    this.abort = abort;
    this.running = true;
    this.error = null;
    this.forget();
    this.timing = { first: null, all: null };
    const methods = inputs.methods.filter((m) => !m.unfit).map((m) => m.method);
    this.progress = Object.fromEntries(methods.map((m) => [m.id, 0]));
    const start = performance.now();
    const one = async (method: Method) => {
      const result = await resultOf(planInputOf(board, inputs, method, true), {
        signal: abort.signal,
        onProgress: (done, partial) => {
          // progress comes by a way of its own and may arrive after the result
          if (this.abort !== abort || this.progress[method.id] === 1) return;
          this.progress = { ...this.progress, [method.id]: done };
          const frames = framesOf(partial);
          if (frames) {
            this.timing.first ??= performance.now() - start;
            this.frames = { ...this.frames, [method.id]: frames };
          }
        },
      });
      if (this.abort !== abort) return;
      const { frames, ...rest } = result;
      this.results = { ...this.results, [method.id]: rest };
      if (frames) this.frames = { ...this.frames, [method.id]: frames };
      this.progress = { ...this.progress, [method.id]: 1 };
    };
    try {
      await Promise.all(methods.map(one));
      this.timing.all = performance.now() - start;
      return this.abort === abort;
    } catch (e) {
      if (this.abort === abort && (e as Error).name !== 'AbortError') this.error = (e as Error).message;
      abort.abort();
      return false;
    } finally {
      if (this.abort === abort) this.running = false;
    }
  }

  /** The field of one method of a stored plan, computed again from the same inputs. */
  async fetchFrames(board: BoardModel, inputs: PlanInputs, method: Method): Promise<void> {
    if (this.frames[method.id] || this.running) return;
    const abort = new AbortController();
    this.abort = abort;
    try {
      const run = await runInPool<PlanRun>('heat.simulate', planInputOf(board, inputs, method, true), {
        signal: abort.signal,
      });
      if (run.frames && this.abort === abort) this.frames = { ...this.frames, [method.id]: run.frames };
    } catch (e) {
      if ((e as Error).name !== 'AbortError') this.error = (e as Error).message;
    }
  }

  /** Lets go of what was computed. */
  forget(): void {
    this.results = {};
    this.frames = {};
  }

  cancel(): void {
    this.abort?.abort();
    this.abort = null;
    this.running = false;
  }
}

/** Planners that are kept with their fields, so that coming back shows what was there. */
const KEPT = 3;
const planners = new Map<string, Planner>();

/** The planner of a job: it goes on computing when its page is left, and is found again on coming back. */
export function plannerOf(ticketId: string): Planner {
  const planner = planners.get(ticketId) ?? new Planner();
  planners.delete(ticketId);
  planners.set(ticketId, planner);
  for (const [id, p] of planners) if (planners.size > KEPT && !p.running && id !== ticketId) planners.delete(id);
  return planner;
}

/** Progress carries either early frames or the nominal run. */
function framesOf(partial: unknown): FieldFrames | undefined {
  if (!partial || typeof partial !== 'object') return undefined;
  if ('values' in partial) return partial as FieldFrames;
  return (partial as { frames?: FieldFrames }).frames;
}
