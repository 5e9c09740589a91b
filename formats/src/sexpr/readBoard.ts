/**
 * Boards in S-expression form, format numbers 3 to those of 2024 and, as far as understood, later ones.
 * Traps: y points down; a pad's angle holds the footprint's rotation already, its position does not; footprints of
 * the bottom are stored mirrored; arcs of old files are centre, start, angle; zone fills of old files are to be
 * widened by their line width.
 */
import type { CopperShape } from '@orthos/core/copper';
import { BoardFileError } from '../fileError.ts';
import { bezierPoints, discRing, turned } from '../geometry.ts';
import { boardFromLoops } from '../outline.ts';
import { unreadBoard, type ParsedBoard, type ParsedFootprint, type ParsedPad } from '../parsedBoard.ts';
import { curvePoints, padCopper, pointList } from './pads.ts';
import { scanSExpression, type SList } from './scan.ts';

const NEWEST_KNOWN = 20241229;
/** Graphics on this layer are the board's outline. */
const EDGE = 'Edge.Cuts';
const MOST_FOOTPRINTS = 20_000;

interface Reading {
  board: ParsedBoard;
  layerIndex: Map<string, number>;
  netIndex: Map<string, number>;
  /** Numbers of old formats to names. */
  netNames: Map<string, string>;
  /** Pieces of the outline. */
  edges: number[][];
  /** Whether a stack-up has said how thick the foils are. */
  stackup: boolean;
  count: (what: string, n?: number) => void;
}

/** `progress` gets the fraction done. Throws `BoardFileError`. */
export function readSExpressionBoard(text: string, progress: (done: number) => void = () => {}): ParsedBoard {
  const board = unreadBoard('');
  const reading: Reading = {
    board,
    layerIndex: new Map(),
    netIndex: new Map(),
    netNames: new Map(),
    edges: [],
    stackup: false,
    count: (what, n = 1) => (board.ignored[what] = (board.ignored[what] ?? 0) + n),
  };
  let seen = 0;
  const root = scanSExpression(text, (item, list, at) => {
    checkRoot(list);
    readItem(item, reading);
    if (++seen % 4000 === 0) progress(at / text.length);
  });
  checkRoot(root);
  if (board.foils.length === 0) throw new BoardFileError('has no copper layers', root.line);
  if (!reading.stackup) board.notes.push('No stack-up in the file: foils are taken as 35 µm.');
  if (reading.edges.length === 0)
    throw new BoardFileError('has no outline: nothing is drawn on the layer of the board edge');
  boardFromLoops(board, reading.edges);
  return board;
}

function checkRoot(root: SList): void {
  if (root.name !== 'kicad_pcb')
    throw new BoardFileError(
      `begins with "(${root.name.slice(0, 40)}", a board file begins with "(kicad_pcb"`,
      root.line,
    );
}

function readVersion(item: SList, board: ParsedBoard): void {
  const version = item.number(1, 1e9);
  if (version < 3)
    throw new BoardFileError(`format number ${version} is older than 3, the first that can be read`, item.line);
  board.format = `S-expression board, format ${version}`;
  if (version > NEWEST_KNOWN)
    board.notes.push(`Format ${version} is newer than those known here; read as far as understood.`);
}

const NEEDS_LAYERS = new Set(['footprint', 'module', 'segment', 'arc', 'via', 'zone']);

function readItem(item: SList, reading: Reading): void {
  const { board } = reading;
  if (board.foils.length === 0 && NEEDS_LAYERS.has(item.name))
    throw new BoardFileError(`(${item.name} …) comes before the layers are said`, item.line);
  switch (item.name) {
    case 'version':
      readVersion(item, board);
      return;
    case 'general':
      board.thickness_mm = item.get('thickness')?.number(1);
      return;
    case 'layers':
      readLayers(item, reading);
      return;
    case 'setup':
      readStackup(item.get('stackup'), reading);
      return;
    case 'net':
      reading.netNames.set(item.atom(1) ?? '', item.atom(2) ?? '');
      netOf(reading, item.atom(2) ?? '');
      return;
    case 'footprint':
    case 'module':
      if (board.footprints.length >= MOST_FOOTPRINTS)
        throw new BoardFileError(`more than ${MOST_FOOTPRINTS} footprints`, item.line);
      readFootprint(item, reading);
      return;
    case 'segment':
    case 'arc': {
      const shapes = layerShapes(reading, item.get('layer')?.atom(1));
      shapes?.push({
        k: 'line',
        n: netFrom(reading, item.get('net')),
        w: item.get('width')?.number(1) ?? 0,
        p: curvePoints(item),
      });
      return;
    }
    case 'via':
      readVia(item, reading);
      return;
    case 'zone':
      readZone(item, reading);
      return;
    case 'gr_line':
    case 'gr_arc':
    case 'gr_circle':
    case 'gr_rect':
    case 'gr_poly':
    case 'gr_curve':
      if (item.get('layer')?.atom(1) === EDGE) reading.edges.push(...graphicPieces(item));
      else reading.count(reading.layerIndex.has(item.get('layer')?.atom(1) ?? '') ? 'graphics on copper' : 'graphics');
      return;
    case 'gr_text':
    case 'gr_text_box':
    case 'dimension':
    case 'target':
    case 'image':
    case 'table':
    case 'group':
    case 'generated':
      reading.count(item.name === 'gr_text' ? 'texts' : `${item.name.replace('gr_', '').replace('_', ' ')}s`);
      return;
    default:
  }
}

const netOf = (reading: Reading, name: string): number => {
  if (name === '') return -1;
  const found = reading.netIndex.get(name);
  if (found !== undefined) return found;
  const made = reading.board.copper.nets.push(name) - 1;
  reading.netIndex.set(name, made);
  return made;
};

const COPPER_KINDS = new Set(['signal', 'power', 'mixed', 'jumper']);

/** Copper layers from the top down. */
function readLayers(item: SList, reading: Reading): void {
  const copper = item.items
    .filter((i): i is SList => typeof i !== 'string')
    .map((row) => ({ number: Number(row.items[0]), name: row.atom(1) ?? '', kind: row.atom(2) ?? '' }))
    .filter((l) => l.name.endsWith('.Cu') || COPPER_KINDS.has(l.kind));
  if (copper.length === 0 || copper.length > 32)
    throw new BoardFileError(`has ${copper.length || 'no'} copper layers`, item.line);
  const front = copper.find((l) => l.name === 'F.Cu')?.number ?? 0;
  const back = copper.find((l) => l.name === 'B.Cu')?.number ?? 31;
  // the bottom's number differs by version: 0 with the top at 15, 31, or 2
  const rank = (l: { number: number; name: string }) =>
    l.name === 'F.Cu' ? -Infinity : l.name === 'B.Cu' ? Infinity : front > back ? -l.number : l.number;
  copper.sort((a, b) => rank(a) - rank(b));
  for (const [i, { name }] of copper.entries()) {
    reading.layerIndex.set(name, i);
    reading.board.foils.push({ name, foil_um: undefined });
    reading.board.copper.layers.push({ name, shapes: [] });
  }
}

/** Foils where a stack-up says so. */
function readStackup(stackup: SList | undefined, reading: Reading): void {
  if (!stackup) return;
  reading.stackup = true;
  for (const foil of reading.board.foils) {
    const thickness = stackup
      .all('layer')
      .find((l) => l.atom(1) === foil.name)
      ?.get('thickness')
      ?.number(1);
    if (thickness !== undefined) foil.foil_um = Math.round(thickness * 1e4) / 10;
  }
}

/** Net of a `(net …)` list: by number, by number and name, or by name alone in later formats. */
function netFrom(reading: Reading, list: SList | undefined): number {
  const first = list?.atom(1);
  if (first === undefined) return -1;
  return netOf(reading, list?.atom(2) ?? reading.netNames.get(first) ?? first);
}

const layerShapes = (reading: Reading, name: string | undefined): CopperShape[] | undefined => {
  const i = name === undefined ? undefined : reading.layerIndex.get(name);
  return i === undefined ? undefined : reading.board.copper.layers[i].shapes;
};

/** Copper layers that a `layers` list names, wildcards included. */
function layersNamed(reading: Reading, list: SList | undefined): number[] {
  const last = reading.board.foils.length - 1;
  const found = new Set<number>();
  for (const name of list?.items.slice(1) ?? []) {
    if (typeof name !== 'string') continue;
    if (name === '*.Cu') for (let i = 0; i <= last; i++) found.add(i);
    else if (name === 'F&B.Cu') found.add(0).add(last);
    else {
      const i = reading.layerIndex.get(name);
      if (i !== undefined) found.add(i);
    }
  }
  return [...found];
}

function readVia(item: SList, reading: Reading): void {
  const at = item.get('at');
  if (!at) return;
  const [x, y, d] = [at.number(1), at.number(2), item.get('size')?.number(1) ?? 0];
  const ends = layersNamed(reading, item.get('layers'));
  const last = reading.board.foils.length - 1;
  const [from, to] = ends.length ? [Math.min(...ends), Math.max(...ends)] : [0, last];
  const partial = item.has('blind') || item.has('micro') || item.has('buried');
  // rings on inner layers without a track may have been left out on purpose
  const endsOnly = item.get('remove_unused_layers') && item.get('remove_unused_layers')?.atom(1) !== 'no';
  for (let l = partial ? from : 0; l <= (partial ? to : last); l++)
    if (!endsOnly || l === from || l === to)
      reading.board.copper.layers[l].shapes.push({ k: 'disc', n: netFrom(reading, item.get('net')), x, y, d });
  reading.board.vias.push({ x, y, drill: item.get('drill')?.number(1) ?? d / 2 });
}

function readZone(item: SList, reading: Reading): void {
  if (item.get('keepout')) return reading.count('keep-outs');
  const n = netFrom(reading, item.get('net'));
  const own = item.get('layer')?.atom(1);
  const fills = item.all('filled_polygon');
  const thickness = item.get('min_thickness')?.number(1) ?? 0;
  const widen = item.get('filled_areas_thickness')?.atom(1) !== 'no' && thickness > 0;
  for (const fill of fills) {
    const shapes = layerShapes(reading, fill.get('layer')?.atom(1) ?? own);
    const ring = pointList(fill);
    if (!shapes || ring.length < 6) continue;
    shapes.push({ k: 'area', n, r: [ring] });
    if (widen) shapes.push({ k: 'line', n, w: thickness, p: [...ring, ring[0], ring[1]] });
  }
  for (const fill of item.all('fill_segments')) {
    const shapes = layerShapes(reading, fill.get('layer')?.atom(1) ?? own);
    const points = pointList(fill);
    for (let i = 0; i + 3 < points.length; i += 4)
      shapes?.push({ k: 'line', n, w: thickness, p: points.slice(i, i + 4) });
  }
  if (
    fills.length === 0 &&
    item.all('fill_segments').length === 0 &&
    layersNamed(reading, item.get('layers') ?? item.get('layer')).length
  )
    reading.count('zones without a fill');
}

/** A graphic as open or closed pieces in its own frame. */
function graphicPieces(item: SList): number[][] {
  const at = (name: string): [number, number] => {
    const p = item.get(name);
    return p ? [p.number(1), p.number(2)] : [0, 0];
  };
  const kind = item.name.replace(/^(gr|fp)_/, '');
  if (kind === 'circle') {
    const [cx, cy] = at('center');
    const [ex, ey] = at('end');
    const ring = discRing(cx, cy, Math.hypot(ex - cx, ey - cy));
    return [[...ring, ring[0], ring[1]]];
  }
  if (kind === 'rect') {
    const [x0, y0] = at('start');
    const [x1, y1] = at('end');
    return [[x0, y0, x1, y0, x1, y1, x0, y1, x0, y0]];
  }
  if (kind === 'poly') {
    const points = pointList(item);
    return points.length >= 6 ? [[...points, points[0], points[1]]] : [];
  }
  if (kind === 'curve') return [bezierPoints(pointList(item))];
  return [curvePoints(item)];
}

function readFootprint(item: SList, reading: Reading): void {
  const { board } = reading;
  const at = item.get('at');
  const [fx, fy, frot] = at ? [at.number(1), at.number(2), at.numberOr(3, 0)] : [0, 0, 0];
  const text = (kind: string, property: string) =>
    item
      .all('fp_text')
      .find((t) => t.atom(1) === kind)
      ?.atom(2) ??
    item
      .all('property')
      .find((p) => p.atom(1) === property)
      ?.atom(2) ??
    '';
  const footprint: ParsedFootprint = {
    ref: text('reference', 'Reference'),
    value: text('value', 'Value'),
    name: item.atom(1) ?? '',
    side: item.get('layer')?.atom(1) === 'B.Cu' ? 'bottom' : 'top',
    x: fx,
    y: fy,
    rotation_deg: frot,
    pads: [],
  };
  const drawn = { x0: Infinity, y0: Infinity, x1: -Infinity, y1: -Infinity };
  for (const child of item.items) {
    if (typeof child === 'string') continue;
    if (child.name === 'pad') {
      const pad = readPad(child, reading, fx, fy, frot);
      if (pad) footprint.pads.push(pad);
    } else if (child.name.startsWith('fp_') && !child.name.startsWith('fp_text')) {
      const layer = child.get('layer')?.atom(1);
      if (layer === EDGE) for (const piece of graphicPieces(child)) reading.edges.push(turned(piece, frot, fx, fy));
      else if (layer?.endsWith('.Fab'))
        for (const piece of graphicPieces(child))
          for (let i = 0; i < piece.length; i += 2) {
            drawn.x0 = Math.min(drawn.x0, piece[i]);
            drawn.x1 = Math.max(drawn.x1, piece[i]);
            drawn.y0 = Math.min(drawn.y0, piece[i + 1]);
            drawn.y1 = Math.max(drawn.y1, piece[i + 1]);
          }
      else if (layer !== undefined && reading.layerIndex.has(layer)) reading.count('graphics on copper');
    } else if (child.name === 'zone') readZone(child, reading);
  }
  if (drawn.x1 > drawn.x0 && drawn.y1 > drawn.y0) footprint.body = { w: drawn.x1 - drawn.x0, h: drawn.y1 - drawn.y0 };
  board.footprints.push(footprint);
}

function readPad(pad: SList, reading: Reading, fx: number, fy: number, frot: number): ParsedPad | undefined {
  const { board } = reading;
  board.padCount++;
  const at = pad.get('at');
  const size = pad.get('size');
  if (!at || !size) throw new BoardFileError('a pad without place or size', pad.line);
  const [x, y] = turned([at.number(1), at.number(2)], frot, fx, fy);
  const angle_deg = at.numberOr(3, 0);
  const kind = pad.atom(2) ?? 'smd';
  const drillList = pad.get('drill');
  const drills = (drillList?.items.slice(1) ?? [])
    .filter((d): d is string => typeof d === 'string' && d !== 'oval')
    .map(Number);
  const drill = drills.length ? Math.max(...drills.filter(Number.isFinite)) : 0;
  const [w, h] = [size.number(1), size.numberOr(2, size.number(1))];
  const n = netFrom(reading, pad.get('net'));
  const bare = kind === 'np_thru_hole';
  if (bare) board.holes.push({ x, y, d: drill || w });
  // a bare hole as large as its pad has no copper
  const layers = bare && Math.max(w, h) <= drill + 1e-6 ? [] : layersNamed(reading, pad.get('layers'));
  for (const l of layers) board.copper.layers[l].shapes.push(...padCopper(pad, { x, y, angle_deg, net: n }));
  if (bare || layers.length === 0) return undefined;
  return {
    number: pad.atom(1) ?? '',
    x,
    y,
    w,
    h,
    angle_deg,
    round: pad.atom(3) === 'circle',
    drill,
    net: n >= 0 ? board.copper.nets[n] : '',
    plated: true,
  };
}
