/** Solder of a whole part, and the rows a bead along it would take. */
import { type Composition, density_g_cm3 } from '../alloys/index.ts';
import { packageById } from '../packages/index.ts';
import { rowsOf } from './phases/rows.ts';

export interface SolderOfPart {
  joints: number;
  volume_mm3: number;
  mass_mg: number;
  /** Length of every row that a tip can reach, mm. */
  rows_mm: number[];
}

/** Of a package of the library, its joints `times` as full as paste would make them (by hand 1.5 to 2.5). */
export function solderOf(packageId: string, wt: Composition, times = 1): SolderOfPart {
  const { terminals } = packageById(packageId);
  const volume_mm3 = terminals.reduce((sum, t) => sum + t.volume_mm3, 0) * times;
  return {
    joints: terminals.length,
    volume_mm3,
    // mm³ × g/cm³ is milligrams
    mass_mg: volume_mm3 * density_g_cm3(wt),
    rows_mm: rowsOf(packageId).map((row) => row.length_mm),
  };
}
