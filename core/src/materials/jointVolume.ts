/**
 * Solder in one joint, mm³. Paste: aperture × stencil × transfer × metal fraction. Plated hole: the barrel
 * round the lead plus fillets of cone shape, hollowed by k (0.4 to 0.6).
 */

export interface Print {
  /** Opening in the stencil, mm × mm. */
  aperture_mm: readonly [number, number];
  stencil_mm: number;
  /** Share of the opening's paste that lands on the board, times the share of the land that is open. */
  transferTimesCoverage: number;
  metalVolumeFraction: number;
}

/** 125 µm of stencil over the whole land, 95 % released, half of the paste metal. */
export const USUAL_PRINT: Omit<Print, 'aperture_mm'> = {
  stencil_mm: 0.125,
  transferTimesCoverage: 0.95,
  metalVolumeFraction: 0.5,
};

export function printed_mm3({ aperture_mm, stencil_mm, transferTimesCoverage, metalVolumeFraction }: Print): number {
  const [a, b] = aperture_mm;
  return a * b * stencil_mm * transferTimesCoverage * metalVolumeFraction;
}

export interface PlatedHole {
  drill_mm: number;
  lead_mm: number;
  board_mm: number;
  /** Share of the barrel that is full. */
  fill: number;
  pad_mm: number;
  /** Height of each fillet. */
  fillet_mm: number;
  k: number;
  fillets: number;
}

export function hole_mm3({ drill_mm, lead_mm, board_mm, fill, pad_mm, fillet_mm, k, fillets }: PlatedHole): number {
  const [R, r] = [pad_mm / 2, lead_mm / 2];
  const barrel = (Math.PI / 4) * (drill_mm ** 2 - lead_mm ** 2) * board_mm * fill;
  const cone = ((Math.PI * fillet_mm) / 3) * (R * R + R * r + r * r) - Math.PI * r * r * fillet_mm;
  return barrel + fillets * k * cone;
}
