/** Pin by pin: each hole melted through by a hollow tip, then sucked empty. */
import { setText } from '../../dials.ts';
import { definePhase } from '../declaration.ts';
import { reachOf } from '../rows.ts';
import { ironSetPoint, uncertainTip } from '../tip.ts';
import { type VacuumSettings, vacuumSettings } from './settings.ts';

export const vacuum = definePhase<'vacuum', VacuumSettings>({
  kind: 'vacuum',
  name: 'Vacuum iron',
  settings: vacuumSettings,
  tool: 'vacuum',
  wants: ({ fresh = true }, wire) => [
    { tool: 'vacuum', name: 'vacuum iron' },
    ...(fresh ? [wire.solder] : []),
    { tool: 'flux', name: 'flux' },
  ],
  onBench: (s, bench) => bench.tip(s, 'vacuum'),
  limbs: () => ({ left: 'wire, then a nudge at the pin', right: 'vacuum iron upright on the pin', foot: 'suction' }),
  unfit: (packageId) => (reachOf(packageId).pins ? undefined : 'its joints lie in no holes'),
  line: ({ set_C }, panel) => `${setText(set_C, 'vacuum', panel)}, pin by pin`,
  irons: ({ power_W, set_C }) => [{ power_W, set_C }],
  paced: true,
  fromAbove: false,
  bridges: false,
  inTurn: true,
  opensHoles: true,
  uncertain: uncertainTip,
  needs: ({ set_C, tip_mm, power_W }) => ({
    tools: [`vacuum iron of ${power_W} W`, `hollow tip ${tip_mm} mm`],
    setPoints: [ironSetPoint(set_C, 'vacuum')],
  }),
  change_s: 5,
  cautions: [],
  wayOut: 'Longer on each pin, a wider tip or warming from below would change that.',
  spare: 'Cover it,',
});
