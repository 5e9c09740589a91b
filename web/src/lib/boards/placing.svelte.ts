/** The hand that places parts: what a click, a drag and a key do to the board, and what is drawn meanwhile. */
import type { Desk } from '$lib/jobs/desk.svelte';
import type { StagePoint, StageTool } from '$lib/stage/view';
import {
  addPart,
  changePart,
  cornersOnBoard,
  invertHomography,
  partName,
  type PlacedPart,
  removeParts,
  repeatRow,
} from '@orthos/core/board';
import { parseDecimal } from '@orthos/core/ground';
import { LIMITS } from '@orthos/core/materials';
import { packageById, packageDesignation } from '@orthos/core/packages';
import { partAt } from '@orthos/core/scene';
import { v7 } from 'uuid';
import type { BoardTools } from './boardWorker';
import type { Editor, Sketch } from './editor.svelte';

/** Where an arrow moves a part, in tenths of a millimetre as seen from the top. */
const NUDGE: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
export const NUDGE_KEYS = Object.keys(NUDGE);

/** A part that is not there yet: lands, body, pin 1. */
function outlines(part: PlacedPart): NonNullable<Sketch['polygons']> {
  const pkg = packageById(part.package);
  return [
    ...pkg.terminals.map((t) => ({ points: cornersOnBoard(part, t.land), tone: 'ghost' as const })),
    { points: cornersOnBoard(part, { x: 0, y: 0, w: pkg.body.l, h: pkg.body.w }), tone: 'ghost' as const },
    // pin 1
    ...pkg.terminals.slice(0, 1).map((t) => ({
      points: cornersOnBoard(part, { ...t.land, w: t.land.w * 0.5, h: t.land.h * 0.5 }),
      tone: 'patch' as const,
    })),
  ];
}

export class Placing {
  /** What a click on the board does. */
  mode = $state<'choose' | 'place' | 'row' | 'box'>('choose');
  /** Package that is put down. */
  armed = $state('');
  rotation = $state(0);
  snapping = $state(true);
  /** Parts of a row, the first included; null: as many as fit at twice their width. */
  rowCount = $state<number | null>(null);
  boxLimit = $state('plastic-tht');
  boxHeight = $state('5');
  /** What came of the last act. */
  said = $state('');
  private pointer = $state.raw<StagePoint | null>(null);
  private drag = $state.raw<{ part: PlacedPart; dx: number; dy: number; moved: boolean } | null>(null);
  private boxFrom = $state.raw<[number, number] | null>(null);
  private readonly editor: Editor;
  private readonly desk: Desk;
  private readonly tools: () => BoardTools | undefined;

  constructor(editor: Editor, desk: Desk, tools: () => BoardTools | undefined) {
    this.editor = editor;
    this.desk = desk;
    this.tools = tools;
  }

  selected = $derived.by(() => this.editor.doc.parts.find((p) => p.partId === this.desk.selected));
  /** Photo of the side that is seen, where it is tied to the board. */
  photo = $derived.by(() => this.editor.doc.photos?.find((p) => p.side === this.desk.side && p.toBoard));

  private ghostPart(at: { x_mm: number; y_mm: number }): PlacedPart {
    return {
      partId: 'ghost',
      package: this.armed,
      x_mm: at.x_mm,
      y_mm: at.y_mm,
      rotation_deg: this.rotation,
      side: this.desk.side,
    };
  }
  private countOf(to: StagePoint): number {
    if (!this.selected) return 2;
    const { body } = packageById(this.selected.package);
    const length = Math.hypot(to.x_mm - this.selected.x_mm, to.y_mm - this.selected.y_mm);
    return this.rowCount ?? Math.max(2, Math.min(60, 1 + Math.round(length / (Math.max(body.l, body.w) + 0.6))));
  }

  sketch = $derived.by((): Sketch => {
    if (this.mode === 'place' && this.pointer) return { polygons: outlines(this.ghostPart(this.pointer)) };
    if (this.mode === 'row' && this.pointer && this.selected) {
      const n = this.countOf(this.pointer);
      const made = repeatRow(
        { ...this.editor.doc, parts: [this.selected] },
        this.selected,
        this.pointer,
        n,
        () => 'ghost',
      ).parts.slice(1);
      return {
        polygons: made.flatMap(outlines),
        note: { x: this.pointer.x_mm, y: this.pointer.y_mm, text: `${n} in all` },
      };
    }
    if (this.mode === 'box' && this.boxFrom && this.pointer) {
      const [x0, y0] = this.boxFrom;
      const { x_mm: x1, y_mm: y1 } = this.pointer;
      return {
        polygons: [
          {
            points: [
              [x0, y0],
              [x1, y0],
              [x1, y1],
              [x0, y1],
            ],
            tone: 'ghost',
          },
        ],
        note: { x: x1, y: y1, text: `${Math.abs(x1 - x0).toFixed(1)} × ${Math.abs(y1 - y0).toFixed(1)}` },
      };
    }
    if (this.drag?.moved && this.pointer)
      return {
        polygons: outlines({
          ...this.drag.part,
          x_mm: this.pointer.x_mm - this.drag.dx,
          y_mm: this.pointer.y_mm - this.drag.dy,
        }),
      };
    return {};
  });
  private place(p: StagePoint) {
    const part = this.ghostPart(p);
    const partId = v7();
    this.editor.commit(`place ${packageById(this.armed).label}`, addPart(this.editor.doc, { ...part, partId }));
    this.desk.selected = partId;
    if (this.snapping && !p.alt) void this.snap(partId);
  }
  /** Slides a part onto the photo, unless a hand was on it since. */
  async snap(partId: string) {
    const part = this.editor.doc.parts.find((q) => q.partId === partId);
    if (!part || !this.photo?.toBoard || !this.tools()) return;
    const found = await this.tools()?.api.snap(
      [...invertHomography(this.photo.toBoard)],
      $state.snapshot(part) as PlacedPart,
    );
    const now = this.editor.doc.parts.find((q) => q.partId === partId);
    if (!found || !now || now.x_mm !== part.x_mm || now.y_mm !== part.y_mm || now.rotation_deg !== part.rotation_deg)
      return;
    const { x_mm, y_mm, rotation_deg } = found;
    // a few tenths of a degree are the photo's, not the part's
    const right = Math.round(rotation_deg / 90) * 90;
    const turned = Math.abs(rotation_deg - right) < 2 ? right : rotation_deg;
    this.editor.amend(changePart(this.editor.doc, partId, { x_mm, y_mm, rotation_deg: turned }));
    this.said = `slid ${Math.hypot(x_mm - part.x_mm, y_mm - part.y_mm).toFixed(2)} mm onto its edges`;
  }
  private finishBox(p: StagePoint) {
    if (!this.boxFrom) return;
    const [x0, y0] = this.boxFrom;
    const [w, h] = [Math.abs(p.x_mm - x0), Math.abs(p.y_mm - y0)];
    this.boxFrom = null;
    const height = parseDecimal(this.boxHeight);
    if (w < 0.3 || h < 0.3 || height === null || height <= 0) {
      this.said = 'A box of at least 0.3 mm, and a height.';
      return;
    }
    const round = (v: number) => Math.round(v * 100) / 100;
    try {
      const metal = /^(cell|elko|polymer|crystal|supercap|magnet)/.test(this.boxLimit);
      const id = packageDesignation('box', {
        l: round(w),
        w: round(h),
        h: round(height),
        limit: this.boxLimit,
        ...(metal ? { stuff: 'metal' } : {}),
      });
      const partId = v7();
      this.editor.commit(
        'place a box',
        addPart(this.editor.doc, {
          partId,
          package: id,
          x_mm: (x0 + p.x_mm) / 2,
          y_mm: (y0 + p.y_mm) / 2,
          rotation_deg: 0,
          side: this.desk.side,
          what: LIMITS.get(this.boxLimit)?.what,
        }),
      );
      this.desk.selected = partId;
      this.said = '';
    } catch (e) {
      this.said = (e as Error).message;
    }
  }

  tool = $derived.by((): StageTool => ({
    cross: this.mode !== 'choose',
    down: (p) => {
      this.pointer = p;
      if (this.mode === 'place') this.place(p);
      else if (this.mode === 'row' && this.selected) {
        const first = this.selected;
        this.editor.commit(`row of ${this.countOf(p)}`, repeatRow(this.editor.doc, first, p, this.countOf(p), v7));
        this.mode = 'choose';
      } else if (this.mode === 'box') this.boxFrom = [p.x_mm, p.y_mm];
      else {
        const part = partAt(this.editor.doc, this.desk.side, p.x_mm, p.y_mm, 2 * p.mm_px);
        if (!part) return false;
        this.desk.selected = part.partId;
        this.drag = { part, dx: p.x_mm - part.x_mm, dy: p.y_mm - part.y_mm, moved: false };
      }
      return true;
    },
    move: (p) => {
      this.pointer = p;
      if (this.drag) {
        const far = Math.hypot(
          p.x_mm - this.drag.dx - this.drag.part.x_mm,
          p.y_mm - this.drag.dy - this.drag.part.y_mm,
        );
        if (!this.drag.moved && far > 4 * p.mm_px) this.drag = { ...this.drag, moved: true };
        return true;
      }
      return this.mode !== 'choose';
    },
    up: (p) => {
      if (this.mode === 'box') {
        this.finishBox(p);
        return true;
      }
      const was = this.drag;
      this.drag = null;
      if (!was) return this.mode !== 'choose';
      if (was.moved)
        this.editor.commit(
          `move ${partName(was.part)}`,
          changePart(this.editor.doc, was.part.partId, { x_mm: p.x_mm - was.dx, y_mm: p.y_mm - was.dy }),
        );
      return true;
    },
  }));

  turn(by: number) {
    if (this.mode === 'place') this.rotation = (this.rotation + by + 360) % 360;
    else if (this.selected)
      this.editor.commit(
        `turn ${partName(this.selected)}`,
        changePart(this.editor.doc, this.selected.partId, { rotation_deg: this.selected.rotation_deg + by }),
      );
  }
  nudge(key: string) {
    if (!this.selected) return;
    const [dx, dy] = NUDGE[key];
    // on the bottom the picture is mirrored: the part follows the arrow as it is seen
    const seen = this.desk.side === 'bottom' ? -dx : dx;
    this.editor.commit(
      `nudge ${partName(this.selected)}`,
      changePart(this.editor.doc, this.selected.partId, {
        x_mm: this.selected.x_mm + seen * 0.1,
        y_mm: this.selected.y_mm + dy * 0.1,
      }),
    );
  }
  remove() {
    if (!this.selected) return;
    this.editor.commit(`remove ${partName(this.selected)}`, removeParts(this.editor.doc, [this.selected.partId]));
    this.desk.selected = null;
  }
  rest() {
    this.mode = 'choose';
    this.boxFrom = null;
    this.pointer = null;
  }

  /** A part is chosen to be put down by clicks. */
  arm(id: string): void {
    this.armed = id;
    this.mode = 'place';
    this.said = '';
  }
  /** Leaves off what was begun. */
  leaveOff(): void {
    this.boxFrom = null;
    this.drag = null;
  }
}
