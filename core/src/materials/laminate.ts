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

/** Kinds of laminate. Standard glass epoxy where nobody says. */
export const LAMINATES = ['standard', 'mid-tg', 'high-tg', 'composite', 'phenolic-paper'] as const;
export type Laminate = (typeof LAMINATES)[number];

/**
 * Glass transition, °C (phenolic paper: from where its lands come off), seconds to delamination at 288 °C, and what dampness takes off, K.
 * Classes of published standards; phenolic paper stands 240 °C for 5 s.
 */
export const LAMINATE_KINDS: Readonly<Record<Laminate, { what: string; Tg_C: number; t288_s: number }>> = {
  standard: { what: 'glass epoxy, standard', Tg_C: 135, t288_s: 50 },
  'mid-tg': { what: 'glass epoxy, mid Tg', Tg_C: 150, t288_s: 120 },
  'high-tg': { what: 'glass epoxy, high Tg', Tg_C: 175, t288_s: 300 },
  composite: { what: 'composite (paper core)', Tg_C: 130, t288_s: 30 },
  'phenolic-paper': { what: 'phenolic paper', Tg_C: 120, t288_s: 0.2 },
};
/** Uncertainty of Tg and of what delaminates it, K; taken off by dampness, K. */
export const LAMINATE_SPREAD = { Tg_K: 8, harm_K: 10, damp_K: 25 } as const;

/** Activation of delamination, K, and the temperature its times are given for, K: published times at 260 and 288 °C (5 min and 50 s). */
const [ACTIVATION_K, AT_K] = [19_100, 561];

/** Seconds until it delaminates at `T` °C (Arrhenius). */
export function delaminates_s(kind: Laminate, T: number): number {
  return LAMINATE_KINDS[kind].t288_s * Math.exp(ACTIVATION_K * (1 / (T + 273.15) - 1 / AT_K));
}

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
