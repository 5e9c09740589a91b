/**
 * Hot-air jet on a flat board. Heat transfer after H. Martin, Adv. Heat Transfer 13 (1977) 1, single
 * round nozzle; the stagnation zone is filled so that Martin's area mean is kept exactly. Adiabatic
 * wall temperature from the decay of a heated round jet. Valid for Re ≥ 2000, H/D 2 to 12, r/D 2.5
 * to 7.5; outside it extrapolates.
 */
import { ZERO_CELSIUS_K } from '../ground/index.ts';

export interface JetSetting {
  /** Station flow at 20 °C, L/min. */
  flow_L_min: number;
  nozzle_mm: number;
  standoff_mm: number;
  set_C: number;
  ambient_C: number;
  /** Part of the set temperature rise that reaches the nozzle's mouth (0.85 by default, per station). */
  efficiency: number;
  /** Part of the ideal heat transfer that a hand-held, tilted, unsteady nozzle reaches. */
  handFactor: number;
}

export const HAND_FACTOR = 0.75;
const PRANDTL = 0.7;
const STAGNATION = 2.5;

const meanShape = (x: number, kappa: number) => (x - 1.1) / (x * (x + kappa));
const localShape = (x: number, kappa: number) => (x * x + 2 * kappa * x - 1.1 * kappa) / (2 * x * (x + kappa) ** 2);

/** The radial shape G(r/D) of the Nusselt number at one Re and H/D, with Martin's area means. */
export function martinShape(Re: number, H_over_D: number, Pr: number = PRANDTL) {
  const hd = Math.min(12, Math.max(2, H_over_D));
  const kappa = 0.1 * (hd - 6);
  const F = 2 * Math.sqrt(Re) * Math.sqrt(1 + 0.005 * Re ** 0.55);
  const edge = localShape(STAGNATION, kappa);
  const mean = meanShape(STAGNATION, kappa);
  let centre = Math.max((Math.min(1, 8 / H_over_D) * Math.sqrt(Re)) / (F * Pr ** 0.42), 2 * mean - edge);
  const wanted = (centre - edge) / (mean - edge) - 1;
  const p = Math.min(12, Math.max(1, wanted));
  if (p !== wanted) centre = edge + (p + 1) * (mean - edge);
  const scale = F * Pr ** 0.42;
  return {
    /** Local Nusselt number at x = r/D. */
    local: (x: number) =>
      scale * (x < STAGNATION ? edge + (centre - edge) * (1 - (x / STAGNATION) ** 2) ** p : localShape(x, kappa)),
    /** Mean Nusselt number over a disc of radius x = r/D, exact for x ≥ 2.5. */
    mean: (x: number) => {
      if (x >= STAGNATION) return scale * meanShape(x, kappa);
      const u = (x / STAGNATION) ** 2;
      return scale * (edge + ((centre - edge) * (1 - (1 - u) ** (p + 1))) / ((p + 1) * u));
    },
  };
}

export interface Jet {
  Re: number;
  /** Mouth temperature, °C, and speed, m/s. */
  exit_C: number;
  exit_m_s: number;
  /** Local heat transfer, W/(m²·K), and adiabatic wall temperature, °C, at r metres from the axis. */
  h(r: number): number;
  /** Mean heat transfer over a disc of radius r metres, W/(m²·K). */
  hMean(r: number): number;
  wall_C(r: number): number;
}

export function jetOf(s: JetSetting): Jet {
  const exit_C = s.ambient_C + s.efficiency * (s.set_C - s.ambient_C);
  const D = s.nozzle_mm / 1000;
  const H = s.standoff_mm / 1000;
  const massFlow = (1.204 * s.flow_L_min) / 60000;
  const exitK = exit_C + ZERO_CELSIUS_K;
  const viscosity = (1.716e-5 * (exitK / ZERO_CELSIUS_K) ** 1.5 * 383.55) / (exitK + 110.4);
  const density = 353.1 / exitK;
  const Re = (4 * massFlow) / (Math.PI * D * viscosity);
  const thinning = Math.sqrt((s.ambient_C + ZERO_CELSIUS_K) / exitK);
  const far = Math.max(H, 2 * D);
  const core = Math.min(1, (5 * thinning * D) / H);
  const wall_C = (r: number) => {
    const wide = (2 * thinning * D) / (far ** 0.2 * Math.max(r, 1e-6) ** 0.8);
    return s.ambient_C + (exit_C - s.ambient_C) * (core ** -4 + wide ** -4) ** -0.25;
  };
  const filmK = (wall_C(0) + 150) / 2 + ZERO_CELSIUS_K;
  const conductivity = 0.0241 * (filmK / ZERO_CELSIUS_K) ** 0.85;
  const shape = martinShape(Re, s.standoff_mm / s.nozzle_mm);
  const factor = (s.handFactor * conductivity * Math.min(1, (12 * D) / H)) / D;
  return {
    Re,
    exit_C,
    exit_m_s: massFlow / ((density * Math.PI * D * D) / 4),
    h: (r) => factor * shape.local(r / D),
    hMean: (r) => factor * shape.mean(Math.max(r / D, 1e-9)),
    wall_C,
  };
}

/** The same jet read from a table of `places` radii up to `reach` metres (linear between them). */
export function tabulated(jet: Jet, reach = 0.08, places = 600): Jet {
  const step = reach / (places - 1);
  const read = (f: (r: number) => number) => {
    const values = Float64Array.from({ length: places }, (_, i) => f(i * step));
    return (r: number) => {
      const at = Math.min(r / step, places - 1.000001);
      const i = Math.floor(at);
      return values[i] + (at - i) * (values[i + 1] - values[i]);
    };
  };
  return { ...jet, h: read(jet.h), wall_C: read(jet.wall_C) };
}
