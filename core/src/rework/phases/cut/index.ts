/** Legs cut off the body: for parts that are scrap, on boards that must not get hot. */
import { packageById } from '../../../packages/index.ts';
import { CUT_S } from '../../handTimes.ts';
import { definePhase } from '../declaration.ts';
import { anyOf } from '../tears.ts';
import { type CutSettings, cutSettings } from './settings.ts';

/** Land torn, a leg: cutters pull it up, a blade presses it down; and what a blade does to tracks within a millimetre (judgement). */
const TEARS = { cutters: 0.0005, blade: 0.002 } as const;

export const cut = definePhase<'cut', CutSettings>({
  kind: 'cut',
  name: 'Legs cut',
  settings: cutSettings,
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
  cautions: [
    { steps: ['remove'], text: 'Cut legs fly: eyes covered, and count them; one left on the board is a short.' },
  ],
  wayOut: '',
  spare: '',
});
