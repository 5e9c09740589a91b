import { CalcInputError, defineCalc } from '../ground/index.ts';
import { orderSet, setInput, setOutput } from '../sets/index.ts';
import { checkTarget } from './planCalcs.ts';

const resistors = ['r1', 'r2', 'r3'];

/** Seconds that choosing a way for a kind of part takes, a leg by itself, and one in an order; measured. */
const [WAY_S, LEG_S, RUN_S] = [3, 0.6, 0.7];

export const setOrderCalc = defineCalc({
  name: 'set.order',
  summary:
    'The order of a set of parts that takes least time: warmth carried on, rests, boards turned, tools changed; against the list and the nearest next.',
  input: setInput,
  output: setOutput,
  example: {
    board: {
      kind: 'two-layer',
      lx_mm: 40,
      ly_mm: 30,
      parts: resistors.map((id, n) => ({ id, package: 'R0805', x_mm: 10 + 8 * n, y_mm: 15 })),
    },
    set: resistors.map((partId) => ({ partId, do: 'renew', method: 'tweezers' })),
    stage: 'off',
    finalists: 0,
  },
  cost: ({ set, stage, finalists }) => {
    const legs = set.length * (stage === 'each' ? 2 : 1);
    const kinds = set.filter((s) => s.method === undefined).length;
    return WAY_S * Math.min(kinds, 5) + LEG_S * legs + RUN_S * legs * (finalists === 0 ? 0 : finalists + 2);
  },
  run(input, context) {
    for (const [n, { partId, method }] of input.set.entries()) {
      checkTarget({ board: input.board, target: partId }, `set.${n}.`);
      if (typeof method !== 'object') continue;
      if (method.phases.length === 0) throw new CalcInputError([{ field: `set.${n}.method`, message: 'has no phase' }]);
    }
    return orderSet(input, context);
  },
});
