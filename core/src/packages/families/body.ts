/** Bodies that only stand there, and flex tails. */
import { LIMITS } from '../../materials/index.ts';
import { choice, count, defineFamily, mm, stands } from '../family.ts';
import { POLARITIES, TEXTURES, type PackageShape, type Terminal } from '../packageModel.ts';
import { hollowCapacity, mouldCapacity, onLand, woundCapacity } from './figures.ts';

export const box = defineFamily({
  id: 'box',
  title: 'A neighbour: only a box, what it is and how high',
  params: {
    outline: choice('Outline', ['box', 'round'], 'box'),
    l: mm('Length', 10, 0.3, 200),
    w: mm('Width', 5, 0.3, 200),
    h: mm('Height', 5, 0.02, 100),
    stuff: choice('Of', TEXTURES, 'plastic'),
    mark: choice('Marked', POLARITIES, 'none'),
    limit: stands('Stands', [...LIMITS.keys()], 'plastic-tht'),
  },
  build(p, f): PackageShape {
    const body = {
      metal: woundCapacity,
      plastic: mouldCapacity,
      glass: mouldCapacity,
      mould: mouldCapacity,
      ceramic: woundCapacity,
    }[p.stuff];
    return {
      shape: p.outline === 'round' ? 'round' : 'rect',
      body: { l: p.l, w: p.w, h: p.h, gap: Math.min(0.2, p.h) },
      texture: p.stuff,
      polarity: p.mark,
      C_J_K: f.C ?? body(p.l, p.w, p.h),
      terminals: [],
      limit: p.limit,
    };
  },
});

/** A solder spot of a shield's frame, along its side × across it, mm. */
const SPOT = { w: 1.6, h: 0.8 };

export const shieldCan = defineFamily({
  id: 'shield-can',
  title: 'Shield: sheet-metal frame with lid',
  params: {
    l: mm('Length', 14, 2, 100),
    w: mm('Width', 10, 2, 100),
    h: mm('Height', 2, 0.5, 15),
    sheet: mm('Sheet', 0.2, 0.1, 1),
    spots: count('Solder spots a side', 3, 1, 30),
  },
  build(p, f): PackageShape {
    const spot = (id: string, x: number, y: number, upright: boolean): Terminal => ({
      id,
      kind: 'castellation',
      land: upright ? { x, y, ...SPOT } : { x, y, w: SPOT.h, h: SPOT.w },
      volume_mm3: onLand(SPOT),
      G_W_K: f.G ?? 20e-3,
      C_add_J_K: 0.5e-3,
    });
    const terminals: Terminal[] = [];
    for (let s = 0; s < 4; s++)
      for (let n = 0; n < p.spots; n++) {
        const at = (n + 0.5) / p.spots - 0.5;
        const id = String(terminals.length + 1);
        if (s % 2) terminals.push(spot(id, at * p.l, ((s === 1 ? 1 : -1) * p.w) / 2, true));
        else terminals.push(spot(id, ((s === 0 ? -1 : 1) * p.l) / 2, at * p.w, false));
      }
    const sheet_mm2 = p.l * p.w + 2 * (p.l + p.w) * p.h;
    return {
      shape: 'rect',
      body: { l: p.l, w: p.w, h: p.h, gap: Math.max(0.3, p.h - p.sheet) },
      texture: 'metal',
      polarity: 'none',
      C_J_K: f.C ?? sheet_mm2 * p.sheet * 3.6e-3,
      terminals,
      limit: 'shield',
    };
  },
});

export const flexTail = defineFamily({
  id: 'flex-tail',
  title: 'Flex tail soldered flat',
  params: {
    ways: count('Ways', 8, 1, 80),
    pitch: mm('Pitch', 1, 0.3, 5),
    w: mm('Length on the board', 12, 2, 80),
    film: choice('Film', ['pet', 'polyimide'], 'pet'),
  },
  build(p, f): PackageShape {
    const l = (p.ways + 1) * p.pitch;
    return {
      shape: 'rect',
      body: { l, w: p.w, h: 0.2, gap: 0.02 },
      texture: 'plastic',
      polarity: 'pin1',
      C_J_K: f.C ?? hollowCapacity(l, p.w, 0.2) * 1.6,
      terminals: Array.from({ length: p.ways }, (_, n): Terminal => {
        const land = { x: (n - (p.ways - 1) / 2) * p.pitch, y: -p.w / 2 + 1.5, w: p.pitch * 0.55, h: 3 };
        return {
          id: String(n + 1),
          kind: 'flex',
          land,
          volume_mm3: onLand(land),
          G_W_K: f.G ?? 1e-3,
          C_add_J_K: 0.2e-3,
        };
      }),
      limit: p.film === 'pet' ? 'flex-pet' : 'flex-pi',
    };
  },
});
