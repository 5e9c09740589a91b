// First power after work: limits and times from a good unit, and what stops it.
import { describe, expect, it } from 'vitest';
import { firstPower, judgeStage, type PowerSample, type PowerStage } from '../src/job/index.ts';

const good = [
  { stage: 'connected', at_s: 0.1, current_A: 0.012 },
  { stage: 'starting', at_s: 0.6, current_A: 0.4 },
  { stage: 'running', at_s: 2, current_A: 0.15 },
];
const plan = firstPower(12, good);
const [soak, start, run] = plan.stages;
/** Every tenth of a second. */
const samples = (current: (s: number) => number, more: Partial<PowerSample> = {}): PowerSample[] =>
  Array.from({ length: 50 }, (_, n) => ({ at_s: n / 10, volts: 12, current_A: current(n / 10), ...more }));
const stop = (stage: PowerStage, all: PowerSample[], rail: number | null = null) =>
  judgeStage(stage, plan, all, rail)?.stop;

describe('limits', () => {
  it('soak below what a start-up takes, then one and three quarters of its peak', () => {
    expect(plan).toMatchObject({ from: 'a good unit', volts: 12 });
    expect(plan.most_V).toBeCloseTo(13.2, 9);
    expect(soak.limit_A).toBe(0.024);
    expect(start.limit_A).toBe(0.7);
    expect(start.limit_A / 0.4).toBeGreaterThanOrEqual(1.5);
    expect(start.limit_A / 0.4).toBeLessThanOrEqual(2);
    expect(run).toMatchObject({ limit_A: 0.7, good_A: 0.4 });
  });
  it('are an estimate by power where no good unit is known, and never more than a bench gives', () => {
    const bare = firstPower(12, []);
    expect(bare).toMatchObject({ from: 'an estimate' });
    expect(bare.stages.map((s) => s.limit_A)).toEqual([0.05, 0.5, 0.5]);
    expect(firstPower(0.5, []).stages[1].limit_A).toBe(3);
    expect(() => firstPower(0, [])).toThrow(RangeError);
  });
  it('of a unit that hardly draws anything soak no lower than a meter reads', () => {
    const quiet = firstPower(3, [{ stage: 'connected', at_s: 0, current_A: 0.00002 }]);
    expect(quiet.stages.every((s) => s.limit_A >= 0.02)).toBe(true);
  });
});

describe('what stops it', () => {
  it('too much voltage, at once, at the supply and on the rail that is watched', () => {
    expect(
      stop(
        run,
        samples(() => 0.15),
      ),
    ).toBeUndefined();
    expect(judgeStage(run, plan, [{ at_s: 0.1, volts: 14, current_A: 0 }])).toMatchObject({
      stop: 'over-voltage',
      at_s: 0.1,
    });
    expect(
      stop(
        run,
        samples(() => 0.15, { rail_V: 5.4 }),
        5,
      ),
    ).toBeUndefined();
    expect(
      judgeStage(
        run,
        plan,
        samples(() => 0.15, { rail_V: 6.1 }),
        5,
      ),
    ).toMatchObject({
      stop: 'over-voltage',
      why: '6.10 V where 5 V is right',
      at_s: 0,
    });
  });
  it('more than a good unit, once it stays so: a peak goes by', () => {
    expect(
      stop(
        run,
        samples((s) => (s < 0.3 ? 0.65 : 0.15)),
      ),
    ).toBeUndefined();
    expect(
      judgeStage(
        run,
        plan,
        samples(() => 0.65),
      ),
    ).toMatchObject({ stop: 'too much', at_s: 0.5 });
  });
  it('the limit; in the soak only what it holds down: whatever wants to start is held there', () => {
    expect(
      stop(
        start,
        samples(() => 0.7),
      ),
    ).toBe('at the limit');
    expect(
      stop(
        soak,
        samples(() => 0.024),
      ),
    ).toBeUndefined();
    expect(
      judgeStage(
        soak,
        plan,
        samples(() => 0.024, { volts: 0.4 }),
      ),
    ).toMatchObject({
      stop: 'at the limit',
      why: 'held at 0.024 A, 0.4 V left',
      at_s: 2,
    });
    const bare = firstPower(12, []);
    expect(
      judgeStage(
        bare.stages[0],
        bare,
        samples(() => 0.05),
      ),
    ).toBeNull();
    expect(
      judgeStage(
        bare.stages[1],
        bare,
        samples(() => 0.5),
      )?.stop,
    ).toBe('at the limit');
  });
});
