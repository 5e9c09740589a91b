/** Putting a part on: with the tool that took its like off, or joint by joint with an iron. */
import { isPolarised, partName } from '../board/index.ts';
import { packageById } from '../packages/index.ts';
import { fittingMethod, fittingWordsOf, type Instruction, mainPhase, setText } from '../rework/index.ts';
import type { Work } from './work.ts';

/** An iron for ordinary solder, whatever the part came off with, °C. */
const ORDINARY_IRON_C = 350;
/** What a part goes on with: ordinary solder, never the alloy it came off with. */
const fitSolder = ({ board, flood }: Work): string => (flood === 'own' ? board.jointAlloy : 'leaded solder');

export function fit(work: Work): Instruction[] {
  const { method, target, nearest } = work;
  const name = partName(target);
  const turned = isPolarised(target);
  const place: Instruction[] = [
    {
      id: 'place',
      say: turned ? `Place ${name}. Check its mark once more.` : `Place ${name} on its lands.`,
      watch: turned ? 'Mark against photo and silkscreen, before anything melts.' : 'Centred, flat, not tilted.',
      tap: 'placed',
      mark: 'done',
    },
  ];
  const finish: Instruction[] = [
    {
      id: 'cool',
      say: 'Hold still until it has frozen.',
      watch: 'Solder turns dull when it is solid. No blowing.',
      tap: 'cooled',
      mark: 'fitted',
    },
    {
      id: 'wash',
      say: 'Wash the flux off. Let it dry.',
      watch: 'Nothing hot near alcohol.',
      tap: 'washed',
      mark: 'done',
    },
  ];
  const main = mainPhase(method);
  const said = fittingMethod(method) && fittingWordsOf(main, work);
  if (said) return [said.before, ...place, ...said.heat, ...finish];
  const terminals = packageById(target.package).terminals.map((t) => t.id);
  return [
    {
      id: 'tin',
      say: `Tin one corner land with ${fitSolder(work)}. Flux the others.`,
      watch: nearest ? `Keep the iron away from ${nearest}.` : 'Little solder: it only has to hold.',
      tap: 'tinned',
      mark: 'done',
    },
    ...place,
    {
      id: 'heat-on',
      say: `Iron on at ${setText(Math.max('set_C' in main.settings ? main.settings.set_C : 0, ORDINARY_IRON_C), 'iron', work.panel)}. Tack one corner.`,
      watch: 'Press nothing. Look from above: is every leg over its land?',
      tap: 'tacked',
      mark: 'heat-on',
    },
    {
      id: 'solder',
      say: `Solder joint by joint, ${terminals.length} in all.`,
      watch: 'A second or two each. Solder to the land, not to the tip.',
      tap: 'this joint done',
      mark: 'done',
      walk: terminals,
    },
    {
      id: 'heat-off',
      say: 'Iron into its stand.',
      watch: 'Drag bridges off with braid, once, hot.',
      tap: 'iron away',
      mark: 'heat-off',
    },
    ...finish,
  ];
}
