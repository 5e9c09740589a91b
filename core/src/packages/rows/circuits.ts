/** Integrated circuits and transistors with legs or lands. */
import { FITTED, JEDEC, TYPICAL, type LibraryRow } from './row.ts';

const SOIC = { G: 8e-3, C_add: 0.6e-3 };
const soic = (
  [
    [8, 4.9, { C: 0.066 }],
    [14, 8.65, {}],
    [16, 9.9, {}],
  ] as const
).map(([pins, w, heat]): LibraryRow => ({
  id: `SOIC-${pins}`,
  family: 'gull-rows',
  p: { pins, pitch: 1.27, l: 3.9, w, h: 1.5, span: 6, lead: 0.41, gap: 0.15 },
  fitted: { ...SOIC, ...heat },
  words: 'so sop narrow',
  source: pins === 8 ? FITTED : JEDEC,
}));
const soicWide = (
  [
    [16, 10.3],
    [18, 11.55],
    [20, 12.8],
    [24, 15.4],
    [28, 17.9],
  ] as const
).map(([pins, w]): LibraryRow => ({
  id: `SOIC-${pins}W`,
  label: `SOIC-${pins} wide`,
  family: 'gull-rows',
  p: { pins, pitch: 1.27, l: 7.5, w, h: 2.3, span: 10.3, lead: 0.41, gap: 0.2 },
  fitted: { G: 10e-3, C_add: 0.9e-3, ...(pins === 16 ? { C: 0.38 } : {}) },
  words: 'so sop',
  source: pins === 16 ? FITTED : JEDEC,
}));
const ssop = (
  [
    [16, 6.2],
    [20, 7.2],
    [24, 8.2],
    [28, 10.2],
  ] as const
).map(([pins, w]): LibraryRow => ({
  id: `SSOP-${pins}`,
  family: 'gull-rows',
  p: { pins, pitch: 0.65, l: 5.3, w, h: 1.85, span: 7.8, lead: 0.3, gap: 0.1 },
  source: JEDEC,
}));
const tssop = (
  [
    [8, 3],
    [14, 5],
    [16, 5],
    [20, 6.5],
    [24, 7.8],
    [28, 9.7],
  ] as const
).map(([pins, w]): LibraryRow => ({
  id: `TSSOP-${pins}`,
  family: 'gull-rows',
  p: { pins, pitch: 0.65, l: 4.4, w, h: 1, span: 6.4, lead: 0.22, gap: 0.1 },
  fitted: { G: 4e-3, C_add: 0.2e-3 },
  source: JEDEC,
}));
const msop = (
  [
    ['MSOP-8', 8, 0.65, 0.3],
    ['MSOP-10', 10, 0.5, 0.22],
  ] as const
).map(([id, pins, pitch, lead]): LibraryRow => ({
  id,
  family: 'gull-rows',
  p: { pins, pitch, l: 3, w: 3, h: 1, span: 4.9, lead, gap: 0.1 },
  words: 'vssop',
  source: JEDEC,
}));

const qsop = (
  [
    [16, 4.9],
    [20, 8.65],
    [24, 8.65],
  ] as const
).map(([pins, w]): LibraryRow => ({
  id: `QSOP-${pins}`,
  family: 'gull-rows',
  p: { pins, pitch: 0.635, l: 3.9, w, h: 1.5, span: 6, lead: 0.25, gap: 0.15 },
  words: 'ssop narrow',
  source: JEDEC,
}));
const tsop = (
  [
    ['TSOP-32', 32, 8],
    ['TSOP-48', 48, 12],
    ['TSOP-56', 56, 14],
  ] as const
).map(([id, pins, w]): LibraryRow => ({
  id,
  label: `${id}, legs at the narrow ends`,
  family: 'gull-rows',
  p: { pins, pitch: 0.5, l: 18.4, w, h: 1, span: 20, lead: 0.22, gap: 0.1 },
  words: 'flash memory tsop-i',
  source: JEDEC,
}));
const soicWideBody: LibraryRow = {
  id: 'SOIC-8W',
  label: 'SOIC-8 wide (5.3 mm)',
  family: 'gull-rows',
  p: { pins: 8, pitch: 1.27, l: 5.3, w: 5.3, h: 2, span: 8, lead: 0.41, gap: 0.15 },
  fitted: { G: 8e-3, C_add: 0.7e-3 },
  words: 'so sop eiaj memory',
  source: JEDEC,
};

const SMALL = { G: 5e-3, C_add: 0.2e-3 };
const small: LibraryRow[] = [
  {
    id: 'SOT-23',
    family: 'gull-rows',
    p: { pins: 6, absent: '2 4 6', pitch: 0.95, l: 1.3, w: 2.9, h: 1, span: 2.4, lead: 0.4, gap: 0.05 },
    fitted: SMALL,
    words: 'transistor diode to-236',
    source: JEDEC,
  },
  {
    id: 'SOT-23-5',
    family: 'gull-rows',
    p: { pins: 6, absent: '5', pitch: 0.95, l: 1.6, w: 2.9, h: 1.1, span: 2.8, lead: 0.4, gap: 0.05 },
    fitted: SMALL,
    words: 'regulator',
    source: JEDEC,
  },
  {
    id: 'SOT-23-6',
    family: 'gull-rows',
    p: { pins: 6, pitch: 0.95, l: 1.6, w: 2.9, h: 1.1, span: 2.8, lead: 0.4, gap: 0.05 },
    fitted: SMALL,
    words: 'tsot',
    source: JEDEC,
  },
  {
    id: 'SOT-323',
    label: 'SOT-323 (SC-70)',
    family: 'gull-rows',
    p: { pins: 6, absent: '2 4 6', pitch: 0.65, l: 1.25, w: 2, h: 0.95, span: 2.1, lead: 0.3, gap: 0.05 },
    words: 'transistor',
    source: JEDEC,
  },
  {
    id: 'SOT-363',
    label: 'SOT-363 (SC-70-6)',
    family: 'gull-rows',
    p: { pins: 6, pitch: 0.65, l: 1.25, w: 2, h: 0.95, span: 2.1, lead: 0.2, gap: 0.05 },
    words: 'transistor pair',
    source: JEDEC,
  },
  {
    id: 'OPTO-SMD-4',
    label: 'opto-coupler, 4 legs flat',
    family: 'gull-rows',
    p: { pins: 4, pitch: 2.54, l: 4.4, w: 3.6, h: 2.1, span: 7, lead: 0.4, gap: 0.1, limit: 'opto-smd' },
    words: 'optocoupler photocoupler sop-4',
    source: TYPICAL,
  },
];

const qfp = (
  [
    ['QFP-32', 32, 0.8, 7, 9, 0.37, {}],
    ['QFP-44', 44, 0.8, 10, 12, 0.37, { C: 0.28, G: 5e-3, C_add: 0.4e-3 }],
    ['QFP-48', 48, 0.5, 7, 9, 0.22, { C: 0.15, G: 4e-3, C_add: 0.3e-3 }],
    ['QFP-64', 64, 0.5, 10, 12, 0.22, { C: 0.28, G: 4e-3, C_add: 0.3e-3 }],
    ['QFP-64-14', 64, 0.8, 14, 16, 0.37, {}],
    ['QFP-80', 80, 0.5, 12, 14, 0.22, {}],
    ['QFP-100', 100, 0.5, 14, 16, 0.22, {}],
    ['QFP-144', 144, 0.5, 20, 22, 0.22, {}],
    ['QFP-176', 176, 0.5, 24, 26, 0.22, {}],
  ] as const
).map(([id, pins, pitch, body, span, lead, fitted]): LibraryRow => ({
  id,
  family: 'gull-four',
  p: { pins, pitch, body, span, lead, h: 1.4, gap: 0.12 },
  fitted,
  words: 'lqfp tqfp mqfp',
  source: id === 'QFP-48' ? FITTED : JEDEC,
}));
const oblong = (
  [
    ['QFP-64-14x20', 64, 1, 0.42, 6],
    ['QFP-80-14x20', 80, 0.8, 0.37, 8],
    ['QFP-100-14x20', 100, 0.65, 0.3, 10],
    ['QFP-128-14x20', 128, 0.5, 0.22, 12],
  ] as const
).map(([id, pins, pitch, lead, more]): LibraryRow => ({
  id,
  label: `QFP-${pins}, 14 × 20`,
  family: 'gull-four',
  p: { pins, pitch, body: 14, span: 17.2, lead, h: 2.7, gap: 0.25, longer: 6, more },
  words: 'pqfp mqfp rectangular',
  source: JEDEC,
}));

const plcc32: LibraryRow = {
  id: 'PLCC-32',
  family: 'j-leads',
  p: { pins: 32, l: 11.43, w: 13.97, span: 12.45, h: 3.4, more: 2 },
  words: 'j-lead flash memory rectangular',
  source: JEDEC,
};
const plcc = (
  [
    [20, 9, 9.9],
    [28, 11.5, 12.45],
    [44, 16.6, 17.5],
    [68, 24.2, 25.1],
  ] as const
).map(([pins, body, span]): LibraryRow => ({
  id: `PLCC-${pins}`,
  family: 'j-leads',
  p: { pins, l: body, w: body, span },
  words: 'j-lead',
  source: JEDEC,
}));

const qfn = (
  [
    ['QFN-16', 16, 0.5, 3, 0.25, 1.7],
    ['QFN-16-4', 16, 0.65, 4, 0.3, 2.1],
    ['QFN-20', 20, 0.5, 4, 0.25, 2.6],
    ['QFN-24', 24, 0.5, 4, 0.25, 2.6],
    ['QFN-28', 28, 0.5, 5, 0.25, 3.3],
    ['QFN-32', 32, 0.5, 5, 0.25, 3.4],
    ['QFN-40', 40, 0.5, 6, 0.25, 4.5],
    ['QFN-48', 48, 0.5, 7, 0.25, 5.4],
    ['QFN-56', 56, 0.5, 8, 0.25, 5.9],
    ['QFN-64', 64, 0.5, 9, 0.25, 7.1],
  ] as const
).map(([id, pins, pitch, body, lead, pad]): LibraryRow => ({
  id,
  family: 'leadless-four',
  p: { pins, pitch, body, lead, pad, h: 0.85 },
  ...(id === 'QFN-48' ? { fitted: { C: 0.095 } } : {}),
  words: 'mlf vqfn leadless',
  source: id === 'QFN-48' ? FITTED : JEDEC,
}));

const dfn = (
  [
    ['DFN-6', 6, 0.65, 2, 2, 0.3, 1, 1.6],
    ['DFN-8', 8, 0.5, 2, 3, 0.25, 1.2, 1.6],
    ['DFN-10', 10, 0.5, 3, 3, 0.25, 1.65, 2.4],
    ['SON-8', 8, 1.27, 6, 5, 0.4, 3.4, 4],
    ['PDFN-8', 8, 1.27, 6, 5, 0.45, 3.8, 4],
    ['DFN-2', 2, 0.65, 1, 0.6, 0.5, 0, 0],
  ] as const
).map(([id, pins, pitch, l, w, lead, padL, padW]): LibraryRow => ({
  id,
  ...(id === 'PDFN-8' ? { label: 'power DFN 5 × 6' } : {}),
  family: 'leadless-rows',
  p: {
    ...{ pins, pitch, l, w, lead, padL, padW, h: id === 'DFN-2' ? 0.5 : 0.85 },
    ...(id === 'PDFN-8' ? { second: 'fingers of the pad' } : {}),
  },
  words: id === 'PDFN-8' ? 'mosfet transistor leadless' : 'leadless',
  source: JEDEC,
}));

const ballGrids = (
  [
    ['BGA-64', 8, 8, 0.8, 8, 8, 0],
    ['BGA-100', 10, 10, 0.8, 9, 9, 0],
    ['BGA-153', 14, 14, 0.5, 11.5, 13, 43],
    ['BGA-256', 16, 16, 1, 17, 17, 0],
    ['WLP-16', 4, 4, 0.4, 1.7, 1.7, 0],
  ] as const
).map(([id, columns, rows, pitch, l, w, empty]): LibraryRow => ({
  id,
  family: 'ball-grid',
  p: { columns, rows, pitch, l, w, h: id === 'WLP-16' ? 0.6 : 1.2, empty, balls: 'bga-sac' },
  words: 'ball grid csp',
  source: JEDEC,
}));

const modules = (
  [
    ['MOD-16', 16, '2', 2, 16, 17, 3],
    ['MOD-24', 24, '2', 1.27, 13, 17, 2.4],
    ['MOD-40', 40, '4', 1.27, 18, 18, 3],
  ] as const
).map(([id, pins, sides, pitch, l, w, h]): LibraryRow => ({
  id,
  label: `castellated module, ${pins} half holes`,
  family: 'castellated',
  p: { pins, sides, pitch, l, w, h },
  words: 'radio metering castellation',
  source: TYPICAL,
}));

export const CIRCUIT_ROWS: LibraryRow[] = [
  ...qsop,
  ...tsop,
  soicWideBody,
  ...oblong,
  plcc32,
  ...soic,
  ...soicWide,
  ...ssop,
  ...tssop,
  ...msop,
  ...small,
  ...qfp,
  ...plcc,
  ...qfn,
  ...dfn,
  ...ballGrids,
  ...modules,
];
