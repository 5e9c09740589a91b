import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { beyondMeter, METER_TYPES, OHM_RANGES, rangeOf } from '../src/circuit/meters.ts';
import { netlistSchema } from '../src/circuit/netlist.ts';
import { templateById } from '../src/circuit/templates.ts';
import { copperDrawingSchema, type CopperDrawing } from '../src/copper/drawing.ts';
import { companionsOf } from '../src/diagnosis/companions.ts';
import { diagnose } from '../src/diagnosis/diagnose.ts';
import { diagnoseInput } from '../src/diagnosis/diagnoseForm.ts';
import { locateInput, locateShort } from '../src/diagnosis/locate.ts';
import { copperBetween, copperOfNet } from '../src/diagnosis/railCopper.ts';
import { meetsRoutine, routineStepSchema } from '../src/diagnosis/routine.ts';

const drawing = (shapes: CopperDrawing['layers'][number]['shapes']): CopperDrawing =>
  copperDrawingSchema.parse({ v: 1, nets: ['GND', '3V3'], layers: [{ name: 'top', shapes }] });
const areaOf = (copper: ReturnType<typeof copperOfNet>) =>
  (copper?.areas ?? []).reduce((sum, a) => sum + a.w_mm * a.h_mm, 0);

describe('copper of a rail', () => {
  it('takes strokes, discs and areas of that net alone', () => {
    const copper = copperOfNet(
      drawing([
        { k: 'line', n: 1, w: 0.5, p: [0, 0, 10, 0, 10, 5] },
        { k: 'line', n: 0, w: 2, p: [0, 9, 10, 9] },
        { k: 'disc', n: 1, x: 10, y: 5, d: 2 },
        { k: 'area', n: 1, r: [[20, 0, 30, 0, 30, 4, 20, 4]], e: 1 },
      ]),
      0,
      '3V3',
    );
    expect(copper?.tracks).toEqual([
      { x0_mm: 0, y0_mm: 0, x1_mm: 10, y1_mm: 0, w_mm: 0.5 },
      { x0_mm: 10, y0_mm: 0, x1_mm: 10, y1_mm: 5, w_mm: 0.5 },
    ]);
    expect(copper?.areas).toEqual([{ x_mm: 9, y_mm: 4, w_mm: 2, h_mm: 2 }]);
  });
  it('is nothing where the net, the layer or its copper is missing', () => {
    const d = drawing([{ k: 'line', n: 0, w: 1, p: [0, 0, 1, 0] }]);
    expect([copperOfNet(d, 0, '3V3'), copperOfNet(d, 0, 'NONE'), copperOfNet(d, 3, 'GND')]).toEqual([null, null, null]);
  });
  it('cuts areas into strips of the same size, holes left out', () => {
    const rings = [
      [0, 0, 20, 0, 20, 12, 0, 12],
      [5, 3, 9, 3, 9, 7, 5, 7],
    ];
    const copper = copperOfNet(drawing([{ k: 'area', n: 1, r: rings }]), 0, '3V3');
    expect(Math.abs(areaOf(copper) - (240 - 16)) / 224).toBeLessThan(0.01);
    const hole = copper?.areas.some((a) => a.y_mm > 3.4 && a.y_mm < 6.4 && a.x_mm < 7 && a.x_mm + a.w_mm > 7);
    expect(hole).toBe(false);
  });
  it('fills any triangle to a hundredth of its box', () => {
    const p = fc.float({ min: 0, max: 40, noNaN: true });
    fc.assert(
      fc.property(fc.array(p, { minLength: 6, maxLength: 6 }), (ring) => {
        const [ax, ay, bx, by, cx, cy] = ring;
        const exact = Math.abs((bx - ax) * (cy - ay) - (cx - ax) * (by - ay)) / 2;
        fc.pre(exact > 2);
        const copper = copperOfNet(drawing([{ k: 'area', n: 1, r: [ring] }]), 0, '3V3');
        expect(Math.abs(areaOf(copper) - exact)).toBeLessThan(0.01 * 1600);
      }),
    );
  });
  it('joins pads by the shortest tree: one track fewer than pads, never longer than a chain', () => {
    const pad = fc.record({ x_mm: fc.integer({ min: 0, max: 90 }), y_mm: fc.integer({ min: 0, max: 60 }) });
    const far = (a: { x_mm: number; y_mm: number }, b: { x_mm: number; y_mm: number }) =>
      Math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm);
    fc.assert(
      fc.property(fc.array(pad, { minLength: 1, maxLength: 14 }), (pads) => {
        const { tracks } = copperBetween(pads, 0.8);
        expect(tracks.length).toBe(pads.length - 1);
        const tree = tracks.reduce((sum, t) => sum + Math.hypot(t.x1_mm - t.x0_mm, t.y1_mm - t.y0_mm), 0);
        const chain = pads.slice(1).reduce((sum, p, i) => sum + far(pads[i], p), 0);
        expect(tree).toBeLessThanOrEqual(chain + 1e-9);
      }),
    );
  });
  it('finds a short through copper taken from a drawing', () => {
    // a comb: a spine of 30 mm with four teeth, the short at the end of the third
    const teeth = [6, 14, 22, 30];
    const d = drawing([
      { k: 'line', n: 1, w: 1, p: [0, 0, 30, 0] },
      ...teeth.map((x): CopperDrawing['layers'][number]['shapes'][number] => ({
        k: 'line',
        n: 1,
        w: 1,
        p: [x, 0, x, 8],
      })),
    ]);
    const copper = copperOfNet(d, 0, '3V3');
    const perMm = (1.72e-8 / 35e-6) * 1e3;
    const drop = [6, 14, 30, 22].map((mm) => mm * perMm);
    const located = locateShort(
      locateInput.parse({
        current_A: 1,
        injection: { x_mm: 0, y_mm: 0 },
        copper: { foil_um: 35, ...copper },
        points: [
          { x_mm: 6, y_mm: 8, mV: drop[0] },
          { x_mm: 14, y_mm: 8, mV: drop[1] },
          { x_mm: 22, y_mm: 8, mV: drop[2] },
          { x_mm: 30, y_mm: 8, mV: drop[3] },
        ],
        candidates: teeth.map((x, n) => ({ ref: `C${n + 1}`, x_mm: x, y_mm: 8 })),
      }),
    );
    expect(located.candidates[0].ref).toBe('C3');
    expect(located.candidates[0].p).toBeGreaterThan(0.8);
    expect(Math.hypot(located.best.x_mm - 22, located.best.y_mm - 8)).toBeLessThan(2);
  });
});

describe('what fails along with a part', () => {
  const netlist = netlistSchema.parse({
    ground: 'GND',
    parts: [
      { ref: 'Q1', kind: 'M', pins: { G: 'GATE', D: 'OUT', S: 'SENSE' }, type: 'N', vto: 2, kp: 20 },
      { ref: 'R1', kind: 'R', pins: { 1: 'DRIVE', 2: 'GATE' }, value: 22 },
      { ref: 'R2', kind: 'R', pins: { 1: 'SENSE', 2: 'GND' }, value: 0.05 },
      { ref: 'R9', kind: 'R', pins: { 1: 'AWAY', 2: 'GND' }, value: 100 },
      ...[1, 2, 3, 4, 5, 6, 7].map((n) => ({ ref: `C${n}`, kind: 'C', pins: { 1: 'RAIL', 2: 'GND' }, value: 1e-7 })),
      { ref: 'D1', kind: 'D', pins: { A: 'OUT', K: 'RAIL' }, model: 'si' },
    ],
  });
  it('sits on its small nets: gate resistor, shunt, flyback diode', () =>
    expect(companionsOf(netlist, 'Q1')).toEqual(['R1', 'R2', 'D1']));
  it('a rail says nothing: its ceramics do not follow each other', () =>
    expect(companionsOf(netlist, 'C1')).toEqual([]));
  it('of a part that is not there is nothing', () => expect(companionsOf(netlist, 'X9')).toEqual([]));
});

describe('the meter of the kit', () => {
  const netlist = templateById('ldo')?.netlist;
  const ask = (more: object) =>
    diagnose(
      diagnoseInput.parse({
        netlist,
        readings: [{ type: 'ohm', red: '1V8', black: 'GND', value: 2.2, good: 740 }],
        ...more,
      }),
    );
  it('a poor one leaves the ranking less sure', () => {
    const sharp = (d: ReturnType<typeof ask>) => d.parts.reduce((sum, p) => sum + p.p * p.p, 0);
    expect(sharp(ask({ accuracy: { ohm_percent: 40, volt_percent: 0 } }))).toBeLessThan(sharp(ask({})));
    expect(sharp(ask({ accuracy: { ohm_percent: 0, volt_percent: 40 } }))).toBeCloseTo(sharp(ask({})), 9);
    // and without a good board beside it
    const alone = { readings: [{ type: 'ohm', red: '1V8', black: 'GND', value: 2.2 }] };
    expect(sharp(ask({ ...alone, accuracy: { ohm_percent: 40, volt_percent: 0 } }))).not.toBeCloseTo(
      sharp(ask(alone)),
      6,
    );
  });
  it('leads are taken off in the ranking, the words keep what the meter showed', () => {
    const out = ask({ lead_resistance_ohm: 0.5 });
    expect(out.parts[0].voices?.[0].value).toBe(2.2);
    expect(out.why).toContain('2.2 Ω');
  });
  it.each([
    ['ohm', 470, '600 Ω'],
    ['ohm', 4700, '6 kΩ'],
    ['ohm', 2.2e6, '6 MΩ'],
    ['ohm', 'OL', '60 MΩ'],
    ['diode', 0.45, '1 mA'],
    ['dcv', 3.3, 'auto'],
  ] as const)('%s %s is read on %s', (type, value, range) => expect(rangeOf(type, value)).toBe(range));
  it.each([
    ['ohm', -1, 'power away'],
    ['ohm', 7e7, 'type OL'],
    ['diode', 450, 'OL above 2.8 V'],
    ['diode', -0.5, 'voltage on the board'],
    ['dcv', 1200, 'no hand-held meter'],
    ['dcv', 'OL', 'have no OL'],
    ['isup', 35, '35m'],
  ] as const)('%s %s cannot be: %s', (type, value, says) => expect(beyondMeter(type, value)).toContain(says));
  it('takes every value that a meter shows', () => {
    for (const type of METER_TYPES) expect(beyondMeter(type, 0.5)).toBeNull();
    for (const { full } of OHM_RANGES) expect(beyondMeter('ohm', full)).toBeNull();
    expect(beyondMeter('ohm', 'OL')).toBeNull();
  });
});

describe('a step of a routine', () => {
  const step = (least: number | null, most: number | null) =>
    routineStepSchema.safeParse({
      id: 's',
      says: 'read it',
      reading: { type: 'ohm', red: '5V', black: '', state: null, least, most },
    });
  it.each([
    [1000, null, 1200, true],
    [1000, null, 12, false],
    [null, 10, 'OL', false],
    [1000, null, 'OL', true],
    [3.2, 3.4, 3.3, true],
    [3.2, 3.4, 3.5, false],
    [null, null, 'OL', true],
  ] as const)('%s to %s: %s is %s', (least, most, value, met) => {
    const { data } = step(least, most);
    expect(data?.reading && meetsRoutine(data.reading, value)).toBe(met);
  });
  it('has its bounds the right way round', () => {
    expect(step(5, 2).success).toBe(false);
    expect(step(2, 2).success).toBe(true);
  });
});
