/**
 * The cheapest ways to a safe window where there is none as tools are usually set. Way by way, the nearest first: changes get a quick run each, one more
 * on top of the best of them while that brings it nearer; then the dials are searched of the best combinations, and of the way without any.
 * Only what has a whole ensemble that works is told as working.
 */
import { z } from 'zod';
import { solderedTerminals } from '../board/index.ts';
import { type CalcContext } from '../ground/index.ts';
import {
  caseOf,
  type Kit,
  kitSchema,
  type Method,
  methodName,
  methodsOn,
  type MethodChoice,
  phaseOf,
  pieceOn,
  type Phase,
  type PlanRun,
  planSaid,
  reworkPlaceSchema,
  runPlan,
  methodSchema,
  recipeOf,
  surroundingsSchema,
} from '../rework/index.ts';
import {
  applied,
  type Change,
  changeSchema,
  changesFor,
  leaning,
  type Planned,
  type Step,
  together,
  troubleOf,
  without,
} from './changes.ts';
import { HOURS_DEG } from './approach.ts';
import { choicesFor, procedureOf, targetOf } from './compare.ts';
import { Draws } from './draws.ts';
import { rowSchema, type Row } from './forms.ts';
import { freeOn } from './free.ts';
import { costOf, type Found, Glances, type Known, scored, type Setting } from './glances.ts';
import { neighbourHarms } from './harm.ts';
import { EVEN } from './order.ts';
import { placeOf, rowOf } from './row.ts';
import { Search } from './search.ts';

const max = z.int().min(1).max(10).default(3);
export const rescueInput = z.strictObject({ case: reworkPlaceSchema, max });
type RescueInput = z.infer<typeof rescueInput>;

const choice = z.strictObject({ method: methodSchema, lacks: z.array(z.string()).optional() });
/** The same of a plan: its ways as they are set, with what this bench lacks for them, and what it has. */
export const rescuePlanInput = planSaid
  .omit({ method: true, phases: true })
  .extend({ choices: z.array(choice).min(1).max(60), kit: kitSchema.optional(), max });
type RescuePlanInput = z.infer<typeof rescuePlanInput>;

const waySchema = z.strictObject({
  /** Against the nearest way as it is usually set. */
  changes: z.array(changeSchema),
  row: rowSchema,
  /** In all: the way itself, and what has to come off before and go on again. */
  minutes: z.number(),
  /** How a part that has to come off first does so. */
  first: z.array(rowSchema).optional(),
});
export type Way = z.infer<typeof waySchema>;

export const rescueOutput = z.strictObject({
  /** Some way leaves a window as it is usually set. */
  open: z.boolean(),
  /** The cheapest first; none where one works as it is. */
  ways: z.array(waySchema),
  /** What another bench would need, and what it would do with it. */
  elsewhere: z.array(z.strictObject({ tool: z.string(), why: z.string() })).optional(),
  /** Why it does not work as it is. */
  why: z.string().optional(),
});
export type Rescue = z.infer<typeof rescueOutput>;

interface Asked {
  found: Found;
  choices: readonly MethodChoice[];
  kit: Kit | undefined;
  seed: number;
  max: number;
}

/** Ways that are looked into, and changes of each that are followed. */
const [MOST_WAYS, FOLLOWED] = [3, 3];
/** What a part that has to come off first and go on again costs at least, by its minutes. */
const FIRST_COSTS = 0.2;
/** What is shut on every bench, and hurts somebody besides, costs about three. */
const FAR_COSTS = 2.2;
/** Changes done together at most, and runs for the dials with them. */
const [MOST_STEPS, CHANGED_RUNS] = [3, 60];

/** Changes that are dials. */
const TURNED: readonly Change['what'][] = ['nozzle', 'approach'];

const opens = (row: Row): boolean => row.verdict === 'works' && row.lastResort === undefined;

/** Throws as `searchSettings`. */
export function rescue(input: RescueInput, context: CalcContext): Promise<Rescue> {
  const { case: asked, max: most } = input;
  const choices = choicesFor(asked, targetOf(asked));
  const found: Found = { ...caseOf(asked), quality: 'coarse', frames: false };
  return new Rescuer({ found, choices, kit: asked.kit, seed: asked.seed ?? 1, max: most }, context).run();
}

/** Throws as `searchSettings`. */
export function rescuePlan(input: RescuePlanInput, context: CalcContext): Promise<Rescue> {
  const { choices, kit, max: most, ...found } = input;
  return new Rescuer({ found, choices, kit, seed: 1, max: most }, context).run();
}

/** A way as it is usually set, and how far that is from open. */
interface Tried {
  method: Method;
  row: Row;
  cost: number;
}

/** Where the changes of a way begin: as it is usually set, and the way nearest to open of all. */
interface Start {
  method: Method;
  nearest: Method | undefined;
}

/** Changes as a quick run sees them. */
interface Looked {
  steps: readonly Step[];
  cost: number;
}

const names = (steps: readonly Step[]): string[] => steps.map((s) => JSON.stringify(s.changes));
const changesOf = (steps: readonly Step[]): Change[] => steps.flatMap((s) => s.changes);

class Rescuer {
  private readonly asked: Asked;
  private readonly context: CalcContext;
  private readonly ways: Way[] = [];
  /** What has to be off the board whatever is done. */
  private readonly off: Step[] = [];
  private found: Found;
  private readonly plans = new Map<string, Promise<Row | undefined>>();

  constructor(asked: Asked, context: CalcContext) {
    this.asked = asked;
    this.context = context;
    this.found = asked.found;
  }

  async run(): Promise<Rescue> {
    const here = this.asked.choices.filter((c) => !c.unfit && !c.lacks).map((c) => c.method);
    const tried: Tried[] = [];
    for (const [n, method] of here.entries()) {
      const set = await this.asSet(method);
      if (this.off.length === 0 && opens(set.row)) return { open: true, ways: [] };
      tried.push(set);
      this.tell(0.2 * ((n + 1) / here.length));
    }
    tried.sort((a, b) => a.cost - b.cost);
    const open = this.off.length === 0 && tried.some((t) => t.row.verdict === 'tight' && !t.row.lastResort);
    const nearest = tried.find((t) => !t.row.lastResort) ?? tried.at(0);
    const alive = tried.filter((t) => !t.row.lastResort && !destroyed(t.row));
    // what is done with the same tools in the same order is one way to a search of its dials
    const into = [...new Map([...alive].reverse().map((t) => [toolsOf(t.method), t])).values()]
      .sort((a, b) => a.cost - b.cost)
      .slice(0, MOST_WAYS);
    for (const [n, t] of into.entries()) {
      if (this.enough) break;
      await this.open(t, nearest?.method);
      this.tell(0.2 + 0.75 * ((n + 1) / into.length));
    }
    const why = nearest && `${nearest.row.name}: ${nearest.row.why}`;
    const ways = this.sorted;
    if (ways.some((w) => opens(w.row))) return { open, ways, ...(why ? { why } : {}) };
    return { open, ways, elsewhere: await this.elsewhere(), why: why ?? 'Nothing on this bench takes it off.' };
  }

  /** The cheapest that work; those that are tight only where none does. */
  private get sorted(): Way[] {
    const open = this.ways.filter((w) => opens(w.row));
    const told = open.length > 0 ? open : this.ways.filter((w) => w.row.verdict === 'tight');
    const useless = (way: Way) => told.some((o) => o !== way && o.minutes < way.minutes + SAME_MIN && isMore(way, o));
    return told
      .filter((way) => !useless(way))
      .toSorted((a, b) => a.minutes - b.minutes)
      .slice(0, this.asked.max);
  }
  private tell(done: number): void {
    this.context.progress?.(Math.min(0.99, done), this.sorted);
  }
  private get quietly(): CalcContext {
    return { ...this.context, progress: () => undefined };
  }

  /** A way as it is set, its whole ensemble only where there is something to say; what no limit is safe for is off the board from here on. */
  private async asSet(method: Method, found = this.found): Promise<Tried> {
    const run = await runPlan(
      { ...found, phases: method.phases, quality: 'coarse', frames: false },
      this.quietly,
      'shut',
    );
    const out = run.neighbours.filter((n) => n.takeOut).map((n) => n.partId);
    if (out.length > 0 && found === this.found) {
      for (const partId of out) {
        const part = found.board.parts.find((p) => p.partId === partId);
        const step = without(partId, part !== undefined && solderedTerminals(part).length > 0);
        this.off.push(step);
        this.found = step.on({ phases: [], found: this.found }).found;
      }
      return this.asSet(method);
    }
    const alone = this.rowOf(method, run, found);
    // where it is shut as set, everything uncertain does not make it a way
    const row =
      alone.verdict === 'no'
        ? alone
        : (await this.glances(method, 1).learn(settingOf('as set', method.phases, found))).row;
    return { method, row, cost: costOf({ row, quick: run }) };
  }

  private rowOf(method: Method, run: PlanRun, found: Found): Row {
    const { phases } = method;
    const limit_s = phases.reduce((sum, p) => sum + p.giveUp_s, 0);
    const alone = { inputs: [], nominal: run, centre: run, members: [], limit_s };
    return rowOf(method, alone, placeOf({ ...found, phases }, EVEN, this.asked.seed));
  }
  private glances({ id }: Method, budget_runs: number): Glances {
    return new Glances({ method: id, weights: EVEN, seed: this.asked.seed, budget_runs }, this.quietly);
  }

  /** The dials of a way that cost least, from where they are. */
  private async dials(method: Method, found: Found, budget_runs: number, starts?: number): Promise<Known> {
    const free = freeOn(method, this.asked.kit);
    if (Object.keys(free).length === 0) return this.glances(method, 1).learn(settingOf('as set', method.phases, found));
    const asked = { method, found, free, weights: EVEN, seed: this.asked.seed, budget_runs, believable: true, starts };
    const search = new Search(asked, this.quietly);
    await search.run();
    return search.safest;
  }

  /** Looks for what opens one way: changes by a quick run each, the best combinations with their dials searched. */
  private async open({ method }: Tried, nearest: Method | undefined): Promise<void> {
    const plan: Planned = { phases: method.phases, found: this.found };
    const glances = this.glances(method, CHANGED_RUNS);
    const settingOn = (steps: readonly Step[]) => {
      const { phases, found } = applied(steps, plan);
      return settingOf(JSON.stringify(changesOf(steps)), phases, found);
    };
    const base = await glances.learn(settingOn([]));
    const looked: Looked[] = [{ steps: [], cost: costOf(base) }];
    const look = async (all: readonly (readonly Step[])[]): Promise<Looked[]> => {
      const found: Looked[] = [];
      const settings = all.map(settingOn);
      for (const [n, steps] of all.entries()) {
        const { cost } = await glances.at(settings[n], settings.slice(n + 1));
        // what comes off first costs its own time besides; that is computed where it is worth it
        const first = changesOf(steps).filter((c) => c.what === 'remove first').length;
        found.push({ steps, cost: cost + FIRST_COSTS * first });
      }
      // the last may have been at hand: nobody is kept waiting for what comes next
      glances.rest();
      return found;
    };
    const leans = phaseOf(plan, 'air') ? await look(HOURS_DEG.map((deg) => [leaning(deg)])) : [];
    const from = leans.length > 0 ? [leans.reduce((a, b) => (b.cost < a.cost ? b : a)).steps[0]] : [];
    let at = looked[0];
    for (let n = 0; n < MOST_STEPS; n++) {
      // what is in trouble changes with what was done about it
      const now = applied(at.steps, plan);
      const run = await glances.run(settingOn(at.steps));
      const steps = [...from, ...changesFor(now, troubleOf(run, this.harmed(base)), this.asked.kit)];
      const next = await look(steps.map((step) => [...at.steps, step]).filter(together));
      looked.push(...next);
      const best = next.reduce((a, b) => (b.cost < a.cost ? b : a), at);
      if (best === at) break;
      at = best;
    }
    looked.sort((a, b) => a.cost - b.cost);
    const opened: (readonly Step[])[] = [];
    const begun = new Set<string>();
    let followed = 0;
    for (const { steps, cost } of looked) {
      // a search of the dials turns the nozzle and the lean itself
      const beside = names(steps.filter((s) => !s.changes.some((c) => TURNED.includes(c.what)))).sort();
      if (begun.has(String(beside))) continue;
      begun.add(String(beside));
      // once something works, what is far from open is not worth the wait
      if (cost > FAR_COSTS && this.sorted.some((w) => opens(w.row))) break;
      // more than what opens it already is of no use
      if (opened.some((o) => names(o).every((name) => beside.includes(name)))) continue;
      if (followed++ === FOLLOWED || this.enough) break;
      const { phases, found } = applied(steps, plan);
      const known = await this.dials({ id: method.id, phases }, found, CHANGED_RUNS);
      await this.keep({ method, nearest }, known, steps);
      if (opens(known.row)) opened.push(steps.filter((s) => beside.includes(names([s])[0])));
      this.tell(0);
    }
  }

  private get enough(): boolean {
    return this.sorted.filter((w) => opens(w.row)).length >= this.asked.max;
  }

  private harmed({ ensemble }: Known): string[] {
    const harms = neighbourHarms(new Draws(ensemble, this.asked.seed));
    return harms.filter((h) => h.word !== 'clear').map((h) => h.partId);
  }

  /** Keeps what opened, with what has to come off before. */
  private async keep({ method, nearest }: Start, { setting, row }: Known, steps: readonly Step[]): Promise<void> {
    if (row.verdict === 'no') return;
    const all = [...this.off, ...steps];
    const first: Row[] = [];
    for (const step of all)
      for (const { partId = '' } of step.changes.filter((c) => c.what === 'remove first')) {
        const own = await this.planFor(partId);
        if (own) first.push(own);
        // what has to be off whatever is done is said all the same
        else if (!this.off.includes(step)) return;
      }
    // off, and on again, which takes about as long
    const before = first.reduce((sum, r) => sum + 2 * (r.minutes ?? 0), 0);
    const minutes = (row.minutes ?? 0) + before + all.reduce((sum, s) => sum + s.minutes, 0);
    const { phases, found } = setting;
    const procedure = procedureOf({ id: row.id, phases }, { target: found.target, surroundings: aroundOf(found) });
    // of what dials turn, where they came to rest
    const changes = [
      ...named({ id: method.id, phases }, nearest),
      ...changesOf(all).filter((c) => c.partId !== undefined),
      ...turnedTo(method.phases, phases),
    ];
    this.ways.push({
      changes: changes.length > 0 ? changes : [{ what: 'method', to: row.id }],
      row: { ...row, procedure },
      minutes,
      ...(first.length > 0 ? { first } : {}),
    });
  }

  /** The best way of taking a neighbour off with what is on this bench, as usually set; undefined where none leaves a window. */
  private planFor(partId: string): Promise<Row | undefined> {
    const known = this.plans.get(partId) ?? this.bestFor(partId);
    this.plans.set(partId, known);
    return known;
  }
  private async bestFor(partId: string): Promise<Row | undefined> {
    const part = this.found.board.parts.find((p) => p.partId === partId);
    if (!part || solderedTerminals(part).length === 0) return undefined;
    // it goes on again
    const found: Found = { ...this.found, target: partId, joints: undefined, reused: true };
    const choices = methodsOn(part.package, pieceOn(found.board, part, found), {
      kit: this.asked.kit,
      dials: found.station,
      housed: found.held?.kind === 'housing',
    }).filter((c) => !c.unfit && !c.lacks && c.asked === undefined);
    const rows: Row[] = [];
    for (const { method } of choices) rows.push((await this.asSet(method, found)).row);
    const usable = rows.filter((r) => !r.lastResort && (r.verdict === 'works' || r.verdict === 'tight'));
    const best = usable.sort((a, b) => scored(a) - scored(b)).at(0);
    const method = choices.find((c) => c.method.id === best?.id)?.method;
    if (!best || !method) return undefined;
    return { ...best, procedure: procedureOf(method, { target: partId, surroundings: aroundOf(found) }) };
  }

  /** Tools that this bench lacks and that would open it: as usually set, or else with their dials searched. */
  private async elsewhere(): Promise<NonNullable<Rescue['elsewhere']>> {
    const lacking = this.asked.choices.filter(
      (c) => !c.unfit && c.lacks && recipeOf(c.method.id)?.lastResort === undefined,
    );
    const told: NonNullable<Rescue['elsewhere']> = [];
    const tell = ({ method, lacks }: MethodChoice, row: Row) => {
      if (row.verdict !== 'no')
        told.push({ tool: lacks?.join(' and ') ?? '', why: `${methodName(method.id)} ${row.verdict}: ${row.why}` });
    };
    for (const c of lacking) tell(c, (await this.asSet(c.method)).row);
    if (told.length === 0)
      for (const c of lacking) tell(c, (await this.dials(c.method, this.found, CHANGED_RUNS, 0)).row);
    if (told.length > 0) return told;
    const why = 'no way known here leaves a window with any tool: it takes even heat from both sides, or new plastic';
    return [{ tool: 'a rework machine that heats from both sides', why }];
  }
}

/** Ways that take as long to this, minutes. */
const SAME_MIN = 0.5;

/** Whether a way changes all that another does, and more. */
const isMore = (way: Way, other: Way): boolean =>
  way.row.id === other.row.id &&
  way.changes.length > other.changes.length &&
  other.changes.every((o) => way.changes.some((c) => c.what === o.what && c.partId === o.partId));

const toolsOf = ({ phases }: Method): string => phases.map((p) => p.kind).join(' ');

/** A way that kills a part that has to live, whatever is changed. */
const destroyed = (row: Row): boolean =>
  row.part?.word === 'hurts' && row.part.p_hurt === 1 && row.part.margin_K === null;

const settingOf = (name: string, phases: Setting['phases'], found: Found): Setting => ({ name, at: [], phases, found });

/** What of a plan lies round the part. */
function aroundOf(found: Found): NonNullable<Parameters<typeof procedureOf>[1]['surroundings']> {
  const { joints: _, ...keys } = surroundingsSchema.shape;
  return Object.fromEntries(
    Object.keys(keys).flatMap((k) => {
      const v = found[k as keyof Found];
      return v === undefined ? [] : [[k, v]];
    }),
  );
}

/** What of its dials another hand would call a change: the nozzle, where it leans from, heat from below that was not there. */
function turnedTo(from: readonly Phase[], phases: readonly Phase[]): Change[] {
  const [was, is] = [from, phases].map((list) => list.find((p) => p.kind === 'air')?.settings);
  const [cold, warm] = [from, phases].map((list) => list.find((p) => p.kind === 'below'));
  const { tilt_deg, approach_deg = 0, nozzle_mm } = is ?? {};
  const leans = tilt_deg && (!was?.tilt_deg || was.approach_deg !== is?.approach_deg);
  return [
    ...(warm && !cold && 'C' in warm.until ? [{ what: 'preheat' as const, to: `${warm.until.C} °C` }] : []),
    ...(nozzle_mm === was?.nozzle_mm ? [] : [{ what: 'nozzle' as const, to: `${nozzle_mm} mm` }]),
    ...(leans ? leaning(approach_deg).changes : []),
  ];
}

/** What a way is against the nearest one. */
function named(method: Method, nearest: Method | undefined): Change[] {
  if (!nearest || method.id === nearest.id) return [];
  const byAir = nearest.phases.length === 1 && nearest.phases[0].kind === 'air';
  if (byAir && method.id === 'spike-then-air') return [{ what: 'spike', to: method.id }];
  const warm = phaseOf(method, 'below');
  if (byAir && method.id === 'preheat-air' && warm && 'C' in warm.until)
    return [{ what: 'preheat', to: `${warm.until.C} °C` }];
  return [{ what: 'method', to: method.id }];
}
