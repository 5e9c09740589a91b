/** Damage marks as the stage and the record show them. */
import { placeName } from '$lib/diagnose/place';
import type { PenMark } from '$lib/jobs/desk.svelte';
import type { BoardModel } from '@orthos/core/board';
import type { JobState } from '@orthos/core/job';

type Damage = JobState['intake']['damage'][number];

/** Marks with a place, or drawn on the board; those on a photo stay there. */
export function damageMarks(damage: readonly Damage[]): PenMark[] {
  return damage.flatMap((d, n): PenMark[] => {
    const strokes = d.pen?.on === 'board' ? d.pen.strokes : [];
    if (!d.place && strokes.length === 0) return [];
    const at: [number, number] = d.place ? [d.place.x_mm, d.place.y_mm] : strokes[0][0];
    return [{ id: d.id, tone: d.whose, side: d.place?.side ?? 'top', strokes, at, label: `${n + 1} ${d.kind}` }];
  });
}

export const WHOSE: Record<Damage['whose'], string> = { found: 'found', ours: 'ours' };

export function damageWords(board: BoardModel, d: Damage): string {
  const where = d.place ? ` at ${placeName(board, d.place)}` : d.photoId ? ' on a photo' : '';
  return `${d.kind}${where}${d.note ? `: ${d.note}` : ''}`;
}
