/** What hands are told: alloy laid along the rows with an iron: fed, and worked into every joint. */
import { LOW_MELT, writeComposition } from '../../../alloys/index.ts';
import { setText } from '../../dials.ts';
import { isLowMelting } from '../../kit.ts';
import { fluxIt, type Instruction, type Workplace } from '../instruction.ts';
import { rowsOf } from '../rows.ts';
import { type AlloySettings, WIRE_MM } from './settings.ts';

/** What is laid, in the words of the bench. */
const named = ({ alloy = LOW_MELT }: AlloySettings) => (isLowMelting(alloy) ? 'low-melt alloy' : 'fresh solder');

/** Wire for every row, mm, by the diameter at hand. */
function wireOf({ bead_mm3_mm, wire_mm = WIRE_MM }: AlloySettings, packageId: string): number[] {
  const section = (Math.PI * wire_mm ** 2) / 4;
  return rowsOf(packageId).map((r) => Math.ceil((bead_mm3_mm * r.length_mm) / section));
}

export function say(settings: AlloySettings, work: Workplace): Instruction[] {
  const lengths = wireOf(settings, work.target.package);
  const wide_mm = Math.sqrt((8 / Math.PI) * settings.bead_mm3_mm);
  const { wire_mm = WIRE_MM } = settings;
  return [
    fluxIt(
      work,
      isLowMelting(settings.alloy ?? LOW_MELT) ? 'A flux that works at low temperatures.' : 'A thin, even film.',
    ),
    ...lengths.map((mm, n): Instruction => ({
      id: `lay-${n + 1}`,
      say: `${lengths.length > 1 ? `Row ${n + 1} of ${lengths.length}: iron` : 'Iron'} on, feed ${named(settings)} along it.`,
      watch: `Iron at ${setText(settings.set_C, 'iron', work.panel)}. ${mm} mm of ${wire_mm} mm ${writeComposition(settings.alloy ?? LOW_MELT)} wire, a bead about ${wide_mm.toFixed(1)} mm wide; then to and fro until it shines.`,
      tap: 'bead laid',
      mark: 'done',
    })),
  ];
}
