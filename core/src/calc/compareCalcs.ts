import {
  aroundInput,
  aroundOutput,
  compareInput,
  compareFits,
  compareMethods,
  compareOutput,
  fitInput,
  fitOutput,
  listMethods,
  methodsInput,
  methodsOutput,
  rescue,
  rescueInput,
  rescueOutput,
  rescuePlan,
  rescuePlanInput,
  rowsAround,
  searchInput,
  searchOutput,
  searchSettings,
  tuneInput,
  tuneOutput,
  tuneSettings,
} from '../compare/index.ts';
import { CalcInputError, defineCalc } from '../ground/index.ts';
import { packageById } from '../packages/index.ts';
import { DEFAULT_STATION, expressBoard, methodsFor } from '../rework/index.ts';
import { checkTarget } from './planCalcs.ts';

const example = {
  case: {
    board: { kind: 'two-layer', lx_mm: 30, ly_mm: 30, parts: [{ id: 'r1', package: 'C0603', x_mm: 15, y_mm: 15 }] },
    target: 'r1',
  },
};
const tuneExample = {
  board: expressBoard({ package: 'C0603', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 }),
  target: 'target',
  as: 'tweezers',
  phases: methodsFor('C0603').find((m) => m.method.id === 'tweezers')?.method.phases,
  station: DEFAULT_STATION,
  ambient_C: 22,
};
/** Seconds that a run takes in a search, the ensemble of one method on average, and one with a run of plan quality in front; measured. */
const [RUN_S, COARSE_S, PLAN_S] = [0.25, 6, 8];

export const planMethodsCalc = defineCalc({
  name: 'plan.methods',
  summary: 'Every way of taking a part off: whether it fits part and board, what it needs, what the bench has of it.',
  input: methodsInput,
  output: methodsOutput,
  example,
  run(input) {
    checkTarget(input.case, 'case.');
    return Promise.resolve(listMethods(input.case));
  },
});

export const planCompareCalc = defineCalc({
  name: 'plan.compare',
  summary:
    'All ways of taking a part off on one bench, with ranges over what is uncertain, in order of what they cost.',
  input: compareInput,
  output: compareOutput,
  example: { ...example, methods: ['tweezers'] },
  cost: ({ methods, quality }) => (methods?.length ?? 8) * (quality === 'plan' ? PLAN_S : COARSE_S),
  run(input, context) {
    checkTarget(input.case, 'case.');
    return compareMethods(input, context);
  },
});

export const planFitCalc = defineCalc({
  name: 'plan.fit',
  summary:
    'All ways of putting a part on, from what lies on its lands: seconds, what the wind does to it, how long it is held, in which order.',
  input: fitInput,
  output: fitOutput,
  example: { ...example, methods: ['fit-one-land'] },
  cost: ({ methods, quality }) => (methods?.length ?? 6) * (quality === 'plan' ? PLAN_S : COARSE_S),
  run(input, context) {
    checkTarget(input.case, 'case.');
    const { lands = [], case: asked } = input;
    const part = asked.board.parts.find((p) => p.partId === asked.target);
    const known = new Set(part && packageById(part.package).terminals.map((t) => t.id));
    for (const [n, { terminal }] of lands.entries())
      if (!known.has(terminal))
        throw new CalcInputError([{ field: `lands.${n}.terminal`, message: `${asked.target} has no "${terminal}"` }]);
    return compareFits(input, context);
  },
});

export const planSearchCalc = defineCalc({
  name: 'plan.search',
  summary:
    'The settings of one way of working that cost least on this bench: each free setting between two values, or one of several.',
  input: searchInput,
  output: searchOutput,
  example: { ...example, method: 'tweezers', free: { set_C: [320, 380] }, budget_runs: 40 },
  cost: ({ budget_runs }) => RUN_S * budget_runs,
  run(input, context) {
    checkTarget(input.case, 'case.');
    return searchSettings(input, context);
  },
});

export const planTuneCalc = defineCalc({
  name: 'plan.tune',
  summary: 'The settings of one way of a plan that cost least, with everything found at the bench as the plan has it.',
  input: tuneInput,
  output: tuneOutput,
  example: {
    ...tuneExample,
    free: { set_C: [320, 380] },
    budget_runs: 40,
  },
  cost: ({ budget_runs }) => RUN_S * budget_runs,
  run(input, context) {
    checkTarget(input.plan);
    return tuneSettings(input, context);
  },
});

export const planAroundCalc = defineCalc({
  name: 'plan.around',
  summary:
    'What changes about one way of a plan when its settings are turned: a row for each of other settings, nearly.',
  input: aroundInput,
  output: aroundOutput,
  example: { ...tuneExample, at: [{ set_C: 320 }, { set_C: 380 }] },
  cost: ({ at }) => COARSE_S + RUN_S * at.length,
  run(input, context) {
    checkTarget(input.plan);
    return rowsAround(input, context);
  },
});

/** Seconds that looking into one way of getting out takes, measured on a board that swallows heat. */
const RESCUE_S = 60;

export const planRescueCalc = defineCalc({
  name: 'plan.rescue',
  summary:
    'What would open a window where none is: covers, nozzle, spike, heat from below, where the air comes from, what comes off first; or what to buy.',
  input: rescueInput,
  output: rescueOutput,
  example,
  cost: () => 3 * RESCUE_S,
  run(input, context) {
    checkTarget(input.case, 'case.');
    return rescue(input, context);
  },
});

const { as: _, phases, ...rescueExample } = tuneExample;

export const planWayOutCalc = defineCalc({
  name: 'plan.way-out',
  summary: 'The same of a plan, with its ways as they are set and everything found at the bench as the plan has it.',
  input: rescuePlanInput,
  output: rescueOutput,
  example: { ...rescueExample, choices: [{ method: { id: 'tweezers', phases } }] },
  cost: () => 3 * RESCUE_S,
  run(input, context) {
    checkTarget(input);
    return rescuePlan(input, context);
  },
});
