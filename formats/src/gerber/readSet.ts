/** A set of photoplot and drill files to one board: which file is which layer, parts from pads that name them. */
import { BoardFileError } from '../fileError.ts';
import { turned } from '../geometry.ts';
import { boardFromLoops } from '../outline.ts';
import { unreadBoard, type ParsedBoard, type ParsedFootprint } from '../parsedBoard.ts';
import { readDrill, type DrillFile } from './readDrill.ts';
import { readGerber, type GerberLayer } from './readGerber.ts';

export interface TextFile {
  name: string;
  text: string;
}

export const LAYER_ROLES = [
  'top',
  'inner',
  'bottom',
  'outline',
  'drill',
  'parts top',
  'parts bottom',
  'leave out',
] as const;
export type LayerRole = (typeof LAYER_ROLES)[number];

export interface FileRole {
  name: string;
  role: LayerRole;
  /** Place of an inner layer from the top, 2 … */
  order: number;
  why: 'said in the file' | 'by its name' | 'chosen';
}

/** By the customary endings and words of file names. */
function roleByName(name: string): { role: LayerRole; order: number } | undefined {
  const n = name.toLowerCase().split(/[\\/]/).pop() ?? '';
  if (/\.(drl|xln|exc|nc|tap)$|drill|\.txt$/.test(n) && !/\.gb|readme/.test(n)) return { role: 'drill', order: 0 };
  if (/mask|paste|silk|legend|\.gt[sop]$|\.gb[sop]$|courtyard|fab|adhes/.test(n))
    return { role: 'leave out', order: 0 };
  if (/\.gko$|\.gm\d*$|edge|outline|profile|contour/.test(n)) return { role: 'outline', order: 0 };
  const inner = /\.g(\d{1,2})l?$|in(?:ner)?[_-]?(\d{1,2})|l(\d{1,2})[_.-]/.exec(n);
  if (/\.gtl$|f[_.]cu|top|front|comp(onent)?[_.-]?side|\bl0?1\b/.test(n)) return { role: 'top', order: 1 };
  if (/\.gbl$|b[_.]cu|bot|back|solder[_.-]?side/.test(n)) return { role: 'bottom', order: 999 };
  if (inner) return { role: 'inner', order: 1 + Number(inner[1] ?? inner[2] ?? inner[3]) };
  return undefined;
}

function roleByFunction(f: readonly string[]): { role: LayerRole; order: number } | undefined {
  const [what, layer, where] = f;
  const order = Number(/\d+/.exec(layer ?? '')?.[0] ?? 0);
  if (what === 'Copper')
    return where === 'Top'
      ? { role: 'top', order: 1 }
      : where === 'Bot'
        ? { role: 'bottom', order: 999 }
        : { role: 'inner', order };
  if (what === 'Profile') return { role: 'outline', order: 0 };
  if (what === 'Component') return { role: where === 'Bot' ? 'parts bottom' : 'parts top', order: 0 };
  return what ? { role: 'leave out', order: 0 } : undefined;
}

const looksLikeDrill = (text: string) => {
  const start = text.slice(0, 4000).split(/\r\n|\r|\n/);
  return start.some((line) => line.trim() === 'M48' || /^(METRIC|INCH)\b/.test(line));
};
const looksLikeGerber = (text: string) => /%(FS|MO|TF)|G04/.test(text.slice(0, 4000));

/** Whether a set of texts is of this kind. */
export const isGerberSet = (files: readonly TextFile[]) =>
  files.some((f) => looksLikeGerber(f.text) || looksLikeDrill(f.text));

export interface GerberSet {
  board: ParsedBoard;
  roles: FileRole[];
}

/** `chosen` overrules what is said or guessed, by file name. Throws `BoardFileError` naming the file. */
export function readGerberSet(
  files: readonly TextFile[],
  chosen: Readonly<Record<string, LayerRole>> = {},
  progress: (done: number) => void = () => {},
): GerberSet {
  const layers: { file: FileRole; layer: GerberLayer }[] = [];
  const drills: DrillFile[] = [];
  const roles: FileRole[] = [];
  const board = unreadBoard('photoplot and drill files');
  for (const [n, file] of files.entries()) {
    progress(n / files.length);
    try {
      readOne(file);
    } catch (error) {
      if (error instanceof BoardFileError) error.file ??= file.name;
      throw error;
    }
  }
  function readOne(file: TextFile): void {
    const note = (role: LayerRole, order: number, why: FileRole['why']) => {
      const entry = { name: file.name, role, order, why };
      roles.push(entry);
      return entry;
    };
    const want = chosen[file.name];
    if (want === 'leave out' || (!looksLikeGerber(file.text) && !looksLikeDrill(file.text))) {
      note('leave out', 0, want ? 'chosen' : 'said in the file');
      return;
    }
    if (looksLikeDrill(file.text) && !looksLikeGerber(file.text)) {
      drills.push(withPlating(readDrill(file.text), file.name));
      note('drill', 0, 'said in the file');
      return;
    }
    const layer = readGerber(file.text);
    const said = roleByFunction(layer.function);
    const guess = said ?? roleByName(file.name) ?? { role: 'leave out' as const, order: 0 };
    const entry = note(
      want ?? guess.role,
      guess.order || 2,
      want ? 'chosen' : said ? 'said in the file' : 'by its name',
    );
    if (entry.role !== 'leave out') layers.push({ file: entry, layer });
    else board.ignored['files of other layers'] = (board.ignored['files of other layers'] ?? 0) + 1;
  }
  const rank = { top: 0, inner: 1, bottom: 2 } as const;
  const copper = layers
    .filter(({ file }) => file.role in rank)
    .sort((a, b) => rank[a.file.role as 'top'] - rank[b.file.role as 'top'] || a.file.order - b.file.order);
  if (copper.length === 0) throw new BoardFileError('none of the files is a copper layer; choose which is which');
  const netIndex = new Map<string, number>();
  for (const { file, layer } of copper) {
    const map = layer.nets.map((name) => {
      const found = netIndex.get(name);
      if (found !== undefined) return found;
      netIndex.set(name, board.copper.nets.length);
      return board.copper.nets.push(name) - 1;
    });
    const name = file.role === 'inner' ? `inner ${file.order}` : file.role;
    board.foils.push({ name, foil_um: undefined });
    board.copper.layers.push({ name, shapes: layer.shapes.map((s) => (s.n >= 0 ? { ...s, n: map[s.n] } : s)) });
  }
  const outline = layers.filter(({ file }) => file.role === 'outline');
  if (outline.length)
    boardFromLoops(
      board,
      outline.flatMap(({ layer }) => layer.paths.concat(regionsOf(layer))),
    );
  else outlineFromCopper(board);
  for (const d of drills)
    for (const h of d.holes) {
      if (d.plated === false) board.holes.push({ x: h.x, y: h.y, d: h.d });
      else if (h.via || h.d <= 0.5) board.vias.push({ x: h.x, y: h.y, drill: h.d });
    }
  if (drills.length === 0)
    board.notes.push('No drill file: vias are unknown, which heat planes below less than they are.');
  board.notes.push('Photoplots say nothing of thickness and foils: 1.6 mm and 35 µm are taken.');
  partsFromPads(board, copper, layers, drills);
  return { board, roles };
}

const withPlating = (d: DrillFile, name: string): DrillFile =>
  d.plated === undefined && /npth|non[_-]?plated/i.test(name) ? { ...d, plated: false } : d;

const regionsOf = (layer: GerberLayer) =>
  layer.shapes.flatMap((s) => (s.k === 'area' ? s.r.map((ring) => [...ring, ring[0], ring[1]]) : []));

/** Without an outline: the box round all copper, half a millimetre further. */
function outlineFromCopper(board: ParsedBoard): void {
  const box = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (const layer of board.copper.layers)
    for (const s of layer.shapes) {
      const points = s.k === 'disc' ? [s.x, s.y] : s.k === 'line' ? s.p : s.r.flat();
      for (let i = 0; i < points.length; i += 2) {
        box.x0 = Math.min(box.x0, points[i]);
        box.x1 = Math.max(box.x1, points[i]);
        box.y0 = Math.min(box.y0, points[i + 1]);
        box.y1 = Math.max(box.y1, points[i + 1]);
      }
    }
  if (!(box.x1 > box.x0)) throw new BoardFileError('neither an outline nor any copper in the files');
  board.outline = [
    box.x0 - 0.5,
    box.y0 - 0.5,
    box.x1 + 0.5,
    box.y0 - 0.5,
    box.x1 + 0.5,
    box.y1 + 0.5,
    box.x0 - 0.5,
    box.y1 + 0.5,
  ];
  board.notes.push('No outline among the files: the board is taken as the box round its copper.');
}

const PAD_USES = new Set(['SMDPad', 'ComponentPad', 'BGAPad', 'HeatsinkPad', 'ConnectorPad', '']);

/** Flashes that name a part and pin become its footprint; component layers give angle, value and package name. */
function partsFromPads(
  board: ParsedBoard,
  copper: readonly { file: FileRole; layer: GerberLayer }[],
  layers: readonly { file: FileRole; layer: GerberLayer }[],
  drills: readonly DrillFile[],
): void {
  const known = new Map(layers.flatMap(({ layer }) => layer.components.map((c) => [c.ref, c])));
  const parts = new Map<string, ParsedFootprint>();
  const holes = drills.flatMap((d) => d.holes);
  const drillAt = (x: number, y: number) => holes.find((h) => Math.hypot(h.x - x, h.y - y) < 0.05)?.d ?? 0;
  for (const { file, layer } of copper) {
    if (file.role === 'inner') continue;
    for (const f of layer.flashes) {
      if (!PAD_USES.has(f.use)) continue;
      board.padCount++;
      if (!f.ref) continue;
      const component = known.get(f.ref);
      let part = parts.get(f.ref);
      if (!part) {
        part = {
          ref: f.ref,
          value: component?.value ?? '',
          name: component?.footprint ?? '',
          side: file.role === 'bottom' ? 'bottom' : 'top',
          x: component?.x ?? f.x,
          y: component?.y ?? f.y,
          rotation_deg: component?.rotation_deg ?? 0,
          pads: [],
        };
        parts.set(f.ref, part);
      }
      const drill = f.use === 'ComponentPad' ? drillAt(f.x, f.y) : 0;
      // a pin through the board shows on both sides; it belongs to the side its part was found on first
      if (part.pads.some((p) => p.number === f.pin && Math.hypot(p.x - f.x, p.y - f.y) < 0.05)) continue;
      part.pads.push({
        number: f.pin,
        x: f.x,
        y: f.y,
        w: f.w,
        h: f.h,
        angle_deg: f.angle_deg,
        round: f.round,
        drill,
        net: f.net,
        plated: true,
      });
    }
  }
  for (const part of parts.values()) {
    // without a component layer the angle is that of the first row of pads
    if (!known.has(part.ref)) part.rotation_deg = angleOf(part);
    board.footprints.push(part);
  }
  if (parts.size === 0)
    board.notes.push('The files name no parts: place them from a placement list, a netlist or a photo.');
}

/** Rotation that lays the line from the first pad to its nearest neighbour along an axis, −45 … 45°. */
function angleOf(f: ParsedFootprint): number {
  const [first, ...rest] = f.pads;
  if (!first || rest.length === 0) return 0;
  const near = rest.reduce((a, b) =>
    Math.hypot(a.x - first.x, a.y - first.y) <= Math.hypot(b.x - first.x, b.y - first.y) ? a : b,
  );
  const [dx, dy] = turned([near.x - first.x, near.y - first.y], 0, 0, 0);
  const deg = (-Math.atan2(dy, dx) * 180) / Math.PI;
  return Math.round((deg - Math.round(deg / 90) * 90) * 100) / 100;
}
