/**
 * Which package a footprint is: by where its pads lie, then by its name and reference. Every distinct footprint
 * is matched once; the result says how well it fits, so that a person can judge and correct it.
 */
import {
  extentOf,
  findPackages,
  packageById,
  packageDesignation,
  type PackageModel,
  PackageParamError,
  PACKAGES,
} from '@orthos/core/packages';
import { turned } from './geometry.ts';
import type { ParsedFootprint, ParsedPad } from './parsedBoard.ts';

export interface PackageMatch {
  package: string;
  /** How: pads of a library row, pads of a family, only a box, or by somebody's choice. */
  by: 'library' | 'family' | 'box' | 'chosen';
  /** Root mean square distance of pads from lands, mm. */
  off_mm: number;
  /** Rotation of the package in the footprint's frame, and its centre there. */
  rotation_deg: number;
  x: number;
  y: number;
  /** Pad number → terminal. */
  terminals: Record<string, string>;
}

interface Site {
  number: string;
  x: number;
  y: number;
  w: number;
  h: number;
  drill: number;
}

/** One site per pad number, the largest pad speaking for it, in the footprint's own frame. */
function sitesOf(f: ParsedFootprint): Site[] {
  const sites = new Map<string, Site>();
  for (const pad of f.pads) {
    if (pad.number === '') continue;
    const seen = sites.get(pad.number);
    if (seen && seen.w * seen.h >= pad.w * pad.h) continue;
    const [x, y] = unturned(f, pad);
    const quarter = Math.abs(Math.round((pad.angle_deg - f.rotation_deg) / 90)) % 2 === 1;
    sites.set(pad.number, {
      number: pad.number,
      x,
      y,
      w: quarter ? pad.h : pad.w,
      h: quarter ? pad.w : pad.h,
      drill: pad.drill,
    });
  }
  return [...sites.values()];
}

function unturned(f: ParsedFootprint, pad: ParsedPad): [number, number] {
  const [x, y] = turned([pad.x - f.x, pad.y - f.y], -f.rotation_deg, 0, 0);
  return [x, y];
}

const boxOf = (points: readonly { x: number; y: number }[]) => {
  const xs = points.map((p) => p.x);
  const ys = points.map((p) => p.y);
  return { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) };
};

/** What tells equal footprints: name, side and pads to a micrometre. */
export function signatureOf(f: ParsedFootprint): string {
  const prefix = /^[A-Za-z]+/.exec(f.ref)?.[0] ?? '';
  const pads = sitesOf(f).map((s) =>
    [s.number, s.x.toFixed(3), s.y.toFixed(3), s.w.toFixed(3), s.h.toFixed(3)].join(' '),
  );
  return [f.name, f.side, prefix, ...pads].join('|');
}

/** The terminal a pad number ought to be, going by the numbers alone. */
function expectedTerminal(pkg: PackageModel, number: string): string | undefined {
  const ids = pkg.terminals.map((t) => t.id);
  const plain = { K: '1', A: '2', '+': '1', '-': '2' }[number] ?? number;
  if (pkg.polarity === 'minus-stripe' && ids.length === 2) return plain === '1' ? '2' : plain === '2' ? '1' : undefined;
  if (ids.includes(plain) && !(ids.includes('TAB') && !ids.includes('2') && plain === '2')) return plain;
  return ids.find((id) => id === 'EP' || id === 'TAB');
}

interface Fit {
  /** Share of pads that lie on the terminal their number says. */
  agree: number;
  place: Omit<PackageMatch, 'package' | 'by'>;
}

/** Best of four quarter turns: lands laid on the pads, box on box. */
function fit(pkg: PackageModel, sites: readonly Site[], mirrored: boolean): Fit | undefined {
  if (pkg.terminals.length !== sites.length) return undefined;
  const pads = boxOf(sites);
  const [px, py] = [(pads.x0 + pads.x1) / 2, (pads.y0 + pads.y1) / 2];
  let best: Fit | undefined;
  for (const rotation_deg of [0, 90, 180, 270]) {
    const lands = pkg.terminals.map((t) => {
      const [x, y] = turned([mirrored ? -t.land.x : t.land.x, t.land.y], rotation_deg, 0, 0);
      return { id: t.id, x, y };
    });
    const box = boxOf(lands);
    const wrong = Math.max(
      Math.abs(box.x1 - box.x0 - (pads.x1 - pads.x0)),
      Math.abs(box.y1 - box.y0 - (pads.y1 - pads.y0)),
    );
    if (wrong > 1.6) continue;
    const [dx, dy] = [px - (box.x0 + box.x1) / 2, py - (box.y0 + box.y1) / 2];
    const free = new Set(lands.keys());
    const terminals: Record<string, string> = {};
    let [sum, agreed] = [0, 0];
    for (const site of sites) {
      let [nearest, distance] = [-1, Infinity];
      for (const n of free) {
        const d = Math.hypot(lands[n].x + dx - site.x, lands[n].y + dy - site.y);
        if (d < distance) [nearest, distance] = [n, d];
      }
      free.delete(nearest);
      sum += distance ** 2;
      terminals[site.number] = lands[nearest].id;
      if (expectedTerminal(pkg, site.number) === lands[nearest].id) agreed++;
    }
    const off_mm = Math.sqrt(sum / sites.length);
    const agree = agreed / sites.length;
    if (!best || off_mm + (1 - agree) < best.place.off_mm + (1 - best.agree))
      best = { agree, place: { off_mm, rotation_deg, x: dx, y: dy, terminals } };
  }
  return best;
}

const KIND_OF_PREFIX: Record<string, RegExp> = {
  R: /^R\d|MELF|RES/,
  C: /^C\d|CAN|TANT|POLY|RADIAL|FILM|DISC/,
  FB: /^FB/,
  L: /^IND|^FB/,
  D: /^SM[ABC]$|^SOD|^LED|MELF|^SOT-23$|DFN-2/,
  LED: /^LED/,
  Q: /SOT|TO-|PAK|PDFN/,
  Y: /XTAL/,
  X: /XTAL/,
  J: /CONN|TERM|HEADER|FLEX/,
  K: /RELAY/,
  F: /^R\d|^FB|TFUSE/,
  T: /TRAFO/,
};

/** Worst fit that is still called the same package, mm. */
const MOST_OFF = 0.4;

/** The package somebody chose, laid on the pads as well as it goes. */
function matchChosen(id: string, sites: readonly Site[], mirrored: boolean): PackageMatch {
  const found = sites.length ? fit(packageById(id), sites, mirrored) : undefined;
  if (found) {
    return { package: id, by: 'chosen', ...found.place };
  }
  const box = sites.length ? boxOf(sites) : { x0: 0, x1: 0, y0: 0, y1: 0 };
  return {
    package: id,
    by: 'chosen',
    off_mm: 0,
    rotation_deg: 0,
    x: (box.x0 + box.x1) / 2,
    y: (box.y0 + box.y1) / 2,
    terminals: {},
  };
}

/** Matches one footprint. Always answers; the least is a box of its size. `chosen` overrules. */
export function matchFootprint(f: ParsedFootprint, chosen?: string): PackageMatch {
  const sites = sitesOf(f);
  const mirrored = f.side === 'bottom';
  if (chosen) return matchChosen(chosen, sites, mirrored);
  const named = hintsFrom(f.name);
  const prefix = /^[A-Za-z]+/.exec(f.ref)?.[0].toUpperCase() ?? '';
  const wanted = KIND_OF_PREFIX[prefix];
  let best: { pkg: PackageModel; fit: Fit; score: number } | undefined;
  for (const pkg of PACKAGES.values()) {
    if (sites.length === 0 || pkg.terminals.length !== sites.length) continue;
    if (sites.some((s) => s.drill > 0) !== pkg.terminals.some((t) => t.drill_mm)) continue;
    const found = fit(pkg, sites, mirrored);
    if (!found || found.place.off_mm > MOST_OFF) continue;
    const rank = named.indexOf(pkg.id);
    const score =
      found.place.off_mm +
      (1 - found.agree) * 0.8 -
      (rank >= 0 ? 0.4 - 0.02 * rank : 0) -
      (wanted?.test(pkg.id) ? 0.15 : 0);
    if (!best || score < best.score) best = { pkg, fit: found, score };
  }
  if (best) {
    return { package: best.pkg.id, by: 'library', ...best.fit.place };
  }
  return deriveFamily(f, sites, mirrored) ?? boxFor(f, sites, prefix);
}

/** Library rows that the footprint's name suggests, best first. */
function hintsFrom(name: string): string[] {
  const words = (name.split(':').pop() ?? '').split('_');
  const ids: string[] = [];
  for (const text of [words.slice(0, 2).join(' '), words[0], words[1] ?? ''])
    if (text.length > 1) for (const p of findPackages(text, 12)) if (!ids.includes(p.id)) ids.push(p.id);
  return ids.slice(0, 16);
}

/** How far apart values are that count as one row or column, mm. */
const SAME = 0.15;

const distinct = (values: readonly number[]) => {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted.filter((v, i) => i === 0 || v - sorted[i - 1] > SAME);
};

/** A package of its own whose lands lie where the pads are: rows of legs, of pins, four sides. */
function deriveFamily(f: ParsedFootprint, sites: readonly Site[], mirrored: boolean): PackageMatch | undefined {
  const through = sites.every((s) => s.drill > 0);
  const flat = sites.every((s) => s.drill === 0);
  if (sites.length < 2 || (!through && !flat)) return undefined;
  const candidates: [string, Record<string, number | string>][] = [];
  for (const turn of [false, true]) {
    const xs = distinct(sites.map((s) => (turn ? s.y : s.x)));
    const ys = distinct(sites.map((s) => (turn ? s.x : s.y)));
    const pitch = ys.length > 1 ? (ys[ys.length - 1] - ys[0]) / (ys.length - 1) : 2.54;
    const across = xs[xs.length - 1] - xs[0];
    const body = f.body && (turn ? { w: f.body.h, h: f.body.w } : f.body);
    const drill = Math.max(...sites.map((s) => s.drill));
    if (through && xs.length === 2 && sites.length === 2 * ys.length)
      candidates.push([
        'pin-rows',
        {
          pins: sites.length,
          pitch,
          rows: across,
          l: body?.w ?? across * 0.85,
          w: body?.h ?? pitch * ys.length,
          drill,
        },
      ]);
    if (through && xs.length === 1)
      candidates.push([
        'connector',
        { pins: sites.length, pitch, l: body?.h ?? pitch * sites.length, w: body?.w ?? Math.max(3, pitch), h: 9 },
      ]);
    if (flat && xs.length === 2 && sites.length === 2 * ys.length && ys.length > 1) {
      const land = Math.max(...sites.map((s) => (turn ? s.h : s.w)));
      const span = across + land * 0.45;
      const l = Math.min(body?.w ?? span * 0.65, span - 0.3);
      const lead = Math.min(...sites.map((s) => (turn ? s.w : s.h))) * 0.75;
      candidates.push([
        'gull-rows',
        { pins: sites.length, pitch, l, w: Math.max(body?.h ?? 0, pitch * (ys.length - 1) + 0.6), span, lead },
      ]);
    }
  }
  for (const [family, raw] of candidates) {
    const rounded = Object.fromEntries(
      Object.entries(raw).map(([k, v]) => [k, typeof v === 'number' ? Math.round(v * 100) / 100 : v]),
    );
    try {
      const pkg = packageById(packageDesignation(family, rounded));
      const found = fit(pkg, sites, mirrored);
      if (found && found.place.off_mm <= MOST_OFF) {
        return { package: pkg.id, by: 'family', ...found.place };
      }
    } catch (error) {
      if (!(error instanceof PackageParamError)) throw error;
    }
  }
  return undefined;
}

/** Heights and limits to start from for what is only a box. */
const BOX_BY_PREFIX: Record<string, { h: number; limit: string; stuff: string }> = {
  J: { h: 8, limit: 'unknown-plastic', stuff: 'plastic' },
  P: { h: 8, limit: 'unknown-plastic', stuff: 'plastic' },
  K: { h: 15, limit: 'relay', stuff: 'plastic' },
  BT: { h: 5, limit: 'cell', stuff: 'metal' },
  L: { h: 4, limit: 'magnet', stuff: 'metal' },
  T: { h: 15, limit: 'magnet', stuff: 'metal' },
  SW: { h: 5, limit: 'unknown-plastic', stuff: 'plastic' },
  DS: { h: 3, limit: 'lcd', stuff: 'glass' },
  C: { h: 10, limit: 'elko-radial', stuff: 'metal' },
};

function boxFor(f: ParsedFootprint, sites: readonly Site[], prefix: string): PackageMatch {
  const box = sites.length ? boxOf(sites) : { x0: -0.5, x1: 0.5, y0: -0.5, y1: 0.5 };
  const largest = Math.max(0.3, ...sites.map((s) => Math.max(s.w, s.h)));
  const like = BOX_BY_PREFIX[prefix] ?? { h: 1.5, limit: 'ic-body', stuff: 'mould' };
  const side = (drawn: number | undefined, pads: number) =>
    Math.round(Math.min(200, Math.max(0.3, drawn ?? pads + largest)) * 100) / 100;
  const id = packageDesignation('box', {
    l: side(f.body?.w, box.x1 - box.x0),
    w: side(f.body?.h, box.y1 - box.y0),
    ...like,
  });
  const e = extentOf(packageById(id));
  return {
    package: id,
    by: 'box',
    off_mm: 0,
    rotation_deg: 0,
    x: (box.x0 + box.x1) / 2 - (e.x0 + e.x1) / 2,
    y: (box.y0 + box.y1) / 2 - (e.y0 + e.y1) / 2,
    terminals: {},
  };
}
