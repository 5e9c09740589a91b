/** From what a file says to a board model, the copper drawing beside it, and an account of how it was read. */
import { type BoardModel, boardModelSchema } from '@orthos/core/board';
import { copperCoverage, type CopperDrawing, moveShape, ringArea } from '@orthos/core/copper';
import { textHash } from '@orthos/core/ground';
import { BoardFileError } from './fileError.ts';
import { turned } from './geometry.ts';
import { matchFootprint, signatureOf, type PackageMatch } from './match.ts';
import type { ParsedBoard, ParsedFootprint } from './parsedBoard.ts';

/** One distinct footprint of the file and what it was taken for. */
export interface FootprintMatch {
  /** The same for the same file: names the footprint when another package is chosen for it. */
  key: string;
  footprint: string;
  package: string;
  by: PackageMatch['by'];
  off_mm: number;
  /** Parts of the model made from it. */
  partIds: string[];
}

export interface ImportedBoard {
  board: BoardModel;
  drawing: CopperDrawing;
  /** The same as JSON, of which the board holds the hash. */
  drawingText: string;
  counts: { footprints: number; pads: number; nets: number; top: number; bottom: number };
  /** Outline in the file's own coordinates, mm. */
  bbox_mm: { x0: number; y0: number; x1: number; y1: number; w: number; h: number };
  area_mm2: number;
  /** Copper inside the outline over outline area, per layer as the file names it. */
  coverage: Record<string, number>;
  matches: FootprintMatch[];
  format: string;
  ignored: Record<string, number>;
  notes: string[];
}

const FOIL_UM = 35;
const MOST_PARTS = 5000;
const round = (v: number) => Math.round(v * 1e6) / 1e6;
const micron = (v: number) => Math.round(v * 1e4) / 1e4;
const points = (ring: readonly number[], dx: number, dy: number): [number, number][] =>
  Array.from({ length: ring.length / 2 }, (_, i) => [micron(ring[2 * i] + dx), micron(ring[2 * i + 1] + dy)]);

/** Fewer corners for the document: chords that lie within 10 µm of the longer one go (Douglas–Peucker). */
function thinned(ring: [number, number][]): [number, number][] {
  const keep = new Set([0, ring.length - 1]);
  const stack: [number, number][] = [[0, ring.length - 1]];
  while (stack.length) {
    const [a, b] = stack.pop() as [number, number];
    const [[xa, ya], [xb, yb]] = [ring[a], ring[b]];
    const length = Math.hypot(xb - xa, yb - ya);
    let [worst, at] = [0.01, -1];
    for (let i = a + 1; i < b; i++) {
      const [x, y] = ring[i];
      const d =
        length < 1e-9 ? Math.hypot(x - xa, y - ya) : Math.abs((xb - xa) * (ya - y) - (xa - x) * (yb - ya)) / length;
      if (d > worst) [worst, at] = [d, i];
    }
    if (at < 0) continue;
    keep.add(at);
    stack.push([a, at], [at, b]);
  }
  return ring.filter((_, i) => keep.has(i));
}

/** Footprints that stand for a part: with pads that carry a number, or with a reference and drawn body. */
const isPart = (f: ParsedFootprint) =>
  f.pads.some((p) => p.number !== '') && !/^(REF\*\*|TP|MH|H|FID|LOGO)\d*$/i.test(f.ref);

/** Builds model and account. The model's corner is the corner of the outline. */
export function toModel(
  parsed: ParsedBoard,
  name: string,
  progress: (done: number) => void = () => {},
  packages: Readonly<Record<string, string>> = {},
): ImportedBoard {
  const xs = parsed.outline.filter((_, i) => i % 2 === 0);
  const ys = parsed.outline.filter((_, i) => i % 2 === 1);
  const box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (const x of xs) [box.x0, box.x1] = [Math.min(box.x0, x), Math.max(box.x1, x)];
  for (const y of ys) [box.y0, box.y1] = [Math.min(box.y0, y), Math.max(box.y1, y)];
  const [w, h] = [box.x1 - box.x0, box.y1 - box.y0];
  if (w > 1500 || h > 1500)
    throw new BoardFileError(`the board would be ${w.toFixed(0)} × ${h.toFixed(0)} mm: larger than 1.5 m`);
  if (w < 1 || h < 1) throw new BoardFileError(`the board would be ${w.toFixed(2)} × ${h.toFixed(2)} mm: too small`);
  const [dx, dy] = [-box.x0, -box.y0];
  // the parsed board is ours alone
  const drawing = parsed.copper;
  for (const layer of drawing.layers) for (const shape of layer.shapes) moveShape(shape, dx, dy);
  const outline = points(parsed.outline, dx, dy);
  const cutouts = parsed.cutouts.map((ring) => points(ring, dx, dy));
  const { fraction, grids } = copperCoverage(
    { board: outline.flat(), cutouts: cutouts.map((c) => c.flat()) },
    drawing.layers.map((l) => l.shapes),
    (done) => progress(0.1 + done * 0.6),
  );
  const { parts, matches } = placeParts(parsed, dx, dy, packages);
  progress(0.9);
  const area = ringArea(parsed.outline) - parsed.cutouts.reduce((sum, ring) => sum + ringArea(ring), 0);
  const drawingText = JSON.stringify(drawing);
  const board: BoardModel = {
    v: 1,
    name: name.slice(0, 120) || 'Imported board',
    outline_mm: thinned(outline).slice(0, 5000),
    ...(cutouts.length ? { cutouts_mm: cutouts.map((c) => thinned(c).slice(0, 5000)).slice(0, 500) } : {}),
    thickness_mm: Math.min(6, Math.max(0.2, parsed.thickness_mm ?? 1.6)),
    stack: parsed.foils.map((foil, i) => ({
      name: foil.name,
      foil_um: Math.min(500, Math.max(1, foil.foil_um ?? FOIL_UM)),
      coverage: Math.min(1, Math.round(fraction[i] * 1e4) / 1e4),
    })),
    coverage: grids,
    // of its text: sorting the keys of a hundred thousand shapes would take longer than reading them
    drawing: textHash(drawingText),
    copper: [],
    vias: viaPatches(parsed, dx, dy, w, h),
    holes: parsed.holes
      .slice(0, 2000)
      .map((o) => ({ x_mm: micron(o.x + dx), y_mm: micron(o.y + dy), d_mm: Math.min(100, Math.max(0.05, o.d)) })),
    parts,
    landmarks: [],
    flipAxis_mm: round(w / 2),
    powerSources: [],
    jointAlloy: 'SAC305',
  };
  const checked = boardModelSchema.safeParse(board);
  if (!checked.success) {
    const [issue] = checked.error.issues;
    throw new BoardFileError(`makes no valid board: ${issue.path.join('.')} ${issue.message}`);
  }
  progress(1);
  return {
    board: checked.data,
    drawing,
    drawingText,
    counts: {
      footprints: parsed.footprints.length,
      pads: parsed.padCount,
      nets: parsed.copper.nets.length,
      top: parsed.footprints.filter((f) => f.side === 'top').length,
      bottom: parsed.footprints.filter((f) => f.side === 'bottom').length,
    },
    bbox_mm: { ...box, w: micron(w), h: micron(h) },
    area_mm2: Math.round(area * 1e3) / 1e3,
    coverage: Object.fromEntries(parsed.foils.map((f, i) => [f.name, fraction[i]])),
    matches,
    format: parsed.format,
    ignored: parsed.ignored,
    notes: parsed.notes,
  };
}

function placeParts(parsed: ParsedBoard, dx: number, dy: number, packages: Readonly<Record<string, string>>) {
  const matched = new Map<string, { match: PackageMatch; entry: FootprintMatch }>();
  const matches: FootprintMatch[] = [];
  const parts: BoardModel['parts'] = [];
  const used = new Set<string>();
  const footprints = parsed.footprints.filter(isPart);
  if (footprints.length > MOST_PARTS)
    throw new BoardFileError(`has ${footprints.length} parts; ${MOST_PARTS} at most can be taken`);
  for (const f of footprints) {
    const signature = signatureOf(f);
    let known = matched.get(signature);
    if (!known) {
      const key = `${matches.length + 1} ${f.name}`.slice(0, 200);
      const match = matchFootprint(f, packages[key]);
      const entry = {
        key,
        footprint: f.name,
        package: match.package,
        by: match.by,
        off_mm: micron(match.off_mm),
        partIds: [],
      };
      known = { match, entry };
      matched.set(signature, known);
      matches.push(entry);
    }
    const { match, entry } = known;
    const base = (f.ref || 'part').toLowerCase().slice(0, 40).replace(/\s+/g, '-');
    let partId = base;
    for (let n = 2; used.has(partId); n++) partId = `${base}.${n}`;
    used.add(partId);
    entry.partIds.push(partId);
    const [x, y] = turned([match.x, match.y], f.rotation_deg, f.x, f.y);
    const nets: Record<string, string> = {};
    for (const pad of f.pads) {
      const terminal = match.terminals[pad.number];
      if (terminal && pad.net) nets[terminal] = pad.net.slice(0, 120);
    }
    parts.push({
      partId,
      ...(f.ref ? { ref: f.ref.slice(0, 20) } : {}),
      package: match.package,
      x_mm: micron(x + dx),
      y_mm: micron(y + dy),
      rotation_deg: (((match.rotation_deg + f.rotation_deg) % 360) + 360) % 360,
      side: f.side,
      ...(f.value ? { value: f.value.slice(0, 200) } : {}),
      ...(Object.keys(nets).length ? { nets } : {}),
    });
  }
  return { parts, matches };
}

/** Vias per area on tiles: enough for heat, few enough for a document. */
function viaPatches(parsed: ParsedBoard, dx: number, dy: number, w: number, h: number): BoardModel['vias'] {
  const tile = Math.max(2, Math.sqrt((w * h) / 3000));
  const counts = new Map<string, number>();
  for (const v of parsed.vias) {
    const key = `${Math.floor((v.x + dx) / tile)},${Math.floor((v.y + dy) / tile)}`;
    counts.set(key, (counts.get(key) ?? 0) + 1);
  }
  return [...counts].slice(0, 5000).map(([key, n]) => {
    const [i, j] = key.split(',').map(Number);
    return {
      x_mm: micron(i * tile),
      y_mm: micron(j * tile),
      w_mm: micron(tile),
      h_mm: micron(tile),
      per_mm2: Math.min(20, micron(n / tile ** 2)),
    };
  });
}
