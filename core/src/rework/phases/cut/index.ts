/** Legs cut off the body: for parts that are scrap, on boards that must not get hot. */
import { packageById } from '../../../packages/index.ts';
import { CUT_S } from '../../handTimes.ts';
import { definePhase } from '../declaration.ts';
import { COUNT, type Instruction, lift, type Workplace } from '../instruction.ts';
import { rowsOf } from '../rows.ts';
import { anyOf } from '../tears.ts';
import { type CutSettings, cutSettings } from './settings.ts';

/** Land torn, a leg: cutters pull it up, a blade presses it down; and what a blade does to tracks within a millimetre (judgement). */
const TEARS = { cutters: 0.0005, blade: 0.002 } as const;

function say({ with: tool }: CutSettings, { target }: Workplace): Instruction[] {
  const rows = rowsOf(target.package);
  return [
    {
      id: 'heat-on',
      say: `Goggles on. Board held down, ${tool} in hand.`,
      watch: 'Only for a part that is scrap. The clock starts with your tap.',
      tap: 'ready',
      mark: 'heat-on',
    },
    ...rows.map((row, n): Instruction => ({
      id: `cut-${n + 1}`,
      say: `Row ${n + 1} of ${rows.length}: cut each leg close to the body.`,
      watch:
        tool === 'blade'
          ? 'Score, then through, blade away from the tracks. Never lever.'
          : 'Tips of the cutters flat, no pull on the leg.',
      tap: 'row cut',
      mark: 'done',
      walk: row.terminals,
    })),
    {
      id: 'all-wet',
      say: 'Look along each row: is every leg through?',
      watch: 'One that holds: cut it, do not bend it.',
      tap: 'all through',
      mark: 'all-wet',
    },
    lift('Lift the body off.', 'Nothing holds it any more.'),
    {
      id: 'heat-off',
      say: 'Stubs off one by one: iron and tweezers.',
      watch: 'Each falls off molten; nothing is pulled.',
      tap: 'stubs off',
      mark: 'heat-off',
    },
    COUNT,
  ];
}

export const cut = definePhase<'cut', CutSettings>({
  kind: 'cut',
  name: 'Legs cut',
  settings: cutSettings,
  form: {
    usual: [
      {
        key: 'with',
        label: 'With',
        choices: [
          ['cutters', 'cutters'],
          ['blade', 'blade'],
        ],
      },
    ],
    moreTitle: '',
    more: [],
  },
  tool: 'hand',
  wants: ({ with: tool }) => [
    tool === 'blade' ? { tool: 'blade', name: 'blade' } : { tool: 'pliers', name: 'small cutters' },
    { tool: 'iron', name: 'soldering iron for the stubs' },
  ],
  limbs: ({ with: tool }) => ({ left: 'board held down', right: tool }),
  line: ({ with: tool }) => `${tool}, about ${CUT_S.leg} s a leg`,
  irons: () => [],
  paced: true,
  fromAbove: true,
  bridges: false,
  inTurn: true,
  unfit(packageId) {
    const { terminals } = packageById(packageId);
    return terminals.length > 2 && terminals.every((t) => ['gull', 'leg', 'pin'].includes(t.kind))
      ? undefined
      : 'it has no legs that can be cut';
  },
  destroys: 'its legs are cut',
  tears: (packageId) => anyOf(packageById(packageId).terminals.length, TEARS.cutters),
  uncertain: [],
  needs: ({ with: tool }) => ({
    tools: [tool === 'blade' ? 'blade' : 'small cutters', 'iron and tweezers for the stubs'],
    setPoints: [],
  }),
  change_s: 5,
  say,
  cautions: [
    { steps: ['remove'], text: 'Cut legs fly: eyes covered, and count them; one left on the board is a short.' },
  ],
  wayOut: '',
  spare: '',
});
