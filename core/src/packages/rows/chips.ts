/** Chip passives, MELF, moulded capacitors, cans, coils, crystals, diodes. */
import { EIA, FITTED, JEDEC, TYPICAL, type LibraryRow } from './row.ts';

const SIZES = [
  ['0201', 0.6, 0.3],
  ['0402', 1.0, 0.5],
  ['0603', 1.6, 0.8],
  ['0805', 2.0, 1.25],
  ['1206', 3.2, 1.6],
  ['1210', 3.2, 2.5],
  ['1812', 4.5, 3.2],
  ['2010', 5.0, 2.5],
  ['2220', 5.7, 5.0],
  ['2512', 6.3, 3.2],
] as const;

const KINDS = [
  ['C', 'ceramic', 'capacitor mlcc', (w: number) => Math.min(2.5, w * 0.8), 'mlcc'],
  ['R', 'resistor', 'chip', (w: number) => Math.min(0.55, 0.22 + 0.26 * w), 'bare'],
  ['FB', 'ferrite', 'bead inductor chip', (w: number) => w * 0.9, 'coil-chip'],
] as const;

const chips = SIZES.flatMap(([size, l, w]) =>
  KINDS.filter(([kind]) => kind !== 'FB' || l <= 3.2).map(([kind, name, words, height, limit]): LibraryRow => {
    const h = height(w);
    return {
      id: `${kind}${size}`,
      label: `${size} ${name}`,
      family: 'two-ends',
      p: { l, w, h, cap: l * 0.22, limit },
      plusMinus: { mm: l < 1.2 ? 0.05 : 0.2, heat: 0.2 },
      ...(size === '0603' ? { fitted: { G: 25e-3 } } : {}),
      words,
      source: size === '0603' ? FITTED : EIA,
    };
  }),
);

const melf = (
  [
    ['MELF-0102', 'MicroMELF', 2.2, 1.1, 0.45],
    ['MELF-0204', 'MiniMELF', 3.6, 1.4, 0.7],
    ['MELF-0207', 'MELF', 5.8, 2.2, 1.0],
  ] as const
).map(([id, name, l, d, cap]): LibraryRow => ({
  id,
  label: `${name} resistor or diode`,
  family: 'two-ends',
  p: { l, w: d, h: d, cap, stuff: 'glass', mark: 'cathode', limit: 'axial' },
  words: 'sod-80 ll34 round',
  source: EIA,
}));

const tantalum = (
  [
    ['A', 3.2, 1.6, 1.6, 1.2, {}],
    ['B', 3.5, 2.8, 1.9, 2.2, { G: 18e-3, C_add: 0.4e-3 }],
    ['C', 6.0, 3.2, 2.5, 2.2, {}],
    ['D', 7.3, 4.3, 2.8, 2.4, {}],
    ['E', 7.3, 4.3, 4.0, 2.4, {}],
  ] as const
).map(([size, l, w, h, strap, fitted]): LibraryRow => ({
  id: `TANT-${size}`,
  label: `moulded tantalum ${size}`,
  family: 'moulded-ends',
  p: { l, w, h, span: l, strap, mark: 'plus-stripe' },
  plusMinus: { mm: 0.3, heat: 0.25 },
  fitted,
  words: 'capacitor',
  source: EIA,
}));

const diodes = (
  [
    ['SOD-123', 2.7, 1.6, 1.1, 3.7, 0.6],
    ['SOD-323', 1.7, 1.25, 0.95, 2.5, 0.3],
    ['SOD-523', 1.2, 0.8, 0.65, 1.6, 0.3],
    ['SMA', 4.3, 2.6, 2.2, 5.1, 1.45],
    ['SMB', 4.3, 3.6, 2.3, 5.4, 2.0],
    ['SMC', 6.9, 5.9, 2.3, 7.9, 3.0],
  ] as const
).map(([id, l, w, h, span, strap]): LibraryRow => ({
  id,
  family: 'moulded-ends',
  p: { l, w, h, span, strap, mark: 'cathode' },
  words: 'diode tvs',
  source: JEDEC,
}));

const CAN_FITTED = { G: 12e-3, C_add: 1.2e-3, C: 0.38 };
const cans = (
  [
    [4, 5.4],
    [5, 5.4],
    [6.3, 5.8],
    [8, 10],
    [10, 10],
    [12.5, 13.5],
    [16, 16.5],
  ] as const
).map(([d, h]): LibraryRow => ({
  id: `CAN-${d}`,
  label: `aluminium can ${d}, flat`,
  family: 'v-chip-can',
  p: { d, h, filling: 'elko-smd' },
  plusMinus: { mm: 0.3, heat: 0.2 },
  ...(d === 6.3 ? { fitted: CAN_FITTED } : {}),
  words: 'electrolytic elko capacitor smd v-chip',
  source: d === 6.3 ? FITTED : TYPICAL,
}));
const polymer = (
  [
    [6.3, 5.7],
    [8, 7],
    [10, 8],
  ] as const
).map(([d, h]): LibraryRow => ({
  id: `POLY-${d}`,
  label: `polymer can ${d}`,
  family: 'v-chip-can',
  p: { d, h, filling: 'polymer' },
  words: 'capacitor solid',
  source: TYPICAL,
}));

const coils = (
  [
    ['IND-3', 3, 3, 1.5, 0.8],
    ['IND-4', 4, 4, 2, 0.9],
    ['IND-5', 5, 5, 3, 1.1],
    ['IND-6', 6.6, 6.4, 3, 1.6],
    ['IND-8', 8, 8, 4.2, 2],
    ['IND-10', 10, 10, 4.5, 2.5],
    ['IND-12', 12.5, 12.5, 6, 3],
  ] as const
).map(([id, l, w, h, cap]): LibraryRow => ({
  id,
  label: `power coil ${l} mm`,
  family: 'two-ends',
  p: { l, w, h, cap, stuff: 'metal', limit: 'coil-smd-glued' },
  plusMinus: { mm: 0.3, heat: 0.3 },
  ...(id === 'IND-5' ? { fitted: { G: 20e-3, C_add: 1e-3 } } : {}),
  words: 'inductor choke',
  source: TYPICAL,
}));

const chipCoils = (
  [
    ['L0402', 1, 0.5, 0.5],
    ['L0603', 1.6, 0.8, 0.8],
    ['L0805', 2, 1.25, 1.25],
    ['L1008', 2.5, 2, 1.6],
    ['L1210', 3.2, 2.5, 2.2],
  ] as const
).map(([id, l, w, h]): LibraryRow => ({
  id,
  label: `chip coil ${id.slice(1)}`,
  family: 'two-ends',
  p: { l, w, h, cap: l * 0.22, limit: 'coil-chip' },
  words: 'inductor wire wound multilayer',
  source: EIA,
}));

export const CHIP_ROWS: LibraryRow[] = [
  ...chipCoils,
  ...chips,
  ...melf,
  ...tantalum,
  ...diodes,
  ...cans,
  ...polymer,
  ...coils,
  {
    id: 'XTAL-3225',
    label: 'crystal 3.2 × 2.5, two lands',
    family: 'two-ends',
    p: { l: 3.2, w: 2.5, h: 0.8, cap: 0.9, stuff: 'metal', limit: 'crystal-smd' },
    fitted: { G: 12e-3, C_add: 0.1e-3, C: 3.2 * 2.5 * 0.8 * 2e-3 },
    words: 'oscillator quartz',
    source: TYPICAL,
  },
  {
    id: 'XTAL-3225-4',
    label: 'crystal 3.2 × 2.5, four lands',
    family: 'leadless-rows',
    p: { pins: 4, pitch: 1.7, l: 3.2, w: 2.5, h: 0.8, lead: 1, padL: 0, padW: 0, limit: 'crystal-smd' },
    words: 'oscillator quartz',
    source: TYPICAL,
  },
  {
    id: 'OSC-3225',
    label: 'oscillator 3.2 × 2.5',
    family: 'leadless-rows',
    p: { pins: 4, pitch: 1.7, l: 3.2, w: 2.5, h: 1, lead: 1, padL: 0, padW: 0, limit: 'crystal-smd' },
    words: 'clock quartz xo',
    source: TYPICAL,
  },
  {
    id: 'XTAL-5032',
    label: 'crystal 5 × 3.2, two lands',
    family: 'two-ends',
    p: { l: 5, w: 3.2, h: 1, cap: 1.1, stuff: 'metal', limit: 'crystal-smd' },
    words: 'oscillator quartz',
    source: TYPICAL,
  },
  {
    id: 'XTAL-HC49S',
    label: 'crystal HC-49, flat',
    family: 'moulded-ends',
    p: { l: 11.4, w: 4.7, h: 4.2, span: 12.7, strap: 0.6, mark: 'none', limit: 'crystal-hc49' },
    words: 'oscillator quartz smd',
    source: TYPICAL,
  },
  {
    id: 'LED-0603',
    label: 'LED 0603',
    family: 'two-ends',
    p: { l: 1.6, w: 0.8, h: 0.7, cap: 0.35, stuff: 'glass', mark: 'cathode', limit: 'led-smd' },
    fitted: { G: 12e-3, C: 1.6 * 0.8 * 0.7 * 2e-3 },
    words: 'lamp diode',
    source: EIA,
  },
  {
    id: 'LED-3528',
    label: 'LED 3.5 × 2.8',
    family: 'two-ends',
    p: { l: 3.5, w: 2.8, h: 1.9, cap: 0.8, stuff: 'plastic', mark: 'cathode', limit: 'led-smd' },
    words: 'lamp diode',
    source: TYPICAL,
  },
];
