import { describe, expect, it } from 'vitest';
import { solveCircuit } from '../src/circuit/circuitSolve.ts';
import { netlistSchema, NetlistError } from '../src/circuit/netlist.ts';
import { startState, suppliedAt, supplyShows } from '../src/circuit/supplyShows.ts';
import { templateById } from '../src/circuit/templates.ts';

const buck = netlistSchema.parse(templateById('buck')?.netlist);
const at = (on_s: number, faults: Parameters<typeof supplyShows>[1] = [], limit_A = 1) =>
  supplyShows(buck, faults, { volts: 12, limit_A, on_s });

describe('what a supply in front of a circuit shows', () => {
  it('next to nothing until the chips have started, then what the circuit takes', () => {
    const [steady] = solveCircuit({ netlist: buck, readings: [{ type: 'isup', state: 'awake' }] }).readings;
    expect(at(0.1).current_A).toBeLessThan(2e-4);
    expect(at(1).current_A).toBeCloseTo(steady.value as number, 6);
    expect(at(1).volts).toBeCloseTo(12, 1);
  });
  it('a short before the converter shows at once and pulls the voltage down, one behind it only once it has started', () => {
    const input = [{ ref: 'D1', mode: 'short' as const, r: 0.5 }];
    expect(at(0.1, input, 0.3)).toMatchObject({ current_A: expect.closeTo(0.3, 2) as number });
    expect(at(0.1, input, 0.3).volts).toBeLessThan(0.5);
    const rail = [{ ref: 'C5', mode: 'short' as const, r: 0.5 }];
    expect(at(0.1, rail).current_A).toBeLessThan(2e-3);
    expect(at(1, rail).current_A).toBeGreaterThan(3 * at(1).current_A);
  });
  it('a chip that does not start leaves the current where it was', () => {
    const silent = at(1, [{ ref: 'U2', mode: 'asleep' }]).current_A;
    expect(silent).toBeLessThan(0.2 * at(1).current_A);
    expect(silent).toBeGreaterThan(at(0.1).current_A);
  });
  it('asks for what feeds the circuit, and changes its first supply alone', () => {
    const bare = { ...buck, power: undefined };
    expect(startState(bare)).toBeNull();
    expect(() => supplyShows(bare, [], { volts: 12, limit_A: 1, on_s: 1 })).toThrow(NetlistError);
    const two = templateById('half-bridge')?.netlist;
    if (!two) throw new Error('half-bridge');
    const sources = suppliedAt(two, 'idle', { volts: 20, limit_A: 0.1 }).power?.states.idle.sources;
    expect(sources?.map(({ v, ilim }) => [v, ilim])).toEqual([
      [20, 0.1],
      [12, 0.2],
    ]);
  });
});
