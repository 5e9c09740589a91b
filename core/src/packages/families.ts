/** Package families: from a few numbers to a full `PackageModel`. Sizes in mm. */
import type { PackageModel, Polarity, Terminal, Texture } from './packageModel.ts';

/** Bodies without a measured figure: mould and ceramics carry about 2 J/(cm³·K). */
const bodyCapacity = (l: number, w: number, h: number) => l * w * h * 2e-3;

interface Common {
  id: string;
  label?: string;
  limit?: string;
  source: string;
}

const finish = (
  c: Common,
  rest: Omit<PackageModel, 'id' | 'label' | 'limit' | 'source'> & { limit?: string },
): PackageModel => ({
  limit: 'ic-body',
  ...rest,
  id: c.id,
  label: c.label ?? c.id,
  ...(c.limit ? { limit: c.limit } : {}),
  source: c.source,
});

interface JointFigures {
  V: number;
  G: number;
  C_add: number;
}

/** Two rows of gull-wing legs (SOIC, TSSOP, SOT-23-n): rows left and right. */
export function twoRows(
  p: Common &
    JointFigures & {
      pins: number;
      pitch: number;
      l: number;
      w: number;
      h: number;
      span: number;
      lead: number;
      gap: number;
      C?: number;
      /** Pins absent from the regular grid (SOT-23: 3 legs on a grid of 6). */
      skip?: number[];
    },
): PackageModel {
  const perSide = p.pins / 2;
  const reach = (p.span - p.l) / 2;
  const terminals: Terminal[] = [];
  let number = 0;
  for (let n = 0; n < p.pins; n++) {
    if (p.skip?.includes(n)) continue;
    const left = n < perSide;
    const row = left ? n : p.pins - 1 - n;
    const y = (row - (perSide - 1) / 2) * p.pitch;
    const sign = left ? -1 : 1;
    terminals.push({
      id: String(++number),
      kind: 'gull',
      lead: { x: sign * (p.l / 2 + reach / 2), y, w: reach, h: p.lead },
      land: { x: sign * (p.span / 2 - reach * 0.25), y, w: reach * 0.9 + 0.5, h: p.lead * 1.35 },
      volume_mm3: p.V,
      G_W_K: p.G,
      C_add_J_K: p.C_add,
    });
  }
  return finish(p, {
    shape: 'rect',
    body: { l: p.l, w: p.w, h: p.h, gap: p.gap },
    texture: 'mould',
    polarity: 'pin1',
    C_J_K: p.C ?? bodyCapacity(p.l, p.w, p.h),
    terminals,
  });
}

/** Four sides of legs (QFP) or edge lands with a centre pad (QFN). */
export function fourSides(
  p: Common &
    JointFigures & {
      pins: number;
      pitch: number;
      body: number;
      h: number;
      gap: number;
      C?: number;
      /** Over all legs; QFN has its lands under the body's rim. */
      span?: number;
      lead: number;
      pad?: { size: number; V: number; G: number };
    },
): PackageModel {
  const per = p.pins / 4;
  const leadless = p.span === undefined;
  const reach = leadless ? 0.4 : ((p.span as number) - p.body) / 2;
  const centre = leadless ? p.body / 2 - 0.05 : p.body / 2 + reach * 0.6;
  const depth = leadless ? 0.8 : reach * 0.9 + 0.4;
  const joint = { volume_mm3: p.V, G_W_K: p.G, C_add_J_K: p.C_add };
  const terminals: Terminal[] = [];
  for (let n = 0; n < p.pins; n++) {
    const side = Math.floor(n / per);
    const along = ((n % per) - (per - 1) / 2) * p.pitch;
    // left downwards, bottom rightwards, right upwards, top leftwards
    const [x, y] = [
      [-centre, along],
      [along, centre],
      [centre, -along],
      [-along, -centre],
    ][side];
    const upright = side % 2 === 1;
    const [w, h] = upright ? [p.lead, depth] : [depth, p.lead];
    const out = p.body / 2 + reach / 2;
    terminals.push({
      id: String(n + 1),
      kind: leadless ? 'leadless' : 'gull',
      land: { x, y, w: upright ? w * 1.2 : w, h: upright ? h : h * 1.2 },
      lead: leadless
        ? undefined
        : {
            x: upright ? x : Math.sign(x) * out,
            y: upright ? Math.sign(y) * out : y,
            w: upright ? p.lead : reach,
            h: upright ? reach : p.lead,
          },
      ...joint,
    });
  }
  if (p.pad)
    terminals.push({
      id: 'EP',
      kind: 'pad',
      land: { x: 0, y: 0, w: p.pad.size, h: p.pad.size },
      volume_mm3: p.pad.V,
      G_W_K: p.pad.G,
      C_add_J_K: 0,
    });
  return finish(p, {
    shape: 'rect',
    body: { l: p.body, w: p.body, h: p.h, gap: p.gap },
    texture: 'mould',
    polarity: 'pin1',
    C_J_K: p.C ?? bodyCapacity(p.body, p.body, p.h),
    terminals,
  });
}

/** Two end terminals (chips, moulded capacitors, diodes, inductors). */
export function twoEnds(
  p: Common &
    JointFigures & {
      l: number;
      w: number;
      h: number;
      gap?: number;
      C?: number;
      cap: number;
      texture: Texture;
      polarity?: Polarity;
      kind?: 'chip' | 'can';
      shape?: 'rect' | 'round';
    },
): PackageModel {
  const terminal = (id: string, sign: number): Terminal => ({
    id,
    kind: p.kind ?? 'chip',
    lead: { x: sign * (p.l / 2 - p.cap / 2), y: 0, w: p.cap, h: p.w * (p.kind === 'can' ? 0.3 : 1) },
    land: {
      x: sign * (p.l / 2),
      y: 0,
      w: p.cap + p.l * 0.15 + 0.25,
      h: p.w * (p.kind === 'can' ? 0.3 : 1.05),
    },
    volume_mm3: p.V,
    G_W_K: p.G,
    C_add_J_K: p.C_add,
  });
  return finish(p, {
    shape: p.shape ?? 'rect',
    body: { l: p.l, w: p.w, h: p.h, gap: p.gap ?? 0.05 },
    texture: p.texture,
    polarity: p.polarity ?? 'none',
    C_J_K: p.C ?? bodyCapacity(p.l, p.w, p.h),
    terminals: [terminal('1', -1), terminal('2', 1)],
    limit: p.limit ?? 'ceramic',
  });
}

/** Power package with a soldered tab (DPAK, D2PAK): legs at the bottom, tab on top. */
export function tabbed(
  p: Common & {
    l: number;
    w: number;
    h: number;
    C: number;
    legs: string[];
    pitch: number;
    leg: JointFigures & { width: number; reach: number };
    tab: { w: number; h: number; V: number; C: number; G: number };
  },
): PackageModel {
  const legY = p.w / 2 + p.leg.reach / 2;
  return finish(p, {
    shape: 'rect',
    body: { l: p.l, w: p.w, h: p.h, gap: 0.05 },
    texture: 'mould',
    polarity: 'pin1',
    C_J_K: p.C,
    terminals: [
      ...p.legs.map((id): Terminal => {
        const x = (Number(id) - 2) * p.pitch;
        return {
          id,
          kind: 'leg',
          lead: { x, y: legY, w: p.leg.width, h: p.leg.reach },
          land: { x, y: legY + p.leg.reach * 0.15, w: p.leg.width * 1.4, h: p.leg.reach * 0.9 },
          volume_mm3: p.leg.V,
          G_W_K: p.leg.G,
          C_add_J_K: p.leg.C_add,
        };
      }),
      {
        id: 'TAB',
        kind: 'tab',
        lead: { x: 0, y: -p.w / 2 - 0.6, w: p.tab.w * 0.9, h: 1.2 },
        land: { x: 0, y: -p.w / 2 - 1.2 + p.tab.h / 2, w: p.tab.w, h: p.tab.h },
        volume_mm3: p.tab.V,
        G_W_K: p.tab.G,
        C_add_J_K: p.tab.C,
      },
    ],
  });
}

/** A row of through pins or lands under a plastic body. */
export function connector(
  p: Common & { pins: number; pitch: number; l: number; w: number; h: number; rows?: 1 | 2 },
): PackageModel {
  const rows = p.rows ?? 1;
  const perRow = Math.ceil(p.pins / rows);
  return finish(p, {
    shape: 'rect',
    body: { l: p.l, w: p.w, h: p.h, gap: 0.2 },
    texture: 'plastic',
    polarity: 'pin1',
    // half of a connector's box is air
    C_J_K: p.l * p.w * p.h * 1e-3,
    limit: p.limit ?? 'unknown-plastic',
    terminals: Array.from({ length: p.pins }, (_, n): Terminal => {
      const x = ((n % perRow) - (perRow - 1) / 2) * p.pitch;
      const y = rows === 1 ? p.w * 0.2 : (Math.floor(n / perRow) - 0.5) * p.w * 0.45;
      const land = { x, y, w: p.pitch * 0.6, h: p.pitch * 0.6 };
      return { id: String(n + 1), kind: 'pin', land, volume_mm3: 0.8, G_W_K: 3e-3, C_add_J_K: 2e-3 };
    }),
  });
}

/** A body that only stands there: light guide, cell, shield, bar. */
export function bystander(
  p: Common & {
    l: number;
    w: number;
    h: number;
    texture: Texture;
    shape?: 'rect' | 'round';
    polarity?: Polarity;
    gap?: number;
    C?: number;
  },
): PackageModel {
  return finish(p, {
    shape: p.shape ?? 'rect',
    body: { l: p.l, w: p.w, h: p.h, gap: p.gap ?? 0.2 },
    texture: p.texture,
    polarity: p.polarity ?? 'none',
    C_J_K: p.C ?? bodyCapacity(p.l, p.w, p.h),
    terminals: [],
  });
}
