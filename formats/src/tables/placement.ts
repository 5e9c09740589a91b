/**
 * Pick-and-place lists: any order of columns, mm, mil or inch, comma, semicolon or tab. What each column is gets
 * guessed from its heading and can be corrected.
 */
import Papa from 'papaparse';
import { type BoardModel, partName, type Side } from '@orthos/core/board';
import { BoardFileError } from '../fileError.ts';

export const COLUMN_ROLES = ['reference', 'value', 'package', 'x', 'y', 'rotation', 'side', 'nothing'] as const;
export type ColumnRole = (typeof COLUMN_ROLES)[number];
export const PLACEMENT_UNITS = { mm: 1, mil: 0.0254, inch: 25.4 } as const;
export type PlacementUnit = keyof typeof PLACEMENT_UNITS;

export interface PlacementReading {
  headings: string[];
  roles: ColumnRole[];
  unit: PlacementUnit;
  /** y grows upwards, as most of these lists have it. */
  yUp: boolean;
}

export interface PlacementRow {
  /** Line in the file. */
  line: number;
  ref: string;
  value: string;
  package: string;
  /** mm in the list's own frame, y turned down. */
  x_mm: number;
  y_mm: number;
  rotation_deg: number;
  side: Side;
}

const HEADINGS: [ColumnRole, RegExp][] = [
  ['reference', /^(ref(erence)?|designator|ref ?des|part|name|component)\b/],
  ['value', /^(val(ue)?|comment|part ?number)\b/],
  ['package', /^(package|footprint|pattern|case)\b/],
  ['x', /^(pos ?x|x|mid ?x|center ?x|x ?pos|ref ?x)/],
  ['y', /^(pos ?y|y|mid ?y|center ?y|y ?pos|ref ?y)/],
  ['rotation', /^(rot(ation)?|angle|orientation|theta)\b/],
  ['side', /^(side|layer|tb|mount ?side)\b/],
];

function cells(text: string): { rows: string[][]; lines: number[] } {
  if (text.length > 20_000_000) throw new BoardFileError('a placement list of more than 20 MB');
  const body = text.replace(/^\uFEFF/, '');
  // headings may stand behind a comment sign or after comment lines
  const all = body.split(/\r\n|\r|\n/);
  const sample = all.find((l) => /[,;\t]/.test(l)) ?? all.find((l) => /\s{2,}/.test(l)) ?? '';
  const delimiter = [';', '\t', ','].find((d) => sample.split(d).length >= 3);
  const rows: string[][] = [];
  const lines: number[] = [];
  for (const [n, raw] of all.entries()) {
    if (raw.trim() === '' || /^#{2,}/.test(raw)) continue;
    const line = raw.replace(/^#\s*/, '');
    const row = delimiter ? (Papa.parse<string[]>(line, { delimiter }).data[0] ?? []) : line.trim().split(/\s+/);
    if (row.length < 3) continue;
    rows.push(row.map((c) => c.trim()));
    lines.push(n + 1);
  }
  return { rows, lines };
}

const plain = (text: string) =>
  text
    .toLowerCase()
    .replace(/[^a-z]+/g, ' ')
    .trim();
const numberIn = (text: string) => Number(text.replace(',', '.').replace(/\s*(mm|mil|mils|in|inch|")$/i, ''));

function findHeadings(rows: readonly string[][]): number {
  return rows.findIndex((row) => {
    const known = row.map((c) => HEADINGS.find(([, r]) => r.test(plain(c)))?.[0]);
    return known.includes('x') && known.includes('y') && known.includes('reference');
  });
}

/** Guesses what each column is. Throws `BoardFileError` when no row of headings can be found. */
export function guessPlacement(text: string): PlacementReading {
  const { rows } = cells(text);
  const at = findHeadings(rows);
  if (at < 0)
    throw new BoardFileError('no row of headings with a reference, an x and a y; say the columns in the first line');
  const headings = rows[at];
  const taken = new Set<ColumnRole>();
  const roles = headings.map((c): ColumnRole => {
    const role = HEADINGS.find(([r, test]) => !taken.has(r) && test.test(plain(c)))?.[0];
    if (!role) return 'nothing';
    taken.add(role);
    return role;
  });
  const xHeading = headings[roles.indexOf('x')] ?? '';
  const sample = rows[at + 1]?.[roles.indexOf('x')] ?? '';
  const said = /\b(mm|mils?|in(ch)?)\b/i
    .exec(`${xHeading.replace(/[_()-]/g, ' ')} ${sample.replace(/[\d.,]/g, ' ')}`)?.[1]
    ?.toLowerCase();
  const largest = rows
    .slice(at + 1)
    .reduce((m, r) => Math.max(m, Math.abs(numberIn(r[roles.indexOf('x')] ?? '')) || 0), 0);
  const unit: PlacementUnit = said
    ? said === 'mm'
      ? 'mm'
      : said.startsWith('mil')
        ? 'mil'
        : 'inch'
    : largest > 1200
      ? 'mil'
      : 'mm';
  return { headings, roles, unit, yUp: true };
}

/** Rows by that reading. Throws `BoardFileError` with the line. */
export function readPlacement(text: string, reading: PlacementReading): PlacementRow[] {
  const { rows, lines } = cells(text);
  const at = findHeadings(rows);
  const column = (role: ColumnRole) => reading.roles.indexOf(role);
  for (const role of ['reference', 'x', 'y'] as const)
    if (column(role) < 0) throw new BoardFileError(`no column is the ${role}`);
  const scale = PLACEMENT_UNITS[reading.unit];
  const out: PlacementRow[] = [];
  for (const [n, row] of rows.entries()) {
    if (n <= at) continue;
    const text = (role: ColumnRole) => (column(role) < 0 ? '' : (row[column(role)] ?? ''));
    const number = (role: ColumnRole, otherwise?: number): number => {
      const raw = text(role);
      if (raw === '' && otherwise !== undefined) return otherwise;
      const v = numberIn(raw);
      if (!Number.isFinite(v)) throw new BoardFileError(`"${raw.slice(0, 30)}" is no number for ${role}`, lines[n]);
      return v;
    };
    const ref = text('reference');
    if (ref === '') continue;
    const [x_mm, y] = [number('x') * scale, number('y') * scale];
    if (Math.abs(x_mm) > 2000 || Math.abs(y) > 2000)
      throw new BoardFileError(
        `${ref.slice(0, 20)} lies more than 2 m away: another unit than ${reading.unit}?`,
        lines[n],
      );
    out.push({
      line: lines[n],
      ref,
      value: text('value'),
      package: text('package'),
      x_mm,
      y_mm: reading.yUp ? -y : y,
      rotation_deg: ((number('rotation', 0) % 360) + 360) % 360,
      side: /^b|bottom|^2/i.test(text('side')) ? 'bottom' : 'top',
    });
    if (out.length > 20_000) throw new BoardFileError('more than 20,000 parts', lines[n]);
  }
  if (out.length === 0) throw new BoardFileError('no parts below the headings');
  return out;
}

/** A cell that a spreadsheet would take for a formula is guarded by an apostrophe. */
const guarded = (text: string) => (/^[=+\-@]/.test(text) ? `'${text}` : text);

/** The parts of a board as a placement list, mm, y upwards from the lower left corner of the outline. */
export function writePlacement(board: BoardModel): string {
  const bottom = Math.max(...board.outline_mm.map(([, y]) => y));
  const left = Math.min(...board.outline_mm.map(([x]) => x));
  const fixed = (v: number) => v.toFixed(4);
  return `${Papa.unparse(
    {
      fields: ['Ref', 'Value', 'Package', 'PosX (mm)', 'PosY (mm)', 'Rotation', 'Side'],
      data: board.parts.map((p) => [
        guarded(partName(p)),
        guarded(p.value ?? p.what ?? ''),
        guarded(p.package),
        fixed(p.x_mm - left),
        fixed(bottom - p.y_mm),
        fixed(((p.rotation_deg % 360) + 360) % 360),
        p.side,
      ]),
    },
    { newline: '\n' },
  )}\n`;
}
