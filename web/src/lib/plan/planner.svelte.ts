/** Computes the ways of a plan in the worker pool, all of them quickly and the best in full; cancellable, shows what is done so far. */
import { runInPool } from '$lib/compute/pool';
import type { PlanInputs } from '$lib/jobs/view';
import type { Task } from '$lib/compute/workers';
import type { BoardModel } from '@orthos/core/board';
import { inTheEnd, type Planned } from '@orthos/core/compare';
import { type FieldFrames, isDoable, type Method, type PlanRun } from '@orthos/core/rework';
import { planInputOf } from './planInput';

/** Results that stay at hand with their fields, by the board and by all else they were computed from. */
const AT_HAND = 32;
const atHand = new WeakMap<BoardModel, Map<string, Planned>>();

/** So many of the best are computed in full unasked. */
const BEST = 4;

/** By how long they may go on, which is how long they take to compute. */
const longestFirst = (methods: readonly Method[]): Method[] => {
  const limit_s = ({ phases }: Method) => phases.reduce((sum, p) => sum + p.giveUp_s, 0);
  return [...methods].sort((a, b) => limit_s(b) - limit_s(a));
};

/** As it was computed before from the same input, else computed now. A changed method leaves the others as they are. */
async function resultOf(input: object, board: BoardModel, task: Task): Promise<Planned> {
  const results = atHand.get(board) ?? new Map<string, Planned>();
  atHand.set(board, results);
  const key = JSON.stringify(input);
  const result = results.get(key) ?? (await runInPool<Planned>('plan.heat', { board, ...input }, task));
  results.delete(key);
  results.set(key, result);
  for (const oldest of results.keys()) if (results.size > AT_HAND) results.delete(oldest);
  return result;
}

export class Planner {
  running = $state(false);
  /** All of it is computed anew: what was there before counts no more. */
  anew = $state(false);
  /** What it computes, or computed last, all of it anew. */
  from: PlanInputs | null = null;
  error = $state<string | null>(null);
  /** Fraction done, by method: of those that are computed in full. */
  progress = $state<Record<string, number>>({});
  results = $state.raw<Record<string, Planned>>({});
  /** First answers: every way as set, once and coarsely. */
  quick = $state.raw<Record<string, Planned>>({});
  frames = $state.raw<Record<string, FieldFrames>>({});
  /** Milliseconds until the first picture, until every way had a first answer, and until the best were there. */
  timing = $state<{ first: number | null; quick: number | null; all: number | null }>({
    first: null,
    quick: null,
    all: null,
  });
  private abort: AbortController | null = null;

  /**
   * Computes in full what is looked at (`also`), then looks at every other way that fits; then in full, one after another, what is asked for by then and the
   * best, until the one on top is; then the rest of the best, but for what is `known` of the same inputs. Resolves true when every one is done, false when
   * cancelled or failed.
   */
  compute(
    board: BoardModel,
    inputs: PlanInputs,
    also: () => readonly string[],
    known: Readonly<Record<string, Planned>> = {},
  ): Promise<boolean> {
    this.forget();
    this.from = inputs;
    this.results = known;
    this.timing = { first: null, quick: null, all: null };
    const start = performance.now();
    const methods = inputs.methods.filter(isDoable).map((m) => m.method);
    const missing = (ids: readonly string[]) => methods.filter((m) => ids.includes(m.id) && !this.results[m.id]);
    /** By what is known of each: in full, else by a first answer. */
    const ranked = () => {
      const rows = methods.flatMap((m) => (this.results[m.id] ?? this.quick[m.id])?.row ?? []);
      return inTheEnd(rows).rows.flatMap((r) => (r.lastResort ? [] : [r.id]));
    };
    return this.work(true, async (abort) => {
      const fully = (ways: readonly Method[]) => this.fully(board, inputs, ways, abort, start);
      const looked = missing(also());
      const others = methods.filter((m) => !looked.includes(m) && !this.results[m.id]);
      // what somebody waits for has all workers to itself
      await fully(looked);
      // the first shows the first picture; of the others the longest begin, so that none of them is waited for alone
      await this.glance(board, inputs, [...others.slice(0, 1), ...longestFirst(others.slice(1))], abort, start);
      this.timing.quick = performance.now() - start;
      // in full one may be worse than it seemed
      const tops = new Set<string>();
      for (;;) {
        const [top] = ranked();
        const next = missing(also())[0] ?? missing([top])[0];
        if (!next) break;
        tops.add(top);
        await fully([next]);
      }
      const rest = missing([...new Set([...tops, ...ranked()])].slice(0, BEST));
      // the longest begins, so that it does not go on alone
      await fully([...new Set([...longestFirst(rest).slice(0, 1), ...rest])]);
      this.timing.all = performance.now() - start;
    });
  }

  /** First answers of ways that have none yet, beside what is there. */
  look(board: BoardModel, inputs: PlanInputs, methods: readonly Method[]): Promise<boolean> {
    return this.work(false, (abort) => this.glance(board, inputs, methods, abort, performance.now()));
  }

  /** Computes one more in full, beside what is there. */
  add(board: BoardModel, inputs: PlanInputs, method: Method): Promise<boolean> {
    return this.work(false, (abort) => this.fully(board, inputs, [method], abort, performance.now()));
  }

  private async work(anew: boolean, task: (abort: AbortController) => Promise<void>): Promise<boolean> {
    this.cancel();
    const abort = new AbortController();
    this.abort = abort;
    this.running = true;
    this.anew = anew;
    this.error = null;
    try {
      await task(abort);
      return this.abort === abort;
    } catch (e) {
      if (this.abort === abort && (e as Error).name !== 'AbortError') this.error = (e as Error).message;
      abort.abort();
      return false;
    } finally {
      if (this.abort === abort) this.running = this.anew = false;
    }
  }

  private async glance(
    board: BoardModel,
    inputs: PlanInputs,
    methods: readonly Method[],
    abort: AbortController,
    start: number,
  ): Promise<void> {
    await Promise.all(
      methods.map(async (method) => {
        const quick = await this.one(board, inputs, method, abort, start, false, method === methods[0]);
        if (this.abort === abort) this.quick = { ...this.quick, [method.id]: quick };
      }),
    );
  }

  private async fully(
    board: BoardModel,
    inputs: PlanInputs,
    methods: readonly Method[],
    abort: AbortController,
    start: number,
  ): Promise<void> {
    this.progress = { ...this.progress, ...Object.fromEntries(methods.map((m) => [m.id, 0])) };
    await Promise.all(
      methods.map(async (method) => {
        const result = await this.one(board, inputs, method, abort, start, true);
        if (this.abort !== abort) return;
        const { frames, ...rest } = result;
        this.results = { ...this.results, [method.id]: rest };
        if (frames) this.frames = { ...this.frames, [method.id]: frames };
        this.progress = { ...this.progress, [method.id]: 1 };
      }),
    );
  }

  private one(
    board: BoardModel,
    inputs: PlanInputs,
    method: Method,
    abort: AbortController,
    start: number,
    full: boolean,
    pictured = true,
  ): Promise<Planned> {
    const { board: _, ...input } = planInputOf(board, inputs, method, pictured);
    const asked = full ? input : { ...input, quality: 'coarse', ranges: false };
    return resultOf({ ...asked, as: method.id }, board, {
      signal: abort.signal,
      onProgress: (done, partial) => {
        // progress comes by a way of its own and may arrive after the result
        if (this.abort !== abort || this.results[method.id]) return;
        if (full) this.progress = { ...this.progress, [method.id]: done };
        const frames = framesOf(partial);
        if (!frames || (!full && this.frames[method.id])) return;
        this.timing.first ??= performance.now() - start;
        this.frames = { ...this.frames, [method.id]: frames };
      },
    });
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
    this.quick = {};
    this.frames = {};
    this.progress = {};
  }

  cancel(): void {
    this.abort?.abort();
    this.abort = null;
    this.running = this.anew = false;
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
