/** What hands are told: tacked, then joint by joint in the order that keeps it where it is. */
import { writeComposition } from '../../../alloys/index.ts';
import { packageById } from '../../../packages/index.ts';
import { setText } from '../../dials.ts';
import { heatOff, type Instruction, type Say, type Workplace } from '../instruction.ts';
import { LEADED } from '../../solders.ts';
import { wireWords } from '../solderOn.ts';
import type { JointSettings } from './settings.ts';

/** S that a joint takes by the plan, in words. */
function each({ guide }: Workplace): string {
  const times = guide?.turns?.flatMap((t) => t.takes_s ?? []) ?? [];
  if (times.length === 0) return 'A second or two each.';
  const middle = [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)];
  const slow = guide?.turns?.reduce((a, b) => ((b.takes_s ?? 0) > (a.takes_s ?? 0) ? b : a));
  const longest =
    slow?.takes_s && slow.takes_s > 1.5 * middle ? `; ${slow.terminal} about ${Math.round(slow.takes_s)}` : '';
  return `About ${Math.max(1, Math.round(middle))} s each${longest}.`;
}

const ironOn = ({ set_C }: JointSettings, work: Workplace): Instruction => ({
  id: 'heat-on',
  say: `Iron on at ${setText(set_C, 'iron', work.panel)}.`,
  watch: 'Tip tinned and clean. The clock starts with your tap.',
  tap: 'iron in hand',
  mark: 'heat-on',
});

/** What goes into each, and how long it may take. */
export const feed = ({ share, most_s, alloy = LEADED }: JointSettings, { target, board }: Workplace): string =>
  `${writeComposition(alloy)}, about ${wireWords(target.package, board.thickness_mm, share)} each; none longer than ${most_s} s.`;

const away = heatOff('Iron into its stand.', 'Drag bridges off with braid, once, hot.', 'iron away');

export const sayTack: Say<JointSettings> = (settings, work) => [
  ironOn(settings, work),
  {
    id: 'tack',
    say: 'Tack one corner. Look. Then the corner opposite.',
    watch: `Hold it down, look from above: is every leg over its land? Melt the one, nudge, let it freeze. ${feed(settings, work)}`,
    tap: 'tacked',
    mark: 'done',
  },
];

export const sayJoints: Say<JointSettings> = (settings, work) => {
  const { terminals } = packageById(work.target.package);
  return [
    ironOn(settings, work),
    {
      id: 'solder',
      say: `Solder joint by joint, ${terminals.length} in all.`,
      watch: `${each(work)} ${feed(settings, work)} Solder to the land, not to the tip.`,
      tap: 'this joint done',
      mark: 'done',
      walk: terminals.map((t) => t.id),
    },
    away,
  ];
};

export const sayFill: Say<JointSettings> = (settings, work) => {
  const { terminals } = packageById(work.target.package);
  return [
    ironOn(settings, work),
    {
      id: 'solder',
      say: `Fill hole by hole, ${terminals.length} in all.`,
      watch: `${each(work)} ${feed(settings, work)} Feed until both faces are wet. First one pin, look: does it sit?`,
      tap: 'this hole filled',
      mark: 'done',
      walk: terminals.map((t) => t.id),
    },
    away,
  ];
};
