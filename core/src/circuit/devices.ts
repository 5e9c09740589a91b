/**
 * Devices with more than two ends: transistors and the powered blocks of ICs. Each gives the currents
 * that flow from its ends into the circuit and how they change with its voltages.
 */
import type { Block, PartOf } from './netlist.ts';
import { NetlistError, pinOf } from './netlist.ts';
import { junctionAt, junctionModel, type JunctionModel, type JunctionPoint } from './junction.ts';

/** Shockley junction inside a transistor; its voltage is limited like a diode's. */
interface DeviceJunction {
  /** Ends (index into the device's ends). */
  a: number;
  k: number;
  /** +1, or −1 for a P type, whose voltages are mirrored. */
  sign: 1 | -1;
  model: JunctionModel;
}

export interface Device {
  /** How many ends. */
  ends: number;
  /** Junctions whose steps must be limited; `evaluate` gets their voltages, as limited. */
  junctions: DeviceJunction[];
  /**
   * Currents out of the device into each end's node, A, and their slopes, S: `out[i]`,
   * `slope[i * ends + k]` = d out[i] / d v[k]. True when it was linearised somewhere else than at `v`, so
   * that a step did not leap over the narrow range in which it regulates.
   */
  evaluate(v: Float64Array, inside: Float64Array, out: Float64Array, slope: Float64Array): boolean;
  /** Forgets where it was linearised last. */
  reset(): void;
}

/** Level-1 MOSFET (Shichman & Hodges 1968), ends D, G, S; the body diode is a part of its own. */
export function mosfet(part: Pick<PartOf<'M'>, 'type' | 'vto' | 'kp' | 'lambda'>): Device {
  const sign = part.type === 'N' ? 1 : -1;
  const threshold = sign * part.vto;
  const { kp, lambda } = part;
  return {
    ends: 3,
    junctions: [],
    reset: () => undefined,
    evaluate(v, _inside, out, slope) {
      let vds = sign * (v[0] - v[2]);
      // a channel works both ways: the lower end is the source
      const swap = vds < 0;
      const [d, s] = swap ? [2, 0] : [0, 2];
      if (swap) vds = -vds;
      const over = sign * (v[1] - v[s]) - threshold;
      let i = 0;
      let gm = 0;
      let gds = 0;
      if (over > 0) {
        const stretch = kp * (1 + lambda * vds);
        if (vds < over) {
          const area = vds * (over - 0.5 * vds);
          i = stretch * area;
          gm = stretch * vds;
          gds = stretch * (over - vds) + kp * lambda * area;
        } else {
          const area = 0.5 * over * over;
          i = stretch * area;
          gm = stretch * over;
          gds = kp * lambda * area;
        }
      }
      out[1] = 0;
      out[d] = -sign * i;
      out[s] = sign * i;
      slope.fill(0);
      slope[d * 3 + 1] = -gm;
      slope[d * 3 + d] = -gds;
      slope[d * 3 + s] = gm + gds;
      slope[s * 3 + 1] = gm;
      slope[s * 3 + d] = gds;
      slope[s * 3 + s] = -gm - gds;
      return false;
    },
  };
}

/** Bipolar transistor, Ebers–Moll in transport form, ends C, B, E. */
export function bipolar(part: Pick<PartOf<'Q'>, 'type' | 'is' | 'bf' | 'br'>): Device {
  const sign = part.type === 'N' ? 1 : -1;
  const { bf, br } = part;
  const model = junctionModel(part.is, 1, 0);
  const be: JunctionPoint = { i: 0, g: 0 };
  const bc: JunctionPoint = { i: 0, g: 0 };
  return {
    ends: 3,
    junctions: [
      { a: 1, k: 2, sign, model },
      { a: 1, k: 0, sign, model },
    ],
    reset: () => undefined,
    evaluate(_v, inside, out, slope) {
      junctionAt(model, inside[0], be);
      junctionAt(model, inside[1], bc);
      // into collector, base; the emitter takes the rest
      const collector = be.i - bc.i - bc.i / br;
      const base = be.i / bf + bc.i / br;
      out[0] = -sign * collector;
      out[1] = -sign * base;
      out[2] = sign * (collector + base);
      // slopes with respect to vbe and vbc, then to the ends
      const [cbe, cbc] = [be.g, -bc.g * (1 + 1 / br)];
      const [bbe, bbc] = [be.g / bf, bc.g / br];
      const row = (r: number, gbe: number, gbc: number) => {
        slope[r * 3] = -gbc;
        slope[r * 3 + 1] = gbe + gbc;
        slope[r * 3 + 2] = -gbe;
      };
      row(0, -cbe, -cbc);
      row(1, -bbe, -bbc);
      row(2, cbe + bbe, cbc + bbc);
      return false;
    },
  };
}

const positive = (x: number, width: number) => (x + Math.sqrt(x * x + width * width)) / 2;
const smin = (a: number, b: number) => (a + b - Math.sqrt((a - b) ** 2 + 4e-4)) / 2;

/** Argument of a tanh: out of saturation only as far as its shoulder, within the range by 1.5 at a time. */
function tanhWay(old: number, x: number): number {
  if (old > 3) return x < 1 ? 1 : x;
  if (old < -3) return x > -1 ? -1 : x;
  const at = Math.min(Math.max(x, old - 1.5), old + 1.5);
  return Math.abs(at) > 3 ? x : at;
}

/** Share of a supply's range: into it to the middle, down by halves (the corner is round there), up by doubling. */
function supplyWay(old: number, x: number): number {
  if (old > 2) return x < 0.5 ? 0.5 : x;
  if (old <= 0.01) return x > 0.5 ? 0.5 : x;
  if (x > 2 * old + 0.5) return old > 1 ? x : 2 * old + 0.5;
  return x < old / 2 ? old / 2 : x;
}

/**
 * The bends of a block's law. Each saturates on both sides of a narrow range that Newton would leap over
 * again and again; so a bend moves only part of the way and is continued in a straight line from there.
 * (The same idea as limiting a junction's voltage.)
 */
class Bends {
  /** Set while the law is evaluated at the circuit's voltages, clear while slopes are tried. */
  moving = false;
  leapt = false;
  private readonly at: number[] = [];
  private outward = true;

  forget(): void {
    this.at.length = 0;
  }

  /** Where the bend is taken this time: `x`, or as far on the way there as `allow` lets it. */
  private place(k: number, x: number, allow: (old: number, x: number) => number): number {
    if (this.moving) {
      const old = this.at[k] as number | undefined;
      const at = old === undefined ? x : allow(old, x);
      if (at !== x) this.leapt = true;
      this.at[k] = at;
    }
    return this.at[k];
  }

  /** tanh(x). */
  tanh(k: number, x: number): number {
    const at = this.place(k, x, tanhWay);
    const t = Math.tanh(at);
    return t + (1 - t * t) * (x - at);
  }

  /** (1 + tanh(x / w)) / 2. */
  step(k: number, x: number, w: number): number {
    return (1 + this.tanh(k, x / w)) / 2;
  }

  /** A current shared between two supplies: what flows out comes from the first, what flows in goes to the second. */
  shared(i: number): [number, number] {
    if (this.moving) this.outward = i >= 0;
    return this.outward ? [i, 0] : [0, i];
  }

  /** tanh(sp(x) / w): nothing below 0, all of it above w; sp(x) = (x + √(x² + 1e-6)) / 2. */
  supply(k: number, x: number, w: number): number {
    const at = w * this.place(k, x / w, supplyWay);
    const t = Math.tanh(positive(at, 1e-3) / w);
    const slope = ((1 - t * t) * (1 + at / Math.sqrt(at * at + 1e-6))) / 2 / w;
    return t + slope * (x - at);
  }
}

/** Roles of a block's ends and the pin names that stand for them when it does not say. */
export const ROLES = {
  vin: ['VIN', 'IN', 'PVIN', 'VCC', 'VDD'],
  out: ['VOUT', 'OUT', 'VO', 'O', 'Y'],
  gnd: ['GND', 'VSS', 'PGND', 'AGND', 'EP', 'VEE'],
  en: ['EN', 'VEN', 'ENABLE', 'ON'],
  fb: ['FB', 'VFB', 'ADJ'],
  sw: ['SW', 'VSW', 'LX'],
  swx: ['SWX', 'VSWX'],
  ovp: ['OVP', 'VOVP', 'OV'],
  vcc: ['VCC', 'VDD', 'VS', 'V+', 'VP+'],
  vee: ['VEE', 'GND', 'VSS', 'V-'],
  p: ['P', 'VP', 'INP', 'IN+', '+', 'PLUS'],
  n: ['N', 'VN', 'INN', 'IN-', '-', 'MINUS'],
  in: ['IN', 'VIN', 'A', 'I', 'INP'],
} as const;
export type Role = keyof typeof ROLES;

/** Ends of each block, in the order of its law. */
export const BLOCK_ROLES: Record<Block['type'], { needed: Role[]; optional: Role[] }> = {
  ldo: { needed: ['vin', 'out', 'gnd'], optional: [] },
  buck: { needed: ['vin', 'sw', 'fb', 'gnd'], optional: ['en'] },
  boost: { needed: ['vin', 'sw', 'swx', 'fb', 'gnd'], optional: ['en', 'ovp'] },
  opamp: { needed: ['vcc', 'vee', 'p', 'n', 'out'], optional: [] },
  buf: { needed: ['vcc', 'gnd', 'in', 'out'], optional: [] },
};

/** Pin of the IC at each end of the block, in the order of its roles; an end left out is null. Throws the sentence. */
export function blockPins(part: PartOf<'IC'>, block: Block): (string | null)[] {
  const stated = new Map(Object.entries(block.pins ?? {}).map(([role, pin]) => [role.toUpperCase(), pin]));
  const pins = new Map(Object.keys(part.pins).map((pin) => [pin.toUpperCase(), pin]));
  const find = (role: Role): string | null => {
    for (const name of [role.toUpperCase(), ...ROLES[role]]) {
      const pin = stated.get(name);
      if (pin !== undefined) return pinOf(part, pin) ?? null;
    }
    for (const name of ROLES[role]) {
      const pin = pins.get(name);
      if (pin !== undefined) return pin;
    }
    return null;
  };
  const { needed, optional } = BLOCK_ROLES[block.type];
  const found = needed.map(find);
  const missing = needed.filter((_, i) => found[i] === null);
  if (missing.length)
    throw new NetlistError(
      `${part.ref}: the ${block.type} block needs a pin for ${missing.map((m) => m.toUpperCase()).join(', ')}`,
    );
  return [...found, ...optional.map(find)];
}

/** Currents into the circuit at the block's ends (order of its roles), given their voltages; `has`: which ends there are. */
type BlockLaw = (v: Float64Array, has: readonly boolean[], out: Float64Array, bends: Bends) => void;

function blockLaw(block: Block): BlockLaw {
  switch (block.type) {
    case 'ldo': {
      const { vuv, vset, vdo, ilim, rout, iq } = block;
      return (v, _has, out, bends) => {
        const vin = v[0] - v[2];
        const en = bends.step(0, vin - vuv, 0.1);
        const target = smin(vset, vin - vdo) * en;
        const i = ilim * bends.supply(1, target - (v[1] - v[2]), rout * ilim);
        out[0] = -(i + iq * en);
        out[1] = i;
        out[2] = iq * en;
      };
    }
    case 'buck': {
      const { vuv, ven, dmax, vref, a, ilim, rout, iq } = block;
      return (v, has, out, bends) => {
        const [vin, vsw, vfb] = [v[0] - v[3], v[1] - v[3], v[2] - v[3]];
        const en = bends.step(0, vin - vuv, 0.1) * (has[4] ? bends.step(1, v[4] - v[3] - ven, 0.05) : 1);
        const d = dmax * bends.step(2, vref - vfb, 1 / a) * en;
        const i = ilim * bends.supply(3, d * vin - vsw, rout * ilim);
        out[0] = -(d * i + iq * en);
        out[1] = i;
        out[2] = 0;
        out[3] = d * i + iq * en - i;
        out[4] = 0;
      };
    }
    case 'boost': {
      const { vuv, ven, dmax, vref, a, vovp, rout, iq } = block;
      return (v, has, out, bends) => {
        const [vin, vsw, vswx, vfb] = [v[0] - v[4], v[1] - v[4], v[2] - v[4], v[3] - v[4]];
        const en = bends.step(0, vin - vuv, 0.1) * (has[5] ? bends.step(1, v[5] - v[4] - ven, 0.05) : 1);
        const guard = has[6] ? bends.step(3, vovp - (v[6] - v[4]), 0.2) : 1;
        const d = dmax * bends.step(2, vref - vfb, 1 / a) * en * guard;
        const m = 1 / Math.max(1 - d, 0.01);
        const i = (m * vsw - vswx) / rout;
        out[0] = -iq * en;
        out[1] = -m * i;
        out[2] = i;
        out[3] = 0;
        out[4] = m * i - i + iq * en;
        out[5] = 0;
        out[6] = 0;
      };
    }
    case 'opamp': {
      const { a, vmin, ilim, rout } = block;
      return (v, _has, out, bends) => {
        const span = v[0] - v[1];
        const ss = positive(span, 0.1);
        const target = v[1] + (ss / 2) * (1 + bends.tanh(0, (2 * a * (v[2] - v[3])) / ss));
        const i = ilim * bends.step(1, span - vmin, 0.1) * bends.tanh(2, (target - v[4]) / (rout * ilim));
        const [up, down] = bends.shared(i);
        out[0] = -up;
        out[1] = -down;
        out[2] = 0;
        out[3] = 0;
        out[4] = i;
      };
    }
    case 'buf': {
      const { vth, inv, vmin, ilim, rout } = block;
      return (v, _has, out, bends) => {
        const vcc = v[0] - v[1];
        const high = bends.step(0, v[2] - v[1] - vth, 0.05);
        const target = vcc * (inv ? 1 - high : high);
        const i = ilim * bends.step(1, vcc - vmin, 0.1) * bends.tanh(2, (target - (v[3] - v[1])) / (rout * ilim));
        const [up, down] = bends.shared(i);
        out[0] = -up;
        out[1] = -down;
        out[2] = 0;
        out[3] = i;
      };
    }
  }
}

const H = 1e-6;

/** A powered block; slopes by differences of 1 µV (its laws are smooth). */
export function blockDevice(block: Block, has: readonly boolean[]): Device {
  const law = blockLaw(block);
  const ends = has.length;
  const moved = new Float64Array(ends);
  const at = new Float64Array(ends);
  const bends = new Bends();
  return {
    ends,
    junctions: [],
    reset: () => bends.forget(),
    evaluate(v, _inside, out, slope) {
      bends.moving = true;
      bends.leapt = false;
      law(v, has, out, bends);
      bends.moving = false;
      moved.set(v);
      for (let k = 0; k < ends; k++) {
        moved[k] = v[k] + H;
        law(moved, has, at, bends);
        for (let i = 0; i < ends; i++) slope[i * ends + k] = (at[i] - out[i]) / H;
        moved[k] = v[k];
      }
      return bends.leapt;
    },
  };
}

/** Resistance of a boost converter's switch path while it is off, Ω. */
export function restingPath(block: Block): number | null {
  return block.type === 'boost' ? block.rout : null;
}
