/** Who could suffer by the plan in use: that is where one looks afterwards. */
import type { SetLeg } from '@orthos/core/job';
import { type Fate, fateOf } from '@orthos/core/rework';
import { nameOf } from './nameOf';
import type { JobView } from './view';

const TONES: Fate['tone'][] = ['good', 'caution', 'stop'];

export interface AtRisk {
  partId: string;
  name: string;
  word: Fate['word'];
  tone: Fate['tone'];
}

/** The worst first, then the nearest; of a set without a plan for this part, who a warm board brings near its limit. */
export function atRisk({ inUse, board }: Pick<JobView, 'inUse' | 'board'>, leg?: SetLeg): AtRisk[] {
  if (!inUse)
    return (leg?.restFor ?? []).map(({ partId }) => ({
      ...{ partId, name: nameOf(board, partId) },
      ...{ word: 'near' as const, tone: 'caution' as const },
    }));
  return [...inUse.result.neighbours]
    .sort((a, b) => a.distance_mm - b.distance_mm)
    .map((n) => ({ partId: n.partId, name: nameOf(board, n.partId), ...fateOf(inUse.result, n) }))
    .filter((f) => f.tone !== 'good')
    .sort((a, b) => TONES.indexOf(b.tone) - TONES.indexOf(a.tone));
}
