/** Times the fault dictionary in a worker of Chromium: npx tsx e2e/scripts/dictionary.ts [RUNS] */
import type { dictionaryTimes } from '../../core/bench/dictionaryCase.ts';
import { chromiumWorker } from './chromiumWorker.ts';

for (let i = 0; i < Number(process.argv[2] ?? 3); i++) {
  // a new one each time: the first run of a page is what the technician waits for
  const worker = await chromiumWorker<ReturnType<typeof dictionaryTimes>>('dictionaryWorker');
  const t = await worker.ask();
  await worker.end();
  const ms = (v: number) => `${v.toFixed(1)} ms`;
  process.stdout.write(
    `${t.faults} faults × ${t.tests} readings: first ${ms(t.first_ms)}, then ${ms(t.best_ms)}; ranking ${ms(t.update_ms)}, worst ${ms(t.worstUpdate_ms)}\n`,
  );
}
