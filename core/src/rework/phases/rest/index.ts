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
  say: (_, { until }) => [
    {
      id: 'rest',
      say: 'All heat off. Let the board cool.',
      watch:
        until && 'C' in until ? `Below about ${until.C} °C. No blowing, no wet cloth.` : 'No blowing, no wet cloth.',
      tap: 'cool',
      mark: 'done',
    },
  ],
  cautions: [],
  wayOut: '',
  spare: '',
});
