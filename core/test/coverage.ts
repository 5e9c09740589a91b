/** Plans against hidden benches: how many of them finish within the range that was promised. */
import { beadFor, boardOf, phaseFor, planOf } from './plans.ts';
import { methodName } from '../src/rework/methods/names.ts';
import type { ExpressAnswers } from '../src/rework/expressBoard.ts';
import { playHiddenBench } from '../src/hands/hiddenBench.ts';
import { planHeat } from '../src/rework/planHeat.ts';
import type { PlanResult } from '../src/rework/planResult.ts';

export interface Coverage {
  plan: PlanResult;
  benches: number;
  inside: number;
}
interface CoverageCase {
  name: string;
  run: (benches: number) => Promise<Coverage>;
}

const context = { now: () => 0 };

function coverageCase(pkg: string, boardKind: ExpressAnswers['boardKind'], recipe: string): CoverageCase {
  return {
    name: `${pkg}, ${boardKind}, ${methodName(recipe)}`,
    run: async (benches) => {
      // a bead lies there before the iron comes: what is compared is the iron
      const phase = recipe === 'bead' ? beadFor(pkg) : phaseFor(pkg, recipe);
      const input = planOf(boardOf(pkg, boardKind, 'pbt'), phase);
      const plan = await planHeat(input, context);
      const { from, to } = plan.allWetRange_s;
      let inside = 0;
      for (let n = 0; n < benches; n++) {
        const t = (await playHiddenBench({ plan: input, seed: 7919 * n + 1 }, context)).allWet_s ?? Infinity;
        if (t >= (from ?? Infinity) && t <= (to ?? Infinity)) inside++;
      }
      return { plan, benches, inside };
    },
  };
}

export const coverageCases: CoverageCase[] = [
  coverageCase('SOIC-8', 'two-layer', 'air-slow'),
  coverageCase('QFP-48', 'four-layer', 'air-fast'),
  coverageCase('C0603', 'thin', 'air-fast'),
  coverageCase('DPAK', 'two-layer', 'air-fast'),
  coverageCase('DPAK', 'heavy', 'air-fast'),
  coverageCase('SOIC-16', 'two-layer', 'bead'),
  coverageCase('SOIC-16', 'four-layer', 'bead'),
  coverageCase('C1206', 'four-layer', 'tweezers'),
];
