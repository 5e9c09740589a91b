/** A sheet of foil as PDF at true size, on the smallest usual paper that holds it. */
import { type FoilDrawing, STROKES } from './drawing.ts';

const PT = 72 / 25.4;
/** Usual papers, mm; what a printer leaves free all round. */
const PAPERS = [
  [210, 297],
  [297, 420],
] as const;
const FREE_MM = 5;

/** The paper, mm: upright or across; as large as it must be where no usual one holds it. */
function paperFor({ w, h }: Pick<FoilDrawing, 'w' | 'h'>): readonly [number, number] {
  const turned = PAPERS.flatMap(([a, b]) => [[a, b] as const, [b, a] as const]);
  return turned.find(([a, b]) => w + 2 * FREE_MM <= a && h + 2 * FREE_MM <= b) ?? [w + 2 * FREE_MM, h + 2 * FREE_MM];
}

/** Resolves to the file, base64. */
export async function foilPdf(drawing: FoilDrawing): Promise<string> {
  const { default: PDFDocument } = await import('pdfkit');
  const { x0, y0, w, h, lines, words, title } = drawing;
  const [paper_w, paper_h] = paperFor(drawing);
  // the same sheet makes the same file
  const made = new Date(0);
  const doc = new PDFDocument({
    size: [paper_w * PT, paper_h * PT],
    margin: 0,
    compress: false,
    info: { Title: title, CreationDate: made, ModDate: made },
  });
  const chunks: Uint8Array[] = [];
  const done = new Promise<void>((resolve, reject) => {
    doc.on('data', (chunk: Uint8Array) => chunks.push(chunk));
    doc.on('end', () => resolve());
    doc.on('error', reject);
  });
  const [dx, dy] = [(paper_w - w) / 2 - x0, (paper_h - h) / 2 - y0];
  const at = ([x, y]: readonly [number, number]) => [(x + dx) * PT, (y + dy) * PT] as const;
  for (const { points, style, closed } of lines) {
    const { width_mm, dash_mm, colour } = STROKES[style];
    doc.lineWidth(width_mm * PT).strokeColor(colour);
    if (dash_mm) doc.dash(dash_mm[0] * PT, { space: dash_mm[1] * PT });
    else doc.undash();
    for (const [i, p] of points.entries())
      if (i === 0) doc.moveTo(...at(p));
      else doc.lineTo(...at(p));
    if (closed) doc.closePath();
    doc.stroke();
  }
  doc.fillColor('#1c2528');
  for (const {
    text,
    at: [x, y],
    size_mm,
  } of words) {
    doc.fontSize(size_mm * PT);
    // the standard fonts know the Western European characters only
    doc.text(text.replaceAll(/[^\x20-\x7e\u00a0-\u00ff]/g, '?'), ...at([x, y - 0.75 * size_mm]), { lineBreak: false });
  }
  doc.end();
  await done;
  return base64(chunks);
}

/** Also where there is no Buffer. */
function base64(chunks: readonly Uint8Array[]): string {
  let text = '';
  for (const chunk of chunks) for (const byte of chunk) text += String.fromCharCode(byte);
  return btoa(text);
}
