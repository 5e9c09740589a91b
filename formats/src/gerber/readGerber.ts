/**
 * One photoplot layer (RS-274X, X2 attributes). Own reader: the packages found give drawing commands but drop the
 * attributes that tie a flash to part, pin and net, which are half of the worth of a file here.
 */
import type { CopperShape } from '@orthos/core/copper';
import { BoardFileError } from '../fileError.ts';
import { arcPoints, turned } from '../geometry.ts';
import { macroAperture, standardAperture, type Aperture } from './apertures.ts';

interface GerberFlash {
  x: number;
  y: number;
  w: number;
  h: number;
  angle_deg: number;
  round: boolean;
  use: string;
  /** Part, pin and net by attribute, empty when not said. */
  ref: string;
  pin: string;
  net: string;
}

/** A part by the attributes of a component layer. */
interface GerberComponent {
  ref: string;
  x: number;
  y: number;
  rotation_deg: number;
  footprint: string;
  value: string;
}

export interface GerberLayer {
  /** `.FileFunction` split at commas, empty when not said. */
  function: string[];
  /** Shapes in mm, y down (negated), nets as names per shape. */
  shapes: CopperShape[];
  nets: string[];
  flashes: GerberFlash[];
  components: GerberComponent[];
  /** Middle lines of all strokes, for outlines. */
  paths: number[][];
}

const MOST_SHAPES = 1_000_000;
const MOST_REPEATS = 20_000;

interface State {
  x: number;
  y: number;
  /** Operation that a bare coordinate repeats. */
  op: number;
  interpolation: 1 | 2 | 3;
  multi: boolean;
  region: number[][] | null;
  aperture: Aperture | undefined;
  dark: boolean;
  mirror: string;
  rotate: number;
  scale: number;
}

export function readGerber(text: string): GerberLayer {
  return new GerberReader(text).read();
}

class GerberReader {
  private readonly text: string;
  private line = 1;
  private unit = 0;
  private digits: { whole: number; decimal: number; trailing: boolean } | undefined;
  private relative = false;
  private readonly apertures = new Map<number, Aperture>();
  private readonly macros = new Map<string, string[]>();
  private readonly out: GerberLayer = { function: [], shapes: [], nets: [], flashes: [], components: [], paths: [] };
  private readonly netIndex = new Map<string, number>();
  private readonly attributes = new Map<string, string[]>();
  private readonly state: State = {
    x: 0,
    y: 0,
    op: 0,
    interpolation: 1,
    multi: true,
    region: null,
    aperture: undefined,
    dark: true,
    mirror: 'N',
    rotate: 0,
    scale: 1,
  };
  /** Block apertures and step-and-repeat collect shapes before they are laid. */
  private readonly collecting: { shapes: CopperShape[]; number?: number; repeat?: [number, number, number, number] }[] =
    [];
  private path: number[] | undefined;
  private ended = false;

  constructor(text: string) {
    this.text = text;
  }

  read(): GerberLayer {
    let i = 0;
    const { text } = this;
    while (i < text.length && !this.ended) {
      const c = text[i];
      if (c === '\n') this.line++;
      if (c === '%') {
        const end = text.indexOf('%', i + 1);
        if (end < 0) throw this.fail('an extended command never ends');
        this.extended(text.slice(i + 1, end));
        for (let j = i; j < end; j++) if (text[j] === '\n') this.line++;
        i = end + 1;
      } else if (c <= ' ') i++;
      else {
        const end = text.indexOf('*', i);
        if (end < 0) throw this.fail(`"${text.slice(i, i + 20).trim()}" has no * at its end`);
        this.word(text.slice(i, end).replace(/\s+/g, ''));
        for (let j = i; j < end; j++) if (text[j] === '\n') this.line++;
        i = end + 1;
      }
    }
    if (!this.ended) throw this.fail('the file ends without M02: it was cut off');
    this.endPath();
    return this.out;
  }

  private fail(message: string): BoardFileError {
    return new BoardFileError(message, this.line);
  }

  private extended(block: string): void {
    if (/^\s*AM/.test(block)) {
      const [head, ...body] = block.split('*').map((s) => s.replace(/\s*\n\s*/g, '').trim());
      this.macros.set(head.slice(2), body);
      return;
    }
    for (const raw of block.split('*')) {
      const command = raw.replace(/[\r\n]/g, '').trim();
      if (command) this.command(command);
    }
  }

  private command(c: string): void {
    const code = c.slice(0, 2);
    const s = this.state;
    switch (code) {
      case 'FS': {
        const m = /^FS([LTD])?([AI])?X(\d)(\d)Y(\d)(\d)/.exec(c);
        if (!m) throw this.fail(`"${c.slice(0, 30)}" is no coordinate format`);
        this.digits = { whole: Number(m[3]), decimal: Number(m[4]), trailing: m[1] === 'T' };
        this.relative = m[2] === 'I';
        return;
      }
      case 'MO':
        this.unit = c.slice(2) === 'IN' ? 25.4 : c.slice(2) === 'MM' ? 1 : 0;
        if (!this.unit) throw this.fail(`"${c.slice(0, 20)}" is no unit`);
        return;
      case 'AD':
        return this.define(c);
      case 'AB':
        if (c === 'AB') this.endBlock();
        else this.collect({ shapes: [], number: Number(c.slice(3)) });
        return;
      case 'SR': {
        if (this.collecting[this.collecting.length - 1]?.repeat) this.endRepeat();
        const m = /^SRX(\d+)Y(\d+)I([-\d.]+)J([-\d.]+)$/.exec(c);
        if (m) {
          const [nx, ny] = [Number(m[1]), Number(m[2])];
          if (nx * ny > MOST_REPEATS) throw this.fail(`repeats ${nx} × ${ny} times: too often`);
          this.collect({ shapes: [], repeat: [nx, ny, Number(m[3]) * this.mm(), Number(m[4]) * this.mm()] });
        }
        return;
      }
      case 'LP':
        s.dark = c[2] !== 'C';
        return;
      case 'LM':
        s.mirror = c.slice(2);
        return;
      case 'LR':
        s.rotate = this.value(c.slice(2));
        return;
      case 'LS':
        s.scale = this.value(c.slice(2));
        return;
      case 'TF':
        this.fileAttribute(c.slice(2));
        return;
      case 'TA':
      case 'TO': {
        const [name, ...values] = c.slice(2).split(',');
        this.attributes.set(name, values);
        return;
      }
      case 'TD':
        if (c.length === 2) this.attributes.clear();
        else this.attributes.delete(c.slice(2));
        return;
      default:
      // image names, offsets and other deprecated commands change nothing that is read here
    }
  }

  private fileAttribute(text: string): void {
    const [name, ...values] = text.split(',');
    if (name === '.FileFunction') this.out.function = values;
  }

  private collect(entry: (typeof this.collecting)[0]): void {
    if (this.collecting.length > 8) throw this.fail('blocks are nested more than 8 deep');
    this.endPath();
    this.collecting.push(entry);
  }

  private endBlock(): void {
    const block = this.collecting.pop();
    if (!block || block.number === undefined) throw this.fail('a block ends that never began');
    this.apertures.set(block.number, { shapes: block.shapes, stroke_mm: 0, w: 0, h: 0, round: false });
  }

  private endRepeat(): void {
    const { shapes, repeat } = this.collecting.pop() as {
      shapes: CopperShape[];
      repeat: [number, number, number, number];
    };
    const [nx, ny, dx, dy] = repeat;
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) for (const shape of shapes) this.lay(moved(shape, 0, i * dx, -j * dy, 1, 'N'));
  }

  private mm(): number {
    if (!this.unit) throw this.fail('sizes come before the unit (MO) is said');
    return this.unit;
  }

  private value(text: string): number {
    const v = Number(text);
    if (text === '' || !Number.isFinite(v) || Math.abs(v) > 1e6)
      throw this.fail(`"${text.slice(0, 20)}" is no number of reason`);
    return v;
  }

  private define(c: string): void {
    const m = /^ADD(\d+)([A-Za-z_.$][\w.$-]*)(?:,(.*))?$/.exec(c);
    if (!m) throw this.fail(`"${c.slice(0, 30)}" defines no aperture`);
    const parameters = m[3] ? m[3].split('X').map((t) => this.value(t.trim())) : [];
    const scale = this.mm();
    const macro = this.macros.get(m[2]);
    let made: Aperture;
    if (macro) made = macroAperture(macro, parameters, scale, this.line);
    else if (/^[CROP]$/.test(m[2])) {
      // a polygon's corners and turn are no lengths
      const p = parameters.map((v, i) => (m[2] === 'P' && (i === 1 || i === 2) ? v : v * scale));
      made = standardAperture(m[2], p, this.line);
    } else throw this.fail(`aperture ${m[2].slice(0, 30)} is neither C, R, O, P nor a macro of this file`);
    const use = this.attributes.get('.AperFunction')?.[0];
    this.apertures.set(Number(m[1]), { ...made, ...(use ? { use } : {}) });
  }

  private word(w: string): void {
    const s = this.state;
    if (w.startsWith('G04') || w.startsWith('G4')) {
      // attributes of older writers stand in comments
      const m = /^G0?4#@!T([FAOD])(.*)$/.exec(w);
      if (m) this.command(`T${m[1]}${m[2]}`);
      return;
    }
    if (/^M0?[02]$/.test(w)) {
      this.ended = true;
      return;
    }
    let rest = w;
    for (let m = /^G(\d+)/.exec(rest); m; m = /^G(\d+)/.exec(rest)) {
      this.graphics(Number(m[1]));
      rest = rest.slice(m[0].length);
    }
    if (rest === '' || /^M0?1$/.test(rest)) return;
    const select = /^D(\d{2,})$/.exec(rest);
    if (select && Number(select[1]) >= 10) {
      this.endPath();
      const a = this.apertures.get(Number(select[1]));
      if (!a) throw this.fail(`aperture D${select[1]} is used before it is defined`);
      s.aperture = a;
      return;
    }
    const m = /^(?:X([+-]?\d+))?(?:Y([+-]?\d+))?(?:I([+-]?\d+))?(?:J([+-]?\d+))?(?:D0?([123]))?$/.exec(rest);
    if (!m) throw this.fail(`"${rest.slice(0, 40)}" is not understood`);
    const [, x, y, i, j, d] = m;
    if (d) s.op = Number(d);
    const toX = x === undefined ? s.x : this.coordinate(x) + (this.relative ? s.x : 0);
    const toY = y === undefined ? s.y : -this.coordinate(y) + (this.relative ? s.y : 0);
    this.operate(toX, toY, i === undefined ? 0 : this.coordinate(i), j === undefined ? 0 : -this.coordinate(j));
  }

  private graphics(code: number): void {
    const s = this.state;
    if (code === 1 || code === 2 || code === 3) s.interpolation = code;
    else if (code === 74) s.multi = false;
    else if (code === 75) s.multi = true;
    else if (code === 36) {
      this.endPath();
      s.region = [];
    } else if (code === 37) {
      const rings = (s.region ?? []).filter((r) => r.length >= 6);
      s.region = null;
      for (const ring of rings) this.lay({ k: 'area', n: this.net(), r: [ring] });
    } else if (code === 70) this.unit = 25.4;
    else if (code === 71) this.unit = 1;
    else if (code === 90) this.relative = false;
    else if (code === 91) this.relative = true;
  }

  private coordinate(text: string): number {
    if (!this.digits) throw this.fail('coordinates come before their format (FS) is said');
    const { whole, decimal, trailing } = this.digits;
    const sign = text.startsWith('-') ? -1 : 1;
    let d = text.replace(/^[+-]/, '');
    if (d.length > 12) throw this.fail(`"${text.slice(0, 30)}" has too many digits`);
    if (trailing) d = d.padEnd(whole + decimal, '0');
    const v = (sign * Number(d) * this.mm()) / 10 ** decimal;
    if (Math.abs(v) > 5000) throw this.fail(`coordinate ${text} lies ${v.toFixed(0)} mm away: out of all reason`);
    return v;
  }

  private operate(x: number, y: number, i: number, j: number): void {
    const s = this.state;
    if (s.op === 2) {
      this.endPath();
      if (s.region) s.region.push([x, y]);
    } else if (s.op === 3) {
      this.endPath();
      this.flash(x, y);
    } else if (s.op === 1) {
      const points = s.interpolation === 1 ? [s.x, s.y, x, y] : this.arc(x, y, i, j);
      if (s.region) {
        if (s.region.length === 0) s.region.push([s.x, s.y]);
        const ring = s.region[s.region.length - 1];
        for (let k = 2; k < points.length; k++) ring.push(points[k]);
      } else {
        if (!s.aperture) throw this.fail('draws before an aperture is chosen');
        if (this.path) for (let k = 2; k < points.length; k++) this.path.push(points[k]);
        else this.path = [...points];
        if (this.path.length > 4000) this.endPath();
      }
    } else throw this.fail('a coordinate without an operation (D01, D02, D03)');
    s.x = x;
    s.y = y;
  }

  /** G02 clockwise, G03 counter-clockwise as seen with y up; here y points down. */
  private arc(x: number, y: number, i: number, j: number): number[] {
    const s = this.state;
    const clockwise = s.interpolation === 2;
    let [cx, cy] = [s.x + i, s.y + j];
    if (!s.multi) {
      // single quadrant: signs of the offset are not given; the centre that fits both ends best
      let best = Infinity;
      for (const [si, sj] of [
        [1, 1],
        [1, -1],
        [-1, 1],
        [-1, -1],
      ]) {
        const [qx, qy] = [s.x + si * Math.abs(i), s.y + sj * Math.abs(j)];
        const off = Math.abs(Math.hypot(s.x - qx, s.y - qy) - Math.hypot(x - qx, y - qy));
        const sweep = this.sweep(qx, qy, x, y, clockwise);
        if (off < best - 1e-6 && Math.abs(sweep) <= Math.PI / 2 + 1e-3) [best, cx, cy] = [off, qx, qy];
      }
    }
    const r = Math.hypot(s.x - cx, s.y - cy);
    if (r === 0) return [s.x, s.y, x, y];
    const full = s.multi && Math.hypot(x - s.x, y - s.y) < 1e-9;
    const sweep = full ? (clockwise ? 1 : -1) * 2 * Math.PI : this.sweep(cx, cy, x, y, clockwise);
    const points = arcPoints(cx, cy, r, Math.atan2(s.y - cy, s.x - cx), sweep);
    points.splice(-2, 2, x, y);
    return points;
  }

  private sweep(cx: number, cy: number, x: number, y: number, clockwise: boolean): number {
    const s = this.state;
    const turn = Math.atan2(y - cy, x - cx) - Math.atan2(s.y - cy, s.x - cx);
    const whole = ((turn % (2 * Math.PI)) + 2 * Math.PI) % (2 * Math.PI);
    // with y down, clockwise on the screen is the way angles grow
    return clockwise ? whole : whole - 2 * Math.PI;
  }

  private net(): number {
    const name = this.attributes.get('.N')?.[0] ?? '';
    if (name === '' || name === 'N/C') return -1;
    const found = this.netIndex.get(name);
    if (found !== undefined) return found;
    const made = this.out.nets.push(name) - 1;
    this.netIndex.set(name, made);
    return made;
  }

  private endPath(): void {
    const { path } = this;
    this.path = undefined;
    const a = this.state.aperture;
    if (!path || !a) return;
    if (this.collecting.length === 0) this.out.paths.push(path);
    if (a.round || a.w === 0) {
      this.lay({ k: 'line', n: this.net(), w: a.stroke_mm * this.state.scale, p: path });
      return;
    }
    // a rectangle drawn along a line: the hull of it at both ends
    for (let k = 2; k < path.length; k += 2)
      this.lay({ k: 'area', n: this.net(), r: [sweptBox(a.w, a.h, path.slice(k - 2, k + 2))] });
  }

  private flash(x: number, y: number): void {
    const s = this.state;
    const a = s.aperture;
    if (!a) throw this.fail('flashes before an aperture is chosen');
    const n = this.net();
    for (const shape of a.shapes) {
      const put = moved(shape, s.rotate, x, y, s.scale, s.mirror);
      this.lay({ ...put, n });
    }
    const component = this.attributes.get('.C')?.[0] ?? '';
    const [ref = '', pin = ''] = this.attributes.get('.P') ?? [];
    if (component && this.out.function[0] === 'Component' && a.use === 'ComponentMain')
      this.out.components.push({
        ref: component,
        x,
        y,
        rotation_deg: Number(this.attributes.get('.CRot')?.[0] ?? 0) || 0,
        footprint: this.attributes.get('.CFtp')?.[0] ?? '',
        value: this.attributes.get('.CVal')?.[0] ?? '',
      });
    this.out.flashes.push({
      x,
      y,
      w: a.w * s.scale,
      h: a.h * s.scale,
      angle_deg: s.rotate,
      round: a.round,
      use: a.use ?? '',
      ref: ref || component,
      pin,
      net: n >= 0 ? this.out.nets[n] : '',
    });
  }

  private lay(shape: CopperShape): void {
    const target = this.collecting[this.collecting.length - 1]?.shapes ?? this.out.shapes;
    if (target.length >= MOST_SHAPES) throw this.fail(`draws more than ${MOST_SHAPES} shapes`);
    target.push(this.state.dark ? shape : { ...shape, e: shape.e ? undefined : 1 });
  }
}

/** Mirrored, turned (counter-clockwise), scaled and shifted. */
function moved(shape: CopperShape, deg: number, dx: number, dy: number, scale: number, mirror: string): CopperShape {
  const [sx, sy] = [mirror.includes('X') ? -scale : scale, mirror.includes('Y') ? -scale : scale];
  const put = (p: readonly number[]) =>
    turned(
      p.map((v, i) => v * (i % 2 ? sy : sx)),
      deg,
      dx,
      dy,
    );
  if (shape.k === 'disc') {
    const [x, y] = put([shape.x, shape.y]);
    return { ...shape, x, y, d: shape.d * scale };
  }
  return shape.k === 'line' ? { ...shape, w: shape.w * scale, p: put(shape.p) } : { ...shape, r: shape.r.map(put) };
}

/** Convex hull of a w × h box at both ends of a segment. */
function sweptBox(w: number, h: number, [x0, y0, x1, y1]: readonly number[]): number[] {
  const [dx, dy] = [Math.sign(x1 - x0) || 1, Math.sign(y1 - y0) || 1];
  const [a, b] = [(w / 2) * dx, (h / 2) * dy];
  return [x0 - a, y0 + b, x0 - a, y0 - b, x0 + a, y0 - b, x1 + a, y1 - b, x1 + a, y1 + b, x1 - a, y1 + b];
}
