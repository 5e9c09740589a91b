/** Irons: their tips as lumps, and where each tip is at a time: stroking along the rows, gripping both ends, going pin by pin. */
import type { HeatRun } from '../thermal/index.ts';
import { packageById, type Rect } from '../packages/index.ts';
import type { Drive } from './drive.ts';
import type { JointLump, Lumps } from './lumps.ts';
import { TIP_CONDUCTANCE, type IronMethod, type LowMeltMethod, type Method } from './method.ts';

/** Heat of a tip, J/K, its regulation, W/K, and what it loses to the air, W/K. */
const TIP = { C: 1.2, gain: 5, hA: 0.02 };
/** Molten solder, W/(m·K). */
const BEAD_CONDUCTIVITY = 30;
/** Joints of a row no further apart than this share the bead, mm. */
const BEAD_REACH = 1.5;
/** A wetted millimetre of tip hands over this, W/K (estimate); corroded metal takes half of it. */
const FILM = 0.06;
const CORRODED_FILM = 0.5;
/**
 * A pin in its hole, conductivity × section, W·m/K: 0.12 mm² of lead, 25 µm of copper round 0.9 mm, 0.5 mm² of solder. A rod that
 * gives its heat away evenly along its length is on average as far from its end as a third of it.
 */
const BARREL = 9e-5;
/** A tip without a bead meets a solid joint along a line: this part of the film at first, all of it after so long with flux and fresh solder, s (estimates). */
const [DRY, WETS_S] = [0.1, 1.5];
const filmAfter = (s: number) => DRY + (1 - DRY) * Math.min(1, s / WETS_S);
/** Strokes and pins where nothing is said, s. */
const PASS_S = 1;
const MOST_S = 8;

const tipsOf = (method: Method): number => {
  if (method.kind === 'air') return 0;
  if (method.kind === 'iron') return method.tool === 'tweezers' ? 2 : 1;
  return method.irons ?? 1;
};

export function addIrons(lumps: Lumps, method: Method, ambient_C: number): void {
  if (method.kind === 'air') return;
  for (let n = 0; n < tipsOf(method); n++) {
    const node =
      lumps.nodes.push({
        id: `iron:${n}`,
        type: 'iron',
        Pmax: method.power_W,
        Tset: method.set_C,
        T0: method.set_C,
        Tinf: ambient_C,
        ...TIP,
      }) - 1;
    lumps.tips.push({ node, contact: lumps.joints.map((j) => lumps.links.push({ a: node, node: j.node, G: 0 }) - 1) });
  }
  if (method.kind !== 'low-melt') return;
  const along = BEAD_CONDUCTIVITY * method.bead_mm3_mm * 1e-6;
  for (let n = 1; n < lumps.joints.length; n++) {
    const [a, b] = [lumps.joints[n - 1], lumps.joints[n]];
    const pitch = Math.hypot(a.x - b.x, a.y - b.y);
    if (pitch <= BEAD_REACH) lumps.links.push({ a: a.node, node: b.node, G: (along / pitch) * 1000 });
  }
}

/** Lands in line within this, mm. */
const IN_LINE = 0.05;

/**
 * The side of the part that a land lies on, among all its lands: that of the row it stands in. End lands of a row (a flex tail's) are no side
 * of their own.
 */
function sideOf(land: Rect, lands: readonly Rect[]): string {
  const inLine = (key: 'x' | 'y') => lands.filter((r) => Math.abs(r[key] - land[key]) < IN_LINE).length;
  const [below, beside] = [inLine('x'), inLine('y')];
  if (lands.length > 2 && below !== beside) return below > beside ? `x${Math.sign(land.x)}` : `y${Math.sign(land.y)}`;
  const [mx, my] = [Math.max(...lands.map((r) => Math.abs(r.x))), Math.max(...lands.map((r) => Math.abs(r.y)))];
  const upright = Math.abs(land.x) / (mx || 1) >= Math.abs(land.y) / (my || 1);
  return upright ? `x${Math.sign(land.x)}` : `y${Math.sign(land.y)}`;
}

const hidden = (kind: string) => kind === 'pad' || kind === 'ball';

/** Sides with joints that a tip can reach. */
function sidesOf(joints: readonly { terminal: { kind: string; land: Rect } }[]): string[] {
  const lands = joints.map((j) => j.terminal.land);
  return [...new Set(joints.filter((j) => !hidden(j.terminal.kind)).map((j) => sideOf(j.terminal.land, lands)))];
}

/** How many sides of a package a tip can come to, and whether all its joints are pins. */
export function reachOf(packageId: string): { sides: number; pins: boolean } {
  const { terminals } = packageById(packageId);
  return {
    sides: sidesOf(terminals.map((terminal) => ({ terminal }))).length,
    pins: terminals.length > 0 && terminals.every((t) => t.kind === 'pin'),
  };
}

export interface Row {
  /** Ids of the terminals that stand in it. */
  terminals: string[];
  length_mm: number;
  /** Of the deepest land, across the row. */
  depth_mm: number;
}

/** The rows of a package that a tip can come to. */
export function rowsOf(packageId: string): Row[] {
  const open = packageById(packageId).terminals.filter((t) => !hidden(t.kind));
  const lands = open.map((t) => t.land);
  return sidesOf(open.map((terminal) => ({ terminal }))).map((side) => {
    const row = open.filter((t) => sideOf(t.land, lands) === side);
    const upright = side.startsWith('x');
    const ends = row.flatMap(({ land: { x, y, w, h } }) => (upright ? [y - h / 2, y + h / 2] : [x - w / 2, x + w / 2]));
    return {
      terminals: row.map((t) => t.id),
      length_mm: Math.max(...ends) - Math.min(...ends),
      depth_mm: Math.max(...row.map(({ land }) => (upright ? land.w : land.h))),
    };
  });
}

/** What a bead along every row brings to each joint, mm³ by terminal, and in all; joints under the body get none. */
export function beadOn(
  packageId: string,
  bead_mm3_mm: number,
): { all_mm3: number; each_mm3: ReadonlyMap<string, number> } {
  const rows = rowsOf(packageId).map((row) => ({ ...row, mm3: bead_mm3_mm * row.length_mm }));
  return {
    all_mm3: rows.reduce((sum, row) => sum + row.mm3, 0),
    each_mm3: new Map(rows.flatMap((row) => row.terminals.map((id) => [id, row.mm3 / row.terminals.length]))),
  };
}

interface Touch {
  /** Where the tip came down: a side, a pin; a stroke along a side does not lift it. */
  at: number;
  joints: number[];
  /** From the tip into all of them together, W/K. */
  G: number;
}
const NOTHING: Touch = { at: -1, joints: [], G: 0 };

/** Irons as they drive a run: where each tip is. */
export class Irons implements Drive {
  readonly settled_s: number;
  readonly mixes: boolean;
  readonly brisk = true;
  private readonly lumps: Lumps;
  private readonly method: LowMeltMethod | IronMethod;
  private readonly sides: number[][];
  /** Of joints that are sucked empty one by one: which are. */
  readonly freed?: boolean[];
  /** From the upper end of a pin to its solder on average, W/K. */
  private readonly through: number;
  /** When a tip last came down somewhere else, or left, s. */
  moved_s = 0;
  /** What the tips had on each joint so far, W/K·s. */
  readonly touched: Float64Array;
  /** Whether any tip is down. */
  down = false;
  private place = '';
  private seen_s = 0;
  private pin = 0;
  private pinSince = 0;
  private moltenSince: number | null = null;

  /** `thickness_mm` of the board: a pin has to be heated through its hole. */
  constructor(lumps: Lumps, method: LowMeltMethod | IronMethod, thickness_mm: number) {
    this.lumps = lumps;
    this.through = (BARREL / (thickness_mm / 3)) * 1000;
    this.method = method;
    const lands = lumps.joints.map((j) => j.terminal.land);
    this.sides = sidesOf(lumps.joints).map((side) =>
      lumps.joints.flatMap((j, i) => (sideOf(j.terminal.land, lands) === side ? [i] : [])),
    );
    this.settled_s = method.kind === 'low-melt' ? method.stroke_s : 0;
    this.mixes = method.kind === 'low-melt';
    if (method.kind === 'iron' && method.tool === 'vacuum') this.freed = lumps.joints.map(() => false);
    this.touched = new Float64Array(lumps.joints.length);
  }

  airAt(): undefined {
    return undefined;
  }

  /** Puts every tip where it is at time t; `molten` says which joints are through. */
  act(run: HeatRun, t: number, molten: (joint: number) => boolean): void {
    const { method, lumps } = this;
    const touches =
      method.kind === 'low-melt'
        ? lumps.tips.map((_, k) => this.stroke(method, t, k))
        : method.tool === 'tweezers'
          ? lumps.tips.map((_, k) => this.grip(t, k))
          : [this.suck(method, t, molten)];
    const place = touches.map((touch) => touch.at).join();
    if (place !== this.place) [this.place, this.moved_s] = [place, t];
    this.down = touches.some((touch) => touch.joints.length > 0);
    for (const [k, tip] of lumps.tips.entries()) {
      const { joints, G } = touches[k] ?? NOTHING;
      for (const [i, link] of tip.contact.entries()) {
        const each = joints.includes(i) ? G / joints.length : 0;
        run.setLink(link, each);
        this.touched[i] += each * (t - this.seen_s);
      }
    }
    this.seen_s = t;
  }

  /** From side to side, one stroke there and back on each; a second iron works on the opposite side. */
  private stroke(method: LowMeltMethod, t: number, k: number): Touch {
    if (t >= method.stroke_s || k >= this.sides.length) return NOTHING;
    const { pass_s = PASS_S, rest_s = 0 } = method;
    const turn = pass_s + 2 * rest_s;
    const shift = k * Math.floor(this.sides.length / 2);
    const side = (Math.floor(t / turn) + shift) % this.sides.length;
    const row = this.sides[side];
    const at = t % turn;
    const place = at < pass_s / 2 ? (2 * at) / pass_s : Math.max(0, Math.min(1, 2 - (2 * (at - rest_s)) / pass_s));
    return this.touchAround(side, row, row[Math.round(place * (row.length - 1))]);
  }

  private grip(t: number, k: number): Touch {
    const row = this.sides[k];
    return row ? this.touchAround(k, row, row[Math.floor(row.length / 2)], filmAfter(t)) : NOTHING;
  }

  private suck(method: IronMethod, t: number, molten: (joint: number) => boolean): Touch {
    const { freed = [], lumps } = this;
    if (molten(this.pin)) this.moltenSince ??= t;
    else this.moltenSince = null;
    if (this.moltenSince !== null && t - this.moltenSince >= method.dwell_s) freed[this.pin] = true;
    if (freed[this.pin] || t - this.pinSince >= (method.most_s ?? MOST_S)) {
      const n = freed.length;
      const next = Array.from({ length: n }, (_, i) => (this.pin + 1 + i) % n).find((i) => !freed[i]);
      if (next === undefined) return NOTHING;
      [this.pin, this.pinSince, this.moltenSince] = [next, t, null];
    }
    const joint = lumps.joints[this.pin];
    // a ring of the tip sits on the land
    const ring = Math.PI * Math.min(method.tip_mm, joint.terminal.land.w, joint.terminal.land.h);
    return this.touch(this.pin, [this.pin], ring, filmAfter(t - this.pinSince));
  }

  /** What the tip covers of a row with its middle on one joint of it. */
  private touchAround(side: number, row: readonly number[], middle: number, film = 1): Touch {
    const { joints } = this.lumps;
    const { tip_mm } = this.method;
    const centre = joints[middle];
    const touched = row.filter((i) => Math.hypot(joints[i].x - centre.x, joints[i].y - centre.y) <= tip_mm / 2 + 1e-9);
    // the bead carries heat only as far as there is joint under the tip
    const [xs, ys] = [touched.map((i) => joints[i].x), touched.map((i) => joints[i].y)];
    const reach = Math.hypot(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
    const { w, h } = centre.terminal.land;
    return this.touch(side, touched, Math.min(tip_mm, reach + Math.min(w, h)), film);
  }

  private touch(at: number, touched: number[], wetted_mm: number, wet: number): Touch {
    const { contact, tip = 'knife' } = this.method;
    const sound = (j: JointLump) => (j.corroded ? CORRODED_FILM : 1);
    const share = touched.reduce((sum, i) => sum + sound(this.lumps.joints[i]), 0) / touched.length;
    const film = FILM * wetted_mm * contact * share * wet;
    const pins = touched.filter((i) => this.lumps.joints[i].terminal.kind === 'pin').length;
    const hole = pins === touched.length ? 1 / (pins * this.through) : 0;
    return { at, joints: touched, G: 1 / (1 / TIP_CONDUCTANCE[tip] + 1 / film + hole) };
  }
}
