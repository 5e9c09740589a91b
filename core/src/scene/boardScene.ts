/**
 * A board side as a display list: plain shapes in millimetres of the board frame, in painting order.
 * Painters (canvas now, others later) only know shapes and styles; the scene only knows the board.
 */
import {
  type BoardModel,
  cornersOnBoard,
  partName,
  type PlacedPart,
  type Side,
  toBoard,
  toLocal,
} from '../board/index.ts';
import { packageById, type PackageModel, type Terminal } from '../packages/index.ts';

export type SceneStyle =
  | 'board'
  | 'hole'
  | 'copper'
  | 'land'
  | 'lead'
  | 'mould'
  | 'ceramic'
  | 'metal'
  | 'plastic'
  | 'glass'
  | 'mark'
  | 'landmark';

/** Painting order. */
const STYLE_ORDER: readonly SceneStyle[] = [
  'board',
  'copper',
  'hole',
  'landmark',
  'land',
  'lead',
  'ceramic',
  'glass',
  'mould',
  'metal',
  'plastic',
  'mark',
];

export interface SceneShape {
  style: SceneStyle;
  /** Closed polygon, or a circle when `r` is given (one point: the centre). */
  points: readonly (readonly [number, number])[];
  r?: number;
  partId?: string;
}

export interface SceneLabel {
  text: string;
  x: number;
  y: number;
  /** Room for the text, mm (after rotation). */
  w: number;
  h: number;
  partId?: string;
  /** The part is on the other side; only its pins come through. */
  through?: true;
}

export interface Scene {
  shapes: SceneShape[];
  labels: SceneLabel[];
}

/** Everything that shows when looking at `side`. */
export function boardScene(board: BoardModel, side: Side): Scene {
  const shapes: SceneShape[] = [{ style: 'board', points: board.outline_mm }];
  const outer = side === 'top' ? 0 : board.stack.length - 1;
  for (const c of board.copper)
    if (c.layer === outer)
      shapes.push({
        style: 'copper',
        points: [
          [c.x_mm, c.y_mm],
          [c.x_mm + c.w_mm, c.y_mm],
          [c.x_mm + c.w_mm, c.y_mm + c.h_mm],
          [c.x_mm, c.y_mm + c.h_mm],
        ],
      });
  for (const ring of board.cutouts_mm ?? []) shapes.push({ style: 'hole', points: ring });
  for (const h of board.holes) shapes.push({ style: 'hole', points: [[h.x_mm, h.y_mm]], r: h.d_mm / 2 });
  for (const m of board.landmarks) shapes.push({ style: 'landmark', points: [[m.x_mm, m.y_mm]], r: 0.9 });
  const labels: SceneLabel[] = [];
  const here = board.parts.filter((p) => p.side === side);
  // tall parts cover low ones
  const sorted = here
    .map((part) => ({ part, pkg: packageById(part.package) }))
    .sort((a, b) => a.pkg.body.h - b.pkg.body.h);
  for (const { part, pkg } of sorted) {
    for (const t of pkg.terminals) shapes.push(...terminalShapes(part, t));
    shapes.push(...bodyShapes(part, pkg));
    labels.push(labelOf(part, pkg));
  }
  for (const part of board.parts)
    if (part.side !== side) {
      const shown = pinsThrough(part);
      shapes.push(...shown.shapes);
      // a name that would lie on a part of this side says nothing about either
      labels.push(...shown.labels.filter((l) => !sorted.some(({ part: p, pkg }) => bodyNear(p, pkg, l))));
    }
  // one style after the other: painters batch, and lands stay under bodies
  shapes.sort((a, b) => STYLE_ORDER.indexOf(a.style) - STYLE_ORDER.indexOf(b.style));
  return { shapes, labels };
}

/** Whether a part's body reaches the middle of a label, or nearly. */
function bodyNear(part: PlacedPart, { body }: PackageModel, { x, y }: SceneLabel): boolean {
  const [lx, ly] = toLocal(part, x, y);
  return Math.abs(lx) < body.l / 2 + 1 && Math.abs(ly) < body.w / 2 + 1;
}

/** What a part of the other side shows here: its pins in their lands, and its name among them. */
function pinsThrough(part: PlacedPart): { shapes: SceneShape[]; labels: SceneLabel[] } {
  const pins = packageById(part.package).terminals.filter((t) => t.drill_mm);
  if (pins.length === 0) return { shapes: [], labels: [] };
  const { partId } = part;
  const shapes = pins.flatMap((t): SceneShape[] => {
    const at = toBoard(part, t.land.x, t.land.y);
    return [
      { style: 'land', points: [at], r: Math.min(t.land.w, t.land.h) / 2, partId },
      { style: 'lead', points: [at], r: 0.35 * (t.drill_mm ?? 0), partId },
    ];
  });
  const places = pins.map((t) => toBoard(part, t.land.x, t.land.y));
  const [xs, ys] = [places.map(([x]) => x), places.map(([, y]) => y)];
  const [x0, x1, y0, y1] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const room = { w: Math.max(x1 - x0 - 2, 3), h: Math.max(y1 - y0 - 2, 2.2) };
  const label: SceneLabel = {
    text: partName(part),
    x: (x0 + x1) / 2,
    y: (y0 + y1) / 2,
    ...room,
    partId,
    through: true,
  };
  return { shapes, labels: [label] };
}

function terminalShapes(part: PlacedPart, t: Terminal): SceneShape[] {
  const shapes: SceneShape[] = [{ style: 'land', points: cornersOnBoard(part, t.land), partId: part.partId }];
  if (t.lead) shapes.push({ style: 'lead', points: cornersOnBoard(part, t.lead), partId: part.partId });
  return shapes;
}

/** Outline with the corner of pin 1 cut off, polarity marks on top. */
function bodyShapes(part: PlacedPart, pkg: PackageModel): SceneShape[] {
  const { l, w } = pkg.body;
  const partId = part.partId;
  const at = (x: number, y: number) => toBoard(part, x, y);
  const style = pkg.texture;
  if (pkg.shape === 'round') {
    const r = Math.min(l, w) / 2;
    const body: SceneShape = { style, points: [at(0, 0)], r, partId };
    if (pkg.polarity !== 'minus-stripe') return [body];
    const chord: [number, number][] = [];
    for (let n = 0; n <= 12; n++) {
      const a = Math.PI - 1 + (2 * n) / 12;
      chord.push(at(r * Math.cos(a), r * Math.sin(a)));
    }
    return [body, { style: 'mark', points: chord, partId }];
  }
  const end = pkg.texture === 'ceramic' ? l * 0.28 : 0;
  const [x0, x1] = [-l / 2 + end, l / 2 - end];
  const cut = pkg.polarity === 'pin1' ? Math.min(l, w) * 0.16 : 0;
  const outline: [number, number][] = [
    at(x0 + cut, -w / 2),
    at(x1, -w / 2),
    at(x1, w / 2),
    at(x0, w / 2),
    at(x0, -w / 2 + cut),
  ];
  const shapes: SceneShape[] = [{ style, points: outline, partId }];
  if (pkg.polarity === 'cathode' || pkg.polarity === 'plus-stripe') {
    // terminal 1 is the cathode of diodes and the plus of moulded tantalum
    const band = l * 0.14;
    const x = -l / 2 + l * 0.08;
    shapes.push({
      style: 'mark',
      points: [at(x, -w / 2), at(x + band, -w / 2), at(x + band, w / 2), at(x, w / 2)],
      partId,
    });
  }
  return shapes;
}

function labelOf(part: PlacedPart, pkg: PackageModel): SceneLabel {
  const turned = Math.abs(Math.round(part.rotation_deg / 90)) % 2 === 1;
  const [w, h] = turned ? [pkg.body.w, pkg.body.l] : [pkg.body.l, pkg.body.w];
  return { text: partName(part), x: part.x_mm, y: part.y_mm, w, h, partId: part.partId };
}
