/** One side of a board as an SVG drawing at true size: 1 user unit is 1 mm. */
import { boardBounds, type BoardModel, type Side } from '@orthos/core/board';
import { escaped, n } from './svgText.ts';
import { boardScene, type SceneStyle } from '@orthos/core/scene';

const FILL: Record<SceneStyle, string> = {
  board: '#f4f4ef',
  hole: '#ffffff',
  copper: '#e6dccb',
  land: '#cbbfa8',
  lead: '#b9bfc2',
  mould: '#ffffff',
  ceramic: '#ffffff',
  metal: '#e4e8ea',
  plastic: '#eceff0',
  glass: '#fafcfd',
  mark: '#1c2528',
  landmark: 'none',
};
const MARGIN_MM = 4;

/** The bottom is drawn as it is seen: mirrored about the board's flip axis. */
export function boardSvg(board: BoardModel, side: Side): string {
  const scene = boardScene(board, side);
  const b = boardBounds(board);
  const fold = (x: number) => (side === 'bottom' ? 2 * board.flipAxis_mm - x : x);
  const x0 = Math.min(fold(b.x0), fold(b.x1)) - MARGIN_MM;
  const [w, h] = [b.x1 - b.x0 + 2 * MARGIN_MM, b.y1 - b.y0 + 2 * MARGIN_MM];
  const lines = [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h)}mm" viewBox="${n(x0)} ${n(b.y0 - MARGIN_MM)} ${n(w)} ${n(h)}">`,
    `<title>${escaped(board.name)}, ${side} side, 1:1</title>`,
    '<g stroke="#1c2528" stroke-width="0.08" stroke-linejoin="round">',
  ];
  for (const s of scene.shapes) {
    const line = s.style === 'copper' || s.style === 'land' || s.style === 'mark' ? ' stroke="none"' : '';
    if (s.r !== undefined)
      lines.push(
        `<circle cx="${n(fold(s.points[0][0]))}" cy="${n(s.points[0][1])}" r="${n(s.r)}" fill="${FILL[s.style]}"${line}/>`,
      );
    else
      lines.push(
        `<path d="M${s.points.map(([x, y]) => `${n(fold(x))} ${n(y)}`).join('L')}Z" fill="${FILL[s.style]}"${line}/>`,
      );
  }
  lines.push('</g>', '<g font-family="sans-serif" text-anchor="middle" fill="#1c2528">');
  for (const l of scene.labels) {
    const size = Math.min(2.2, l.h * 0.7, (l.w * 1.6) / Math.max(1, l.text.length));
    if (size >= 0.5)
      lines.push(
        `<text x="${n(fold(l.x))}" y="${n(l.y + size * 0.35)}" font-size="${n(size)}">${escaped(l.text)}</text>`,
      );
  }
  const [bx, by] = [x0 + MARGIN_MM, b.y1 + MARGIN_MM * 0.55];
  lines.push(
    '</g>',
    `<path d="M${n(bx)} ${n(by)}h10" stroke="#1c2528" stroke-width="0.2"/>`,
    `<text x="${n(bx + 11)}" y="${n(by + 0.7)}" font-family="sans-serif" font-size="2" fill="#1c2528">10 mm: print at 100 %</text>`,
    '</svg>',
  );
  return `${lines.join('\n')}\n`;
}
