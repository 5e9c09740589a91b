/** Plans against hidden benches: how many of them finish within the range that was promised. */
import { boardOf, planOf } from './plans.ts';
import { methodsFor } from '../src/rework/defaults.ts';
import type { ExpressAnswers } from '../src/rework/expressBoard.ts';
import { playBench } from '../src/hands/hiddenBench.ts';
import type { Method } from '../src/rework/method.ts';
import { planHeat, type PlanResult } from '../src/rework/planHeat.ts';

interface Coverage {
  plan: PlanResult;
  benches: number;
  inside: number;
}
interface CoverageCase {
  name: string;
  run: (benches: number) => Promise<Coverage>;
}

const context = { now: () => 0 };

function coverageCase(pkg: string, boardKind: ExpressAnswers['boardKind'], label: string): CoverageCase {
  return {
    name: `${pkg}, ${boardKind}, ${label}`,
    run: async (benches) => {
      const method = methodsFor(pkg).find((m) => m.method.label === label)?.method as Method;
      const input = planOf(boardOf(pkg, boardKind, 'pbt'), method);
      const plan = await planHeat(input, context);
      const { from, to } = plan.allWetRange_s;
      let inside = 0;
      for (let n = 0; n < benches; n++) {
        const t = (await playBench({ plan: input, seed: 7919 * n + 1 }, context)).allWet_s ?? Infinity;
        if (t >= (from ?? Infinity) && t <= (to ?? Infinity)) inside++;
      }
      return { plan, benches, inside };
    },
  };
}

export const coverageCases: CoverageCase[] = [
  coverageCase('SOIC-8', 'two-layer', 'Air, slow'),
  coverageCase('QFP-48', 'four-layer', 'Air, fast'),
  coverageCase('C0603', 'thin', 'Air, fast'),
  coverageCase('DPAK', 'two-layer', 'Air, fast'),
  coverageCase('DPAK', 'heavy', 'Air, fast'),
  coverageCase('SOIC-16', 'two-layer', 'Low-melt + iron'),
  coverageCase('SOIC-16', 'four-layer', 'Low-melt + iron'),
  coverageCase('C1206', 'four-layer', 'Hot tweezers'),
];
