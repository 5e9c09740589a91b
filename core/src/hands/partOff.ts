/** The part that comes off: what became of it so far, and where it goes. */
import { SOLDER_ALLOYS, writeComposition } from '../alloys/index.ts';
import { formatTemperature } from '../ground/index.ts';
import { broughtBy, type Instruction, kindOf, type PartFate, type PartOff } from '../rework/index.ts';
import { melts_C } from './flux.ts';
import type { Work } from './work.ts';

const FATE_WORDS: Readonly<Record<PartFate, string>> = {
  'must live': 'It has to live: no cooling spray, no water.',
  'to be tested': 'Kept until the board works: it may have been good.',
  scrap: 'Scrap: nobody fits it again.',
};

/** What a part is kept for: what its way off breaks is scrap, one that goes on again has to live, and a suspect is tested first. */
export const keptFor = ({ method, surroundings }: Pick<Work, 'method' | 'surroundings'>): PartFate =>
  method.phases.some((p) => kindOf(p).destroys) ? 'scrap' : surroundings?.reused ? 'must live' : 'to be tested';

/** Solder on its legs: the board's own, and what was worked in. */
function legsOf({ target, board, method, joints = [] }: Work): string[] {
  const own = SOLDER_ALLOYS.get(board.jointAlloy)?.wt;
  const brought = method.phases.flatMap((p) => [...broughtBy(p, target.package).values()]);
  const worked = joints.flatMap((j) => j.with ?? []);
  const all = [...(own ? [own] : []), ...worked.map((w) => w.alloy), ...brought.map((b) => b.alloy)];
  return [...new Set(all.map(writeComposition))];
}

/** The part's own record as it is begun with the tap that puts it away. */
const partOff = (work: Work): PartOff => ({
  type: 'part-off',
  partId: work.target.partId,
  fate: keptFor(work),
  place: work.place ?? '',
  legs: legsOf(work),
  ...(work.heat ? { heat: work.heat } : {}),
});

/** Held clear until what is on its legs has frozen, then into a named place. */
export function putAway(work: Work): Instruction {
  const event = partOff(work);
  const scrap = event.fate === 'scrap';
  const freezes = `Liquid down to ${formatTemperature(melts_C(work), work.panel)}: dull is frozen.`;
  return {
    id: 'put-away',
    say: scrap
      ? 'The part goes into the scrap.'
      : `Hold it clear until dull. Then into ${event.place || 'its own marked tray'}.`,
    watch: scrap ? FATE_WORDS.scrap : `${freezes} ${FATE_WORDS[event.fate]}`,
    tap: 'put away',
    mark: 'done',
    event,
  };
}
