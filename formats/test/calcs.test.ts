import { CalcInputError } from '@orthos/core/ground';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CALCS, importBoard, runCalc, writeBoardJson } from '../src/index.ts';
import { bytesOf } from './gerberText.ts';

const context = { now: () => 0 };
interface Answer {
  board: { name: string; stack: { name: string }[] };
  counts: object;
  area_mm2: number;
  bbox_mm: { w: number; h: number };
  coverage: Record<string, number>;
}

describe('board.import', () => {
  const calc = CALCS.get('board.import');
  it('stands in one list with all that core computes', () => {
    expect([...CALCS.keys()]).toEqual(expect.arrayContaining(['heat.field', 'joint.volume', 'board.import']));
  });
  it('gives model, counts, box, area and coverage of its example', async () => {
    const answer = (await runCalc('board.import', calc?.example, context)) as Answer;
    expect(answer.board.name).toBe('strip');
    expect(answer.counts).toEqual({ footprints: 0, pads: 0, nets: 1, top: 0, bottom: 0 });
    expect([answer.area_mm2, answer.bbox_mm.w, answer.bbox_mm.h]).toEqual([200, 20, 10]);
    // a strip 16 mm long and 1 mm wide with round ends
    expect(answer.coverage['F.Cu']).toBeCloseTo((16 + Math.PI / 4) / 200, 3);
    expect(answer.coverage['B.Cu']).toBe(0);
  });
  it.each([
    [{}, 'name'],
    [{ name: 'x', bytes: 'not base64!' }, 'bytes'],
    [{ name: 'x', bytes: '', extra: 1 }, 'extra'],
    [{ name: 'x.kicad_pcb', bytes: btoa('(kicad_pcb') }, 'file: x.kicad_pcb, line 1'],
  ])('refuses %j with the field', async (input, says) => {
    const error: unknown = await runCalc('board.import', input, context).catch((e: unknown) => e);
    expect(error).toBeInstanceOf(CalcInputError);
    expect((error as Error).message).toContain(says);
  });
});

describe('our own board file', () => {
  const example = () => {
    const { bytes } = CALCS.get('board.import')?.example as { bytes: string };
    return importBoard([{ name: 'strip.kicad_pcb', bytes: Uint8Array.from(atob(bytes), (c) => c.charCodeAt(0)) }])
      .board;
  };
  it('is read back whole, but for the drawing that stays where it was', () => {
    const board = example();
    const again = importBoard([{ name: 'strip.board.json', bytes: bytesOf(writeBoardJson(board)) }]);
    const { drawing, ...rest } = board;
    expect(drawing).toBeDefined();
    expect(again.board).toEqual(rest);
    expect(again.notes.join()).toMatch(/copper drawing is not in the file/);
    expect(again.area_mm2).toBe(200);
  });
  it('damaged anywhere it is read or refused with a sentence', () => {
    const text = writeBoardJson(example());
    fc.assert(
      fc.property(fc.nat(text.length - 1), fc.integer({ min: 32, max: 126 }), (at, code) => {
        try {
          importBoard([
            {
              name: 'a.board.json',
              bytes: bytesOf(`${text.slice(0, at)}${String.fromCharCode(code)}${text.slice(at + 1)}`),
            },
          ]);
        } catch (error) {
          expect((error as Error).name).toBe('BoardFileError');
        }
      }),
      { numRuns: 100 },
    );
  });
});
