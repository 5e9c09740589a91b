/** Small parts in the wind of a nozzle: once their solder is molten it may move them or carry them off. A weak model (`blowAway`). */
import type { PlacedPart } from '../../board/index.ts';
import { packageById } from '../../packages/index.ts';
import { blowAway } from '../../thermal/index.ts';
import type { ReworkCase } from './caseForm.ts';

/** Parts up to this length are small enough for the wind, mm. */
const SMALL_MM = 3.3;

/** What of an air setting makes its wind. */
export interface Blown {
  set_C: number;
  flow_L_min: number;
  nozzle_mm: number;
  standoff_mm: number;
  sweep_mm: number;
}

export type WindVerdict = 'stays' | 'skews' | 'flies';

export class Wind {
  private readonly settings: readonly Blown[];
  private readonly input: Pick<ReworkCase, 'ambient_C' | 'station' | 'covers'>;
  private readonly aim_mm: { x: number; y: number };
  private readonly sheltered: ReadonlySet<string | undefined>;
  private readonly known = new Map<string, { N: number; verdict: WindVerdict } | undefined>();

  /** `settings`: what the air is set to, one after the other; `aim_mm`: where the nozzle points on the board. */
  constructor(
    input: Pick<ReworkCase, 'ambient_C' | 'station' | 'covers'>,
    settings: readonly Blown[],
    aim_mm: { x: number; y: number },
  ) {
    this.settings = settings;
    this.input = input;
    this.aim_mm = aim_mm;
    this.sheltered = new Set(input.covers?.map((c) => c.partId));
  }

  /** What the wind does to a part whose joints are all molten; undefined where it is too large for the wind, or covered. */
  on(part: PlacedPart): { N: number; verdict: WindVerdict } | undefined {
    const known = this.known.get(part.partId);
    if (known || this.known.has(part.partId)) return known;
    const { body } = packageById(part.package);
    const out = Math.max(body.l, body.w) > SMALL_MM || this.sheltered.has(part.partId) || this.underCover(part);
    const found = out ? undefined : this.judge(part, 1);
    this.known.set(part.partId, found);
    return found;
  }

  /** What it does to the part that goes on, of any size: laid in flux, and once its joints are molten. */
  onLaid(part: PlacedPart): { N: number; verdict: WindVerdict } {
    const { terminals } = packageById(part.package);
    const lands_mm2 = terminals.reduce((sum, t) => sum + t.land.w * t.land.h, 0);
    const [laid, molten] = [this.judge(part, 0, lands_mm2), this.judge(part, 1)];
    return laid.N > molten.N ? laid : molten;
  }

  private judge(part: PlacedPart, wet: number, fluxed_mm2 = 0): { N: number; verdict: WindVerdict } {
    const { body } = packageById(part.package);
    const { settings, input } = this;
    // the hand comes as near as its circle lets it
    const away = Math.hypot(part.x_mm - this.aim_mm.x, part.y_mm - this.aim_mm.y);
    const judged = settings.map((s) =>
      blowAway({
        Q_L_min: s.flow_L_min,
        D_mm: s.nozzle_mm,
        H_mm: s.standoff_mm,
        Tset_C: s.set_C,
        Tamb_C: input.ambient_C,
        efficiency: input.station.efficiency,
        part: { l_mm: body.l, w_mm: body.w, h_mm: body.h },
        r_mm: Math.max(0, away - s.sweep_mm),
        wet,
        fluxed_mm2,
      }),
    );
    const { N, verdict } = judged.reduce((a, b) => (b.N > a.N ? b : a));
    return { N, verdict };
  }

  private underCover({ x_mm, y_mm }: PlacedPart): boolean {
    return (this.input.covers ?? []).some(
      ({ area }) =>
        area &&
        x_mm >= area.x_mm &&
        x_mm <= area.x_mm + area.w_mm &&
        y_mm >= area.y_mm &&
        y_mm <= area.y_mm + area.h_mm,
    );
  }
}

type Blow = { N: number; verdict: WindVerdict };
export const worstOf = (blows: readonly (Blow | undefined)[]): Blow | undefined =>
  blows.reduce((a, b) => (a && (!b || a.N >= b.N) ? a : b), undefined);

/** The strongest of several winds on a part; undefined where none moves it. */
export function worst(winds: readonly Wind[], part: PlacedPart) {
  return worstOf(winds.map((w) => w.on(part)));
}
