/** The board cools, with nothing on it. */
import { definePhase } from '../declaration.ts';
import { type RestSettings, restSettings } from './settings.ts';

export const rest = definePhase<'rest', RestSettings>({
  kind: 'rest',
  name: 'Left to cool',
  settings: restSettings,
  form: { usual: [], moreTitle: '', more: [] },
  tool: 'hand',
  wants: () => [],
  limbs: () => ({ left: 'free', right: 'free' }),
  line: () => 'until it is cool enough',
  irons: () => [],
  fromAbove: true,
  bridges: false,
  cools: true,
  uncertain: [],
  needs: () => ({ tools: [], setPoints: [] }),
  change_s: 0,
  cautions: [],
  wayOut: '',
  spare: '',
});
