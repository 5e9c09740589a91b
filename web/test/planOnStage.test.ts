import type { UnitSettings } from '@orthos/core/ground';
import type { FieldFrames } from '@orthos/core/rework';
import { describe, expect, it } from 'vitest';
import { heatOnStage, meltTimes, planCallouts } from '../src/lib/plan/onStage.ts';
import { express, neighbour, result } from './planResult.ts';

const board = express;
const target = board.parts.find((p) => p.partId === 'target') ?? board.parts[0];
const plastic = board.parts.find((p) => p !== target) ?? board.parts[0];
const units: UnitSettings = { temperature: 'C', length: 'mm' };
const frames = { times_s: [0, 10], x_mm: [0, 1], y_mm: [0, 1], values: [] } as unknown as FieldFrames;
describe('a plan on the stage', () => {
  it('draws where the last joint melts, from solidus to liquidus; one line where they fall together', () => {
    const lines = (solidus_C: number, liquidus_C: number) =>
      heatOnStage(
        board,
        target,
        frames,
        result({ joints: [{ terminal: '1', solidus_s: 1, liquidus_s: 2, peak_C: 240, solidus_C, liquidus_C }] }),
        units,
      )?.isotherms.map((i) => [i.celsius, i.dashed]);
    expect(lines(183, 215)).toEqual([
      [183, true],
      [215, false],
    ]);
    expect(lines(183, 184)).toEqual([[184, false]]);
  });
  it('falls back on the solder of the board, and shows nothing where that is not known', () => {
    expect(heatOnStage(board, target, frames, undefined, units)?.isotherms.length).toBeGreaterThan(0);
    expect(heatOnStage({ ...board, jointAlloy: 'unheard of' }, target, frames, undefined, units)).toBeUndefined();
  });
  it('gives the scrubber the joints that get wet, and when it is over', () => {
    expect(
      meltTimes(
        board,
        result({
          freezes_s: 61,
          joints: [
            { terminal: '1', solidus_s: 20, liquidus_s: 30, peak_C: 240 },
            { terminal: '2', solidus_s: 22, liquidus_s: null, peak_C: 216 },
          ],
        }),
      ),
    ).toMatchObject({ joints: [30], allWet: 30, closes: 61, end: 90 });
  });
  it('calls out the last joint where it lies, and neighbours that come close to harm', () => {
    const beside = (margin_K: number) =>
      neighbour({
        partId: plastic.partId,
        says: margin_K < 10 ? 'may hurt' : 'clear',
        margin_K,
        atWet_C: 200 - margin_K,
        peak_C: 205,
      });
    const shown = planCallouts(board, target, result({ neighbours: [beside(5)] }), 22, units);
    expect(shown[0]).toMatchObject({ title: 'joint 1 is last', side: target.side, tone: 'hot' });
    expect(Math.hypot(shown[0].x_mm - target.x_mm, shown[0].y_mm - target.y_mm)).toBeLessThan(5);
    expect(shown[1]).toMatchObject({ id: plastic.partId, tone: 'stop', x_mm: plastic.x_mm });
    expect(shown[1].title).toContain('195 °C');
    expect(planCallouts(board, target, result({ neighbours: [beside(60)] }), 22, units)).toHaveLength(1);
    expect(planCallouts(board, target, result({ last: null }), 22, units)).toEqual([]);
  });
});
