/**
 * One p-n junction with its series resistance: current, slope and the limiting that keeps Newton steps
 * on the exponential within reason. 27 °C throughout.
 * Source: I = IS(exp(Vj/(N·Vt)) − 1) (Shockley); cubic tail below −3 N·Vt and the limiting rule as in
 * Nagel, SPICE2, Memo ERL-M520 (1975).
 */

/** kT/q at 27 °C, V. */
const THERMAL_V = 0.0258649;
/** Conductance across every junction and from every node to ground, S. */
export const GMIN_S = 1e-12;

export interface JunctionModel {
  /** Saturation current, A. */
  is: number;
  /** N · Vt, V. */
  nvt: number;
  /** Series resistance, Ω. */
  rs: number;
  /** Voltage above which steps are limited, V. */
  vcrit: number;
}

export function junctionModel(is: number, n: number, rs: number): JunctionModel {
  const nvt = n * THERMAL_V;
  return { is, nvt, rs, vcrit: nvt * Math.log(nvt / (Math.SQRT2 * is)) };
}

/** Typical diodes by use: IS (A), N, RS (Ω). Engineering figures, not any maker's. */
export const DIODE_MODELS = {
  si: junctionModel(2.52e-9, 1.752, 0.57),
  rect: junctionModel(1e-9, 1.8, 0.05),
  sch: junctionModel(3e-6, 1.05, 0.04),
  schs: junctionModel(2e-7, 1.02, 3),
  esd: junctionModel(2e-12, 1.05, 5),
  esdup: junctionModel(1e-12, 1.05, 8),
  tvs: junctionModel(1e-13, 1, 0.5),
  body: junctionModel(1e-11, 1.05, 0.02),
  led: junctionModel(1e-18, 2, 5),
  wled6: junctionModel(5e-25, 13, 10),
} as const;

/** Stands for the sharp edge of a supply's current limit. */
export const EDGE = junctionModel(1e-6, 0.05, 0);
/** Stands for the clamp of a meter's current source; leaks nothing of note below it. */
export const CLAMP = junctionModel(1e-15, 0.05, 0);

const E = Math.E;

/** What a junction carries at a voltage; kept by the caller so that nothing is allocated. */
export interface JunctionPoint {
  i: number;
  g: number;
}

/** Current (A) and slope (S) of the bare junction at `vj`, into `out`. */
export function junctionAt(model: JunctionModel, vj: number, out: JunctionPoint): void {
  const { is, nvt } = model;
  if (vj >= -3 * nvt) {
    const e = Math.exp(vj / nvt);
    out.i = is * (e - 1) + GMIN_S * vj;
    out.g = (is * e) / nvt + GMIN_S;
  } else {
    const tail = (3 * nvt) / (vj * E);
    const cube = tail * tail * tail;
    out.i = -is * (1 + cube) + GMIN_S * vj;
    out.g = (3 * is * cube) / vj + GMIN_S;
  }
}

/** Voltage of the junction itself inside a device that stands at `v`: vj + RS·i(vj) = v. */
export function insideVoltage(model: JunctionModel, v: number, near: number, scratch: JunctionPoint): number {
  const { rs, is, nvt } = model;
  if (rs === 0 || v <= 0) return v;
  // the root lies below both: all of v on the junction, all of v on the resistance
  const most = Math.min(v, nvt * Math.log(1 + v / (rs * is)));
  let vj = near > 0 && near < most ? near : most;
  for (let n = 0; n < 40; n++) {
    junctionAt(model, vj, scratch);
    const step = (vj + rs * scratch.i - v) / (1 + rs * scratch.g);
    vj -= step;
    if (vj > most) vj = most;
    if (Math.abs(step) < 1e-13 + 1e-12 * Math.abs(vj)) break;
  }
  return vj;
}

/** Next junction voltage allowed after `old` when Newton asks for `wanted`. */
export function limited(model: JunctionModel, wanted: number, old: number): number {
  const { nvt, vcrit } = model;
  if (wanted <= vcrit || Math.abs(wanted - old) <= 2 * nvt) return wanted;
  if (old <= 0) return nvt * Math.log(wanted / nvt);
  const arg = 1 + (wanted - old) / nvt;
  return arg > 0 ? old + nvt * Math.log(arg) : vcrit;
}
