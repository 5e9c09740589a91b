import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type BoardModel, isGroundNet, PART_CLASSES, type PartClass } from '../src/board/index.ts';
import { runCalc } from '../src/calc/index.ts';
import {
  circuitOfRail,
  circuitPartFrom,
  groundOf,
  looseNets,
  netAt,
  type Netlist,
  netlistSchema,
  placesOfNet,
  solveCircuit,
  templateById,
  TEMPLATES,
  tidied,
  withTemplate,
  writtenValue,
} from '../src/circuit/index.ts';
import { offBoardVerdict, probeWalk, rankByComparison, recipeFor, referenceOf } from '../src/diagnosis/index.ts';
import { CalcInputError, compareReading } from '../src/ground/index.ts';
import { schematicGraph } from '../src/scene/index.ts';
import { freeRef } from '../src/circuit/fromBoard.ts';
import { factorLu, planLu, solveDense, solveLu } from '../src/ground/numerics/sparseLu.ts';
import { readOhms } from '../src/circuit/meters.ts';
import { assemble } from '../src/circuit/network.ts';
import { NetworkSolver } from '../src/circuit/solver.ts';

const R = (ref: string, a: string, b: string, value: number) => ({ ref, kind: 'R', pins: { 1: a, 2: b }, value });
const say = (raw: unknown): string => {
  const parsed = netlistSchema.safeParse(raw);
  return parsed.success ? '' : parsed.error.issues.map((i) => `${i.path.join('.')}: ${i.message}`).join('; ');
};
const netlistOf = (id: string): Netlist => {
  const t = templateById(id);
  if (!t) throw new Error(id);
  return t.netlist;
};

describe('circuits against closed forms', () => {
  it('divides a voltage, and by the meter it is read with', () => {
    const netlist = netlistSchema.parse({
      ground: 'G',
      parts: [R('R1', 'V', 'X', 1e6), R('R2', 'X', 'G', 1e6)],
      power: { sources: [{ p: 'V', v: 10, ilim: 1, rout: 1e-6 }] },
    });
    const out = solveCircuit({ netlist, readings: [{ type: 'dcv', red: 'X' }] });
    const top = out.powered_node_voltages.on.V;
    expect(out.powered_node_voltages.on.X).toBeCloseTo(top / 2, 4);
    const loaded = 1 / (1e-6 + 1e-7);
    expect(out.readings[0].value).toBeCloseTo((top * loaded) / (1e6 + loaded), 4);
  });
  it('adds in parallel and in series, any way round', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 1, max: 1e5, noNaN: true }),
        fc.double({ min: 1, max: 1e5, noNaN: true }),
        (a, b) => {
          const netlist = netlistSchema.parse({
            ground: 'G',
            parts: [R('R1', 'X', 'G', a), R('R2', 'X', 'G', b), R('R3', 'Y', 'X', a)],
          });
          const [x, y, back] = solveCircuit({
            netlist,
            readings: [
              { type: 'ohm', red: 'X' },
              { type: 'ohm', red: 'Y' },
              { type: 'ohm', red: 'G', black: 'Y' },
            ],
          }).readings.map((r) => r.value as number);
          const both = (a * b) / (a + b);
          expect(x / both).toBeCloseTo(1, 6);
          expect(y / (both + a)).toBeCloseTo(1, 6);
          expect(back / y).toBeCloseTo(1, 6);
        },
      ),
      { numRuns: 40 },
    );
  });
  it('limits a supply’s current', () => {
    const netlist = netlistSchema.parse({
      ground: 'G',
      parts: [R('R1', 'V', 'G', 2)],
      power: { sources: [{ p: 'V', v: 12, ilim: 0.5 }] },
    });
    const out = solveCircuit({ netlist, readings: [] });
    expect(out.supply_current_A.on).toBeCloseTo(0.5, 5);
    expect(out.powered_node_voltages.on.V).toBeCloseTo(1, 4);
  });
  it('finds the drop of a diode where current and exponential meet', () => {
    const netlist = netlistSchema.parse({
      ground: 'G',
      parts: [{ ref: 'D1', kind: 'D', pins: { A: 'X', K: 'G' }, model: 'si' }],
    });
    const v = solveCircuit({ netlist, readings: [{ type: 'diode', red: 'X' }] }).readings[0].value as number;
    const nvt = 1.752 * 0.0258649;
    expect(v).toBeCloseTo(nvt * Math.log(1 + 1e-3 / 2.52e-9) + 0.57e-3, 5);
  });
  it('beeps below 40 Ω and shows OL above the lowest range', () => {
    const netlist = netlistSchema.parse({ ground: 'G', parts: [R('R1', 'X', 'G', 33), R('R2', 'Y', 'G', 4700)] });
    const [x, y] = solveCircuit({
      netlist,
      readings: [
        { type: 'cont', red: 'X' },
        { type: 'cont', red: 'Y' },
      ],
    }).readings;
    expect(x).toMatchObject({ beep: true });
    expect(y).toMatchObject({ value: 'OL', beep: false });
  });
  it('warns of a capacitor that is still charging', () => {
    const netlist = netlistSchema.parse({
      ground: 'G',
      parts: [R('R1', 'X', 'G', 100e3), { ref: 'C1', kind: 'C', pins: { 1: 'X', 2: 'G' }, value: 1e-4 }],
    });
    expect(solveCircuit({ netlist, readings: [{ type: 'ohm', red: 'X' }] }).readings[0].settles_s).toBeCloseTo(50, 0);
  });
  it('takes two faults at once, and each for itself', () => {
    const netlist = netlistOf('ldo');
    const both = solveCircuit({
      netlist,
      fault: [
        { ref: 'FB1', mode: 'open' },
        { ref: 'C3', mode: 'short', r: 2 },
      ],
      readings: [
        { type: 'ohm', red: '1V8' },
        { type: 'ohm', red: '5V', black: '5VF' },
      ],
    });
    expect(both.readings[0].value as number).toBeCloseTo(2, 1);
    expect(both.readings[1].value).toBe('OL');
  });
  it('finds the same ohms from whichever range it begins', () => {
    for (const { netlist } of TEMPLATES) {
      const network = assemble(netlist, [], null);
      const solver = new NetworkSolver(network);
      for (const net of netlist.tp ?? []) {
        const node = network.node(net);
        if (node === undefined) continue;
        const first = readOhms(solver, node, network.size).value;
        for (const guess of [1, 3, 5]) {
          const other = readOhms(solver, node, network.size, { guess }).value;
          if (first === 'OL' || other === 'OL') expect(other, net).toBe(first);
          else expect(other / first, net).toBeCloseTo(1, 3);
        }
      }
    }
  });
});

describe('sparse LU', () => {
  it('solves what dense elimination with pivoting solves', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 14 }), fc.integer(), (n, seed) => {
        let a = seed >>> 0;
        const random = () => (a = (Math.imul(a, 1664525) + 1013904223) >>> 0) / 2 ** 32;
        const edges = Array.from(
          { length: 2 * n },
          () => [Math.floor(random() * n), Math.floor(random() * n)] as const,
        );
        const plan = planLu(n, edges);
        const m = new Float64Array(plan.length);
        for (const [i, k] of edges)
          if (i !== k)
            for (const [r, c] of [
              [i, k],
              [k, i],
            ])
              m[plan.place(r, c)] = random() - 0.5;
        for (let i = 0; i < n; i++) m[i] = 4 + random();
        const b = Float64Array.from({ length: n + 1 }, random);
        const x = b.slice();
        const want = b.slice();
        solveDense(plan, m.slice(), want);
        expect(factorLu(plan, m)).toBe(true);
        solveLu(plan, m, x);
        for (let i = 0; i < n; i++) expect(x[i]).toBeCloseTo(want[i], 9);
      }),
      { numRuns: 60 },
    );
  });
  it('does not trust a vanished pivot', () => {
    const plan = planLu(2, [[0, 1]]);
    const m = new Float64Array(plan.length);
    m[plan.place(0, 1)] = m[plan.place(1, 0)] = 1;
    expect(factorLu(plan, m.slice())).toBe(false);
    const b = Float64Array.from([1, 2, 0]);
    expect(solveDense(plan, m, b)).toBe(true);
    expect([b[0], b[1]]).toEqual([2, 1]);
  });
});

describe('what does not hang together', () => {
  it('is said with its place', () => {
    expect(say({ ground: 'G', parts: [] })).toContain('put a part in');
    expect(say({ ground: 'G', parts: [R('R1', 'A', 'G', 1), R('R1', 'A', 'G', 1)] })).toContain(
      'parts.1.ref: R1 is there twice',
    );
    expect(say({ ground: 'G', parts: [{ ref: 'Q1', kind: 'Q', type: 'N', pins: { C: 'A', E: 'G' } }] })).toContain(
      'needs pin B',
    );
    expect(say({ ground: 'GND', parts: [R('R1', 'A', 'B', 1)] })).toContain('no part is connected to GND');
    expect(say({ ground: 'G', tp: ['X'], parts: [R('R1', 'A', 'G', 1)] })).toContain(
      'tp.0: no part is connected to the net X',
    );
    expect(
      say({ ground: 'G', parts: [R('R1', 'A', 'G', 1)], power: { sources: [{ p: 'Z', v: 5, ilim: 1 }] } }),
    ).toContain('power.sources.0.p');
    expect(
      say({ ground: 'G', parts: [{ ref: 'U1', kind: 'IC', pins: { 1: 'A', 2: 'G' }, esd: [['2', '9', 'esd']] }] }),
    ).toContain('U1 has no pin 9');
    expect(say({ ground: 'G', parts: [R('R1', 'A', 'G', -4)] })).toContain('parts.0.value');
  });
  it('comes out of the calculation as the input’s fault', async () => {
    const netlist = { ground: 'G', parts: [R('R1', 'A', 'G', 1)] };
    const refused = async (input: unknown): Promise<string> => {
      const error: unknown = await runCalc('circuit.solve', input, { now: () => 0 }).catch((e: unknown) => e);
      if (!(error instanceof CalcInputError)) throw new Error(String(error));
      return error.message;
    };
    expect(await refused({ netlist, readings: [{ type: 'ohm', red: 'Q' }] })).toContain(
      'no part is connected to the net Q',
    );
    expect(await refused({ netlist, readings: [{ type: 'dcv', red: 'A' }] })).toContain('no power.sources');
    expect(await refused({ netlist, fault: { ref: 'R9', mode: 'open' } })).toContain('no part R9');
    expect(await refused({ netlist, fault: { ref: 'R1', mode: 'open', pin: '7' } })).toContain('R1 has no pin 7');
    expect(await refused({ netlist, states: ['asleep'] })).toContain('no state asleep');
    const block = {
      ref: 'U1',
      kind: 'IC',
      pins: { VIN: 'A', GND: 'G' },
      blocks: [{ type: 'ldo', vset: 3, ilim: 1, rout: 1 }],
    };
    expect(
      await refused({ netlist: { ground: 'G', parts: [block] }, readings: [{ type: 'ohm', red: 'A' }] }),
    ).toContain('ldo block needs a pin for OUT');
  });
  it('takes the shorter ways of writing the same', () => {
    const block = { kind: 'ldo', vin: 'I', out: 'O', gnd: 'E', vset: 3.3, ilim: 0.3, rout: 0.1 };
    const netlist = netlistSchema.parse({
      ground: 'G',
      parts: [{ ref: 'U1', kind: 'IC', pins: { I: 'V', O: 'X', E: 'G' }, blocks: [block] }, R('R1', 'X', 'G', 100)],
      power: { sources: [{ net: 'V', v: 5, ilim: 1 }], loads: [['X', 'G', 100]] },
    });
    const out = solveCircuit({ netlist, readings: [] });
    expect(out.powered_node_voltages.on.X).toBeCloseTo(3.29, 1);
    expect(out.supply_current_A.on).toBeCloseTo(3.29 / 50, 3);
  });
  it('notices a net with a single pin', () => {
    const netlist = netlistSchema.parse({ ground: 'G', parts: [R('R1', 'A', 'G', 1), R('R2', 'A', 'TYPO', 1)] });
    expect(looseNets(netlist)).toEqual(['TYPO']);
    expect(solveCircuit({ netlist, readings: [{ type: 'ohm', red: 'TYPO' }] }).notes).toEqual([
      'only one pin is on TYPO',
    ]);
  });
  it('reads a floating net as open', () => {
    const netlist = netlistSchema.parse({ ground: 'G', parts: [R('R1', 'A', 'G', 1), R('R2', 'B', 'C', 10)] });
    const [b, pair] = solveCircuit({
      netlist,
      readings: [
        { type: 'ohm', red: 'B' },
        { type: 'ohm', red: 'B', black: 'C' },
      ],
    }).readings;
    expect(b.value).toBe('OL');
    expect(pair.value as number).toBeCloseTo(10, 4);
  });
});

const board: Pick<BoardModel, 'parts'> = {
  parts: [
    {
      partId: 'u1',
      ref: 'U1',
      package: 'SOT-23-5',
      x_mm: 10,
      y_mm: 10,
      rotation_deg: 0,
      side: 'top',
      what: '3.3 V regulator',
      nets: { '1': '5V', '2': 'GND', '5': '3V3' },
    },
    {
      partId: 'c1',
      ref: 'C1',
      package: 'C0603',
      x_mm: 20,
      y_mm: 10,
      rotation_deg: 0,
      side: 'top',
      value: '100 nF',
      nets: { '1': '3V3', '2': 'GND' },
    },
    {
      partId: 'c2',
      ref: 'C2',
      package: 'C0805',
      x_mm: 30,
      y_mm: 10,
      rotation_deg: 0,
      side: 'bottom',
      value: '10 µF',
      nets: { '1': '3V3', '2': 'GND' },
    },
    {
      partId: 'l1',
      ref: 'L1',
      package: 'IND-5',
      x_mm: 5,
      y_mm: 10,
      rotation_deg: 0,
      side: 'top',
      value: '22 µH',
      nets: { '1': 'SW', '2': '5V' },
    },
    { partId: 'r1', ref: 'R1', package: 'R0603', x_mm: 40, y_mm: 10, rotation_deg: 0, side: 'top', value: '4.7 kΩ' },
    {
      partId: 'd1',
      ref: 'D1',
      package: 'SMB',
      x_mm: 50,
      y_mm: 10,
      rotation_deg: 0,
      side: 'top',
      what: 'input TVS',
      nets: { '1': '5V', '2': 'GND' },
    },
    {
      partId: 'u2',
      ref: 'U2',
      package: 'SOIC-8',
      x_mm: 60,
      y_mm: 10,
      rotation_deg: 0,
      side: 'top',
      what: 'memory',
      nets: { '8': '3V3', '4': 'GND', '5': 'SDA' },
    },
  ],
};

describe('circuits from a board', () => {
  it('reads values as drawings write them', () => {
    expect(writtenValue('4.7 µF 100 V')).toBeCloseTo(4.7e-6, 12);
    expect(writtenValue('100 nF')).toBeCloseTo(1e-7, 12);
    expect(writtenValue('10 kΩ')).toBe(10_000);
    expect(writtenValue('fast')).toBeNull();
    expect(writtenValue(undefined)).toBeNull();
  });
  it('guesses kinds, classes and values', () => {
    const made = board.parts.map((p) => circuitPartFrom(p, 'GND'));
    expect(made.map((p) => [p.kind, p.cls])).toEqual([
      ['IC', 'power'],
      ['C', 'mlcc'],
      ['C', 'mlccbig'],
      ['L', 'coil'],
      ['R', 'res'],
      ['ZB', 'tvs'],
      ['IC', 'load'],
    ]);
    expect(made[4]).toMatchObject({ value: 4700, pins: { 1: 'R1.1', 2: 'R1.2' } });
    expect(made[6]).toMatchObject({ rail: ['8'], pins: { 8: '3V3', 4: 'GND', 5: 'SDA' } });
  });
  it('takes all parts on a net, and solves what it made', () => {
    const netlist = circuitOfRail(board, '3V3');
    expect(netlist.parts.map((p) => p.ref)).toEqual(['U1', 'C1', 'C2', 'U2', 'L1', 'D1']);
    expect(netlist.ground).toBe('GND');
    const [rail] = solveCircuit({ netlist, readings: [{ type: 'ohm', red: '3V3' }] }).readings;
    expect(rail.value).toBeGreaterThan(1000);
    expect(groundOf(board)).toBe('GND');
    expect([isGroundNet('AGND'), isGroundNet('gnd2'), isGroundNet('GNDSENSE')]).toEqual([true, true, false]);
  });
  it('knows where a net can be reached and which net is there', () => {
    const netlist = circuitOfRail(board, '3V3');
    const places = placesOfNet(board, netlist, '3V3');
    expect(places.map((p) => `${p.partId}.${p.terminal}`)).toEqual(['u1.5', 'c1.1', 'c2.1', 'u2.8']);
    expect(netAt(board, netlist, places[1])).toBe('3V3');
    expect(netAt(board, null, places[3])).toBe('3V3');
    expect(netAt(board, netlist, { x_mm: 0, y_mm: 0, side: 'top' })).toBeUndefined();
  });
  it('puts templates beside each other without doubling names', () => {
    const ldo = templateById('ldo');
    if (!ldo) throw new Error('ldo');
    const twice = withTemplate(ldo.netlist, ldo);
    const refs = twice.parts.map((p) => p.ref);
    expect(new Set(refs).size).toBe(refs.length);
    expect(freeRef(twice, 'Q1')).toBe('Q1');
    expect(withTemplate(null, ldo)).toBe(ldo.netlist);
    const thin = tidied({ ...ldo.netlist, parts: ldo.netlist.parts.filter((p) => p.ref !== 'FB1' && p.ref !== 'J1') });
    expect(netlistSchema.safeParse(thin).success).toBe(true);
    expect(thin.power?.states.awake.sources).toEqual([]);
  });
});

describe('without a circuit', () => {
  const low = (net: string, value: number, good: number) => ({ net, quantity: 'ohm' as const, value, good });
  it('suspects what stands on the low line, nearest to the lowest place', () => {
    const out = rankByComparison(board, [low('3V3', 1.2, 2400), low('5V', 1900, 1950)]);
    expect(['C1', 'C2', 'U1', 'U2']).toContain(out[0].ref);
    expect(out.find((s) => s.ref === 'D1')?.p).toBeLessThan(0.02);
    expect(out[0].speaksFor).toContain(0);
    expect(out.reduce((sum, s) => sum + s.p, 0)).toBeCloseTo(1, 6);
  });
  it('lets the eyes speak', () => {
    const plain = rankByComparison(board, [low('3V3', 1.2, 2400)]);
    const burnt = rankByComparison(board, [low('3V3', 1.2, 2400)], [{ partId: 'c2', sign: 'cracked' }]);
    const share = (list: typeof plain) => list.find((s) => s.ref === 'C2')?.p ?? 0;
    expect(share(burnt)).toBeGreaterThan(2 * share(plain));
    expect(burnt[0].ref).toBe('C2');
  });
  it('suspects an open path where a line reads too high', () => {
    const out = rankByComparison(board, [{ net: 'SW', quantity: 'ohm', value: 'OL', good: 1900 }]);
    expect(out[0].ref).toBe('L1');
    expect(compareReading('OL', 1900, 'ohm')).toBe('high');
  });
});

describe('a suspect tested alone', () => {
  it('leads four ways, and a culprit on to what it took along', () => {
    const titles = (['bad', 'good'] as const).flatMap((result) =>
      [true, false].map((recovered) => offBoardVerdict('mosfet', result, recovered)),
    );
    expect(new Set(titles.map((t) => t.title)).size).toBe(4);
    expect(titles[0].next).toContain('its driver, gate resistor, shunt, fuse and its twin');
    expect(titles.map((t) => t.tone)).toEqual(['good', 'stop', 'caution', 'caution']);
    for (const cls of Object.keys(PART_CLASSES) as PartClass[]) expect(recipeFor(cls).length).toBeGreaterThan(20);
  });
});

describe('references and the walk', () => {
  it('gives the middle of good boards and their spread, each unit once', () => {
    expect(referenceOf('ohm', [])).toBeNull();
    expect(referenceOf('ohm', [{ unit: 'a', value: 2400 }])).toMatchObject({
      value: expect.closeTo(2400, 3) as number,
      from: null,
      units: 1,
    });
    const three = referenceOf('ohm', [
      { unit: 'a', value: 9000 },
      { unit: 'a', value: 2300 },
      { unit: 'b', value: 2400 },
      { unit: 'c', value: 2600 },
    ]);
    expect(three?.units).toBe(3);
    expect(three?.value).toBeCloseTo(2400, 3);
    expect(three?.from).toBeLessThan(2400);
    expect(three?.to).toBeGreaterThan(2400);
    expect(
      referenceOf('diode', [
        { unit: 'a', value: 'OL' },
        { unit: 'b', value: 'OL' },
        { unit: 'c', value: 0.5 },
      ])?.value,
    ).toBe('OL');
  });
  it('walks shorter than in the order given, visits all, turns the board once', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            x_mm: fc.integer({ min: 0, max: 100 }),
            y_mm: fc.integer({ min: 0, max: 80 }),
            side: fc.constantFrom('top' as const, 'bottom' as const),
          }),
          { minLength: 1, maxLength: 25 },
        ),
        (points) => {
          const order = probeWalk(points);
          expect([...order].sort((a, b) => a - b)).toEqual(points.map((_, i) => i));
          const turns = order.filter((p, i) => i > 0 && points[p].side !== points[order[i - 1]].side).length;
          expect(turns).toBeLessThanOrEqual(1);
        },
      ),
      { numRuns: 40 },
    );
  });
});

describe('the drawing of a circuit', () => {
  it.each(TEMPLATES.map((t) => [t.id, t.netlist] as const))(
    '%s has a box for every part and a wire or flag for every pin',
    (_, netlist) => {
      const { nodes, wires } = schematicGraph(netlist);
      expect(nodes.map((n) => n.ref)).toEqual(netlist.parts.map((p) => p.ref));
      const wired = new Set(wires.flatMap((w) => [`${w.from.ref}.${w.from.pin}`, `${w.to.ref}.${w.to.pin}`]));
      for (const node of nodes)
        for (const port of node.ports) {
          expect(port.x >= 0 && port.x <= node.w && port.y >= 0 && port.y <= node.h).toBe(true);
          if (port.flag === 'none') expect(wired.has(`${node.ref}.${port.pin}`), `${node.ref}.${port.pin}`).toBe(true);
          if (port.net === netlist.ground) expect(port.flag).toBe('ground');
        }
    },
  );
});
