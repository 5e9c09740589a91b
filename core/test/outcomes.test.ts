/** What a rework does besides melting joints. */
import { describe, expect, it } from 'vitest';
import { air, boardOf, planOf } from './plans.ts';
import type { BoardModel } from '../src/board/boardModel.ts';
import type { AirMethod } from '../src/rework/method.ts';
import type { PlanInput } from '../src/rework/planForm.ts';
import { bodyClass_C } from '../src/rework/outcomes.ts';
import { runPlan } from '../src/rework/planRun.ts';

const board = (pkg = 'SOIC-8') => boardOf(pkg, 'thin', 'pbt');
const input = (method: AirMethod, more: Partial<PlanInput> = {}) => planOf(board(), method, more);
async function outcomes(method: AirMethod, more: Partial<PlanInput> = {}) {
  const run = await runPlan(input(method, more), { now: () => 0 });
  if (!run.outcomes) throw new Error('no outcomes');
  return { ...run.outcomes, run };
}
const centre = board().parts[0];
/** A board with one more part. */
const withPart = (
  part: Partial<BoardModel['parts'][number]> & { partId: string; package: string },
  target = 'SOIC-8',
): BoardModel => {
  const b = board(target);
  return {
    ...b,
    parts: [...b.parts, { x_mm: centre.x_mm, y_mm: centre.y_mm, rotation_deg: 0, side: 'top', ...part }],
  };
};

describe('lands', () => {
  it('gather time and exposure above the glass transition only while they are above it', async () => {
    const cool = await outcomes(air({ set_C: 150, limit_s: 20 }));
    expect(cool.lands.every((l) => l.aboveTg_s === 0 && l.exposure_K_s === 0 && l.peak_C < 135)).toBe(true);
    const hot = await outcomes(air({ limit_s: 60 }));
    for (const l of hot.lands) {
      expect(l.peak_C).toBeGreaterThan(135);
      expect(l.aboveTg_s).toBeGreaterThan(0);
      expect(l.aboveTg_s).toBeLessThanOrEqual(hot.run.ended_s);
      expect(l.exposure_K_s).toBeGreaterThan(0);
      expect(l.exposure_K_s).toBeLessThanOrEqual(l.aboveTg_s * (l.peak_C - 135));
    }
  });
  it('heat is harder on the worst land than none, and the words follow the index', async () => {
    const cool = await outcomes(air({ set_C: 150, limit_s: 20 }));
    const [mild, fierce] = [
      await outcomes(air({ limit_s: 60, set_C: 340 })),
      await outcomes(air({ limit_s: 60, set_C: 480 })),
    ];
    expect(cool.padStress.index).toBeLessThan(mild.padStress.index);
    for (const { padStress: p } of [cool, mild, fierce]) {
      expect(p.index).toBeCloseTo(p.force_N / p.bond_N, 9);
      expect(p.says).toBe(p.index < 0.3 ? 'easy' : p.index < 1 ? 'careful' : 'tears');
    }
  });
  it('a small land suffers more than a large one', async () => {
    const small = await outcomes(air({ limit_s: 30 }), { board: board('C0402') });
    const large = await outcomes(air({ limit_s: 30 }), { board: board('DPAK') });
    expect(small.padStress.index).toBeGreaterThan(large.padStress.index);
  });
});

describe('the target’s own body', () => {
  it.each([
    [{ l: 5, w: 4, h: 1.5 }, 260],
    [{ l: 10, w: 7.5, h: 2.3 }, 260],
    [{ l: 20, w: 14, h: 2.3 }, 250],
    [{ l: 35, w: 35, h: 2.3 }, 245],
    [{ l: 9, w: 9, h: 4.4 }, 245],
    [{ l: 6, w: 6, h: 3 }, 250],
  ])('%j is of class %d °C', (body, limit) => expect(bodyClass_C(body)).toBe(limit));
  it('is over its class only when it was hotter', async () => {
    const { body, run } = await outcomes(air({ set_C: 500, flow_L_min: 90, limit_s: 90 }));
    // the run goes on after the part is off; that is not its body's affair
    expect(body.peak_C).toBeLessThanOrEqual(run.body_C);
    expect(body.over).toBe(body.peak_C > body.limit_C);
    expect((await outcomes(air({ set_C: 200, limit_s: 20 }))).body.over).toBe(false);
  });
});

describe('small parts in the wind', () => {
  const beside = withPart({ partId: 'tiny', package: 'C0402', x_mm: centre.x_mm, y_mm: centre.y_mm + 5.5 });
  it('stay while their solder is solid, whatever blows', async () => {
    const { wind } = await outcomes(air({ set_C: 200, flow_L_min: 90, limit_s: 15 }), { board: beside });
    expect(wind.find((w) => w.partId === 'tiny')).toMatchObject({ loosens_s: null, verdict: 'stays' });
  });
  it('more flow pushes harder, a stage that is stronger counts', async () => {
    const N = async (change: Partial<AirMethod>) =>
      (await outcomes(air({ limit_s: 8, ...change }), { board: beside })).wind.find((w) => w.partId === 'tiny')?.N ?? 0;
    const calm = await N({ flow_L_min: 15 });
    expect(await N({ flow_L_min: 60 })).toBeGreaterThan(calm);
    expect(await N({ flow_L_min: 15, stages: [{ from_s: 5, flow_L_min: 90 }] })).toBeGreaterThan(calm);
  });
  it('a large neighbour is not asked', async () => {
    expect((await outcomes(air({ limit_s: 8 }))).wind.map((w) => w.partId)).not.toContain('plastic');
  });
});

describe('ceramics that stay', () => {
  const b = withPart({ partId: 'cap', package: 'C0805', x_mm: centre.x_mm, y_mm: centre.y_mm + 6 });
  it('are graded by their steepest rise', async () => {
    const ramp = async (change: Partial<AirMethod>) =>
      (await outcomes(air({ limit_s: 20, ...change }), { board: b })).ceramics.find((c) => c.partId === 'cap');
    const [slow, fast] = [
      await ramp({ standoff_mm: 80, set_C: 160, flow_L_min: 20 }),
      await ramp({ standoff_mm: 6, set_C: 500, flow_L_min: 90 }),
    ];
    expect(slow?.grade).toBe('gentle');
    expect(fast?.ramp_K_s).toBeGreaterThan((slow?.ramp_K_s ?? 0) * 3);
    expect(fast?.grade).toBe('harsh');
  });
});

describe('the other side', () => {
  const below = (pkg: string) => withPart({ partId: 'below', package: pkg, side: 'bottom' }, 'DPAK');
  const fate = async (pkg: string, change: Partial<AirMethod>) =>
    (await outcomes(air(change), { board: below(pkg) })).farSide.find((f) => f.partId === 'below');
  it('holds while it is cool, comes loose when it melts; what is heavy falls', async () => {
    expect(await fate('SOIC-16', { set_C: 200, limit_s: 15 })).toMatchObject({ verdict: 'holds' });
    const light = await fate('SOIC-16', { set_C: 450, standoff_mm: 12, sweep_mm: 5, limit_s: 120 });
    expect(light).toMatchObject({ heavy: false, verdict: 'loosens' });
    const heavy = await fate('CAN-10', { set_C: 500, flow_L_min: 70, standoff_mm: 12, sweep_mm: 5, limit_s: 150 });
    expect(heavy?.heavy).toBe(true);
    expect(heavy?.limit_C).toBe((light?.limit_C ?? 0) - 15);
    expect(heavy?.verdict).toBe('falls');
  });
  it('balls below keep their own limit', async () => {
    expect(await fate('BGA-64', { set_C: 200, limit_s: 8 })).toMatchObject({ limit_C: 205 });
  });
  it('what is not there is not listed', async () => expect((await outcomes(air({ limit_s: 5 }))).farSide).toEqual([]));
});

describe('books of energy', () => {
  it('close while joints melt, to a thousandth of what was taken up', async () => {
    const run = await runPlan(input(air({ limit_s: 60 }), { books: true }), { now: () => 0 });
    if (!run.energy || run.allWet_s === null) throw new Error('no books');
    const { input_J, stored_J, lost_J } = run.energy;
    expect(stored_J).toBeGreaterThan(50);
    expect(Math.abs(input_J - stored_J - lost_J)).toBeLessThan(1e-3 * stored_J);
  });
  it('are not kept unasked', async () =>
    expect((await runPlan(input(air({ limit_s: 5 })), { now: () => 0 })).energy).toBeUndefined());
});
