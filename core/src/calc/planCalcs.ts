import { CalcInputError, defineCalc } from '../ground/index.ts';
import {
  DEFAULT_STATION,
  expressBoard,
  givenOf,
  methodsFor,
  type Phase,
  type PlanInput,
  planInputSchema,
  planRunSchema,
  runPlan,
} from '../rework/index.ts';
import { plannedInput, plannedSchema, planWay } from '../compare/index.ts';
import { hiddenBenchInput, hiddenTruthSchema, playHiddenBench } from '../hands/index.ts';
import { packageById } from '../packages/index.ts';
import { SOLDER_ALLOYS } from '../alloys/index.ts';

const [airSlow] = methodsFor('SOIC-8').map((m) => m.method);
const example = {
  board: expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 }),
  target: 'target',
  method: { ...givenOf(airSlow), limit_s: 20 },
  station: DEFAULT_STATION,
  ambient_C: 22,
  quality: 'search',
};

const limitOf = (phases: readonly Phase[]) => phases.reduce((sum, p) => sum + p.giveUp_s, 0);
/** Seconds that a run of plan quality takes, measured. */
export const phasesCost = (phases: readonly Phase[], until_s = limitOf(phases)): number =>
  Math.min(until_s, limitOf(phases)) / 120;
const runCost = ({ quality, phases }: PlanInput) => (quality === 'plan' ? 1 : 0.12) * phasesCost(phases);

/** What the schema cannot know: the target must be a part of this board that has joints. */
export function checkTarget(input: Pick<PlanInput, 'board' | 'target'>, at = ''): void {
  const refuse = (field: string, message: string) => new CalcInputError([{ field: at + field, message }]);
  const part = input.board.parts.find((p) => p.partId === input.target);
  if (!part) throw refuse('target', `the board has no part "${input.target}"`);
  if (packageById(part.package).terminals.length === 0) throw refuse('target', 'has no joints to melt');
  if (!SOLDER_ALLOYS.has(input.board.jointAlloy))
    throw refuse('board.jointAlloy', `known: ${[...SOLDER_ALLOYS.keys()].join(', ')}`);
}

export const heatSimulateCalc = defineCalc({
  name: 'heat.simulate',
  summary:
    'One rework method on one part, once: melting of every joint, neighbours, lands, the other side, the field over time.',
  input: planInputSchema,
  output: planRunSchema,
  example,
  cost: runCost,
  run: (input, context) => {
    checkTarget(input);
    return runPlan(input, context);
  },
});

export const planHeatCalc = defineCalc({
  name: 'plan.heat',
  summary: 'One rework method with its ranges: as set, and eight quick runs with what matters off by its plus-minus.',
  input: plannedInput,
  output: plannedSchema,
  example,
  cost: ({ plan, ranges }) => runCost(plan) + (ranges ? 13 * 0.12 * phasesCost(plan.phases) : 0),
  run: (input, context) => {
    checkTarget(input.plan);
    return planWay(input, context);
  },
});

export const planBenchCalc = defineCalc({
  name: 'plan.bench',
  summary: 'A hidden bench: how a simulated board with its own station, hand and copper would really behave.',
  input: hiddenBenchInput,
  output: hiddenTruthSchema,
  example: { plan: example, seed: 7 },
  cost: (input) => 0.12 * phasesCost(input.plan.phases),
  run: (input, context) => {
    checkTarget(input.plan, 'plan.');
    return playHiddenBench(input, context);
  },
});
