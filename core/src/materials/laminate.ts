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

/** Part of the foil that conducts along the plane at coverage φ (0…1): φ/2 + φ⁴/2, fitted between a grid of traces and a plane. */
export function planeEfficiency(coverage: number): number {
  return 0.5 * coverage + 0.5 * coverage ** 4;
}
