/** A job's record as PDF, A4, from the same structure as its page: a first page for the owner, the technician's detail behind it. */
import type { JobRecord } from '$lib/release/jobRecord';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import PDFDocument from 'pdfkit';

/** Photos side by side: before on the left, after on the right; a hole where one has no twin. */
export type PdfPhotos = readonly (readonly [Buffer | undefined, Buffer | undefined])[];

const require = createRequire(import.meta.url);
/** Ω, µ, °, and every Latin name; read when the first record is printed. */
let faces: { plain: Buffer; bold: Buffer } | undefined;
function fonts() {
  return (faces ??= {
    plain: readFileSync(require.resolve('dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf')),
    bold: readFileSync(require.resolve('dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf')),
  });
}

/** Marks that stand beside a word, and what no font draws. */
export const printable = (text: string): string => text.replaceAll(/[✓▲◆○●]\s?|\p{Cc}/gu, '');

const MARGIN = 48;
const [INK, SECOND, LINE] = ['#1c2528', '#4f5c61', '#c5ced1'];
const PHOTO_H = 170;
const seconds = (t: number | null) => (t === null ? '' : `${t.toFixed(0)} s`);
const signed = (t: number | null) => (t === null ? '' : `${t >= 0 ? '+' : '−'}${Math.abs(t).toFixed(0)} s`);

export async function recordPdf(shop: string, record: JobRecord, photos: PdfPhotos): Promise<Buffer> {
  const { plain, bold } = fonts();
  const doc = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    bufferPages: true,
    info: { Title: printable(record.title), Author: printable(shop) },
  });
  doc.registerFont('plain', plain);
  doc.registerFont('bold', bold);
  const chunks: Buffer[] = [];
  doc.on('data', (c: Buffer) => chunks.push(c));
  const done = new Promise<void>((resolve) => doc.on('end', () => resolve()));
  const width = doc.page.width - 2 * MARGIN;
  const foot = doc.page.height - MARGIN;

  const text = (t: string, size = 10, face: 'plain' | 'bold' = 'plain', colour = INK) =>
    doc.font(face).fontSize(size).fillColor(colour).text(printable(t), { width });
  const heading = (t: string, size = 12) => {
    if (doc.y > foot - 72) doc.addPage();
    doc.moveDown(0.8);
    text(t, size, 'bold');
    doc.moveDown(0.2);
  };
  const table = (rows: string[][], columns: number[]) => {
    for (const [n, row] of rows.entries()) {
      if (doc.y > foot - 20) doc.addPage();
      const y = doc.y;
      let [x, bottom] = [MARGIN, y];
      for (const [i, cell] of row.entries()) {
        doc
          .font(n === 0 ? 'bold' : 'plain')
          .fontSize(9.5)
          .fillColor(n === 0 ? SECOND : INK)
          .text(printable(cell), x, y, { width: columns[i] - 8 });
        bottom = Math.max(bottom, doc.y);
        x += columns[i];
      }
      doc
        .moveTo(MARGIN, bottom + 2)
        .lineTo(MARGIN + columns.reduce((a, b) => a + b, 0), bottom + 2)
        .lineWidth(0.4)
        .stroke(LINE);
      doc.x = MARGIN;
      doc.y = bottom + 5;
    }
  };
  const list = (title: string, items: readonly string[], size = 10) => {
    if (items.length === 0) return;
    heading(title);
    for (const item of items) text(`• ${item.charAt(0).toUpperCase()}${item.slice(1)}`, size);
  };
  const rows = (all: readonly (readonly [string, string])[], size = 9) => {
    for (const [name, value] of all) text(`${name}: ${value}`, size);
  };

  // --- for the owner
  text(`${shop}, record of work`, 9, 'plain', SECOND);
  doc.moveDown(0.3);
  text(record.title, 18, 'bold');
  text(record.subtitle, 12, 'plain', SECOND);
  doc.moveDown(0.6);
  text(record.outcome.charAt(0).toUpperCase() + record.outcome.slice(1), 14, 'bold');
  const { summary } = record;
  list('What was wrong', summary.wrong, 11);
  list('What was done', summary.done, 11);
  if (summary.measured.length > 0) {
    heading('Measured before and after');
    table(
      [['Where', 'before', 'after', 'good'], ...summary.measured.map((m) => [m.what, m.before, m.after, m.good])],
      [170, 110, 110, 90],
    );
  }
  list('What to watch', summary.watch, 11);
  const half = (width - 12) / 2;
  if (photos.length > 0) heading('Before and after');
  for (const pair of photos) {
    if (doc.y > foot - PHOTO_H) doc.addPage();
    const y = doc.y;
    for (const [n, jpeg] of pair.entries())
      if (jpeg) doc.image(jpeg, MARGIN + n * (half + 12), y, { fit: [half, PHOTO_H - 10] });
    doc.x = MARGIN;
    doc.y = y + PHOTO_H;
  }
  doc.moveDown(1);
  text(
    `${record.leadUsed ? 'Leaded solder was used on this board: wash hands after handling. ' : ''}Local rules and licensed practice come first where mains, vehicle safety or industrial safety functions are concerned.`,
    8.5,
    'plain',
    SECOND,
  );

  // --- for the next technician
  doc.addPage();
  text('In detail', 14, 'bold');
  doc.moveDown(0.3);
  rows(record.facts, 10);
  doc.moveDown(0.4);
  rows(record.intake, 10);
  list('Damage', record.damage);
  for (const a of record.attempts) {
    heading(a.title);
    if (a.why) text(a.why, 10, 'plain', SECOND);
    for (const [n, line] of a.story.entries()) text(`${n + 1}. ${line}`, 9);
    if (a.readings.length > 0) text(`Readings: ${a.readings.join('; ')}.`, 9);
    rows(a.facts);
    for (const run of a.runs) {
      doc.moveDown(0.5);
      text(
        `${[run.title, run.method].filter(Boolean).join(', ')}${run.notes.length > 0 ? ` (${run.notes.join(', ')})` : ''}`,
        10,
        'bold',
      );
      if (run.rows.length > 0)
        table(
          [
            ['Moment', 'predicted', 'actual', 'difference'],
            ...run.rows.map((r) => [r.label, seconds(r.planned), seconds(r.actual), signed(r.off)]),
          ],
          [180, 80, 80, 80],
        );
      else if (run.method) text('No times were marked.', 9, 'plain', SECOND);
      if (run.joints.length > 0)
        text(
          `Predicted melting: ${run.joints.map((j) => `${j.terminal} ${j.wet_s === null ? 'may stay solid' : seconds(j.wet_s)}`).join(', ')}.`,
          9,
          'plain',
          SECOND,
        );
    }
    if (a.proven.length > 0) {
      doc.moveDown(0.5);
      rows(a.proven);
    }
  }
  list('Changed while searching', record.swaps);
  if (record.shortCheck) {
    heading('Short check before power');
    text(record.shortCheck);
  }
  if (record.functions.length > 0) {
    heading('Functions');
    const closed = record.functions.some((f) => f.closed);
    table(
      [
        ['What', 'before', 'after', ...(closed ? ['closed'] : [])],
        ...record.functions.map((f) => [f.name, f.before, f.after, ...(closed ? [f.closed || 'not tried'] : [])]),
      ],
      [210, 80, 80, ...(closed ? [80] : [])],
    );
  }
  list('While it was open', record.extras);
  list('Slips', record.slips);
  list('Gates overridden', record.overrides);
  list('Not done', record.notDone);
  numberPages(doc);
  doc.end();
  await done;
  return Buffer.concat(chunks);
}

function numberPages(doc: PDFKit.PDFDocument): void {
  const { start, count } = doc.bufferedPageRange();
  for (let n = start; n < start + count; n++) {
    doc.switchToPage(n);
    // below the margin a line would open a page of its own
    doc.page.margins.bottom = 0;
    doc
      .font('plain')
      .fontSize(8)
      .fillColor(SECOND)
      .text(`${n + 1} of ${count}`, MARGIN, doc.page.height - 32, {
        width: doc.page.width - 2 * MARGIN,
        align: 'right',
      });
  }
}
