/** Words of sets. */
import type { SetProgress } from '@orthos/core/job';
import type { Fate, Op, Stage } from '@orthos/core/sets';

export const FATE_WORDS: Record<Fate, string> = {
  renew: 'renew',
  leave: 'leave off',
  move: 'move',
  salvage: 'salvage',
  lend: 'lend',
  place: 'put on',
};

/** What has been done to all parts once a stage is over. */
export const STAGE_WORDS: Record<Stage, string> = {
  off: 'All off',
  prepared: 'All lands ready',
  fitted: 'All on',
  each: 'Part by part',
};

const OP_DONE: Record<Op, string> = { remove: 'off', prepare: 'lands ready', fit: 'on' };

/** "6 of 14 off, 2 of 14 lands ready". */
export const countWords = ({ counts }: Pick<SetProgress, 'counts'>): string =>
  (['remove', 'prepare', 'fit'] as const)
    .filter((op) => counts[op].all > 0)
    .map((op) => `${counts[op].done} of ${counts[op].all} ${OP_DONE[op]}`)
    .join(', ');

export function mmss(s: number): string {
  const whole = Math.round(s);
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
