/** Pressed until it sinks, with the heat still on; held until it has frozen. */
import { definePhase } from '../declaration.ts';
import { type PressSettings, pressSettings } from './settings.ts';

export const press = definePhase<'press', PressSettings>({
  kind: 'press',
  name: 'Pressed until it sinks',
  settings: pressSettings,
  tool: 'hand',
  wants: () => [],
  limbs: () => ({ left: 'tweezers, straight down on its middle', right: 'the tool stays on' }),
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
