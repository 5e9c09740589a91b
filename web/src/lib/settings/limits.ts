/** A shop's own limits as lines of text, `elko-radial 140 10`, and back. */
import { LIMITS } from '@orthos/core/materials';
import { readOwnLimit, type ShopLimits } from '@orthos/core/rework';

export const limitLines = (limits: ShopLimits = {}): string =>
  Object.entries(limits)
    .map(([id, { C, s }]) => [id, C, ...(s === undefined ? [] : [s])].join(' '))
    .join('\n');

/** What the lines say, or which one cannot be read. */
export function readLimits(text: string): { limits: ShopLimits } | { issue: string } {
  const limits: ShopLimits = {};
  for (const line of text.split('\n').map((l) => l.trim())) {
    if (line === '') continue;
    const [id, ...figures] = line.split(/\s+/);
    if (!LIMITS.has(id)) return { issue: `"${id}" is no row of the table below` };
    if (id in limits) return { issue: `${id} is said twice` };
    const limit = readOwnLimit(figures.join(' '));
    if (!limit) return { issue: `${id}: 30 to 500 °C, and 0.5 to 600 s if it is for so long` };
    limits[id] = limit;
  }
  return { limits };
}
