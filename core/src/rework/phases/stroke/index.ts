/** A bead of alloy along the rows, kept molten by one or two irons stroking it until every joint floats. */
import { LOW_MELT, writeComposition } from '../../../alloys/index.ts';
import { setText } from '../../dials.ts';
import { RANGES, within } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { beadOn, outOfReach } from '../rows.ts';
import { ironSetPoint, ironTools, uncertainTip } from '../tip.ts';
import { type StrokeSettings, strokeSettings } from './settings.ts';

const { bead } = RANGES;

/** A bead differs from the one asked for by this share (estimate). */
const BEAD = 0.3;

export const stroke = definePhase<'stroke', StrokeSettings>({
  kind: 'stroke',
  name: 'Bead and iron',
  settings: strokeSettings,
  tool: 'iron',
  wants: ({ bead_mm3_mm, alloy = LOW_MELT, irons = 1 }, wire) => [
    { tool: 'iron', name: 'soldering iron', count: irons },
    ...(bead_mm3_mm ? [wire.like(alloy)] : []),
    { tool: 'flux', name: 'flux' },
  ],
  onBench: (s, bench) => bench.tip(s),
  limbs: ({ irons }) =>
    irons === 2
      ? { left: 'iron on one row', right: 'iron on the other' }
      : { left: 'tweezers: slide it onto free mask', right: 'iron along the rows' },
  line(m, panel) {
    const bead = m.bead_mm3_mm ? `, ${m.bead_mm3_mm} mm³/mm of ${m.alloy ? writeComposition(m.alloy) : 'alloy'}` : '';
    return `${setText(m.set_C, 'iron', panel)}${bead}, ${m.stroke_s} s${m.irons === 2 ? ', two irons' : ''}`;
  },
  irons: ({ power_W, set_C, irons = 1 }) => Array.from({ length: irons }, () => ({ power_W, set_C })),
  paced: true,
  fromAbove: false,
  bridges: true,
  unfit(packageId) {
    const what = outOfReach(packageId);
    return what && `an iron cannot reach ${what}`;
  },
  brings: ({ bead_mm3_mm, alloy = LOW_MELT }, packageId) =>
    new Map(bead_mm3_mm ? [...beadOn(packageId, bead_mm3_mm).each_mm3].map(([id, mm3]) => [id, { alloy, mm3 }]) : []),
  uncertain: [
    ...uncertainTip,
    {
      name: 'alloy that mixes in',
      settings: (s, z) =>
        s.bead_mm3_mm ? { bead_mm3_mm: within(s.bead_mm3_mm * (1 + BEAD * z), bead.bead_mm3_mm) } : {},
    },
  ],
  needs: ({ irons, bead_mm3_mm, alloy = LOW_MELT, ...iron }) => ({
    tools: [
      ...(bead_mm3_mm ? [`${writeComposition(alloy)} wire and its flux`] : []),
      ...ironTools(iron),
      ...(irons === 2 ? ['a second iron with a tip like it'] : []),
    ],
    setPoints: [ironSetPoint(iron.set_C), ...(irons === 2 ? [ironSetPoint(iron.set_C, 'iron2')] : [])],
  }),
  change_s: 5,
  cautions: [],
  wayOut: 'A wider tip, more alloy, a second iron or warming from below would change that.',
  spare: 'Cover it,',
});
