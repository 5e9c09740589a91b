/**
 * Speed of the kernel and of whole runs, as ratios within one run of this script, interleaved:
 *   npx tsx core/bench/plan.bench.ts [C-PROGRAM]
 * C-PROGRAM is the compiled yardstick of the same case (developers only); without it the ratio is to our own kernel.
 */
import { heatReport, heatTimes } from './planCase.ts';
import { yardstick } from './yardstick.ts';

const now = () => performance.now();
void heatReport(
  5,
  () => heatTimes(now),
  () => yardstick(process.argv[2]),
).then((report) => process.stdout.write(`${report}\n`));
