/** What hands are told: gull legs lifted one by one, with iron, braid and a needle. */
import { setText } from '../../dials.ts';
import { COUNT, fluxIt, heatOff, heatOn, lift, type Say } from '../instruction.ts';
import { rowsOf } from '../rows.ts';
import type { LiftLegsSettings } from './settings.ts';

export const say: Say<LiftLegsSettings> = ({ set_C }, work) => [
  fluxIt(work, 'On the legs and into the braid.'),
  heatOn(`Iron at ${setText(set_C, 'iron', work.panel)}, braid on the first leg.`),
  {
    id: 'legs',
    say: 'Braid the leg, raise it with the needle, next.',
    watch: 'It springs up a hair and stays there. Never pull on one that holds.',
    tap: 'this leg up',
    mark: 'done',
    walk: rowsOf(work.target.package).flatMap((r) => r.terminals.filter((t) => work.held?.includes(t) ?? true)),
    again: {
      say: 'It holds: fresh flux, braid, raise it once more.',
      watch: 'Wait until it is molten to its heel. Never pull.',
    },
  },
  {
    id: 'all-wet',
    say: 'Needle under every leg: do all of them spring?',
    watch: 'One that does not: braid, once more.',
    tap: 'all free',
    mark: 'all-wet',
    tries: true,
  },
  lift('Lift it off.', 'Nothing should hold. Body glued? Warm it, do not lever.'),
  heatOff('Iron into its stand.', 'Tin its tip.', 'iron away'),
  COUNT,
];
