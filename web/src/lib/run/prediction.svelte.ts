/** When joints should be wet: as the plan says, or computed here where hands do otherwise, go on with another tool, or put a part on. */
import { nameOf } from '$lib/jobs/nameOf';
import type { JobView } from '$lib/jobs/view';
import { fitInputs } from '$lib/plan/fitInputs';
import { planInputOf } from '$lib/plan/planInput';
import type { Planned } from '@orthos/core/compare';
import { asDone, asLaidOut, doneBefore, surroundingsDone } from '@orthos/core/hands';
import { currentAttempt, type JobState, type Run } from '@orthos/core/job';
import { type Guide, guideOf, type Method, type Operation, type Phase, type PlanInput } from '@orthos/core/rework';
import { cameOffBy, removalGuide, runsBefore } from './work';

/** What a prediction is of. */
interface Of {
  view: JobView;
  op: Operation;
  method: Method | undefined;
  state: JobState;
  /** The run under way. */
  run: Run | null;
}

/** Of a part that stands on its lands already. */
const inPlace = ([first]: readonly Phase[]): boolean => first?.kind === 'place' && first.settings.again === true;

/** Fetched with the page: it has to be there when the server is not. */
const pool = import('$lib/compute/pool');

/** The board cools while hands choose: times are computed for one of these, s after the heat left. */
const COOLED_S = [15, 45, 90, 180, 360, 600];

export class Prediction {
  computing = $state(false);
  problem = $state<string | null>(null);
  /** By what they are for. */
  private computed = $state.raw<Record<string, Guide>>({});
  private underWay: Promise<void> = Promise.resolve();
  private readonly of: () => Of;
  private readonly now: () => number;
  /** `now`: UTC ms, running. */
  constructor(of: () => Of, now: () => number) {
    this.of = of;
    this.now = now;
  }

  /** The surroundings as hands left them, and who is not as planned. */
  private asLeft = $derived.by(() => {
    const { view, state } = this.of();
    return surroundingsDone(
      view.inputs?.settings.surroundings ?? {},
      currentAttempt(state).neighbours,
      view.inputs?.target,
    );
  });
  /** The method as the dials were set at the lay-out. */
  private asSet = $derived.by(() => {
    const { view, method, state } = this.of();
    const { laidOut } = currentAttempt(state);
    const mine = laidOut && method && laidOut.methodId === method.id ? laidOut.setPoints : [];
    return method ? asLaidOut(method.phases, mine, view.inputs?.panel ?? {}) : { phases: [], differs: [] };
  });
  /** What hands go through, as it is set. */
  phases = $derived.by<Phase[]>(() => this.asSet.phases);
  /** What is other than the plan in use counts on: parts covered or left open, dials. */
  differs = $derived.by<string[]>(() => {
    const { op, view } = this.of();
    if (op !== 'remove' || !view.inUse) return [];
    return [...this.asLeft.differs.map((id) => nameOf(view.board, id)), ...this.asSet.differs];
  });
  private runsBefore = $derived.by(() => {
    const { op, state, run } = this.of();
    return op === 'remove' ? runsBefore(state, run) : [];
  });
  /** For how long the board has cooled since, s. */
  private cooled_s = $derived.by(() => {
    const last = this.runsBefore.at(-1)?.ended;
    const since_s = last ? ((this.of().run?.begun ?? this.now()) - last.at) / 1000 : 0;
    return COOLED_S.find((s) => s >= since_s) ?? COOLED_S[COOLED_S.length - 1];
  });
  /** What was done to the part by work that was given up; as it was when the run began. */
  before = $derived.by<Phase[]>(() => {
    const last = this.runsBefore.at(-1)?.ended;
    return last ? doneBefore(this.runsBefore, last.at + this.cooled_s * 1000) : [];
  });
  /** Whether the plan's own times do not stand for what is about to be done: others are computed. */
  expected = $derived.by(() => {
    const { op, view, method } = this.of();
    if (!method) return false;
    if (op !== 'remove') return op === 'fit';
    if (this.before.length > 0) return true;
    return view.inUse !== null && (this.differs.length > 0 || view.inUse.method.id !== method.id);
  });
  /** What a prediction made here is for. */
  private key = $derived.by(() => {
    const { view } = this.of();
    return JSON.stringify([this.phases, view.inputs?.hash, this.asLeft.surroundings, this.before]);
  });
  guide = $derived.by<Guide | null>(() => {
    const { op, view, method, run } = this.of();
    if (run) return run.guide;
    if (this.expected) return this.computed[this.key] ?? null;
    return op === 'remove' ? removalGuide(view, method) : null;
  });

  /** What the calculation of phases is asked: for the board as hands left it; null where nothing can be computed. */
  input(phases: readonly Phase[], late_s = 0): PlanInput | null {
    const { op, view } = this.of();
    const { inputs, board } = view;
    const all = asDone(phases, this.before, late_s);
    if (!inputs || !all) return null;
    const settings = { ...inputs.settings, surroundings: this.asLeft.surroundings };
    const left = { ...inputs, settings };
    const asked =
      op === 'fit' ? fitInputs({ board, inputs: left }, cameOffBy(view) ?? view.inUse?.method, inPlace(phases)) : left;
    return planInputOf(board, asked, { phases: all }, false);
  }

  /** Computes what the plan does not say before a run begins; it may begin without. */
  ahead(signal: AbortSignal): Promise<void> {
    return (this.underWay = this.aheadNow(signal));
  }
  /** Settled once what is being computed is there, or is not to be had. */
  get settled(): Promise<void> {
    return this.underWay;
  }

  private async aheadNow(signal: AbortSignal): Promise<void> {
    const { method, run } = this.of();
    const { key } = this;
    if (!method || !this.expected || this.computed[key] || run) return;
    const guide = await this.compute(this.phases, { signal });
    if (guide) this.computed = { ...this.computed, [key]: guide };
  }

  /** Times of phases; null where they cannot be had. `quickly`: while the heat is on, for an answer in seconds. */
  async compute(
    phases: readonly Phase[],
    { signal, late_s = 0, quickly = false }: { signal: AbortSignal; late_s?: number; quickly?: boolean },
  ): Promise<Guide | null> {
    const asked = this.input(phases, late_s);
    if (!asked) return null;
    this.computing = true;
    try {
      const { op, view, method } = this.of();
      // held for as long as the plan of putting it on says
      const as = op === 'fit' && method ? { as: method.id } : {};
      const input = { ...asked, ...as, ...(quickly ? { quality: 'search' } : {}) };
      const { runInPool } = await pool;
      const result = await runInPool<Planned>('plan.heat', input, { signal });
      const hold_s = result.row && 'hold_s' in result.row ? result.row.hold_s : undefined;
      return { ...guideOf(result, view.board, { phases: [...phases] }), ...(hold_s === undefined ? {} : { hold_s }) };
    } catch (e) {
      if ((e as Error).name !== 'AbortError') this.problem = `No times: ${(e as Error).message}`;
      return null;
    } finally {
      this.computing = false;
    }
  }
}
