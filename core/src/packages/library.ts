/**
 * Packages by name. Outlines: nominal sizes of the published package standards. Heat figures: the fitted
 * set of docs/physics/parts where a row is listed there, else derived from size and solder volume.
 */
import { bystander, connector, fourSides, tabbed, twoEnds, twoRows } from './families.ts';
import type { PackageModel } from './packageModel.ts';

const FITTED = 'nominal outline of the package standard; heat figures of the fitted set';
const DERIVED = 'nominal outline of the package standard; heat figures derived from size';

const chip = (
  size: string,
  l: number,
  w: number,
  V: number,
  kind: 'C' | 'R',
): PackageModel =>
  twoEnds({
    id: `${kind}${size}`,
    label: `${size} ${kind === 'C' ? 'ceramic' : 'resistor'}`,
    l,
    w,
    h: kind === 'C' ? w * 0.8 : Math.min(0.6, w * 0.45),
    cap: l * 0.22,
    V,
    G: size === '0603' ? 25e-3 : 16e-3 * w,
    C_add: 0,
    // titanate and alumina bodies: about 3.6 J/(cm³·K)
    C: l * w * (kind === 'C' ? w * 0.8 : Math.min(0.6, w * 0.45)) * 3.6e-3,
    texture: 'ceramic',
    source: size === '0603' ? FITTED : DERIVED,
  });

const chips = (
  [
    ['0201', 0.6, 0.3, 0.0045],
    ['0402', 1.0, 0.5, 0.018],
    ['0603', 1.6, 0.8, 0.12],
    ['0805', 2.0, 1.25, 0.16],
    ['1206', 3.2, 1.6, 0.25],
    ['1210', 3.2, 2.5, 0.38],
    ['2512', 6.3, 3.2, 0.6],
  ] as const
).flatMap(([size, l, w, V]) => [chip(size, l, w, V, 'C'), chip(size, l, w, V, 'R')]);

const gull = { V: 0.25, G: 8e-3, C_add: 0.6e-3 };
const tssop = { h: 1.0, span: 6.4, lead: 0.22, pitch: 0.65, gap: 0.1, l: 4.4, V: 0.035, G: 4e-3, C_add: 0.2e-3, source: DERIVED };

const rows: PackageModel[] = [
  ...chips,
  twoRows({ id: 'SOIC-8', pins: 8, pitch: 1.27, l: 3.9, w: 4.9, h: 1.5, span: 6, lead: 0.41, gap: 0.15, C: 0.066, ...gull, source: FITTED }),
  twoRows({ id: 'SOIC-14', pins: 14, pitch: 1.27, l: 3.9, w: 8.65, h: 1.5, span: 6, lead: 0.41, gap: 0.15, ...gull, source: DERIVED }),
  twoRows({ id: 'SOIC-16', pins: 16, pitch: 1.27, l: 3.9, w: 9.9, h: 1.5, span: 6, lead: 0.41, gap: 0.15, ...gull, source: DERIVED }),
  twoRows({ id: 'SOIC-16W', label: 'SOIC-16 wide', pins: 16, pitch: 1.27, l: 7.5, w: 10.3, h: 2.3, span: 10.3, lead: 0.41, gap: 0.2, C: 0.38, V: 0.3, G: 10e-3, C_add: 0.9e-3, source: FITTED }),
  twoRows({ id: 'TSSOP-16', pins: 16, w: 5.0, ...tssop }),
  twoRows({ id: 'TSSOP-20', pins: 20, w: 6.5, ...tssop }),
  twoRows({ id: 'SOT-23', pins: 6, skip: [1, 3, 5], pitch: 0.95, l: 1.3, w: 2.9, h: 1.0, span: 2.4, lead: 0.4, gap: 0.05, V: 0.07, G: 5e-3, C_add: 0.2e-3, source: DERIVED }),
  twoRows({ id: 'SOT-23-5', pins: 6, skip: [4], pitch: 0.95, l: 1.6, w: 2.9, h: 1.1, span: 2.8, lead: 0.4, gap: 0.05, V: 0.07, G: 5e-3, C_add: 0.2e-3, source: DERIVED }),
  twoRows({ id: 'SOT-23-6', pins: 6, pitch: 0.95, l: 1.6, w: 2.9, h: 1.1, span: 2.8, lead: 0.4, gap: 0.05, V: 0.07, G: 5e-3, C_add: 0.2e-3, source: DERIVED }),
  fourSides({ id: 'QFP-44', pins: 44, pitch: 0.8, body: 10, span: 12, h: 1.4, lead: 0.37, gap: 0.12, C: 0.28, V: 0.09, G: 5e-3, C_add: 0.4e-3, source: DERIVED }),
  fourSides({ id: 'QFP-48', pins: 48, pitch: 0.5, body: 7, span: 9, h: 1.4, lead: 0.22, gap: 0.12, C: 0.15, V: 0.06, G: 4e-3, C_add: 0.3e-3, source: FITTED }),
  fourSides({ id: 'QFP-64', pins: 64, pitch: 0.5, body: 10, span: 12, h: 1.4, lead: 0.22, gap: 0.12, C: 0.28, V: 0.06, G: 4e-3, C_add: 0.3e-3, source: DERIVED }),
  fourSides({ id: 'QFN-16', pins: 16, pitch: 0.5, body: 3, h: 0.85, lead: 0.25, gap: 0.05, V: 0.012, G: 8e-3, C_add: 0.05e-3, pad: { size: 1.7, V: 0.2, G: 0.4 }, source: DERIVED }),
  fourSides({ id: 'QFN-24', pins: 24, pitch: 0.5, body: 4, h: 0.85, lead: 0.25, gap: 0.05, V: 0.012, G: 8e-3, C_add: 0.05e-3, pad: { size: 2.6, V: 0.45, G: 0.7 }, source: DERIVED }),
  fourSides({ id: 'QFN-32', pins: 32, pitch: 0.5, body: 5, h: 0.85, lead: 0.25, gap: 0.05, V: 0.012, G: 8e-3, C_add: 0.05e-3, pad: { size: 3.4, V: 0.8, G: 0.9 }, source: DERIVED }),
  fourSides({ id: 'QFN-48', pins: 48, pitch: 0.5, body: 7, h: 0.85, lead: 0.25, gap: 0.05, C: 0.095, V: 0.012, G: 8e-3, C_add: 0.05e-3, pad: { size: 5.4, V: 1.6, G: 1.2 }, source: FITTED }),
  tabbed({ id: 'DPAK', l: 6.6, w: 6.1, h: 2.3, C: 0.1, legs: ['1', '3'], pitch: 2.28, leg: { V: 0.5, G: 12e-3, C_add: 1.5e-3, width: 0.8, reach: 2.4 }, tab: { w: 5.6, h: 6.0, V: 2.6, C: 0.12, G: 0.3 }, source: DERIVED }),
  tabbed({ id: 'D2PAK', l: 10, w: 9, h: 4.4, C: 0.25, legs: ['1', '3'], pitch: 2.54, leg: { V: 1.5, G: 20e-3, C_add: 4e-3, width: 0.9, reach: 4.4 }, tab: { w: 9.6, h: 9.5, V: 9, C: 0.45, G: 0.5 }, source: FITTED }),
  twoEnds({ id: 'CAN-6.3', label: 'aluminium can 6.3', l: 6.3, w: 6.3, h: 5.8, gap: 0.3, cap: 1.2, C: 0.38, V: 0.35, G: 12e-3, C_add: 1.2e-3, texture: 'metal', kind: 'can', shape: 'round', polarity: 'minus-stripe', limit: 'elko-smd', source: FITTED }),
  twoEnds({ id: 'CAN-8', label: 'aluminium can 8', l: 8.3, w: 8.3, h: 10, gap: 0.3, cap: 1.4, C: 0.9, V: 0.5, G: 14e-3, C_add: 1.6e-3, texture: 'metal', kind: 'can', shape: 'round', polarity: 'minus-stripe', limit: 'elko-smd', source: DERIVED }),
  twoEnds({ id: 'POLY-8', label: 'polymer can 8', l: 8.3, w: 8.3, h: 7, gap: 0.3, cap: 1.4, C: 0.7, V: 0.5, G: 14e-3, C_add: 1.6e-3, texture: 'metal', kind: 'can', shape: 'round', polarity: 'minus-stripe', limit: 'polymer', source: DERIVED }),
  twoEnds({ id: 'TANT-B', label: 'moulded tantalum B', l: 3.5, w: 2.8, h: 1.9, cap: 0.6, V: 0.25, G: 18e-3, C_add: 0.4e-3, texture: 'mould', polarity: 'plus-stripe', limit: 'ic-body', source: DERIVED }),
  twoEnds({ id: 'SOD-123', l: 2.7, w: 1.6, h: 1.1, cap: 0.4, V: 0.08, G: 8e-3, C_add: 0.2e-3, texture: 'mould', polarity: 'cathode', limit: 'ic-body', source: DERIVED }),
  twoEnds({ id: 'SMB', l: 4.3, w: 3.6, h: 2.3, cap: 0.8, V: 0.4, G: 14e-3, C_add: 0.8e-3, texture: 'mould', polarity: 'cathode', limit: 'ic-body', source: DERIVED }),
  twoEnds({ id: 'IND-5', label: 'power coil 5 mm', l: 5, w: 5, h: 3, cap: 1.1, V: 0.6, G: 20e-3, C_add: 1e-3, texture: 'metal', limit: 'magnet', source: DERIVED }),
  twoEnds({ id: 'XTAL-3225', label: 'crystal 3.2 × 2.5', l: 3.2, w: 2.5, h: 0.8, cap: 0.9, V: 0.12, G: 12e-3, C_add: 0.1e-3, texture: 'metal', limit: 'crystal', source: DERIVED }),
  twoEnds({ id: 'LED-0603', label: 'LED 0603', l: 1.6, w: 0.8, h: 0.7, cap: 0.35, V: 0.06, G: 12e-3, C_add: 0, texture: 'glass', polarity: 'cathode', limit: 'led', source: DERIVED }),
  bystander({ id: 'CELL-16', label: 'coin cell 16 mm in holder', l: 18, w: 18, h: 3.2, texture: 'metal', shape: 'round', limit: 'cell', source: 'nominal size', C: 2.2 }),
  bystander({ id: 'GUIDE-12', label: 'light guide 12 × 4', l: 12, w: 4, h: 3, texture: 'plastic', limit: 'acrylic', source: 'nominal size' }),
  connector({ id: 'CONN-PBT-8', label: 'connector 8 way, PBT', pins: 8, pitch: 2.5, l: 23, w: 9, h: 11, limit: 'pbt', source: 'nominal size' }),
  connector({ id: 'CONN-PA66-4', label: 'connector 4 way, PA66', pins: 4, pitch: 2, l: 10, w: 5.5, h: 6, limit: 'pa66', source: 'nominal size' }),
  connector({ id: 'CONN-LCP-6', label: 'connector 6 way, LCP', pins: 6, pitch: 1.25, l: 10, w: 4.6, h: 3.4, limit: 'lcp', source: 'nominal size' }),
  connector({ id: 'CONN-4', label: 'plastic connector 4 way', pins: 4, pitch: 2, l: 10, w: 5, h: 6, limit: 'unknown-plastic', source: 'nominal size' }),
];

export const PACKAGES: ReadonlyMap<string, PackageModel> = new Map(rows.map((r) => [r.id, r]));

/** The package called `id`; throws with the known names when there is none. */
export function packageById(id: string): PackageModel {
  const found = PACKAGES.get(id);
  if (!found) throw new Error(`No package "${id}"; known: ${[...PACKAGES.keys()].join(', ')}`);
  return found;
}
