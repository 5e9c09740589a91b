/**
 * Coverage against an independent count: random points, each asked of every shape by its closed form (distance to
 * a segment, winding of a polygon). It shares no code with the rasteriser.
 */
import { coverageReader } from '@orthos/core/copper';
import { describe, expect, it } from 'vitest';
import { readSExpressionBoard } from '../src/sexpr/readBoard.ts';
import { toModel } from '../src/toModel.ts';
import { boardText, edgeRectangle, type TextBoard } from './boardText.ts';

/** A small generator of numbers 0 … 1, the same every time. */
function lcg(seed: number): () => number {
  let s = seed;
  return () => (s = (s * 1664525 + 1013904223) % 2 ** 32) / 2 ** 32;
}

const W = 60;
const H = 45;

function randomBoard(seed: number, withZone = true): TextBoard {
  const r = lcg(seed);
  const at = (most: number) => Math.round(r() * most * 100) / 100;
  const layers = ['F.Cu', 'In1.Cu', 'B.Cu'];
  const blob = (): [number, number][] => {
    const [cx, cy] = [10 + at(W - 20), 10 + at(H - 20)];
    const n = 5 + Math.floor(r() * 8);
    return Array.from({ length: n }, (_, i) => {
      const a = (2 * Math.PI * i) / n;
      const d = 4 + r() * 9;
      return [Math.round((cx + d * Math.cos(a)) * 100) / 100, Math.round((cy + d * Math.sin(a)) * 100) / 100];
    });
  };
  return {
    version: 20221018,
    layers,
    nets: ['GND'],
    footprints: [],
    tracks: Array.from({ length: 60 }, () => ({
      x0: at(W),
      y0: at(H),
      x1: at(W),
      y1: at(H),
      w: 0.15 + at(1.5),
      layer: layers[Math.floor(r() * 3)],
      net: 'GND',
    })),
    vias: Array.from({ length: 80 }, () => ({ x: at(W), y: at(H), d: 0.5 + at(1), drill: 0.3, net: 'GND' })),
    zones: withZone ? layers.map((layer) => ({ layer, net: 'GND', fill: blob() })) : [],
    edges: edgeRectangle(0, 0, W, H),
  };
}

/** Whether there is copper of `layer` at a point, from the description the file was written from. */
function copperAt(b: TextBoard, layer: string, x: number, y: number): boolean {
  for (const t of b.tracks ?? []) {
    if (t.layer !== layer) continue;
    const [dx, dy] = [t.x1 - t.x0, t.y1 - t.y0];
    const s = Math.min(1, Math.max(0, ((x - t.x0) * dx + (y - t.y0) * dy) / (dx * dx + dy * dy || 1)));
    if (Math.hypot(x - t.x0 - s * dx, y - t.y0 - s * dy) <= t.w / 2) return true;
  }
  for (const v of b.vias ?? []) if (Math.hypot(x - v.x, y - v.y) <= v.d / 2) return true;
  for (const z of b.zones ?? []) {
    if (z.layer !== layer || !z.fill) continue;
    let turns = 0;
    for (const [i, [ax, ay]] of z.fill.entries()) {
      const [bx, by] = z.fill[(i + 1) % z.fill.length];
      const a = Math.atan2(by - y, bx - x) - Math.atan2(ay - y, ax - x);
      turns += a > Math.PI ? a - 2 * Math.PI : a < -Math.PI ? a + 2 * Math.PI : a;
    }
    if (Math.abs(turns) > Math.PI) return true;
  }
  return false;
}

function sampled(b: TextBoard, layer: string, x0: number, y0: number, x1: number, y1: number, n: number): number {
  const r = lcg(7);
  let hits = 0;
  for (let j = 0; j < n; j++)
    for (let i = 0; i < n; i++)
      if (copperAt(b, layer, x0 + ((i + r()) / n) * (x1 - x0), y0 + ((j + r()) / n) * (y1 - y0))) hits++;
  return hits / n ** 2;
}

describe('copper coverage', () => {
  it.each([1, 2, 3])('board %i: within 1 point per layer and 5 points per 5 mm tile', (seed) => {
    const b = randomBoard(seed);
    const { coverage, board } = toModel(readSExpressionBoard(boardText(b)), 'random');
    for (const [i, layer] of b.layers.entries()) {
      expect(Math.abs(coverage[layer] - sampled(b, layer, 0, 0, W, H, 150))).toBeLessThan(0.01);
      const grid = board.coverage?.find((g) => g.layer === i);
      if (!grid) throw new Error('no grid');
      const read = coverageReader(grid);
      for (let y = 0; y < H; y += 5)
        for (let x = 0; x < W; x += 5)
          expect(Math.abs(read(x, y, x + 5, y + 5) - sampled(b, layer, x, y, x + 5, y + 5, 40))).toBeLessThan(0.05);
    }
  });
  it('shows a lost zone', () => {
    const [b, bare] = [true, false].map((zone) => randomBoard(4, zone));
    const [whole, without] = [b, bare].map((t) => toModel(readSExpressionBoard(boardText(t)), 'x').coverage['F.Cu']);
    const lost = sampled(b, 'F.Cu', 0, 0, W, H, 150) - sampled(bare, 'F.Cu', 0, 0, W, H, 150);
    expect(lost).toBeGreaterThan(0.02);
    expect(whole - without).toBeCloseTo(lost, 2);
  });
  it('is not changed by overlap', () => {
    const b = randomBoard(5);
    const twice = { ...b, tracks: [...(b.tracks ?? []), ...(b.tracks ?? [])] };
    const of = (t: TextBoard) => toModel(readSExpressionBoard(boardText(t)), 'x').coverage;
    expect(of(twice)).toEqual(of(b));
  });
});
