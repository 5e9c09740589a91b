/**
 * S-expressions: `(name item "quoted item" (nested …))`. Own scanner, because the packages tried took four times
 * as long on a file of 7 MB and kept no line numbers. One pass, no recursion.
 */
import { BoardFileError } from '../fileError.ts';

export class SList {
  /** Atoms as text, nested lists; the first item is the list's name. */
  readonly items: (string | SList)[] = [];
  readonly line: number;
  constructor(line: number) {
    this.line = line;
  }
  get name(): string {
    const first = this.items[0];
    return typeof first === 'string' ? first : '';
  }
  /** The first nested list of that name. */
  get(name: string): SList | undefined {
    for (const item of this.items) if (typeof item !== 'string' && item.items[0] === name) return item;
    return undefined;
  }
  /** All nested lists of that name. */
  all(name: string): SList[] {
    return this.items.filter((item): item is SList => typeof item !== 'string' && item.items[0] === name);
  }
  /** The atom at `index`, or undefined when there is none. */
  atom(index: number): string | undefined {
    const item = this.items[index];
    return typeof item === 'string' ? item : undefined;
  }
  has(atom: string): boolean {
    return this.items.includes(atom, 1);
  }
  /** The number at `index`; throws with the line when there is none or it is out of all reason. */
  number(index: number, most = 1e5): number {
    const text = this.atom(index);
    const value = text === undefined || text === '' ? NaN : Number(text);
    if (!Number.isFinite(value))
      throw new BoardFileError(
        `(${this.name} …) needs a number, not ${text === undefined ? 'nothing' : `"${text.slice(0, 40)}"`}`,
        this.line,
      );
    if (Math.abs(value) > most)
      throw new BoardFileError(`(${this.name} …) has the number ${text}: out of all reason`, this.line);
    return value;
  }
  /** As `number`, or `otherwise` when there is no such item. */
  numberOr(index: number, otherwise: number): number {
    return this.atom(index) === undefined ? otherwise : this.number(index);
  }
}

const MOST_DEPTH = 100;
const [OPEN, CLOSE, QUOTE, BACKSLASH, NEWLINE] = [40, 41, 34, 92, 10];

/**
 * Reads one list that fills the text. With `visit`, every list directly inside it is handed over as soon as it is
 * complete and then let go (`at` is how far in the text that is): a large file never stands in memory as a whole.
 * Throws `BoardFileError` with the line.
 */
export function scanSExpression(text: string, visit?: (item: SList, root: SList, at: number) => void): SList {
  const open: SList[] = [];
  let root: SList | undefined;
  let line = 1;
  let i = text.charCodeAt(0) === 0xfeff ? 1 : 0;
  const end = text.length;
  while (i < end) {
    const c = text.charCodeAt(i);
    if (c === NEWLINE) line++;
    if (c <= 32) {
      i++;
      continue;
    }
    if (c === OPEN) {
      const list = new SList(line);
      if (open.length > (visit ? 1 : 0)) open[open.length - 1].items.push(list);
      else if (root && open.length === 0)
        throw new BoardFileError('a second list begins after the first has ended', line);
      else root ??= list;
      open.push(list);
      if (open.length > MOST_DEPTH) throw new BoardFileError(`brackets are nested more than ${MOST_DEPTH} deep`, line);
      i++;
      continue;
    }
    if (c === CLOSE) {
      const closed = open.pop();
      if (!closed) throw new BoardFileError('a closing bracket without an opening one', line);
      if (visit && root && open.length === 1) visit(closed, root, i);
      i++;
      continue;
    }
    if (open.length === 0) throw new BoardFileError('text outside of brackets', line);
    const { items } = open[open.length - 1];
    if (c === QUOTE) {
      const from = line;
      let j = i + 1;
      let plain = true;
      for (; j < end; j++) {
        const d = text.charCodeAt(j);
        if (d === QUOTE) break;
        if (d === NEWLINE) line++;
        if (d === BACKSLASH) {
          plain = false;
          j++;
        }
      }
      if (j >= end) throw new BoardFileError('a quoted text never ends', from);
      const raw = text.slice(i + 1, j);
      items.push(plain ? raw : raw.replace(/\\(.)/gs, (_, d: string) => ({ n: '\n', t: '\t', r: '\r' })[d] ?? d));
      i = j + 1;
      continue;
    }
    let j = i + 1;
    for (; j < end; j++) {
      const d = text.charCodeAt(j);
      if (d <= 32 || d === OPEN || d === CLOSE || d === QUOTE) break;
    }
    items.push(text.slice(i, j));
    i = j;
  }
  if (open.length)
    throw new BoardFileError(
      `the file ends inside (${open[open.length - 1].name || '…'}, begun here`,
      open[open.length - 1].line,
    );
  if (!root) throw new BoardFileError('no list in it');
  return root;
}
