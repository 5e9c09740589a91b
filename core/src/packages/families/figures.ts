/**
 * Heat figures from size, for packages without measured ones. Fitted to the rows of docs/physics/parts;
 * good to about a third.
 */

import { hole_mm3, printed_mm3, USUAL_PRINT } from '../../materials/index.ts';
import type { PackageShape } from '../packageModel.ts';

/** Mould, 2 J/(cm³·K). */
export const mouldCapacity = (l: number, w: number, h: number) => l * w * h * 2e-3;
/** Titanate and alumina bodies, about 3.6 J/(cm³·K). */
export const ceramicCapacity = (l: number, w: number, h: number) => l * w * h * 3.6e-3;
/** Wound parts, cans with electrolyte: about 2.4 J/(cm³·K) of the box. */
export const woundCapacity = (l: number, w: number, h: number) => l * w * h * 2.4e-3;
/** Ferrite round copper: about 3.4 J/(cm³·K) of the box. */
export const coilCapacity = (l: number, w: number, h: number) => l * w * h * 3.4e-3;
/** A relay: copper, iron and air in plastic, about 1.7 J/(cm³·K) of the box. */
export const relayCapacity = (l: number, w: number, h: number) => l * w * h * 1.7e-3;
/** A tall can with a quartz plate and gas in it: its sheet, about 0.8 J/(cm³·K) of the box. */
export const hollowCanCapacity = (l: number, w: number, h: number) => l * w * h * 0.8e-3;
/** A plastic box that is half air. */
export const hollowCapacity = (l: number, w: number, h: number) => l * w * h * 1e-3;

/** Solder printed on a land of `w` × `h` mm through a usual stencil, mm³. */
export const onLand = ({ w, h }: { w: number; h: number }) => printed_mm3({ ...USUAL_PRINT, aperture_mm: [w, h] });
/** The same under a body: printed in windows so that gas gets out, about seven tenths of the land. */
export const underBody = (land: { w: number; h: number }) => 0.7 * onLand(land);
/** Copper-alloy leg, W/K per mm of width. */
export const legConductance = (lead_mm: number) => 0.019 * lead_mm;
/** Metal of a formed leg 0.2 mm thick, J/K. */
export const legCapacity = (lead_mm: number, reach_mm: number) => lead_mm * 0.2 * reach_mm * 3.4e-3;

/** Leads in their holes: thickness as a round wire, in drills, and how high the fillets climb, in widths of the ring that is left of the land. Round pins; flat legs of moulded parts. */
const LEADS = { pin: { lead: 0.7, fillet: 0.5 }, flat: { lead: 0.42, fillet: 0.89 } } as const;
export type Lead = keyof typeof LEADS;
/** Solder of a plated hole of `drill_mm` in a land of `pad_mm`, filled through 1.6 mm of board, with both fillets, mm³. */
export const holeVolume = (drill_mm: number, pad_mm: number, kind: Lead = 'pin') => {
  const lead_mm = LEADS[kind].lead * drill_mm;
  const fillet_mm = (LEADS[kind].fillet * (pad_mm - lead_mm)) / 2;
  return hole_mm3({ drill_mm, lead_mm, board_mm: 1.6, fill: 1, pad_mm, fillet_mm, k: 0.5, fillets: 2 });
};
/** Copper-alloy pin of 0.7 drill into a plastic or moulded body, W/K. */
export const pinConductance = (drill_mm: number) => 3e-3 * (drill_mm / 0.9) ** 2;

/** A moulded rectangular body with what sticks out of it. */
export const mouldedBody = (
  l: number,
  w: number,
  h: number,
  gap: number,
  rest: Pick<PackageShape, 'terminals' | 'polarity'> & { C?: number; limit?: string },
): PackageShape => ({
  shape: 'rect',
  body: { l, w, h, gap },
  texture: 'mould',
  polarity: rest.polarity,
  C_J_K: rest.C ?? mouldCapacity(l, w, h),
  terminals: rest.terminals,
  limit: rest.limit ?? 'ic',
});
