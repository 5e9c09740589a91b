/** Apertures of a photoplot file: standard shapes, macros with their arithmetic. Shapes in mm round the origin. */
import type { CopperShape } from '@orthos/core/copper';
import { BoardFileError } from '../fileError.ts';
import { arcPoints, discRing } from '../geometry.ts';

/** A shape of an aperture, y down, without net. */
type ApertureShape = CopperShape;

export interface Aperture {
  shapes: ApertureShape[];
  /** Width of the stroke that it draws, mm. */
  stroke_mm: number;
  /** Size of its box, mm. */
  w: number;
  h: number;
  round: boolean;
  /** What it is for, by its attribute: SMDPad, ComponentPad, ViaPad, Conductor, … */
  use?: string;
}

const disc = (x: number, y: number, d: number): ApertureShape => ({ k: 'disc', n: -1, x, y, d });
const area = (...rings: number[][]): ApertureShape => ({ k: 'area', n: -1, r: rings });
const rectangle = (w: number, h: number) => [-w / 2, -h / 2, w / 2, -h / 2, w / 2, h / 2, -w / 2, h / 2];

/** C, R, O or P with their sizes (already mm); the last may be the hole. */
export function standardAperture(kind: string, p: readonly number[], line: number): Aperture {
  const need = { C: 1, R: 2, O: 2, P: 2 }[kind] ?? 0;
  if (p.length < need || p.some((v) => !Number.isFinite(v) || v < 0))
    throw new BoardFileError(`aperture ${kind} needs ${need} sizes`, line);
  const hole = p[kind === 'C' ? 1 : kind === 'P' ? 3 : 2] ?? 0;
  const withHole = (ring: number[]) => (hole > 0 ? area(ring, discRing(0, 0, hole / 2)) : area(ring));
  if (kind === 'C') {
    const shape = hole > 0 ? withHole(discRing(0, 0, p[0] / 2)) : disc(0, 0, p[0]);
    return { shapes: [shape], stroke_mm: p[0], w: p[0], h: p[0], round: true };
  }
  if (kind === 'P') {
    const n = Math.min(12, Math.max(3, Math.round(p[1])));
    const turn = (-(p[2] ?? 0) * Math.PI) / 180;
    const ring = Array.from({ length: n }, (_, i) => {
      const a = turn - (2 * Math.PI * i) / n;
      return [(p[0] / 2) * Math.cos(a), (p[0] / 2) * Math.sin(a)];
    }).flat();
    return { shapes: [withHole(ring)], stroke_mm: p[0], w: p[0], h: p[0], round: false };
  }
  const [w, h] = p;
  if (kind === 'R') return { shapes: [withHole(rectangle(w, h))], stroke_mm: Math.min(w, h), w, h, round: false };
  const r = Math.min(w, h) / 2;
  const [x, y] = [w / 2 - r, h / 2 - r];
  const ring = [
    ...arcPoints(x, y, r, 0, Math.PI / 2),
    ...arcPoints(-x, y, r, Math.PI / 2, Math.PI / 2),
    ...arcPoints(-x, -y, r, Math.PI, Math.PI / 2),
    ...arcPoints(x, -y, r, -Math.PI / 2, Math.PI / 2),
  ];
  return { shapes: [withHole(ring)], stroke_mm: 2 * r, w, h, round: false };
}

/** `$1x2+(3-$2)/4` with + − x X / and brackets; a small parser, never eval. */
export function evaluate(text: string, variables: ReadonlyMap<number, number>, line: number): number {
  let i = 0;
  let depth = 0;
  const fail = (): never => {
    throw new BoardFileError(`"${text.slice(0, 40)}" is no expression of a macro`, line);
  };
  const value = (): number => {
    const c = text[i];
    if (c === '-' || c === '+') {
      i++;
      return c === '-' ? -value() : value();
    }
    if (c === '(') {
      if (++depth > 50) fail();
      i++;
      const v = sum();
      if (text[i++] !== ')') fail();
      depth--;
      return v;
    }
    if (c === '$') {
      const m = /^\$(\d+)/.exec(text.slice(i));
      if (!m) return fail();
      i += m[0].length;
      return variables.get(Number(m[1])) ?? 0;
    }
    const m = /^\d*\.?\d+|^\d+\.?/.exec(text.slice(i));
    if (!m) return fail();
    i += m[0].length;
    return Number(m[0]);
  };
  const product = (): number => {
    let v = value();
    while (i < text.length && 'xX/'.includes(text[i])) v = text[i++] === '/' ? v / value() : v * value();
    return v;
  };
  const sum = (): number => {
    let v = product();
    while (text[i] === '+' || text[i] === '-') v = text[i++] === '-' ? v - product() : v + product();
    return v;
  };
  const v = sum();
  if (i !== text.length || !Number.isFinite(v)) fail();
  return v;
}

/** A macro filled in with its parameters. `scale` turns the file's units into mm. */
export function macroAperture(
  body: readonly string[],
  parameters: readonly number[],
  scale: number,
  line: number,
): Aperture {
  const variables = new Map(parameters.map((v, i) => [i + 1, v]));
  const dark: number[][] = [];
  const clear: number[][] = [];
  for (const block of body) {
    const assign = /^\$(\d+)=(.*)$/.exec(block);
    if (assign) {
      variables.set(Number(assign[1]), evaluate(assign[2], variables, line));
      continue;
    }
    if (block.startsWith('0 ') || block === '0' || block === '') continue;
    const p = block.split(',').map((t) => evaluate(t.trim(), variables, line));
    for (const { ring, exposed } of primitive(p, scale, line)) (exposed ? dark : clear).push(ring);
  }
  const shapes = clear.length ? dark.map((ring) => area(ring, ...clear)) : dark.map((ring) => area(ring));
  const xs = dark.flatMap((r) => r.filter((_, i) => i % 2 === 0));
  const ys = dark.flatMap((r) => r.filter((_, i) => i % 2 === 1));
  const size = (v: number[]) =>
    v.length ? v.reduce((a, b) => Math.max(a, b)) - v.reduce((a, b) => Math.min(a, b)) : 0;
  const [w, h] = [size(xs), size(ys)];
  return { shapes, stroke_mm: Math.min(w, h), w, h, round: false };
}

/** One primitive as rings in mm, y down, turned about the macro's origin. */
function primitive(p: readonly number[], scale: number, line: number): { ring: number[]; exposed: boolean }[] {
  const [code] = p;
  const exposed = Math.round(p[1] ?? 1) === 1;
  const turn = (ring: readonly number[], deg: number) => {
    const a = (deg * Math.PI) / 180;
    const [cos, sin] = [Math.cos(a) * scale, Math.sin(a) * scale];
    const out: number[] = [];
    for (let i = 0; i < ring.length; i += 2)
      out.push(ring[i] * cos - ring[i + 1] * sin, -(ring[i] * sin + ring[i + 1] * cos));
    return out;
  };
  const at = (i: number) => p[i] ?? 0;
  const moved = (ring: readonly number[], x: number, y: number) => ring.map((v, i) => v + (i % 2 ? y : x));
  switch (Math.round(code)) {
    case 1:
      return [{ ring: turn(discRing(at(3), at(4), at(2) / 2), at(5)), exposed }];
    case 2:
    case 20: {
      const [w, x0, y0, x1, y1] = [at(2), at(3), at(4), at(5), at(6)];
      const length = Math.hypot(x1 - x0, y1 - y0) || 1;
      const [nx, ny] = [(-(y1 - y0) / length) * (w / 2), ((x1 - x0) / length) * (w / 2)];
      return [{ ring: turn([x0 + nx, y0 + ny, x1 + nx, y1 + ny, x1 - nx, y1 - ny, x0 - nx, y0 - ny], at(7)), exposed }];
    }
    case 21:
      return [{ ring: turn(moved(rectangle(at(2), at(3)), at(4), at(5)), at(6)), exposed }];
    case 22:
      return [{ ring: turn(moved(rectangle(at(2), at(3)), at(4) + at(2) / 2, at(5) + at(3) / 2), at(6)), exposed }];
    case 4: {
      const n = Math.round(at(2));
      if (n < 3 || n > 20_000 || p.length < 3 + 2 * (n + 1))
        throw new BoardFileError('a macro outline with too few points', line);
      return [{ ring: turn(p.slice(3, 3 + 2 * n), at(3 + 2 * (n + 1))), exposed }];
    }
    case 5: {
      const n = Math.min(12, Math.max(3, Math.round(at(2))));
      const ring = Array.from({ length: n }, (_, i) => [
        at(3) + (at(5) / 2) * Math.cos((2 * Math.PI * i) / n),
        at(4) + (at(5) / 2) * Math.sin((2 * Math.PI * i) / n),
      ]).flat();
      return [{ ring: turn(ring, at(6)), exposed }];
    }
    case 7: {
      // thermal: ring with four gaps; exposure is always on
      const [x, y, outer, inner, gap, angle] = [at(1), at(2), at(3), at(4), at(5), at(6)];
      const rings = [];
      for (let q = 0; q < 4; q++) {
        const from = (r: number) => Math.asin(Math.min(1, gap / 2 / r));
        const [ro, ri] = [outer / 2, inner / 2];
        const [a, b] = [from(ro), from(Math.max(ri, gap / 2))];
        const turnQ = (q * Math.PI) / 2;
        const out = arcPoints(x, y, ro, turnQ + a, Math.PI / 2 - 2 * a);
        const back = arcPoints(x, y, ri, turnQ + Math.PI / 2 - b, -(Math.PI / 2 - 2 * b));
        rings.push({ ring: turn([...out, ...back], angle), exposed: true });
      }
      return rings;
    }
    case 6:
      // moiré: a target, no copper that matters
      return [];
    default:
      throw new BoardFileError(`macro primitive ${code} is unknown`, line);
  }
}
