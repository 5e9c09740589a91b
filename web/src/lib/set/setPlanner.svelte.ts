/** The order of a job's set, made by a worker of its own: first added up, then run through; made anew whenever the set, or what was done of it, changes. */
import type { JobView } from '$lib/jobs/view';
import { type JobState, secondsOf, type SetPart, type SetProgress, workAt } from '@orthos/core/job';
import { type Asked, opsIn, type SetInput, type SetOrder, type Stage } from '@orthos/core/sets';
import { proxy, type Remote, wrap } from 'comlink';
import type { SetWorker } from '../../workers/set.worker';
import SetWorkerScript from '../../workers/set.worker?worker';

/** Orders that are run through with the heat they carry: of what is asked for anew, and of what hands have begun. */
const FINALISTS = { first: 3, begun: 1 };

/** Where a set is worked, with these parts off the board; null while nothing is known of the bench. */
export function setBenchOf(
  { board, inputs }: Pick<JobView, 'board' | 'inputs'>,
  gone: readonly string[],
): Omit<SetInput, 'set' | 'stage' | 'finalists'> | null {
  if (!inputs) return null;
  const { settings, bench, station, limits, never } = inputs;
  const { joints: _, reused: __, ...around } = settings.surroundings ?? {};
  const absent = [...(around.absent ?? []), ...gone];
  const round = { ...around, ...(absent.length > 0 ? { absent } : {}) };
  return {
    board,
    ...(bench.tools ? { kit: [...bench.tools] } : {}),
    ambient_C: settings.ambient_C,
    ...(Object.keys(round).length > 0 ? { surroundings: round } : {}),
    station,
    ...(limits ? { limits } : {}),
    ...(never ? { never } : {}),
  };
}

/** What an order is made of: what is still to be done, and what was done with its times; null while nothing is known of the bench, or nothing is left. */
export function setInputOf(
  view: JobView,
  { parts }: Pick<SetProgress, 'parts'>,
  stage: Stage,
  did: Did,
): SetInput | null {
  const timed = new Set(did.map((d) => d.partId));
  const ops = (p: SetPart) => opsIn(stage, p.item.do);
  const mine = parts.filter((p) => ops(p).length > 0 && (timed.has(p.item.partId) || ops(p).some((op) => !p.done[op])));
  // what came off without its times being told stands there no more, what is put on later not yet
  const isGone = (p: SetPart) => (p.done.remove || p.item.do === 'place') && !p.done.fit && !timed.has(p.item.partId);
  const gone = parts.filter((p) => isGone(p) && !mine.includes(p));
  const bench = setBenchOf(
    view,
    gone.map((p) => p.item.partId),
  );
  if (!bench || mine.length === 0) return null;
  const listed = new Set(mine.map((p) => p.item.partId));
  return {
    ...bench,
    set: mine.map(({ item: { partId, do: fate, after = [] } }) => {
      const first = after.filter((a) => listed.has(a));
      return { partId, do: fate, ...(first.length > 0 ? { after: first } : {}) };
    }),
    stage,
    finalists: FINALISTS.first,
  };
}

type Did = NonNullable<SetInput['did']>;

/** What of a stage is done already, as it went: in the order it was done, on a clock that began with the first. */
export function didOf(state: JobState, { parts }: Pick<SetProgress, 'parts'>, stage: Stage): Did {
  const op = stage === 'fitted' ? 'fit' : 'remove';
  const runs = parts.flatMap(({ item }) => {
    const run = workAt(state, item.partId)?.runs.findLast((r) => r.op === op && r.ended?.outcome === 'finished');
    const on = run?.marks.find((m) => m.what === 'heat-on')?.at;
    const loose_s = run && secondsOf(run, op === 'fit' ? 'fitted' : 'all-wet');
    return on === undefined || loose_s === null || loose_s === undefined ? [] : [{ partId: item.partId, on, loose_s }];
  });
  const first = Math.min(...runs.map((r) => r.on));
  return runs
    .toSorted((a, b) => a.on - b.on)
    .map(({ partId, on, loose_s }) => ({ partId, start_s: (on - first) / 1000, loose_s }));
}

export class SetPlanner {
  result = $state.raw<SetOrder | null>(null);
  /** What the result is of. */
  stage = $state<Stage | null>(null);
  /** Added up so far, not yet run through. */
  rough = $state(false);
  /** Fraction done; null when idle. */
  progress = $state<number | null>(null);
  problem = $state<string | null>(null);
  private worker: Worker | null = null;
  private api: Remote<SetWorker> | null = null;
  private turn = 0;

  /** Asks anew; what is under way for something else is called off. True once the whole answer is there. */
  async ask(input: SetInput, asked: Omit<Asked, 'finalists'>): Promise<boolean> {
    if (this.progress !== null) this.end();
    const turn = ++this.turn;
    const api = (this.api ??= this.begin());
    this.progress = 0;
    this.problem = null;
    try {
      const begun = (asked.did?.length ?? 0) > 0 || asked.order !== undefined;
      const finalists = begun ? FINALISTS.begun : FINALISTS.first;
      const result = await api.order(
        input,
        { ...asked, finalists },
        proxy((done: number, early?: SetOrder) => {
          if (turn !== this.turn || this.progress === null) return;
          this.progress = done;
          if (!early) return;
          [this.result, this.rough, this.stage] = [early, true, input.stage];
        }),
      );
      if (turn !== this.turn) return false;
      [this.result, this.rough, this.stage] = [result, false, input.stage];
      this.progress = null;
      return true;
    } catch (e) {
      if (turn !== this.turn) return false;
      this.problem = (e as Error).message;
      this.progress = null;
      return false;
    }
  }

  private begin(): Remote<SetWorker> {
    this.worker = new SetWorkerScript();
    // one that cannot be loaded answers nothing: the next question starts another
    this.worker.addEventListener('error', (e) => {
      this.end();
      this.problem = e.message || 'its worker could not be loaded';
    });
    return wrap<SetWorker>(this.worker);
  }

  /** Calls off what is under way. */
  end(): void {
    this.turn++;
    this.worker?.terminate();
    this.worker = null;
    this.api = null;
    this.progress = null;
  }
}

const planners = new Map<string, SetPlanner>();
const KEPT = 2;

/** The planner of a job's set: it is found again on coming back. */
export function setPlannerOf(ticketId: string): SetPlanner {
  const planner = planners.get(ticketId) ?? new SetPlanner();
  planners.delete(ticketId);
  planners.set(ticketId, planner);
  for (const [id, p] of planners)
    if (planners.size > KEPT && id !== ticketId) {
      p.end();
      planners.delete(id);
    }
  return planner;
}
