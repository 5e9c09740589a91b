/** The forms of a plan: texts from settings, settings from texts. */
import { describe, expect, it } from 'vitest';
import { mainPhase, type Method, methodsFor, type Surroundings, surroundingsSchema } from '@orthos/core/rework';
import { settingLine } from '../src/lib/plan/settingLine';
import { fieldsOf, methodOf, textsOf } from '../src/lib/plan/settings';
import {
  surroundingsOf,
  surroundingWords,
  textsOf as surroundingTexts,
  type SurroundingsTexts,
} from '../src/lib/plan/surroundings';

const units = { temperature: 'C', length: 'mm' } as const;
const fahrenheit = { ...units, temperature: 'F' } as const;
const method = (pkg: string, id: string): Method => {
  const found = methodsFor(pkg).find((m) => m.method.id === id)?.method;
  if (!found) throw new Error(`no ${id}`);
  return found;
};
const air = method('SOIC-16', 'air-slow');
const bead = method('SOIC-16', 'bead');
/** Fields of the last phase, by their keys. */
const inForm = (m: Method, change: Record<string, string>) =>
  Object.fromEntries(Object.entries(change).map(([key, text]) => [`${mainPhase(m).id}/${key}`, text]));
const settingsOf = (m: Method) => mainPhase(m).settings;
const chained = method('QFP-44', 'spike-then-air');
const read = (m: Method, change: Record<string, string>) =>
  methodOf(m, { ...textsOf(m, units), ...inForm(m, change) }, units);
const changed = (m: Method, change: Record<string, string>) => {
  const r = read(m, change);
  if ('issues' in r) throw new Error(JSON.stringify(r.issues));
  return r.method;
};
const issues = (m: Method, change: Record<string, string>) => {
  const r = read(m, change);
  return 'issues' in r ? Object.keys(r.issues).map((k) => k.split('/')[1]) : [];
};

describe('a method’s form', () => {
  it.each([air, bead, method('C0805', 'tweezers'), method('DIP-8', 'vacuum'), chained])(
    'untouched, it gives the same method in either scale (%#)',
    (m) => {
      for (const u of [units, fahrenheit]) {
        const same = methodOf(m, textsOf(m, u), u);
        expect('method' in same && same.method).toEqual(m);
      }
    },
  );
  it('an unmarked air dial is read and said in percent of the dial', () => {
    const panel = { ...units, air: 'unmarked' } as const;
    expect(settingLine(air, panel)).toBe('390 °C, dial at 75 %, 14 mm');
    expect(textsOf(air, panel)['air/flow_L_min']).toBe('75');
    const turned = methodOf(air, { ...textsOf(air, panel), 'air/flow_L_min': '50' }, panel);
    expect('method' in turned && settingsOf(turned.method)).toMatchObject({ flow_L_min: 30 });
    const same = methodOf(air, textsOf(air, panel), panel);
    expect('method' in same && same.method).toEqual(air);
    const off = methodOf(air, { ...textsOf(air, panel), 'air/flow_L_min': '900' }, panel);
    expect('issues' in off && off.issues['air/flow_L_min']).toMatch(/% of its dial/);
  });
  it('reads lean, pulses, mouth, closing in, and takes them back', () => {
    const all = {
      tilt_deg: '20',
      approach_deg: '-90',
      sweep_deg: '45',
      'pulse.on_s': '3',
      'pulse.off_s': '1,5',
      'mouth.kind': 'slot',
      'mouth.w_mm': '12',
      'mouth.h_mm': '8',
      'stages.0.from_s': '20',
      'stages.0.standoff_mm': '8',
    };
    const full = changed(air, all);
    expect(settingsOf(full)).toMatchObject({
      tilt_deg: 20,
      approach_deg: -90,
      sweep_deg: 45,
      pulse: { on_s: 3, off_s: 1.5 },
      mouth: { kind: 'slot', w_mm: 12, h_mm: 8 },
      stages: [{ from_s: 20, standoff_mm: 8 }],
    });
    expect(settingLine(full, units)).toBe(
      '390 °C, 45 L/min, 14 mm, 8 mm from 20 s, in a line, pulsed, leaning 20°, slot',
    );
    expect(changed(full, Object.fromEntries(Object.keys(all).map((k) => [k, ''])))).toEqual(air);
  });
  it('a stage keeps what it changes besides the distance', () => {
    const [phase] = air.phases;
    const stages = [{ from_s: 10, set_C: 430 }];
    const hotter = { ...air, phases: [{ ...phase, settings: { ...phase.settings, stages } }] } as Method;
    expect(textsOf(hotter, units)['air/stages.0.from_s']).toBe('10');
    expect(settingLine(hotter, units)).toContain('430 °C from 10 s');
    const closer = changed(hotter, { 'stages.0.standoff_mm': '9' });
    expect(settingsOf(closer)).toMatchObject({ stages: [{ from_s: 10, set_C: 430, standoff_mm: 9 }] });
  });
  it('reads the bead’s alloy, irons and strokes', () => {
    const m = changed(bead, { alloy: 'Sn63Pb37', irons: '2', tip: 'chisel', pass_s: '1.5', rest_s: '0.5' });
    expect(settingsOf(m)).toMatchObject({
      alloy: { Sn: 63, Pb: 37 },
      irons: 2,
      tip: 'chisel',
      pass_s: 1.5,
      rest_s: 0.5,
    });
    expect(settingLine(m, units)).toBe('320 °C, 1.2 mm³/mm of alloy; then 320 °C, 25 s, two irons');
  });
  it.each([
    [air, { set_C: '900' }, ['set_C']],
    [air, { flow_L_min: 'much' }, ['flow_L_min']],
    [air, { sweep_mm: '' }, ['sweep_mm']],
    [air, { 'pulse.on_s': '3' }, ['pulse.off_s']],
    [air, { 'stages.0.from_s': '20' }, ['stages.0.standoff_mm']],
    [air, { 'stages.0.flow_L_min': '20' }, ['stages.0.from_s']],
    [air, { 'mouth.kind': 'rim' }, ['mouth.w_mm', 'mouth.h_mm']],
    [air, { tilt_deg: '80' }, ['tilt_deg']],
    [bead, { alloy: 'Kryptonite' }, ['alloy']],
    [bead, { alloy: 'Bi54Sn26Cd20' }, ['alloy']],
  ] as const)('refuses nonsense with its field (%#)', (m, change, fields) => {
    expect(issues(m, change as Record<string, string>)).toEqual(fields);
  });
  it('of several phases has the fields of each, and changes the one that is meant', () => {
    expect(settingLine(chained, units)).toBe('360 °C, 1 × of Sn63Pb37 worked in; then 390 °C, 45 L/min, 14 mm');
    const names = Object.keys(textsOf(chained, units));
    expect(names).toEqual(expect.arrayContaining(['spike/set_C', 'spike/giveUp_s', 'air/set_C', 'air/giveUp_s']));
    const next = methodOf(chained, { ...textsOf(chained, units), 'spike/set_C': '350', 'air/giveUp_s': '90' }, units);
    if ('issues' in next) throw new Error('refused');
    expect(next.method.phases.map((p) => [p.id, 'set_C' in p.settings && p.settings.set_C, p.giveUp_s])).toEqual([
      ['spike', 350, 240],
      ['air', 390, 90],
    ]);
    const wrong = methodOf(chained, { ...textsOf(chained, units), 'spike/ratio': '50' }, units);
    expect('issues' in wrong && wrong.issues).toEqual({ 'spike/ratio': '0.1 to 5 ×' });
  });
  it('has a field for everything it names, each once', () => {
    for (const phase of [air, bead, chained].flatMap((m) => m.phases)) {
      const { usual, more } = fieldsOf(phase);
      const keys = [...usual, ...more].map((f) => f.key);
      expect(new Set(keys).size).toBe(keys.length);
    }
  });
});

describe('the form of the surroundings', () => {
  const target = { partId: 'u7', x_mm: 30, y_mm: 20, terminals: ['1', '2', '3'] };
  const form = (change: Partial<SurroundingsTexts>) =>
    surroundingsOf({ ...surroundingTexts({}, units), ...change }, units, target);
  const value = (change: Partial<SurroundingsTexts>): Surroundings => {
    const r = form(change);
    if ('problem' in r) throw new Error(r.problem);
    return r.value;
  };
  it('nothing set is nothing', () => {
    expect(value({})).toEqual({});
    expect(surroundingWords({})).toBe('');
  });
  const full: Partial<SurroundingsTexts> = {
    under: 'preheater',
    plate: '150',
    window: '24 30',
    held: 'props',
    props: '5 5, 55 40',
    prop: '6',
    draught: '3',
    covers: { c1: 'foil', c2: '', bt1: 'out' },
    moisture: 'damp',
    after: 'reused',
    sinks: { u1: 'heatsink' },
    clipped: '1, 2',
    own: 'Bi58Sn42',
    mixed: 'Sn63Pb37',
    ratio: '0,5',
    volume: '2',
    corroded: '1, 3',
  };
  it('everything set is what the core takes, and comes back as it was typed', () => {
    const all = value(full);
    expect(surroundingsSchema.safeParse(all).success).toBe(true);
    expect(all).toEqual({
      under: { kind: 'preheater', T_C: 150, h: 40, window: { x_mm: 18, y_mm: 5, w_mm: 24, h_mm: 30 } },
      held: {
        kind: 'props',
        d_mm: 6,
        places: [
          { x_mm: 5, y_mm: 5 },
          { x_mm: 55, y_mm: 40 },
        ],
      },
      draught: 3,
      covers: [{ partId: 'c1', kind: 'foil' }],
      sinks: [
        { partId: 'u1', kind: 'heatsink' },
        { partId: 'u7', kind: 'clip', terminals: ['1', '2'] },
      ],
      joints: [
        { alloy: { Bi: 58, Sn: 42 }, with: [{ alloy: { Sn: 63, Pb: 37 }, ratio: 0.5 }], volume: 2 },
        { terminals: ['1', '3'], corroded: true },
      ],
      absent: ['bt1'],
      moisture: 'damp',
      reused: true,
    });
    const again = surroundingsOf(surroundingTexts(all, units), units, target);
    expect('value' in again && again.value).toEqual(all);
    expect(surroundingWords(all)).toBe(
      'preheater, props, draught, 1 covered, 2 with something on them, joints, 1 taken out, damp, goes on again',
    );
  });
  it('all joints corroded, a frame, infrared in one window', () => {
    const v = value({ corroded: 'all', held: 'frame', frame: '4', under: 'infrared', flux: '6', window: '20' });
    expect(v).toMatchObject({
      joints: [{ corroded: true }],
      held: { kind: 'frame', width_mm: 4 },
      under: { kind: 'infrared', flux_W_m2: 6000, window: { w_mm: 20, h_mm: 20 } },
    });
    const texts = surroundingTexts(v, units);
    expect(texts).toMatchObject({ corroded: 'all', frame: '4', flux: '6', window: '20 20', own: '' });
  });
  it('joints under what leaked: all of them, or some, and back', () => {
    expect(value({ corroded: 'leaked' }).joints).toEqual([{ leaking: true }]);
    expect(value({ corroded: 'leaked 1, 3' }).joints).toEqual([{ terminals: ['1', '3'], leaking: true }]);
    for (const corroded of ['leaked all', 'leaked 1 3', '1 3', 'all', ''])
      expect(surroundingTexts(value({ corroded }), units).corroded).toBe(corroded);
  });
  it('decimal commas in places of props', () => {
    expect(value({ held: 'props', props: '5,5 7,25, 10 12', prop: '5' }).held).toMatchObject({
      places: [
        { x_mm: 5.5, y_mm: 7.25 },
        { x_mm: 10, y_mm: 12 },
      ],
    });
  });
  it.each([
    [{ under: 'preheater', plate: '900' }, /30 to 300/],
    [{ under: 'infrared', flux: '-1' }, /0 to 60/],
    [{ under: 'preheater', window: 'wide' }, /Window/],
    [{ held: 'frame', frame: '0' }, /Frame/],
    [{ held: 'props', props: '5' }, /Props at/],
    [{ held: 'props', props: '' }, /Props at/],
    [{ own: 'lead' }, /elements/],
    [{ mixed: 'Sn63Pb37', ratio: '0' }, /Worked in/],
    [{ volume: 'double' }, /Solder/],
    [{ corroded: '1 9' }, /no joint 9/],
  ] as const)('%j is answered with a sentence', (change, says) => {
    const r = form(change as Partial<SurroundingsTexts>);
    expect('problem' in r && r.problem).toMatch(says);
  });
});
