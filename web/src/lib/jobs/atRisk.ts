/** Who could suffer by the plan in use: that is where one looks afterwards. */
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

/** The worst first, then the nearest. */
export function atRisk({ inUse, board }: Pick<JobView, 'inUse' | 'board'>): AtRisk[] {
  if (!inUse) return [];
  return [...inUse.result.neighbours]
    .sort((a, b) => a.distance_mm - b.distance_mm)
    .map((n) => ({ partId: n.partId, name: nameOf(board, n.partId), ...fateOf(inUse.result, n) }))
    .filter((f) => f.tone !== 'good')
    .sort((a, b) => TONES.indexOf(b.tone) - TONES.indexOf(a.tone));
}
