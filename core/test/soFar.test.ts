// What hands have done so far, as phases: a tool that comes late, another alloy, dials set otherwise, work given up before.
import { describe, expect, it } from 'vitest';
import { asDone, asLaidOut, doneBefore, freedBefore, lateBy, operationFor, withAlloy } from '../src/hands/index.ts';
import {
  DEFAULT_STATION,
  expressBoard,
  guideOf,
  handsClock,
  type Method,
  methodsFor,
  type Panel,
  type Phase,
  type PlanInput,
  type PlanResult,
  runPlan,
} from '../src/rework/index.ts';

const PANEL: Panel = { temperature: 'C', length: 'mm' };
const context = { now: () => 0 };

const board = expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 10 });
const target = board.parts.find((p) => p.partId === 'target');
if (!target) throw new Error('no target');
const methodOf = (id: string): Method => {
  const found = methodsFor('SOIC-8').find((m) => m.method.id === id)?.method;
  if (!found) throw new Error(`no ${id}`);
  return found;
};
const chain = methodOf('alloy-then-air');
const work = { board, target, method: chain, guide: null, nearest: null, panel: PANEL };
const list = operationFor('remove', work);

const T0 = 1_700_000_000_000;
const mark = (instruction: string, at_s: number) => {
  const i = list.find((x) => x.id === instruction);
  if (!i) throw new Error(`no ${instruction}`);
  return { instruction, what: i.mark, ...(i.phase ? { phase: i.phase } : {}), at: T0 + at_s * 1000 };
};

const planned = (phases: Phase[]): PlanInput => ({
  board,
  target: 'target',
  phases,
  station: DEFAULT_STATION,
  ambient_C: 22,
  quality: 'search',
  frames: false,
});
const wetOnClock = async (phases: Phase[]) => {
  const run = await runPlan(planned(phases), context);
  return handsClock(run)(run.allWet_s) ?? NaN;
};

describe('a tool that comes late', () => {
  const marks = (on_s: number) => [mark('flux', 8), mark('lay-1', 25), mark('lay-2', 42), mark('heat-on', on_s)];
  const run = (on_s: number) => ({ marks: marks(on_s), begun: T0 });

  it('is late by what passed since the first tool touched, less what was planned', () => {
    expect(lateBy(list, run(50), 40)).toBe(0);
    expect(lateBy(list, run(62), 40)).toBe(0);
    expect(lateBy(list, run(128), 40)).toBe(80);
    // one tool alone has nothing to be late for
    expect(lateBy(list, run(128), undefined)).toBe(0);
    expect(lateBy(list, { marks: marks(128).slice(0, 3), begun: T0 }, 40)).toBe(0);
  });

  it('finds joints that have cooled meanwhile: they melt later by its clock, in closed form never before', async () => {
    const at = await wetOnClock(chain.phases);
    const late = asDone(chain.phases, [], 120);
    expect(late?.map((p) => p.kind)).toEqual(['alloy', 'rest', 'air']);
    const later = await wetOnClock(late ?? []);
    expect(later).toBeGreaterThan(at + 1);
  });

  it('waits with the heat from below on', async () => {
    const warm = methodOf('preheat-air').phases;
    const at = await wetOnClock(warm);
    // the board goes on warming up: its joints melt sooner after a longer wait, not later
    expect(await wetOnClock(asDone(warm, [], 120) ?? [])).toBeLessThan(at);
  });

  it('a procedure that gets too long to compute has no times', () => {
    expect(asDone(chain.phases, [], 1700)).toBeUndefined();
  });

  it('the plan says when its clock begins', async () => {
    const run_ = await runPlan(planned(chain.phases), context);
    const nothing = { from: null, to: null };
    const result = { ...run_, allWetRange_s: nothing, closesRange_s: nothing } as unknown as PlanResult;
    const from = run_.phases?.at(-1)?.from_s ?? NaN;
    expect(from).toBeGreaterThan(5);
    expect(guideOf(result, board, chain).starts_s).toBe(from);
    expect(guideOf(result, board, { phases: chain.phases.slice(1) }).starts_s).toBeUndefined();
  });
});

describe('work given up before', () => {
  const marks = [mark('flux', 8), mark('lay-1', 25), mark('lay-2', 42), mark('heat-on', 50)];
  const given = { phases: chain.phases, marks, walked: [], ended: { at: T0 + 95_000 } };

  it('is computed as far as hands got, with the board cooling since', () => {
    const before = doneBefore([given], T0 + 155_000);
    expect(before.map((p) => p.kind)).toEqual(['alloy', 'air', 'rest']);
    expect(before[1].until).toEqual({ s: 45 });
    expect(before[2].until).toEqual({ s: 60 });
    expect(new Set(before.map((p) => p.id)).size).toBe(3);
    expect(doneBefore([{ ...given, marks: marks.slice(0, 1) }], T0 + 155_000)).toEqual([]);
    // half an hour later the board is cold, and no colder
    expect(doneBefore([given], T0 + 1_900_000)[2].until).toEqual({ s: 600 });
  });

  it('leaves its alloy and its warmth to what comes then', async () => {
    const bare = await wetOnClock(methodOf('air-slow').phases);
    const soon = asDone(methodOf('air-slow').phases, doneBefore([given], T0 + 110_000)) ?? [];
    const late = asDone(methodOf('air-slow').phases, doneBefore([given], T0 + 695_000)) ?? [];
    const [warm, cold] = [await wetOnClock(soon), await wetOnClock(late)];
    expect(cold).toBeLessThan(bare);
    expect(warm).toBeLessThan(cold);
  });

  it('leaves the joints it freed free: the next tool goes to those that hold', () => {
    const walked = ['1', '2', '3'].map((terminal) => ({ terminal, state: terminal === '2' ? 'stuck' : 'done' }));
    expect(freedBefore([{ ...given, walked }])).toEqual(['1', '3']);
    const then = operationFor('remove', {
      ...work,
      method: methodOf('air-slow'),
      freed: ['1', '2', '3', '5', '6', '7'],
    });
    expect(then.find((i) => i.mark === 'first-wet')?.say).toBe('Air on what still holds: 4, 8.');
    const legs = operationFor('remove', { ...work, method: methodOf('lift-legs'), freed: ['1', '2'] });
    expect(legs.find((i) => i.walk)?.walk).toEqual(['3', '4', '5', '6', '7', '8']);
  });
});

describe('a joint that holds', () => {
  it('comes round again, and after three laps another way is offered', () => {
    const pins = expressBoard({ package: 'DIP-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
    const vacuum = methodsFor('DIP-8').find((m) => m.method.id === 'vacuum')?.method as Method;
    const part = pins.parts.find((p) => p.partId === 'target');
    if (!part) throw new Error('no target');
    const told = (laps: number) => {
      const walked = Array.from({ length: laps }, (_, n) =>
        (n === 0 ? ['1', '2', '3', '4', '5', '6', '7', '8'] : ['4']).map((terminal) => ({
          instruction: n === 0 ? 'pins' : `pins-${n + 1}`,
          terminal,
          state: terminal === '4' ? 'stuck' : 'done',
        })),
      ).flat();
      const all = operationFor('remove', {
        ...work,
        board: pins,
        target: part,
        method: vacuum,
        said: { walked, doubts: 0 },
      });
      return all.filter((i) => i.walk).at(-1);
    };
    expect(told(0)?.walk).toHaveLength(8);
    expect(told(1)).toMatchObject({ id: 'pins-2', walk: ['4'] });
    expect(told(2)?.watch).not.toContain('in vain');
    expect(told(3)).toMatchObject({ id: 'pins-4', walk: ['4'] });
    expect(told(3)?.watch).toContain('Three times in vain');
  });
});

describe('otherwise than planned', () => {
  it('another alloy is in every phase that brings one, and in no other', () => {
    const other = withAlloy(chain.phases, { Bi: 58, Sn: 42 });
    expect(other.map((p) => ('alloy' in p.settings ? p.settings.alloy : null))).toEqual([{ Bi: 58, Sn: 42 }, null]);
  });

  it('dials set otherwise change the settings they stand for, within their tolerance none', () => {
    const [{ settings }, air] = chain.phases as [Extract<Phase, { kind: 'alloy' }>, Extract<Phase, { kind: 'air' }>];
    const laid = [
      { id: 'iron', value: settings.set_C + 40 },
      { id: 'air', value: air.settings.set_C + 4 },
      { id: 'flow', value: 25 },
    ];
    const set = asLaidOut(chain.phases, laid, {});
    expect(set.differs).toEqual(['iron temperature', 'air flow']);
    expect(set.phases[0].settings).toEqual({ ...settings, set_C: settings.set_C + 40 });
    expect(set.phases[1].settings).toEqual({ ...air.settings, flow_L_min: 25 });
    expect(asLaidOut(chain.phases, [], {}).phases).toEqual(chain.phases);
  });

  it('an unmarked dial is told in percent, and set so', () => {
    const { phases } = methodOf('air-slow');
    const { phases: set } = asLaidOut(phases, [{ id: 'flow', value: 100 }], { air: 80 });
    expect(set[0].settings).toMatchObject({ flow_L_min: 80 });
  });

  it('one tool set twice: each set-point changes its own phase', () => {
    const irons = methodOf('irons2').phases as Extract<Phase, { kind: 'alloy' | 'irons2' }>[];
    const [lay, stroke] = irons.map((p) => p.settings.set_C);
    expect(lay).not.toBe(stroke);
    const set = asLaidOut(irons, [{ id: 'iron-2', value: stroke + 30 }], {});
    expect(set.phases.map((p) => (p.settings as { set_C: number }).set_C)).toEqual([lay, stroke + 30]);
  });
});
