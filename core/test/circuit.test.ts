import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { solveCircuit } from '../src/circuit/circuitSolve.ts';
import { statesOf } from '../src/circuit/netlist.ts';
import { CIRCUIT_CASES } from './circuitCases.ts';
import references from './circuitReferences.json' with { type: 'json' };

/** Null: the simulator found no operating point. */
type Value = number | 'OL' | null;
const reference = z.object({
  name: z.string(),
  values: z.array(z.union([z.number(), z.literal('OL'), z.null()])),
  voltages: z.record(z.string(), z.record(z.string(), z.number().nullable())),
});
const byName = new Map(
  z
    .array(reference)
    .parse(references.cases)
    .map((c) => [c.name, c]),
);

describe('circuits against an independent simulator', () => {
  it.each(CIRCUIT_CASES.map((c) => [c.name, c] as const))('%s', (name, c) => {
    const want = byName.get(name);
    if (!want) throw new Error(`no reference for ${name}: run core/scripts/circuit-references.ts`);
    const got = solveCircuit({ netlist: c.netlist, fault: c.faults, readings: c.readings });
    const bad: string[] = [];
    if (!got.converged) bad.push('not converged');
    const near = (label: string, a: Value, b: Value, absolute: number) => {
      if (a === b || b === null) return;
      const miss = typeof a !== 'number' || b === 'OL' ? Infinity : Math.abs(a - b);
      if (!(miss <= Math.max(absolute, 1e-3 * Math.abs(b as number)))) bad.push(`${label}: ${a} for ${b}`);
    };
    got.readings.forEach((r, i) =>
      near(
        `${r.type} ${r.red ?? ''}`,
        r.value,
        want.values[i],
        r.type === 'ohm' ? 1e-4 : r.type === 'isup' ? 1e-5 : 1e-3,
      ),
    );
    for (const state of statesOf(c.netlist))
      for (const [net, v] of Object.entries(want.voltages[state] ?? {}))
        if (net in (got.powered_node_voltages[state] ?? {}))
          near(`${state} ${net}`, got.powered_node_voltages[state][net], v, 1e-3);
    expect(bad).toEqual([]);
  });
});
