/** Times the heat in a worker of Chromium, beside the C yardstick: npx tsx e2e/scripts/heat.ts [C-PROGRAM] */
import { heatReport, type Timed } from '../../core/bench/planCase.ts';
import { yardstick } from '../../core/bench/yardstick.ts';
import { chromiumWorker } from './chromiumWorker.ts';

const worker = await chromiumWorker<Timed[]>('heatWorker');
process.stdout.write(`${await heatReport(5, worker.ask, () => yardstick(process.argv[2]))}\n`);
await worker.end();
