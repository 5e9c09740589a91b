/** Lumps of a heat network and the links between them. */
import type { JointEnthalpy } from './enthalpy.ts';

interface NodeCommon {
  id: string;
  /** Start temperature, °C. */
  T0: number;
  /** Conductance to the surroundings, W/K, and their temperature, °C. */
  hA?: number;
  Tinf?: number;
  /** Power put in, W. */
  P?: number;
}
export type HeatNode = NodeCommon &
  (
    | { type: 'body'; C: number; radiation?: { epsA: number; Tsur: number } }
    | { type: 'fixed' }
    | { type: 'joint'; enthalpy: JointEnthalpy }
    /** Power clamp(gain·(Tset - T), 0, Pmax). */
    | { type: 'iron'; C: number; Pmax: number; Tset: number; gain: number }
  );

/** Heat flow G·(T_a - T_b); node to node by index, or node to grid cell. */
export type HeatLink = { a: number; G: number } & ({ node: number } | { cell: number });

type Iron = Extract<HeatNode, { type: 'iron' }>;

/** Power of a regulated iron at tip temperature T, W. */
export function ironPower(node: Iron, T: number): number {
  return Math.min(node.Pmax, Math.max(0, node.gain * (node.Tset - T)));
}

/** -1 full power, 0 regulating, 1 off. */
export function ironRegime(node: Iron, T: number): -1 | 0 | 1 {
  const wanted = node.gain * (node.Tset - T);
  if (wanted <= 0) return 1;
  return wanted >= node.Pmax ? -1 : 0;
}
