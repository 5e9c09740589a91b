/** A job's record as PDF, A4, from the same structure as its page. */
import type { JobRecord } from '$lib/release/jobRecord';
import PDFDocument from 'pdfkit';

export interface PdfPhoto {
  title: string;
  jpeg: Buffer;
}

/** The standard PDF fonts know the Western European characters only. */
export function printable(text: string): string {
  return text
    .replaceAll('Ω', 'ohm')
    .replaceAll('µ', 'u')
    .replaceAll('−', '-')
    .replaceAll('≥', 'at least ')
    .replaceAll(/[✓▲◆○●]/g, '')
    .replaceAll(/[^\x20-\x7e\u00a0-\u00ff\u2013\u2014\u2018\u2019\u201c\u201d\u2022\u2026]/g, '?');
}

const MARGIN = 48;
const seconds = (t: number | null) => (t === null ? '' : `${t.toFixed(0)} s`);
const signed = (t: number | null) => (t === null ? '' : `${t >= 0 ? '+' : '-'}${Math.abs(t).toFixed(0)} s`);

export async function recordPdf(shop: string, record: JobRecord, photos: PdfPhoto[]): Promise<Buffer> {
  const doc = new PDFDocument({
    size: 'A4',
    margin: MARGIN,
    info: { Title: printable(record.title), Author: printable(shop) },
  });
  const chunks: Buffer[] = [];
  doc.on('data', (c: Buffer) => chunks.push(c));
  const done = new Promise<void>((resolve) => doc.on('end', () => resolve()));
  const width = doc.page.width - 2 * MARGIN;

  const text = (t: string, size = 10, bold = false, colour = '#1c2528') =>
    doc
      .font(bold ? 'Helvetica-Bold' : 'Helvetica')
      .fontSize(size)
      .fillColor(colour)
      .text(printable(t), { width });
  const heading = (t: string) => {
    if (doc.y > doc.page.height - 120) doc.addPage();
    doc.moveDown(0.8);
    text(t, 12, true);
    doc.moveDown(0.2);
  };
  const table = (rows: string[][], columns: number[]) => {
    for (const [n, row] of rows.entries()) {
      if (doc.y > doc.page.height - MARGIN - 20) doc.addPage();
      const y = doc.y;
      let [x, bottom] = [MARGIN, y];
      for (const [i, cell] of row.entries()) {
        doc
          .font(n === 0 ? 'Helvetica-Bold' : 'Helvetica')
          .fontSize(9.5)
          .fillColor(n === 0 ? '#4f5c61' : '#1c2528')
          .text(printable(cell), x, y, { width: columns[i] - 8 });
        bottom = Math.max(bottom, doc.y);
        x += columns[i];
      }
      doc
        .moveTo(MARGIN, bottom + 2)
        .lineTo(MARGIN + columns.reduce((a, b) => a + b, 0), bottom + 2)
        .lineWidth(0.4)
        .stroke('#c5ced1');
      doc.x = MARGIN;
      doc.y = bottom + 5;
    }
  };
  const list = (title: string, items: string[]) => {
    if (items.length === 0) return;
    heading(title);
    for (const item of items) text(`\u2022 ${item}`);
  };

  text(`${shop}, record of work`, 9, false, '#4f5c61');
  doc.moveDown(0.3);
  text(record.title, 18, true);
  text(record.subtitle, 11, false, '#4f5c61');
  doc.moveDown(0.6);
  for (const [name, value] of record.facts) text(`${name}: ${value}`);
  doc.moveDown(0.5);
  text(record.outcome[0].toUpperCase() + record.outcome.slice(1), 12, true);
  for (const [name, value] of record.intake) text(`${name}: ${value}`);
  list('Damage', record.damage);
  for (const a of record.attempts) {
    heading(a.title);
    if (a.why) text(a.why, 10, false, '#4f5c61');
    for (const [n, line] of a.story.entries()) text(`${n + 1}. ${line}`, 9);
    if (a.readings.length > 0) text(`Readings: ${a.readings.join('; ')}.`, 9);
    for (const [name, value] of a.facts) text(`${name}: ${value}`, 9);
    for (const run of a.runs) {
      doc.moveDown(0.5);
      text(
        `${[run.title, run.method].filter(Boolean).join(', ')}${run.notes.length > 0 ? ` (${run.notes.join(', ')})` : ''}`,
        10,
        true,
      );
      if (run.rows.length > 0)
        table(
          [
            ['Moment', 'predicted', 'actual', 'difference'],
            ...run.rows.map((r) => [r.label, seconds(r.planned), seconds(r.actual), signed(r.off)]),
          ],
          [180, 80, 80, 80],
        );
      else if (run.method) text('No times were marked.', 9, false, '#4f5c61');
      if (run.joints.length > 0)
        text(
          `Predicted melting: ${run.joints.map((j) => `${j.terminal} ${j.wet_s === null ? 'may stay solid' : seconds(j.wet_s)}`).join(', ')}.`,
          9,
          false,
          '#4f5c61',
        );
    }
  }
  list('Changed while searching', record.swaps);
  if (record.shortCheck) {
    heading('Short check before power');
    text(record.shortCheck);
  }
  if (record.functions.length > 0) {
    heading('Functions');
    table([['What', 'before', 'after'], ...record.functions.map((f) => [f.name, f.before, f.after])], [240, 90, 90]);
  }
  list('While it was open', record.extras);
  list('Slips', record.slips);
  list('Gates overridden', record.overrides);
  list('Not done', record.notDone);
  for (const photo of photos) {
    if (doc.y > doc.page.height - 260) doc.addPage();
    heading(photo.title);
    doc.image(photo.jpeg, { fit: [width, 190] });
  }
  doc.moveDown(1);
  text(
    `${record.leadUsed ? 'Leaded solder was used on this board: wash hands after handling. ' : ''}Local rules and licensed practice come first where mains, vehicle safety or industrial safety functions are concerned.`,
    8.5,
    false,
    '#4f5c61',
  );
  doc.end();
  await done;
  return Buffer.concat(chunks);
}
