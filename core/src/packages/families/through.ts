/** Pins through holes: DIP, radial and axial parts, upright power packages, relays, transformers. */
import { choice, count, defineFamily, mm, stands } from '../family.ts';
import { POLARITIES, TEXTURES, type PackageShape, type Terminal } from '../packageModel.ts';
import {
  hollowCanCapacity,
  hollowCapacity,
  holeVolume,
  mouldCapacity,
  onLand,
  pinConductance,
  relayCapacity,
  woundCapacity,
  type Lead,
} from './figures.ts';

const ON_PINS = [
  'ic-tht',
  'opto-dip',
  'elko-radial',
  'polymer-radial',
  'film-pp',
  'film-pet',
  'disc-coated',
  'bare',
  'axial',
  'relay-sealed',
  'relay-open',
  'coil-tht',
  'trafo-tht',
  'crystal-hc49',
  'crystal-can',
  'led-tht',
  'cutoff',
  'ptc-tht',
  'supercap',
  'switch-tht',
  'pot-tht',
  'buzzer-tht',
  'mic-electret',
  'plastic-tht',
  'pbt-gf',
  'pa66-gf',
  'pa66-plain',
] as const;

const pin = (id: string, x: number, y: number, drill: number, loose = 2e-3, lead: Lead = 'pin'): Terminal => ({
  id,
  kind: 'pin',
  round: true,
  drill_mm: drill,
  land: { x, y, w: drill + 0.8, h: drill + 0.8 },
  volume_mm3: holeVolume(drill, drill + 0.8, lead),
  G_W_K: pinConductance(drill),
  C_add_J_K: loose * (drill / 0.9) ** 2,
});

export const pinRows = defineFamily({
  id: 'pin-rows',
  title: 'Two rows of pins through the board (DIP, opto-coupler, relay, transformer)',
  params: {
    pins: count('Places on the full grid', 16, 2, 64),
    pitch: mm('Pitch', 2.54, 1, 15),
    rows: mm('Row to row', 7.62, 2, 40),
    l: mm('Body across the rows', 6.4, 2, 60),
    w: mm('Body along the rows', 19.3, 2, 80),
    h: mm('Height', 3.6, 1, 60),
    drill: mm('Hole', 0.9, 0.4, 3),
    absent: choice('Places without a pin', ['none', '2 3 6 7', '2', '2 4', '2 3 5 6'], 'none'),
    /** Relays: the coil stands apart from the contacts, a common contact alone at the end. */
    apart: mm('First pair further out, by', 0, 0, 40),
    end: mm('One more pin in the middle, beyond the first pair by', 0, 0, 20),
    stuff: choice('Body of', TEXTURES, 'mould'),
    limit: stands('Stands', ON_PINS, 'ic-tht'),
  },
  refuse: (p) => (p.pins % 2 ? 'pins stand in two equal rows: an even number' : undefined),
  build(p, f): PackageShape {
    const per = p.pins / 2;
    const absent = p.absent === 'none' ? [] : p.absent.split(' ').map(Number);
    const terminals: Terminal[] = [];
    for (let n = 0; n < p.pins; n++) {
      if (absent.includes(n + 1)) continue;
      const place = n < per ? n : p.pins - 1 - n;
      const y = (place - (per - 1) / 2) * p.pitch + (p.end - p.apart) / 2 + (place > 0 ? p.apart : 0);
      terminals.push(
        pin(
          String(terminals.length + 1),
          ((n < per ? -1 : 1) * p.rows) / 2,
          y,
          p.drill,
          2e-3,
          p.stuff === 'mould' ? 'flat' : 'pin',
        ),
      );
    }
    if (p.end > 0) {
      const y = -((per - 1) * p.pitch + p.apart + p.end) / 2;
      terminals.push(pin(String(terminals.length + 1), 0, y, p.drill));
    }
    const body = p.limit.startsWith('relay')
      ? relayCapacity
      : p.stuff === 'metal'
        ? woundCapacity
        : p.stuff === 'plastic'
          ? hollowCapacity
          : mouldCapacity;
    return {
      shape: 'rect',
      body: { l: p.l, w: p.w, h: p.h, gap: 0.5 },
      texture: p.stuff,
      polarity: 'pin1',
      C_J_K: f.C ?? body(p.l, p.w, p.h),
      terminals,
      limit: p.limit,
    };
  },
});

export const radial = defineFamily({
  id: 'radial',
  title: 'Two pins under the body (radial can, film, disc, HC-49)',
  params: {
    outline: choice('Outline', ['round', 'box'], 'round'),
    l: mm('Diameter or length', 8, 2, 80),
    w: mm('Diameter or width', 8, 1, 60),
    h: mm('Height', 12, 1, 100),
    pitch: mm('Pin to pin', 3.5, 1, 60),
    drill: mm('Hole', 0.9, 0.4, 3),
    stuff: choice('Body of', TEXTURES, 'metal'),
    mark: choice('Marked', POLARITIES, 'minus-stripe'),
    limit: stands('Stands', ON_PINS, 'elko-radial'),
  },
  refuse: (p) => (p.pitch > p.l + 20 ? 'the pins stand far outside the body' : undefined),
  build(p, f): PackageShape {
    const fill = p.outline === 'round' ? Math.PI / 4 : 1;
    const body = p.limit.startsWith('film')
      ? // film wound full, potted in plastic
        mouldCapacity
      : /^crystal/.test(p.limit)
        ? hollowCanCapacity
        : p.stuff === 'plastic'
          ? hollowCapacity
          : woundCapacity;
    return {
      shape: p.outline === 'round' ? 'round' : 'rect',
      body: { l: p.l, w: p.w, h: p.h, gap: 0.3 },
      texture: p.stuff,
      polarity: p.mark,
      C_J_K: f.C ?? body(p.l, p.w, p.h) * fill,
      terminals: [pin('1', -p.pitch / 2, 0, p.drill), pin('2', p.pitch / 2, 0, p.drill)],
      limit: p.limit,
    };
  },
});

export const upright = defineFamily({
  id: 'upright',
  title: 'Power package standing on its legs (TO-220, TO-247, TO-92)',
  params: {
    legs: count('Legs', 3, 2, 7),
    pitch: mm('Pitch', 2.54, 1, 11),
    l: mm('Body width', 10.2, 2, 40),
    w: mm('Body thickness', 4.5, 1, 20),
    h: mm('Height over the board', 18, 3, 60),
    drill: mm('Hole', 1.1, 0.5, 3),
  },
  refuse: (p) => ((p.legs - 1) * p.pitch > p.l ? 'the legs are wider than the body' : undefined),
  build: (p, f): PackageShape => ({
    shape: 'rect',
    body: { l: p.l, w: p.w, h: p.h, gap: Math.min(4, p.h * 0.2) },
    texture: 'mould',
    polarity: 'pin1',
    // mould and a copper tab, of a box that fills four fifths of its height: about 1.9 J/(cm³·K)
    C_J_K: f.C ?? p.l * p.w * p.h * 0.8 * 1.9e-3,
    terminals: Array.from({ length: p.legs }, (_, n) => {
      const t = pin(String(n + 1), (n - (p.legs - 1) / 2) * p.pitch, p.w * 0.1, p.drill, 4e-3);
      // close legs stand on oval lands
      const w = Math.min(t.land.w, p.pitch - 0.2);
      return { ...t, ...(w < t.land.w ? { round: undefined } : {}), land: { ...t.land, w }, G_W_K: 12e-3 };
    }),
    limit: 'ic-tht',
  }),
});

/** Sheet-metal tabs at the ends of a connector, two at the back or one at every corner. */
function anchorsOf(n: number, l: number, w: number): Terminal[] {
  const land = { w: 1.6, h: 2 };
  return Array.from({ length: n }, (_, i): Terminal => {
    const at = { x: (i % 2 ? 1 : -1) * (l / 2 + 0.4), y: i < 2 ? -w / 2 + 1.4 : w / 2 - 1.4 };
    return {
      id: `S${i + 1}`,
      kind: 'leg',
      lead: { ...at, w: 1, h: 1.4 },
      land: { ...at, ...land },
      volume_mm3: onLand(land),
      G_W_K: 12e-3,
      C_add_J_K: 3e-3,
    };
  });
}

export const connector = defineFamily({
  id: 'connector',
  title: 'Connector or terminal block, by plastic',
  params: {
    pins: count('Ways', 4, 1, 120),
    pitch: mm('Pitch', 2, 0.3, 12),
    rows: choice('Rows', ['1', '2'], '1'),
    l: mm('Length', 10, 1, 150),
    w: mm('Depth', 5, 1, 60),
    h: mm('Height', 6, 0.5, 40),
    mount: choice('Soldered', ['through', 'flat'], 'through'),
    /** Tabs of a shell or a frame: last to melt, first to tear. */
    anchors: choice('Anchors soldered flat', ['0', '2', '4'], '0'),
    plastic: stands(
      'Plastic',
      [
        'unknown',
        'lcp',
        'pps',
        'pa6t-9t',
        'pa46',
        'pa66-gf',
        'pa66-plain',
        'pbt-gf',
        'pvc',
        'pc',
        'abs',
        'acrylic',
        'pom',
      ],
      'unknown',
    ),
  },
  refuse: (p) =>
    (Math.ceil(p.pins / Number(p.rows)) - 1) * p.pitch > p.l ? 'the row is longer than the body' : undefined,
  build(p, f): PackageShape {
    const rows = Number(p.rows);
    const perRow = Math.ceil(p.pins / rows);
    const flat = p.mount === 'flat';
    return {
      shape: 'rect',
      body: { l: p.l, w: p.w, h: p.h, gap: 0.2 },
      texture: 'plastic',
      polarity: 'pin1',
      C_J_K: f.C ?? hollowCapacity(p.l, p.w, p.h),
      limit: p.plastic === 'unknown' ? (flat ? 'plastic-flat' : 'plastic-tht') : p.plastic,
      terminals: [
        ...Array.from({ length: p.pins }, (_, n): Terminal => {
          const x = ((n % perRow) - (perRow - 1) / 2) * p.pitch;
          const row = Math.floor(n / perRow);
          if (flat) {
            const land = { x, y: (rows === 1 || row === 0 ? 1 : -1) * (p.w / 2 + 0.2), w: p.pitch * 0.5, h: 1.5 };
            return {
              id: String(n + 1),
              kind: 'gull',
              land,
              lead: { ...land, w: p.pitch * 0.35, h: 1 },
              volume_mm3: onLand(land),
              G_W_K: 2.5e-3,
              C_add_J_K: 0.5e-3,
            };
          }
          const y = rows === 1 ? p.w * 0.2 : (row - 0.5) * p.w * 0.45;
          const side = p.pitch * 0.6;
          const drill = Math.min(1.3, p.pitch * 0.4);
          return {
            id: String(n + 1),
            kind: 'pin',
            round: true,
            drill_mm: drill,
            land: { x, y, w: side, h: side },
            volume_mm3: holeVolume(drill, side),
            G_W_K: f.G ?? 3e-3,
            C_add_J_K: f.C_add ?? 2e-3,
          };
        }),
        ...anchorsOf(Number(p.anchors), p.l, p.w),
      ],
    };
  },
});
