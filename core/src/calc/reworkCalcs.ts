import { defineCalc } from '../ground/index.ts';
import { methodsFor, reworkInput, reworkOutput, tellRework } from '../rework/index.ts';
import { checkTarget, phasesCost } from './planCalcs.ts';

const chained = methodsFor('SOIC-8').find((m) => m.method.id === 'spike-then-air')?.method;

export const heatReworkCalc = defineCalc({
  name: 'heat.rework',
  summary: 'A procedure told phase by phase: joints, neighbours, lands, and the state it leaves for the next.',
  input: reworkInput,
  output: reworkOutput,
  example: {
    case: {
      board: {
        kind: 'two-layer',
        lx_mm: 40,
        ly_mm: 40,
        parts: [{ id: 'u1', package: 'SOIC-8', x_mm: 20, y_mm: 20 }],
      },
      target: 'u1',
    },
    procedure: { v: 1, method: 'spike-then-air', op: 'remove', partId: 'u1', phases: chained?.phases ?? [] },
    until_s: 5,
  },
  cost: ({ procedure, until_s }) => phasesCost(procedure.phases, until_s),
  run: (input, context) => {
    checkTarget({ board: input.case.board, target: input.case.target }, 'case.');
    return tellRework(input, context);
  },
});
