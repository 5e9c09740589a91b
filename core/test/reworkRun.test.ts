/** The steppable run: whoever drives it gets what a plan gets. */
import { describe, expect, it } from 'vitest';
import { stintsOf } from '../src/rework/stints.ts';
import type { Phase } from '../src/rework/phases/schema.ts';
import type { PlanInput } from '../src/rework/planForm.ts';
import { runPlan } from '../src/rework/planRun.ts';
import { ReworkRun } from '../src/rework/bench/reworkRun.ts';
import { air, bead, boardOf, planOf } from './plans.ts';

const soic = boardOf('SOIC-8');
const inputOf = (phase: Phase) => planOf(soic, phase);
const runOf = (input: PlanInput) => new ReworkRun(input, stintsOf(input.phases));

describe('a run that is stepped from outside', () => {
  it.each([
    ['air', air()],
    ['a bead', bead()],
  ])('comes to what the plan of %s says, as far as both went', async (_, phase) => {
    const plan = await runPlan(inputOf(phase), { now: () => 0 });
    const run = runOf(inputOf(phase));
    while (run.steps < plan.steps) run.step();
    expect(run.result()).toEqual(plan);
  });
  it('shares nothing with another that goes on beside it', () => {
    const [alone, a, b] = [inputOf(air()), inputOf(air()), inputOf(bead())].map((input) => runOf(input));
    for (let n = 0; n < 80; n++) alone.step();
    for (let n = 0; n < 80; n++) {
      a.step();
      b.step();
    }
    expect([...a.heat.cells_C]).toEqual([...alone.heat.cells_C]);
    expect(a.time).toBe(alone.time);
    expect(b.time).not.toBe(a.time);
  });
  it('says when it looked at what is slow', () => {
    const run = runOf(inputOf(air()));
    const looks: number[] = [];
    while (run.time < 2) if (run.step()) looks.push(run.time);
    expect(looks.length).toBeGreaterThan(8);
    for (const [i, t] of looks.slice(1).entries()) expect(t - looks[i]).toBeGreaterThan(0.19);
  });
  it('wants a part of the board, with joints', () => {
    expect(() => runOf({ ...inputOf(air()), target: 'nobody' })).toThrow('has no part "nobody"');
  });
});
