/** Pressed until it sinks, with the heat still on; held until it has frozen. */
import { definePhase } from '../declaration.ts';
import { lift } from '../lift/index.ts';
import type { LiftSettings } from '../lift/settings.ts';

export const press = definePhase<'press', LiftSettings>({
  ...lift,
  kind: 'press',
  name: 'Pressed until it sinks',
  limbs: () => ({ left: 'tweezers, straight down on its middle', right: 'the tool stays on' }),
});
