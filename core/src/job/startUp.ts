/** A start-up on a limited bench supply, stage by stage, against a good unit's. */

export interface SupplyPoint {
  stage: string;
  /** s since the supply came on. */
  at_s: number;
  current_A: number;
  limit_A?: number;
}

export interface StageVerdict {
  stage: string;
  state: 'as a good unit' | 'too much' | 'too little' | 'at the limit' | 'no reference';
  /** Current over the good unit's; null without one, or where that draws nothing. */
  ratio: number | null;
}

/** A current counts as limited from this share of the limit. */
const LIMITED = 0.97;
/** Good units differ by less than this factor, and below this many amperes nobody can tell, A. */
const SAME_FACTOR = 1.5;
const SAME_A = 0.003;

/**
 * Judges each stage against the stage of the same name of a good unit. A limited current says only that it would be
 * more. Bounds are bench judgement.
 */
export function judgeStartUp(points: readonly SupplyPoint[], good: readonly SupplyPoint[]): StageVerdict[] {
  return points.map(({ stage, current_A, limit_A }) => {
    const same = good.find((g) => g.stage.toLowerCase() === stage.toLowerCase());
    const ratio = same && same.current_A > 0 ? current_A / same.current_A : null;
    const limited = limit_A !== undefined && current_A >= LIMITED * limit_A;
    const verdict = (state: StageVerdict['state']): StageVerdict => ({ stage, state, ratio });
    if (!same) return verdict(limited ? 'at the limit' : 'no reference');
    const more = current_A > SAME_FACTOR * same.current_A + SAME_A;
    if (limited && (more || same.current_A > current_A)) return verdict('at the limit');
    if (more) return verdict('too much');
    return verdict(current_A < same.current_A / SAME_FACTOR - SAME_A ? 'too little' : 'as a good unit');
  });
}

/** One sentence on the first stage that is not as it should be. */
export function startUpSentence(verdicts: readonly StageVerdict[]): string {
  const n = verdicts.findIndex((v) => v.state !== 'as a good unit' && v.state !== 'no reference');
  if (n < 0) {
    const known = verdicts.filter((v) => v.state === 'as a good unit').length;
    if (known === 0) return 'Of a good unit no such stage is known yet.';
    const where =
      known === verdicts.length ? 'every stage' : `${known} of ${verdicts.length} stages; of the others none is known`;
    return `Draws what a good unit draws at ${where}.`;
  }
  const { stage, state, ratio } = verdicts[n];
  const times =
    ratio === null ? '' : `, ${ratio >= 10 ? Math.round(ratio) : Number(ratio.toPrecision(2))} × a good unit`;
  const early = n === 0 ? ' before anything was switched on: something on the supply side' : '';
  switch (state) {
    case 'at the limit':
      return `At the limit at “${stage}”${times}: power off, ohms first${early ? '; it is on the supply side' : ''}.`;
    case 'too much':
      return `Too much at “${stage}”${times}${early}.`;
    default:
      return `Too little at “${stage}”${times}: what should start there does not.`;
  }
}
