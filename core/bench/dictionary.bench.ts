/** Times the fault dictionary and a ranking in Node: npx tsx core/bench/dictionary.bench.ts */
import { dictionaryTimes } from './dictionaryCase.ts';

const t = dictionaryTimes(() => performance.now());
process.stdout.write(
  [
    `${t.faults} faults × ${t.tests} readings, ${t.lost} lost`,
    `dictionary: first ${t.first_ms.toFixed(0)} ms, then ${t.best_ms.toFixed(0)} ms`,
    `ranking, groups and next readings after one more: ${t.update_ms.toFixed(1)} ms, worst ${t.worstUpdate_ms.toFixed(1)} ms`,
    '',
  ].join('\n'),
);
