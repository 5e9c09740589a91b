import { type BoardModel, boardModelSchema, type PlacedPart, toBoard } from '@orthos/core/board';
import { packageById } from '@orthos/core/packages';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { BoardFileError } from '../src/fileError.ts';
import { boardSvg } from '../src/exports/boardSvg.ts';
import { frameFor } from '../src/tables/frame.ts';
import { mergeNets, mergePlacement } from '../src/tables/merge.ts';
import { guessPlacement, readPlacement, writePlacement } from '../src/tables/placement.ts';
import { readIpc356, type NetPoint } from '../src/tables/readIpc356.ts';

const part = (change: Partial<PlacedPart>): PlacedPart => ({
  partId: 'u1',
  ref: 'U1',
  package: 'SOIC-8',
  x_mm: 20,
  y_mm: 10,
  rotation_deg: 0,
  side: 'top',
  ...change,
});
const board = (parts: PlacedPart[] = [part({})]): BoardModel =>
  boardModelSchema.parse({
    v: 1,
    name: 'Table test',
    outline_mm: [
      [0, 0],
      [60, 0],
      [60, 40],
      [0, 40],
    ],
    thickness_mm: 1.6,
    stack: [{ name: 'top', foil_um: 35, coverage: 0.3 }],
    copper: [],
    vias: [],
    holes: [],
    parts,
    landmarks: [],
    flipAxis_mm: 30,
    powerSources: [],
    jointAlloy: 'SAC305',
  });

describe('placement lists', () => {
  it.each([
    ['commas', 'Ref,Val,Package,PosX,PosY,Rot,Side\nR1,10k,R_0603,12.5,30.0,90.0,top\n', 'mm'],
    [
      'semicolons, another order',
      'Side;Designator;Mid X;Mid Y;Rotation;Footprint;Comment\nTop;R1;12,5mm;30mm;90;0603;10k\n',
      'mm',
    ],
    [
      'tabs in mil',
      'Designator\tCenter-X(mil)\tCenter-Y(mil)\tRotation\tLayer\tFootprint\tComment\nR1\t492.126\t1181.102\t90\tTopLayer\t0603\t10k\n',
      'mil',
    ],
    [
      'columns by blanks, commented heads',
      '### made by somebody\n# Ref     Val       Package                PosX       PosY       Rot  Side\nR1        10k       R_0603_1608Metric   12.5000    30.0000   90.0000  top\n',
      'mm',
    ],
  ])('%s', (_, text, unit) => {
    const reading = guessPlacement(text);
    expect(reading.unit).toBe(unit);
    const [row] = readPlacement(text, reading);
    expect(row).toMatchObject({ ref: 'R1', value: '10k', rotation_deg: 90, side: 'top' });
    expect([row.x_mm, row.y_mm].map((v) => Math.round(v * 100) / 100)).toEqual([12.5, -30]);
  });
  it('go onto the board from its lower left corner, or by shared references', () => {
    const text =
      'Ref,Val,Package,PosX,PosY,Rot,Side\nR1,10k,R_0603,12.5,30.0,90.0,top\nC9,1u,C_0805,50,5,0,bottom\nZ1,,,70,200,0,top';
    const rows = readPlacement(text, guessPlacement(text));
    const first = mergePlacement(
      board(),
      rows.slice(0, 2),
      frameFor(
        board(),
        rows.slice(0, 2).map((r) => ({ ref: r.ref, x: r.x_mm, y: r.y_mm })),
      ),
    );
    expect(first.added).toEqual(['R1', 'C9']);
    expect(first.board.parts[1]).toMatchObject({ ref: 'R1', package: 'R0603', x_mm: 12.5, y_mm: 10, value: '10k' });
    expect(first.board.parts[2]).toMatchObject({ package: 'C0805', side: 'bottom', y_mm: 35 });
    // the same list moved by 100 mm, two references known
    const known = board([
      part({ ref: 'R1', partId: 'r1', package: 'R0603', x_mm: 12.5, y_mm: 10 }),
      part({ ref: 'C9', partId: 'c9', package: 'C0805', x_mm: 50, y_mm: 35 }),
    ]);
    const far = rows.map((r) => ({ ...r, x_mm: r.x_mm + 100, y_mm: r.y_mm - 7 }));
    const frame = frameFor(
      known,
      far.map((r) => ({ ref: r.ref, x: r.x_mm, y: r.y_mm })),
    );
    expect(frame.off_mm).toBeCloseTo(0, 6);
    const merged = mergePlacement(known, far, frame);
    expect(merged.left).toEqual([{ what: 'Z1 (line 4)', why: 'lies off the board' }]);
    expect(merged.changed).toEqual(['R1', 'C9']);
    expect(merged.board.parts).toHaveLength(2);
  });
  it('written and read again give the same places', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            x_mm: fc.integer({ min: 0, max: 6000 }).map((v) => v / 100),
            y_mm: fc.integer({ min: 0, max: 4000 }).map((v) => v / 100),
            rotation_deg: fc.integer({ min: 0, max: 359 }),
            side: fc.constantFrom('top' as const, 'bottom' as const),
            value: fc.constantFrom('10k', '=SUM(A1)', '1 µF, 25 V', 'a"b'),
          }),
          { minLength: 1, maxLength: 20 },
        ),
        (places) => {
          const b = board(places.map((p, i) => part({ ...p, partId: `p${i}`, ref: `P${i}` })));
          const text = writePlacement(b);
          const rows = readPlacement(text, guessPlacement(text));
          const [x0, y1] = [0, 40];
          expect(rows.map((r) => [r.ref, r.side, Math.round(r.rotation_deg)])).toEqual(
            b.parts.map((p) => [p.ref, p.side, p.rotation_deg]),
          );
          for (const [i, r] of rows.entries()) {
            expect(r.x_mm + x0).toBeCloseTo(b.parts[i].x_mm, 3);
            expect(r.y_mm + y1).toBeCloseTo(b.parts[i].y_mm, 3);
          }
          expect(text).not.toMatch(/(^|,)=SUM/m);
        },
      ),
    );
  });
  it.each([
    ['no headings', 'R1,10k,1,2\nR2,10k,3,4', /headings/],
    ['a word for a number', 'Ref,X,Y,Rot\nR1,here,2,0', /line 2: "here" is no number for x/],
    ['nothing below', 'Ref,X,Y,Rot\n', /no parts/],
    ['in the wrong unit', 'Ref,X (inch),Y,Rot\nR1,4000,2,0', /line 2: R1 lies more than 2 m away/],
  ])('%s is refused', (_, text, message) => {
    expect(() => readPlacement(text, guessPlacement(text))).toThrow(BoardFileError);
    try {
      readPlacement(text, guessPlacement(text));
    } catch (error) {
      expect((error as BoardFileError).sentence).toMatch(message);
    }
  });
});

/** A record of 80 columns, places counted from 1. */
function record(fields: Record<number, string>): string {
  const line = Array.from({ length: 80 }, () => ' ');
  for (const [at, text] of Object.entries(fields))
    for (const [i, ch] of [...text].entries()) line[Number(at) - 1 + i] = ch;
  return line.join('').trimEnd();
}
const n6 = (v: number) => `${v < 0 ? '-' : '+'}${String(Math.abs(Math.round(v))).padStart(6, '0')}`;
const pointRecord = (
  p: { net: string; ref: string; pin: string; x: number; y: number; code?: string; access?: string },
  scale: number,
) =>
  record({
    1: p.code ?? '327',
    4: p.net,
    21: p.ref,
    27: '-',
    28: p.pin,
    39: p.access ?? 'A01',
    42: `X${n6(p.x * scale)}`,
    50: `Y${n6(-p.y * scale)}`,
    58: 'X0600',
    63: 'Y0000',
    68: 'R000',
    73: 'S1',
  });

describe('bare-board netlists', () => {
  const soic = part({ rotation_deg: 90 });
  const points = packageById('SOIC-8').terminals.map((t) => {
    const [x, y] = toBoard(soic, t.land.x, t.land.y);
    return { net: `NET_${t.id}`, ref: 'U1', pin: t.id, x, y };
  });
  it.each([
    ['CUST 0', 1 / 0.00254],
    ['CUST 1', 1000],
  ])('units %s', (units, scale) => {
    const text = [
      'C  a comment',
      `P  UNITS ${units}`,
      'P  NNAME1 A_VERY_LONG_NET_NAME',
      ...points.map((p) => pointRecord(p, scale)),
      pointRecord({ net: 'NNAME1', ref: 'VIA', pin: '', x: 5, y: 6, code: '317' }, scale),
      '999',
    ].join('\r\n');
    const { points: read, notes } = readIpc356(text);
    expect(notes).toEqual([]);
    expect(read).toHaveLength(9);
    expect(read[0]).toMatchObject({ net: 'NET_1', ref: 'U1', pin: '1', side: 'top', via: false });
    expect(read[0].x).toBeCloseTo(points[0].x, 2);
    expect(read[0].y).toBeCloseTo(points[0].y, 2);
    expect(read[8]).toMatchObject({ net: 'A_VERY_LONG_NET_NAME', via: true });
    const b = board([soic]);
    const merged = mergeNets(b, read, { toBoard: (x, y) => [x, y], from: '', off_mm: null });
    expect(merged.board.parts[0].nets).toEqual(
      Object.fromEntries(packageById('SOIC-8').terminals.map((t) => [t.id, `NET_${t.id}`])),
    );
    expect(merged.changed).toEqual(['U1']);
  });
  it('name parts that the board has not, and nets by pin where no land is near', () => {
    const far: NetPoint[] = [
      { net: 'A', ref: 'U1', pin: '3', via: false, x: 55, y: 35, w: 0, h: 0, rotation_deg: 0, drill: 0, side: 'top' },
      { net: 'B', ref: 'Q9', pin: '1', via: false, x: 5, y: 5, w: 0, h: 0, rotation_deg: 0, drill: 0, side: 'top' },
    ];
    const merged = mergeNets(board([soic]), far, { toBoard: (x, y) => [x, y], from: '', off_mm: null });
    expect(merged.board.parts[0].nets).toEqual({ '3': 'A' });
    expect(merged.left).toEqual([{ what: 'Q9', why: expect.stringContaining('no part') as string }]);
  });
  it('make the parts that are not there from their points', () => {
    const there: BoardModel = board([soic]);
    const qfp = part({ partId: 'x', ref: 'U2', package: 'QFP-44', x_mm: 40, y_mm: 25, rotation_deg: 90 });
    const made: NetPoint[] = packageById('QFP-44').terminals.map((t) => {
      const [x, y] = toBoard(qfp, t.land.x, t.land.y);
      const net = `N${t.id}`;
      return { net, ref: 'U2', pin: t.id, via: false, x, y, w: 0.4, h: 1, rotation_deg: 0, drill: 0, side: 'top' };
    });
    const merged = mergeNets(there, made, { toBoard: (x, y) => [x, y], from: '', off_mm: null });
    expect(merged.added).toEqual(['U2']);
    expect(merged.board.parts[1]).toMatchObject({ package: 'QFP-44', x_mm: 40, y_mm: 25, rotation_deg: 90 });
    expect(merged.board.parts[1].nets?.['12']).toBe('N12');
  });
  it.each([
    ['no records', 'P  UNITS CUST 0\n999', /no test point records/],
    ['odd units', 'P  UNITS FURLONGS\n999', /line 1: units "FURLONGS" are unknown/],
    ['no place', record({ 1: '327', 4: 'A' }), /line 1: the record has no X and Y/],
    ['prose', 'Hello there\n', /line 1:/],
  ])('%s is refused', (_, text, message) => {
    let sentence = '';
    try {
      readIpc356(text);
    } catch (error) {
      expect(error).toBeInstanceOf(BoardFileError);
      sentence = (error as BoardFileError).sentence;
    }
    expect(sentence).toMatch(message);
  });
  it('say when they were cut off', () => {
    const text = pointRecord({ net: 'A', ref: 'R1', pin: '1', x: 1, y: 1 }, 1000);
    expect(readIpc356(text).notes.join()).toMatch(/closing 999/);
  });
});

describe('drawings', () => {
  it('are at true size, mirrored for the bottom, with names escaped', () => {
    const b = {
      ...board([part({ ref: 'U<1>' }), part({ partId: 'b1', ref: 'B1', side: 'bottom', x_mm: 50 })]),
      name: 'A & B',
    };
    const top = boardSvg(b, 'top');
    expect(top).toMatch(/width="68mm" height="48mm" viewBox="-4 -4 68 48"/);
    expect(top).toContain('A &amp; B');
    expect(top).not.toContain('<1>');
    expect(boardSvg(b, 'bottom')).toMatch(/<text x="10"/);
  });
});
