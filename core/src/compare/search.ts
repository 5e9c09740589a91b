/**
 * The settings of one way of working that cost least on this bench. Two fidelities: every setting that is looked at gets one quick run, read with the
 * effects of the nearest setting whose whole ensemble is known (`effects.ts`); the best of these get ensembles of their own, one after another, and
 * each is known from then on. Chosen over a model fitted to scores because a run already carries the physics between settings: what has to be
 * learnt is only how what is uncertain acts, and that changes slowly. Measured against a dense grid in its test. The same question has the same answer.
 */
import { z } from 'zod';
import { type CalcContext, CalcInputError } from '../ground/index.ts';
import {
  caseOf,
  type Dials,
  type Ensemble,
  ensembleOf,
  kindOf,
  type Method,
  methodIdSchema,
  partOf,
  type Phase,
  phasesSchema,
  type PlanInput,
  planOfSaid,
  type PlanRun,
  planSaid,
  recipeOf,
  reworkPlaceSchema,
  runPlan,
} from '../rework/index.ts';
import { choicesFor, LEAST_MEMBERS, targetOf } from './compare.ts';
import { likeEnsemble } from './effects.ts';
import { type Axis, axesOf, type Free, freeSchema, turned, type Value } from './free.ts';
import { type Row, rowSchema, type Weights, weightsSchema } from './forms.ts';
import { placeOf, rowOf } from './row.ts';

const budget_runs = z.int().min(1).max(5000).default(400);
const weights = weightsSchema.default({ pads: 1, neighbours: 1, part: 1, minutes: 1 });
const known = methodIdSchema.refine((id) => recipeOf(id) !== undefined, { error: 'is no way known here' });
/** `budget_runs`: runs of the physics at most; an ensemble is about a dozen. */
export const searchInput = z.strictObject({
  case: reworkPlaceSchema,
  method: known,
  free: freeSchema,
  weights,
  budget_runs,
});
type SearchInput = z.infer<typeof searchInput>;

/** The same of a plan: `as` is the way it is, its phases as they are set now. */
export const tuneInput = planSaid
  .extend({ as: known, free: freeSchema, weights, budget_runs })
  .transform(({ as, free, weights: w, budget_runs: most, ...said }, context) => ({
    plan: planOfSaid(said, context),
    ...{ as, free, weights: w, budget_runs: most },
  }));
export type TuneInput = z.infer<typeof tuneInput>;

const settings = z.record(z.string(), z.union([z.number(), z.string()]));
const found = {
  settings,
  score: z.number(),
  p_open: z.number(),
  /** Settings that were looked at. */
  evaluated: z.int(),
  /** Each time a better one was found: how many had been looked at by then. */
  trace: z.array(z.strictObject({ evaluated: z.int(), score: z.number() })),
  /** Its row in a comparison. */
  row: rowSchema,
};
export const searchOutput = z.strictObject({
  ...found,
  /** What is turned to what, as the tool's own dial says it. */
  dials: z.array(z.strictObject({ tool: z.string(), dial: z.string(), value: z.number(), unit: z.string() })),
});
type Found = z.infer<typeof searchOutput>;
/** `before`: the row of the settings as they were, of the nearest that were free. */
export const tuneOutput = z.strictObject({ ...found, phases: phasesSchema, before: rowSchema });
export type Tuned = z.infer<typeof tuneOutput>;

/** So many starts are spread over all settings; so many of the best are followed. */
const [SPREAD, FOLLOWED] = [24, 3];

/** A point of the search: which value of each axis. */
type Point = readonly number[];
const nameOf = (p: Point): string => p.join(' ');

/** How many steps two points are apart, every axis as long as all others. */
const apart = (a: Point, b: Point, axes: readonly Axis[]): number =>
  Math.hypot(...a.map((v, i) => (v - b[i]) / Math.max(1, axes[i].values.length - 1)));

/** Radical inverse: numbers that fill a range evenly (Halton). */
function inverse(n: number, base: number): number {
  let [v, f] = [0, 1];
  for (let i = n; i > 0; i = Math.floor(i / base)) v += (f /= base) * (i % base);
  return v;
}
const PRIMES = [2, 3, 5, 7, 11, 13, 17, 19];

interface Known {
  point: Point;
  ensemble: Ensemble;
  quick: PlanRun;
  row: Row;
}

/** What is searched: a method on what is found at the bench. */
interface Asked {
  method: Method;
  found: Omit<PlanInput, 'phases'>;
  free: Free;
  weights: Weights;
  seed: number | undefined;
  budget_runs: number;
}

class Search {
  private readonly axes: readonly Axis[];
  private readonly method: Method;
  private readonly asked: Asked;
  private readonly context: CalcContext;
  private readonly quick = new Map<string, PlanRun>();
  private readonly known: Known[] = [];
  private runs = 0;
  readonly trace: Found['trace'] = [];

  constructor(asked: Asked, context: CalcContext) {
    this.asked = asked;
    this.method = asked.method;
    this.context = context;
    this.axes = axesOf(asked.free, asked.method);
  }

  get evaluated(): number {
    return this.quick.size;
  }
  /** As it was set, as near as what is free comes to it. */
  get first(): Known {
    return this.known[0];
  }
  get best(): Known {
    return this.known.reduce((a, b) => (scored(b.row) < scored(a.row) ? b : a));
  }
  values(point: Point): Map<string, Value> {
    return new Map(this.axes.map(({ key, values }, i) => [key, values[point[i]]]));
  }
  methodAt(point: Point): Method {
    return turned(this.method, this.values(point));
  }
  private input(point: Point, quality: PlanInput['quality']): PlanInput {
    return { ...this.asked.found, phases: this.methodAt(point).phases, quality, frames: false };
  }
  private get spent(): boolean {
    return this.runs >= this.asked.budget_runs;
  }

  private async quickly(point: Point): Promise<PlanRun> {
    const name = nameOf(point);
    const found = this.quick.get(name);
    if (found) return found;
    const run = await runPlan(this.input(point, 'search'), { ...this.context, progress: () => undefined });
    this.runs++;
    this.quick.set(name, run);
    this.context.progress?.(Math.min(0.99, this.runs / this.asked.budget_runs));
    return run;
  }

  /** The row of a setting by one quick run and the effects of the nearest known one. */
  private async glance(point: Point): Promise<number> {
    const run = await this.quickly(point);
    const of = this.known.find((k) => nameOf(k.point) === nameOf(point));
    if (of) return scored(of.row);
    const near = this.known.reduce((a, b) =>
      apart(b.point, point, this.axes) < apart(a.point, point, this.axes) ? b : a,
    );
    return scored(this.row(point, likeEnsemble(run, near.ensemble, near.quick))) + coldness(run);
  }

  private row(point: Point, ensemble: Ensemble): Row {
    const { weights: w, seed } = this.asked;
    return rowOf(this.methodAt(point), ensemble, placeOf(this.input(point, 'coarse'), w, seed));
  }

  /** A setting with its own ensemble. */
  async learn(point: Point): Promise<Known> {
    const known = this.known.find((k) => nameOf(k.point) === nameOf(point));
    if (known) return known;
    const quick = await this.quickly(point);
    const share = 1 / this.asked.budget_runs;
    const ensemble = await ensembleOf(
      this.input(point, 'coarse'),
      { quality: 'coarse', least: LEAST_MEMBERS, nominalCosts: 1 },
      partOf(this.context, Math.min(0.99, this.runs * share), LEAST_MEMBERS * share),
    );
    this.runs += 1 + ensemble.members.length;
    const found = { point, ensemble, quick, row: this.row(point, ensemble) };
    const better = this.known.length === 0 || scored(found.row) < scored(this.best.row);
    this.known.push(found);
    if (better) this.trace.push({ evaluated: this.evaluated, score: scored(found.row) });
    return found;
  }

  /** The nearest point to the settings as they are. */
  asSet(): Point {
    return this.axes.map(({ key, values }) => {
      const is = valueIn(this.method, key);
      const far = (v: Value): number =>
        typeof v === 'number' && typeof is === 'number' ? Math.abs(v - is) : v === is ? 0 : Infinity;
      return values.reduce<number>((best, v, i) => (far(v) < far(values[best]) ? i : best), 0);
    });
  }

  private around(point: Point): Point[] {
    return point.flatMap((at, i) =>
      [-1, 1].flatMap((step) => {
        const to = at + step;
        return to < 0 || to >= this.axes[i].values.length ? [] : [point.map((v, k) => (k === i ? to : v))];
      }),
    );
  }

  /** Downhill by glances, one step on one axis at a time, doubled while it pays. */
  private async follow(from: Point): Promise<Point> {
    let [at, score] = [from, await this.glance(from)];
    for (;;) {
      let [next, least] = [at, score];
      for (const p of this.around(at)) {
        if (this.spent) return at;
        const s = await this.glance(p);
        if (s < least - 1e-9) [next, least] = [p, s];
      }
      if (next === at) return at;
      [at, score] = [next, least];
    }
  }

  async run(): Promise<void> {
    const starts = [this.asSet(), ...this.spread()];
    await this.learn(starts[0]);
    const found: { point: Point; score: number }[] = [];
    for (const point of starts) {
      if (this.spent) break;
      found.push({ point, score: await this.glance(point) });
    }
    found.sort((a, b) => a.score - b.score);
    for (const { point } of found.slice(0, FOLLOWED)) {
      if (this.spent) return;
      await this.learn(await this.follow(point));
    }
    // what is known now changes what glances say: on from the best until nothing near it is better
    for (;;) {
      const { point } = this.best;
      const next = await this.follow(point);
      if (this.spent || this.known.some((k) => nameOf(k.point) === nameOf(next))) return;
      await this.learn(next);
    }
  }

  /** Evenly over all settings. */
  private spread(): Point[] {
    const all = this.axes.reduce((n, a) => n * a.values.length, 1);
    const points = Array.from({ length: Math.min(SPREAD, all) }, (_, n) =>
      this.axes.map(({ values }, i) =>
        Math.min(values.length - 1, Math.floor(values.length * inverse(n + 1, PRIMES[i]))),
      ),
    );
    return [...new Map(points.map((p) => [nameOf(p), p])).values()];
  }
}

const scored = (row: Row): number => row.score ?? Infinity;

/** Where joints stay solid a colder one is worse: there is nothing else to go by. */
function coldness({ allWet_s, joints }: PlanRun): number {
  if (allWet_s !== null) return 0;
  return Math.max(...joints.map((j) => Math.max(0, (j.liquidus_C ?? 0) - j.peak_C)), 0) / 100;
}

/** What a setting is now. */
function valueIn({ phases }: Method, key: string): unknown {
  const path = key.split('.');
  const named = phases.find((p) => p.id === path[0] && path.length > 1);
  const at = (root: unknown, keys: readonly string[]): unknown =>
    keys.reduce<unknown>(
      (v, k) => (typeof v === 'object' && v !== null ? (v as Record<string, unknown>)[k] : undefined),
      root,
    );
  if (named) return at(path[1] === 'until' ? named : named.settings, path.slice(1));
  return phases.map((p) => at(p.settings, path)).findLast((v) => v !== undefined);
}

/** Throws `CalcInputError` where the method does not fit, or a setting is none of its own; `OutOfBoundsError` rather than tell a temperature that is not possible. */
export async function searchSettings(input: SearchInput, context: CalcContext): Promise<Found> {
  const { case: asked, method: id, free, weights: w, budget_runs: most } = input;
  const choice = choicesFor(asked, targetOf(asked)).find((c) => c.method.id === id);
  if (!choice || choice.unfit) throw refuse(`does not fit: ${choice?.unfit ?? 'unknown'}`);
  if (choice.lacks) throw refuse(`needs ${choice.lacks.join(' and ')}, which this bench does not have`);
  const { method } = choice;
  const { station, ...rest } = caseOf(asked);
  const found = { ...rest, station, quality: 'coarse' as const, frames: false };
  const search = new Search({ method, found, free, weights: w, seed: asked.seed, budget_runs: most }, context);
  await search.run();
  const { phases } = search.methodAt(search.best.point);
  const { row, ...told } = whatFound(search);
  const procedure = { v: 1 as const, method: id, op: 'remove' as const, partId: asked.target, phases };
  return {
    ...told,
    dials: dialsOf(phases, station),
    row: { ...row, procedure: { ...procedure, ...(asked.surroundings ? { surroundings: asked.surroundings } : {}) } },
  };
}

/** The settings of a plan. Throws as `searchSettings`. */
export async function tuneSettings(input: TuneInput, context: CalcContext): Promise<Tuned> {
  const { plan, as, free, weights: w, budget_runs: most } = input;
  const { phases, ...found } = plan;
  const method = { id: as, phases };
  const search = new Search({ method, found, free, weights: w, seed: undefined, budget_runs: most }, context);
  await search.run();
  return { ...whatFound(search), phases: search.methodAt(search.best.point).phases, before: search.first.row };
}

function whatFound(search: Search): Omit<Found, 'dials'> {
  const { point, row } = search.best;
  return {
    settings: Object.fromEntries(search.values(point)),
    score: scored(row),
    p_open: row.window?.p_open ?? 0,
    evaluated: search.evaluated,
    trace: search.trace,
    row,
  };
}

const refuse = (message: string) => new CalcInputError([{ field: 'method', message }]);

/** What is turned on which tool, as its dial says it. */
const dialsOf = (phases: readonly Phase[], dials: Pick<Dials, 'air'>): Found['dials'] =>
  phases.flatMap((p) =>
    kindOf(p)
      .needs(p.settings, dials)
      .setPoints.map(({ id, label, value, unit }) => ({ tool: id === 'flow' ? 'air' : id, dial: label, value, unit })),
  );
