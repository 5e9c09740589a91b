/** Strokes along a bead: from side to side, there and back on each. */
import type { LastJoint, Scene, Workpiece } from '../../bench/drive.ts';
import { LOW_MELT } from '../../../alloys/index.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import { beadOn } from '../rows.ts';
import type { StrokeSettings } from './settings.ts';

/** A stroke where nothing is said, s. */
const PASS_S = 1;
/** From one side to another the tip is off for so long, s. */
const ROUND_S = 0.3;

export class StrokeDrive extends TipDrive<StrokeSettings> {
  override readonly settled_s: number;
  private readonly bead_mm3: ReadonlyMap<string, number>;

  constructor(settings: StrokeSettings, scene: Scene) {
    super(settings, scene);
    this.settled_s = settings.stroke_s;
    const { board, target } = scene.input;
    const part = board.parts.find((p) => p.partId === target);
    this.bead_mm3 = part && settings.bead_mm3_mm ? beadOn(part.package, settings.bead_mm3_mm).each_mm3 : new Map();
  }

  /** Its own bead lies on the rows before the iron comes. */
  begin(work: Workpiece): void {
    const { alloy = LOW_MELT, bead_mm3_mm } = this.settings;
    for (const [i, { terminal }] of this.joints.entries()) {
      const mm3 = this.bead_mm3.get(terminal.id);
      if (mm3) work.feed(i, alloy, mm3);
    }
    if (bead_mm3_mm) work.bridge(bead_mm3_mm);
  }

  /** A second iron works on the opposite side. */
  protected touchAt(k: number, t: number): Touch {
    const { stroke_s, pass_s = PASS_S, rest_s = 0 } = this.settings;
    if (t >= stroke_s || k >= this.sides.length) return NOTHING;
    const strokes_s = pass_s + 2 * rest_s;
    // as many irons as sides: each stays where it is
    const turn = strokes_s + (this.sides.length > this.tips.length ? this.pace * ROUND_S : 0);
    const shift = k * Math.floor(this.sides.length / 2);
    const side = (Math.floor(t / turn) + shift) % this.sides.length;
    const row = this.sides[side];
    const at = t % turn;
    if (at >= strokes_s) return NOTHING;
    const place = at < pass_s / 2 ? (2 * at) / pass_s : Math.max(0, Math.min(1, 2 - (2 * (at - rest_s)) / pass_s));
    return this.contact.around(side, row, row[Math.round(place * (row.length - 1))]);
  }

  lastBecause({ tip }: LastJoint): string {
    return tip < 0.9
      ? `the tip reaches it for ${Math.round(100 * tip)} % of what the others get`
      : 'all get alike from the tip; the others are close behind';
  }
}
