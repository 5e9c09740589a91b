// Which way round: marks, what may tell where they belong, and what happens where witnesses differ.
import { describe, expect, it } from 'vitest';
import type { PlacedPart } from '../src/board/index.ts';
import {
  drawnMark,
  groundPlaces,
  judgeOrientation,
  markByGround,
  markPlaces,
  orientationSchema,
} from '../src/hands/index.ts';
import { PACKAGES } from '../src/packages/index.ts';

const part = (pkg: string, nets?: Record<string, string>): PlacedPart => ({
  ...{ partId: 'x1', ref: 'X1', package: pkg, x_mm: 0, y_mm: 0, rotation_deg: 0, side: 'top' },
  ...(nets ? { nets } : {}),
});

describe('where a mark may lie', () => {
  it('at both ends of a part with two, at the corners of all others', () => {
    expect(markPlaces(part('SMB'))).toEqual(['1', '2']);
    expect(markPlaces(part('SOIC-8'))).toEqual(['1', '8', '5', '4']);
    expect(markPlaces(part('QFP-44')).length).toBe(4);
    expect(markPlaces(part('QFP-44'))).toContain('1');
    // its first pin is the middle one of a side
    expect(markPlaces(part('PLCC-20')).length).toBe(4);
  });
  it('always includes where the drawing has it, whatever the package', () => {
    for (const pkg of PACKAGES.values()) {
      const drawn = drawnMark(part(pkg.id));
      if (drawn !== null && pkg.terminals.length > 0) expect(markPlaces(part(pkg.id)), pkg.id).toContain(drawn);
    }
  });
});

describe('continuity to ground', () => {
  it('tells minus of an aluminium can and the other end of moulded tantalum, without any netlist', () => {
    expect(markByGround(part('CAN-6.3'), '2')).toBe('2');
    expect(markByGround(part('TANT-B'), '2')).toBe('1');
    expect(groundPlaces(part('CAN-6.3'))).toEqual(['1', '2']);
  });
  it('goes by the netlist where that has a ground: a can on a negative rail has its plus there', () => {
    const negative = part('CAN-6.3', { '1': '-12V', '2': 'GND' });
    expect(markByGround(negative, '2')).toBe('1');
    expect(markByGround(negative, '1')).toBe('2');
  });
  it('tells nothing of a diode off ground, and asks only ground pins of a chip', () => {
    expect(groundPlaces(part('SMB'))).toEqual([]);
    expect(markByGround(part('SMB'), '1')).toBeNull();
    const chip = part('SOIC-8', { '4': 'GND', '8': '5V' });
    expect(groundPlaces(chip)).toEqual(['4']);
    expect(markByGround(chip, '4')).toBe('1');
    expect(markByGround(chip, '8')).toBeNull();
  });
});

describe('the judgement', () => {
  const judge = (
    lies: string,
    belongs: [by: 'photo' | 'silkscreen' | 'continuity', at: string][],
    drawn: string | null,
  ) => judgeOrientation({ lies, belongs: belongs.map(([by, at]) => ({ by, at })) }, drawn);

  it('is good where all agree, and says by what', () => {
    expect(judge('1', [['photo', '1']], '1')).toEqual({ ok: true, why: 'mark at 1, as the photo before' });
    expect(judge('2', [['continuity', '2']], null).ok).toBe(true);
  });
  it('a part the wrong way round is told where its mark belongs', () => {
    expect(judge('2', [['photo', '1']], '1')).toEqual({ ok: false, why: 'its mark lies at 2, it belongs at 1' });
  });
  it('witnesses that differ need a meter, which then decides even against print and drawing', () => {
    const torn = judge(
      '1',
      [
        ['photo', '1'],
        ['silkscreen', '2'],
      ],
      '1',
    );
    expect(torn).toEqual({ ok: false, why: 'the photo before says 1, the board’s mark 2: let continuity decide' });
    expect(judge('2', [['silkscreen', '2']], '1').why).toMatch(/the drawing 1: let continuity decide/);
    expect(
      judge(
        '2',
        [
          ['silkscreen', '1'],
          ['continuity', '2'],
        ],
        '1',
      ).ok,
    ).toBe(true);
    expect(
      judge(
        '1',
        [
          ['silkscreen', '1'],
          ['continuity', '2'],
        ],
        '1',
      ).ok,
    ).toBe(false);
  });
  it('is not to be had without having looked at this board, nor by one look said twice', () => {
    expect(orientationSchema.safeParse({ lies: '1', belongs: [] }).success).toBe(false);
    const twice = {
      lies: '1',
      belongs: [
        { by: 'photo', at: '1' },
        { by: 'photo', at: '2' },
      ],
    };
    expect(orientationSchema.safeParse(twice).success).toBe(false);
  });
});
