import { describe, expect, it } from 'vitest';
import { solveCircuit } from '../src/circuit/circuitSolve.ts';
import { netlistSchema, type Netlist } from '../src/circuit/netlist.ts';
import { templateById, TEMPLATES } from '../src/circuit/templates.ts';
import { diagnose } from '../src/diagnosis/diagnose.ts';
import { diagnoseInput, type DiagnoseInput } from '../src/diagnosis/diagnoseForm.ts';
import { buildDictionary, testsOf } from '../src/diagnosis/dictionary.ts';
import {
  entropy,
  healthySpread,
  likelihood,
  normalCdf,
  offScale,
  onScale,
  answers,
} from '../src/diagnosis/evidence.ts';
import { hypothesesOf } from '../src/diagnosis/hypotheses.ts';
import { injectionWarmth, locateInput, locateShort } from '../src/diagnosis/locate.ts';
import { eventFactor, NONE, shopFactor } from '../src/diagnosis/priors.ts';
import { classOf } from '../src/circuit/classOf.ts';
import { explain, rank, type Taken } from '../src/diagnosis/rank.ts';
import { ambiguityGroups, nextTests, splitsOf } from '../src/diagnosis/next.ts';
import { bigCircuit } from '../bench/bigCircuit.ts';
import { calibration, seeded, simulate, simulateLacking } from './diagnosisSimulation.ts';

const netlistOf = (id: string): Netlist => {
  const t = templateById(id);
  if (!t) throw new Error(id);
  return t.netlist;
};
type Reading = DiagnoseInput['readings'][number];
const ask = (input: Record<string, unknown>) => diagnose(diagnoseInput.parse(input));
const ohm = (red: string, value: number | 'OL', good?: number): Reading => ({
  type: 'ohm',
  red,
  black: 'GND',
  value,
  ...(good === undefined ? {} : { good }),
});

describe('fault dictionary', () => {
  it('says what full solutions of the faulty circuits say', () => {
    const random = seeded(7);
    for (const { netlist } of TEMPLATES) {
      const tests = testsOf(netlist);
      const hypotheses = hypothesesOf(netlist);
      const d = buildDictionary(netlist, hypotheses, tests);
      for (let n = 0; n < 12; n++) {
        const h = Math.floor(random() * hypotheses.length);
        const t = Math.floor(random() * tests.length);
        const { type, red, black, state } = tests[t];
        const probe = type === 'isup' ? {} : { red, black };
        const [got] = solveCircuit({
          netlist,
          fault: hypotheses[h].faults,
          readings: [{ type, ...probe, state }],
        }).readings;
        const y = d.expected[h * tests.length + t];
        const label = `${hypotheses[h].ref} ${hypotheses[h].mode} ${type} ${red}`;
        if (got.value === 'OL') {
          const open = type === 'ohm' ? onScale('ohm', 6e7) : 2.8;
          expect(y, label).toBeGreaterThanOrEqual(open - 1e-6);
        } else expect(Math.abs(y - onScale(type, got.value)), label).toBeLessThan(0.01);
      }
    }
  });
  it('follows the ohms of a short as a second solution does', () => {
    const netlist = netlistOf('buck');
    const leaks = hypothesesOf(netlist).filter((h) => h.ref === 'C5' && h.mode === 'leaky');
    expect(leaks.map((h) => h.faults[0].r)).toEqual([30, 300, 3000]);
    const short = leaks[1];
    const test = testsOf(netlist).filter((t) => t.type === 'ohm' && t.red === '3V3');
    const at = (r: number) => {
      const faults = short.faults.map((f) => ({ ...f, r }));
      const reading = solveCircuit({ netlist, fault: faults, readings: [{ type: 'ohm', red: '3V3' }] }).readings[0];
      return onScale('ohm', reading.value as number);
    };
    const slope = (at(300 * 1.01) - at(300 / 1.01)) / (2 * Math.log(1.01));
    const d = buildDictionary(netlist, [short], test);
    expect(d.spread[0]).toBeCloseTo(Math.hypot(healthySpread('ohm', d.expected[0]), 0.7 * slope), 3);
  });
  it('takes sixty nodes and 120 parts', () => {
    const netlist = bigCircuit();
    const hypotheses = hypothesesOf(netlist).slice(0, 60);
    const d = buildDictionary(netlist, hypotheses, testsOf(netlist).slice(0, 20));
    expect(d.expected.every(Number.isFinite)).toBe(true);
  });
  it('stops when told to', () => {
    const netlist = netlistOf('ldo');
    expect(() => buildDictionary(netlist, hypothesesOf(netlist), undefined, { signal: { aborted: true } })).toThrow(
      'Cancelled',
    );
  });
  it('reports how far it is', () => {
    const seen: number[] = [];
    const netlist = netlistOf('ldo');
    buildDictionary(netlist, hypothesesOf(netlist), undefined, { progress: (x) => seen.push(x) });
    expect(seen.length).toBeGreaterThan(3);
    expect(seen.every((x, i) => x > 0 && x <= 1 && (i === 0 || x > seen[i - 1]))).toBe(true);
  });
});

describe('evidence', () => {
  it('goes to the scale and back', () => {
    for (const [type, value] of [
      ['ohm', 0.5],
      ['ohm', 4700],
      ['diode', 0.53],
      ['dcv', 12.2],
      ['dcv', -3],
      ['isup', 0.12],
    ] as const)
      expect(offScale(type, onScale(type, value))).toBeCloseTo(value, 9);
  });
  it('knows the normal distribution', () => {
    expect(normalCdf(0)).toBeCloseTo(0.5, 6);
    expect(normalCdf(1.96)).toBeCloseTo(0.9750021, 5);
    expect(normalCdf(-3)).toBeCloseTo(0.0013499, 5);
  });
  it('gives every outcome a share, all of them together one', () => {
    const p = answers('ohm', { y: onScale('ohm', 4700), s: 0.3 });
    expect(p.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
    expect(Math.min(...p)).toBeGreaterThan(0);
    expect(entropy(p)).toBeLessThan(Math.log2(p.length));
  });
  it('does not hold 40 MΩ against an open line, nor the other way round', () => {
    const open = { y: onScale('ohm', 1e10), s: 0.9 };
    const megohms = { y: onScale('ohm', 4e7), s: 0.9 };
    expect(likelihood('ohm', 'OL', open) / likelihood('ohm', 'OL', megohms)).toBeLessThan(5);
    expect(likelihood('ohm', 'OL', { y: onScale('ohm', 1000), s: 0.3 })).toBeLessThan(0.001);
  });
});

describe('priors', () => {
  it('takes the class from name, kind and value', () => {
    const parts = netlistOf('buck').parts;
    const of = (ref: string) => classOf(parts.find((p) => p.ref === ref) as Netlist['parts'][number]);
    expect([of('C1'), of('C2'), of('C5'), of('F1'), of('U1'), of('U2')]).toEqual([
      'elko',
      'mlccbig',
      'mlcc',
      'fuse',
      'power',
      'load',
    ]);
    const plain = netlistSchema.parse({
      ground: 'G',
      parts: [
        { ref: 'R1', kind: 'R', pins: { 1: 'A', 2: 'G' }, value: 0.01 },
        { ref: 'C1', kind: 'C', pins: { 1: 'A', 2: 'G' }, value: 1e-5 },
        { ref: 'D1', kind: 'D', pins: { A: 'A', K: 'G' }, model: 'sch' },
      ],
    });
    expect(plain.parts.map(classOf)).toEqual(['shunt', 'mlccbig', 'schottky']);
  });
  it('moves with what happened to the board', () => {
    expect(eventFactor('drop', 'mlccbig', 'short')).toBe(5);
    expect(eventFactor('reversed', 'tvs', 'short')).toBe(10);
    expect(eventFactor('rework', 'load', 'bridge')).toBe(10);
    expect(eventFactor('liquid', 'res', 'open')).toBe(4);
    expect(eventFactor('liquid', 'res', 'short')).toBe(1);
    expect(eventFactor('reversed', 'mosfet', 'short')).toBe(4);
    expect(eventFactor('reversed', 'res', 'short')).toBe(1);
  });
  it('lets the shop’s own record take over', () => {
    expect(shopFactor(0.05, 0, 0)).toBe(1);
    expect(shopFactor(0.05, 20, 40) * 0.05).toBeCloseTo(21 / 60, 9);
    expect(shopFactor(0.05, 0, 100)).toBeLessThan(0.2);
  });
});

describe('ranking', () => {
  it('says how much the shop’s own cases weigh', () => {
    const readings = [ohm('3V3', 0.4, 900)];
    const history = { jobs: 9, culprits: { C3: 6 } };
    const told = ask({ netlist: netlistOf('buck'), readings, history }).parts;
    const of = (ref: string) => told.find((p) => p.ref === ref);
    expect(of('C3')?.shop?.found).toBe(6);
    expect(of('C3')?.shop?.factor).toBeGreaterThan(2);
    expect(told.filter((p) => p.shop)).toHaveLength(1);
    const blind = ask({ netlist: netlistOf('buck'), readings }).parts;
    expect(blind.some((p) => p.shop)).toBe(false);
    const odds = (parts: typeof told) =>
      (parts.find((p) => p.ref === 'C3')?.p ?? 0) / (parts.find((p) => p.ref === 'C4')?.p ?? 1);
    expect(odds(told)).toBeGreaterThan(1.9 * odds(blind));
  });
  it('names the ceramics of a shorted rail as one group and blocks power', () => {
    const out = ask({ netlist: netlistOf('buck'), readings: [ohm('3V3', 0.6)] });
    expect(out.power).toBe('blocked');
    expect(out.why).toContain('3V3 reads 0.6 Ω');
    expect(out.groups[0]).toEqual(expect.arrayContaining(['C3', 'C5', 'C13']));
    expect(out.group_shares[0].splits.map((s) => s.how)).toContain('profile');
    expect(out.next.every((n) => n.type === 'ohm' || n.type === 'diode')).toBe(true);
  });
  it('does not cry short over a rail that is low by nature', () => {
    const netlist = netlistSchema.parse({
      ground: 'GND',
      parts: [
        {
          ref: 'U1',
          kind: 'IC',
          cls: 'load',
          pins: { VDD: 'CORE', GND: 'GND' },
          rail: ['VDD'],
          res: [['VDD', 'GND', 2.1, 0.8]],
        },
        { ref: 'C1', kind: 'C', pins: { 1: 'CORE', 2: 'GND' }, value: 1e-5 },
      ],
      power: { sources: [{ p: 'CORE', v: 0.9, ilim: 3 }] },
    });
    const well = ask({ netlist, readings: [ohm('CORE', 2.0)] });
    expect(well.power).toBe('allowed');
    const short = ask({ netlist, readings: [ohm('CORE', 0.2)] });
    expect(short.power).toBe('blocked');
  });
  it('wants every rail read before power', () => {
    const out = ask({ netlist: netlistOf('ldo'), readings: [ohm('5VF', 290e3)] });
    expect(out).toMatchObject({ power: 'blocked' });
    expect(out.why).toMatch(/not read in ohms.*5V.*1V8/);
  });
  it('does not acquit an IC by normal values', () => {
    const netlist = netlistOf('ldo');
    const healthy = solveCircuit({
      netlist,
      readings: ['5V', '5VF', '1V8', 'PG'].map((red) => ({ type: 'ohm' as const, red })),
    });
    const out = ask({ netlist, readings: healthy.readings.map(({ type, red, value }) => ({ type, red, value })) });
    const share = (ref: string) => out.parts.find((p) => p.ref === ref)?.p ?? 0;
    expect(share('U1') + share('U2')).toBeGreaterThan(0.3);
    expect(share('FB1')).toBeLessThan(0.03);
  });
  it('convicts the silent regulator once it is powered', () => {
    const netlist = netlistOf('ldo');
    const readings: Reading[] = [
      ohm('5V', 300e3),
      ohm('5VF', 300e3),
      ohm('1V8', 890),
      { type: 'dcv', red: '5VF', black: 'GND', state: 'awake', value: 5 },
      { type: 'dcv', red: '1V8', black: 'GND', state: 'awake', value: 0.01 },
    ];
    const out = ask({ netlist, readings });
    expect(out.power).toBe('allowed');
    expect(out.parts[0].ref).toBe('U1');
    expect(out.parts[0].p).toBeGreaterThan(0.8);
  });
  it('tells the clamp from the transceiver by the choke between them', () => {
    const netlist = netlistOf('can');
    const out = ask({
      netlist,
      readings: [ohm('BUSH', 9), ohm('HX', 10.3), { type: 'ohm', red: 'BUSH', black: 'HX', value: 1.4 }],
    });
    expect(out.groups[0]).toContain('D1');
    const near = ask({ netlist, readings: [ohm('BUSH', 13.5), ohm('HX', 12.1)] });
    const d1 = near.parts.find((p) => p.ref === 'D1')?.p ?? 0;
    const u1 = near.parts.find((p) => p.ref === 'U1')?.p ?? 0;
    expect(u1).toBeGreaterThan(d1);
  });
  it('uses the value of a good board', () => {
    const netlist = netlistOf('buck');
    const share = (readings: Reading[]) => ask({ netlist, readings }).parts.find((p) => p.ref === 'U2')?.p ?? 0;
    // half of the model's value is odd, unless a good board reads the same
    expect(share([ohm('3V3', 1100)])).toBeGreaterThan(0.9 * share([ohm('3V3', 1100, 1080)]));
    const moved = ask({ netlist, readings: [ohm('3V3', 1100, 1080)] });
    expect(moved.notes.join()).not.toContain('fit no single fault');
  });
  it('weighs what was seen, tested off the board and swapped', () => {
    const netlist = netlistOf('buck');
    const readings = [ohm('3V3', 0.6)];
    const share = (extra: object) => ask({ netlist, readings, ...extra }).parts.find((p) => p.ref === 'C5')?.p ?? 0;
    const plain = share({});
    expect(share({ seen: [{ ref: 'C5', sign: 'cracked' }] })).toBeGreaterThan(3 * plain);
    expect(share({ off_board: [{ ref: 'C5', result: 'bad', recovered: true }] })).toBeGreaterThan(0.9);
    expect(share({ off_board: [{ ref: 'C5', result: 'good', recovered: false }] })).toBeLessThan(0.1 * plain);
    expect(share({ swapped: [{ ref: 'C5', followed: true }] })).toBeGreaterThan(3 * plain);
    expect(share({ history: { jobs: 30, culprits: { C5: 20 } } })).toBeGreaterThan(2 * plain);
  });
  it('shows shorted turns of a winding in its ohms, a filmed contact and a crystal in nothing but their share', () => {
    const coil = netlistSchema.parse({
      ground: 'GND',
      parts: [{ ref: 'K2', kind: 'RLY', pins: { 1: 'COIL', 2: 'GND' }, r: 300 }],
    });
    const turns = ask({ netlist: coil, readings: [ohm('COIL', 165)] });
    expect(turns.suspects[0]).toMatchObject({ ref: 'K2', mode: 'drift', where: 'turns shorted' });
    const plain = netlistSchema.parse({
      ground: 'GND',
      parts: [
        { ref: 'K1', kind: 'R', cls: 'contact', pins: { 1: 'IN', 2: 'OUT' }, value: 0.05 },
        { ref: 'Y1', kind: 'C', cls: 'crystal', pins: { 1: 'XI', 2: 'XO' }, value: 5e-12 },
        { ref: 'R1', kind: 'R', pins: { 1: 'OUT', 2: 'GND' }, value: 1000 },
      ],
      pairs: [['IN', 'OUT']],
    });
    const all = hypothesesOf(plain);
    expect([...new Set(all.flatMap((h) => (h.ref === 'Y1' ? [h.mode] : [])))]).toEqual([
      'short',
      'leaky',
      'open',
      'joint',
    ]);
    const filmed = ask({ netlist: plain, readings: [{ type: 'ohm', red: 'IN', black: 'OUT', value: 6 }] });
    expect(filmed.suspects[0]).toMatchObject({ ref: 'K1', mode: 'drift' });
  });
  it('a part renewed in vain is acquitted, and what feeds or commands it is raised; a lifted leg clears shorts alone', () => {
    const netlist = netlistOf('half-bridge');
    const share = (d: ReturnType<typeof ask>, ref: string) => d.parts.find((p) => p.ref === ref)?.p ?? 0;
    const before = ask({ netlist });
    const renewed = ask({ netlist, swapped: [{ ref: 'M1', followed: false, how: 'new part' }] });
    expect(share(renewed, 'M1')).toBeLessThan(0.15 * share(before, 'M1'));
    // its gate resistor more than a capacitor elsewhere
    const rise = (ref: string) => share(renewed, ref) / share(before, ref);
    expect(rise('R1')).toBeGreaterThan(1.5 * rise('C4'));
    const mode = (d: ReturnType<typeof ask>, ref: string, of: string) =>
      d.suspects.filter((s) => s.ref === ref && s.mode === of).reduce((sum, s) => sum + s.p, 0);
    const lifted = ask({ netlist, swapped: [{ ref: 'C2', followed: false, how: 'leg lifted' }] });
    expect(mode(lifted, 'C2', 'short')).toBeLessThan(0.1 * mode(before, 'C2', 'short'));
    expect(mode(lifted, 'C2', 'open')).toBeGreaterThan(0.8 * mode(before, 'C2', 'open'));
    const cleared = ask({
      netlist: netlistOf('buck'),
      readings: [ohm('3V3', 0.5)],
      swapped: [{ ref: 'C7', followed: true, how: 'leg lifted' }],
    });
    expect(cleared.parts[0]).toMatchObject({ ref: 'C7' });
    expect(cleared.parts[0].p).toBeGreaterThan(0.7);
  });
  it('counts the minutes of an IC swap by what its pins say of its kind', () => {
    const minutes = (pins: string[]) => {
      const ic = (ref: string) => ({ ref, kind: 'IC', pins: Object.fromEntries(pins.map((p) => [p, `${ref}${p}`])) });
      const netlist = netlistSchema.parse({
        ground: 'GND',
        parts: [ic('U1'), ic('U2'), { ref: 'J1', kind: 'J', pins: { 1: 'GND' } }],
      });
      const d = buildDictionary(netlist, hypothesesOf(netlist), testsOf(netlist));
      const group = { refs: ['U1', 'U2'], p: 1 };
      return splitsOf(d, rank(d, []), group).find((s) => s.how === 'swap')?.minutes;
    };
    expect(minutes(['1', '8'])).toBe(30);
    expect(minutes(['VIN', 'SW', 'IN1'])).toBe(30);
    expect(minutes(['1', '44'])).toBe(44);
    expect(minutes(['1', '8', 'EP'])).toBe(70);
    expect(minutes(['A1', 'B12'])).toBe(70);
  });
  it('keeps software in the field until it is ruled out', () => {
    const netlist = netlistOf('relay');
    const asked = (software: string) =>
      ask({ netlist, readings: [ohm('COIL', 'OL')], software }).parts.some((p) => p.ref === 'software');
    expect(asked('possible')).toBe(true);
    expect(asked('ruled out')).toBe(false);
  });
  it('weighs a chosen pair beside the single faults', () => {
    const netlist = netlistOf('ldo');
    const pair = [
      { ref: 'FB1', mode: 'open' },
      { ref: 'C3', mode: 'short' },
    ];
    const readings = [ohm('1V8', 0.6), { type: 'ohm', red: '5V', black: '5VF', value: 'OL' } as Reading];
    const out = ask({ netlist, readings, pair });
    expect(out.parts[0].ref).toBe('FB1 + C3');
  });
  it('says so when the readings contradict each other', () => {
    const netlist = netlistOf('buck');
    const readings: Reading[] = [
      ohm('3V3', 0.6),
      ohm('RST', 3),
      ohm('EN', 2),
      { type: 'diode', red: '3V3', black: 'GND', value: 2.2 },
      { type: 'diode', red: 'GND', black: '3V3', value: 'OL' },
    ];
    expect(ask({ netlist, readings }).notes.join()).toContain('fit no single fault');
  });
  it('leaves out what it cannot place, with a sentence', () => {
    const out = ask({ netlist: netlistOf('ldo'), readings: [ohm('NOWHERE', 4)] });
    expect(out.notes).toEqual(['no part of the circuit is on NOWHERE: that reading was left out']);
    // a beeper that is silent says nothing, one that beeps is a reading in ohms
    const silent = ask({
      netlist: netlistOf('ldo'),
      readings: [{ type: 'cont', red: '1V8', black: 'GND', value: 'OL' }],
    });
    expect(silent.parts[0].p).toBeCloseTo(ask({ netlist: netlistOf('ldo') }).parts[0].p, 9);
  });
  it('takes the resistance of the leads off', () => {
    const netlist = netlistOf('can');
    const readings = [ohm('BUSH', 8.4), ohm('HX', 9.8)];
    const out = ask({ netlist, readings, lead_resistance_ohm: 0.4 });
    expect(out.groups[0]).toContain('D1');
  });
  it('blocks power while a fault with too much voltage is likely', () => {
    const netlist = netlistOf('buck');
    const readings = [ohm('VIN', 155e3), ohm('VINF', 155e3), ohm('3V3', 2260), ohm('FB', 11)];
    const out = ask({ netlist, readings });
    expect(out.power).toBe('blocked');
    expect(out.why).toContain('too much voltage');
  });
  it('explains itself by readings', () => {
    const netlist = netlistOf('buck');
    const d = buildDictionary(netlist, hypothesesOf(netlist));
    const taken: Taken[] = [
      { type: 'ohm', red: '3V3', black: 'GND', state: null, value: 0.6 },
      { type: 'ohm', red: 'VINF', black: 'GND', state: null, value: 150e3 },
    ];
    const ranking = rank(d, taken);
    const c5 = explain(d, ranking, taken, { ref: 'C5', rival: 'C2' });
    expect(c5[0]).toMatchObject({ reading: { red: '3V3' } });
    expect(c5[0].weight).toBeGreaterThan(1);
    const c2 = explain(d, ranking, taken, { ref: 'C2', rival: 'C5' });
    expect(c2.find((v) => v.reading.red === '3V3')?.weight).toBeLessThan(0);
    // beside one that reads alike nothing speaks for either
    const beside = explain(d, ranking, taken, { ref: 'C5', rival: 'C6' });
    expect(beside.every((v) => Math.abs(v.weight) < 1e-9)).toBe(true);
  });
  it('tells what each reading ruled out, and for a part only what separates it from the next', () => {
    const readings = [
      ohm('VINF', 155e3),
      ohm('3V3', 2270),
      { type: 'dcv' as const, red: '3V3', state: 'awake', value: 0 },
    ];
    const d = ask({ netlist: netlistOf('buck'), readings: [...readings, ohm('RST', 12.2e3)] });
    expect(d.story.map((c) => c.red)).toEqual(['VINF', '3V3', '3V3', 'RST']);
    const shorted = (n: number) => d.story[n].out.find((o) => o.mode === 'short')?.refs;
    expect(shorted(0)).toContain('D1');
    expect(shorted(1)).toEqual(expect.arrayContaining(['C3', 'C4']));
    // what every suspect expects rules nobody out and speaks for nobody
    expect(d.story[3].out).toEqual([]);
    for (const part of d.parts) expect(part.voices?.some((v) => v.red === 'RST' && v.weight > 0) ?? false).toBe(false);
  });
  it('asks first for what tells most per minute and never for what was read', () => {
    const netlist = netlistOf('buck');
    const d = buildDictionary(netlist, hypothesesOf(netlist));
    const taken: Taken[] = [{ type: 'ohm', red: '3V3', black: 'GND', state: null, value: 2250 }];
    const next = nextTests(d, rank(d, taken), taken, { allowPower: false, most: 50 });
    const value = next.filter((n) => n.type === 'ohm').map((n) => n.bits / n.minutes);
    expect(value).toEqual([...value].sort((a, b) => b - a));
    // ohms before diode mode: the first look at a rail is at its ohms
    const first = nextTests(d, rank(d, []), [], { allowPower: false, most: 1 });
    expect(first[0].type).toBe('ohm');
    expect(next.some((n) => n.type === 'ohm' && n.red === '3V3')).toBe(false);
    expect(next.some((n) => n.type === 'dcv')).toBe(false);
    expect(ambiguityGroups(d, rank(d, taken), true).length).toBeGreaterThan(1);
  });
});

describe('a net of which the circuit knows too little', () => {
  // a driver that pumps its own supply for the lamps, which the circuit does not say
  const netlist = netlistSchema.parse({
    ground: 'GND',
    parts: [
      { ref: 'C1', kind: 'C', pins: { 1: '3V3', 2: 'GND' }, value: 1e-5, cls: 'mlccbig' },
      { ref: 'C2', kind: 'C', pins: { 1: '3V3', 2: 'GND' }, value: 1e-7, cls: 'mlcc' },
      ...['U1', 'U2'].map((ref, i) => ({
        ...{ ref, kind: 'IC', cls: 'load', rail: ['V'] },
        pins: { V: '3V3', G: 'GND', P: i === 0 ? 'PUMP' : 'IO' },
        res: [
          ['V', 'G', 9000, 400],
          ['P', 'G', 80e3],
        ],
      })),
    ],
    power: { states: { on: { sources: [{ p: '3V3', v: 3.3, ilim: 1 }] } } },
  });
  const volts = (red: string, value: number, good: number) => ({
    type: 'dcv',
    red,
    black: 'GND',
    state: 'on',
    value,
    good,
  });
  const share = (ref: string, ...readings: object[]) =>
    ask({ netlist, readings: [volts('3V3', 3.29, 3.3), ...readings] }).parts.find((p) => p.ref === ref)?.p ?? 0;
  it('the part on it is suspected when it is off beside a good board, and nothing of the circuit contradicts', () => {
    const found = ask({ netlist, readings: [volts('3V3', 3.29, 3.3), volts('PUMP', 1.1, 9.2)] });
    expect(found.parts[0].ref).toBe('U1');
    expect(found.parts[0].p).toBeGreaterThan(0.5);
    expect(found.doubt ?? '').not.toContain('would show');
  });
  it('as good, it speaks for the part on it, and for no other', () => {
    const before = share('U1') / share('U2');
    expect(before).toBeCloseTo(1, 1);
    expect(share('U1', volts('PUMP', 9.1, 9.2)) / share('U2', volts('PUMP', 9.1, 9.2))).toBeLessThan(0.9);
  });
  it('ohms there say nothing of a chip that is silent inside', () => {
    const ohms = { type: 'ohm', red: 'PUMP', black: 'GND', value: 86, good: 2100 };
    const { suspects } = ask({ netlist, readings: [ohms] });
    const of = (mode: string) => suspects.find((s) => s.ref === 'U1' && s.mode === mode)?.p ?? 0;
    expect(of('leaky')).toBeGreaterThan(of('asleep'));
  });
});

describe('faults that come together', () => {
  const top = (id: string, readings: Reading[], more: object = {}) =>
    ask({ netlist: netlistOf(id), readings, ...more }).parts[0];
  it('the usual pairs of a circuit are weighed unasked: surge, flyback, switch with its driver', () => {
    const pairs = (id: string) => [
      ...new Set(hypothesesOf(netlistOf(id)).flatMap((h) => (h.ref.includes(' + ') ? [h.ref] : []))),
    ];
    expect(pairs('buck')).toEqual(['D1 + F1']);
    expect(pairs('feed')).toEqual(['D1 + F1']);
    expect(pairs('relay')).toEqual(['D1 + Q1', 'Q1 + U1']);
    expect(pairs('half-bridge')).toEqual(['M1 + U1', 'M2 + U1']);
    // the driver's output, not its return that the gate's own resistor ends at
    const driven = hypothesesOf(netlistOf('half-bridge')).filter((h) => h.ref === 'M1 + U1');
    expect(driven.map((h) => h.where)).toEqual(['M1 short, U1 pin HO']);
    // a resistor to ground keeps no pin and gate together
    expect(pairs('sensor')).toEqual([]);
  });
  it('two resistors in each other’s place are thought of where the board was worked on', () => {
    const netlist = netlistOf('buck');
    const swapped = (events: 'rework'[]) =>
      hypothesesOf(netlist, events).filter((h) => h.where === 'in each other’s place');
    expect(swapped([])).toEqual([]);
    const [pair] = swapped(['rework']);
    const [a, b] = pair.faults.map((f) => f.ref);
    const value = (ref: string) => netlist.parts.find((p) => p.ref === ref) as { value: number };
    expect(value(a).value * (pair.faults[0].factor ?? 0)).toBeCloseTo(value(b).value, 6);
    // read across each of them and under power, nothing else says the same
    const probes = netlist.parts
      .filter((p) => [a, b].includes(p.ref))
      .map((p) => ({ type: 'ohm' as const, red: Object.values(p.pins)[0], black: Object.values(p.pins)[1] }));
    const rails = ['VIN', '3V3'].map((red) => ({ type: 'ohm' as const, red, black: 'GND' }));
    const volts = { type: 'dcv' as const, red: '3V3', black: 'GND', state: 'awake' };
    const { readings } = solveCircuit({ netlist, fault: pair.faults, readings: [...probes, ...rails, volts] });
    const asked = [...probes, ...rails, volts].map((probe, i) => ({ ...probe, value: readings[i].value }));
    const found = ask({ netlist, readings: asked, history: ['rework'] });
    expect(found.groups[0]).toContain(pair.ref);
  });
  it('a pair is not named while a single fault says the same', () => {
    expect(top('buck', [{ ...ohm('VIN', 'OL'), black: 'VINF' }, ohm('VINF', 155_000)]).ref).toBe('F1');
    expect(top('relay', [{ ...ohm('12V', 0.4), black: 'COIL' }, ohm('COIL', 'OL')]).ref).toBe('D1');
  });
  it('a pair that the technician chose stands for the same two, once', () => {
    const pair = [
      { ref: 'Q1', mode: 'short' },
      { ref: 'D1', mode: 'short' },
    ];
    const { parts } = ask({ netlist: netlistOf('relay'), readings: [ohm('COIL', 0.5)], pair });
    expect(parts.filter((p) => p.ref.includes('D1') && p.ref.includes('Q1'))).toHaveLength(1);
  });
  it('several pins of a chip low together are one fault, each with ohms of its own and some spared', () => {
    const lines = [ohm('HX', 8.6), ohm('LX', 38), ohm('TXD', 24), ohm('RXD', 7_900_000), ohm('5V', 2120)];
    const found = ask({ netlist: netlistOf('can'), readings: lines });
    expect(found.suspects[0]).toMatchObject({ ref: 'U1', where: 'several pins' });
    expect(found.parts[0].p).toBeGreaterThan(0.7);
    // one low pin is that pin
    const one = ask({
      netlist: netlistOf('can'),
      readings: [ohm('TXD', 12), ohm('RXD', 7_900_000), ohm('HX', 15_000)],
    });
    expect(one.suspects[0]).toMatchObject({ mode: 'short', where: 'pin TXD' });
  });
  it('neighbours in a plug may be bridged, pins as they are numbered', () => {
    const bridges = hypothesesOf(netlistOf('data-pair')).filter((h) => h.ref === 'J1' && h.mode === 'bridge');
    expect(bridges.map((h) => h.where)).toEqual(['1–2', '2–3', '3–4']);
    const wet = hypothesesOf(netlistOf('data-pair'), ['liquid']).filter((h) => h.ref === 'J1' && h.mode === 'bridge');
    expect(wet[0].weight).toBeCloseTo(5 * bridges[0].weight);
  });
});

describe('what contradicts', () => {
  const torn = [ohm('VINF', 155_000), ohm('3V3', 0.5)];
  const volts = { type: 'dcv', red: '3V3', black: 'GND', state: 'awake', value: 3.31 };
  it('ohms and volts that no supply could feed together convict nobody, and nobody is surer than 90 %', () => {
    const d = ask({ netlist: netlistOf('buck'), readings: [volts, ...torn] });
    expect(d.doubt).toMatch(/that takes 22 W of a supply of 12 W/);
    expect(d.parts[0].p).toBeLessThanOrEqual(0.9);
    // a millivolt under power and half an ohm go well together
    const dead = ask({ netlist: netlistOf('buck'), readings: [{ ...volts, value: 0.4 }, ...torn] });
    expect(dead.doubt ?? '').not.toMatch(/ W of a supply/);
  });
  it('a current that is only roughly known contradicts less than one that was measured', () => {
    const netlist = netlistOf('buck');
    const read = [ohm('VINF', 155e3), ohm('3V3', 0.5), { type: 'isup' as const, state: 'awake', value: 0.25 }];
    const seen = [{ ref: 'C7', sign: 'hole' }];
    const [measured, rough] = [undefined, 1.2].map((spread) =>
      ask({ netlist, seen, readings: read.map((r) => (r.type === 'isup' && spread ? { ...r, spread } : r)) }),
    );
    expect(measured.doubt).toContain('the supply reads');
    expect(rough.doubt).toBeNull();
  });
  it('holds the first part down, shares still add up to one', () => {
    const d = ask({
      netlist: netlistOf('buck'),
      readings: [volts, ...torn],
      seen: [{ ref: 'C7', sign: 'hole' }],
    });
    expect(d.parts[0]).toMatchObject({ ref: 'C7', p: expect.closeTo(0.9, 6) });
    expect(d.parts.reduce((sum, p) => sum + p.p, 0)).toBeCloseTo(1, 6);
    const own = d.suspects.filter((s) => s.ref === 'C7').reduce((sum, s) => sum + s.p, 0);
    expect(own).toBeCloseTo(0.9, 3);
  });
});

describe('eight hundred searches', () => {
  it('finds faults with fewer readings than chance or a checklist, and powers nothing that is short', () => {
    const { ways } = simulate(500, 1);
    expect(ways.advice.hits).toBeGreaterThanOrEqual(0.93);
    expect(ways.advice.readings).toBeLessThan(0.6 * ways.random.readings);
    expect(ways.advice.readings).toBeLessThan(0.6 * ways.checklist.readings);
    expect(ways.advice.unsafe).toBe(0);
    // a true culprit is seldom held back; what is in no circuit always is
    const held = ways.advice.outcomes.filter((o) => o.hit && o.doubt !== null && o.group[0] !== NONE);
    expect(held.length).toBeLessThan(0.1 * 500);
    expect(ways.random.unsafe).toBeGreaterThan(0);
  }, 240_000);
});

it('states for the first part what it is worth, after every reading', () => {
  for (const bin of calibration(300, 5, [0, 0.2, 0.3, 0.5, 0.7, 0.9, 1])) {
    expect(bin.readings).toBeGreaterThan(30);
    expect(Math.abs(bin.stated - bin.right), `${bin.from} to ${bin.to}`).toBeLessThan(0.1);
  }
}, 120_000);

describe('a circuit that lacks the culprit', () => {
  it('convicts nobody in 95 of 100 searches and more, and names what the board says stands there', () => {
    const blind = simulateLacking(60, 3, false);
    expect(blind.wrong.length, blind.wrong.map((o) => `${o.fault}: ${o.group.join()}`).join('; ')).toBeLessThanOrEqual(
      5,
    );
    const told = simulateLacking(60, 4, true);
    expect(told.wrong.length).toBeLessThanOrEqual(3);
    const named = (o: { doubt: string | null }) => /not in this circuit/.test(o.doubt ?? '');
    expect(told.outcomes.filter(named).length).toBeGreaterThan(1.5 * blind.outcomes.filter(named).length);
  }, 120_000);
});

describe('place of a short', () => {
  const strip = (short_mm: number, extra: object = {}) => {
    const perMm = 1.72e-8 / 35e-6 / 1; // Ω per mm of a 1 mm wide strip
    const mV = (x: number) => 1e3 * perMm * Math.min(x, short_mm) * 1;
    return locateInput.parse({
      current_A: 1,
      injection: { x_mm: 0, y_mm: 0 },
      copper: { foil_um: 35, tracks: [{ x0_mm: 0, y0_mm: 0, x1_mm: 40, y1_mm: 0, w_mm: 1 }] },
      points: [10, 20, 30, 38].map((x) => ({ x_mm: x, y_mm: 0, mV: mV(x) })),
      candidates: [12, 18, 25, 36].map((x, i) => ({ ref: `C${i + 1}`, x_mm: x, y_mm: 0 })),
      ...extra,
    });
  };
  it('lies on a strip where the drop stops growing, not where the voltage is lowest', () => {
    const out = locateShort(strip(25));
    expect(Math.abs(out.best.x_mm - 25)).toBeLessThan(1);
    expect(out.candidates[0].ref).toBe('C3');
    expect(out.candidates[0].p).toBeGreaterThan(0.9);
    // every pad beyond it reads the same
    expect(out.fitted_mV[3]).toBeCloseTo(out.fitted_mV[2], 1);
  });
  it('lies on a sheet where the logarithms of the distances say', () => {
    // a large sheet: drop between two pads = I·ρ/(2πt)·ln of the ratio of distances, source and sink
    const [sx, sy, kx, ky] = [20, 30, 44, 26];
    const rs = 1.72e-8 / 70e-6;
    const u = (x: number, y: number) => {
      const d = (a: number, b: number) => Math.max(Math.hypot(x - a, y - b), 0.24);
      return (rs / (2 * Math.PI)) * (Math.log(d(sx, sy)) - Math.log(d(kx, ky)));
    };
    const points = [
      [28, 38],
      [40, 34],
      [50, 20],
      [36, 18],
      [52, 36],
    ].map(([x, y]) => ({
      x_mm: x,
      y_mm: y,
      mV: 1e3 * 3 * (u(x, y) - (rs / (2 * Math.PI)) * (Math.log(0.24) - Math.log(Math.hypot(sx - kx, sy - ky)))),
    }));
    const out = locateShort(
      locateInput.parse({
        current_A: 3,
        injection: { x_mm: sx, y_mm: sy },
        copper: { foil_um: 70, areas: [{ x_mm: -30, y_mm: -30, w_mm: 130, h_mm: 120 }] },
        points,
      }),
    );
    expect(Math.hypot(out.best.x_mm - kx, out.best.y_mm - ky)).toBeLessThan(5);
  });
  it('says when the drop is too small, when a pad is off the copper, when nothing fits', () => {
    const points = [10, 20, 30].map((x) => ({ x_mm: x, y_mm: 0, mV: 0.05 }));
    expect(locateShort(strip(25, { points })).notes.join()).toContain('inject about');
    const off = locateShort(strip(25, { points: [...strip(25).points, { x_mm: 10, y_mm: 9, label: 'C9', mV: 1 }] }));
    expect(off.notes.join()).toContain('C9 is not on the copper');
    const odd = [10, 20, 30].map((x, i) => ({ x_mm: x, y_mm: 0, mV: [20, 3, 18][i] }));
    expect(locateShort(strip(25, { points: odd })).notes.join()).toContain('no place on this copper');
    expect(() => strip(25, { points: points.slice(0, 2) })).toThrow('three pads');
  });
  it('names no part while nothing fits, the drop is too small, or the part was not probed', () => {
    expect(locateShort(strip(25)).doubt).toBe('no millivolts were read at C3 yet');
    const there = [...strip(25).points, { x_mm: 25, y_mm: 0, mV: strip(25).points[3].mV }];
    expect(locateShort(strip(25, { points: there })).doubt).toBeNull();
    const odd = there.map((p, i) => ({ ...p, mV: [20, 3, 18, 2, 9][i] }));
    expect(locateShort(strip(25, { points: odd })).doubt).toMatch(/fit no place/);
    expect(locateShort(strip(25, { points: there.map((p) => ({ ...p, mV: 0.05 })) })).doubt).toMatch(/too small/);
  });
  it('stays cool enough while it warms a short', () => {
    const mild = injectionWarmth('mlcc', { limit_A: 1, volts: 1, wires_ohm: 0.1, short_ohm: 0.5 });
    expect(mild.rise_K).toBeCloseTo(mild.current_A ** 2 * 0.5 * 80, 6);
    const hard = injectionWarmth('mlcc', { limit_A: 10, volts: 5, wires_ohm: 0.01, short_ohm: 0.3 });
    expect(hard.rise_K).toBeLessThanOrEqual(60.001);
  });
});

describe('what may be said of a suspect', () => {
  /** A 5 V rail with two ceramics, a regulator behind 12 V, and a line of its own with a clamp. */
  const netlist = {
    ground: 'GND',
    parts: [
      { ref: 'C1', kind: 'C', cls: 'mlcc', value: 1e-7, pins: { 1: '5V', 2: 'GND' } },
      { ref: 'C2', kind: 'C', cls: 'mlccbig', value: 1e-5, pins: { 1: '12V', 2: 'GND' } },
      { ref: 'D1', kind: 'ZB', cls: 'tvs', bv: 27, pins: { 1: 'LINE', 2: 'GND' } },
      { ref: 'R1', kind: 'R', value: 1e4, pins: { 1: 'LINE', 2: '5V' } },
      {
        ref: 'U1',
        kind: 'IC',
        cls: 'power',
        pins: { 1: '12V', 2: 'GND', 5: '5V' },
        rail: ['1'],
        res: [['1', '2', 3600, 3600]],
        blocks: [
          {
            type: 'ldo',
            pins: { VIN: '1', GND: '2', OUT: '5' },
            vuv: 4,
            vset: 5,
            vdo: 0.5,
            ilim: 0.5,
            rout: 0.05,
            iq: 1e-4,
          },
        ],
      },
      { ref: 'U2', kind: 'IC', cls: 'load', pins: { 1: '5V', 2: 'GND' }, rail: ['1'], res: [['1', '2', 1500, 90]] },
    ],
    power: { states: { on: { sources: [{ p: '12V', v: 12, ilim: 0.5 }] } } },
  };
  type Reading = [type: 'ohm' | 'dcv' | 'diode', red: string, value: number | 'OL', good?: number];
  const ask = (...readings: Reading[]) =>
    diagnose(
      diagnoseInput.parse({
        netlist,
        readings: readings.map(([type, red, value, good]) => ({
          ...{ type, red, black: 'GND', state: type === 'dcv' ? 'on' : null, value },
          ...(good === undefined ? {} : { good }),
        })),
      }),
    );

  it('a short that its rail shows is convicted without a doubt', () => {
    const r = ask(['ohm', '5V', 1.1], ['ohm', '12V', 3500]);
    expect(['C1', 'U2', 'U1']).toContain(r.parts[0].ref);
    expect(r.doubt).toBeNull();
  });
  it('megohms and an open meter are the same nothing', () => {
    expect(ask(['ohm', '5V', 1.1], ['ohm', '12V', 3500], ['ohm', 'LINE', 10_001]).doubt).toBeNull();
    const clamp = ask(['ohm', 'LINE', 0.9], ['ohm', '5V', 1480], ['ohm', '12V', 'OL']);
    expect(clamp.parts[0].ref).toBe('D1');
  });
  it('none while a reading contradicts it', () => {
    const r = ask(['ohm', '5V', 1.1], ['ohm', '12V', 3500], ['diode', '5V', 'OL']);
    expect(r.doubt).toMatch(/^5V reads .* it would show about/);
  });
  it('none where a good board reads otherwise on a net that the circuit does not hold', () => {
    expect(ask(['ohm', '5V', 1.1], ['ohm', 'MOTOR', 0.7, 48]).doubt).toMatch(
      /MOTOR reads 0\.7 Ω where a good board reads 48/,
    );
    expect(ask(['ohm', '5V', 1.1], ['ohm', 'MOTOR', 46, 48]).doubt).toBeNull();
  });
  it('none at which nothing was read: it is measured first', () => {
    const behind = {
      ...netlist,
      parts: [
        ...netlist.parts.filter((p) => p.ref !== 'C1' && p.ref !== 'U2'),
        { ref: 'L1', kind: 'L', r: 0.05, pins: { 1: '5V', 2: 'VOUT' } },
        { ref: 'C3', kind: 'C', cls: 'mlccbig', value: 1e-5, pins: { 1: 'VOUT', 2: 'GND' } },
      ],
    };
    const read = (...nets: string[]) =>
      diagnose(
        diagnoseInput.parse({
          netlist: behind,
          readings: nets.map((red) => ({ type: 'ohm', red, black: 'GND', value: red === '12V' ? 3500 : 1.1 })),
        }),
      );
    const before = read('12V', '5V');
    expect([before.parts[0].ref, before.doubt]).toEqual(['C3', 'nothing has been read at C3 yet']);
    expect(before.done).toBe(false);
    expect([before.next[0].red, before.next[0].black]).toContain('VOUT');
    expect(read('12V', '5V', 'VOUT').doubt).toBeNull();
  });
  it.each([
    ['a regulated rail 28 % over', ['dcv', '5V', 6.4], /5V was measured at 6\.4 V where 5 V is right/],
    ['also against a good board', ['dcv', '5V', 2.6, 1.8], /2\.6 V where 1\.8 V is right/],
    ['a tenth over is still a meter and a tolerance', ['dcv', '5V', 5.3], null],
    ['the supply may be set somewhat higher', ['dcv', '12V', 13.8], null],
    ['but not by a third', ['dcv', '12V', 16.5], /12V was measured at 16\.5 V/],
  ] as [string, Reading, RegExp | null][])('power: %s', (_, reading, words) => {
    const r = ask(['ohm', '5V', 1480], ['ohm', '12V', 3550], reading);
    if (words) {
      expect(r.power).toBe('blocked');
      expect(r.why).toMatch(words);
      expect(r.next.some((t) => t.type === 'dcv')).toBe(false);
    } else expect(r.why).not.toMatch(/was measured at/);
  });
  it('a later reading that is right again lets go of it', () => {
    const r = ask(['ohm', '5V', 1480], ['ohm', '12V', 3550], ['dcv', '5V', 6.4], ['dcv', '5V', 5.01]);
    expect(r.power).toBe('allowed');
  });
  it('kilohms on a rail are no short beside a model’s megohms', () => {
    const open = { ...netlist, parts: netlist.parts.map((p) => ('res' in p ? { ...p, res: [] } : p)) };
    const parsed = diagnoseInput.parse({
      netlist: open,
      readings: [
        { type: 'ohm', red: '5V', black: 'GND', value: 61e3 },
        { type: 'ohm', red: '12V', black: 'GND', value: 61e3 },
      ],
    });
    expect(diagnose(parsed).why).not.toMatch(/find the short first/);
    parsed.readings[0].value = 40;
    expect(diagnose(parsed).why).toMatch(/5V reads 40 Ω.*find the short first/);
    parsed.readings[0].value = 900;
    parsed.readings[0].good = 5100;
    expect(diagnose(parsed).why).toMatch(/900 Ω, where 5\.1 kΩ is healthy/);
  });
});
