import { expressBoard } from '@orthos/core/rework';
import { describe, expect, it } from 'vitest';
import { BoardFileError, readBoardJson, writeBoardJson } from '../src/index.ts';

const board = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'pbt', distance_mm: 4 });

describe('board file', () => {
  it('reads back what it wrote', () => {
    expect(readBoardJson(writeBoardJson(board))).toEqual(board);
  });
  it.each([
    ['no JSON', '{"orthos": "board"', /not JSON/],
    ['another file', '{"hello": 1}', /"orthos": "board" is missing/],
    ['a list', '[]', /is missing/],
    ['no board', '{"orthos": "board"}', /expected object/],
    ['an unknown package', writeBoardJson(board).replaceAll('SOIC-8', 'SOIC-9'), /parts\.0\.package/],
    [
      'a number out of this world',
      writeBoardJson(board).replace('"thickness_mm": 0.8', '"thickness_mm": 8e300'),
      /thickness_mm/,
    ],
    [
      'a rail on a terminal that is not there',
      writeBoardJson({ ...board, rails: [{ id: 'r', label: '5 V', partId: 'target', terminal: '99' }] }),
      /rail 5 V: .* has no terminal 99/,
    ],
    [
      'a net on a terminal that is not there',
      writeBoardJson({ ...board, parts: board.parts.map((p) => ({ ...p, nets: { '99': 'VCC' } })) }),
      /net VCC: .* has no terminal 99/,
    ],
    ['too large a file', ' '.repeat(5_000_001), /larger than 5 MB/],
    ['deep nesting', '['.repeat(100_000), /not JSON/],
  ])('refuses %s with a sentence', (_, text, sentence) => {
    expect(() => readBoardJson(text)).toThrow(BoardFileError);
    expect(() => readBoardJson(text)).toThrow(sentence);
  });
});
