/**
 * Writes the demo's board file: the Gantry drive gate board, six layers of 70 µm, as an S-expression board. All
 * made up. Run after a change of the layout below: `npx tsx formats/scripts/gantry.ts`.
 */
import { writeFileSync } from 'node:fs';
import { type PlacedPart, toBoard } from '@orthos/core/board';
import { packageById } from '@orthos/core/packages';
import { boardText, edgeRectangle, type TextFootprint } from '../test/boardText.ts';

const [W, H] = [150, 100];
/** The file's own origin lies elsewhere, as it does in files. */
const [OX, OY] = [60, 40];
const layers = ['F.Cu', 'In1.Cu', 'In2.Cu', 'In3.Cu', 'In4.Cu', 'B.Cu'];
const at = (v: number) => Math.round(v * 1e4) / 1e4;

interface Item {
  ref: string;
  pkg: string;
  x: number;
  y: number;
  rotation?: number;
  side?: 'top' | 'bottom';
  value?: string;
  nets?: Record<string, string>;
}

const row = (
  prefix: string,
  from: number,
  n: number,
  pkg: string,
  x: number,
  y: number,
  dx: number,
  dy: number,
  more: Partial<Item> = {},
): Item[] =>
  Array.from({ length: n }, (_, i) => ({ ref: `${prefix}${from + i}`, pkg, x: x + i * dx, y: y + i * dy, ...more }));

const decoupling = { '1': '3V3', '2': 'GND' };
const items: Item[] = [
  {
    ref: 'U1',
    pkg: 'SOIC-16W',
    x: 62,
    y: 30,
    value: 'gate driver',
    nets: { '1': 'PWM_H', '3': '3V3', '4': 'GND', '9': 'VSS_H', '10': 'GATE_H', '16': 'VDD_H' },
  },
  {
    ref: 'U2',
    pkg: 'SOIC-16W',
    x: 62,
    y: 62,
    value: 'gate driver',
    nets: { '1': 'PWM_L', '3': '3V3', '4': 'GND', '9': 'VSS_L', '10': 'GATE_L', '16': 'VDD_L' },
  },
  {
    ref: 'U3',
    pkg: 'QFN-32',
    x: 32,
    y: 46,
    value: 'controller',
    nets: { '1': '3V3', '8': 'PWM_H', '9': 'PWM_L', '17': 'SENSE', EP: 'GND' },
  },
  { ref: 'Q1', pkg: 'D2PAK', x: 92, y: 32, value: 'switch 600 V', nets: { '1': 'GATE_H', '3': 'PHASE', TAB: 'BUS' } },
  { ref: 'Q2', pkg: 'D2PAK', x: 92, y: 66, value: 'switch 600 V', nets: { '1': 'GATE_L', '3': 'BUS_N', TAB: 'PHASE' } },
  { ref: 'C1', pkg: 'RADIAL-18', x: 120, y: 22, value: '220 µF 400 V', nets: { '1': 'BUS_N', '2': 'BUS' } },
  { ref: 'C2', pkg: 'RADIAL-18', x: 120, y: 44, value: '220 µF 400 V', nets: { '1': 'BUS_N', '2': 'BUS' } },
  { ref: 'C3', pkg: 'FILM-22.5', x: 122, y: 62, value: '1 µF 630 V', nets: { '1': 'BUS', '2': 'BUS_N' } },
  { ref: 'J1', pkg: 'TERM-3', x: 122, y: 84, value: 'motor phase', nets: { '1': 'BUS', '2': 'PHASE', '3': 'BUS_N' } },
  { ref: 'J2', pkg: 'HEADER-10', x: 12, y: 50, rotation: 90, value: 'control', nets: { '1': '24V', '2': 'GND' } },
  { ref: 'T1', pkg: 'TRAFO-EE16', x: 40, y: 76, value: 'isolated supply' },
  {
    ref: 'U4',
    pkg: 'SOT-223',
    x: 24,
    y: 22,
    value: '3.3 V regulator',
    nets: { '1': 'GND', '2': '3V3', '3': '5V', TAB: '3V3' },
  },
  { ref: 'U5', pkg: 'SOIC-8', x: 24, y: 66, value: 'current sense', nets: { '1': 'SENSE', '4': 'GND', '8': '3V3' } },
  { ref: 'D1', pkg: 'SMB', x: 76, y: 20, value: 'bootstrap diode', nets: { '1': 'VDD_H', '2': '24V' } },
  { ref: 'D2', pkg: 'SMA', x: 52, y: 46, value: 'clamp', nets: { '1': 'VDD_L', '2': 'VSS_L' } },
  { ref: 'D3', pkg: 'SMA', x: 74, y: 46, value: 'clamp', nets: { '1': 'VDD_H', '2': 'VSS_H' } },
  { ref: 'L1', pkg: 'IND-8', x: 14, y: 82, value: '47 µH', nets: { '1': '24V', '2': '5V' } },
  { ref: 'Y1', pkg: 'XTAL-3225', x: 40, y: 38, value: '12 MHz' },
  { ref: 'C4', pkg: 'CAN-8', x: 26, y: 86, value: '100 µF 35 V', nets: { '1': 'GND', '2': '24V' } },
  { ref: 'R1', pkg: 'R2512', x: 78, y: 84, value: '3 mΩ', nets: { '1': 'BUS_N', '2': 'SENSE' } },
  { ref: 'R2', pkg: 'R2512', x: 88, y: 84, value: 'bleeder 100 kΩ', nets: { '1': 'BUS', '2': 'BUS_N' } },
  { ref: 'K1', pkg: 'RELAY-15', x: 62, y: 84, value: 'pre-charge relay', nets: { '1': '24V' } },
  ...row('C', 10, 8, 'C0603', 25, 39, 0, 1.9, { value: '100 nF', nets: decoupling }),
  ...row('C', 18, 6, 'C0805', 48, 22, 0, 2.6, { value: '1 µF', nets: { '1': 'VDD_H', '2': 'VSS_H' } }),
  ...row('C', 24, 6, 'C0805', 48, 52.6, 0, 2.6, { value: '1 µF', nets: { '1': 'VDD_L', '2': 'VSS_L' } }),
  ...row('R', 10, 4, 'R1206', 76, 28, 0, 2.6, { value: '10 Ω', nets: { '1': 'GATE_H' } }),
  ...row('R', 14, 4, 'R1206', 76, 60, 0, 2.6, { value: '10 Ω', nets: { '1': 'GATE_L' } }),
  ...row('R', 20, 8, 'R0603', 30, 54, 2.2, 0, { rotation: 90, value: '10 kΩ' }),
  ...row('C', 30, 6, 'C1206', 12, 20, 0, 2.8, { value: '10 µF', nets: { '1': '5V', '2': 'GND' } }),
  ...row('R', 30, 12, 'R0603', 24, 40, 2.2, 0, { side: 'bottom', rotation: 90, value: '4.7 kΩ' }),
  ...row('C', 40, 10, 'C0603', 26, 48, 2.2, 0, { side: 'bottom', rotation: 90, value: '100 nF', nets: decoupling }),
  {
    ref: 'U6',
    pkg: 'SOIC-14',
    x: 30,
    y: 62,
    side: 'bottom',
    rotation: 90,
    value: 'comparators',
    nets: { '3': '3V3', '12': 'GND' },
  },
];

const footprint = (i: Item): TextFootprint => {
  const pkg = packageById(i.pkg);
  const mirrored = i.side === 'bottom';
  return {
    name: `Gantry:${i.pkg.replace(/[-.]/g, '_')}`,
    ref: i.ref,
    ...(i.value ? { value: i.value } : {}),
    x: at(i.x + OX),
    y: at(i.y + OY),
    ...(i.rotation ? { rotation: i.rotation } : {}),
    ...(i.side ? { side: i.side } : {}),
    body: [pkg.body.l, pkg.body.w],
    pads: pkg.terminals.map((t) => ({
      // footprints of capacitors number the plus pad 1; here terminal 1 is the striped end
      number: pkg.polarity === 'minus-stripe' ? (t.id === '1' ? '2' : '1') : t.id,
      x: at(mirrored ? -t.land.x : t.land.x),
      y: at(t.land.y),
      w: at(t.land.w),
      h: at(t.land.h),
      ...(t.drill_mm ? { drill: String(at(t.drill_mm)) } : {}),
      shape: t.round ? 'circle' : t.kind === 'pad' || t.kind === 'tab' ? 'rect' : 'roundrect',
      ...(i.nets?.[t.id] ? { net: i.nets[t.id] } : {}),
    })),
  };
};

/** Where a terminal's land is, in the file. */
function land(ref: string, terminal: string): [number, number] {
  const i = items.find((x) => x.ref === ref);
  const t = i && packageById(i.pkg).terminals.find((x) => x.id === terminal);
  if (!i || !t) throw new Error(`no ${ref}/${terminal}`);
  const part: PlacedPart = {
    partId: '',
    package: i.pkg,
    x_mm: i.x,
    y_mm: i.y,
    rotation_deg: i.rotation ?? 0,
    side: i.side ?? 'top',
  };
  const [x, y] = toBoard(part, t.land.x, t.land.y);
  return [at(x + OX), at(y + OY)];
}

/** A track that turns once, by a right angle. */
const track = (net: string, layer: string, w: number, [ax, ay]: [number, number], [bx, by]: [number, number]) => [
  { x0: ax, y0: ay, x1: bx, y1: ay, w, layer, net },
  { x0: bx, y0: ay, x1: bx, y1: by, w, layer, net },
];
const rectangle = (x0: number, y0: number, x1: number, y1: number): [number, number][] => [
  [x0 + OX, y0 + OY],
  [x1 + OX, y0 + OY],
  [x1 + OX, y1 + OY],
  [x0 + OX, y1 + OY],
];
const vias = (net: string, x0: number, y0: number, nx: number, ny: number, step: number) =>
  Array.from({ length: nx * ny }, (_, i) => ({
    x: at(x0 + OX + (i % nx) * step),
    y: at(y0 + OY + Math.floor(i / nx) * step),
    d: 0.7,
    drill: 0.35,
    net,
  }));
const corners = (inset: number) =>
  [
    [inset, inset],
    [W - inset, inset],
    [inset, H - inset],
    [W - inset, H - inset],
  ] as const;

const nets = [
  'GND',
  '3V3',
  '5V',
  '24V',
  'BUS',
  'BUS_N',
  'PHASE',
  'GATE_H',
  'GATE_L',
  'PWM_H',
  'PWM_L',
  'SENSE',
  'VDD_H',
  'VSS_H',
  'VDD_L',
  'VSS_L',
];

const text = boardText({
  version: 20240108,
  thickness: 2,
  layers,
  foils_um: layers.map(() => 70),
  nets,
  footprints: [
    ...items.map(footprint),
    ...corners(5).map(([x, y], i) => ({
      name: 'Gantry:Hole',
      ref: `H${i + 1}`,
      x: x + OX,
      y: y + OY,
      pads: [
        {
          number: '',
          kind: 'np_thru_hole' as const,
          shape: 'circle' as const,
          x: 0,
          y: 0,
          w: 4.2,
          h: 4.2,
          drill: '4.2',
        },
      ],
    })),
  ],
  tracks: [
    ...track('GATE_H', 'F.Cu', 0.8, land('U1', '10'), land('Q1', '1')),
    ...track('GATE_L', 'F.Cu', 0.8, land('U2', '10'), land('Q2', '1')),
    ...track('PWM_H', 'In1.Cu', 0.25, land('U3', '8'), land('U1', '1')),
    ...track('PWM_L', 'In1.Cu', 0.25, land('U3', '9'), land('U2', '1')),
    ...track('SENSE', 'B.Cu', 0.3, land('U5', '1'), land('R1', '2')),
    ...items
      .filter((i) => i.nets?.['1'] === '3V3')
      .flatMap((i) => track('3V3', i.side === 'bottom' ? 'B.Cu' : 'F.Cu', 0.4, land(i.ref, '1'), [OX + 21, OY + 30])),
  ],
  vias: [
    ...vias('GND', 30.6, 44.6, 3, 3, 1.4),
    ...vias('BUS', 87, 22, 6, 3, 2),
    ...vias('PHASE', 87, 56, 6, 3, 2),
    ...vias('GND', 20, 28, 6, 2, 3),
  ],
  zones: [
    { layer: 'F.Cu', net: 'BUS', fill: rectangle(84, 10, 140, 34) },
    { layer: 'F.Cu', net: 'PHASE', fill: rectangle(84, 42, 108, 70) },
    { layer: 'In1.Cu', net: 'GND', fill: rectangle(4, 10, 56, 90) },
    { layer: 'In2.Cu', net: 'BUS', fill: rectangle(84, 6, 144, 50) },
    { layer: 'In3.Cu', net: 'BUS_N', fill: rectangle(84, 50, 144, 94) },
    { layer: 'In4.Cu', net: 'GND', fill: rectangle(4, 6, 56, 94) },
    { layer: 'B.Cu', net: 'PHASE', fill: rectangle(84, 20, 140, 80) },
    { layer: 'B.Cu', net: 'GND', fill: rectangle(4, 12, 22, 88) },
  ],
  edges: edgeRectangle(OX, OY, OX + W, OY + H),
  more: `(gr_text "600 V AREA: CHECK BLEED" (at ${OX + 110} ${OY + 8}) (layer "F.SilkS"))`,
});

const out = new URL('../../web/src/lib/server/demo/gantry.kicad_pcb', import.meta.url);
writeFileSync(out, text);
process.stdout.write(`${items.length} parts, ${Math.round(text.length / 1000)} kB\n`);
