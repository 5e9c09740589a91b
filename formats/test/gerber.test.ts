import { type PlacedPart, toBoard } from '@orthos/core/board';
import { packageById } from '@orthos/core/packages';
import { terminalAt } from '@orthos/core/scene';
import fc from 'fast-check';
import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { BoardFileError } from '../src/fileError.ts';
import { evaluate } from '../src/gerber/apertures.ts';
import { readDrill } from '../src/gerber/readDrill.ts';
import { readGerber } from '../src/gerber/readGerber.ts';
import { importBoard } from '../src/importBoard.ts';
import type { NamedFile } from '../src/zip.ts';
import { unzipBounded } from '../src/zip.ts';
import { bytesOf, drillText, gerberText, type Plot, type PlotPad } from './gerberText.ts';

const outline: Plot = {
  function: 'Profile,NP',
  tracks: [
    {
      w: 0.1,
      points: [
        [0, 0],
        [40, 0],
        [40, 25],
        [0, 25],
        [0, 0],
      ],
    },
  ],
};

const padsOf = (part: PlacedPart, nets: Record<string, string> = {}): PlotPad[] =>
  packageById(part.package).terminals.map((t) => {
    const [x, y] = toBoard(part, t.land.x, t.land.y);
    const turned = Math.abs(Math.round(part.rotation_deg / 90)) % 2 === 1;
    const [w, h] = turned ? [t.land.h, t.land.w] : [t.land.w, t.land.h];
    return {
      x,
      y,
      w,
      h,
      shape: t.round ? 'C' : 'R',
      ref: part.ref,
      pin: t.id,
      ...(nets[t.id] ? { net: nets[t.id] } : {}),
      through: t.drill_mm !== undefined,
    };
  });

const part = (pkg: string, change: Partial<PlacedPart> = {}): PlacedPart => ({
  partId: 'u1',
  ref: 'U1',
  package: pkg,
  x_mm: 20,
  y_mm: 12,
  rotation_deg: 0,
  side: 'top',
  ...change,
});

const set = (top: Plot, bottom: Plot = { function: 'Copper,L2,Bot' }): NamedFile[] => [
  { name: 'a-top.gbr', bytes: bytesOf(gerberText(top)) },
  { name: 'a-bottom.gbr', bytes: bytesOf(gerberText(bottom)) },
  { name: 'a-edge.gbr', bytes: bytesOf(gerberText(outline)) },
  { name: 'a.drl', bytes: bytesOf(drillText([{ x: 5, y: 5, d: 0.4 }])) },
];

describe('photoplot sets', () => {
  it('give outline, coverage per layer, nets, vias, and parts from pads that name them', () => {
    const made = importBoard(
      set({
        function: 'Copper,L1,Top',
        pads: [
          ...padsOf(part('SOIC-8', { rotation_deg: 90 }), { '4': 'GND' }),
          ...padsOf(part('C0603', { ref: 'C1', x_mm: 30 })),
        ],
        regions: [
          {
            points: [
              [0, 20],
              [40, 20],
              [40, 25],
              [0, 25],
            ],
            net: 'GND',
          },
          {
            points: [
              [10, 21],
              [20, 21],
              [20, 24],
              [10, 24],
            ],
            clear: true,
          },
        ],
      }),
    );
    expect(made.bbox_mm).toMatchObject({ w: 40, h: 25 });
    expect(made.board.parts.map((p) => [p.ref, p.package, p.rotation_deg % 180])).toEqual([
      ['U1', 'SOIC-8', 90],
      ['C1', 'C0603', 0],
    ]);
    expect(made.board.parts[0].nets).toEqual({ '4': 'GND' });
    const lands = ['SOIC-8', 'C0603']
      .flatMap((id) => packageById(id).terminals)
      .reduce((sum, t) => sum + t.land.w * t.land.h, 0);
    expect(made.coverage.top).toBeCloseTo((200 - 30 + lands) / 1000, 2);
    expect(made.coverage.bottom).toBe(0);
    expect(made.board.vias).toHaveLength(1);
    expect(made.roles?.map((r) => r.role)).toEqual(['top', 'bottom', 'outline', 'drill']);
    expect(made.notes.join(' ')).toMatch(/1\.6 mm and 35 µm/);
  });

  it('place any package where its pads are, on both sides', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('SOIC-8', 'QFP-44', 'QFN-24', 'SOT-23', 'DIP-8', 'TSSOP-20'),
        fc.constantFrom(0, 90, 180, 270),
        fc.constantFrom('top' as const, 'bottom' as const),
        (pkg, rotation_deg, side) => {
          const p = part(pkg, { rotation_deg, side });
          const nets = Object.fromEntries(packageById(pkg).terminals.map((t) => [t.id, `N${t.id}`]));
          const copper: Plot = { function: side === 'top' ? 'Copper,L1,Top' : 'Copper,L2,Bot', pads: padsOf(p, nets) };
          const other: Plot = { function: side === 'top' ? 'Copper,L2,Bot' : 'Copper,L1,Top' };
          const drills = packageById(pkg).terminals.flatMap((t) => {
            const [x, y] = toBoard(p, t.land.x, t.land.y);
            return t.drill_mm ? [{ x, y, d: t.drill_mm }] : [];
          });
          const files = set(copper, other);
          files[3] = { name: 'a.drl', bytes: bytesOf(drillText(drills.length ? drills : [{ x: 5, y: 5, d: 0.4 }])) };
          const [got] = importBoard(files).board.parts;
          expect(got.side).toBe(side);
          expect(packageById(got.package).terminals).toHaveLength(packageById(pkg).terminals.length);
          for (const t of packageById(pkg).terminals) {
            const [x, y] = toBoard(p, t.land.x, t.land.y);
            expect(got.nets?.[terminalAt(got, x, y) ?? '?']).toBe(`N${t.id}`);
          }
        },
      ),
      { numRuns: 40 },
    );
  });

  it('take files by their names when they say nothing, and by choice before that', () => {
    const bare = (text: string) => bytesOf(text.replace(/%TF.*\n/, ''));
    const [top, bottom, edge, drill] = set({ function: 'Copper,L1,Top', pads: padsOf(part('SOIC-8')) });
    const files = [
      { name: 'x.GTL', bytes: bare(new TextDecoder().decode(top.bytes)) },
      { name: 'x.GBL', bytes: bare(new TextDecoder().decode(bottom.bytes)) },
      { name: 'x.GKO', bytes: bare(new TextDecoder().decode(edge.bytes)) },
      { name: 'x.TXT', bytes: drill.bytes },
      { name: 'readme.md', bytes: bytesOf('hello') },
    ];
    const guessed = importBoard(files);
    expect(guessed.roles?.map((r) => [r.role, r.why])).toEqual([
      ['top', 'by its name'],
      ['bottom', 'by its name'],
      ['outline', 'by its name'],
      ['drill', 'said in the file'],
      ['leave out', 'said in the file'],
    ]);
    const swapped = importBoard(files, { roles: { 'x.GTL': 'bottom', 'x.GBL': 'top' } });
    expect(swapped.coverage.bottom).toBeCloseTo(guessed.coverage.top, 6);
  });

  it('come as a zip as well', () => {
    const files = set({ function: 'Copper,L1,Top', pads: padsOf(part('SOIC-8')) });
    const zip = zipSync(Object.fromEntries(files.map((f) => [`../../${f.name}`, f.bytes])));
    const made = importBoard([{ name: 'plots.zip', bytes: zip }]);
    expect(made.board.name).toBe('plots');
    expect(made.counts.footprints).toBe(1);
  });
});

describe('one photoplot', () => {
  const head = '%FSLAX46Y46*%\n%MOMM*%\nG75*\n';
  const areaOf = (body: string) => {
    const layer = readGerber(`${head}${body}\nM02*`);
    return { layer, shapes: layer.shapes };
  };
  it.each([
    ['a circle', '%ADD10C,2*%\nD10*\nX0Y0D03*', 'disc'],
    ['a rectangle with a hole', '%ADD10R,2X1X0.5*%\nD10*\nX0Y0D03*', 'area'],
    ['an obround', '%ADD10O,2X1*%\nD10*\nX0Y0D03*', 'area'],
    ['a hexagon', '%ADD10P,2X6X30*%\nD10*\nX0Y0D03*', 'area'],
    ['a macro with arithmetic', '%AMBOX*$3=$1x2*21,1,$3,$2,0,0,45*%\n%ADD10BOX,1X1*%\nD10*\nX0Y0D03*', 'area'],
    ['a macro with a hole', '%AMRING*1,1,2,0,0*1,0,1,0,0*%\n%ADD10RING*%\nD10*\nX0Y0D03*', 'area'],
  ])('flashes %s', (_, body, kind) => {
    expect(areaOf(body).shapes.map((s) => s.k)).toEqual([kind]);
  });
  it('draws arcs of both kinds, full circles, and inches with suppressed zeros', () => {
    const { shapes } = areaOf('%ADD10C,0.2*%\nD10*\nX1000000Y0D02*\nG03*\nX1000000Y0I-1000000J0D01*');
    const ring = shapes[0].k === 'line' ? shapes[0].p : [];
    for (let i = 0; i < ring.length; i += 2) expect(Math.hypot(ring[i], ring[i + 1])).toBeCloseTo(1, 6);
    expect(ring.length).toBeGreaterThan(40);
    const quarter = areaOf('%ADD10C,0.2*%\nD10*\nG74*\nX1000000Y0D02*\nG03*\nX0Y1000000I1000000J0D01*').shapes[0];
    expect(quarter.k === 'line' && quarter.p.every((v) => Math.abs(v) < 1 + 1e-6)).toBe(true);
    const inches = readGerber('%FSLAX24Y24*%\n%MOIN*%\n%ADD10C,0.01*%\nD10*\nX10000Y5000D03*\nM02*').shapes[0];
    expect(inches).toMatchObject({ x: 25.4, y: -12.7 });
    expect(inches.k === 'disc' && inches.d).toBeCloseTo(0.254, 9);
  });
  it('repeats steps and blocks', () => {
    expect(areaOf('%ADD10C,1*%\nD10*\n%SRX3Y2I5J4*%\nX0Y0D03*\n%SR*%').shapes).toHaveLength(6);
    const { shapes } = areaOf(
      '%ADD10C,1*%\n%ABD20*%\nD10*\nX0Y0D03*\nX1000000Y0D03*\n%AB*%\nD20*\nX5000000Y0D03*\n%LR90*%\nX0Y0D03*',
    );
    expect(shapes.map((s) => s.k === 'disc' && [Math.round(s.x), Math.round(s.y)])).toEqual([
      [5, 0],
      [6, 0],
      [0, 0],
      [0, -1],
    ]);
  });
  it('reads attributes in comments', () => {
    const { layer } = areaOf('G04 #@! TF.FileFunction,Copper,L1,Top*\n%ADD10C,1*%\nD10*\nG04 #@! TO.P,R7,2*\nX0Y0D03*');
    expect([layer.function, layer.flashes[0].ref, layer.flashes[0].pin]).toEqual([['Copper', 'L1', 'Top'], 'R7', '2']);
  });
  it.each([
    ['cut off', `${head}%ADD10C,1*%\nD10*\nX0Y0D03*`, /without M02/],
    ['an open command', `${head}%ADD10C,1*`, /never ends/],
    ['an unknown aperture', `${head}D99*\nM02*`, /line 4: aperture D99/],
    ['no format', '%MOMM*%\n%ADD10C,1*%\nD10*\nX0Y0D03*\nM02*', /before their format/],
    ['no unit', '%FSLAX46Y46*%\n%ADD10C,1*%\nM02*', /before the unit/],
    ['far away', `${head}%ADD10C,1*%\nD10*\nX999999999999Y0D03*\nM02*`, /out of all reason/],
    ['a million steps', `${head}%ADD10C,1*%\nD10*\n%SRX5000Y5000I1J1*%\nM02*`, /too often/],
    ['nonsense', `${head}HELLO WORLD*\nM02*`, /not understood/],
    ['bad macro', `${head}%AMX*21,1,(((*%\n%ADD10X*%\nM02*`, /no expression/],
    ['deep macro', `${head}%AMX*21,1,${'('.repeat(99)}1*%\n%ADD10X*%\nM02*`, /no expression/],
  ])('%s is refused with a line', (_, text, message) => {
    let sentence = '';
    try {
      readGerber(text);
    } catch (error) {
      expect(error).toBeInstanceOf(BoardFileError);
      sentence = (error as BoardFileError).sentence;
    }
    expect(sentence).toMatch(message);
  });
  it('computes macro expressions', () => {
    const v = new Map([
      [1, 3],
      [2, 0.5],
    ]);
    expect(evaluate('$1x2+(4-$2)/2-1', v, 1)).toBeCloseTo(6.75, 9);
    expect(evaluate('-.5X$9+1', v, 1)).toBe(1);
  });
});

describe('drill files', () => {
  it('read decimals, suppressed zeros of either kind, inches, slots and repeats', () => {
    expect(readDrill(drillText([{ x: 1.5, y: 2, d: 0.8 }])).holes).toEqual([{ x: 1.5, y: 2, d: 0.8, via: false }]);
    const lz = readDrill('M48\nINCH,LZ\nT1C0.0315\n%\nT1\nX01Y005\nM30');
    expect(lz.holes[0]).toMatchObject({ x: 25.4, y: -12.7 });
    const tz = readDrill('M48\nMETRIC,TZ,000.000\nT1C0.8\n%\nT1\nX1500Y2000\nM30');
    expect(tz.holes[0]).toMatchObject({ x: 1.5, y: -2 });
    expect(readDrill('M48\nMETRIC\nT1C1.0\n%\nT1\nX0Y0G85X3.0Y0\nM30').holes).toHaveLength(4);
    expect(readDrill('M48\nMETRIC\nT1C1.0\n%\nT1\nX1.0Y0\nR3X2.0\nM30').holes.map((h) => h.x)).toEqual([1, 3, 5, 7]);
  });
  it.each([
    ['cut off', 'M48\nMETRIC\nT1C1\n%\nT1\nX1.0Y1.0', /without M30/],
    ['an unknown tool', 'M48\nMETRIC\n%\nT7\nM30', /line 4: tool T7/],
    ['no unit', 'M48\nT1C1\nM30', /line 2: tools come before the unit/],
    ['something else', 'hello\nworld', /not understood/],
    ['a tool of a metre', 'M48\nMETRIC\nT1C1000\nM30', /1000 mm wide/],
  ])('%s is refused', (_, text, message) => {
    expect(() => readDrill(text)).toThrow(BoardFileError);
    try {
      readDrill(text);
    } catch (error) {
      expect((error as BoardFileError).sentence).toMatch(message);
    }
  });
});

describe('zips', () => {
  it('keep only the last part of a name', () => {
    const files = unzipBounded(zipSync({ '../../etc/passwd': bytesOf('x'), 'a\\b\\c.gbr': bytesOf('y') }));
    expect(files.map((f) => f.name)).toEqual(['passwd', 'c.gbr']);
  });
  it('refuse a bomb before it has unfolded', () => {
    const bomb = zipSync({ 'big.gbr': new Uint8Array(60_000_000) }, { level: 9 });
    expect(bomb.length).toBeLessThan(100_000);
    expect(() => unzipBounded(bomb)).toThrow(/unpacks to more than/);
  });
  it('refuse too many files, damage and truncation with a sentence', () => {
    const many = Object.fromEntries(Array.from({ length: 300 }, (_, i) => [`${i}.gbr`, bytesOf('x')]));
    expect(() => unzipBounded(zipSync(many))).toThrow(/more than 200 files/);
    const good = zipSync({ 'a.gbr': bytesOf('hello '.repeat(500)) });
    expect(() => unzipBounded(good.slice(0, 40))).toThrow(BoardFileError);
    fc.assert(
      fc.property(fc.nat(good.length - 1), fc.nat(255), (at, value) => {
        const bad = good.slice();
        bad[at] = value;
        try {
          unzipBounded(bad);
        } catch (error) {
          expect(error).toBeInstanceOf(BoardFileError);
        }
      }),
      { numRuns: 200 },
    );
  });
  it('sets of nothing useful are refused', () => {
    expect(() => importBoard([{ name: 'a.zip', bytes: zipSync({ 'a.txt': bytesOf('hello') }) }])).toThrow(
      BoardFileError,
    );
    expect(() => importBoard([])).toThrow(/no file/);
  });
});
