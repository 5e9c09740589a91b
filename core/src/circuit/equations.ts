/**
 * The nodal equations of a network as numbers: currents leaving every node at given voltages, and the
 * matrix of their slopes on one elimination plan. Junctions and bends are linearised where limiting puts them.
 */
import { covers, type LuPlan, planLu } from '../ground/index.ts';
import {
  CLAMP,
  GMIN_S,
  insideVoltage,
  junctionAt,
  limited,
  type JunctionModel,
  type JunctionPoint,
} from './junction.ts';
import type { Change, Network } from './network.ts';

/** What a meter does to the network: conductance and current between its probes. */
export interface Stimulus {
  /** Nodes of the probes; the network's size is ground. */
  red: number;
  black: number;
  /** S across the probes. */
  g: number;
  /** A pushed into red and drawn from black. */
  i: number;
  /** Highest voltage that the current source gives, V. */
  clamp_V?: number;
}

interface DeviceSlots {
  places: Int32Array;
  v: Float64Array;
  inside: Float64Array;
  out: Float64Array;
  slope: Float64Array;
}

/**
 * Voltage across a junction below which RS · g < 0.02, so that two Newton steps without another exponential
 * find what RS takes, and no step is limited, V.
 */
function quietBelow({ is, nvt, rs, vcrit }: JunctionModel): number {
  const silent = rs > 0 ? nvt * Math.log((0.02 * nvt) / (rs * is)) : Infinity;
  return Math.min(silent, 0.5 * vcrit);
}

export class Equations {
  readonly network: Network;
  readonly plan: LuPlan;
  readonly n: number;
  private readonly base: Float64Array;
  readonly matrix: Float64Array;
  readonly leaving: Float64Array;
  private readonly conductorA: Int32Array;
  private readonly conductorB: Int32Array;
  private readonly conductorG: Float64Array;
  /** Junctions of parts and one spare for the meter's clamp. */
  private readonly models: JunctionModel[];
  private readonly is: Float64Array;
  private readonly nvt: Float64Array;
  private readonly rs: Float64Array;
  /** Below this the series resistance takes nothing of note, V. */
  private readonly quiet: Float64Array;
  private readonly ja: Int32Array;
  private readonly jk: Int32Array;
  private readonly bv: Float64Array;
  private readonly jPlaces: Int32Array;
  /** Junction voltages that the last step was linearised about. */
  private readonly inside: Float64Array;
  readonly slopes: Float64Array;
  readonly factoredSlopes: Float64Array;
  private readonly devices: DeviceSlots[];
  private readonly point: JunctionPoint = { i: 0, g: 0 };
  private readonly plain: number;
  stimulus: Stimulus | null = null;
  private stimulusPlaces = [0, 0];
  limiting = false;
  moved = false;
  /** Junctions take the whole step. */
  free = false;
  /** Extra conductance from every node to `anchor`, S. */
  tie = 0;
  readonly anchor: Float64Array;
  sourceScale = 1;
  /** Sum of the currents in junctions and devices at the last evaluation, A. */
  bent_A = 0;

  /** `like`: the equations of a circuit that is probably coupled in the same way, whose plan then serves here too. */
  constructor(network: Network, probes: readonly (readonly [number, number])[] = [], like?: Equations) {
    this.network = network;
    const n = (this.n = network.size);
    const couplings = network.devices.flatMap(({ nodes }) => nodes.flatMap((a) => nodes.map((b) => [a, b] as const)));
    const edges = [
      ...network.conductors.map(({ a, b }) => [a, b] as const),
      ...network.junctions.map(({ a, k }) => [a, k] as const),
      ...couplings,
      ...probes,
    ];
    this.plan = like && covers(like.plan, n, edges) ? like.plan : planLu(n, edges);
    this.base = new Float64Array(this.plan.length);
    this.matrix = new Float64Array(this.plan.length);
    this.leaving = new Float64Array(n + 1);
    this.anchor = new Float64Array(n + 1);
    // one to spare, for `alter`
    this.conductorA = Int32Array.from([...network.conductors.map((c) => c.a), n]);
    this.conductorB = Int32Array.from([...network.conductors.map((c) => c.b), n]);
    this.conductorG = Float64Array.from([...network.conductors.map((c) => c.g), 0]);
    for (const { a, b, g } of network.conductors) this.couple(this.base, a, b, g);
    for (let i = 0; i < n; i++) this.base[i] += GMIN_S;

    this.plain = network.junctions.length;
    this.models = [...network.junctions.map((j) => j.model), CLAMP];
    this.is = Float64Array.from(this.models, (m) => m.is);
    this.nvt = Float64Array.from(this.models, (m) => m.nvt);
    this.rs = Float64Array.from(this.models, (m) => m.rs);
    this.quiet = Float64Array.from(this.models, quietBelow);
    this.ja = Int32Array.from([...network.junctions.map((j) => j.a), n]);
    this.jk = Int32Array.from([...network.junctions.map((j) => j.k), n]);
    this.bv = Float64Array.from([...network.junctions.map((j) => j.bv), 0]);
    this.jPlaces = new Int32Array(2 * (this.plain + 1));
    for (let j = 0; j < this.plain; j++) this.placeJunction(j);
    const held = network.devices.reduce((sum, d) => sum + d.device.junctions.length, 0);
    this.inside = new Float64Array(this.plain + 1 + held);
    this.devices = network.devices.map(({ device, nodes }) => ({
      places: Int32Array.from(nodes.flatMap((row) => nodes.map((column) => this.plan.place(row, column)))),
      v: new Float64Array(device.ends),
      inside: new Float64Array(device.junctions.length),
      out: new Float64Array(device.ends),
      slope: new Float64Array(device.ends * device.ends),
    }));
    const deviceSlopes = this.devices.reduce((sum, d) => sum + d.slope.length, 0);
    this.slopes = new Float64Array(this.plain + 1 + deviceSlopes);
    this.factoredSlopes = new Float64Array(this.slopes.length);
  }

  /** Changes one conductance of the network (see `couples`) until it is altered again; null: as it was. */
  alter(change: Change | null): void {
    const spare = this.conductorG.length - 1;
    this.couple(this.base, this.conductorA[spare], this.conductorB[spare], -this.conductorG[spare]);
    const { a, b, dg } = change ?? { a: this.n, b: this.n, dg: 0 };
    this.conductorA[spare] = a;
    this.conductorB[spare] = b;
    this.conductorG[spare] = dg;
    this.couple(this.base, a, b, dg);
  }

  /** Lays a meter on (or takes it off), everything else plain. */
  attach(stimulus: Stimulus | null): void {
    this.stimulus = stimulus;
    this.tie = 0;
    this.sourceScale = 1;
    if (!stimulus) return;
    const { red, black, clamp_V } = stimulus;
    this.stimulusPlaces = [this.plan.place(red, black), this.plan.place(black, red)];
    if (clamp_V === undefined) return;
    this.ja[this.plain] = red;
    this.jk[this.plain] = black;
    this.bv[this.plain] = clamp_V;
    this.placeJunction(this.plain);
  }

  get nonlinear(): boolean {
    return this.plain > 0 || this.devices.length > 0 || this.stimulus?.clamp_V !== undefined;
  }

  /** Junctions start from what the voltages say, without limiting. */
  settle(v: Float64Array): void {
    const { models, ja, jk, bv, inside } = this;
    for (let j = 0; j <= this.plain; j++) {
      const model = models[j];
      const across = v[ja[j]] - v[jk[j]] - bv[j];
      // a cold start at full voltage would be the steepest place of all
      inside[j] = Math.min(insideVoltage(model, across, 0, this.point), model.vcrit);
    }
    let at = this.plain + 1;
    this.network.devices.forEach(({ device, nodes }) => {
      device.reset();
      for (const { a, k, sign, model } of device.junctions)
        inside[at++] = Math.min(sign * (v[nodes[a]] - v[nodes[k]]), model.vcrit);
    });
  }

  /** Currents leaving every node at `v` (linearised where a junction is limited), and all slopes. */
  evaluate(v: Float64Array): void {
    this.limiting = false;
    this.linearAt(v);
    this.diodesAt(v);
    this.devicesAt(v);
  }

  /** What conductors, sources and the meter take out of every node. */
  private linearAt(v: Float64Array): void {
    const { n, leaving, conductorA, conductorB, conductorG, network } = this;
    const scale = this.sourceScale;
    for (let i = 0; i < n; i++) leaving[i] = GMIN_S * v[i] + this.tie * (v[i] - this.anchor[i]);
    for (let c = 0; c < conductorG.length; c++) {
      const i = conductorG[c] * (v[conductorA[c]] - v[conductorB[c]]);
      leaving[conductorA[c]] += i;
      leaving[conductorB[c]] -= i;
    }
    for (const { a, b, i } of network.currents) {
      leaving[a] += scale * i;
      leaving[b] -= scale * i;
    }
    const meter = this.stimulus;
    if (meter) {
      const i = meter.g * (v[meter.red] - v[meter.black]) - scale * meter.i;
      leaving[meter.red] += i;
      leaving[meter.black] -= i;
    }
  }

  /** Plain diodes: the meter's clamp is the last of them, where it has one. */
  private diodesAt(v: Float64Array): void {
    const { leaving, models, is, nvt, rs, quiet, ja, jk, bv, inside, point, slopes, factoredSlopes } = this;
    const scale = this.sourceScale;
    const last = this.stimulus?.clamp_V === undefined ? this.plain : this.plain + 1;
    let bent = 0;
    let moved = false;
    for (let j = 0; j < last; j++) {
      const a = ja[j];
      const k = jk[j];
      const across = v[a] - v[k] - bv[j] * scale;
      const width = nvt[j];
      let current: number;
      let g: number;
      if (across < quiet[j]) {
        // by far the most: off, or hardly on
        inside[j] = across;
        if (across >= -3 * width) {
          let e = Math.abs(across) < 1e-9 ? 1 + across / width : Math.exp(across / width);
          const r = rs[j];
          let taken = 0;
          if (r > 0) {
            const whole = e;
            for (let turn = 0; turn < 2; turn++) {
              const i = is[j] * (e - 1);
              taken += (r * i - taken) / (1 + (r * is[j] * e) / width);
              const x = taken / width;
              e = whole * (1 - x + x * x * (0.5 - x / 6));
            }
            inside[j] = across - taken;
          }
          current = is[j] * (e - 1) + GMIN_S * (across - taken);
          g = (is[j] * e) / width + GMIN_S;
          g /= 1 + r * g;
        } else {
          const tail = (3 * width) / (across * Math.E);
          const cube = tail * tail * tail;
          current = -is[j] * (1 + cube) + GMIN_S * across;
          g = (3 * is[j] * cube) / across + GMIN_S;
        }
      } else {
        const model = models[j];
        const wanted = insideVoltage(model, across, inside[j], point);
        const vj = this.free ? wanted : limited(model, wanted, inside[j]);
        inside[j] = vj;
        junctionAt(model, vj, point);
        current = point.i;
        g = point.g;
        if (model.rs > 0) g /= 1 + model.rs * g;
        if (vj !== wanted) {
          this.limiting = true;
          current += g * (across - (vj + model.rs * point.i));
        }
      }
      slopes[j] = g;
      const old = factoredSlopes[j];
      if (Math.abs(g - old) > 0.1 * old + 1e-11) moved = true;
      bent += Math.abs(current);
      leaving[a] += current;
      leaving[k] -= current;
    }
    this.moved = moved;
    this.bent_A = bent;
    if (last === this.plain) slopes[this.plain] = 0;
  }

  /** Transistors and blocks, with the junctions inside them. */
  private devicesAt(v: Float64Array): void {
    const { leaving, inside, network } = this;
    let at = this.plain + 1;
    let s = this.plain + 1;
    for (const [d, slots] of this.devices.entries()) {
      const { device, nodes } = network.devices[d];
      for (let i = 0; i < nodes.length; i++) slots.v[i] = v[nodes[i]];
      const from = at;
      for (let q = 0; q < device.junctions.length; q++) {
        const { a, k, sign, model } = device.junctions[q];
        const wanted = sign * (slots.v[a] - slots.v[k]);
        const vj = this.free ? wanted : limited(model, wanted, inside[at]);
        if (vj !== wanted) this.limiting = true;
        inside[at++] = vj;
        slots.inside[q] = vj;
      }
      const leapt = device.evaluate(slots.v, slots.inside, slots.out, slots.slope);
      if (leapt) this.limiting = true;
      for (let i = 0; i < nodes.length; i++) {
        let out = slots.out[i];
        for (let q = 0; q < device.junctions.length; q++) {
          const { a, k, sign } = device.junctions[q];
          const lag = sign * (slots.v[a] - slots.v[k]) - inside[from + q];
          if (lag !== 0) out -= sign * slots.slope[i * device.ends + k] * lag;
        }
        this.bent_A += Math.abs(out);
        leaving[nodes[i]] -= out;
      }
      for (const g of slots.slope) this.note(s++, g);
    }
  }

  /** Keeps a slope and whether it has changed since the matrix was factored. */
  private note(at: number, g: number): void {
    this.slopes[at] = g;
    const old = this.factoredSlopes[at];
    if (Math.abs(g - old) > 0.1 * Math.abs(old) + 1e-11) this.moved = true;
  }

  /** The matrix of slopes belonging to the last `evaluate`. */
  stamp(): void {
    const { matrix, base, n, slopes, ja, jk, jPlaces } = this;
    matrix.set(base);
    if (this.tie > 0) for (let i = 0; i < n; i++) matrix[i] += this.tie;
    const trash = matrix.length - 1;
    const diagonal = (node: number) => (node === n ? trash : node);
    const meter = this.stimulus;
    if (meter) {
      matrix[diagonal(meter.red)] += meter.g;
      matrix[diagonal(meter.black)] += meter.g;
      if (meter.red !== meter.black) {
        matrix[this.stimulusPlaces[0]] -= meter.g;
        matrix[this.stimulusPlaces[1]] -= meter.g;
      }
    }
    const last = meter?.clamp_V === undefined ? this.plain : this.plain + 1;
    for (let j = 0; j < last; j++) {
      const g = slopes[j];
      matrix[diagonal(ja[j])] += g;
      matrix[diagonal(jk[j])] += g;
      if (ja[j] === jk[j]) continue;
      matrix[jPlaces[2 * j]] -= g;
      matrix[jPlaces[2 * j + 1]] -= g;
    }
    let s = this.plain + 1;
    for (const { places } of this.devices) for (const place of places) matrix[place] -= slopes[s++];
  }

  private placeJunction(j: number): void {
    const { ja, jk } = this;
    if (ja[j] === jk[j]) return;
    this.jPlaces[2 * j] = this.plan.place(ja[j], jk[j]);
    this.jPlaces[2 * j + 1] = this.plan.place(jk[j], ja[j]);
  }

  private couple(m: Float64Array, a: number, b: number, g: number): void {
    if (a === b) return;
    const { place } = this.plan;
    m[place(a, a)] += g;
    m[place(b, b)] += g;
    m[place(a, b)] -= g;
    m[place(b, a)] -= g;
  }
}
