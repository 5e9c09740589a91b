/** Changes that open a window, as they are said at the bench. */
import { partName, type BoardModel } from '@orthos/core/board';
import type { Change } from '@orthos/core/compare';
import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
import { COVER_NAMES } from '@orthos/core/hands';
import { methodName } from '@orthos/core/rework';

const SAID: Record<Change['what'], (part: string, to: string, units: UnitSettings) => string> = {
  cover: (part, to) => `${COVER_NAMES[to as keyof typeof COVER_NAMES] ?? to} over ${part}`,
  nozzle: (_, to) => `nozzle ${to}`,
  spike: () => 'leaded solder worked in first',
  preheat: (_, to, units) => `board warmed to ${formatTemperature(parseFloat(to), units)} first`,
  unplug: (part) => `${part} taken out`,
  approach: (_, to) => `nozzle leaning, from ${to}`,
  'remove first': (part) => `${part} off the board first`,
  method: (_, to) => methodName(to).toLowerCase(),
};

/** One line of all changes; covers of one kind together. */
export function changeWords(changes: readonly Change[], board: BoardModel, units: UnitSettings): string {
  const nameOf = (partId = '') => {
    const part = board.parts.find((p) => p.partId === partId);
    return part ? partName(part) : partId;
  };
  const groups = new Map<string, Change[]>();
  for (const c of changes) {
    const key = `${c.what} ${c.to ?? ''}`;
    groups.set(key, [...(groups.get(key) ?? []), c]);
  }
  return [...groups.values()]
    .map(([first, ...more]) => {
      const parts = [first, ...more].map((c) => nameOf(c.partId));
      return SAID[first.what](parts.join(', '), first.to ?? '', units);
    })
    .join(' + ');
}
