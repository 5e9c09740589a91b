/** Finds packages as people type them: `soic 8`, `0603 c`, `qfp44`, `can 6.3`, `box 12 4 3 pbt`. */
import { isLimit, LIMITS, OLD_LIMITS } from '../materials/index.ts';
import { packageById, packageDesignation, PACKAGES } from './library.ts';
import type { PackageModel, PackageShape, Terminal } from './packageModel.ts';

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z0-9.]+/g, ' ')
    .trim();
const squeezed = (text: string) => plain(text).replaceAll(' ', '');

/** Words in either order, with or without the space: `0402 c` and `0402c` are a C0402. */
const turnedRound = (text: string) =>
  plain(text)
    .replace(/(\d)([a-z]+)$/, '$1 $2')
    .split(' ')
    .toReversed()
    .join('');

const index = [...PACKAGES.values()].map((pkg) => ({
  pkg,
  id: squeezed(pkg.id),
  all: `${plain(pkg.id)} ${squeezed(pkg.id)} ${plain(pkg.label)} ${plain(pkg.words)} ${plain(pkg.family)}`.split(' '),
}));

/** A row of the limits table by its name or the start of it, or by a word of what it is. */
function limitTyped(word: string): string | undefined {
  if (isLimit(word)) return word;
  const rows = [...LIMITS.values()];
  return (
    rows.find((l) => l.id.startsWith(word))?.id ??
    rows.find((l) => plain(l.what).split(' ').includes(word))?.id ??
    OLD_LIMITS.find((id) => id.startsWith(word))
  );
}

/** `box 12 4 3 pbt`: a neighbour by size and what it stands (a row or the start of one). */
function typedBox(text: string): PackageModel | undefined {
  const [first, ...rest] = text
    .toLowerCase()
    .split(/[\s,]+|(?<=\d)[x×](?=\d)/)
    .filter(Boolean);
  if (first !== 'box' && first !== 'round') return undefined;
  const sizes = rest.filter((t) => /^\d+(\.\d+)?$/.test(t)).map(Number);
  const word = rest.find((t) => /^[a-z]/.test(t));
  const limit = word && limitTyped(word);
  if (sizes.length < 2) return undefined;
  try {
    return packageById(
      packageDesignation('box', {
        outline: first,
        l: sizes[0],
        w: first === 'round' ? sizes[0] : sizes[1],
        h: sizes[first === 'round' ? 1 : 2] ?? 5,
        ...(limit ? { limit } : {}),
        ...(limit && /^(cell|elko|polymer)/.test(limit) ? { stuff: 'metal' } : {}),
      }),
    );
  } catch {
    return undefined;
  }
}

/** Packages that fit what was typed, best first; all of them for an empty text. */
export function findPackages(text: string, most = 40): PackageModel[] {
  const typed = typedBox(text);
  const wanted = plain(text);
  if (wanted === '') return [...PACKAGES.values()].slice(0, most);
  const whole = squeezed(text);
  const turned = turnedRound(text);
  const tokens = wanted.split(' ');
  const scored: { pkg: PackageModel; score: number }[] = [];
  for (const entry of index) {
    let score = 0;
    if (entry.id === whole || entry.id === turned) score = 100;
    else if (entry.id.startsWith(whole)) score = 60 - entry.id.length * 0.5;
    else if (tokens.every((t) => entry.all.some((w) => w.startsWith(t)))) {
      score = 20 - entry.id.length * 0.2;
      // every word said in full counts more than the start of one
      score += tokens.filter((t) => entry.all.includes(t)).length * 8;
    }
    if (score > 0) scored.push({ pkg: entry.pkg, score });
  }
  scored.sort((a, b) => b.score - a.score);
  return [...(typed ? [typed] : []), ...scored.map((s) => s.pkg)].slice(0, most);
}

/** What can be counted and measured on a part whose name nobody knows. */
export interface Counted {
  /** Legs, pads or pins on the side that has most of them. */
  legs: number;
  /** Sides that have any; 1: all in a row. */
  sides: 1 | 2 | 4;
  /** Body without legs, both ways, mm. */
  body_mm?: readonly [number, number];
}

/** How many lie on each line across one direction; places in mm. */
function lines(places: readonly number[]): number[] {
  const found: { at: number; n: number }[] = [];
  for (const at of places) {
    const line = found.find((l) => Math.abs(l.at - at) < 0.3);
    if (line) line.n++;
    else found.push({ at, n: 1 });
  }
  return found.map((l) => l.n).toSorted((a, b) => b - a);
}

/** Terminals on each side that has any, most first. A pad under the middle of the body is on none. */
function legsBySide({ body, terminals }: PackageShape): number[] {
  const ways = (of: readonly Terminal[]) => [of.map((t) => t.land.x), of.map((t) => t.land.y)].map(lines);
  const row = ways(terminals).find((l) => l.length === 1);
  if (row && terminals.length > 2) return row;
  const outer = terminals.filter(({ land }) => Math.hypot(land.x / body.l, land.y / body.w) > 0.2);
  const pair = ways(outer).find((l) => l.length === 2);
  if (pair) return pair;
  const sides = new Map<string, number>();
  for (const { land } of outer) {
    const [x, y] = [land.x / body.l, land.y / body.w];
    const side = Math.abs(x) > Math.abs(y) ? (x > 0 ? 'right' : 'left') : y > 0 ? 'below' : 'above';
    sides.set(side, (sides.get(side) ?? 0) + 1);
  }
  return [...sides.values()].toSorted((a, b) => b - a);
}

/** Packages with as many legs on as many sides, nearest in size first; balls under the body are not counted. */
export function packagesByLegs({ legs, sides, body_mm }: Counted, most = 20): PackageModel[] {
  const off = ({ body }: PackageModel) => {
    if (!body_mm) return 0;
    const [a, b] = [...body_mm].toSorted((p, q) => q - p);
    const [l, w] = [body.l, body.w].toSorted((p, q) => q - p);
    return Math.abs(l - a) + Math.abs(w - b);
  };
  return [...PACKAGES.values()]
    .filter((pkg) => {
      const by = pkg.terminals.some((t) => t.kind === 'ball') ? [] : legsBySide(pkg);
      return by.length === sides && by[0] === legs;
    })
    .toSorted((a, b) => off(a) - off(b))
    .slice(0, most);
}

/**
 * The package that a text means: `QFP-44`, `qfp 44`, `0402 c`; or, as a sentence, that it is none and what is near.
 */
export function readPackage(text: string): { id: string } | { problem: string } {
  const whole = squeezed(text);
  if (whole === '') return { problem: 'Which package? QFP-44, 0603, SOT-23' };
  const turned = turnedRound(text);
  const exact = index.find(({ id, pkg }) => id === whole || id === turned || squeezed(pkg.label) === whole);
  if (exact) return { id: exact.pkg.id };
  const near = findPackages(text, 4).map((p) => p.id);
  const like = near.length > 0 ? near : nearest(whole);
  return { problem: `There is no package "${text.trim()}". Near: ${like.join(', ')}` };
}

/** Packages whose names begin most like a text, best first. */
function nearest(whole: string): string[] {
  const common = (id: string) => {
    let n = 0;
    while (n < id.length && id[n] === whole[n]) n++;
    return n;
  };
  return index
    .map(({ pkg, id }) => ({ id: pkg.id, shared: common(id), off: Math.abs(id.length - whole.length) }))
    .toSorted((a, b) => b.shared - a.shared || a.off - b.off)
    .slice(0, 4)
    .map((x) => x.id);
}
