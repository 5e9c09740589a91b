/** What hands are told: lands tinned, flat and alike, or one of them alone. */
import { writeComposition } from '../../../alloys/index.ts';
import { packageById } from '../../../packages/index.ts';
import { LEADED } from '../../solders.ts';
import { setText } from '../../dials.ts';
import type { Say } from '../instruction.ts';
import { wireWords } from '../solderOn.ts';
import type { TinSettings } from './settings.ts';

/** More of a joint's solder than this on a land is fat: the part is pressed into it. */
const FAT = 1;
const isPad = (kind: string): boolean => kind === 'pad';

export const say: Say<TinSettings> = (
  { set_C, share, pad_share = share, one, alloy = LEADED },
  { target, board, panel },
) => {
  const pkg = target.package;
  const wire = (of: number, pads: boolean) => wireWords(pkg, board.thickness_mm, of, (kind) => isPad(kind) === pads);
  const hasPad = packageById(pkg).terminals.some((t) => isPad(t.kind));
  const pad = hasPad
    ? ` On the pad under the body ${wire(pad_share, true)}: rock the part on it, more lifts its rim.`
    : '';
  const fat = share > FAT;
  const how = one
    ? 'The land your iron hand reaches.'
    : fat
      ? 'All alike: it is pressed down until it sits.'
      : 'Even height: a fat land tilts the part.';
  return [
    {
      id: 'tin',
      say: one ? 'Tin one land. The other stays bare.' : `Tin the lands ${fat ? 'fat' : 'flat'} and even.`,
      watch: `Iron at ${setText(set_C, 'iron', panel)}, ${writeComposition(alloy)}: ${wire(share, false)} a land. ${how}${pad}`,
      tap: 'tinned',
      mark: 'done',
    },
    {
      id: 'flux',
      say: 'Flux every land.',
      watch: 'A thin film of tacky flux: it holds the part in the wind.',
      tap: 'fluxed',
      mark: 'done',
    },
  ];
};
