/** What hands are told: solder worked into joints with an iron, so that what follows has less to melt. */
import { writeComposition } from '../../../alloys/index.ts';
import { packageById } from '../../../packages/index.ts';
import { setText } from '../../dials.ts';
import type { Instruction, Workplace } from '../instruction.ts';
import { rowsOf } from '../rows.ts';
import { LEADED } from '../../solders.ts';
import type { SpikeSettings } from './settings.ts';

/** Section of wire of 0.7 mm, mm². */
const WIRE_MM2 = 0.385;

/** One instruction a row: nobody taps for every joint. */
export function say(settings: SpikeSettings, { target, panel }: Workplace): Instruction[] {
  const { terminals } = packageById(target.package);
  const rows = rowsOf(target.package);
  const wire = writeComposition(settings.alloy ?? LEADED);
  return rows.map((row, n) => {
    const own_mm3 = terminals.filter((t) => row.terminals.includes(t.id)).reduce((sum, t) => sum + t.volume_mm3, 0);
    const wire_mm = Math.max(1, Math.round((settings.ratio * own_mm3) / WIRE_MM2));
    return {
      id: `work-in-${n + 1}`,
      say: `${rows.length > 1 ? `Row ${n + 1} of ${rows.length}: flux` : 'Flux'}, iron, work ${wire} into every joint.`,
      watch: `Iron at ${setText(settings.set_C, 'iron', panel)}, about ${wire_mm} mm of wire of 0.7 mm in all, ${settings.ratio} times what is in them. No longer than ${settings.most_s} s on one place.`,
      tap: 'worked in',
      mark: 'done',
    };
  });
}
