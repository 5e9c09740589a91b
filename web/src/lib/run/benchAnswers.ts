/** What the hidden bench answers hands: joint by joint where a tool goes from one to the next, else by the clock. */
import type { HiddenTruth } from '@orthos/core/hands';
import { someJoints } from '@orthos/core/rework';

/** A turn at a joint, and how long it lasted. */
export interface Turn {
  terminal: string;
  seconds: number;
}

type Pins = HiddenTruth['pins'];
const AFTER = {
  solid: 'is not through yet',
  plugged: 'has melted, but stays plugged',
  free: 'is through',
} as const;

/** How a joint is after its turns: one that stays plugged comes free at a later one. */
export function afterTurns(terminal: string, pins: Pins, turns: readonly Turn[]): keyof typeof AFTER {
  const pin = pins?.find((p) => p.terminal === terminal);
  const melted = turns.filter((t) => t.terminal === terminal && t.seconds >= (pin?.takes_s ?? Infinity)).length;
  if (melted === 0 || !pin) return 'solid';
  return melted === 1 && pin.stuck ? 'plugged' : 'free';
}

/** How it is in the turn under way, the last: one that stayed plugged has to melt again first. */
function atTurn(joint: string, pins: Pins, turns: readonly Turn[]): keyof typeof AFTER {
  const state = afterTurns(joint, pins, turns);
  const [before, now] = [afterTurns(joint, pins, turns.slice(0, -1)), turns.at(-1)];
  return state === 'plugged' && before === 'plugged' && now?.terminal === joint ? 'solid' : state;
}

/** Joints that are loose. `clock_s`: since the heat that melts all of them together came on; null where none does. */
export function looseJoints(
  { joints, allWet_s }: HiddenTruth,
  pins: Pins,
  turns: readonly Turn[],
  clock_s: number | null,
): Set<string> {
  const loose = joints.filter(({ terminal, wet_s }) => {
    // what its own turn should have freed waits for the last of the others
    const due_s = wet_s === 0 ? allWet_s : wet_s;
    return afterTurns(terminal, pins, turns) === 'free' || (clock_s !== null && due_s !== null && clock_s >= due_s);
  });
  return new Set(loose.map((j) => j.terminal));
}

interface Asked {
  pins: Pins;
  turns: readonly Turn[];
  loose: ReadonlySet<string>;
  /** The joint that is worked at, or only tried. */
  joint: string | null;
  tried: boolean;
  /** The part goes on: what is through is made. */
  fitting?: boolean;
  elapsed_s: number;
}

/** The answer in words; null where there is nothing to say yet. */
export function benchWords({ joints, allWet_s, sits }: HiddenTruth, asked: Asked): string | null {
  const { pins, turns, loose, joint, tried, fitting, elapsed_s } = asked;
  if (!pins) {
    const all = allWet_s !== null && elapsed_s >= allWet_s;
    return `${loose.size} of ${joints.length} joints shiny${all ? `, all wet${sits ? `; it sits ${sits}` : ''}` : ''}`;
  }
  if (joint !== null && tried) return `joint ${joint} ${loose.has(joint) ? 'moves' : 'holds'}`;
  if (joint !== null) return `joint ${joint} ${AFTER[atTurn(joint, pins, turns)]}`;
  if (turns.length === 0) return null;
  const holds = joints.filter((j) => !loose.has(j.terminal)).map((j) => j.terminal);
  if (fitting) return holds.length === 0 ? 'every joint has flowed' : `${someJoints(holds)} not through`;
  if (holds.length === 0) return 'every pin moves';
  return `${someJoints(holds)} still ${holds.length === 1 ? 'holds' : 'hold'}`;
}
