import { BENCHES, DEFAULT_STATION, type KitTool, USUAL } from '@orthos/core/rework';
import { describe, expect, it } from 'vitest';
import { benchFor, benchNames } from '../src/lib/server/jobs/bench.ts';
import type { KitItem } from '../src/lib/server/repositories/kit.ts';
import { fieldsOf, readTool, toolLine } from '../src/lib/server/toolForm.ts';

const C = { temperature: 'C', length: 'mm' } as const;
const F = { temperature: 'F', length: 'mm' } as const;
let n = 0;
const item = (kind: KitTool, bench = '', more: Partial<KitItem> = {}): KitItem => ({
  id: `${(n += 1)}`,
  ...{ kind, bench, name: `${kind} ${n}`, version: 1, outOfOrder: false },
  doc: DEFAULT_STATION,
  spec: USUAL[kind].spec,
  ...more,
});
const texts = (of: KitItem, units: typeof C | typeof F = C) =>
  Object.fromEntries(fieldsOf(of, units).map((f) => [f.key, f.value]));

describe('the form of a tool', () => {
  it('brings back what it shows, of every kind, in °C and °F', () => {
    const listed = Object.values(BENCHES).flatMap((b) => b.items.map(({ spec }) => item(spec.tool, '', { spec })));
    for (const tool of listed)
      for (const units of [C, F]) {
        const read = readTool(tool, texts(tool, units), units);
        expect(read, `${tool.kind} ${units.temperature}`).toMatchObject({ spec: tool.spec });
      }
    expect(listed.length).toBeGreaterThan(40);
  });
  it('reads nozzles, tips, alloys, dates and dials as people write them', () => {
    const air = item('air');
    const read = readTool(
      air,
      { ...texts(air), nozzles: '5, 8 slot20x3 rim12x12/2'.replace(',', ''), dial: '1=200 10=480' },
      C,
    );
    expect(read).toMatchObject({
      spec: { nozzles: [{ round_mm: 5 }, { round_mm: 8 }, { slot_mm: [20, 3] }, { rim_mm: [12, 12], bore_mm: 2 }] },
      doc: {
        dials: {
          air: {
            table: [
              [1, 200],
              [10, 480],
            ],
          },
        },
      },
    });
    const iron = item('iron');
    expect(readTool(iron, { ...texts(iron), tips_mm: '0,8 2', dial: '-12' }, C)).toMatchObject({
      spec: { tips_mm: [0.8, 2] },
      doc: { dials: { iron: { offset_K: -12 } } },
    });
    const flux = item('flux');
    expect(readTool(flux, { ...texts(flux), active_C: '248 to 662', expires: '2027-05-31' }, F)).toMatchObject({
      spec: { active_C: [120, 350], expires: '2027-05-31' },
    });
  });
  it('says at its field what it cannot read', () => {
    const wrong: [KitTool, string, string][] = [
      ['air', 'set_C', ''],
      ['air', 'set_C', '480 to 100'],
      ['air', 'nozzles', 'wide'],
      ['air', 'nozzles', ''],
      ['air', 'nozzles', 'slot20'],
      ['air', 'efficiency', '200'],
      ['air', 'dial', 'ten'],
      ['iron', 'tips_mm', 'x'],
      ['iron', 'power_W', '2'],
      ['iron', 'ironPlusMinus_K', ''],
      ['wire', 'wt', 'Zz9'],
      ['wire', 'dia_mm', '50'],
      ['paste', 'expires', 'soon'],
      ['below', 'T_C', '10 to 2000'],
      ['below', 'kind', 'stove'],
    ];
    for (const [kind, key, text] of wrong) {
      const tool = item(kind);
      const read = readTool(tool, { ...texts(tool), [key]: text }, C);
      expect('issues' in read && Object.keys(read.issues), `${kind} ${key} "${text}"`).toEqual([key]);
    }
    const air = item('air');
    expect(readTool(air, { ...texts(air), air: 'full', full: '' }, C)).toMatchObject({
      issues: { full: '5 to 300 L/min' },
    });
    expect(readTool(air, { ...texts(air), air: 'full', full: '90' }, C)).toMatchObject({ doc: { air: 90 } });
  });
  it('has a line that says what it is', () => {
    expect(toolLine(item('air'), C)).toBe('100 to 480 °C · 5 to 120 L/min · nozzles 5 8 10 12 mm');
    expect(toolLine(item('wire'), C)).toBe('Sn63Pb37 · 0.7 mm');
    expect(toolLine(item('braid'), C)).toBe('');
  });
});

describe('the bench of a job', () => {
  const left = item('air', 'left');
  const right = item('iron', 'right');
  const wire = item('wire', 'right');
  const shared = item('flux');

  it('that nobody listed has everything, and borrows what it lacks', () => {
    expect(benchFor([], {})).toMatchObject({ name: '', model: DEFAULT_STATION });
    expect(benchFor([], {}).kit).toBeUndefined();
    const { kit, station, iron } = benchFor([left, right], { bench: 'left' });
    expect([kit, station, iron]).toEqual([undefined, left, right]);
  });
  it('that was listed has what lies there and what is at hand everywhere', () => {
    const { kit, station, iron } = benchFor([left, right, wire, shared], { bench: 'right' });
    expect(kit?.map((i) => i.tool)).toEqual(['iron', 'wire', 'flux']);
    expect([station, iron]).toEqual([undefined, right]);
  });
  it('does without what is out of order', () => {
    const broken = item('air', 'left', { outOfOrder: true });
    const { kit, station } = benchFor([broken, item('flux', 'left')], { bench: 'left' });
    expect([kit?.map((i) => i.tool), station]).toEqual([['flux'], undefined]);
  });
  it('is that of its station where none was named, or one that is gone', () => {
    expect(benchFor([left, right, wire], { stationId: left.id }).name).toBe('left');
    expect(benchFor([left, right, wire], { bench: 'attic', ironId: right.id }).name).toBe('right');
    expect(benchNames([left, right, wire, shared])).toEqual(['left', 'right']);
  });
  it('tells plans what its air dial is, and what its dials read', () => {
    const unmarked = item('air', 'left', { doc: { ...DEFAULT_STATION, air: 'unmarked' } });
    const full = item('air', 'left', { doc: { ...DEFAULT_STATION, air: 80, dials: { air: { offset_K: 5 } } } });
    expect(benchFor([unmarked, item('flux', 'left')], {}).kit?.[0]).toMatchObject({ flow_L_min: 'unmarked' });
    const at = benchFor([full, item('flux', 'left')], {});
    expect(at.kit?.[0]).toMatchObject({ flow_L_min: [5, 80] });
    expect(at.model).toMatchObject({ air: 80, dials: { air: { offset_K: 5 } } });
  });
});
