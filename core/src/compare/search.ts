/**
 * The settings of one way of working that cost least on this bench. Two fidelities (`glances.ts`): every setting that is looked at gets one quick run;
 * the best of these get ensembles of their own, one after another, and each is known from then on. Chosen over a model fitted to scores because a run
 * already carries the physics between settings: what has to be learnt is only how what is uncertain acts, and that changes slowly. Measured against
 * dense grids (docs/physics/search.md). The same question has the same answer.
 */
import { z } from 'zod';
import { type CalcContext, CalcInputError } from '../ground/index.ts';
import {
  caseOf,
  type Dials,
  kindOf,
  type Method,
  methodIdSchema,
  type Phase,
  phasesSchema,
  planOfSaid,
  planSaid,
  recipeOf,
  reworkPlaceSchema,
} from '../rework/index.ts';
import { choicesFor, procedureOf, targetOf } from './compare.ts';
import { type Axis, axesOf, covered, type Free, freeSchema, passes, setAs, turned, type Value } from './free.ts';
import { coversSchema, type Row, rowSchema, type Weights, weightsSchema } from './forms.ts';
import { costOf, type Found, Glances, type Known, leastOf, scored, type Setting } from './glances.ts';
import { WORKS } from './order.ts';

const budget_runs = z.int().min(1).max(5000);
const weights = weightsSchema.default({ pads: 1, neighbours: 1, part: 1, minutes: 1 });
const known = methodIdSchema.refine((id) => recipeOf(id, 'remove') !== undefined, { error: 'is no way known here' });
/** `budget_runs`: runs of the physics at most; an ensemble is about a dozen. */
export const searchInput = z.strictObject({
  case: reworkPlaceSchema,
  method: known,
  free: freeSchema,
  weights,
  budget_runs: budget_runs.default(400),
});
type SearchInput = z.infer<typeof searchInput>;

/** The same of a plan: `as` is the way it is, its phases as they are set now. Somebody waits: the slowest boards have looked at all that pays by then. */
export const tuneInput = planSaid
  .extend({ as: known, free: freeSchema, weights, budget_runs: budget_runs.default(280) })
  .transform(({ as, free, weights: w, budget_runs: most, ...said }, context) => ({
    plan: planOfSaid(said, context),
    ...{ as, free, weights: w, budget_runs: most },
  }));
export type TuneInput = z.infer<typeof tuneInput>;

const settings = z.record(z.string(), z.union([z.number(), z.string()]));
const told = {
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
  ...told,
  /** What is turned to what, as the tool's own dial says it. */
  dials: z.array(z.strictObject({ tool: z.string(), dial: z.string(), value: z.number(), unit: z.string() })),
});
type Told = z.infer<typeof searchOutput>;
/** `before`: the row of the settings as they were, of the nearest that were free; `covers`: all that lie on the board, where any of them was free. */
export const tuneOutput = z.strictObject({
  ...told,
  phases: phasesSchema,
  covers: coversSchema,
  before: rowSchema,
});
export type Tuned = z.infer<typeof tuneOutput>;
/** The best so far, while a search goes on; `nearly`: known by a glance alone. */
export type TunedSoFar = Tuned & { nearly: boolean };

/** So many starts are spread over all settings; so many of the best are followed. */
const [SPREAD, FOLLOWED] = [24, 3];
/** A glance may be off by so much. */
const NEAR = 0.05;

/** A point of the search: which value of each axis. */
type Point = readonly number[];
const nameOf = (p: Point): string => p.join(' ');
const pointOf = (name: string): Point => name.split(' ').map(Number);
/** So many of a walk's next points are guessed: more than there are processors to look at them. */
const GUESSED = 8;

/** Radical inverse: numbers that fill a range evenly (Halton). */
function inverse(n: number, base: number): number {
  let [v, f] = [0, 1];
  for (let i = n; i > 0; i = Math.floor(i / base)) v += (f /= base) * (i % base);
  return v;
}
const PRIMES = [2, 3, 5, 7, 11, 13, 17, 19, 23, 29, 31, 37];

type Better = Pick<Known, 'setting' | 'row'>;

/** What is searched: a method on what is found at the bench. */
interface Asked {
  method: Method;
  found: Found;
  free: Free;
  weights: Weights;
  seed: number | undefined;
  budget_runs: number;
  /** Only what a nozzle lets through. */
  believable?: boolean;
  /** Starts besides the settings as they are; without, over all there is. */
  starts?: number;
  /** Told what is better than what was there, as soon as it is seen; `nearly` while it is known by a glance alone. */
  onBetter?: (better: Better, nearly: boolean) => void;
}

const isOpen = (row: Row): boolean => (row.window?.p_open ?? 0) >= WORKS;

export class Search {
  private readonly axes: readonly Axis[];
  private readonly asked: Asked;
  private readonly glances: Glances;
  trace: Told['trace'] = [];
  /** What the best that was told by a glance costs. */
  private told = Infinity;

  constructor(asked: Asked, context: CalcContext) {
    this.asked = asked;
    this.axes = axesOf(asked.free, asked.method);
    this.glances = new Glances({ ...asked, method: asked.method.id }, context);
  }

  get evaluated(): number {
    return this.glances.looked;
  }
  /** Of the runs it may take. */
  get done(): number {
    return this.glances.share;
  }
  /** As it was set, as near as what is free comes to it. */
  get first(): Known {
    return this.glances.known[0];
  }
  /** Nothing that costs more than what was there, however safe. */
  get best(): Known {
    const { first } = this;
    return leastOf(this.glances.known.filter((k) => k === first || scored(k.row) < scored(first.row)));
  }
  /** The best of those that work, where any does. */
  get safest(): Known {
    const works = this.glances.known.filter((k) => k.row.verdict === 'works');
    return works.length > 0 ? leastOf(works) : this.best;
  }
  private values(point: Point): Map<string, Value> {
    return new Map(this.axes.map(({ key, values }, i) => [key, values[point[i]]]));
  }
  /** What is free, as it stands in a setting. */
  valuesOf({ name }: Setting): Record<string, Value> {
    return Object.fromEntries(this.values(pointOf(name)));
  }
  private setting(point: Point): Setting {
    const { method, found } = this.asked;
    const values = this.values(point);
    return {
      name: nameOf(point),
      // every axis as long as all others
      at: point.map((v, i) => v / Math.max(1, this.axes[i].values.length - 1)),
      phases: turned(method, values).phases,
      found: covered(found, values),
    };
  }

  private passes({ phases }: Setting): boolean {
    return !this.asked.believable || passes(phases);
  }

  /** What a point costs by a glance. `next`: where it goes on to if that does not pay. */
  private async glance(point: Point, next: readonly Point[] = []): Promise<number> {
    const setting = this.setting(point);
    if (!this.passes(setting)) return Infinity;
    const guesses = next.map((p) => this.setting(p)).filter((s) => this.passes(s));
    const { row, cost } = await this.glances.at(setting, guesses);
    // told until something better than what was there is surely known
    const { first, best } = this;
    if (best === first && cost < Math.min(this.told, costOf(first)) && scored(row) < scored(first.row)) {
      this.told = cost;
      this.asked.onBetter?.({ setting, row }, true);
    }
    return cost;
  }

  private get leastKnown(): number {
    return Math.min(...this.glances.known.map(costOf));
  }

  private async learn(point: Point): Promise<void> {
    const known = await this.glances.learn(this.setting(point));
    const score = scored(known.row);
    if (known !== this.best || this.trace.at(-1)?.score === score) return;
    // a surer one may cost a little more than one before it
    this.trace = this.trace.filter((t) => t.score > score).concat({ evaluated: this.evaluated, score });
    if (known !== this.first) this.asked.onBetter?.(known, false);
  }

  /** The nearest point to the settings as they are. */
  private asSet(): Point {
    const { method, found } = this.asked;
    return this.axes.map(({ key, values }) => {
      const is = setAs(method, found, key);
      const far = (v: Value): number =>
        typeof v === 'number' && typeof is === 'number' ? Math.abs(v - is) : v === is ? 0 : Infinity;
      return values.reduce<number>((best, v, i) => (far(v) < far(values[best]) ? i : best), 0);
    });
  }

  /** The point that lies so many values further along an axis; undefined at its end. */
  private beside(point: Point, axis: number, by: number): Point | undefined {
    const to = Math.min(this.axes[axis].values.length - 1, Math.max(0, point[axis] + by));
    return to === point[axis] ? undefined : point.map((v, i) => (i === axis ? to : v));
  }
  /** Where a walk goes on to as long as nothing pays: the other way along its axis, then both ways along the next. */
  private onward(from: Point, axis: number, way: number): Point[] {
    const ways = this.axes.flatMap((_, a) => [-1, 1].map((by) => [a, by]));
    const at = ways.findIndex(([a, by]) => a === axis && by === way);
    const next = [...ways.slice(at + 1), ...ways.slice(0, at)].map(([a, by]) => this.beside(from, a, by));
    return next.filter((p) => p !== undefined).slice(0, GUESSED);
  }

  /** Downhill by glances: along one axis while it pays, each step twice as long as the one before, then along the next, until none pays. */
  private async follow(from: Point): Promise<{ point: Point; score: number }> {
    let [at, score] = [from, await this.glance(from)];
    let idle = 0;
    for (let axis = 0; idle < this.axes.length; axis = (axis + 1) % this.axes.length) {
      idle++;
      for (const way of [-1, 1]) {
        for (let step = way; ; step *= 2) {
          const next = this.beside(at, axis, step);
          if (!next) break;
          if (this.glances.spent) return { point: at, score };
          const s = await this.glance(next, this.onward(at, axis, way));
          if (s >= score - 1e-9) break;
          [at, score, idle] = [next, s, 0];
        }
      }
    }
    return { point: at, score };
  }

  async run(): Promise<void> {
    await this.search();
    this.glances.rest();
  }

  private async search(): Promise<void> {
    const asSet = this.asSet();
    await this.learn(asSet);
    // where nothing is open, other corners are tried as long as there are runs and settings left
    for (let batch = 0; batch === 0 || !isOpen(this.best.row); batch++) {
      const starts = this.spread(batch);
      if (this.glances.spent || starts.length === 0) break;
      await this.from(batch === 0 ? [asSet, ...starts] : starts);
    }
    // what is known now changes what glances say: on from the best until nothing near it is better
    for (;;) {
      const next = await this.follow(pointOf(this.best.setting.name));
      if (this.glances.spent || this.glances.isKnown(nameOf(next.point))) return;
      await this.learn(next.point);
    }
  }

  /** Looks at starts, and follows the best of them; all where nothing is open. */
  private async from(starts: readonly Point[]): Promise<void> {
    const found: { point: Point; score: number }[] = [];
    for (const [n, point] of starts.entries()) {
      if (this.glances.spent) break;
      const score = await this.glance(point, starts.slice(n + 1));
      if (Number.isFinite(score)) found.push({ point, score });
    }
    found.sort((a, b) => a.score - b.score);
    for (const [n, { point }] of found.entries()) {
      // once something is open, the best few are enough
      if (this.glances.spent || (n >= FOLLOWED && isOpen(this.best.row))) break;
      const next = await this.follow(point);
      // one that looks worse than what is known needs no ensemble
      if (next.score < this.leastKnown + NEAR) await this.learn(next.point);
    }
  }

  /** Evenly over all settings, each batch between those before it; none once there are as many starts as settings. */
  private spread(batch: number): Point[] {
    const all = this.axes.reduce((n, a) => n * a.values.length, 1);
    const each = this.asked.starts ?? SPREAD;
    const points = Array.from({ length: Math.max(0, Math.min(each, all - batch * each)) }, (_, n) =>
      this.axes.map(({ values }, i) =>
        Math.min(values.length - 1, Math.floor(values.length * inverse(batch * each + n + 1, PRIMES[i]))),
      ),
    );
    return [...new Map(points.map((p) => [nameOf(p), p])).values()];
  }
}

/** Throws `CalcInputError` where the method does not fit, or a setting is none of its own; `OutOfBoundsError` rather than tell a temperature that is not possible. */
export async function searchSettings(input: SearchInput, context: CalcContext): Promise<Told> {
  const { case: asked, method: id, free, weights: w, budget_runs: most } = input;
  const choice = choicesFor(asked, targetOf(asked)).find((c) => c.method.id === id);
  if (!choice || choice.unfit) throw refuse(`does not fit: ${choice?.unfit ?? 'unknown'}`);
  if (choice.lacks) throw refuse(`needs ${choice.lacks.join(' and ')}, which this bench does not have`);
  const { method } = choice;
  const { station, ...rest } = caseOf(asked);
  const found: Found = { ...rest, station, quality: 'coarse', frames: false };
  const search = new Search({ method, found, free, weights: w, seed: asked.seed, budget_runs: most }, context);
  await search.run();
  const { setting, row } = search.best;
  return {
    ...whatFound(search, search.best),
    dials: dialsOf(setting.phases, station),
    row: { ...row, procedure: procedureOf({ id, phases: setting.phases }, asked, setting.found.covers) },
  };
}

/** The settings of a plan; what is better than those it has is told with the progress (`TunedSoFar`). Throws as `searchSettings`. */
export async function tuneSettings(input: TuneInput, context: CalcContext): Promise<Tuned> {
  const { plan, as, free, weights: w, budget_runs: most } = input;
  const { phases, ...found } = plan;
  const method = { id: as, phases };
  const tuned = (better: Better): Tuned => ({
    ...whatFound(search, better),
    phases: better.setting.phases,
    covers: better.setting.found.covers ?? [],
    before: search.first.row,
  });
  const onBetter = (better: Better, nearly: boolean) =>
    context.progress?.(search.done, { ...tuned(better), nearly } satisfies TunedSoFar);
  const asked = { method, found, free, weights: w, seed: undefined, budget_runs: most, believable: true, onBetter };
  const search = new Search(asked, context);
  await search.run();
  return tuned(search.best);
}

function whatFound(search: Search, { row, setting }: Better): Omit<Told, 'dials'> {
  return {
    settings: search.valuesOf(setting),
    score: scored(row),
    p_open: row.window?.p_open ?? 0,
    evaluated: search.evaluated,
    trace: search.trace,
    row,
  };
}

const refuse = (message: string) => new CalcInputError([{ field: 'method', message }]);

/** What is turned on which tool, as its dial says it. */
const dialsOf = (phases: readonly Phase[], dials: Pick<Dials, 'air'>): Told['dials'] =>
  phases.flatMap((p) =>
    kindOf(p)
      .needs(p.settings, dials)
      .setPoints.map(({ id, label, value, unit }) => ({ tool: id === 'flow' ? 'air' : id, dial: label, value, unit })),
  );
