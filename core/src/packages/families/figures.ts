/**
 * Heat figures from size, for packages without measured ones. Fitted to the rows of docs/physics/parts;
 * good to about a third.
 */

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

/** Solder on a land of a paste-printed leg: 0.15 mm over the land, fillets included, mm³. */
export const legVolume = (landW: number, landH: number) => 0.15 * landW * landH;
/** Copper-alloy leg, W/K per mm of width. */
export const legConductance = (lead_mm: number) => 0.019 * lead_mm;
/** Metal of a formed leg 0.2 mm thick, J/K. */
export const legCapacity = (lead_mm: number, reach_mm: number) => lead_mm * 0.2 * reach_mm * 3.4e-3;

/** Leads in their holes: part of the hole that solder fills, and fillets in squares of the drill. Square pins of 0.7 drill; flat legs of moulded parts. */
const LEADS = { pin: { fills: 0.5, fillets: 0.25 }, flat: { fills: 0.82, fillets: 0.6 } } as const;
export type Lead = keyof typeof LEADS;
/** Solder of a plated hole filled through 1.6 mm of board and its fillets, mm³. */
export const holeVolume = (drill_mm: number, lead: Lead = 'pin') =>
  (Math.PI / 4) * drill_mm ** 2 * 1.6 * LEADS[lead].fills + LEADS[lead].fillets * drill_mm ** 2;
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
