/** What an editor does to a board document: every function takes one and gives a new one. */
import { packageById } from '../packages/index.ts';
import type { BoardModel, PlacedPart } from './boardModel.ts';

const micron = (v: number) => Math.round(v * 1e4) / 1e4;

/** Letter with which references of this package usually begin. */
export function refPrefix(packageId: string): string {
  const p = packageById(packageId);
  const [first] = p.terminals;
  if (/^C\d|CAN|TANT|POLY|RADIAL|FILM|DISC|SUPERCAP/.test(p.id)) return 'C';
  if (/^R\d|^RES/.test(p.id)) return 'R';
  if (/^FB\d|^IND/.test(p.id)) return 'L';
  if (/LED|SOD|^SM[ABC]$|MELF/.test(p.id)) return 'D';
  if (/XTAL/.test(p.id)) return 'Y';
  if (/RELAY/.test(p.id)) return 'K';
  if (/TRAFO/.test(p.id)) return 'T';
  if (/CELL/.test(p.id)) return 'BT';
  if (p.family === 'connector' || p.family === 'flex-tail') return 'J';
  if (p.family === 'tabbed' || p.family === 'upright' || (p.family === 'gull-rows' && p.terminals.length === 3))
    return 'Q';
  return first ? 'U' : 'X';
}

/** The next free reference of a letter: C1, C2, … */
export function nextRef(board: BoardModel, prefix: string): string {
  let most = 0;
  for (const p of board.parts) {
    const m = p.ref?.startsWith(prefix) ? /^\d+$/.exec(p.ref.slice(prefix.length)) : null;
    if (m) most = Math.max(most, Number(m[0]));
  }
  return `${prefix}${most + 1}`;
}

/** Adds a part with a reference of its kind; `partId` is made by the caller and never changes. */
export function addPart(board: BoardModel, part: Omit<PlacedPart, 'ref'> & { ref?: string }): BoardModel {
  const ref = part.ref ?? nextRef(board, refPrefix(part.package));
  return { ...board, parts: [...board.parts, tidy({ ...part, ref })] };
}

export function changePart(board: BoardModel, partId: string, change: Partial<PlacedPart>): BoardModel {
  return { ...board, parts: board.parts.map((p) => (p.partId === partId ? tidy({ ...p, ...change, partId }) : p)) };
}

export function removeParts(board: BoardModel, partIds: readonly string[]): BoardModel {
  return { ...board, parts: board.parts.filter((p) => !partIds.includes(p.partId)) };
}

/** Rounds places and drops empty fields, so that equal boards are equal documents. */
function tidy(part: PlacedPart): PlacedPart {
  const made: Record<string, unknown> = {
    ...part,
    x_mm: micron(part.x_mm),
    y_mm: micron(part.y_mm),
    rotation_deg: micron(((part.rotation_deg % 360) + 360) % 360),
  };
  for (const [key, v] of Object.entries(made))
    if (v === undefined || v === '' || v === false || (Array.isArray(v) && v.length === 0)) delete made[key];
  return made as unknown as PlacedPart;
}

/** Equal parts in a row from `first` to where the last one shall be: `count` in all, the first included. */
export function repeatRow(
  board: BoardModel,
  first: PlacedPart,
  to: { x_mm: number; y_mm: number },
  count: number,
  newId: () => string,
): BoardModel {
  let next = board;
  for (let n = 1; n < count; n++) {
    const f = n / (count - 1);
    next = addPart(next, {
      ...first,
      partId: newId(),
      x_mm: first.x_mm + (to.x_mm - first.x_mm) * f,
      y_mm: first.y_mm + (to.y_mm - first.y_mm) * f,
      ref: first.ref && nextRef(next, first.ref.replace(/\d+$/, '')),
    });
  }
  return next;
}

/** Copper under a rectangle, on one layer or on all of them. */
export function paintCopperPatch(
  board: BoardModel,
  rect: { x_mm: number; y_mm: number; w_mm: number; h_mm: number },
  coverage: number,
  layer: number | 'all',
): BoardModel {
  const layers = layer === 'all' ? board.stack.map((_, i) => i) : [layer];
  const box = { x_mm: micron(rect.x_mm), y_mm: micron(rect.y_mm), w_mm: micron(rect.w_mm), h_mm: micron(rect.h_mm) };
  return { ...board, copper: [...board.copper, ...layers.map((l) => ({ ...box, layer: l, coverage }))] };
}

/** A copper layer as people call it, of so many: top, inner 1, …, bottom. */
export const layerName = (layer: number, layers: number): string =>
  layer === 0 ? 'top' : layer === layers - 1 ? 'bottom' : `inner ${layer}`;

/** Foil weights and layer counts a person chooses from; coverage is a fair guess until it is painted. */
export function stackOf(layers: number, foil_um: number): BoardModel['stack'] {
  return Array.from({ length: layers }, (_, i) => {
    const outer = i === 0 || i === layers - 1;
    return { name: layerName(i, layers), foil_um, coverage: outer ? 0.4 : 0.8 };
  });
}

/** An empty board of that size. */
export function blankBoard(name: string, w_mm: number, h_mm: number, layers = 2, thickness_mm = 1.6): BoardModel {
  return {
    v: 1,
    name,
    outline_mm: [
      [0, 0],
      [w_mm, 0],
      [w_mm, h_mm],
      [0, h_mm],
    ],
    thickness_mm,
    stack: stackOf(layers, 35),
    copper: [],
    vias: [],
    holes: [],
    parts: [],
    landmarks: [],
    flipAxis_mm: micron(w_mm / 2),
    powerSources: [],
    jointAlloy: 'SAC305',
  };
}

export interface BoardChange {
  what: 'added' | 'removed' | 'changed';
  /** What it concerns: a part's name, or the board. */
  subject: string;
  partId?: string;
  detail: string;
}

const describe = (p: PlacedPart) => `${packageById(p.package).label}, ${p.side}, at ${p.x_mm}, ${p.y_mm}`;

/** What differs between two versions of a board, parts first. */
export function compareBoards(before: BoardModel, after: BoardModel): BoardChange[] {
  const changes: BoardChange[] = [];
  const old = new Map(before.parts.map((p) => [p.partId, p]));
  for (const p of after.parts) {
    const was = old.get(p.partId);
    old.delete(p.partId);
    const subject = p.ref ?? p.what ?? p.partId;
    if (!was) changes.push({ what: 'added', subject, partId: p.partId, detail: describe(p) });
    else {
      const keys = [...new Set([...Object.keys(was), ...Object.keys(p)])] as (keyof PlacedPart)[];
      const different = keys.filter((k) => JSON.stringify(was[k]) !== JSON.stringify(p[k]));
      const moved = different.some((k) => k === 'x_mm' || k === 'y_mm');
      const distance = Math.hypot(p.x_mm - was.x_mm, p.y_mm - was.y_mm);
      const said = different
        .filter((k) => k !== 'x_mm' && k !== 'y_mm')
        .map((k) => `${WORDS[k] ?? k} ${short(was[k])} → ${short(p[k])}`);
      if (moved) said.unshift(`moved ${distance.toFixed(2)} mm`);
      if (said.length) changes.push({ what: 'changed', subject, partId: p.partId, detail: said.join('; ') });
    }
  }
  for (const p of old.values())
    changes.push({ what: 'removed', subject: p.ref ?? p.what ?? p.partId, partId: p.partId, detail: describe(p) });
  const rest = Object.keys({ ...before, ...after }).filter((k) => k !== 'parts' && k !== 'v') as (keyof BoardModel)[];
  for (const k of rest)
    if (JSON.stringify(before[k]) !== JSON.stringify(after[k]))
      changes.push({
        what: 'changed',
        subject: 'board',
        detail: `${WORDS[k] ?? k}: ${short(before[k])} → ${short(after[k])}`,
      });
  return changes;
}

const WORDS: Record<string, string> = {
  rotation_deg: 'rotation',
  package: 'package',
  side: 'side',
  ref: 'reference',
  what: 'what it is',
  value: 'value',
  limit: 'what it stands',
  nets: 'nets',
  noLand: 'lands missing by design',
  blocksIron: 'blocks an iron',
  outline_mm: 'outline',
  cutouts_mm: 'cut-outs',
  thickness_mm: 'thickness',
  stack: 'layers',
  copper: 'copper patches',
  coverage: 'copper measured',
  drawing: 'copper drawing',
  vias: 'vias',
  holes: 'holes',
  landmarks: 'landmarks',
  flipAxis_mm: 'flip axis',
  photos: 'photos',
  opening: 'what comes off first',
  powerSources: 'power sources',
  rails: 'supplies',
  loads: 'loads',
  coating: 'coating',
  service: 'service',
  jointAlloy: 'joints',
  name: 'name',
};

function short(value: unknown): string {
  if (value === undefined) return 'none';
  if (Array.isArray(value)) return `${value.length}`;
  if (typeof value === 'object')
    return Object.entries(value as object)
      .map(([k, v]) => `${k} ${String(v)}`)
      .join(', ')
      .slice(0, 80);
  return String(value).slice(0, 60);
}
