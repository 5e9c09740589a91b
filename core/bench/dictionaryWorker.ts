/** The dictionary's yardstick in a browser's worker; posts its times. */
import { dictionaryTimes } from './dictionaryCase.ts';

postMessage(dictionaryTimes(() => performance.now()));
