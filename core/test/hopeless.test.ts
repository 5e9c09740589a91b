// A search does not wait for what can never melt: it must never give up what would have, and say how near it would have come.
import { describe, expect, it } from 'vitest';
import { expressBoard } from '../src/rework/index.ts';
import { runPlan } from '../src/rework/planRun.ts';
import { air, planOf } from './plans.ts';

const context = { now: () => 0 };

describe('a run that is given up because nothing of it will melt', () => {
  const cases = (['two-layer', 'heavy', 'thin'] as const).flatMap((boardKind) =>
    (['SOIC-8', 'QFP-44'] as const).flatMap((pkg) => [250, 300, 340, 370].map((set_C) => ({ boardKind, pkg, set_C }))),
  );
  it('never would have melted, and its peaks are those it would have had', async () => {
    let [givenUp, saved] = [0, 0];
    for (const { boardKind, pkg, set_C } of cases) {
      const board = expressBoard({ package: pkg, boardKind, plastic: 'pbt', distance_mm: 40 });
      const plan = planOf(board, air({ set_C, flow_L_min: 25, standoff_mm: 12 }));
      const whole = await runPlan(plan, context);
      const shut = await runPlan(plan, context, 'shut');
      const name = `${boardKind} ${pkg} ${set_C}`;
      const [end, at] = [whole.phases?.at(-1)?.to_s ?? 0, shut.phases?.at(-1)?.to_s ?? 0];
      if (shut.allWet_s !== null || at > 149) {
        expect(shut.allWet_s, name).toBe(whole.allWet_s);
        continue;
      }
      if (shut.closes) continue;
      givenUp++;
      saved += 1 - at / end;
      expect(whole.allWet_s, name).toBeNull();
      for (const [i, joint] of shut.joints.entries())
        expect(Math.abs(joint.peak_C - whole.joints[i].peak_C), `${name} ${joint.terminal}`).toBeLessThan(8);
    }
    expect(givenUp).toBeGreaterThan(5);
    expect(saved / givenUp).toBeGreaterThan(0.4);
  });
});
