/** A sheet of foil as an SVG drawing at true size: 1 user unit is 1 mm. */
import { escaped, n } from '../exports/svgText.ts';
import { type FoilDrawing, STROKES } from './drawing.ts';

export function foilSvg({ title, x0, y0, w, h, lines, words }: FoilDrawing): string {
  return `${[
    `<svg xmlns="http://www.w3.org/2000/svg" width="${n(w)}mm" height="${n(h)}mm" viewBox="${n(x0)} ${n(y0)} ${n(w)} ${n(h)}">`,
    `<title>${escaped(title)}</title>`,
    '<g fill="none" stroke-linejoin="miter">',
    ...lines.map(({ points, style, closed }) => {
      const { width_mm, dash_mm, colour } = STROKES[style];
      const d = `M${points.map(([x, y]) => `${n(x)} ${n(y)}`).join('L')}${closed ? 'Z' : ''}`;
      const dash = dash_mm ? ` stroke-dasharray="${dash_mm.join(' ')}"` : '';
      return `<path class="${style}" d="${d}" stroke="${colour}" stroke-width="${width_mm}"${dash}/>`;
    }),
    '</g>',
    '<g font-family="sans-serif" fill="#1c2528">',
    ...words.map(
      ({ text, at: [x, y], size_mm }) =>
        `<text x="${n(x)}" y="${n(y)}" font-size="${n(size_mm)}">${escaped(text)}</text>`,
    ),
    '</g>',
    '</svg>',
  ].join('\n')}\n`;
}
