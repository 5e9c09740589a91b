/** What all irons have: how they are set, what is uncertain about them, and what a tip hands over to the joints under it. */
import { z } from 'zod';
import type { JointLump } from '../bench/lumps.ts';
import type { Metal } from '../bench/wetting.ts';
import { RANGES, type Range, within } from '../ranges.ts';
import type { SetPoint } from '../handForms.ts';
import type { Uncertain } from './declaration.ts';

/** Tips by what their body conducts in series with the contact, W/K (estimates). */
const TIP_CONDUCTANCE = { cone: 0.25, chisel: 0.6, knife: 1 } as const;
/** A wetted millimetre of tip hands over this, W/K (estimate); corroded metal takes half of it, a crust of leaked electrolyte next to nothing. */
const FILM = 0.06;
const TAKES: Record<Metal, number> = { sound: 1, corroded: 0.5, leaking: 0.05 };
/**
 * A pin in its hole, conductivity × section, W·m/K: 0.12 mm² of lead, 25 µm of copper round 0.9 mm, 0.5 mm² of solder. A rod that
 * gives its heat away evenly along its length is on average as far from its end as a third of it.
 */
const BARREL = 9e-5;
/** A tip without a bead meets a solid joint along a line: this part of the film at first, all of it after so long with flux and fresh solder, s (estimates). */
const [DRY, WETS_S] = [0.1, 1.5];
export const filmAfter = (s: number): number => DRY + (1 - DRY) * Math.min(1, s / WETS_S);

const number = ([min, max]: Range) => z.number().min(min).max(max);
export const tipShape = {
  set_C: number(RANGES.iron.set_C),
  /** Contact width of the tip along the row, mm. */
  tip_mm: number(RANGES.iron.tip_mm),
  tip: z.enum(['cone', 'chisel', 'knife']).optional(),
  /** Contact of the tip against that of a well wetted film; the hand's part. */
  contact: number(RANGES.iron.contact),
  /** Power of each iron. */
  power_W: number(RANGES.iron.power_W),
};
export type TipSettings = z.infer<z.ZodObject<typeof tipShape>>;

const SHAPES = { knife: 'knife', chisel: 'chisel', cone: 'conical' } as const;
/** An iron and its tip as they lie ready. */
export const ironTools = (
  { tip = 'knife', tip_mm, power_W }: Pick<TipSettings, 'tip' | 'tip_mm' | 'power_W'>,
  iron = 'iron',
): string[] => [`${iron} of ${power_W} W`, `${SHAPES[tip]} tip ${tip_mm} mm`];
const SET_POINTS = {
  iron: 'iron temperature',
  iron2: 'second iron temperature',
  tweezers: 'tweezers temperature',
  vacuum: 'vacuum iron temperature',
} as const;
/** What an iron has to be set to before it is taken to hand. */
export const ironSetPoint = (set_C: number, dial: keyof typeof SET_POINTS = 'iron'): SetPoint => ({
  ...{ id: dial, label: SET_POINTS[dial], value: set_C, unit: '°C', tolerance: 5, dial },
});

/** How much a hand's contact differs from a well wetted one, as a share (estimate). */
const CONTACT = 0.35;
export const uncertainTip: readonly Uncertain<TipSettings>[] = [
  {
    name: 'temperature of the iron',
    settings: (s, z, { ironPlusMinus_K }) => ({
      set_C: within(s.set_C + z * ironPlusMinus_K, RANGES.iron.set_C),
    }),
  },
  {
    name: 'contact of the tip',
    settings: (s, z) => ({ contact: within(s.contact * (1 + CONTACT * z), RANGES.iron.contact) }),
  },
];

/** Where a tip is: a place that changes when it is lifted, the joints under it, and what it gives them all together, W/K. */
export interface Touch {
  at: number;
  joints: number[];
  G: number;
}
export const NOTHING: Touch = { at: -1, joints: [], G: 0 };

/** What one kind of tip hands over to joints of a target. */
export class TipContact {
  private readonly joints: readonly JointLump[];
  private readonly settings: TipSettings;
  /** From the upper end of a pin to its solder on average, W/K. */
  private readonly through: number;

  /** `thickness_mm` of the board: a pin has to be heated through its hole. */
  constructor(joints: readonly JointLump[], settings: TipSettings, thickness_mm: number) {
    this.joints = joints;
    this.settings = settings;
    this.through = (BARREL / (thickness_mm / 3)) * 1000;
  }

  /** Joints of a row that the tip covers with its middle on one of them. */
  under(row: readonly number[], middle: number): number[] {
    const centre = this.joints[middle];
    return row.filter(
      (i) => Math.hypot(this.joints[i].x - centre.x, this.joints[i].y - centre.y) <= this.settings.tip_mm / 2 + 1e-9,
    );
  }

  /** What the tip covers of a row with its middle on one joint of it. `at`: the side it came down on; `film`: share of its film. */
  around(at: number, row: readonly number[], middle: number, film = 1): Touch {
    const { joints } = this;
    const touched = this.under(row, middle);
    // the bead carries heat only as far as there is joint under the tip
    const [xs, ys] = [touched.map((i) => joints[i].x), touched.map((i) => joints[i].y)];
    const reach = Math.hypot(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
    const { w, h } = joints[middle].terminal.land;
    return this.over(at, touched, Math.min(this.settings.tip_mm, reach + Math.min(w, h)), film);
  }

  /** What a tip gives joints over so many wetted millimetres. */
  over(at: number, touched: number[], wetted_mm: number, film: number): Touch {
    const { contact, tip = 'knife' } = this.settings;
    const share = touched.reduce((sum, i) => sum + TAKES[this.joints[i].surface], 0) / touched.length;
    const wet = FILM * wetted_mm * contact * share * film;
    const pins = touched.filter((i) => this.joints[i].terminal.kind === 'pin').length;
    const hole = pins === touched.length ? 1 / (pins * this.through) : 0;
    return { at, joints: touched, G: 1 / (1 / TIP_CONDUCTANCE[tip] + 1 / wet + hole) };
  }
}
