/** What a rework does besides melting joints. */
import { describe, expect, it } from 'vitest';
import { air, boardOf, type Change, planOf, tweezers } from './plans.ts';
import type { BoardModel } from '../src/board/boardModel.ts';
import type { Phase } from '../src/rework/phases/schema.ts';
import type { PlanInput } from '../src/rework/planForm.ts';
import { bodyClass_C } from '../src/materials/limits.ts';
import { runPlan } from '../src/rework/planRun.ts';

const board = (pkg = 'SOIC-8') => boardOf(pkg, 'thin', 'pbt');
const input = (phase: Phase, more: Partial<PlanInput> = {}) => planOf(board(), phase, more);
async function outcomes(phase: Phase, more: Partial<PlanInput> = {}) {
  const run = await runPlan(input(phase, more), { now: () => 0 });
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
  it('come off more easily when hot, and when the lift cannot wait', async () => {
    const p = async (set_C: number, limit_s: number) => (await outcomes(air({ set_C, limit_s }))).torn;
    const [cool, hot] = [await p(150, 20), await p(450, 60)];
    if (!cool || !hot) throw new Error('nothing about lands');
    expect(cool.p).toBeLessThan(hot.p / 5);
    expect(hot.early_p).toBeGreaterThan(hot.p * 3);
    expect(hot.early_p).toBeLessThan(hot.p * 4.01);
  });
  it('a small one more easily than a large one', async () => {
    const p = async (pkg: string) => (await outcomes(air({ limit_s: 30 }), { board: board(pkg) })).torn?.p ?? 0;
    expect(await p('C0402')).toBeGreaterThan(2 * (await p('DPAK')));
  });
  it('laminate delaminates at the hottest land, the sooner the poorer it is', async () => {
    const at = async (laminate?: BoardModel['laminate']) =>
      (await outcomes(air({ set_C: 420, limit_s: 60 }), { board: { ...board(), laminate }, moisture: 'baked' }))
        .laminate;
    const [standard, high, paper] = [await at(), await at('high-tg'), await at('phenolic-paper')];
    expect(high?.peak_C).toBeCloseTo(standard?.peak_C ?? 0, 6);
    expect(high?.margin_K).toBeGreaterThan(standard?.margin_K ?? 0);
    expect(standard?.margin_K).toBeGreaterThan(paper?.margin_K ?? 0);
    expect(paper?.says).toMatch(/hurt/);
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
    expect(body.over).toBe(body.says === 'hurts');
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
    const N = async (change: Change<'air'>) =>
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
    const ramp = async (change: Change<'air'>) =>
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
  const below = (pkg: string, more: Partial<BoardModel['parts'][number]> = {}) =>
    withPart({ partId: 'below', package: pkg, side: 'bottom', ...more }, 'DPAK');
  const fate = async (pkg: string, change: Change<'air'>, more: Partial<BoardModel['parts'][number]> = {}) => {
    const { run } = await outcomes(air(change), { board: below(pkg, more), moisture: 'baked' });
    return { run, part: run.neighbours.find((n) => n.partId === 'below') };
  };
  const fierce = { set_C: 450, standoff_mm: 12, sweep_mm: 5, limit_s: 120 };
  it('holds while it is cool, comes loose when it melts; what is heavy falls and ends the window', async () => {
    expect((await fate('SOIC-16', { set_C: 200, limit_s: 15 })).part).toMatchObject({ far: true, loosens_s: null });
    const light = await fate('SOIC-16', fierce);
    expect(light.part?.loosens_s).toBeGreaterThan(0);
    expect(light.part?.hangs).toBeUndefined();
    const heavy = await fate('CAN-10', { ...fierce, set_C: 500, flow_L_min: 70, limit_s: 150 });
    expect(heavy.part?.hangs).toBe(true);
    expect(heavy.run.closes).toMatchObject({ partId: 'below' });
    expect(heavy.run.closes?.at_s).toBeLessThanOrEqual(heavy.part?.loosens_s ?? 0);
  });
  it('bodies are judged there as here, with and without joints', async () => {
    // slowly, so that what is tied to the board by air alone warms through
    const slow = { set_C: 330, standoff_mm: 12, sweep_mm: 5, limit_s: 120 };
    for (const [pkg, says] of [
      ['GUIDE-12', 'hurts'],
      ['R0603', 'clear'],
      ['BGA-64', 'hurts'],
    ] as const)
      expect((await fate(pkg, slow)).part?.says, pkg).toBe(says);
  });
  it('a display or a cell is taken out first, and never compared', async () => {
    for (const pkg of ['DISPLAY-30', 'CELL-20', 'CELL-POUCH']) {
      const { run, part } = await fate(pkg, fierce);
      expect(part?.takeOut, pkg).toBe(true);
      expect(run.closes?.partId, pkg).not.toBe('below');
    }
    // though it is long over what it stands
    const beside = withPart({ partId: 'display', package: 'DISPLAY-30', x_mm: centre.x_mm, y_mm: centre.y_mm + 16 });
    const { run } = await outcomes(air(fierce), {
      board: { ...beside, parts: beside.parts.filter((p) => p.partId !== 'plastic') },
    });
    expect(run.neighbours.find((n) => n.partId === 'display')).toMatchObject({
      takeOut: true,
      over_s: expect.any(Number),
    });
    expect(run.closes?.partId).not.toBe('display');
    const b = below('CELL-20');
    const out = await outcomes(air(fierce), { board: b, absent: ['below'] });
    expect(out.run.neighbours.some((n) => n.takeOut)).toBe(false);
  });
});

describe('heat from below', () => {
  // far outside of what the air reaches
  const corner = { partId: 'corner', x_mm: centre.x_mm + 60, y_mm: centre.y_mm } as const;
  const wide = (b: BoardModel): BoardModel => ({
    ...b,
    outline_mm: [
      [0, 0],
      [120, 0],
      [120, 40],
      [0, 40],
    ],
  });
  const under = { kind: 'preheater', T_C: 150, h: 40 } as const;
  const judged = async (more: Partial<PlanInput>, pkg = 'GUIDE-12', side: 'top' | 'bottom' = 'top') => {
    const b = wide(withPart({ ...corner, package: pkg, side }));
    const { run } = await outcomes(air({ set_C: 200, limit_s: 120 }), { board: b, moisture: 'baked', ...more });
    return run.neighbours.find((n) => n.partId === 'corner');
  };
  it('reaches the whole board, both sides of it', async () => {
    expect(await judged({})).toBeUndefined();
    expect((await judged({ under }))?.says).toBe('hurts');
    expect((await judged({ under }, 'GUIDE-12', 'bottom'))?.says).toBe('hurts');
    expect(await judged({ under }, 'SOIC-8')).toBeUndefined();
    expect(await judged({ under, absent: ['corner'] })).toBeUndefined();
  });
  it('what hangs into it is warmer than without', async () => {
    const below = withPart({ partId: 'hangs', package: 'RADIAL-10', side: 'bottom', x_mm: centre.x_mm + 8 });
    const peak = async (more: Partial<PlanInput>) =>
      (await outcomes(air({ set_C: 120, limit_s: 60 }), { board: below, ...more })).run.neighbours.find(
        (n) => n.partId === 'hangs',
      )?.peak_C ?? 0;
    expect(await peak({ under })).toBeGreaterThan((await peak({})) + 20);
  });
});

describe('what ends the window', () => {
  const strong = { flow_L_min: 110, nozzle_mm: 5, standoff_mm: 6, set_C: 480, limit_s: 90 };
  const beside = withPart({ partId: 'tiny', package: 'C0402', x_mm: centre.x_mm, y_mm: centre.y_mm + 4.5 });
  it('a small part loose in the wind does, unless it is covered', async () => {
    const bare = await outcomes(air(strong), { board: beside });
    expect(bare.wind.find((w) => w.partId === 'tiny')?.verdict).toBe('flies');
    expect(bare.run.closes).toMatchObject({ partId: 'tiny', why: 'wind' });
    for (const covers of [
      [{ kind: 'foil', partId: 'tiny' }],
      [{ kind: 'tape', area: { x_mm: centre.x_mm - 2, y_mm: centre.y_mm + 3, w_mm: 4, h_mm: 3 } }],
    ] as PlanInput['covers'][]) {
      const covered = await outcomes(air(strong), { board: beside, covers });
      expect(covered.wind.map((w) => w.partId)).not.toContain('tiny');
      expect(covered.run.closes?.why).not.toBe('wind');
    }
  });
  it('the part that goes on is tested as it lies there, nothing of it wetted', async () => {
    const b = board('C0402');
    const fitted = await outcomes(air(strong), { board: b, fitting: true });
    const own = fitted.wind.find((w) => w.partId === b.parts[0].partId);
    expect(own?.verdict).toBe('flies');
    const taken = await outcomes(air(strong), { board: b });
    expect(taken.wind.some((w) => w.partId === b.parts[0].partId)).toBe(false);
  });
  it('its own body does where it has to live, and not where it goes into the bin', async () => {
    const hot = air({ set_C: 500, flow_L_min: 90, limit_s: 120 });
    const own = { ...board('RADIAL-10'), parts: board('RADIAL-10').parts.slice(0, 1) };
    const lives = await outcomes(hot, { board: own, reused: true });
    expect(lives.run.closes).toMatchObject({ why: 'body', partId: own.parts[0].partId });
    expect(lives.body).toMatchObject({ over: true, says: 'hurts' });
    expect((await outcomes(hot, { board: own })).run.closes?.why).not.toBe('body');
  });
  it('a ceramic under a tip is judged by the step and its size', async () => {
    const tip = async (pkg: string, set_C: number) => {
      const { outcomes: o } = await runPlan(planOf(board(pkg), tweezers({ set_C, power_W: 40 })), { now: () => 0 });
      return o?.ceramics.find((c) => c.step_K !== undefined);
    };
    expect(await tip('C0402', 350)).toMatchObject({ grade: 'harsh', step_K: 328 });
    expect((await tip('C1210', 160))?.grade).toBe('harsh');
  });
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
