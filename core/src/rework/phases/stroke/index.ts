/** A bead of alloy along the rows, kept molten by one or two irons stroking it until every joint floats. */
import { LOW_MELT, writeComposition } from '../../../alloys/index.ts';
import { formatTemperature } from '../../../ground/index.ts';
import { packageById, terminalSides } from '../../../packages/index.ts';
import { isLowMelting, tipOn, WIRE } from '../../kit.ts';
import { RANGES, within } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { COUNT, fluxIt, heating, heatOff, heatOn, type Instruction, lift, type Workplace } from '../instruction.ts';
import { beadOn, outOfReach } from '../rows.ts';
import { tipField, tipFields, uncertainTip } from '../tip.ts';
import { type StrokeSettings, strokeSettings } from './settings.ts';

const { bead } = RANGES;

/** A bead differs from the one asked for by this share (estimate). */
const BEAD = 0.3;
/** A bead as hands see it: how wide (half round on its lands), and how much wire it takes. */
function beadWords(packageId: string, bead_mm3_mm: number): string {
  const wide_mm = Math.sqrt((8 / Math.PI) * bead_mm3_mm);
  const { all_mm3 } = beadOn(packageId, bead_mm3_mm);
  const wire_mm = all_mm3 / (Math.PI / 4);
  return `An unbroken bead about ${wide_mm.toFixed(1)} mm wide: ${Math.ceil(wire_mm)} mm of solid wire of 1 mm in all.`;
}

/** How the irons move along a bead. */
function strokes({ irons = 1, pass_s = 1, rest_s = 0 }: StrokeSettings): string {
  const each = pass_s + 2 * rest_s === 1 ? 'a second' : `${pass_s + 2 * rest_s} s`;
  return irons === 2
    ? `An iron on each side: stroke both, ${each} each.`
    : `Stroke along each side in turn, ${each} each.`;
}

function say(settings: StrokeSettings, work: Workplace): Instruction[] {
  const { guide, target } = work;
  const low = isLowMelting(settings.alloy ?? LOW_MELT);
  const bead_mm3_mm = settings.bead_mm3_mm;
  const sides = terminalSides(packageById(target.package));
  const hold =
    guide && guide.closes_s !== null && guide.closedBy === 'joints freeze'
      ? Math.round(guide.closes_s - settings.stroke_s)
      : null;
  const laid: Instruction[] = bead_mm3_mm
    ? [
        fluxIt(work, low ? 'A flux that works at low temperatures.' : 'A thin, even film.'),
        {
          id: 'alloy',
          say: `Lay ${low ? 'low-melt alloy' : 'fresh solder'} along ${sides === 1 ? 'the row' : sides === 2 ? 'both sides' : `all ${sides} sides`}.`,
          watch: beadWords(target.package, bead_mm3_mm),
          tap: 'alloy laid',
          mark: 'done',
        },
      ]
    : [];
  return [
    ...laid,
    heatOn(`${settings.irons === 2 ? 'Both irons' : 'Iron'} on at ${settings.set_C} °C. Touch the bead.`),
    ...heating(work, strokes(settings)),
    lift(
      'Nudge it. It floats? Lift straight up.',
      hold === null
        ? 'The alloy stays liquid for a while.'
        : `The bead stays liquid about ${hold} s after the iron leaves.`,
      'Freezing. Iron back on, do not pull.',
    ),
    heatOff('Iron into its stand.', 'Wipe the alloy off the tip first.', 'iron away'),
    COUNT,
  ];
}

const [set, width, power] = tipFields('Iron power');

export const stroke = definePhase<'stroke', StrokeSettings>({
  kind: 'stroke',
  name: 'Bead and iron',
  settings: strokeSettings,
  form: {
    usual: [
      set,
      { key: 'bead_mm3_mm', label: 'Bead laid before', unit: 'mm³', range: bead.bead_mm3_mm, optional: true },
      width,
      power,
      { key: 'stroke_s', label: 'Stroking', unit: 's', range: bead.stroke_s },
    ],
    moreTitle: 'Tip and way of working',
    more: [
      { key: 'alloy', label: 'Alloy laid before', alloy: true, optional: true, hint: 'Bi52.5Pb32Sn15.5' },
      tipField,
      {
        key: 'irons',
        label: 'Irons',
        numeric: true,
        choices: [
          ['1', 'one'],
          ['2', 'two, opposite'],
        ],
      },
      { key: 'pass_s', label: 'A stroke takes', unit: 's', range: bead.pass_s, optional: true },
      { key: 'rest_s', label: 'rest at its ends', unit: 's', range: bead.rest_s, optional: true },
    ],
  },
  tool: 'iron',
  wants: ({ bead_mm3_mm, alloy = LOW_MELT, irons = 1 }, leadFree) => [
    { tool: 'iron', name: 'soldering iron', count: irons },
    ...(bead_mm3_mm ? [isLowMelting(alloy) ? WIRE.lowMelt(leadFree) : WIRE.solder] : []),
    { tool: 'flux', name: 'flux' },
  ],
  onBench: tipOn,
  limbs: ({ irons }) =>
    irons === 2
      ? { left: 'iron on one row', right: 'iron on the other' }
      : { left: 'tweezers: slide it onto free mask', right: 'iron along the rows' },
  line(m, panel) {
    const bead = m.bead_mm3_mm ? `, ${m.bead_mm3_mm} mm³/mm of ${m.alloy ? writeComposition(m.alloy) : 'alloy'}` : '';
    return `${formatTemperature(m.set_C, panel)}${bead}, ${m.stroke_s} s${m.irons === 2 ? ', two irons' : ''}`;
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
  needs: ({ set_C, tip_mm, irons, bead_mm3_mm }) => ({
    tools: [
      ...(bead_mm3_mm ? ['alloy of the bead and its flux'] : []),
      ...(irons === 2 ? ['a second iron'] : []),
      `tip ${tip_mm} mm`,
    ],
    setPoints: [{ id: 'iron', label: 'iron temperature', value: set_C, unit: '°C', tolerance: 5 }],
  }),
  change_s: 5,
  say,
  cautions: [],
  wayOut: 'A wider tip, more alloy, a second iron or warming from below would change that.',
  spare: 'Cover it,',
});
