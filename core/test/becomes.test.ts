import { describe, expect, it } from 'vitest';
import { agrees, asClass, worksAs } from '../src/circuit/becomes.ts';
import { solveCircuit } from '../src/circuit/circuitSolve.ts';
import { netlistSchema, type CircuitPart, type PartOf } from '../src/circuit/netlist.ts';
import { TypedPartsError, typedParts, withTyped } from '../src/circuit/typedParts.ts';

const part = (raw: object): CircuitPart =>
  netlistSchema.parse({ ground: 'GND', parts: [raw, { ref: 'J9', kind: 'J', pins: { 1: 'GND' } }] }).parts[0];
const ic = (pins: Record<string, string>) => part({ ref: 'U1', kind: 'IC', pins }) as PartOf<'IC'>;

describe('a part becomes another', () => {
  it('of a class of another kind, on the same nets', () => {
    const r = part({ ref: 'R1', kind: 'R', pins: { 1: 'A', 2: 'B' }, value: 10 });
    expect(asClass(r, 'fuse', 'GND')).toMatchObject({ kind: 'F', cls: 'fuse', pins: { 1: 'A', 2: 'B' }, r: 0.05 });
    expect(asClass(r, 'led', 'GND')).toMatchObject({ kind: 'D', model: 'led', pins: { A: 'A', K: 'B' } });
    expect(asClass(r, 'mosfet', 'GND')).toMatchObject({ kind: 'M', pins: { D: 'A', G: 'B', S: 'R1.S' } });
    expect(asClass(r, 'shunt', 'GND')).toEqual({ ...r, cls: 'shunt' });
    const clamp = part({ ref: 'D1', kind: 'Z', pins: { A: 'GND', K: 'B' }, bv: 18 });
    expect(asClass(clamp, 'tvs', 'GND')).toEqual({ ...clamp, cls: 'tvs' });
    expect([agrees(r), agrees({ ...r, cls: 'elko' }), agrees(clamp)]).toEqual([true, false, true]);
  });
  it('an IC works as a regulator by its pins or its nets, others are guessed to be corrected', () => {
    const made = worksAs(ic({ 1: 'VIN', 2: 'GND', 3: 'OUT' }), 'ldo');
    expect(made).toMatchObject({
      cls: 'power',
      rail: ['1'],
      blocks: [{ type: 'ldo', pins: { VIN: '1', GND: '2', OUT: '3' } }],
    });
    expect(worksAs(ic({ VIN: '12V', LX: 'N1', FB: 'N2', GND: 'GND', EN: 'N3' }), 'buck')?.blocks[0].pins).toEqual({
      ...{ VIN: 'VIN', SW: 'LX', FB: 'FB', GND: 'GND', EN: 'EN' },
    });
    expect(worksAs(ic({ 1: 'A', 2: 'B', 3: 'GND' }), 'ldo')?.blocks[0].pins).toMatchObject({ GND: '3' });
    expect(worksAs(ic({ 1: 'A', 2: 'GND' }), 'buck')).toBeNull();
    expect(worksAs(made as PartOf<'IC'>, null)?.blocks).toEqual([]);
  });
});

describe('parts as they are typed', () => {
  it('makes a small circuit of a few lines, and it works', () => {
    const netlist = withTyped(
      null,
      `feed VIN 12 1
       C1 VIN GND 10u mlccbig
       U1 VIN=VIN SW=SW FB=FB GND buck .8
       L1 SW 3V3 60m
       R1 3V3 FB 31k6
       R2 FB GND 10k
       C2 3V3 GND 22u`,
      'GND',
    );
    expect(netlist.parts.map((p) => `${p.kind} ${p.ref}`)).toEqual(['C C1', 'IC U1', 'L L1', 'R R1', 'R R2', 'C C2']);
    const [volts] = solveCircuit({ netlist, readings: [{ type: 'dcv', red: '3V3', state: 'awake' }] }).readings;
    expect(volts.value).toBeCloseTo(3.33, 1);
  });
  it('a name that is there is replaced, the rest and its supplies stay', () => {
    const first = withTyped(null, 'R1 A GND 1k\nfeed A 5 .5', 'GND');
    const next = withTyped(first, 'R1 A GND 2k2\nC1 A GND 100n', 'GND');
    expect(next.parts).toMatchObject([
      { ref: 'R1', value: 2200 },
      { ref: 'C1', value: expect.closeTo(1e-7, 12) as number },
    ]);
    expect(next.power?.states.awake.sources).toMatchObject([{ p: 'A', v: 5 }]);
    const fed = withTyped(first, 'feed A 6 .5\nload A 40', 'GND').power?.states.awake;
    expect(fed).toMatchObject({ sources: [{ v: 6 }], loads: [{ p: 'A', r: 40 }] });
  });
  it('a net may be a number of volts, a plug has as many pins as it is given', () => {
    expect(typedParts('J1 5V GND SDA', 'GND').parts[0].pins).toEqual({ 1: '5V', 2: 'GND', 3: 'SDA' });
    expect(typedParts('C3 5V GND', 'GND').parts[0]).toMatchObject({ value: 1e-7, pins: { 1: '5V', 2: 'GND' } });
    expect(typedParts('D2 A=GND K=X tvs', 'GND').parts[0]).toMatchObject({ kind: 'ZB' });
    expect(typedParts('U2 VDD=3V3', 'GND').parts[0].pins).toEqual({ VDD: '3V3', GND: 'GND' });
  });
  it.each([
    ['7 A B', /Line 1: 7: begin with a name/],
    ['R1 A B 1k\nR2 A', /Line 2: R2: 2 nets at least/],
    ['U1 A buck', /converter needs more pins/],
    ['feed A', /feed, a net, volts/],
    ['load A many', /load, a net, ohms/],
  ])('says what is wrong in which line: %s', (text, message) => {
    expect(() => typedParts(text, 'GND')).toThrow(message);
    expect(() => typedParts(text, 'GND')).toThrow(TypedPartsError);
  });
});
