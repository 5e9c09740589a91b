/** Bodies whose joints lie under the rim or under the body: QFN, DFN, modules, ball grids. */
import { choice, count, defineFamily, mm, stands } from '../family.ts';
import type { PackageShape, Rect, Terminal } from '../packageModel.ts';
import { onFourSides } from './gull.ts';
import { mouldedBody, onLand, underBody } from './figures.ts';

const rimJoint = (id: string, land: Rect): Terminal => ({
  id,
  kind: 'leadless',
  land,
  volume_mm3: onLand(land),
  G_W_K: 8e-3,
  C_add_J_K: 0.05e-3,
});

const centrePad = (w: number, h: number, x = 0): Terminal => ({
  id: 'EP',
  kind: 'pad',
  land: { x, y: 0, w, h },
  volume_mm3: underBody({ w, h }),
  G_W_K: 0.041 * w * h,
  C_add_J_K: 0,
});

export const leadlessFour = defineFamily({
  id: 'leadless-four',
  title: 'Four sides of lands under the rim (QFN)',
  params: {
    pins: count('Lands round the rim', 24, 8, 124),
    pitch: mm('Pitch', 0.5, 0.3, 1.3),
    body: mm('Body side', 4, 1.5, 14),
    h: mm('Height', 0.85, 0.3, 2),
    lead: mm('Land width', 0.25, 0.1, 0.6),
    pad: mm('Centre pad side (0: none)', 2.6, 0, 12),
  },
  refuse: (p) =>
    p.pins % 4
      ? 'lands lie on four equal sides: a multiple of four'
      : (p.pins / 4 - 1) * p.pitch > p.body
        ? 'the rows are longer than the body'
        : p.pad > p.body - 0.9
          ? 'the pad leaves no room for the lands round it'
          : undefined,
  build(p, f): PackageShape {
    const per = p.pins / 4;
    const terminals = Array.from({ length: p.pins }, (_, n): Terminal => {
      const { x, y, upright } = onFourSides(n, per, p.pitch, p.body / 2 - 0.05);
      const breadth = p.lead * 1.2;
      return rimJoint(String(n + 1), { x, y, w: upright ? breadth : 0.8, h: upright ? 0.8 : breadth });
    });
    if (p.pad > 0) terminals.push(centrePad(p.pad, p.pad));
    return mouldedBody(p.body, p.body, p.h, 0.05, { terminals, polarity: 'pin1', C: f.C });
  },
});

export const leadlessRows = defineFamily({
  id: 'leadless-rows',
  title: 'Two rows of lands under the rim (DFN, SON, power DFN)',
  params: {
    pins: count('Lands', 8, 2, 40),
    pitch: mm('Pitch', 0.5, 0.3, 2.6),
    l: mm('Body across the rows', 3, 0.4, 14),
    w: mm('Body along the rows', 3, 0.4, 14),
    h: mm('Height', 0.85, 0.3, 2.5),
    lead: mm('Land width', 0.25, 0.1, 1.2),
    padL: mm('Pad across (0: none)', 1.6, 0, 12),
    padW: mm('Pad along (0: none)', 2.4, 0, 12),
    /** Power DFN: the drain's lands are fingers of the pad, which lies towards them. */
    second: choice('Second row', ['apart', 'fingers of the pad'], 'apart'),
    mark: choice('Marked', ['pin1', 'none', 'cathode'], 'pin1'),
    limit: stands(
      'Stands',
      ['ic', 'crystal-smd', 'resonator-smd', 'mic-mems', 'sensor-port', 'led-smd', 'module'],
      'ic',
    ),
  },
  refuse: (p) =>
    p.pins % 2
      ? 'lands lie in two equal rows: an even number'
      : (p.pins / 2 - 1) * p.pitch > p.w
        ? 'the rows are longer than the body'
        : undefined,
  build(p, f): PackageShape {
    const per = p.pins / 2;
    // lands keep their distance from the pad, or from each other
    const outer = p.l / 2 + 0.35;
    const inner = Math.max(p.padL > 0 ? p.padL / 2 + 0.2 : 0.15, outer - 0.8);
    const depth = Math.max(0.25, outer - inner);
    const fingers = p.second === 'fingers of the pad';
    const padX = fingers ? outer - depth - p.padL / 2 : 0;
    const terminals = Array.from({ length: p.pins }, (_, n): Terminal => {
      const { x, y } = onFourSides(n < per ? n : n + per, per, p.pitch, outer - depth / 2);
      return rimJoint(String(n + 1), { x, y, w: depth, h: p.lead * 1.2 });
    });
    if (p.padL > 0 && p.padW > 0) terminals.push(centrePad(p.padL, p.padW, padX));
    return mouldedBody(p.l, p.w, p.h, 0.05, { terminals, polarity: p.mark, C: f.C, limit: p.limit });
  },
});

/** A small board with half holes along its edges; about half of its height is parts under a can. */
export const castellated = defineFamily({
  id: 'castellated',
  title: 'Module with half holes at its edges',
  params: {
    pins: count('Half holes', 24, 4, 100),
    sides: choice('Sides', ['2', '4'], '2'),
    pitch: mm('Pitch', 1.27, 0.5, 3),
    l: mm('Across the rows', 16, 5, 60),
    w: mm('Along the rows', 20, 5, 60),
    h: mm('Height', 3, 0.8, 15),
    can: choice('Metal can on top', ['yes', 'no'], 'yes'),
  },
  refuse: (p) => {
    const per = p.pins / Number(p.sides);
    if (!Number.isInteger(per)) return 'half holes stand in equal rows';
    return (per - 1) * p.pitch > p.w || (p.sides === '4' && (per - 1) * p.pitch > p.l)
      ? 'the rows are longer than the module'
      : undefined;
  },
  build(p, f): PackageShape {
    const per = p.pins / Number(p.sides);
    const terminals = Array.from({ length: p.pins }, (_, n): Terminal => {
      const slot = p.sides === '4' || n < per ? n : n + per;
      const side = onFourSides(slot, per, p.pitch, 0);
      const out = (side.upright ? p.w : p.l) / 2 + 0.25;
      const { x, y, upright } = onFourSides(slot, per, p.pitch, out);
      const breadth = p.pitch * 0.62;
      return {
        id: String(n + 1),
        kind: 'castellation',
        land: { x, y, w: upright ? breadth : 1.5, h: upright ? 1.5 : breadth },
        volume_mm3: onLand({ w: 1.5, h: breadth }),
        // through the module's own laminate and copper
        G_W_K: f.G ?? 6e-3,
        C_add_J_K: f.C_add ?? 0.5e-3,
      };
    });
    return {
      shape: 'rect',
      body: { l: p.l, w: p.w, h: p.h, gap: 0.06 },
      texture: p.can === 'yes' ? 'metal' : 'mould',
      polarity: 'pin1',
      C_J_K: f.C ?? p.l * p.w * (1.0 * 1.9e-3 + (p.h - 1) * 0.5e-3),
      terminals,
      limit: 'module',
    };
  },
});

export const ballGrid = defineFamily({
  id: 'ball-grid',
  title: 'Ball grid (as a neighbour, or as a target that needs a machine)',
  params: {
    columns: count('Balls across', 10, 2, 40),
    rows: count('Balls along', 10, 2, 40),
    pitch: mm('Pitch', 0.8, 0.3, 1.5),
    l: mm('Body across', 9, 1.5, 50),
    w: mm('Body along', 9, 1.5, 50),
    h: mm('Height', 1.2, 0.4, 5),
    empty: count('Places without a ball, from the middle', 0, 0, 1500),
    balls: choice('Balls', ['bga-sac', 'bga-leaded', 'bga-bi', 'bga-underfill'], 'bga-sac'),
  },
  refuse: (p) =>
    (p.columns - 1) * p.pitch > p.l || (p.rows - 1) * p.pitch > p.w
      ? 'the grid is larger than the body'
      : p.empty > p.columns * p.rows - 4
        ? 'no ball is left'
        : undefined,
  build(p, f): PackageShape {
    const d = p.pitch * 0.5;
    const letters = 'ABCDEFGHJKLMNPRTUVWY';
    const rowName = (r: number) => (r < 20 ? letters[r] : `${letters[Math.floor(r / 20) - 1]}${letters[r % 20]}`);
    const away = (k: number) =>
      Math.max(Math.abs((k % p.columns) - (p.columns - 1) / 2), Math.abs(Math.floor(k / p.columns) - (p.rows - 1) / 2));
    const places = Array.from({ length: p.columns * p.rows }, (_, k) => k).sort((a, b) => away(a) - away(b) || a - b);
    const empty = new Set(places.slice(0, p.empty));
    const terminals: Terminal[] = [];
    for (let r = 0; r < p.rows; r++)
      for (let c = 0; c < p.columns; c++)
        if (!empty.has(r * p.columns + c))
          terminals.push({
            id: `${rowName(r)}${c + 1}`,
            kind: 'ball',
            round: true,
            land: {
              x: (c - (p.columns - 1) / 2) * p.pitch,
              y: (r - (p.rows - 1) / 2) * p.pitch,
              w: d,
              h: d,
            },
            volume_mm3: (Math.PI / 6) * d ** 3 + (Math.PI / 4) * onLand({ w: d, h: d }),
            G_W_K: f.G ?? 4e-3,
            C_add_J_K: 0.02e-3,
          });
    return mouldedBody(p.l, p.w, p.h, d * 0.7, { terminals, polarity: 'pin1', C: f.C, limit: p.balls });
  },
});
