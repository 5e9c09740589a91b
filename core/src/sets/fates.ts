/** What becomes of the parts of a set, and in which stages. */

/** What becomes of a part of a set: `move` goes to another board, `lend` too, and one comes back; `place` is put on where nothing stands. */
export const FATES = ['renew', 'leave', 'move', 'salvage', 'lend', 'place'] as const;
export type Fate = (typeof FATES)[number];

/** What is done to all parts before anything else is, or part by part. */
export const STAGES = ['off', 'prepared', 'fitted', 'each'] as const;
export type Stage = (typeof STAGES)[number];

export type Op = 'remove' | 'prepare' | 'fit';

const NEEDS: Record<Fate, readonly Op[]> = {
  renew: ['remove', 'prepare', 'fit'],
  leave: ['remove', 'prepare'],
  // what goes to another board is fitted there
  move: ['remove'],
  salvage: ['remove'],
  // and a good board gets one back
  lend: ['remove', 'prepare', 'fit'],
  // its place is empty
  place: ['prepare', 'fit'],
};
const STAGE_OPS: Record<Stage, readonly Op[]> = {
  off: ['remove'],
  prepared: ['prepare'],
  fitted: ['fit'],
  each: ['remove', 'prepare', 'fit'],
};

/** What comes off to be used again has to live. */
export const mustLive = (fate: Fate): boolean => fate === 'move' || fate === 'salvage' || fate === 'lend';

/** What is done to a part in a stage, in order. */
export const opsIn = (stage: Stage, fate: Fate): Op[] => STAGE_OPS[stage].filter((op) => NEEDS[fate].includes(op));
