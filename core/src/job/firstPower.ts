/** First power after work: a soak at a low limit, then the start-up's own current with a little more, then running; and when to stop. */
import type { SupplyPoint } from './startUp.ts';
import type { Stop } from './stops.ts';

export interface PowerStage {
  stage: 'soak' | 'start' | 'run';
  limit_A: number;
  /** How long it stays there, s. */
  for_s: number;
  /** What a good unit draws there; null where none is known. */
  good_A: number | null;
  /** More than this for longer than `sustained_s` stops it; null: the limit alone. */
  most_A: number | null;
}
export interface FirstPower {
  stages: PowerStage[];
  volts: number;
  /** Above this the supply, or a rail by its share, stops at once. */
  most_V: number;
  sustained_s: number;
  /** Where the limits come from. */
  from: 'a good unit' | 'an estimate';
}

/** A start-up may draw this much more than a good unit's peak: converters take constant power and latch in brown-out under a tight limit. */
const START_FACTOR = 1.75;
/** In the soak nothing starts: so much above a good unit's first stage. */
const SOAK_FACTOR = 2;
const SOAK_LEAST_A = 0.02;
/** A current is off beyond this, as at a start-up. */
const MORE_FACTOR = 1.5;
const MORE_A = 0.003;
/** Of what it is meant to be. */
export const OVER_VOLTAGE = 1.1;
/** Without a good unit: what a soak and a start-up may take, W (bench judgement). */
const SOAK_W = 0.6;
const START_W = 6;
const MOST_A = 3;
const SOAK_S = 5;
const RUN_S = 10;

const round = (A: number): number => Number(A.toPrecision(2));

/** Limits and times at `volts`, from a good unit's start-up where there is one. Throws `RangeError` without a voltage. */
export function firstPower(volts: number, good: readonly SupplyPoint[]): FirstPower {
  if (!(volts > 0)) throw new RangeError('first power takes the volts of the supply');
  const points = good.toSorted((a, b) => a.at_s - b.at_s);
  const peak = Math.max(0, ...points.map((p) => p.current_A));
  const first = points.at(0)?.current_A ?? 0;
  const known = peak > 0;
  const soak_A = known ? Math.max(SOAK_LEAST_A, SOAK_FACTOR * first) : Math.min(0.1, SOAK_W / volts);
  const start_A = known ? Math.max(SOAK_LEAST_A, START_FACTOR * peak) : Math.min(MOST_A, START_W / volts);
  // what it is told to do meanwhile nobody knows: at no moment more than a good unit's most
  const watched = {
    limit_A: round(start_A),
    good_A: known ? peak : null,
    most_A: known ? MORE_FACTOR * peak + MORE_A : null,
  };
  const peakAt_s = points.find((p) => p.current_A === peak)?.at_s ?? 1;
  return {
    volts,
    most_V: OVER_VOLTAGE * volts,
    sustained_s: 0.5,
    from: known ? 'a good unit' : 'an estimate',
    stages: [
      // with its peak below the soak's limit a unit runs in the soak already
      {
        ...{ stage: 'soak', limit_A: round(Math.min(soak_A, start_A)), for_s: SOAK_S },
        ...{ good_A: known ? first : null, most_A: null },
      },
      { stage: 'start', for_s: Math.min(20, Math.max(2, 2 * peakAt_s)), ...watched },
      { stage: 'run', for_s: RUN_S, ...watched },
    ],
  };
}

export interface PowerSample {
  /** s since this stage began. */
  at_s: number;
  volts: number;
  current_A: number;
  /** Of the rail that is watched. */
  rail_V?: number;
}
/** A current counts as limited from this share of the limit. */
const LIMITED = 0.97;
/** In the soak the limit holds whatever wants to start: short is what it holds down to this share of the voltage, for so long, s. */
const SHORT_SHARE = 0.2;
const SHORT_S = 2;

const amps = (A: number): string => `${Number(A.toPrecision(2))} A`;

/** What is too much at this moment, and in which words. */
function tooMuch(
  { stage, limit_A, good_A, most_A }: PowerStage,
  { volts, current_A }: PowerSample,
  set_V: number,
): { stop: Stop; why: string } | null {
  if (current_A >= LIMITED * limit_A) {
    if (stage === 'soak' && volts > SHORT_SHARE * set_V) return null;
    return { stop: 'at the limit', why: `held at ${amps(limit_A)}, ${volts.toFixed(1)} V left` };
  }
  return most_A !== null && current_A > most_A
    ? { stop: 'too much', why: `${amps(current_A)} where a good unit draws ${amps(good_A ?? 0)}` }
    : null;
}

/** Whether it goes on, sample by sample. `rail_V`: what the rail that is watched is meant to be, V. */
export function judgeStage(
  stage: PowerStage,
  { volts, most_V, sustained_s }: Pick<FirstPower, 'volts' | 'most_V' | 'sustained_s'>,
  samples: readonly PowerSample[],
  rail_V: number | null = null,
): { stop: Stop; why: string; at_s: number } | null {
  let since: number | null = null;
  for (const s of samples) {
    if (s.volts > most_V) return { stop: 'over-voltage', why: `${s.volts.toFixed(2)} V at the supply`, at_s: s.at_s };
    if (rail_V !== null && s.rail_V !== undefined && s.rail_V > OVER_VOLTAGE * rail_V)
      return { stop: 'over-voltage', why: `${s.rail_V.toFixed(2)} V where ${rail_V} V is right`, at_s: s.at_s };
    const more = tooMuch(stage, s, volts);
    if (!more) since = null;
    else if (since === null) since = s.at_s;
    else if (s.at_s - since >= (stage.stage === 'soak' ? SHORT_S : sustained_s)) return { ...more, at_s: s.at_s };
  }
  return null;
}
