import { property } from './property.ts';

const TEXTBOOK = 'glass-epoxy laminate, textbook mean';

/** Glass-epoxy laminate and the copper in it. */
export const LAMINATE = {
  kInPlane: property(0.85, 'W/(m·K)', 0.15, TEXTBOOK),
  kThrough: property(0.32, 'W/(m·K)', 0.05, TEXTBOOK),
  rhoc: property(2.15e6, 'J/(m³·K)', 0.2e6, TEXTBOOK),
  emissivity: property(0.9, '1', 0.05, 'solder-masked surface, textbook'),
  softensAt: property(135, '°C', 5, 'Tg of standard grade, IPC-TM-650 class; bond of the foil drops above it'),
} as const;

export const COPPER = {
  k: property(390, 'W/(m·K)', 10, 'foil, textbook'),
  rhoc: property(3.45e6, 'J/(m³·K)', 0.05e6, 'textbook'),
  /** Conductance added per via and metre of length: 0.3 mm drill, 25 µm plating, k·π·d·t. */
  viaConductance: property(8.4e-6, 'W·m/K', 2e-6, '0.3 mm drill with 25 µm plating, computed'),
} as const;

/** From this coverage on foil hangs together as a plane with openings; below it is tracks with gaps between them. */
export const PLANE_FROM = 0.6;
const plane = (coverage: number) => 0.5 * coverage + 0.5 * coverage ** 4;
/** Tracks leave off where planes begin. */
const BENT = (plane(PLANE_FROM) - PLANE_FROM / 4) / PLANE_FROM ** 2;

/**
 * Part of the foil that conducts along the plane at coverage φ (0…1). A plane with openings: φ/2 + φ⁴/2, between even stripes and a full sheet. Bent
 * and broken tracks: φ/4 + 0.6 φ², fitted to computed patterns (0.04, 0.08, 0.13, 0.19, 0.27 at 0.1 … 0.5). By copper alone those would be
 * half of that; the laminate bridges their gaps (docs/physics/independent.md).
 */
export function planeEfficiency(coverage: number): number {
  return coverage < PLANE_FROM ? coverage / 4 + BENT * coverage ** 2 : plane(coverage);
}
