/** Power packages, through-hole parts, relays, transformers. */
import { EIA, FITTED, JEDEC, TYPICAL, type LibraryRow } from './row.ts';

const radialCans = (
  [
    [5, 11, 2, 0.8],
    [6.3, 11, 2.5, 0.8],
    [8, 12, 3.5, 0.9],
    [10, 16, 5, 0.9],
    [12.5, 20, 5, 0.9],
    [16, 25, 7.5, 1.1],
    [18, 31, 7.5, 1.1],
    [22, 30, 10, 1.8],
  ] as const
).map(([d, h, pitch, drill]): LibraryRow => ({
  id: `RADIAL-${d}`,
  label: d === 22 ? 'snap-in can 22' : `radial can ${d}`,
  family: 'radial',
  p: { l: d, w: d, h, pitch, drill },
  plusMinus: { mm: 0.5, heat: 0.25 },
  words: 'aluminium electrolytic elko capacitor',
  source: EIA,
}));

const film = (
  [
    [5, 7.2, 2.5, 6.5],
    [10, 13, 4, 9],
    [15, 18, 6, 12],
    [22.5, 26.5, 8.5, 17],
  ] as const
).map(([pitch, l, w, h]): LibraryRow => ({
  id: `FILM-${pitch}`,
  label: `film capacitor, pitch ${pitch}`,
  family: 'radial',
  p: { outline: 'box', l, w, h, pitch, drill: 0.9, stuff: 'plastic', mark: 'none', limit: 'film-pp' },
  words: 'x2 y2 foil mkp mkt',
  source: EIA,
}));

const dips = (
  [
    [4, 4.6, 7.62, 6.4],
    [6, 7.1, 7.62, 6.4],
    [8, 9.5, 7.62, 6.4],
    [14, 19.3, 7.62, 6.4],
    [16, 19.3, 7.62, 6.4],
    [18, 22.9, 7.62, 6.4],
    [20, 25.4, 7.62, 6.4],
    [24, 32, 15.24, 13.8],
    [28, 37, 15.24, 13.8],
    [40, 52, 15.24, 13.8],
  ] as const
).map(([pins, w, rows, l]): LibraryRow => ({
  id: `DIP-${pins}`,
  label: pins <= 6 ? `DIP-${pins} (opto-coupler)` : `DIP-${pins}`,
  family: 'pin-rows',
  p: { pins, w, rows, l, h: 3.6, limit: pins <= 6 ? 'opto-dip' : 'ic-tht' },
  words: pins <= 6 ? 'optocoupler photocoupler pdip' : 'pdip',
  source: JEDEC,
}));

export const POWER_ROWS: LibraryRow[] = [
  {
    id: 'DPAK',
    family: 'tabbed',
    p: { l: 6.6, w: 6.1, h: 2.3, pitch: 2.28, legWidth: 0.8, reach: 2.4, tabOut: 1.2, tabW: 5.6, tabH: 6 },
    fitted: { C: 0.1, G: 12e-3, C_add: 1.5e-3, pad: { C: 0.12, G: 0.3 } },
    words: 'to-252 transistor regulator',
    source: JEDEC,
  },
  {
    id: 'D2PAK',
    family: 'tabbed',
    p: { l: 10, w: 9, h: 4.4, pitch: 2.54, legWidth: 0.9, reach: 4.4, tabOut: 1.2, tabW: 9.6, tabH: 9.5 },
    fitted: { C: 0.25, G: 20e-3, C_add: 4e-3, pad: { C: 0.45, G: 0.5 } },
    words: 'to-263 transistor',
    source: FITTED,
  },
  {
    id: 'D2PAK-7',
    label: 'D2PAK, 7 places',
    family: 'tabbed',
    p: { legs: 7, l: 10, w: 9, h: 4.4, pitch: 1.27, legWidth: 0.6, reach: 4.4, tabOut: 1.2, tabW: 9.6, tabH: 9.5 },
    words: 'to-263-7 transistor switch',
    source: JEDEC,
  },
  {
    id: 'SOT-223',
    family: 'tabbed',
    p: {
      centre: 'there',
      l: 6.5,
      w: 3.5,
      h: 1.6,
      pitch: 2.3,
      legWidth: 0.7,
      reach: 1.75,
      tabOut: 1.75,
      beyond: 0.6,
      tabW: 3.3,
      tabH: 1.9,
    },
    words: 'to-261 regulator',
    source: JEDEC,
  },
  {
    id: 'SOT-89',
    family: 'tabbed',
    p: {
      centre: 'there',
      l: 4.5,
      w: 2.5,
      h: 1.5,
      pitch: 1.5,
      legWidth: 0.45,
      reach: 1,
      tabOut: 0.6,
      tabW: 1.7,
      tabH: 2.2,
    },
    words: 'to-243 regulator transistor',
    source: JEDEC,
  },
  { id: 'TO-220', family: 'upright', p: {}, words: 'transistor regulator', source: JEDEC },
  {
    id: 'TO-247',
    family: 'upright',
    p: { l: 15.8, w: 5, h: 24, pitch: 5.45, drill: 1.5 },
    words: 'transistor igbt',
    source: JEDEC,
  },
  {
    id: 'TO-92',
    family: 'upright',
    p: { l: 4.6, w: 3.6, h: 8, pitch: 1.27, drill: 0.7 },
    words: 'transistor',
    source: JEDEC,
  },
  ...radialCans,
  ...film,
  {
    id: 'DISC-5',
    label: 'ceramic disc, pitch 5',
    family: 'radial',
    p: { outline: 'box', l: 8, w: 4, h: 10, pitch: 5, stuff: 'ceramic', mark: 'none', limit: 'disc-coated' },
    words: 'y capacitor varistor',
    source: TYPICAL,
  },
  {
    id: 'XTAL-HC49',
    label: 'crystal HC-49, through',
    family: 'radial',
    p: { outline: 'box', l: 10.8, w: 4.5, h: 13, pitch: 4.88, drill: 0.8, mark: 'none', limit: 'crystal-hc49' },
    words: 'quartz',
    source: TYPICAL,
  },
  {
    id: 'RES-AXIAL',
    label: 'axial resistor or diode, pitch 10',
    family: 'radial',
    p: { outline: 'box', l: 6.3, w: 2.5, h: 2.5, pitch: 10.16, stuff: 'ceramic', mark: 'none', limit: 'axial' },
    words: 'do-41 diode',
    source: EIA,
  },
  {
    id: 'TFUSE',
    label: 'thermal fuse, radial',
    family: 'radial',
    p: { outline: 'box', l: 6, w: 4, h: 6, pitch: 2.54, stuff: 'plastic', mark: 'none', limit: 'cutoff' },
    words: 'cut-off resettable',
    source: TYPICAL,
  },
  ...dips,
  {
    id: 'RELAY-15',
    label: 'relay 19 × 15, 5 pins',
    family: 'pin-rows',
    p: {
      ...{ pins: 4, pitch: 12.2, rows: 12, end: 2, l: 15.5, w: 19, h: 15.5, drill: 1.3 },
      ...{ stuff: 'plastic', limit: 'relay-sealed' },
    },
    words: 'sugar cube changeover',
    source: TYPICAL,
  },
  {
    id: 'RELAY-29',
    label: 'relay 29 × 12.7, 8 pins',
    family: 'pin-rows',
    p: {
      ...{ pins: 8, pitch: 5, apart: 10, rows: 7.5, l: 12.7, w: 29, h: 15.7, drill: 1.3 },
      ...{ stuff: 'plastic', limit: 'relay-sealed' },
    },
    words: 'power changeover 16 a',
    source: TYPICAL,
  },
  {
    id: 'TRAFO-EE16',
    label: 'transformer EE16',
    family: 'pin-rows',
    p: { pins: 8, pitch: 3.5, rows: 11, l: 17, w: 16, h: 14, drill: 1, stuff: 'metal', limit: 'trafo-tht' },
    words: 'flyback coil',
    source: TYPICAL,
  },
  {
    id: 'TRAFO-EE25',
    label: 'transformer EE25',
    family: 'pin-rows',
    p: { pins: 10, pitch: 5, rows: 20, l: 26, w: 28, h: 22, drill: 1.1, stuff: 'metal', limit: 'trafo-tht' },
    words: 'flyback coil',
    source: TYPICAL,
  },
];
