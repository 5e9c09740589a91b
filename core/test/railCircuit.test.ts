import { describe, expect, it } from 'vitest';
import type { PlacedPart } from '../src/board/boardModel.ts';
import { solveCircuit } from '../src/circuit/circuitSolve.ts';
import { circuitOfRail } from '../src/circuit/railCircuit.ts';
import { besideOf } from '../src/diagnosis/beside.ts';
import { diagnose } from '../src/diagnosis/diagnose.ts';
import { diagnoseInput } from '../src/diagnosis/diagnoseForm.ts';

const part = (ref: string, pack: string, nets: Record<string, string>, rest: Partial<PlacedPart> = {}): PlacedPart => ({
  ...{ partId: ref.toLowerCase(), ref, package: pack, x_mm: 10, y_mm: 10, rotation_deg: 0, side: 'top' as const },
  ...{ nets, ...rest },
});
const two = (ref: string, pack: string, a: string, b: string, value?: string) =>
  part(ref, pack, { 1: a, 2: b }, value === undefined ? {} : { value });

/** A step-down rail with its divider, a big chip with pins elsewhere, another rail behind a ferrite. */
const parts: PlacedPart[] = [
  part('J1', 'SOIC-8', { 1: '12V', 2: 'GND', 3: 'SDA' }),
  two('F1', 'R1206', '12V', 'VIN', '2 A'),
  part('D1', 'SMB', { 1: 'VIN', 2: 'GND' }, { what: 'input TVS' }),
  two('C1', 'C1206', 'VIN', 'GND', '10 µF'),
  part('U1', 'SOIC-8', { 1: 'VIN', 2: 'SW', 3: 'FB', 4: 'GND', 5: 'EN' }),
  two('L1', 'IND-5', 'SW', '3V3', '10 µH'),
  two('R1', 'R0603', '3V3', 'FB', '31.6 kΩ'),
  two('R2', 'R0603', 'FB', 'GND', '10 kΩ'),
  two('C2', 'C0805', '3V3', 'GND', '22 µF'),
  two('C3', 'C0603', '3V3', 'GND', '100 nF'),
  part('U2', 'QFP-44', { 1: '3V3', 2: 'GND', 3: 'SDA', 4: 'SCL', 5: 'RST', 6: 'D0', 7: 'D1N' }, { what: 'controller' }),
  two('R3', 'R0603', '3V3', 'RST', '10 kΩ'),
  two('FB1', 'C0603', '3V3', '3V3A', '600 Ω'),
  two('C4', 'C0603', '3V3A', 'GND', '1 µF'),
  part('U3', 'SOIC-8', { 8: '12V', 4: 'GND', 5: 'D0' }, { what: 'lamp driver' }),
];
const board = { parts };

describe('the circuit of a rail, from nets', () => {
  const netlist = circuitOfRail(board, '3V3');
  const refs = netlist.parts.map((p) => p.ref);
  const ic = (ref: string) => {
    const found = netlist.parts.find((p) => p.ref === ref);
    if (found?.kind !== 'IC') throw new Error(ref);
    return found;
  };
  it('takes what stands on it, what carries and feeds it, its divider; nothing of other rails', () => {
    expect(refs).toEqual(
      expect.arrayContaining(['U1', 'L1', 'R1', 'R2', 'C2', 'C3', 'U2', 'R3', 'FB1', 'C4', 'C1', 'D1']),
    );
    expect(refs).not.toContain('U3');
    expect(netlist.pairs).toEqual(
      expect.arrayContaining([
        ['SW', '3V3'],
        ['3V3A', '3V3'],
      ]),
    );
  });
  it('guesses the converter by its coil and divider, and gives it the voltage the rail is called by', () => {
    const { blocks, rail, pins } = ic('U1');
    expect(blocks[0]).toMatchObject({ type: 'buck', pins: { VIN: '1', SW: '2', FB: '3', GND: '4' } });
    expect(rail).toEqual(['1']);
    expect(pins).toHaveProperty('5', 'EN');
    const [volts] = solveCircuit({ netlist, readings: [{ type: 'dcv', red: '3V3', state: 'awake' }] }).readings;
    expect(volts.value).toBeCloseTo(3.3, 1);
  });
  it('leaves out the pins of a big chip that lead elsewhere', () => {
    expect(Object.values(ic('U2').pins).sort()).toEqual(['3V3', 'GND', 'RST']);
  });
  it('a regulator on the rail is known by what it is called or by a higher supply, a load is not', () => {
    const linear = [
      part('U4', 'SOIC-8', { 1: '5V', 2: 'GND', 3: '1V8' }, { what: 'regulator' }),
      part('U5', 'SOIC-8', { 8: '1V8', 4: 'GND', 1: 'CS' }, { what: 'memory' }),
      two('C5', 'C0603', '1V8', 'GND', '1 µF'),
    ];
    const made = circuitOfRail({ parts: linear }, '1V8');
    const [u4, u5] = ['U4', 'U5'].map((ref) => made.parts.find((p) => p.ref === ref));
    expect(u4).toMatchObject({ blocks: [{ type: 'ldo', vset: 1.8, pins: { VIN: '1', OUT: '3', GND: '2' } }] });
    expect(u5).toMatchObject({ blocks: [] });
    expect(made.power?.states.awake.sources).toMatchObject([{ p: '5V', v: 5 }]);
    // without the regulator nothing is guessed: the rail is fed from outside
    const alone = circuitOfRail({ parts: linear.slice(1) }, '1V8');
    expect(alone.power?.states.awake.sources).toMatchObject([{ p: '1V8', v: 1.8 }]);
  });
  it('a net that only feeds lower ones is not followed down, and one that is not there is empty', () => {
    expect(circuitOfRail(board, '12V').parts.map((p) => p.ref)).toEqual(expect.arrayContaining(['F1', 'U3', 'J1']));
    expect(circuitOfRail(board, '12V').parts.map((p) => p.ref)).not.toContain('C2');
    expect(circuitOfRail(board, 'nowhere').parts).toHaveLength(1);
  });
  it('ranks a short on it at once: the ceramics together, power blocked', () => {
    const d = diagnose(
      diagnoseInput.parse({
        netlist,
        readings: [{ type: 'ohm', red: '3V3', black: 'GND', value: 0.4 }],
        beside: besideOf(board, netlist),
      }),
    );
    expect(d.groups[0]).toEqual(expect.arrayContaining(['C2', 'C3']));
    expect(d.power).toBe('blocked');
  });
});

describe('what the board holds beside the circuit', () => {
  const netlist = circuitOfRail(board, '3V3');
  it('nets are complete or say what is missing; parts are known by what they stand for', () => {
    const less = { ...netlist, parts: netlist.parts.filter((p) => p.ref !== 'C3') };
    const of = (net: string, n = netlist) => besideOf(board, n).find((b) => b.net === net)?.parts;
    expect(of('3V3')).toEqual([]);
    expect(of('3V3', less)).toEqual([{ ref: 'C3', cls: 'mlcc' }]);
    expect(of('12V')?.map((p) => p.ref)).toEqual(expect.arrayContaining(['U3']));
    // of a net that the board does not name nothing is known
    const renamed = { ...netlist, parts: netlist.parts.map((p) => ({ ...p, pins: { ...p.pins, 9: 'elsewhere' } })) };
    expect(of('elsewhere', renamed)).toBeUndefined();
  });
  it('a shorted net convicts nobody while something else stands on it', () => {
    const less = { ...netlist, parts: netlist.parts.filter((p) => p.ref !== 'C1') };
    const ask = (beside: unknown) =>
      diagnose(
        diagnoseInput.parse({
          netlist: less,
          readings: [{ type: 'ohm', red: 'VIN', black: 'GND', value: 0.6 }],
          beside,
        }),
      );
    const told = ask(besideOf(board, less));
    expect(told.doubt).toBe('C1 stands on VIN too and is not in this circuit');
    expect(told.parts.find((p) => p.ref === 'none of these')?.p).toBeGreaterThan(0.3);
    const complete = ask([{ net: 'VIN', parts: [] }]);
    expect(complete.parts.find((p) => p.ref === 'none of these')?.p).toBeLessThan(0.15);
  });
});
