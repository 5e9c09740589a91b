/**
 * Settings of one way of working looked at cheaply: one quick run each, read with the effects of the nearest setting whose whole ensemble is
 * known (`effects.ts`). Learning a setting computes its own ensemble.
 */
import { Ahead, type CalcContext } from '../ground/index.ts';
import {
  type Ensemble,
  ensembleOf,
  helpersFor,
  type Method,
  partOf,
  type Phase,
  type PlanInput,
  type PlanRun,
  type RunAsked,
  runAsked,
  type RunsAbout,
} from '../rework/index.ts';
import { LEAST_MEMBERS } from './compare.ts';
import { likeEnsemble } from './effects.ts';
import type { Row, Weights } from './forms.ts';
import { WORKS } from './order.ts';
import { placeOf, rowOf } from './row.ts';

/** What is found at the bench. */
export type Found = Omit<PlanInput, 'phases'>;

/** One way as it is set, in what is found. */
export interface Setting {
  /** Names it among all others of the same looks. */
  name: string;
  /** Where it lies among them: near ones act alike. */
  at: readonly number[];
  phases: Phase[];
  found: Found;
}

export interface Known {
  setting: Setting;
  ensemble: Ensemble;
  quick: PlanRun;
  row: Row;
}

interface Asked {
  method: Method['id'];
  weights: Weights;
  seed: number | undefined;
  /** Runs of the physics at most, for progress; an ensemble is about a dozen. */
  budget_runs: number;
}

const apart = (a: readonly number[], b: readonly number[]): number => Math.hypot(...a.map((v, i) => v - b[i]));

export const scored = (row: Row): number => row.score ?? Infinity;

/** What works only just does so no longer where it is computed more finely: a search wants so much more. */
const RESERVE = 0.05;
/** How far a row is from surely open, so that a search sees which way opens it while the score does not: 0 where it is. */
const shut = (row: Row): number => Math.max(0, WORKS + RESERVE - (row.window?.p_open ?? 0));

/** What a search goes by: the score, and how far it is from open. */
export const costOf = ({ row, quick }: Pick<Known, 'row' | 'quick'>): number =>
  scored(row) + shut(row) + coldness(quick);

export const leastOf = (known: readonly Known[]): Known => known.reduce((a, b) => (costOf(b) < costOf(a) ? b : a));

export class Glances {
  private readonly asked: Asked;
  private readonly context: CalcContext;
  private readonly quick = new Map<string, PlanRun>();
  /** Most settings are of one board. */
  private about: RunsAbout | undefined;
  private readonly ahead: Ahead<RunAsked, PlanRun>;
  readonly known: Known[] = [];
  runs = 0;

  constructor(asked: Asked, context: CalcContext) {
    this.asked = asked;
    this.context = context;
    const about = () => this.about as RunsAbout;
    this.ahead = new Ahead(
      (run) => runAsked(about(), run, { ...context, progress: undefined }),
      context.idle && (() => Promise.resolve(helpersFor(about(), context)?.())),
    );
  }

  /** Settings that were looked at. */
  get looked(): number {
    return this.quick.size;
  }
  get spent(): boolean {
    return this.runs >= this.asked.budget_runs;
  }
  isKnown(name: string): Known | undefined {
    return this.known.find((k) => k.setting.name === name);
  }

  private row({ phases, found }: Setting, ensemble: Ensemble): Row {
    const { method: id, weights, seed } = this.asked;
    return rowOf({ id, phases }, ensemble, placeOf({ ...found, phases }, weights, seed));
  }

  private runOf({ phases, found: { board, ...found } }: Setting): RunAsked {
    this.about ??= { board };
    const set = { ...found, ...(board === this.about.board ? {} : { board }), phases, frames: false };
    return { set: { ...set, quality: 'search' }, until: 'shut' };
  }

  /** One quick run of a setting; `next`: what is likely looked at afterwards, for who is idle. */
  async run(setting: Setting, next: Iterable<Setting> = []): Promise<PlanRun> {
    const before = this.quick.get(setting.name);
    if (before) return before;
    const guesses = [...next].flatMap((s) => (this.quick.has(s.name) ? [] : [[s.name, this.runOf(s)] as const]));
    const run = await this.ahead.ask(setting.name, this.runOf(setting), guesses);
    this.runs++;
    this.quick.set(setting.name, run);
    this.context.progress?.(this.share);
    return run;
  }
  /** Nothing more is looked at for now. */
  rest(): void {
    this.ahead.stop();
  }
  /** Of the runs it may take. */
  get share(): number {
    return Math.min(0.99, this.runs / this.asked.budget_runs);
  }

  /** Its row by one quick run, and what that costs; something has to be known. `next` as in `run`. */
  async at(setting: Setting, next?: Iterable<Setting>): Promise<{ row: Row; cost: number }> {
    const run = await this.run(setting, next);
    const row = this.isKnown(setting.name)?.row ?? this.like(setting, run);
    return { row, cost: costOf({ row, quick: run }) };
  }
  private like(setting: Setting, run: PlanRun): Row {
    const near = this.known.reduce((a, b) =>
      apart(b.setting.at, setting.at) < apart(a.setting.at, setting.at) ? b : a,
    );
    return this.row(setting, likeEnsemble(run, near.ensemble, near.quick));
  }

  /** A setting with its own ensemble. */
  async learn(setting: Setting): Promise<Known> {
    const before = this.isKnown(setting.name);
    if (before) return before;
    const quick = await this.run(setting);
    this.rest();
    const { phases, found } = setting;
    const ensemble = await ensembleOf(
      { ...found, phases, quality: 'coarse', frames: false },
      { quality: 'coarse', least: LEAST_MEMBERS, nominalCosts: 1 },
      // its run as set is no answer of a search
      partOf(
        { ...this.context, progress: (done) => this.context.progress?.(done) },
        this.share,
        LEAST_MEMBERS / this.asked.budget_runs,
      ),
    );
    this.runs += 1 + ensemble.members.length;
    const known = { setting, ensemble, quick, row: this.row(setting, ensemble) };
    this.known.push(known);
    return known;
  }
}

/** Where joints stay solid, how far the worst of them is from melting when the window shuts, in hundreds of K: there is nothing else to go by. */
function coldness({ allWet_s, joints }: PlanRun): number {
  if (allWet_s !== null) return 0;
  return Math.max(...joints.map((j) => Math.max(0, (j.liquidus_C ?? 0) - j.peak_C)), 0) / 100;
}
