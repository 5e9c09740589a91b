// Bare lands: what each state takes, wires by the netlist, and gaps that set a part.
import { describe, expect, it } from 'vitest';
import type { BoardModel, PlacedPart } from '../src/board/index.ts';
import { alignmentOf, LAND_STATES, landRepair, wireFor } from '../src/hands/index.ts';
import { landIsGood, landKey } from '../src/job/index.ts';
import { expressBoard } from '../src/rework/index.ts';

const base = expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 30 });
const part = (
  partId: string,
  pkg: string,
  x_mm: number,
  y_mm: number,
  nets: Record<string, string> = {},
  more: Partial<PlacedPart> = {},
): PlacedPart => ({
  ...{ partId, ref: partId.toUpperCase(), package: pkg, x_mm, y_mm, rotation_deg: 0, side: 'top', nets },
  ...more,
});
const boardWith = (...parts: PlacedPart[]): BoardModel => ({ ...base, parts });
const u1 = part('u1', 'SOIC-8', 20, 20, { 1: 'LINE', 2: 'GND', 3: '5V', 4: 'OUT' });

describe('a torn land', () => {
  it('is wired to the nearest other place of its net', () => {
    const wire = wireFor(
      boardWith(u1, part('r1', 'R0603', 12, 18, { 1: 'LINE', 2: 'X' }), part('r2', 'R0603', 5, 18, { 1: 'LINE' })),
      u1,
      '1',
    );
    expect(wire?.to).toEqual({ partId: 'r1', terminal: '1' });
    expect(wire?.gauge_mm).toBe(0.15);
    // longer than the straight line, by what is soldered over and bent
    expect(wire?.length_mm).toBeGreaterThan(5);
    expect(wire?.length_mm).toBeLessThan(12);
    expect(wire?.check).toMatch(/^1 to R1 1 under 0\.3 Ω; 1 to 2 open\.$/);
    expect(wire?.through).toBe(false);
  });
  it('prefers its own face; another costs a way through the board', () => {
    const below = part('r3', 'R0603', 17, 18, { 1: 'LINE' }, { side: 'bottom' });
    const near = wireFor(boardWith(u1, below, part('r1', 'R0603', 12, 18, { 1: 'LINE' })), u1, '1');
    expect(near?.to.partId).not.toBe('r3');
    const alone = wireFor(boardWith({ ...u1, nets: { 1: 'LINE' } }, below), { ...u1, nets: { 1: 'LINE' } }, '1');
    expect(alone).toMatchObject({ to: { partId: 'r3' }, through: true });
  });
  it('takes thicker wire for a supply, and says what it goes round', () => {
    const wall = part('c1', 'C1210', 12, 20);
    const supply = wireFor(boardWith(u1, wall, part('c2', 'C0603', 6, 21, { 1: '5V' })), u1, '3');
    expect(supply?.gauge_mm).toBe(0.3);
    expect(supply?.round).toEqual(['C1']);
    const bare = wireFor(boardWith(u1, part('c2', 'C0603', 6, 21, { 1: '5V' })), u1, '3');
    expect(supply?.length_mm).toBeGreaterThan(bare?.length_mm ?? NaN);
  });
  it('without a known net is followed by eye', () => {
    expect(wireFor(boardWith(u1), u1, '5')).toBeUndefined();
    expect(wireFor(boardWith({ ...u1, nets: { 4: 'OUT' } }), { ...u1, nets: { 4: 'OUT' } }, '4')).toBeUndefined();
    expect(landRepair(boardWith(u1), u1, '5', 'torn')?.what).toMatch(/follow its track/);
  });
  it('of a hole is soldered on the other face while that one stands', () => {
    const j1 = part('j1', 'DIP-8', 30, 20, { 1: 'LINE' });
    expect(landRepair(boardWith(u1, j1), j1, '1', 'torn')?.what).toBe('solder on the other face');
    expect(landRepair(boardWith(u1, j1), j1, '1', 'torn', true)?.wire?.to.partId).toBe('u1');
  });
});

describe('states of lands', () => {
  it('each says what it takes, or that nothing is missing', () => {
    for (const state of LAND_STATES) {
      const repair = landRepair(boardWith(u1), u1, '1', state);
      expect(repair === undefined, state).toBe(state === 'good' || state === 'no-copper');
      if (repair) expect(repair.seconds).toBeGreaterThan(0);
    }
    expect(LAND_STATES.filter(landIsGood)).toEqual(['good', 'mask-gone', 'no-copper']);
    expect([landKey({ terminal: '3' }), landKey({ terminal: '3', far: true })]).toEqual(['3', '3 far']);
  });
});

describe('setting a part down', () => {
  it('goes by the nearest body in each direction, within its own breadth', () => {
    const board = boardWith(
      u1,
      part('c1', 'C0603', 14, 20),
      part('c2', 'C0603', 10, 20),
      part('r1', 'R0603', 20, 12),
      part('r2', 'R0603', 30, 30),
    );
    const { gaps } = alignmentOf(board, u1);
    expect(gaps.map((g) => [g.to, g.partId])).toEqual([
      ['left', 'c1'],
      ['up', 'r1'],
    ]);
    // bodies of 3.9 and 1.6 mm, six millimetres apart
    expect(gaps[0].mm).toBeCloseTo(6 - 3.9 / 2 - 1.6 / 2, 6);
  });
  it('may be off by less on fine leads, and turned by less the longer it is', () => {
    const of = (pkg: string) => alignmentOf(boardWith(), part('p', pkg, 0, 0));
    expect(of('QFP-44').shift_mm).toBeLessThan(of('SOIC-8').shift_mm);
    expect(of('QFP-44').turn_deg).toBeLessThan(of('SOIC-8').turn_deg);
    expect(of('C0603').shift_mm).toBeGreaterThan(of('QFP-44').shift_mm);
  });
});
