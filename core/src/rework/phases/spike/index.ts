/** Solder worked into joints with an iron, so that what follows has less to melt. */
import { writeComposition } from '../../../alloys/index.ts';
import { setText } from '../../dials.ts';
import { RANGES, within } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { outOfReach, rowsOf } from '../rows.ts';
import { ironSetPoint, ironTools, uncertainTip } from '../tip.ts';
import { LEADED } from '../../solders.ts';
import { type SpikeSettings, spikeSettings } from './settings.ts';

const { ratio } = RANGES.spike;
/** What goes in differs from what was meant by this share (estimate). */
const WORKED_IN = 0.3;

export const spike = definePhase<'spike', SpikeSettings>({
  kind: 'spike',
  name: 'Iron, solder worked in',
  settings: spikeSettings,
  tool: 'iron',
  wants: (_, wire) => [{ tool: 'iron', name: 'soldering iron' }, wire.leaded, { tool: 'flux', name: 'flux' }],
  onBench: (s, bench) => bench.tip(s),
  limbs: () => ({ left: 'wire into the joint', right: 'iron on the joint' }),
  line: (s, panel) =>
    `${setText(s.set_C, 'iron', panel)}, ${s.ratio} × of ${writeComposition(s.alloy ?? LEADED)} worked in`,
  irons: ({ power_W, set_C }) => [{ power_W, set_C }],
  paced: true,
  fromAbove: false,
  bridges: false,
  unfit: (packageId) =>
    rowsOf(packageId).length > 0 ? undefined : `an iron cannot reach ${outOfReach(packageId) ?? 'any joint'}`,
  brings: (s, packageId, own_mm3) =>
    new Map(
      rowsOf(packageId).flatMap((row) =>
        row.terminals.map((id) => [id, { alloy: s.alloy ?? LEADED, mm3: s.ratio * (own_mm3.get(id) ?? 0) }] as const),
      ),
    ),
  uncertain: [
    ...uncertainTip,
    { name: 'solder that is worked in', settings: (s, z) => ({ ratio: within(s.ratio * (1 + WORKED_IN * z), ratio) }) },
  ],
  needs: ({ alloy = LEADED, ...iron }) => ({
    tools: [`${writeComposition(alloy)} wire to work in`, ...ironTools(iron)],
    setPoints: [ironSetPoint(iron.set_C)],
  }),
  change_s: 5,
  cautions: [],
  wayOut: 'More of the solder worked in, a wider tip or warming from below would change that.',
  spare: 'Cover it,',
});
