import { describe, expect, it } from 'vitest';
import { air, beadFor, changed } from './plans.ts';
import { DEFAULT_STATION } from '../src/rework/station.ts';
import { methodsFor } from '../src/rework/methods/choose.ts';
import { BOARD_KINDS, expressBoard } from '../src/rework/expressBoard.ts';
import { windowEnd } from '../src/rework/planResult.ts';
import { runPlan } from '../src/rework/planRun.ts';
import type { Phase } from '../src/rework/phases/schema.ts';
import type { PlanInput } from '../src/rework/planForm.ts';
import type { BoardModel } from '../src/board/boardModel.ts';
import { CancelledError } from '../src/ground/calc.ts';

const context = { now: () => 0 };
type Kind = keyof typeof BOARD_KINDS;

function input(pkg: string, kind: Kind, phase: Phase, change: (b: BoardModel) => BoardModel = (b) => b): PlanInput {
  const board = change(expressBoard({ package: pkg, boardKind: kind, plastic: 'pbt', distance_mm: 6 }));
  return {
    board,
    target: 'target',
    phases: [phase],
    station: DEFAULT_STATION,
    ambient_C: 22,
    quality: 'search',
    frames: false,
  };
}
async function wetTime(i: PlanInput): Promise<number> {
  const { allWet_s } = await runPlan(i, context);
  if (allWet_s === null) throw new Error('never wet');
  return allWet_s;
}

describe('orderings', () => {
  it('more copper melts later', async () => {
    const more = (coverage: number) => (b: BoardModel) => ({ ...b, stack: b.stack.map((l) => ({ ...l, coverage })) });
    const times = [];
    for (const c of [0.3, 0.6, 0.9]) times.push(await wetTime(input('SOIC-8', 'two-layer', air(), more(c))));
    expect(times).toEqual([...times].sort((a, b) => a - b));
    expect(times[2]).toBeGreaterThan(times[0] * 1.05);
  });
  it('a farther nozzle melts later', async () => {
    const near = await wetTime(input('SOIC-8', 'two-layer', air({ standoff_mm: 8 })));
    expect(await wetTime(input('SOIC-8', 'two-layer', air({ standoff_mm: 25 })))).toBeGreaterThan(near);
  });
  it('leaded melts before lead-free', async () => {
    const leaded = await wetTime(input('SOIC-8', 'two-layer-leaded', air()));
    expect(leaded).toBeLessThan(await wetTime(input('SOIC-8', 'two-layer', air())));
  });
  it('a tab and a centre pad melt after the legs, and the reason is said', async () => {
    for (const [pkg, last] of [
      ['DPAK', 'TAB'],
      ['QFN-32', 'EP'],
    ]) {
      const hot = air({ set_C: 450, flow_L_min: 70, standoff_mm: 9 });
      const run = await runPlan({ ...input(pkg, 'heavy', hot), quality: 'plan' }, context);
      expect(run.last?.terminal).toBe(last);
      expect(run.last?.why).not.toBe('');
      const times = run.joints.map((j) => j.liquidus_s ?? Infinity);
      expect(Math.max(...times)).toBe(run.joints.find((j) => j.terminal === last)?.liquidus_s);
    }
  });
  it('a mirrored job on the bottom takes as long as the same on the top', async () => {
    const flip = (b: BoardModel): BoardModel => ({
      ...b,
      parts: b.parts.map((p) => ({ ...p, side: 'bottom' as const })),
      stack: [...b.stack].reverse(),
    });
    const top = await wetTime(input('SOIC-8', 'two-layer', air()));
    expect(await wetTime(input('SOIC-8', 'two-layer', air(), flip))).toBeCloseTo(top, 6);
  });
});

describe('low-melt alloy with an iron', () => {
  const lowMelt = beadFor('SOIC-16');
  it('stays liquid after the iron has left, longer on two layers than on four', async () => {
    const hold = async (kind: Kind) => {
      const run = await runPlan(input('SOIC-16', kind, lowMelt), context);
      return (run.freezes_s ?? 0) - lowMelt.settings.stroke_s;
    };
    const [two, four] = [await hold('two-layer'), await hold('four-layer')];
    expect(two).toBeGreaterThan(0.5);
    expect(two).toBeGreaterThan(four);
  });
  it('takes time to mix, on the smallest chip too, and a narrow joint takes less of the tip', async () => {
    const chip = await runPlan(input('C0402', 'two-layer', lowMelt), context);
    expect(chip.allWet_s).toBeGreaterThanOrEqual(1);
    expect(chip.allWet_s).toBeLessThan(lowMelt.settings.stroke_s);
    const wide = await runPlan(input('SOIC-16', 'two-layer', lowMelt), context);
    expect(wide.allWet_s).toBeGreaterThan(chip.allWet_s ?? Infinity);
  });
  it('a tip wider than the joints brings no more heat; one that covers more of a row does', async () => {
    const peak = async (pkg: string, tip_mm: number) =>
      (await runPlan(input(pkg, 'two-layer', changed(lowMelt, { tip_mm, stroke_s: 3, limit_s: 5 })), context)).body_C;
    expect(await peak('C0402', 6)).toBeCloseTo(await peak('C0402', 3), 6);
    expect(await peak('SOIC-16', 6)).toBeGreaterThan((await peak('SOIC-16', 3)) + 1);
  });
  it('spares the neighbour that air heats', async () => {
    const iron = await runPlan(input('SOIC-16', 'two-layer', lowMelt), context);
    const blown = await runPlan(input('SOIC-16', 'two-layer', air()), context);
    expect(iron.neighbours[0].peak_C).toBeLessThan(blown.neighbours[0].atWet_C);
  });
  it('does not offer itself for a pad under the body', () => {
    expect(methodsFor('QFN-24').find((m) => m.method.id === 'bead')?.unfit).toMatch(/pad/);
  });
});

describe('a run', () => {
  it('closes the window when a delicate neighbour is over its limit', async () => {
    const delicate = (b: BoardModel) => ({
      ...b,
      parts: b.parts.map((p) => (p.partId === 'plastic' ? { ...p, limit: 'elko-radial' } : p)),
    });
    const run = await runPlan(input('SOIC-8', 'two-layer', air(), delicate), context);
    expect(run.closes?.partId).toBe('plastic');
    expect(windowEnd(run)).toBe(run.closes?.at_s);
  });
  it('is the same every time', async () => {
    const i = input('SOIC-8', 'thin', air({ limit_s: 30 }));
    expect(await runPlan(i, context)).toEqual(await runPlan(i, context));
  });
  it('stops when told to', async () => {
    await expect(runPlan(input('SOIC-8', 'thin', air()), { ...context, signal: { aborted: true } })).rejects.toThrow(
      CancelledError,
    );
  });
  it('gives field frames on request, hottest near the target at the end', async () => {
    const run = await runPlan({ ...input('SOIC-8', 'two-layer', air({ limit_s: 40 })), frames: true }, context);
    const f = run.frames;
    if (!f) throw new Error('no frames');
    const [nx, ny] = [f.x_mm.length - 1, f.y_mm.length - 1];
    expect(f.values.length).toBe(nx * ny * f.times_s.length);
    const last = f.values.subarray((f.times_s.length - 1) * nx * ny);
    const hottest = last.indexOf(Math.max(...last));
    expect(Math.abs(f.x_mm[hottest % nx] - 30)).toBeLessThan(8);
    expect(Math.abs(f.y_mm[Math.floor(hottest / nx)] - 30)).toBeLessThan(8);
  });
});
