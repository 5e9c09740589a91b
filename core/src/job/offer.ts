/** What a repair will cost, whether it is worth it, and what can be promised afterwards. Money in minor units. */
import type { Tier } from './intakeForms.ts';

/** A further attempt costs this share of the first: the board is open and known. Bench judgement. */
const AGAIN = 0.6;
/** Of what the device is worth: above, a repair is borderline; above, it does not pay. */
const BORDERLINE = 0.4;
const TOO_MUCH = 0.65;

/** Attempts to expect when parts are tried in falling odds, the next only if the last was not it; ≥ 1. */
export function expectedAttempts(odds: readonly number[]): number {
  const total = odds.reduce((a, b) => a + b, 0);
  if (total <= 0) return 1;
  const scale = total > 1 ? total : 1;
  let sum = 0;
  odds.toSorted((a, b) => b - a).forEach((p, n) => (sum += ((n + 1) * p) / scale));
  // what is none of them is found in the attempt after the last
  return sum + (1 - total / scale) * (odds.length + 1);
}

/** Bench minutes over all attempts. */
export function expectedMinutes({ minutes, attempts }: Pick<Tier, 'minutes' | 'attempts'>): number {
  return minutes * (1 + AGAIN * (attempts - 1));
}

/** Price of a tier, rounded up to whole `step_minor`. */
export function priceOf(
  tier: Pick<Tier, 'minutes' | 'attempts' | 'parts_minor'>,
  rate_minor_h: number,
  step_minor = 100,
): number {
  const work = (expectedMinutes(tier) / 60) * rate_minor_h;
  return Math.max(0, Math.ceil((work + tier.parts_minor) / step_minor - 1e-9)) * step_minor;
}

export interface Worth {
  state: 'worth it' | 'borderline' | 'does not pay' | 'not known';
  /** Price over what the device is worth. */
  share: number | null;
}

export function worthOf(price_minor: number, worth_minor: number | null): Worth {
  if (worth_minor === null || worth_minor === 0) return { state: 'not known', share: null };
  const share = price_minor / worth_minor;
  return { share, state: share > TOO_MUCH ? 'does not pay' : share > BORDERLINE ? 'borderline' : 'worth it' };
}

export interface WarrantyFacts {
  /** Months that this shop gives on clean work. */
  months: number;
  /** Others, or this shop, have worked on it before. */
  workedOn: boolean;
  liquid: boolean;
  /** It can only be measured, not run. */
  measuredOnly: boolean;
}

/** Terms that the state of the board allows; a suggestion to be edited. */
export function warrantyTerms({ months, workedOn, liquid, measuredOnly }: WarrantyFacts): {
  months: number;
  terms: string;
} {
  const limits: string[] = [];
  let given = months;
  if (workedOn) {
    given = Math.min(given, Math.round(months / 2));
    limits.push('not on pads, tracks and parts of earlier work');
  }
  if (liquid) {
    given = Math.min(given, 1);
    limits.push('not on corrosion that shows later');
  }
  if (measuredOnly) {
    given = Math.min(given, 1);
    limits.push('on the readings only: it could not be run here');
  }
  const scope = 'on the parts renewed and their joints';
  return {
    months: given,
    terms: limits.length === 0 ? `${scope}.` : `${scope}; ${limits.join('; ')}.`,
  };
}
