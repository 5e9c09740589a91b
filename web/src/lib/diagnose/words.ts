/** Words of the search for a fault. */
import type { Diagnosis, Swap } from '@orthos/core/diagnosis';
import { few } from '@orthos/core/ground';
import { modeName, probeName, shown } from './probes';

/** Ways to tell parts apart that no reading can. */
export const SPLIT: Record<Diagnosis['group_shares'][number]['splits'][number]['how'], string> = {
  look: 'look at them under the microscope',
  profile: 'millivolts along the rail with a current injected',
  warmth: 'inject a current and feel which one warms up',
  lift: 'lift one leg after the other',
  swap: 'swap one after the other',
};

export const percent = (p: number): string => (p > 0.995 ? '> 99 %' : p < 0.005 ? '< 1 %' : `${Math.round(100 * p)} %`);

/** A way of a part to fail, as said on the bench. */
export function faultWords({ mode, where }: { mode: string; where: string }): string {
  switch (mode) {
    case 'asleep':
      return 'does not start';
    case 'breakdown':
      return 'breaks down under voltage';
    case 'reversed':
      return 'the wrong way round';
    case 'joint':
      return where === 'joint' ? 'joint or track' : `joint or track at ${where.replace(/^joint /, '')}`;
    case 'drift':
      return where.startsWith('output') ? where : `drift ${where}`;
    case 'dead':
      return where === 'inside' ? 'dead inside' : where;
    default:
      return [mode, where].filter(Boolean).join(' ');
  }
}

/** Ways to fail in the words of a list: "no short: C3, C4". */
const RULED: Record<string, string> = {
  short: 'no short',
  leaky: 'no leak',
  open: 'not open',
  joint: 'joints well',
  bridge: 'no bridge',
  drift: 'values right',
  dead: 'not silent',
  asleep: 'starts',
  breakdown: 'holds its voltage',
  missing: 'there',
  reversed: 'the right way round',
};
export const ruledOut = ({ mode, refs }: { mode: string; refs: readonly string[] }): string =>
  `${RULED[mode] ?? `not ${mode}`}: ${few(refs)}`;

/** A search as lines of text, for the record: what was measured, what it ruled out. */
export function storyLines(story: Diagnosis['story'], ground: string): string[] {
  return story.map((c) => {
    const told = c.out.length > 0 ? c.out.map(ruledOut).join('; ') : 'ruled nobody out';
    return `${probeName(c, ground)}, ${modeName(c)}: ${shown(c.type, c.value)}. ${told}`.slice(0, 400);
  });
}

/** How it was looked at without a part, and what came of it: the fault gone, the fault still there. */
export const SWAP_WORDS: Record<Swap, { how: string; gone: string; stayed: string }> = {
  'good board': { how: 'changed for a good board’s', gone: 'the fault went along with it', stayed: 'the fault stayed' },
  'new part': { how: 'renewed', gone: 'the fault is gone', stayed: 'the fault stayed' },
  'leg lifted': { how: 'a leg lifted', gone: 'the line came back', stayed: 'the line stayed as it was' },
};
export const swapOutcome = ({ followed, how = 'good board' }: { followed: boolean; how?: Swap | undefined }): string =>
  followed ? SWAP_WORDS[how].gone : SWAP_WORDS[how].stayed;
