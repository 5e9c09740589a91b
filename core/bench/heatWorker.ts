/** One round of the heat's times in a browser's worker. */
import { heatTimes } from './planCase.ts';

self.onmessage = () => void heatTimes(() => performance.now()).then((times) => postMessage(times));
