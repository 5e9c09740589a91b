// From where tools come: a wall on one side forbids that side alone, and mirrors with the board.
import { describe, expect, it } from 'vitest';
import type { BoardModel } from '../src/board/index.ts';
import { hoursFor, holdFor, hourOf } from '../src/compare/index.ts';
import { expressBoard } from '../src/rework/index.ts';

const plain = expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'none', distance_mm: 20 });
const part = { rotation_deg: 0, side: 'top' as const };
const board = (
  ...parts: { partId: string; package: string; x_mm: number; y_mm: number; blocksIron?: boolean }[]
): BoardModel => ({
  ...plain,
  parts: [{ ...part, partId: 'u1', package: 'SOIC-8', x_mm: 20, y_mm: 20 }, ...parts.map((p) => ({ ...part, ...p }))],
});
const blocked = (b: BoardModel, tool: 'iron' | 'tweezers' | 'grip' = 'iron', absent: string[] = []) =>
  hoursFor(b, b.parts[0], tool, absent).flatMap((h) => (h.blockedBy ? [h.hour] : []));

describe('an approach', () => {
  const right = { partId: 'c1', package: 'CAN-8', x_mm: 29, y_mm: 20 };
  it('is free where nothing stands', () => expect(blocked(board())).toEqual([]));
  it('is forbidden where something tall stands near, and nowhere else', () => {
    const hours = blocked(board(right));
    expect(hours).toContain(3);
    for (const hour of [6, 7, 8, 9, 10, 11, 12]) expect(hours).not.toContain(hour);
  });
  it('names who stands there, and is free once it is off', () => {
    const b = board(right);
    expect(hoursFor(b, b.parts[0], 'iron')[2]).toEqual({ hour: 3, blockedBy: 'c1' });
    expect(blocked(b, 'iron', ['c1'])).toEqual([]);
  });
  it('goes over what is low, and over what is far', () => {
    expect(blocked(board({ partId: 'r1', package: 'R0603', x_mm: 25.5, y_mm: 20 }))).toEqual([]);
    expect(blocked(board({ ...right, x_mm: 45 }))).toEqual([]);
  });
  it('is forbidden to irons, not to tweezers, by what somebody marked', () => {
    const b = board({ partId: 'r1', package: 'R0603', x_mm: 26, y_mm: 20, blocksIron: true });
    expect(blocked(b)).toContain(3);
    expect(blocked(b, 'grip')).toEqual([]);
  });
  it('is seen from the side that is worked at', () => {
    const b = board(right);
    const behind = { ...b, parts: b.parts.map((p) => ({ ...p, side: 'bottom' as const })) };
    expect(blocked(behind)).toContain(9);
    expect(blocked(behind)).not.toContain(3);
  });
  it('of air is told as hours too', () => {
    expect([0, 90, 180, 270].map(hourOf)).toEqual([3, 12, 9, 6]);
    expect([30, 60, 300].map(hourOf)).toEqual([2, 1, 5]);
  });
});

describe('a hold', () => {
  const held = (b: BoardModel) => holdFor(b, b.parts[0]);
  it('is at the ends that have no legs', () =>
    expect(held(board())).toMatchObject({ by: 'body', hours: expect.arrayContaining([6, 12]) }));
  it('turns with the part', () => {
    const b = board();
    const turned = { ...b, parts: [{ ...b.parts[0], rotation_deg: 90 }] };
    expect(held(turned)).toMatchObject({ by: 'body', hours: expect.arrayContaining([3, 9]) });
  });
  it('goes to a leg where jaws find no room at the ends', () => {
    const b = board(
      { partId: 'c1', package: 'CAN-8', x_mm: 20, y_mm: 26.8 },
      { partId: 'c2', package: 'CAN-8', x_mm: 20, y_mm: 13.2 },
    );
    expect(held(b)).toMatchObject({ by: 'leg' });
  });
  it('is by suction where there are no faces', () => {
    const b = board();
    const qfp = { ...b, parts: [{ ...b.parts[0], package: 'QFP-44' }] };
    expect(held(qfp)).toMatchObject({ by: 'cup' });
  });
});
