/** Nudged and lifted, with the heat of the phase before still on. */
import { definePhase } from '../declaration.ts';

import { type LiftSettings, liftSettings } from './settings.ts';

export const lift = definePhase<'lift', LiftSettings>({
  kind: 'lift',
  name: 'Nudged and lifted',
  settings: liftSettings,
  tool: 'hand',
  wants: () => [],
  limbs: () => ({ left: 'tweezers on the part', right: 'the tool stays on' }),
  line: ({ stays_s }) => `heat stays on for ${stays_s} s`,
  irons: () => [],
  fromAbove: true,
  bridges: false,
  stays_s: ({ stays_s }) => stays_s,
  uncertain: [],
  needs: () => ({ tools: ['tweezers'], setPoints: [] }),
  change_s: 0,
  cautions: [],
  wayOut: '',
  spare: '',
});
