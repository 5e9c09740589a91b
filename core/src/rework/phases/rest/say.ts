/** What hands are told: the board cools, with nothing on it. */
import type { RestSettings } from './settings.ts';
import type { Say } from '../instruction.ts';

export const say: Say<RestSettings> = (_, { until }) => [
  {
    id: 'rest',
    say: 'All heat off. Let the board cool.',
    watch: until && 'C' in until ? `Below about ${until.C} °C. No blowing, no wet cloth.` : 'No blowing, no wet cloth.',
    tap: 'cool',
    mark: 'done',
  },
];
