/** The alloy that a way lays, in hands' units, and what the calculator is asked about it: the same model rules both. */
import { type AlloyAmountInput, type Composition, density_g_cm3, LOW_MELT } from '../alloys/index.ts';
import { LIFT_S } from './bench/runTimes.ts';
import { type Method, phaseOf } from './methods/method.ts';
import { WIRE_MM } from './phases/alloy/settings.ts';
import { rowsOf } from './phases/rows.ts';
import { solderOf } from './solderOf.ts';

/** A joint with low-melt alloy in it is to be fluid from here, °C: what the calculator asks where nobody says otherwise. */
const FLUID_C = 150;

export interface AlloyLaid {
  alloy: Composition;
  dia_mm: number;
  /** Wire for each row, mm, and all of it, mg. */
  rows_mm: number[];
  mass_mg: number;
  /** What `alloy.amount` is asked: which need rules, and how much it is. */
  asked: AlloyAmountInput;
}

/** Of a way that lays alloy along the rows; null for the others. `wt`: the joints' own solder; `peak_C`: the coolest joint when the heat goes. */
export function alloyLaid(method: Method, packageId: string, wt: Composition, peak_C: number): AlloyLaid | null {
  const laid = phaseOf(method, 'alloy')?.settings ?? phaseOf(method, 'stroke')?.settings;
  if (!laid?.bead_mm3_mm) return null;
  const { alloy = LOW_MELT, bead_mm3_mm } = laid;
  const dia_mm = ('wire_mm' in laid && laid.wire_mm) || WIRE_MM;
  const rows = rowsOf(packageId);
  const section = (Math.PI / 4) * dia_mm ** 2;
  const density = density_g_cm3(alloy);
  const lengths_mm = rows.map((r) => r.length_mm);
  return {
    alloy,
    dia_mm,
    rows_mm: lengths_mm.map((mm) => (mm * bead_mm3_mm) / section),
    // mm³ × g/cm³ is milligrams
    mass_mg: lengths_mm.reduce((a, b) => a + b, 0) * bead_mm3_mm * density,
    asked: {
      joint: { wt, mass_mg: solderOf(packageId, wt).mass_mg },
      alloy: { wt: alloy },
      targetLiquidus_C: FLUID_C,
      mixingEfficiency: 0.75,
      wire: { dia_mm, coreVolumeFraction: 0 },
      rows: { lengths_mm, section_mm2: bead_mm3_mm },
      hold: { seconds: LIFT_S, tau_s: 10, peak_C, ambient_C: 22, margin_K: 20 },
      leadFree: false,
      path: 0,
    },
  };
}
