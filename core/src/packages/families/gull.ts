/** Bodies with formed legs: two rows, four sides, J-leads. */
import { choice, count, defineFamily, mm, stands } from '../family.ts';
import type { PackageShape, Rect, Terminal } from '../packageModel.ts';
import { legCapacity, legConductance, mouldedBody, onLand, underBody } from './figures.ts';

/** Position of terminal `n` (0-based) on four sides of which the upright ones hold `along` and the level ones `over`, `out` and `outOver` from the middle. */
function onUnequalSides(
  n: number,
  [along, over]: readonly [number, number],
  pitch: number,
  [out, outOver]: readonly [number, number],
): { x: number; y: number; upright: boolean } {
  const starts = [0, along, along + over, 2 * along + over];
  const side = starts.findLastIndex((start) => n >= start);
  const at = (n - starts[side] - ((side % 2 ? over : along) - 1) / 2) * pitch;
  const [x, y] = [
    [-out, at],
    [at, outOver],
    [out, -at],
    [-at, -outOver],
  ][side];
  return { x, y, upright: side % 2 === 1 };
}

/** Position of terminal `n` (0-based, of `per` a side) on four sides, and whether its row runs along x. */
export function onFourSides(
  n: number,
  per: number,
  pitch: number,
  out: number,
): { x: number; y: number; upright: boolean } {
  const side = Math.floor(n / per);
  const along = ((n % per) - (per - 1) / 2) * pitch;
  // left downwards, bottom rightwards, right upwards, top leftwards
  const [x, y] = [
    [-out, along],
    [along, out],
    [out, -along],
    [-along, -out],
  ][side];
  return { x, y, upright: side % 2 === 1 };
}

const across = (upright: boolean, x: number, y: number, depth: number, breadth: number): Rect =>
  upright ? { x, y, w: breadth, h: depth } : { x, y, w: depth, h: breadth };

export const gullRows = defineFamily({
  id: 'gull-rows',
  title: 'Two rows of gull-wing legs (SOIC, SSOP, TSSOP, SOT)',
  params: {
    pins: count('Legs on the full grid', 8, 2, 120),
    pitch: mm('Pitch', 1.27, 0.3, 12),
    l: mm('Body across the rows', 3.9, 0.8, 30),
    w: mm('Body along the rows', 4.9, 0.8, 60),
    h: mm('Height', 1.5, 0.3, 8),
    span: mm('Over the legs', 6, 1, 40),
    lead: mm('Leg width', 0.41, 0.1, 2),
    gap: mm('Gap under the body', 0.15, 0, 2),
    /** SOT: legs that the grid has and the part has not. */
    absent: choice('Legs absent', ['none', '2 4 6', '5', '4', '2'], 'none'),
    pad: choice('Pad under the body', ['none', 'half', 'most'], 'none'),
    mark: choice('Marked', ['pin1', 'cathode'], 'pin1'),
    limit: stands('Stands', ['ic', 'opto-smd', 'relay-smd', 'choke-smd', 'switch-smd', 'pot-smd', 'module'], 'ic'),
  },
  refuse: (p) =>
    p.pins % 2
      ? 'legs stand in two equal rows: an even number'
      : p.span <= p.l
        ? 'the legs end outside the body: a span larger than the body'
        : (p.pins / 2 - 1) * p.pitch > p.w + 1
          ? 'the rows are longer than the body'
          : undefined,
  build(p, f): PackageShape {
    const perSide = p.pins / 2;
    const reach = (p.span - p.l) / 2;
    // published patterns put the land of a long leg further in
    const inward = reach * 0.25 + Math.max(0, reach - 1.05) * 0.4;
    const absent = p.absent === 'none' ? [] : p.absent.split(' ').map(Number);
    const [landW, landH] = [reach * 0.9 + 0.5, p.lead * 1.35];
    const terminals: Terminal[] = [];
    for (let n = 0; n < p.pins; n++) {
      if (absent.includes(n + 1)) continue;
      const left = n < perSide;
      const y = ((left ? n : p.pins - 1 - n) - (perSide - 1) / 2) * p.pitch;
      const sign = left ? -1 : 1;
      terminals.push({
        id: String(terminals.length + 1),
        kind: 'gull',
        lead: { x: sign * (p.l / 2 + reach / 2), y, w: reach, h: p.lead },
        land: { x: sign * (p.span / 2 - inward), y, w: landW, h: landH },
        volume_mm3: onLand({ w: landW, h: landH }),
        G_W_K: f.G ?? legConductance(p.lead),
        C_add_J_K: f.C_add ?? legCapacity(p.lead, reach * 2),
      });
    }
    if (p.pad !== 'none') {
      const share = p.pad === 'half' ? 0.5 : 0.75;
      const land = { x: 0, y: 0, w: p.l * 0.65, h: p.w * share };
      terminals.push({
        id: 'EP',
        kind: 'pad',
        land,
        volume_mm3: underBody(land),
        G_W_K: f.pad?.G ?? 0.041 * land.w * land.h,
        C_add_J_K: 0,
      });
    }
    return mouldedBody(p.l, p.w, p.h, p.gap, { terminals, polarity: p.mark, C: f.C, limit: p.limit });
  },
});

export const gullFour = defineFamily({
  id: 'gull-four',
  title: 'Four sides of gull-wing legs (QFP)',
  params: {
    pins: count('Legs', 44, 16, 304),
    pitch: mm('Pitch', 0.8, 0.3, 1.3),
    body: mm('Body side, across', 10, 3, 40),
    span: mm('Over the legs', 12, 4, 45),
    h: mm('Height', 1.4, 0.5, 5),
    lead: mm('Leg width', 0.37, 0.1, 0.6),
    gap: mm('Gap under the body', 0.12, 0, 1),
    /** Bodies that are no square. */
    longer: mm('Body longer along, by', 0, -30, 30),
    more: count('Legs more on each upright side', 0, -60, 60),
  },
  refuse: (p) =>
    p.pins % 4
      ? 'legs stand on four equal sides: a multiple of four'
      : p.span <= p.body
        ? 'the legs end outside the body: a span larger than the body'
        : p.more % 2 || Math.abs(p.more) >= p.pins / 2
          ? 'legs more on a side: an even number, fewer than there are'
          : ((p.pins / 2 - p.more) / 2 - 1) * p.pitch > p.body
            ? 'the rows are longer than the body'
            : undefined,
  build(p, f): PackageShape {
    const sides = [(p.pins / 2 + p.more) / 2, (p.pins / 2 - p.more) / 2] as const;
    const reach = (p.span - p.body) / 2;
    const depth = reach * 0.9 + 0.4;
    const at = (n: number, out: number) => onUnequalSides(n, sides, p.pitch, [out, out + p.longer / 2]);
    const terminals = Array.from({ length: p.pins }, (_, n): Terminal => {
      const land = at(n, p.span / 2 - 0.35);
      const lead = at(n, p.body / 2 + reach / 2);
      return {
        id: String(n + 1),
        kind: 'gull',
        land: across(land.upright, land.x, land.y, depth, p.lead * 1.2),
        lead: across(lead.upright, lead.x, lead.y, reach, p.lead),
        volume_mm3: onLand({ w: depth, h: p.lead * 1.2 }),
        G_W_K: f.G ?? legConductance(p.lead) * 0.75,
        C_add_J_K: f.C_add ?? legCapacity(p.lead, reach * 2),
      };
    });
    return mouldedBody(p.body, p.body + p.longer, p.h, p.gap, { terminals, polarity: 'pin1', C: f.C });
  },
});

/** J-leads curl under the body; pin 1 of a four-sided one is the middle of the first side, as marked there. */
export const jLeads = defineFamily({
  id: 'j-leads',
  title: 'J-leads (PLCC, SOJ)',
  params: {
    pins: count('Legs', 44, 4, 124),
    sides: choice('Sides with legs', ['2', '4'], '4'),
    pitch: mm('Pitch', 1.27, 0.5, 2),
    l: mm('Body across', 16.6, 3, 40),
    w: mm('Body along', 16.6, 3, 40),
    span: mm('Over the legs', 17.5, 4, 45),
    h: mm('Height', 4.4, 1, 8),
    lead: mm('Leg width', 0.43, 0.2, 1),
    more: count('Legs more on each upright side', 0, -30, 30),
  },
  refuse: (p) => {
    const per = p.pins / Number(p.sides);
    if (!Number.isInteger(per)) return 'legs stand in equal rows';
    if ((per - 1) * p.pitch > p.w) return 'the rows are longer than the body';
    if (p.more % 2 || Math.abs(p.more) >= p.pins / 2)
      return 'legs more on a side: an even number, fewer than there are';
    return p.span <= p.l ? 'the legs end outside the body: a span larger than the body' : undefined;
  },
  build(p, f): PackageShape {
    const four = p.sides === '4';
    const per = p.pins / (four ? 4 : 2);
    const sides = four ? ([(p.pins / 2 + p.more) / 2, (p.pins / 2 - p.more) / 2] as const) : ([per, 0] as const);
    const outer = p.span / 2 + (p.w - p.l) / 2;
    // pin 1 of a four-sided one is the middle of the top side where sides differ, of the left one where they do not
    const first = !four ? 0 : p.more === 0 ? Math.floor(per / 2) : 2 * sides[0] + sides[1] + Math.floor(sides[1] / 2);
    const [depth, breadth] = [2.0, p.lead * 1.4];
    const terminals = Array.from({ length: p.pins }, (_, k): Terminal => {
      const n = (k + first) % p.pins;
      const on = (inset: number) => onUnequalSides(n, sides, p.pitch, [p.span / 2 - inset, outer - inset]);
      const at = on(0.65);
      const lead = on(0.25);
      return {
        id: String(k + 1),
        kind: 'jlead',
        land: across(at.upright, at.x, at.y, depth, breadth),
        lead: across(lead.upright, lead.x, lead.y, 0.5, p.lead),
        volume_mm3: onLand({ w: depth, h: breadth }),
        G_W_K: f.G ?? legConductance(p.lead) * 0.7,
        C_add_J_K: f.C_add ?? legCapacity(p.lead, 4),
      };
    });
    return mouldedBody(p.l, p.w, p.h, 0.6, { terminals, polarity: 'pin1', C: f.C });
  },
});
