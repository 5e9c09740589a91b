/** What hands are told: the board cools, with nothing on it. */
import { formatTemperature } from '../../../ground/index.ts';
import type { RestSettings } from './settings.ts';
import type { Say } from '../instruction.ts';

export const say: Say<RestSettings> = ({ below }, { until, panel }) => [
  {
    id: 'rest',
    say: below ? 'Hands off. The heat from below stays on.' : 'All heat off. Let the board cool.',
    watch:
      until && 'C' in until
        ? `Below about ${formatTemperature(until.C, panel)}. No blowing, no wet cloth.`
        : 'No blowing, no wet cloth.',
    tap: 'cool',
    mark: 'done',
  },
];
