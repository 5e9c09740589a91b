export { parseMeterAnswer } from './meterAnswer.ts';
