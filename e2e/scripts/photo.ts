/**
 * Renders demo boards as photos: mask, silver leads, dark bodies, grain, a camera held a little askew. These are the
 * pictures that the simulated microscope shows, that the tests trace, and that a demo ticket brings. Run: `npx tsx e2e/scripts/photo.ts`.
 */
import { chromium } from '@playwright/test';
import { type BoardModel, partName, type Side } from '@orthos/core/board';
import { boardScene } from '@orthos/core/scene';
import { bramble } from '../../web/src/lib/server/demo/bramble.ts';
import { ternT2 } from '../../web/src/lib/server/demo/ternT2.ts';
import { launchOptions } from '../browser.mjs';

const [W, H] = [1800, 1350];
/** Pixels of the photo's board corners, from the upper left clockwise as seen: slightly slanted. */
type Point = readonly [number, number];
type Quad = readonly [Point, Point, Point, Point];
export const CORNERS_PX: Quad = [
  [168, 96],
  [1628, 118],
  [1606, 1256],
  [190, 1238],
];

const FILL: Record<string, string> = {
  board: '#31566b',
  hole: '#c9c2b4',
  copper: '#3a6379',
  land: '#cfc49a',
  lead: '#d9dadb',
  mould: '#26282b',
  ceramic: '#a58f6c',
  metal: '#b9bdc0',
  plastic: '#e8e4d6',
  glass: '#d8e4e4',
  mark: '#f2f2ee',
  landmark: 'none',
};

/** `damage` lies over everything, in board millimetres. */
function svgOf(board: BoardModel, side: Side, w: number, h: number, damage = ''): string {
  const scene = boardScene(board, side);
  const fold = (x: number) => (side === 'bottom' ? w - x : x);
  const shape = (s: (typeof scene.shapes)[number]) => {
    const ends = s.style === 'ceramic' ? ' stroke="#e6e6e2" stroke-width="0.05"' : '';
    if (s.r !== undefined)
      return `<circle cx="${fold(s.points[0][0])}" cy="${s.points[0][1]}" r="${s.r}" fill="${FILL[s.style]}"${ends}/>`;
    return `<polygon points="${s.points.map(([x, y]) => `${fold(x)},${y}`).join(' ')}" fill="${FILL[s.style]}"${ends}/>`;
  };
  const texts = scene.labels
    .map((l) => {
      const part = board.parts.find((p) => p.partId === l.partId);
      const size = Math.min(1.3, Math.max(0.7, l.h * 0.25));
      return part
        ? `<text x="${fold(l.x)}" y="${l.y - l.h / 2 - 0.5}" font-size="${size}" text-anchor="middle" fill="#e9e9e2" font-family="sans-serif">${partName(part).slice(0, 12)}</text>`
        : '';
    })
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w * 16}" height="${h * 16}" viewBox="0 0 ${w} ${h}">
    <defs><filter id="grain" x="0" y="0" width="100%" height="100%"><feTurbulence type="fractalNoise" baseFrequency="0.9" numOctaves="2" seed="7"/><feColorMatrix values="0 0 0 0 0.5  0 0 0 0 0.5  0 0 0 0 0.5  0 0 0 0.5 0"/></filter>
    <filter id="soft"><feGaussianBlur stdDeviation="0.25"/></filter></defs>
    ${scene.shapes.slice(0, 1).map(shape).join('')}
    <g filter="url(#soft)" opacity="0.45">${scene.shapes
      .filter((s) => ['mould', 'metal', 'plastic'].includes(s.style))
      .map((s) =>
        s.r !== undefined
          ? `<circle cx="${fold(s.points[0][0]) + 0.5}" cy="${s.points[0][1] + 0.6}" r="${s.r}" fill="#101416"/>`
          : `<polygon points="${s.points.map(([x, y]) => `${fold(x) + 0.5},${y + 0.6}`).join(' ')}" fill="#101416"/>`,
      )
      .join('')}</g>
    ${scene.shapes.slice(1).map(shape).join('')}${texts}${damage}
    <rect width="${w}" height="${h}" filter="url(#grain)" opacity="0.35"/></svg>`;
}

/** Maps the unit square to four points: the standard closed form (Heckbert 1989). */
function toQuad(w: number, h: number, q: Quad): string {
  const [[x0, y0], [x1, y1], [x2, y2], [x3, y3]] = q;
  const [dx1, dx2, sx] = [x1 - x2, x3 - x2, x0 - x1 + x2 - x3];
  const [dy1, dy2, sy] = [y1 - y2, y3 - y2, y0 - y1 + y2 - y3];
  const d = dx1 * dy2 - dx2 * dy1;
  const [g, k] = [(sx * dy2 - dx2 * sy) / d, (dx1 * sy - sx * dy1) / d];
  const a = [x1 - x0 + g * x1, x3 - x0 + k * x3, x0, y1 - y0 + g * y1, y3 - y0 + k * y3, y0, g, k, 1];
  const m = a.map((v, i) => (i % 3 === 0 ? v / w : i % 3 === 1 ? v / h : v));
  return `matrix3d(${[m[0], m[3], 0, m[6], m[1], m[4], 0, m[7], 0, 0, 1, 0, m[2], m[5], 0, m[8]].join(',')})`;
}

const browser = await chromium.launch(launchOptions);
const page = await browser.newPage({ viewport: { width: W, height: H } });
async function shoot(file: string, svg: string, w: number, h: number, corners: Quad) {
  await page.setContent(
    `<body style="margin:0;background:radial-gradient(circle at 40% 40%,#b7a98f,#8d806a);overflow:hidden">
      <div style="position:absolute;left:0;top:0;transform-origin:0 0;transform:${toQuad(w * 16, h * 16, corners)}">${svg}</div>
      <div style="position:absolute;inset:0;background:linear-gradient(115deg,rgba(255,255,240,.16),rgba(0,0,0,.18))"></div></body>`,
  );
  const path = new URL(`../../web/${file}`, import.meta.url).pathname;
  await page.screenshot({ path, type: 'jpeg', quality: 72 });
}
for (const side of ['top', 'bottom'] as const)
  await shoot(`static/practice/bramble-${side}.jpg`, svgOf(bramble, side, 90, 80), 90, 80, CORNERS_PX);
// a dried edge of water round the battery plug, white in its middle
const tide = [5.4, 4.6, 3.4]
  .map(
    (r, i) =>
      `<ellipse cx="55.4" cy="31.6" rx="${r}" ry="${r * 0.68}" fill="#dfe6dc" opacity="${0.16 + 0.1 * i}" stroke="#8a7a4e" stroke-width="0.22"/>`,
  )
  .join('');
await shoot('src/lib/server/demo/tern-wet.jpg', svgOf(ternT2, 'top', 64, 44, tide), 64, 44, [
  [120, 130],
  [1690, 150],
  [1672, 1232],
  [138, 1214],
]);
await browser.close();
