/**
 * Probability that a land comes off with the part: that some joint is still solid when it is lifted, times that the hand pulls harder than
 * foil holds to laminate, plus what the tool itself tears. Figures are judgement over bench experience, none is measured.
 */
import { LAMINATE_SPREAD } from '../../materials/index.ts';
import { normalCdf } from '../../ground/index.ts';
import { packageById, type PackageModel, type Terminal } from '../../packages/index.ts';

/** Foil with a leg on it, N per mm of width, and its spread: below the glass transition and above it. */
const STRENGTH = { cold: [4, 1.6], hot: [1, 0.4] } as const;
/** Above the transition it weakens: by 1/e in so many K·s, to no less than this part. One factory reflow is about 12 000 K·s. */
const DECAY = { K_s: 60_000, floor: 0.5 } as const;
/** What tweezers pull while a joint is still solid: median, N, and its spread as a factor. */
const PULL = { N: 0.25, spread: 1.8 } as const;
/** One joint still solid when the part is lifted: all to be seen, hidden under the body, in plated holes. */
const SOLID = { seen: 0.02, hidden: 0.05, holes: 0.08 } as const;
/** So much likelier when it has to be lifted before it is sure that the last joint is loose. */
const EARLY = 4;
/** Plating torn out of a hole: per pin that holds, per pin that was said to be free. */
const PLATING = { held: 0.3, free: 0.005 } as const;
/** A film that suction left holds a pin lifted colder than this, °C: the solidus of leaded solder. */
const FILM_C = 183;
/** A tip above 400 °C on a land, per 5 s. */
const HOT_TIP = { above_C: 400, per_5s: 0.002 } as const;

export interface LandHistory {
  terminal: Terminal;
  /** Temperature at the lift, °C, and what it had above the transition before, K·s. */
  lift_C: number;
  exposure_K_s: number;
}

/** How likely a pull tears this land while its joint holds. `Tg_C` of the laminate. */
export function pullTears({ terminal, lift_C, exposure_K_s }: LandHistory, Tg_C: number): number {
  const width = Math.min(terminal.land.w, terminal.land.h);
  const hot = normalCdf((lift_C - Tg_C) / LAMINATE_SPREAD.Tg_K);
  const left = Math.max(DECAY.floor, Math.exp(-exposure_K_s / DECAY.K_s));
  const tears = ([mean, spread]: readonly [number, number], part: number) => {
    // over the spread of the bond, in even shares of its probability
    const shares = 40;
    let sum = 0;
    for (let n = 0; n < shares; n++) {
      const z = inverse((n + 0.5) / shares);
      const N = Math.max(0.02 * mean, mean + spread * z) * part * width;
      sum += 1 - normalCdf(Math.log(N / PULL.N) / Math.log(PULL.spread));
    }
    return sum / shares;
  };
  return hot * tears(STRENGTH.hot, left) + (1 - hot) * tears(STRENGTH.cold, 1);
}

/** Quantile of the normal distribution, by bisection. */
function inverse(p: number): number {
  let [a, b] = [-6, 6];
  for (let n = 0; n < 40; n++) {
    const m = (a + b) / 2;
    if (normalCdf(m) < p) a = m;
    else b = m;
  }
  return (a + b) / 2;
}

const solidShare = ({ terminals }: PackageModel): number => {
  if (terminals.some((t) => t.drill_mm)) return SOLID.holes;
  return terminals.some((t) => t.kind === 'ball' || t.kind === 'pad') ? SOLID.hidden : SOLID.seen;
};

export interface Torn {
  /** The land that tears most easily, and how likely any comes off. */
  terminal: string;
  p: number;
  /** The same when the part has to be lifted before the last joint is surely loose. */
  early_p: number;
}

/** `tip_C`: set-point of the hottest tip on them, none where air does it; `heat_s`: how long the tool is at it. */
export function tornLand(
  lands: readonly LandHistory[],
  packageId: string,
  tip_C: number | undefined,
  heat_s: number,
  Tg_C: number,
): Torn {
  const pkg = packageById(packageId);
  const pins = lands.filter((l) => l.terminal.drill_mm && l.lift_C < FILM_C).length;
  const each = lands.map((l) => ({
    terminal: l.terminal.id,
    p: l.terminal.drill_mm ? PLATING.held : pullTears(l, Tg_C),
  }));
  const worst = each.reduce((a, b) => (b.p > a.p ? b : a));
  const tip = tip_C !== undefined && tip_C > HOT_TIP.above_C ? (HOT_TIP.per_5s * heat_s) / 5 : 0;
  const tool = tip + pins * PLATING.free;
  const at = (solid: number) => Math.min(1, Math.min(1, solid) * worst.p + tool);
  const solid = solidShare(pkg);
  return { terminal: worst.terminal, p: at(solid), early_p: at(EARLY * solid) };
}
