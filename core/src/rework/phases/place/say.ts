/** What hands are told: its mark once more, then down onto its lands, held where it is not crowded. */
import { isPolarised, partName } from '../../../board/index.ts';
import { reachOf } from '../rows.ts';
import type { Instruction, Say } from '../instruction.ts';
import type { PlaceSettings } from './settings.ts';

export const say: Say<PlaceSettings> = ({ molten, socket, again }, { target }) => {
  const name = partName(target);
  const turned = isPolarised(target);
  const marked = 'Mark against photo and silkscreen, before anything melts.';
  const place = (words: Pick<Instruction, 'say' | 'watch'>, more: Partial<Instruction> = {}): Instruction[] => [
    { id: 'place', ...words, tap: 'placed', mark: 'done', ...more },
  ];
  if (again)
    return [
      {
        id: 'flux',
        say: `Fresh flux all round ${name}.`,
        watch: 'It stays where it is. Under it and to every joint; the old flux washed off first where it is char.',
        tap: 'fluxed',
        mark: 'done',
      },
    ];
  if (socket)
    return place({
      say: `Socket for ${name} into its holes.`,
      watch: 'Its notch as the chip’s, on silkscreen and photo.',
    });
  if (molten)
    return place(
      {
        say: `Set ${name} onto the molten lands.`,
        watch: `Heat stays on. ${turned ? `${marked} ` : ''}Held half-way up, so that it sits below the tips. It comes cold: all has to melt again.`,
      },
      // from here its times count
      { mark: 'heat-on' },
    );
  if (reachOf(target.package).pins)
    return place({
      say: `${name} into its holes. Every pin through?`,
      watch: `${turned ? `${marked} ` : ''}Flat on the board, or at the height it had.`,
    });
  return place({
    say: turned ? `Place ${name}. Check its mark once more.` : `Place ${name} on its lands.`,
    watch: turned ? marked : 'Centred, flat, not tilted.',
  });
};
