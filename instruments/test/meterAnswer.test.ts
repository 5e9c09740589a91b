import { describe, expect, it } from 'vitest';
import { parseMeterAnswer } from '../src/meterAnswer.ts';

describe("a meter's answer", () => {
  it.each([
    ['+4.70000000E+03\n', 4700],
    ['-0.00012', -0.00012],
    ['12', 12],
    ['+9.90000000E+37', 'OL'],
    ['', null],
    ['ERR', null],
    ['1,2', null],
    ['NaN', null],
  ])('%j', (line, value) => {
    expect(parseMeterAnswer(line)).toBe(value);
  });
});
