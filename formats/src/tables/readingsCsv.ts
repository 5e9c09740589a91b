/** Readings as a table: type, red, black, state, value, good; one line each. */
import { METER_TYPES, type MeterType } from '@orthos/core/circuit';
import { type Measured, parseReading } from '@orthos/core/ground';
import Papa from 'papaparse';
import { BoardFileError } from '../fileError.ts';

export interface ReadingRow {
  type: MeterType;
  red: string;
  black: string;
  /** State of power; empty without. */
  state: string;
  value: Measured | null;
  good: Measured | null;
}

const COLUMNS = ['type', 'red', 'black', 'state', 'value', 'good'] as const;
const MOST_ROWS = 5000;

/** Spreadsheets run what begins with these signs. */
const guarded = (cell: string): string => (/^[=+\-@\t\r]/.test(cell) && !/^-?[\d.]+$/.test(cell) ? `'${cell}` : cell);
const unguarded = (cell: string): string => (/^'[=+\-@]/.test(cell) ? cell.slice(1) : cell);

/** The table as CSV, numbers in base units with a decimal point. */
export function writeReadings(rows: readonly ReadingRow[]): string {
  const cell = (m: Measured | null) => (m === null ? '' : String(m));
  return Papa.unparse(
    {
      fields: [...COLUMNS],
      data: rows.map((r) => [r.type, guarded(r.red), guarded(r.black), guarded(r.state), cell(r.value), cell(r.good)]),
    },
    { newline: '\n' },
  );
}

/**
 * Reads such a table, values as people type them. Throws `BoardFileError` with the line for what cannot
 * be read; nothing is taken from a table with a bad line.
 */
export function readReadings(text: string): ReadingRow[] {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (h) => h.trim().toLowerCase(),
    transform: (v) => unguarded(v.trim()),
  });
  const fields = parsed.meta.fields ?? [];
  const missing = ['type', 'red', 'value'].filter((c) => !fields.includes(c));
  if (missing.length)
    throw new BoardFileError(
      `the first line must name the columns ${COLUMNS.join(', ')}; missing: ${missing.join(', ')}`,
      1,
    );
  if (parsed.data.length > MOST_ROWS) throw new BoardFileError(`holds more than ${MOST_ROWS} readings`);
  return parsed.data.map((row, i) => {
    const line = i + 2;
    const type = METER_TYPES.find((t) => t === row.type.toLowerCase());
    if (!type) throw new BoardFileError(`"${row.type}" is none of ${METER_TYPES.join(', ')}`, line);
    const measured = (name: 'value' | 'good'): Measured | null => {
      const cell = row[name] ?? '';
      if (cell === '') return null;
      const value = parseReading(cell);
      if (value === null) throw new BoardFileError(`${name}: "${cell}" is no reading such as 4k7, 0.42 or OL`, line);
      return value;
    };
    return {
      type,
      red: row.red,
      black: row.black ?? '',
      state: row.state ?? '',
      value: measured('value'),
      good: measured('good'),
    };
  });
}
