import { blankBoard, type BoardModel } from '@orthos/core/board';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Editor } from '../../src/lib/boards/editor.svelte.ts';
import { Placing } from '../../src/lib/boards/placing.svelte.ts';
import { Desk } from '../../src/lib/jobs/desk.svelte.ts';
import type { StagePoint } from '../../src/lib/stage/view.ts';

/** A draft that takes every change. */
class Draft {
  doc: BoardModel = blankBoard('Wren', 80, 60, 2, 1.6);
  steps: string[] = [];
  commit(label: string, doc: BoardModel) {
    this.steps.push(label);
    this.doc = doc;
  }
  amend(doc: BoardModel) {
    this.doc = doc;
  }
}
let [draft, desk] = [new Draft(), new Desk()];
let placing: Placing;
beforeEach(() => {
  [draft, desk] = [new Draft(), new Desk()];
  placing = new Placing(draft as unknown as Editor, desk, () => undefined);
});
const at = (x_mm: number, y_mm: number): StagePoint => ({ x_mm, y_mm, mm_px: 0.1, alt: false }) as StagePoint;
const click = (x: number, y: number) => {
  placing.tool.down?.(at(x, y));
  placing.tool.up?.(at(x, y));
};

describe('placing parts', () => {
  it('puts down what is armed with every click, turned as it is, and chooses it', () => {
    placing.arm('SOIC-8');
    placing.turn(90);
    click(10, 10);
    click(30, 20);
    expect(draft.doc.parts.map((p) => [p.package, p.x_mm, p.y_mm, p.rotation_deg])).toEqual([
      ['SOIC-8', 10, 10, 90],
      ['SOIC-8', 30, 20, 90],
    ]);
    expect(desk.selected).toBe(draft.doc.parts[1].partId);
    expect(draft.steps).toEqual(['place SOIC-8', 'place SOIC-8']);
  });
  it('drags a part only once it is really moved, and moves it in one step', () => {
    placing.arm('R1206');
    click(20, 20);
    placing.rest();
    placing.tool.down?.(at(20.4, 20));
    placing.tool.move?.(at(20.5, 20));
    placing.tool.up?.(at(20.5, 20));
    expect(draft.steps).toHaveLength(1);
    placing.tool.down?.(at(20.4, 20));
    placing.tool.move?.(at(25.4, 22));
    expect(placing.sketch.polygons?.length).toBeGreaterThan(0);
    placing.tool.up?.(at(25.4, 22));
    expect(draft.steps.at(-1)).toMatch(/^move/);
    expect([draft.doc.parts[0].x_mm, draft.doc.parts[0].y_mm]).toEqual([25, 22]);
  });
  it('repeats the chosen part up to a click, as many as are asked for', () => {
    placing.arm('C0603');
    click(10, 10);
    placing.rest();
    placing.mode = 'row';
    placing.rowCount = 5;
    placing.tool.move?.(at(30, 10));
    expect(placing.sketch.note?.text).toBe('5 in all');
    click(30, 10);
    expect(draft.doc.parts.map((p) => p.x_mm)).toEqual([10, 15, 20, 25, 30]);
    expect(placing.mode).toBe('choose');
  });
  it('makes a neighbour of a box, and none of one that is too small or has no height', () => {
    placing.mode = 'box';
    placing.boxLimit = 'cell-li';
    placing.tool.down?.(at(5, 5));
    placing.tool.up?.(at(5.1, 5.1));
    expect(placing.said).toContain('at least 0.3 mm');
    placing.boxHeight = 'tall';
    placing.tool.down?.(at(5, 5));
    placing.tool.up?.(at(15, 11));
    expect(draft.doc.parts).toHaveLength(0);
    placing.boxHeight = '3,2';
    placing.tool.down?.(at(5, 5));
    placing.tool.up?.(at(15, 11));
    expect(draft.doc.parts[0]).toMatchObject({ x_mm: 10, y_mm: 8 });
    expect(draft.doc.parts[0].package).toMatch(/^box:.*stuff=metal/);
  });
  it('nudges as the arrow is seen, on the mirrored side as well', () => {
    placing.arm('R0603');
    click(10, 10);
    placing.nudge('ArrowRight');
    expect(draft.doc.parts[0].x_mm).toBeCloseTo(10.1, 9);
    desk.side = 'bottom';
    placing.nudge('ArrowRight');
    placing.nudge('ArrowDown');
    expect(draft.doc.parts[0].x_mm).toBeCloseTo(10, 9);
    expect(draft.doc.parts[0].y_mm).toBeCloseTo(10.1, 9);
  });
});
