/** What hands are told: a bead of alloy along the rows, kept molten by one or two irons stroking it until every joint floats. */
import { LOW_MELT, writeComposition } from '../../../alloys/index.ts';
import { packageById, terminalSides } from '../../../packages/index.ts';
import { setText } from '../../dials.ts';
import { isLowMelting } from '../../kit.ts';
import { COUNT, fluxIt, heating, heatOff, heatOn, type Instruction, lift, type Workplace } from '../instruction.ts';
import { beadOn } from '../rows.ts';
import type { StrokeSettings } from './settings.ts';

/** A bead as hands see it: how wide (half round on its lands), and how much wire it takes. */
function beadWords(packageId: string, bead_mm3_mm: number): string {
  const wide_mm = Math.sqrt((8 / Math.PI) * bead_mm3_mm);
  const { all_mm3 } = beadOn(packageId, bead_mm3_mm);
  const wire_mm = all_mm3 / (Math.PI / 4);
  return `An unbroken bead about ${wide_mm.toFixed(1)} mm wide: ${Math.ceil(wire_mm)} mm of solid wire of 1 mm in all.`;
}

/** How the irons move along a bead. */
export function strokes({ irons = 1, pass_s = 1, rest_s = 0 }: StrokeSettings): string {
  const each = pass_s + 2 * rest_s === 1 ? 'a second' : `${pass_s + 2 * rest_s} s`;
  return irons === 2
    ? `An iron on each side: stroke both, ${each} each.`
    : `Stroke along each side in turn, ${each} each.`;
}

/** What is told of a bead that no phase before laid: it is laid now. */
export function laid({ alloy = LOW_MELT, bead_mm3_mm }: StrokeSettings, work: Workplace): Instruction[] {
  if (!bead_mm3_mm) return [];
  const { target } = work;
  const low = isLowMelting(alloy);
  const sides = terminalSides(packageById(target.package));
  return [
    fluxIt(work, low ? 'A flux that works at low temperatures.' : 'A thin, even film.'),
    {
      id: 'alloy',
      say: `Lay ${low ? 'low-melt alloy' : 'fresh solder'} along ${sides === 1 ? 'the row' : sides === 2 ? 'both sides' : `all ${sides} sides`}.`,
      watch: `${writeComposition(alloy)}. ${beadWords(target.package, bead_mm3_mm)}`,
      tap: 'alloy laid',
      mark: 'done',
      limbs: { left: 'wire, onto joint and tip', right: 'iron along the row' },
    },
  ];
}

/** How long they are stroked before the irons leave. */
export const strokedFor = ({ stroke_s }: StrokeSettings): string =>
  `About ${stroke_s} s of stroking. The clock starts with your tap.`;

export function say(settings: StrokeSettings, work: Workplace): Instruction[] {
  const { guide } = work;
  const hold =
    guide && guide.closes_s !== null && guide.closedBy === 'joints freeze'
      ? Math.round(guide.closes_s - settings.stroke_s)
      : null;
  return [
    ...laid(settings, work),
    heatOn(
      `${settings.irons === 2 ? 'Both irons' : 'Iron'} on at ${setText(settings.set_C, 'iron', work.panel)}. Touch the bead.`,
      strokedFor(settings),
    ),
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
