/**
 * The full scan of random plans for temperatures that cannot be: npx tsx core/scripts/heat-scan.ts [PLANS] [LEAST-SECONDS]. Each plan in both
 * qualities; the tests do a part of it. Says what left its bounds even at the finest steps.
 */
import { hottestSource_C, randomPlan } from '../test/randomPlans.ts';
import { runPlan } from '../src/rework/planRun.ts';

const [plans = 400, least_s = 20] = process.argv.slice(2).map(Number);
const context = { now: () => 0 };
const failed: string[] = [];
const count: Record<string, number> = {};
for (const quality of ['search', 'plan'] as const)
  for (let n = 0; n < plans; n++) {
    const input = randomPlan(n, quality, least_s);
    const kind = `${quality}, ${input.phases.map((p) => p.kind).join(' then ')}`;
    count[kind] = (count[kind] ?? 0) + 1;
    try {
      const run = await runPlan(input, context);
      const hottest = Math.max(run.body_C, run.pads_C, ...run.neighbours.map((p) => p.peak_C));
      if (!(hottest <= hottestSource_C(input) + 2)) failed.push(`${n} (${quality}): ${hottest} °C`);
    } catch (e) {
      failed.push(`${n} (${quality}): ${(e as Error).message}`);
    }
  }
for (const [kind, runs] of Object.entries(count)) process.stdout.write(`${kind}: ${runs} runs\n`);
process.stdout.write(`${failed.map((f) => `${f}\n`).join('')}${failed.length} left their bounds\n`);
process.exitCode = failed.length > 0 ? 1 : 0;
