/** What hands are told: paste on every land. */
import { writeComposition } from '../../../alloys/index.ts';
import { packageById } from '../../../packages/index.ts';
import { LEADED } from '../../solders.ts';
import type { Say } from '../instruction.ts';
import type { PasteSettings } from './settings.ts';

export const say: Say<PasteSettings> = ({ share, alloy = LEADED }, { target }) => {
  const pad = packageById(target.package).terminals.some((t) => t.kind === 'pad');
  const low = (alloy.Bi ?? 0) > 0 ? ' No lead on these lands: with bismuth it melts at 96 °C.' : '';
  return [
    {
      id: 'paste',
      say: 'Paste on every land, thin and even.',
      watch: `${writeComposition(alloy)}, ${share} of what a stencil leaves.${pad ? ' On the centre pad four dots, half of it bare: too much lifts the rim.' : ' As much as the land, no bridges.'}${low}`,
      tap: 'paste is on',
      mark: 'done',
    },
  ];
};
