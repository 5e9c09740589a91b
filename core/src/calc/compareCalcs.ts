import {
  compareInput,
  compareMethods,
  compareOutput,
  listMethods,
  methodsInput,
  methodsOutput,
} from '../compare/index.ts';
import { defineCalc } from '../ground/index.ts';
import { checkTarget } from './planCalcs.ts';

const example = {
  case: {
    board: { kind: 'two-layer', lx_mm: 30, ly_mm: 30, parts: [{ id: 'r1', package: 'C0603', x_mm: 15, y_mm: 15 }] },
    target: 'r1',
  },
};
/** Seconds that the ensemble of one method takes on average, measured; one with a run of plan quality in front. */
const [COARSE_S, PLAN_S] = [6, 8];

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
