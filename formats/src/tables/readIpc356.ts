/**
 * Bare-board netlists of the IPC-D-356 family: records of 80 columns, one test point each. Columns (from 1): 1–3
 * code, 4–17 net, 21–26 reference, 27 dash, 28–31 pin, 32 D, 33–36 drill, 37 plated, 38 A, 39–40 access, 42–48 X,
 * 49 Y, 50–56 Y value, 57 X, 58–61 and 62 Y, 63–66 size, 67 R, 68–70 rotation, 73–74 mask.
 */
import type { Side } from '@orthos/core/board';
import { BoardFileError } from '../fileError.ts';

export interface NetPoint {
  net: string;
  /** Empty for a point that belongs to no part. */
  ref: string;
  pin: string;
  via: boolean;
  /** mm, y down (negated). */
  x: number;
  y: number;
  w: number;
  h: number;
  rotation_deg: number;
  drill: number;
  /** Which side can be reached; null when both. */
  side: Side | null;
}

/** `layers` is how many copper layers count as the bottom's access number. */
export function readIpc356(text: string): { points: NetPoint[]; notes: string[] } {
  const points: NetPoint[] = [];
  const notes: string[] = [];
  /** mm per unit. */
  let unit = 0.00254;
  let longest = 1;
  const aliases = new Map<string, string>();
  const lines = text.split(/\r\n|\r|\n/);
  let ended = false;
  let skipped = 0;
  for (const [n, line] of lines.entries()) {
    const fail = (message: string) => new BoardFileError(message, n + 1);
    if (line.trim() === '' || line.startsWith('C')) continue;
    if (line.startsWith('P')) {
      const units = /^P\s+UNITS\s+(\S+(?:\s+\d)?)/.exec(line);
      if (units) {
        const word = units[1].replace(/\s+/g, ' ');
        if (word === 'CUST 0' || word === 'CUST') unit = 0.00254;
        else if (word === 'CUST 1' || word === 'SI') unit = 0.001;
        else if (word === 'CUST 2') unit = 0.00254;
        else throw fail(`units "${word.slice(0, 20)}" are unknown; CUST 0, CUST 1 and SI can be read`);
      }
      const alias = /^P\s+(NNAME\S+)\s+(.+)$/.exec(line);
      if (alias) aliases.set(alias[1], alias[2].trim());
      continue;
    }
    const code = line.slice(0, 3);
    if (code === '999') {
      ended = true;
      break;
    }
    if (!/^\d{3}$/.test(code)) {
      if (/^[0-9A-Z]/.test(line) && points.length === 0 && n < 50)
        throw fail(`"${line.slice(0, 20)}" is no record of this kind`);
      skipped++;
      continue;
    }
    if (!['317', '327', '307', '017', '027'].includes(code)) {
      skipped++;
      continue;
    }
    const field = (from: number, to: number) => line.slice(from - 1, to);
    const number = (letter: string, at: number, to: number): number => {
      if (line[at - 1] !== letter) return NaN;
      const v = Number(field(at + 1, to).replace(/\s+/g, ''));
      return v * unit;
    };
    const [x, y] = [number('X', 42, 49), -number('Y', 50, 57)];
    if (!Number.isFinite(x) || !Number.isFinite(y)) throw fail('the record has no X and Y in columns 42 and 50');
    if (Math.abs(x) > 5000 || Math.abs(y) > 5000) throw fail('the point lies more than 5 m away: wrong units?');
    const net = field(4, 17).trim();
    const ref = field(21, 26).trim();
    const access = Number(/^A(\d\d)$/.exec(field(39, 41))?.[1] ?? 0);
    longest = Math.max(longest, access);
    const drill = number('D', 33, 37);
    const size = (v: number) => (Number.isFinite(v) && v > 0 ? v : 0);
    const w = size(number('X', 58, 62));
    const points356: NetPoint = {
      net: net === 'N/C' ? '' : (aliases.get(net) ?? net),
      ref: ref === 'VIA' ? '' : ref,
      pin: ref === 'VIA' ? '' : field(28, 31).trim(),
      via: ref === 'VIA',
      x,
      y,
      w,
      h: size(number('Y', 63, 67)) || w,
      rotation_deg: Number(/^R(\d{3})/.exec(field(68, 71))?.[1] ?? 0),
      drill: size(drill),
      side: access === 0 ? null : access === 1 ? 'top' : 'bottom',
    };
    points.push(points356);
    if (points.length > 200_000) throw fail('more than 200,000 points');
  }
  if (points.length === 0) throw new BoardFileError('has no test point records (317, 327)');
  if (!ended) notes.push('The file has no closing 999: it may have been cut off.');
  if (skipped) notes.push(`${skipped} records of other kinds were left out.`);
  return { points, notes };
}
