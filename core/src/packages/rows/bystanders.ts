/** Connectors, cells, shields, flex tails, heatsinks and everything delicate that only stands near. */
import { TYPICAL, type LibraryRow } from './row.ts';

const SIZE = 'typical size, measure yours; heat figures derived from size';

const connectors = (
  [
    ['CONN-PBT-8', '8 way, PBT', { pins: 8, pitch: 2.5, l: 23, w: 9, h: 11, plastic: 'pbt-gf' }],
    ['CONN-PA66-4', '4 way, PA66', { pins: 4, pitch: 2, l: 10, w: 5.5, h: 6, plastic: 'pa66-gf' }],
    ['CONN-LCP-6', '6 way, LCP', { pins: 6, pitch: 1.25, l: 10, w: 4.6, h: 3.4, plastic: 'lcp' }],
    ['CONN-PVC-2', '2 way, PVC sleeve', { pins: 2, pitch: 2.5, l: 7, w: 6, h: 8, plastic: 'pvc' }],
    ['CONN-4', '4 way, plastic unknown', { pins: 4, pitch: 2, l: 10, w: 5, h: 6, plastic: 'unknown' }],
    [
      'CONN-12',
      '12 way, plastic unknown',
      { pins: 12, pitch: 2.54, rows: '2', l: 20, w: 10, h: 11, plastic: 'unknown' },
    ],
    ['CONN-FLAT-LCP-10', '10 way flat, LCP', { pins: 10, pitch: 0.5, l: 8, w: 5, h: 2, mount: 'flat', plastic: 'lcp' }],
    [
      'CONN-FLAT-PA-6',
      '6 way flat, PA46',
      { pins: 6, pitch: 1.25, l: 10, w: 4.5, h: 3.4, mount: 'flat', plastic: 'pa46' },
    ],
    ['CONN-USB', 'USB socket, flat', { pins: 5, pitch: 0.65, l: 7.6, w: 5.2, h: 2.6, mount: 'flat', plastic: 'lcp' }],
    ['HEADER-6', 'pin header 6', { pins: 6, pitch: 2.54, l: 15.24, w: 2.54, h: 8.5, plastic: 'pbt-gf' }],
    [
      'HEADER-10',
      'pin header 2 × 5',
      { pins: 10, pitch: 2.54, rows: '2', l: 12.7, w: 5.08, h: 8.5, plastic: 'pbt-gf' },
    ],
    ['TERM-2', 'terminal block 2 way', { pins: 2, pitch: 5.08, l: 10.16, w: 8.2, h: 10, plastic: 'pa66-plain' }],
    ['TERM-3', 'terminal block 3 way', { pins: 3, pitch: 5.08, l: 15.24, w: 8.2, h: 10, plastic: 'pa66-plain' }],
    ['TERM-6', 'terminal block 6 way', { pins: 6, pitch: 5.08, l: 30.5, w: 8.2, h: 10, plastic: 'pa66-plain' }],
  ] as const
).map(([id, what, p]): LibraryRow => ({
  id,
  label: /^(pin|terminal|USB)/.test(what) ? what : `connector ${what}`,
  family: 'connector',
  p,
  words: 'plug socket header terminal',
  source: SIZE,
}));

const box = (
  id: string,
  label: string,
  words: string,
  p: LibraryRow['p'],
  fitted?: LibraryRow['fitted'],
): LibraryRow => ({ id, label, family: 'box', p, words, source: SIZE, ...(fitted ? { fitted } : {}) });

export const BYSTANDER_ROWS: LibraryRow[] = [
  ...connectors,
  {
    id: 'FLEX-8',
    label: 'flex tail 8 way, soldered',
    family: 'flex-tail',
    p: {},
    words: 'ffc fpc membrane pet',
    source: TYPICAL,
  },
  {
    id: 'FLEX-PI-20',
    label: 'flex tail 20 way, polyimide',
    family: 'flex-tail',
    p: { ways: 20, pitch: 0.5, w: 8, film: 'polyimide' },
    words: 'ffc fpc',
    source: TYPICAL,
  },
  {
    id: 'SHIELD-14',
    label: 'shield 14 × 10',
    family: 'shield-can',
    p: {},
    words: 'can frame screening',
    source: TYPICAL,
  },
  {
    id: 'SHIELD-25',
    label: 'shield 25 × 20',
    family: 'shield-can',
    p: { l: 25, w: 20, h: 3, spots: 5 },
    words: 'can frame screening',
    source: TYPICAL,
  },
  box(
    'CELL-16',
    'coin cell 16 mm in holder',
    'battery lithium',
    { outline: 'round', l: 18, w: 18, h: 3.2, stuff: 'metal', limit: 'cell-coin' },
    { C: 2.2 },
  ),
  box(
    'CELL-20',
    'coin cell 20 mm in holder',
    'battery lithium cr2032',
    { outline: 'round', l: 22, w: 22, h: 5, stuff: 'metal', limit: 'cell-coin' },
    { C: 4.4 },
  ),
  box(
    'CELL-POUCH',
    'lithium pouch cell 40 × 30',
    'battery li-ion',
    { l: 40, w: 30, h: 5, stuff: 'metal', limit: 'cell-li' },
    { C: 15 },
  ),
  box('SUPERCAP-11', 'supercapacitor coin 11', 'double layer', {
    outline: 'round',
    l: 11.5,
    w: 11.5,
    h: 5,
    stuff: 'metal',
    limit: 'supercap',
  }),
  box('GUIDE-12', 'light guide 12 × 4', 'acrylic', { l: 12, w: 4, h: 3, limit: 'acrylic' }),
  box('DISPLAY-30', 'display glass 30 × 20', 'lcd oled screen polariser', {
    l: 30,
    w: 20,
    h: 3,
    stuff: 'glass',
    limit: 'display',
  }),
  box('CAMERA-8', 'camera module 8 × 8', 'lens sensor', { l: 8, w: 8, h: 5, limit: 'camera' }),
  box('MIC-4', 'microphone or pressure port', 'mems sensor', { l: 4, w: 3, h: 1.1, stuff: 'metal', limit: 'mic-mems' }),
  box('MAGNET-6', 'magnet 6 mm', 'hall neodymium', {
    outline: 'round',
    l: 6,
    w: 6,
    h: 3,
    stuff: 'metal',
    limit: 'magnet-ndfeb',
  }),
  box('BUZZER-12', 'buzzer 12 mm', 'sounder', { outline: 'round', l: 12, w: 12, h: 9.5, limit: 'buzzer-tht' }),
  box('SWITCH-6', 'push switch 6 × 6', 'tact button key', { l: 6, w: 6, h: 4.3, limit: 'switch-tht' }),
  box('POT-10', 'trimmer 10 mm', 'potentiometer', { l: 10, w: 10, h: 5, limit: 'pot-tht' }),
  box(
    'HEATSINK-20',
    'heatsink 20 × 20',
    'cooling fins',
    { l: 20, w: 20, h: 15, stuff: 'metal', limit: 'bare' },
    { C: 5.5 },
  ),
  box('CLIP-10', 'spring clip', 'steel hold', { l: 10, w: 6, h: 8, stuff: 'metal', limit: 'bare' }),
  box('LABEL-20', 'paper label', 'sticker', { l: 20, w: 10, h: 0.1, limit: 'label-paper' }, { C: 0.03 }),
  box('GLUE-6', 'bead of hot-melt or silicone', 'fixing', { outline: 'round', l: 6, w: 6, h: 3, limit: 'hotmelt' }),
  box('COAT-20', 'thick coating patch', 'conformal potting', { l: 20, w: 20, h: 0.3, limit: 'coat-acrylic' }),
  box('LUG-8', 'ground lug', 'tab screw terminal', { l: 8, w: 8, h: 2, stuff: 'metal', limit: 'bare' }),
];
