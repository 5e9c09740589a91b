/** Two terminals at the ends: chips, MELF, moulded capacitors and diodes, cans, coils, crystals. */
import { choice, defineFamily, mm, stands } from '../family.ts';
import { flatCan } from '../../materials/index.ts';
import { POLARITIES, TEXTURES, type PackageShape, type Terminal } from '../packageModel.ts';
import { ceramicCapacity, coilCapacity, mouldCapacity, mouldedBody, onLand, woundCapacity } from './figures.ts';

/** Lands of large chips reach further under the part than those of small ones. */
const inward = (l: number) => Math.min(0.17, Math.max(0, 0.2 * (l / 2 - 0.75)));

export const twoEnds = defineFamily({
  id: 'two-ends',
  title: 'Metal at both ends (chip, MELF, coil, crystal)',
  params: {
    l: mm('Length', 1.6, 0.2, 30),
    w: mm('Width', 0.8, 0.1, 30),
    h: mm('Height', 0.64, 0.1, 20),
    cap: mm('Metal at each end', 0.35, 0.05, 6),
    stuff: choice('Body of', TEXTURES, 'ceramic'),
    mark: choice('Marked', POLARITIES, 'none'),
    limit: stands(
      'Stands',
      [
        'bare',
        'mlcc',
        'ic',
        'axial',
        'coil-chip',
        'coil-smd-pressed',
        'coil-smd-glued',
        'choke-smd',
        'crystal-smd',
        'resonator-smd',
        'led-smd',
        'film-pen',
        'film-pps',
        'buzzer-smd',
        'supercap-smd',
        'plastic-flat',
        'ptc-smd',
      ],
      'bare',
    ),
  },
  refuse: (p) => (p.cap * 2 >= p.l ? 'the ends leave nothing between them' : undefined),
  build(p, f): PackageShape {
    // `magnet`: enamelled wire, as it was written before
    const wound = /^((coil|choke)-smd|magnet$)/.test(p.limit);
    const body = wound
      ? coilCapacity
      : p.stuff === 'ceramic'
        ? ceramicCapacity
        : p.stuff === 'metal'
          ? woundCapacity
          : mouldCapacity;
    // a large coil stands on two pads far narrower than itself (makers' patterns of 3 to 12 mm)
    const land = wound
      ? { w: 0.35 + 0.85 * p.cap, h: Math.min(p.w, 3.2 + 0.17 * p.w) }
      : { w: p.cap + p.l * 0.15 + 0.25, h: p.w * 1.05 };
    const terminal = (id: string, sign: number): Terminal => ({
      id,
      kind: 'chip',
      lead: { x: sign * (p.l / 2 - p.cap / 2), y: 0, w: p.cap, h: p.w },
      land: { x: sign * (p.l / 2 - inward(p.l)), y: 0, ...land },
      volume_mm3: onLand(land),
      G_W_K: f.G ?? (wound ? 4e-3 : 16e-3) * p.w,
      C_add_J_K: f.C_add ?? 0,
    });
    return {
      shape: 'rect',
      body: { l: p.l, w: p.w, h: p.h, gap: 0.05 },
      texture: p.stuff,
      polarity: p.mark,
      C_J_K: f.C ?? body(p.l, p.w, p.h),
      terminals: [terminal('1', -1), terminal('2', 1)],
      limit: p.limit,
    };
  },
});

export const mouldedEnds = defineFamily({
  id: 'moulded-ends',
  title: 'Moulded body with a strap at each end (tantalum, SMA, SOD)',
  params: {
    l: mm('Body length', 4.3, 0.6, 20),
    w: mm('Body width', 2.6, 0.5, 20),
    h: mm('Height', 2.2, 0.3, 8),
    span: mm('Over the straps', 5.1, 0.7, 25),
    strap: mm('Strap width', 1.5, 0.1, 10),
    mark: choice('Marked', ['cathode', 'plus-stripe', 'none'], 'cathode'),
    limit: stands(
      'Stands',
      ['by its mark', 'ic', 'tantalum', 'tantalum-polymer', 'crystal-hc49', 'coil-smd-pressed'],
      'by its mark',
    ),
  },
  refuse: (p) => (p.span < p.l ? 'the straps end at or outside the body' : undefined),
  build(p, f): PackageShape {
    const reach = Math.max(0.15, (p.span - p.l) / 2);
    // a wide strap is folded under the body, a narrow one is a leg; the land goes a little beyond either
    const leg = p.strap < 0.8;
    const under = leg ? p.l * 0.1 : Math.min(1.2, p.l * 0.22);
    const beyond = leg ? 0.35 : 0.45;
    // the thin feet of a tall can stand on broad lands
    const land = { w: under + reach + beyond + 0.05, h: p.limit === 'crystal-hc49' ? 2 : p.strap * 1.1 };
    const terminal = (id: string, sign: number): Terminal => ({
      id,
      kind: 'chip',
      lead: { x: sign * (p.span / 2 - reach / 2), y: 0, w: reach, h: p.strap },
      land: { x: sign * (p.span / 2 + beyond - land.w / 2), y: 0, ...land },
      volume_mm3: onLand(land),
      G_W_K: f.G ?? 7e-3 * p.strap,
      C_add_J_K: f.C_add ?? p.strap * 0.2 * (under + reach + p.h * 0.5) * 3.4e-3,
    });
    return mouldedBody(p.l, p.w, p.h, 0.05, {
      terminals: [terminal('1', -1), terminal('2', 1)],
      polarity: p.mark,
      C: f.C,
      limit: p.limit === 'by its mark' ? (p.mark === 'plus-stripe' ? 'tantalum' : 'ic') : p.limit,
    });
  },
});

export const vChipCan = defineFamily({
  id: 'v-chip-can',
  title: 'Aluminium or polymer can on a base, soldered flat',
  params: {
    d: mm('Diameter', 6.3, 3, 20),
    h: mm('Height', 5.8, 3, 25),
    filling: choice('Filling', ['elko-smd', 'polymer'], 'elko-smd'),
  },
  build(p, f): PackageShape {
    const strap = Math.min(1.5, 0.9 + p.d * 0.06);
    // straps run from near the middle to just outside the base (published land patterns, fitted to 4 … 10 mm)
    const land = { w: 1.1 + p.d * 0.32, h: strap * 1.3 };
    const terminal = (id: string, sign: number): Terminal => ({
      id,
      kind: 'can',
      lead: { x: sign * (p.d / 2 - 0.1), y: 0, w: 1.3, h: strap },
      land: { x: sign * (0.35 + p.d * 0.37), y: 0, ...land },
      volume_mm3: onLand(land),
      G_W_K: f.G ?? 4e-3 + p.d * 1.25e-3,
      C_add_J_K: f.C_add ?? 0.4e-3 + p.d * 0.14e-3,
    });
    return {
      shape: 'round',
      body: { l: p.d, w: p.d, h: p.h, gap: 0.3 },
      texture: 'metal',
      polarity: 'minus-stripe',
      C_J_K: f.C ?? 2.1e-3 * (Math.PI / 4) * p.d ** 2 * p.h,
      terminals: [terminal('1', -1), terminal('2', 1)],
      limit: p.filling === 'polymer' ? 'polymer-smd' : flatCan(p.d),
    };
  },
});
