/** Writes S-expression boards of different format numbers, for tests and for the demo's board file. */
interface TextPad {
  number: string;
  kind?: 'smd' | 'thru_hole' | 'np_thru_hole' | 'connect';
  shape?: 'circle' | 'rect' | 'oval' | 'roundrect' | 'trapezoid' | 'custom';
  x: number;
  y: number;
  /** In the footprint's frame; the file wants it with the footprint's rotation added. */
  angle?: number;
  w: number;
  h: number;
  drill?: string;
  layers?: string;
  net?: string;
  /** More lists, as text. */
  more?: string;
}

export interface TextFootprint {
  name: string;
  ref: string;
  value?: string;
  x: number;
  y: number;
  rotation?: number;
  side?: 'top' | 'bottom';
  pads: TextPad[];
  /** Drawn body, as width and height. */
  body?: [number, number];
  more?: string;
}

export interface TextBoard {
  version: number;
  thickness?: number;
  layers: string[];
  foils_um?: number[];
  nets: string[];
  footprints: TextFootprint[];
  tracks?: { x0: number; y0: number; x1: number; y1: number; w: number; layer: string; net: string }[];
  vias?: { x: number; y: number; d: number; drill: number; net: string; layers?: [string, string]; kind?: string }[];
  zones?: { layer: string; net: string; fill?: [number, number][]; min_thickness?: number }[];
  /** Lists as text. */
  edges: string[];
  more?: string;
}

const quoted = (text: string) => `"${text.replaceAll('\\', '\\\\').replaceAll('"', '\\"')}"`;

export function boardText(b: TextBoard): string {
  const old = b.version < 20211014;
  const word = (text: string) => (old && /^[\w.+/*:-]+$/.test(text) ? text : quoted(text));
  const nets = ['', ...b.nets];
  const netOf = (name: string | undefined) =>
    name === undefined
      ? ''
      : old || b.version < 20250000
        ? ` (net ${nets.indexOf(name)} ${quoted(name)})`
        : ` (net ${quoted(name)})`;
  const number = (name: string) => ` (net ${nets.indexOf(name)})`;
  const last = b.layers.length - 1;
  const ordinal = (i: number) =>
    b.version < 20000000
      ? last === i
        ? 0
        : 15 - i
      : b.version >= 20241229
        ? i === 0
          ? 0
          : i === last
            ? 2
            : 2 + 2 * i
        : i === last
          ? 31
          : i;
  const lines = [
    `(kicad_pcb (version ${b.version}) (${old ? 'host' : 'generator'} ${word('orthos-tests')}${old ? ' 1' : ''})`,
    `(general (thickness ${b.thickness ?? 1.6}))`,
    '(layers',
    ...b.layers.map((name, i) => ` (${ordinal(i)} ${word(name)} signal)`),
    ` (${old ? 44 : 25} ${word('Edge.Cuts')} user)`,
    ` (${old ? 49 : 35} ${word('F.Fab')} user)`,
    ')',
  ];
  if (b.foils_um)
    lines.push(
      '(setup (stackup',
      ...b.layers.map(
        (name, i) => ` (layer ${quoted(name)} (type "copper") (thickness ${(b.foils_um?.[i] ?? 35) / 1000}))`,
      ),
      ' (layer "dielectric 1" (type "core") (thickness 1.5))))',
    );
  if (b.version < 20250000) for (const [i, name] of nets.entries()) lines.push(`(net ${i} ${quoted(name)})`);
  for (const f of b.footprints) {
    const side = f.side === 'bottom' ? 'B' : 'F';
    lines.push(
      `(${old ? 'module' : 'footprint'} ${word(f.name)} (layer ${word(`${side}.Cu`)}) (at ${f.x} ${f.y}${f.rotation ? ` ${f.rotation}` : ''})`,
    );
    if (b.version >= 20230620)
      lines.push(
        ` (property "Reference" ${quoted(f.ref)} (at 0 0) (layer "F.SilkS"))`,
        ` (property "Value" ${quoted(f.value ?? '')} (at 0 0))`,
      );
    else
      lines.push(
        ` (fp_text reference ${word(f.ref)} (at 0 0) (layer ${word('F.SilkS')}))`,
        ` (fp_text value ${f.value ? word(f.value) : '""'} (at 0 0) (layer ${word('F.Fab')}))`,
      );
    if (f.body) {
      const [w, h] = f.body;
      const corners = [
        [-w / 2, -h / 2],
        [w / 2, -h / 2],
        [w / 2, h / 2],
        [-w / 2, h / 2],
      ];
      for (const [i, [x, y]] of corners.entries()) {
        const [ex, ey] = corners[(i + 1) % 4];
        lines.push(` (fp_line (start ${x} ${y}) (end ${ex} ${ey}) (layer ${word(`${side}.Fab`)}) (width 0.1))`);
      }
    }
    for (const p of f.pads) {
      const kind = p.kind ?? (p.drill ? 'thru_hole' : 'smd');
      const angle = (p.angle ?? 0) + (f.rotation ?? 0);
      const layers = p.layers ?? (kind === 'smd' ? `${word(`${side}.Cu`)} ${word(`${side}.Mask`)}` : '*.Cu *.Mask');
      lines.push(
        ` (pad ${word(p.number || '')} ${kind} ${p.shape ?? 'rect'} (at ${p.x} ${p.y}${angle ? ` ${angle}` : ''}) (size ${p.w} ${p.h})${
          p.drill ? ` (drill ${p.drill})` : ''
        } (layers ${layers})${netOf(p.net)}${p.more ? ` ${p.more}` : ''})`.replace('(pad  ', '(pad "" '),
      );
    }
    if (f.more) lines.push(f.more);
    lines.push(')');
  }
  for (const t of b.tracks ?? [])
    lines.push(
      `(segment (start ${t.x0} ${t.y0}) (end ${t.x1} ${t.y1}) (width ${t.w}) (layer ${word(t.layer)})${number(t.net)})`,
    );
  for (const v of b.vias ?? []) {
    const [from, to] = v.layers ?? [b.layers[0], b.layers[last]];
    lines.push(
      `(via${v.kind ? ` ${v.kind}` : ''} (at ${v.x} ${v.y}) (size ${v.d}) (drill ${v.drill}) (layers ${word(from)} ${word(to)})${number(v.net)})`,
    );
  }
  for (const z of b.zones ?? []) {
    const ring = (p: [number, number][]) => `(pts ${p.map(([x, y]) => `(xy ${x} ${y})`).join(' ')})`;
    const outline = z.fill ?? [
      [0, 0],
      [1, 0],
      [1, 1],
    ];
    lines.push(
      `(zone${number(z.net)} (net_name ${quoted(z.net)}) (layer ${word(z.layer)}) (min_thickness ${z.min_thickness ?? 0.25})${
        old ? '' : ' (filled_areas_thickness no)'
      }`,
      ` (polygon ${ring(outline as [number, number][])})`,
      ...(z.fill ? [` (filled_polygon${old ? '' : ` (layer ${quoted(z.layer)})`} ${ring(z.fill)})`] : []),
      ')',
    );
  }
  lines.push(...b.edges, ...(b.more ? [b.more] : []), ')');
  return `${lines.join('\n')}\n`;
}

/** A rectangle on the board's edge, as four lines. */
export const edgeRectangle = (x0: number, y0: number, x1: number, y1: number): string[] =>
  [
    [x0, y0, x1, y0],
    [x1, y0, x1, y1],
    [x1, y1, x0, y1],
    [x0, y1, x0, y0],
  ].map(([a, b, c, d]) => `(gr_line (start ${a} ${b}) (end ${c} ${d}) (layer Edge.Cuts) (width 0.1))`);
