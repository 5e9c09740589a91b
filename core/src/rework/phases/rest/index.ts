/** The board cools with nothing on it, or hands wait with the heat from below on. */
import { definePhase } from '../declaration.ts';
import { type RestSettings, restSettings } from './settings.ts';

export const rest = definePhase<'rest', RestSettings>({
  kind: 'rest',
  name: 'Left to cool',
  settings: restSettings,
  tool: 'hand',
  wants: () => [],
  limbs: () => ({ left: 'free', right: 'free' }),
  line: ({ below }) => (below ? 'waiting, heat from below on' : 'until it is cool enough'),
  irons: () => [],
  fromAbove: true,
  bridges: false,
  cools: ({ below }) => below === undefined,
  uncertain: [],
  needs: () => ({ tools: [], setPoints: [] }),
  change_s: 0,
  cautions: [],
  wayOut: '',
  spare: '',
});
