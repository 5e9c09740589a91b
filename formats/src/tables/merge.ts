/** Adds parts and nets of a table to a board that is there already: its own parts stay where they are. */
import { type BoardModel, type PlacedPart, toBoard } from '@orthos/core/board';
import { findPackages, packageById, packageDesignation } from '@orthos/core/packages';
import { matchFootprint } from '../match.ts';
import type { ParsedPad } from '../parsedBoard.ts';
import { boardBoundsOf, type Frame } from './frame.ts';
import type { PlacementRow } from './placement.ts';
import type { NetPoint } from './readIpc356.ts';

export interface MergeResult {
  board: BoardModel;
  added: string[];
  /** Parts that were there and got something (value, nets). */
  changed: string[];
  /** Rows that could not be used, with why. */
  left: { what: string; why: string }[];
}

const idFor = (used: Set<string>, ref: string): string => {
  const base = ref.toLowerCase().replace(/\s+/g, '-').slice(0, 40) || 'part';
  let id = base;
  for (let n = 2; used.has(id); n++) id = `${base}.${n}`;
  used.add(id);
  return id;
};

/** The library row a package name of a list most likely means, else a small box. */
function packageFor(row: PlacementRow): string {
  const prefix = /^[A-Za-z]+/.exec(row.ref)?.[0].toUpperCase() ?? '';
  const words = row.package.split(/[_\s:]/).filter(Boolean);
  const kind = { R: 'resistor', C: 'ceramic', FB: 'ferrite' }[prefix];
  const size = /(?:^|\D)(0201|0402|0603|0805|1206|1210|1812|2010|2220|2512)(?:\D|$)/.exec(row.package)?.[1];
  const tries = [
    ...(kind && size ? [`${size} ${kind}`] : []),
    row.package,
    words.slice(0, 2).join(' '),
    words[0] ?? '',
  ];
  for (const text of tries) {
    const [found] = text.trim() ? findPackages(text, 1) : [];
    if (found) return found.id;
  }
  return packageDesignation('box', { l: 3, w: 3, h: 1.5, stuff: 'mould', limit: 'ic-body' });
}

/** Placement rows onto the board, moved by `frame`. */
export function mergePlacement(board: BoardModel, rows: readonly PlacementRow[], frame: Frame): MergeResult {
  const byRef = new Map(board.parts.filter((p) => p.ref).map((p) => [p.ref, p]));
  const used = new Set(board.parts.map((p) => p.partId));
  const inside = boardBoundsOf(board, 5);
  const result: MergeResult = { board, added: [], changed: [], left: [] };
  const parts = [...board.parts];
  for (const row of rows) {
    const [x, y] = frame.toBoard(row.x_mm, row.y_mm);
    const there = byRef.get(row.ref);
    if (there) {
      if (row.value && !there.value) {
        parts[parts.indexOf(there)] = { ...there, value: row.value.slice(0, 200) };
        result.changed.push(row.ref);
      }
      continue;
    }
    if (!inside(x, y)) {
      result.left.push({ what: `${row.ref} (line ${row.line})`, why: 'lies off the board' });
      continue;
    }
    const round = (v: number) => Math.round(v * 1e4) / 1e4;
    parts.push({
      partId: idFor(used, row.ref),
      ref: row.ref.slice(0, 20),
      package: packageFor(row),
      x_mm: round(x),
      y_mm: round(y),
      rotation_deg: row.rotation_deg,
      side: row.side,
      ...(row.value ? { value: row.value.slice(0, 200) } : {}),
    });
    result.added.push(row.ref);
  }
  return { ...result, board: { ...board, parts } };
}

/** How far a point may lie from a land and still be that land, mm. */
const LAND_MM = 0.6;

/** Nets of test points onto the terminals of parts with that reference; parts that are not there are made from their points. */
export function mergeNets(board: BoardModel, points: readonly NetPoint[], frame: Frame): MergeResult {
  const byRef = new Map<string, NetPoint[]>();
  for (const p of points) if (p.ref && p.net) byRef.set(p.ref, [...(byRef.get(p.ref) ?? []), p]);
  const result: MergeResult = { board, added: [], changed: [], left: [] };
  const parts = board.parts.map((part) => {
    const own = part.ref ? byRef.get(part.ref) : undefined;
    if (!own) return part;
    byRef.delete(part.ref as string);
    const nets = { ...part.nets, ...terminalNets(part, own, frame) };
    if (JSON.stringify(nets) === JSON.stringify(part.nets ?? {})) return part;
    result.changed.push(part.ref as string);
    return { ...part, nets };
  });
  const used = new Set(board.parts.map((p) => p.partId));
  const inside = boardBoundsOf(board, 5);
  for (const [ref, own] of byRef) {
    const part = partFromPoints(ref, own, frame, used);
    if (!part) result.left.push({ what: ref, why: 'no part of that reference, and too few points to make one' });
    else if (!inside(part.x_mm, part.y_mm)) result.left.push({ what: ref, why: 'lies off the board' });
    else {
      parts.push(part);
      result.added.push(ref);
    }
  }
  return { ...result, board: { ...board, parts } };
}

/** A part whose lands lie where a netlist has its points; null below two of them. */
function partFromPoints(ref: string, points: readonly NetPoint[], frame: Frame, used: Set<string>): PlacedPart | null {
  if (points.length < 2) return null;
  const pads = points.map((p): ParsedPad => {
    const [x, y] = frame.toBoard(p.x, p.y);
    return {
      number: p.pin,
      x,
      y,
      w: p.w || 0.5,
      h: p.h || 0.5,
      angle_deg: 0,
      round: p.h === p.w,
      drill: p.drill,
      net: p.net,
      plated: true,
    };
  });
  const side = points.some((p) => p.side === 'bottom') ? 'bottom' : 'top';
  const match = matchFootprint({ ref, value: '', name: '', side, x: 0, y: 0, rotation_deg: 0, pads });
  const nets: Record<string, string> = {};
  for (const p of points) {
    const terminal = match.terminals[p.pin];
    if (terminal) nets[terminal] = p.net.slice(0, 120);
  }
  const round = (v: number) => Math.round(v * 1e4) / 1e4;
  return {
    partId: idFor(used, ref),
    ref: ref.slice(0, 20),
    package: match.package,
    x_mm: round(match.x),
    y_mm: round(match.y),
    rotation_deg: match.rotation_deg,
    side,
    ...(Object.keys(nets).length ? { nets } : {}),
  };
}

function terminalNets(part: PlacedPart, points: readonly NetPoint[], frame: Frame): Record<string, string> {
  const nets: Record<string, string> = {};
  const { terminals } = packageById(part.package);
  for (const point of points) {
    const [x, y] = frame.toBoard(point.x, point.y);
    let best: { id: string; d: number } | undefined;
    for (const t of terminals) {
      const [tx, ty] = toBoard(part, t.land.x, t.land.y);
      const d = Math.hypot(tx - x, ty - y);
      if (d <= LAND_MM + Math.max(t.land.w, t.land.h) / 2 && (!best || d < best.d)) best = { id: t.id, d };
    }
    const byName = terminals.find((t) => t.id === point.pin)?.id;
    const id = best?.id ?? byName;
    if (id) nets[id] = point.net.slice(0, 120);
  }
  return nets;
}
