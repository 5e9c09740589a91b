/**
 * How long a large board file takes: about 10 MB, 3,000 parts, 100,000 copper shapes. Prints size, seconds and the
 * heap in use afterwards. Run by hand: `npx tsx formats/bench/import.bench.ts [FILE]` (FILE: also write the board there).
 */
import { writeFileSync } from 'node:fs';
import { packageById } from '@orthos/core/packages';
import { importBoard } from '../src/index.ts';
import { boardText, edgeRectangle, type TextFootprint } from '../test/boardText.ts';

const [W, H] = [250, 200];
const layers = ['F.Cu', 'In1.Cu', 'In2.Cu', 'B.Cu'];
const nets = Array.from({ length: 800 }, (_, i) => `NET_${i}`);
const at = (v: number) => Math.round(v * 1e4) / 1e4;
const kinds = ['R0603', 'C0402', 'C0603', 'SOIC-8', 'SOT-23', 'QFP-44', 'QFN-24'];

const footprints = Array.from({ length: 3000 }, (_, i): TextFootprint => {
  const kind = kinds[i % 50 === 0 ? 5 : i % 33 === 0 ? 6 : i % 10 === 0 ? 3 : i % 5];
  return {
    name: `Lib:${kind}`,
    ref: `${kind[0] === 'R' ? 'R' : kind[0] === 'C' ? 'C' : 'U'}${i}`,
    x: at(5 + (i % 60) * 4),
    y: at(5 + Math.floor(i / 60) * 3.8),
    rotation: (i % 4) * 90,
    side: i % 3 ? 'top' : 'bottom',
    pads: packageById(kind).terminals.map((t, k) => ({
      number: t.id,
      x: at(i % 3 ? t.land.x : -t.land.x),
      y: at(t.land.y),
      w: t.land.w,
      h: t.land.h,
      net: nets[(i * 7 + k) % nets.length],
    })),
  };
});
const tracks = Array.from({ length: 55_000 }, (_, i) => {
  const [x, y] = [(i * 13.7) % (W - 6), (i * 7.31) % (H - 6)];
  return {
    x0: at(3 + x),
    y0: at(3 + y),
    x1: at(3 + x + (i % 5) * 0.6),
    y1: at(3 + y + (i % 3) * 0.6),
    w: 0.2,
    layer: layers[i % 4],
    net: nets[i % 800],
  };
});
const text = boardText({
  version: 20240108,
  layers,
  nets,
  footprints,
  tracks,
  vias: Array.from({ length: 9000 }, (_, i) => ({
    x: at((i * 3.17) % W),
    y: at((i * 5.7) % H),
    d: 0.6,
    drill: 0.3,
    net: nets[i % 800],
  })),
  zones: layers.map((layer, l) => ({
    layer,
    net: nets[l],
    fill: Array.from({ length: 16_000 }, (_, i): [number, number] => {
      const a = (2 * Math.PI * i) / 16_000;
      const r = 1 - 0.05 * (Math.floor(i / 40) % 2);
      return [at(W / 2 + (W / 2 - 4) * r * Math.cos(a)), at(H / 2 + (H / 2 - 4) * r * Math.sin(a))];
    }),
  })),
  edges: edgeRectangle(0, 0, W, H),
});
const bytes = new TextEncoder().encode(text);
if (process.argv[2]) writeFileSync(process.argv[2], bytes);
for (let run = 0; run < 3; run++) {
  const began = performance.now();
  const made = importBoard([{ name: 'large.kicad_pcb', bytes }]);
  const seconds = (performance.now() - began) / 1000;
  const shapes = made.drawing.layers.reduce((n, l) => n + l.shapes.length, 0);
  process.stdout.write(
    `${(bytes.length / 1e6).toFixed(1)} MB, ${made.board.parts.length} parts, ${shapes} shapes: ${seconds.toFixed(2)} s, heap ${Math.round(process.memoryUsage().heapUsed / 1e6)} MB, rss ${Math.round(process.memoryUsage().rss / 1e6)} MB\n`,
  );
}
