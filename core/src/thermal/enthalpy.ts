/**
 * Enthalpy of a solder joint, H = 0 J at the solidus in the solid state; linear through the melting
 * range. Inverse T(H) is piecewise linear and also defined for Ts = Tl (a flat plateau).
 */
export interface JointEnthalpy {
  /** Solidus and liquidus, °C. */
  Ts: number;
  Tl: number;
  /** Heat capacity of the solid and of the liquid joint, J/K (solder and the metal that goes with it). */
  Cs: number;
  Cl: number;
  /** Heat taken up between solidus and liquidus, J. */
  latent: number;
}

export function temperatureOf(j: JointEnthalpy, H: number): number {
  if (H <= 0) return j.Ts + H / j.Cs;
  if (H < j.latent) return j.Ts + ((j.Tl - j.Ts) * H) / j.latent;
  return j.Tl + (H - j.latent) / j.Cl;
}

/** 0 solid, 1 melting, 2 liquid. */
export function branchOf(j: JointEnthalpy, H: number): 0 | 1 | 2 {
  if (H <= 0) return 0;
  return H < j.latent ? 1 : 2;
}

/** dT/dH, K/J. */
export function slopeOf(j: JointEnthalpy, H: number): number {
  if (H <= 0) return 1 / j.Cs;
  if (H < j.latent) return (j.Tl - j.Ts) / j.latent;
  return 1 / j.Cl;
}

export function enthalpyAt(j: JointEnthalpy, T: number): number {
  if (T <= j.Ts) return (T - j.Ts) * j.Cs;
  if (T < j.Tl) return (j.latent * (T - j.Ts)) / (j.Tl - j.Ts);
  return j.latent + (T - j.Tl) * j.Cl;
}
