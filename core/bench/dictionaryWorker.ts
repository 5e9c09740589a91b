/** The dictionary's yardstick in a browser's worker; answers any message with its times. */
import { dictionaryTimes } from './dictionaryCase.ts';

self.onmessage = () => postMessage(dictionaryTimes(() => performance.now()));
