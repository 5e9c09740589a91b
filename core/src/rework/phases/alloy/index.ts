/** Alloy laid along the rows with an iron: fed, and worked into every joint. */
import { LOW_MELT, writeComposition } from '../../../alloys/index.ts';
import { setText } from '../../dials.ts';
import { RANGES, within } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { beadOn, outOfReach } from '../rows.ts';
import { ironSetPoint, ironTools, uncertainTip } from '../tip.ts';
import { type AlloySettings, alloySettings, WIRE_MM } from './settings.ts';

const { bead } = RANGES;
/** A bead differs from the one asked for by this share (estimate). */
const BEAD = 0.3;

export const alloy = definePhase<'alloy', AlloySettings>({
  kind: 'alloy',
  name: 'Iron, alloy laid',
  settings: alloySettings,
  tool: 'iron',
  wants: ({ alloy: wt = LOW_MELT }, wire) => [
    { tool: 'iron', name: 'soldering iron' },
    wire.like(wt),
    { tool: 'flux', name: 'flux' },
  ],
  onBench(settings, bench) {
    const wire = bench.wireLike(settings.alloy ?? LOW_MELT);
    const own = wire ? { alloy: wire.wt, ...(wire.dia_mm ? { wire_mm: wire.dia_mm } : {}) } : {};
    return bench.tip({ ...settings, ...own });
  },
  limbs: () => ({ left: 'wire, onto joint and tip', right: 'iron along the row' }),
  line: (m, panel) =>
    `${setText(m.set_C, 'iron', panel)}, ${m.bead_mm3_mm} mm³/mm of ${m.alloy ? writeComposition(m.alloy) : 'alloy'}`,
  irons: ({ power_W, set_C }) => [{ power_W, set_C }],
  paced: true,
  fromAbove: false,
  bridges: true,
  unfit(packageId) {
    const what = outOfReach(packageId);
    return what && `an iron cannot reach ${what}`;
  },
  brings: ({ bead_mm3_mm, alloy: wt = LOW_MELT }, packageId) =>
    new Map([...beadOn(packageId, bead_mm3_mm).each_mm3].map(([id, mm3]) => [id, { alloy: wt, mm3 }])),
  uncertain: [
    ...uncertainTip,
    {
      name: 'alloy that mixes in',
      settings: (s, z) => ({ bead_mm3_mm: within(s.bead_mm3_mm * (1 + BEAD * z), bead.bead_mm3_mm) }),
    },
  ],
  needs: ({ alloy: wt = LOW_MELT, wire_mm = WIRE_MM, ...iron }) => ({
    tools: [`${writeComposition(wt)} wire of ${wire_mm} mm and its flux`, ...ironTools(iron)],
    setPoints: [ironSetPoint(iron.set_C)],
  }),
  change_s: 5,
  cautions: [],
  wayOut: 'A hotter or wider tip, more alloy or warming from below would change that.',
  spare: 'Cover it,',
});
