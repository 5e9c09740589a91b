/** What hands are told: a label, coating or glue warmed until it gives, and taken off. */
import { formatTemperature } from '../../../ground/index.ts';
import { flowText, setText } from '../../dials.ts';
import type { Say } from '../instruction.ts';
import type { SoftenSettings } from './settings.ts';

const OFF: Record<SoftenSettings['what'], { say: string; watch: string }> = {
  label: {
    say: 'Lift a corner. Peel it flat, slowly.',
    watch: 'It tears? Warmer, not harder. Keep it: what it says belongs to the job.',
  },
  coating: {
    say: 'Push the coating off the joints with the pick.',
    watch: 'Never a blade across tracks. Every joint has to be bare, or no solder flows.',
  },
  glue: {
    say: 'Pick under the glue. Roll it off, bit by bit.',
    watch: 'Away from tracks and small parts; never lever against the part.',
  },
};

export const say: Say<SoftenSettings> = (
  { what, soft_C, set_C, flow_L_min, standoff_mm, nozzle_mm, sweep_mm },
  { panel },
) => [
  {
    id: `soften-${what}`,
    say: `Warm it, wide, until the ${what} gives.`,
    watch: `Air at ${setText(set_C, 'air', panel)}, ${flowText(flow_L_min, panel)}, nozzle ${nozzle_mm} mm, ${standoff_mm} mm above it, moving ${sweep_mm} mm from its middle. At about ${formatTemperature(soft_C, panel)} it dents under a wooden pick; hotter it chars.`,
    tap: 'it gives',
    mark: 'done',
  },
  { id: `bare-${what}`, ...OFF[what], tap: `${what} off`, mark: 'done' },
];
