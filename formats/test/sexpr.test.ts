import { type PlacedPart, toBoard } from '@orthos/core/board';
import type { CopperShape } from '@orthos/core/copper';
import { packageById } from '@orthos/core/packages';
import { terminalAt } from '@orthos/core/scene';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { importBoard } from '../src/index.ts';
import { BoardFileError } from '../src/fileError.ts';
import { readSExpressionBoard } from '../src/sexpr/readBoard.ts';
import { scanSExpression } from '../src/sexpr/scan.ts';
import { toModel } from '../src/toModel.ts';
import { boardText, edgeRectangle, type TextBoard, type TextFootprint } from './boardText.ts';

const VERSIONS = [4, 20171130, 20211014, 20221018, 20240108, 20241229];

/** Lands of a library package as a footprint's pads: what the reader must recognise again. */
function footprintOf(
  pkg: string,
  place: Omit<TextFootprint, 'pads' | 'name'>,
  nets: Record<string, string> = {},
): TextFootprint {
  const mirrored = place.side === 'bottom';
  return {
    name: `Lib:${pkg.replace('-', '_')}`,
    ...place,
    pads: packageById(pkg).terminals.map((t) => ({
      number: t.id,
      x: mirrored ? -t.land.x : t.land.x,
      y: t.land.y,
      w: t.land.w,
      h: t.land.h,
      ...(t.drill_mm ? { drill: String(t.drill_mm) } : {}),
      ...(t.round ? { shape: 'circle' as const } : {}),
      ...(nets[t.id] ? { net: nets[t.id] } : {}),
    })),
  };
}

const board = (version: number, change: Partial<TextBoard> = {}): TextBoard => ({
  version,
  layers: ['F.Cu', 'In1.Cu', 'In2.Cu', 'B.Cu'],
  nets: ['GND', '3V3'],
  footprints: [
    footprintOf('SOIC-8', { ref: 'U1', x: 20, y: 15, rotation: 90 }, { '4': 'GND', '8': '3V3' }),
    footprintOf('R0603', { ref: 'R1', value: '10k', x: 30, y: 15 }, { '1': '3V3' }),
    footprintOf('C0603', { ref: 'C1', x: 30, y: 20, side: 'bottom', rotation: 180 }, { '2': 'GND' }),
  ],
  tracks: [{ x0: 10, y0: 10, x1: 40, y1: 10, w: 2, layer: 'F.Cu', net: 'GND' }],
  vias: [{ x: 12, y: 25, d: 0.8, drill: 0.4, net: 'GND' }],
  zones: [
    {
      layer: 'In1.Cu',
      net: 'GND',
      fill: [
        [10, 10],
        [40, 10],
        [40, 20],
        [10, 20],
      ],
    },
  ],
  edges: edgeRectangle(5, 5, 45, 30),
  ...change,
});

const read = (b: TextBoard) => toModel(readSExpressionBoard(boardText(b)), 'test');

describe('S-expression boards', () => {
  it.each(VERSIONS)('format %i: layers, places, nets, copper', (version) => {
    const { board: model, counts, coverage, bbox_mm, area_mm2, matches } = read(board(version));
    expect(model.stack.map((s) => s.name)).toEqual(['F.Cu', 'In1.Cu', 'In2.Cu', 'B.Cu']);
    expect(counts).toEqual({ footprints: 3, pads: 12, nets: 2, top: 2, bottom: 1 });
    expect(bbox_mm).toMatchObject({ x0: 5, y0: 5, x1: 45, y1: 30, w: 40, h: 25 });
    expect(area_mm2).toBeCloseTo(1000, 6);
    expect(model.parts.map((p) => [p.ref, p.package, p.side])).toEqual([
      ['U1', 'SOIC-8', 'top'],
      ['R1', 'R0603', 'top'],
      ['C1', 'C0603', 'bottom'],
    ]);
    expect(model.parts[0]).toMatchObject({ x_mm: 15, y_mm: 10, rotation_deg: 90, nets: { '4': 'GND', '8': '3V3' } });
    expect(matches.every((m) => m.by === 'library' && m.off_mm < 0.01)).toBe(true);
    // the fill of old formats is widened by its line width
    const widened = version < 20211014 ? (30.25 * 10.25 - (1 - Math.PI / 4) * 0.25 ** 2) / 1000 : 0.3;
    expect(coverage['In1.Cu']).toBeCloseTo(widened + (0.16 * Math.PI) / 1000, 2);
    expect(coverage['In2.Cu']).toBeCloseTo((0.16 * Math.PI) / 1000, 3);
    expect(model.vias.reduce((n, v) => n + v.per_mm2 * v.w_mm * v.h_mm, 0)).toBeCloseTo(1, 3);
  });

  it('keeps every land where the file has its pad, on both sides, at any angle', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('SOIC-8', 'SOT-23', 'QFP-44', 'QFN-24', 'DPAK', 'C0603', 'DIP-8', 'TSSOP-20', 'RELAY-29'),
        fc.integer({ min: 0, max: 359 }),
        fc.constantFrom('top' as const, 'bottom' as const),
        fc.constantFrom(...VERSIONS),
        fc.tuple(fc.integer({ min: 30, max: 60 }), fc.integer({ min: 30, max: 60 })),
        (pkg, rotation, side, version, [x, y]) => {
          const ids = packageById(pkg).terminals.map((t) => t.id);
          const nets = Object.fromEntries(ids.map((id) => [id, `N${id}`]));
          const b = board(version, {
            nets: Object.values(nets),
            footprints: [footprintOf(pkg, { ref: 'U1', x, y, rotation, side }, nets)],
            tracks: [],
            vias: [],
            zones: [],
            edges: edgeRectangle(0, 0, 90, 90),
          });
          const { board: model, drawing } = read(b);
          const [part] = model.parts as [PlacedPart];
          expect(part.package).toBe(pkg);
          expect(part.side).toBe(side);
          // every pad's copper lies under the terminal that carries its net
          for (const layer of drawing.layers)
            for (const s of layer.shapes) {
              const [cx, cy] = middle(s);
              expect(part.nets?.[terminalAt(part, cx, cy) ?? '?']).toBe(drawing.nets[s.n]);
            }
          const t = packageById(pkg).terminals[0];
          const [tx, ty] = toBoard(part, t.land.x, t.land.y);
          expect(terminalAt(part, tx, ty)).toBe(t.id);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('reads pads of all shapes with their areas', () => {
    const pad = (shape: NonNullable<TextFootprint['pads'][0]['shape']>, x: number, more = '') => ({
      number: String(x),
      shape,
      x,
      y: 0,
      w: 4,
      h: 2,
      more,
    });
    const b = board(20240108, {
      footprints: [
        {
          name: 'Lib:Odd',
          ref: 'X1',
          x: 10,
          y: 20,
          rotation: 30,
          pads: [
            pad('rect', 0),
            { ...pad('circle', 8), h: 4 },
            pad('oval', 16),
            pad('roundrect', 24, '(roundrect_rratio 0.25)'),
            pad('roundrect', 32, '(roundrect_rratio 0) (chamfer_ratio 0.5) (chamfer top_left)'),
            pad('trapezoid', 40, '(rect_delta 0 1)'),
            {
              ...pad('custom', 48),
              w: 1,
              h: 1,
              more: '(options (clearance outline) (anchor rect)) (primitives (gr_poly (pts (xy 0 0) (xy 3 0) (xy 3 3) (xy 0 3)) (width 0)))',
            },
          ],
        },
      ],
      tracks: [],
      vias: [],
      zones: [],
      edges: edgeRectangle(0, -60, 100, 60),
    });
    const { coverage } = read(b);
    const expected = 8 + Math.PI * 4 + (4 + Math.PI) + (8 - (4 - Math.PI) * 0.25) + (8 - 0.5) + 8 + (1 + 9 - 0.25);
    expect(coverage['F.Cu'] * 100 * 120).toBeCloseTo(expected, 0);
    expect(Math.abs(coverage['F.Cu'] * 12000 - expected)).toBeLessThan(0.15);
  });

  it('chains lines and arcs of either style into the outline, and takes what is inside it out', () => {
    const arcs = (old: boolean) =>
      old
        ? '(gr_arc (start 20 10) (end 20 0) (angle 180) (layer Edge.Cuts) (width 0.1))'
        : '(gr_arc (start 20 0) (mid 30 10) (end 20 20) (layer Edge.Cuts) (width 0.1))';
    for (const version of [20171130, 20211014]) {
      const { area_mm2, board: model } = read(
        board(version, {
          footprints: [],
          edges: [
            '(gr_line (start 0 0) (end 20 0) (layer Edge.Cuts))',
            arcs(version < 20211014),
            // drawn backwards, a hair off
            '(gr_line (start 0 20.008) (end 20 20) (layer Edge.Cuts))',
            '(gr_line (start 0 20) (end 0 0) (layer Edge.Cuts))',
            '(gr_circle (center 10 10) (end 12 10) (layer Edge.Cuts))',
          ],
        }),
      );
      expect(area_mm2).toBeCloseTo(400 + (Math.PI * 100) / 2 - Math.PI * 4, 0);
      expect(model.cutouts_mm).toHaveLength(1);
    }
  });

  it('says what it does not take', () => {
    const { ignored, notes } = read(
      board(20240108, {
        more: '(gr_text "NOTE" (at 1 1) (layer "F.SilkS")) (gr_line (start 0 0) (end 1 1) (layer "F.Cu")) (zone (net 0) (net_name "") (layer "F.Cu") (keepout (tracks not_allowed)) (polygon (pts (xy 0 0) (xy 1 0) (xy 1 1)))) (zone (net 1) (net_name "GND") (layer "B.Cu") (polygon (pts (xy 0 0) (xy 1 0) (xy 1 1))))',
      }),
    );
    expect(ignored).toEqual({ texts: 1, 'graphics on copper': 1, 'keep-outs': 1, 'zones without a fill': 1 });
    expect(notes.join()).toMatch(/35 µm/);
  });

  it('takes foils from the stack-up and the sides of blind vias', () => {
    const { board: model, coverage } = read(
      board(20240108, {
        foils_um: [70, 35, 35, 70],
        footprints: [],
        tracks: [],
        zones: [],
        vias: [{ x: 20, y: 20, d: 4, drill: 0.3, net: 'GND', kind: 'blind', layers: ['F.Cu', 'In1.Cu'] }],
      }),
    );
    expect(model.stack.map((s) => s.foil_um)).toEqual([70, 35, 35, 70]);
    expect([coverage['In1.Cu'] > 0.01, coverage['In2.Cu']]).toEqual([true, 0]);
  });

  it('puts the stripe of a can at its minus pad, which footprints number 2', () => {
    const { board: model } = read(
      board(20240108, {
        nets: ['PLUS', 'MINUS'],
        footprints: [
          {
            name: 'Lib:CP_Radial_D8.0mm_P3.50mm',
            ref: 'C9',
            x: 20,
            y: 15,
            pads: [
              { number: '1', x: 0, y: 0, w: 1.7, h: 1.7, drill: '0.9', net: 'PLUS' },
              { number: '2', x: 3.5, y: 0, w: 1.7, h: 1.7, drill: '0.9', net: 'MINUS' },
            ],
          },
        ],
      }),
    );
    const [can] = model.parts as [PlacedPart];
    expect(can).toMatchObject({ package: 'RADIAL-8', nets: { '1': 'MINUS', '2': 'PLUS' } });
    const [minus] = packageById('RADIAL-8').terminals;
    expect(toBoard(can, minus.land.x, minus.land.y)[0]).toBeCloseTo(23.5 - 5, 6);
  });
  it('makes a family or a box of a footprint that the library has not', () => {
    const legs = (n: number): TextFootprint => ({
      name: 'Lib:Strange',
      ref: 'U9',
      x: 20,
      y: 15,
      body: [6, n * 0.4 + 1],
      pads: Array.from({ length: 2 * n }, (_, i) => ({
        number: String(i + 1),
        x: i < n ? -4 : 4,
        y: ((i < n ? i : 2 * n - 1 - i) - (n - 1) / 2) * 0.8,
        w: 1.5,
        h: 0.4,
      })),
    });
    const { matches } = read(
      board(20240108, {
        footprints: [
          legs(13),
          {
            name: 'Lib:Blob',
            ref: 'J7',
            x: 20,
            y: 15,
            body: [12, 7],
            pads: [
              { number: '1', x: 0, y: 0, w: 1, h: 1 },
              { number: '2', x: 3.1, y: 0.7, w: 1, h: 1 },
              { number: '3', x: 1.1, y: 3.3, w: 1, h: 1 },
            ],
          },
        ],
      }),
    );
    expect(matches.map((m) => m.by)).toEqual(['family', 'box']);
    expect(packageById(matches[0].package).terminals).toHaveLength(26);
    expect(packageById(matches[1].package).body).toMatchObject({ l: 12, w: 7 });
  });
});

function middle(s: CopperShape): [number, number] {
  if (s.k === 'disc') return [s.x, s.y];
  const p = s.k === 'line' ? s.p : s.r[0];
  let [x, y] = [0, 0];
  for (let i = 0; i < p.length; i += 2) [x, y] = [x + p[i], y + p[i + 1]];
  return [(2 * x) / p.length, (2 * y) / p.length];
}

describe('hostile S-expressions', () => {
  const good = boardText(board(20240108));
  it.each([
    ['nothing', '', /is empty/],
    ['another list', '(schematic 1)', /line 1: begins with "\(schematic"/],
    ['an unfinished text', good.slice(0, 300), /the file ends inside|never ends/],
    ['brackets without end', '('.repeat(5000), /nested more than 100 deep/],
    ['a huge number', good.replace('(at 20 15 90)', '(at 1e300 15 90)'), /line \d+: .*out of all reason/],
    [
      'a word for a number',
      good.replace('(width 2)', '(width wide)'),
      /line \d+: \(width …\) needs a number, not "wide"/,
    ],
    ['no outline', boardText(board(20240108, { edges: [] })), /no outline/],
    ['an open outline', boardText(board(20240108, { edges: edgeRectangle(0, 0, 9, 9).slice(1) })), /not closed/],
    [
      'a board of a kilometre',
      boardText(board(20240108, { edges: edgeRectangle(0, 0, 1e4, 1e4) })),
      /larger than 1.5 m/,
    ],
    ['two boards', `${good}${good}`, /second list/],
    ['text around', `hello ${good}`, /line 1: text outside/],
    ['a stray bracket', `${good})`, /closing bracket/],
    ['a quote without end', good.replace('"GND"', '"GND'), /line \d+:/],
    ['no layers', '(kicad_pcb (version 20240108))', /no copper layers/],
  ])('%s', (_, text, message) => {
    expect(() => importBoard([{ name: 'x.kicad_pcb', bytes: new TextEncoder().encode(text) }])).toThrow(BoardFileError);
    try {
      importBoard([{ name: 'x.kicad_pcb', bytes: new TextEncoder().encode(text) }]);
    } catch (error) {
      expect((error as BoardFileError).sentence).toMatch(message);
    }
  });
  it('cut off or with a byte changed anywhere it reads or refuses, nothing else', () => {
    fc.assert(
      fc.property(fc.nat(good.length - 1), fc.integer({ min: 32, max: 126 }), fc.boolean(), (at, code, cut) => {
        const text = cut ? good.slice(0, at) : `${good.slice(0, at)}${String.fromCharCode(code)}${good.slice(at + 1)}`;
        try {
          importBoard([{ name: 'x.kicad_pcb', bytes: new TextEncoder().encode(text) }]);
        } catch (error) {
          expect(error).toBeInstanceOf(BoardFileError);
        }
      }),
      { numRuns: 150 },
    );
  });
  it('reads old encodings and UTF-16', () => {
    const latin = Uint8Array.from(
      boardText(board(20171130, { nets: ['GND', '3V3'] })).replace('orthos-tests', 'caf\xe9'),
      (c) => c.charCodeAt(0),
    );
    expect(importBoard([{ name: 'a.kicad_pcb', bytes: latin }]).counts.footprints).toBe(3);
    const wide = new Uint8Array(2 + good.length * 2);
    wide.set([0xff, 0xfe]);
    for (let i = 0; i < good.length; i++) wide[2 + 2 * i] = good.charCodeAt(i);
    expect(importBoard([{ name: 'a.kicad_pcb', bytes: wide }]).counts.footprints).toBe(3);
  });
  it('unescapes quoted text', () => {
    expect(scanSExpression('(a "b\\"c\\\\" "line\\nbreak" d)').items).toEqual(['a', 'b"c\\', 'line\nbreak', 'd']);
  });
});
