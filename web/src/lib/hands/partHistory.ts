/** What a part that came off went through and where it lies, in one sentence. */
import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
import type { PartOff } from '@orthos/core/rework';

export function partHistory({ fate, place, legs = [], heat }: Omit<PartOff, 'type'>, units: UnitSettings): string {
  const share =
    heat?.dose === undefined || heat.dose === null || heat.dose < 0.005
      ? ''
      : `, ${Math.round(100 * heat.dose)} % of what it may take`;
  const parts = [
    place && `in ${place}`,
    fate,
    heat && `its body up to ${formatTemperature(heat.peak_C, units)} by the plan${share}`,
    legs.length > 0 && `on its legs ${legs.join(' and ')}`,
  ];
  const text = parts.filter(Boolean).join('; ');
  return text.charAt(0).toUpperCase() + text.slice(1);
}
