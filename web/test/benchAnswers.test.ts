import type { HiddenTruth } from '@orthos/core/hands';
import { describe, expect, it } from 'vitest';
import { afterTurns, benchWords, looseJoints } from '../src/lib/run/benchAnswers.ts';

const pins = [
  { terminal: '1', takes_s: 4, stuck: false },
  { terminal: '2', takes_s: 4, stuck: true },
  { terminal: '3', takes_s: null, stuck: false },
];
const truth: HiddenTruth = {
  joints: [
    { terminal: '1', wet_s: 0 },
    { terminal: '2', wet_s: 12 },
    { terminal: '3', wet_s: null },
  ],
  pins,
  allWet_s: 15,
  freezes_s: null,
  hurt: [],
};
const turn = (terminal: string, seconds: number) => ({ terminal, seconds });

describe('what the hidden bench answers', () => {
  it('a pin left too early is solid, a stuck one stays plugged at its first turn, one that never melts stays solid', () => {
    expect(afterTurns('1', pins, [turn('1', 3.9)])).toBe('solid');
    expect(afterTurns('1', pins, [turn('1', 3.9), turn('1', 4)])).toBe('free');
    expect(afterTurns('2', pins, [turn('2', 5)])).toBe('plugged');
    expect(afterTurns('2', pins, [turn('2', 5), turn('2', 2)])).toBe('plugged');
    expect(afterTurns('2', pins, [turn('2', 5), turn('2', 5)])).toBe('free');
    expect(afterTurns('3', pins, [turn('3', 99)])).toBe('solid');
  });
  it('without a clock turns alone free joints; with one the rest comes with the others', () => {
    const turns = [turn('2', 5)];
    expect([...looseJoints(truth, pins, turns, null)]).toEqual([]);
    // the first was left too early in the lap: it waits for the last
    expect([...looseJoints(truth, pins, turns, 13)]).toEqual(['2']);
    expect([...looseJoints(truth, pins, turns, 15)]).toEqual(['1', '2']);
  });
  it('says it joint by joint, of those tried whether they move, afterwards which ones hold', () => {
    const words = (more: object) =>
      benchWords(truth, {
        pins,
        turns: [turn('1', 5)],
        loose: new Set(['1']),
        joint: null,
        tried: false,
        elapsed_s: 0,
        ...more,
      });
    expect(words({ joint: '1' })).toBe('joint 1 is through');
    expect(words({ joint: '2' })).toBe('joint 2 is not through yet');
    expect(words({ joint: '2', tried: true })).toBe('joint 2 holds');
    expect(words({ joint: '2', turns: [turn('2', 5)] })).toBe('joint 2 has melted, but stays plugged');
    // the next lap begins cold: what the last one came to is not said of it
    expect(words({ joint: '2', turns: [turn('2', 5), turn('2', 1)] })).toBe('joint 2 is not through yet');
    expect(words({ joint: '2', turns: [turn('2', 5), turn('2', 5)] })).toBe('joint 2 is through');
    expect(words({})).toBe('2, 3 still hold');
    expect(words({ loose: new Set(['1', '2', '3']) })).toBe('every pin moves');
    expect(words({ fitting: true })).toBe('2, 3 not through');
    expect(words({ fitting: true, loose: new Set(['1', '2', '3']) })).toBe('every joint has flowed');
    expect(words({ turns: [] })).toBeNull();
    expect(words({ pins: undefined, elapsed_s: 16 })).toBe('1 of 3 joints shiny, all wet');
    const laid = { pins: undefined, turns: [], loose: new Set(['1']), joint: null, tried: false, elapsed_s: 16 };
    expect(benchWords({ ...truth, sits: 'tilted' }, laid)).toBe('1 of 3 joints shiny, all wet; it sits tilted');
  });
});
