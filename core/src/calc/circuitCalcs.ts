import { circuitSolveInput, circuitSolveOutput, NetlistError, solveCircuit } from '../circuit/index.ts';
import { CalcInputError, defineCalc } from '../ground/index.ts';

/** What does not hang together in a circuit is the input's fault, not the program's. */
export function withNetlistErrors<T>(run: () => T): T {
  try {
    return run();
  } catch (error) {
    if (error instanceof NetlistError) throw new CalcInputError([{ field: 'netlist', message: error.message }]);
    throw error;
  }
}

export const circuitSolve = defineCalc({
  name: 'circuit.solve',
  summary: 'What meters show on a circuit, healthy or with a fault, and its voltages under power.',
  input: circuitSolveInput,
  output: circuitSolveOutput,
  example: {
    netlist: {
      ground: 'GND',
      parts: [
        { ref: 'R1', kind: 'R', pins: { 1: 'VIN', 2: 'OUT' }, value: 1000 },
        { ref: 'D1', kind: 'D', pins: { A: 'OUT', K: 'GND' }, model: 'si' },
      ],
      power: { sources: [{ p: 'VIN', v: 5, ilim: 0.5 }] },
    },
    fault: { ref: 'D1', mode: 'short' },
    readings: [{ type: 'ohm', red: 'OUT' }],
  },
  cost: ({ netlist, readings }) => (netlist.parts.length * (readings.length + 4)) / 20_000,
  run: (input) => withNetlistErrors(() => solveCircuit(input)),
});
