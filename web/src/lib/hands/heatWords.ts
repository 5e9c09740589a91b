import type { Heats } from '@orthos/core/job';

/** How many are left is told once they can be counted on two hands. */
const MANY = 9;

const times = (n: number): string => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} times`);

/** The decay is an estimate: told in steps of five, and never whole once they were heated. */
const share = (holds: number): number => Math.min(95, 5 * Math.round(20 * holds));

/** What lands have been through and have left, in a sentence; empty before the first heat. */
export function landWords({ times: n, holds, left }: Heats['lands']): string {
  if (n === 0) return '';
  const rest =
    left === null || left > MANY
      ? ''
      : left === 0
        ? '; one more like the last is one too many'
        : `; about ${left} more like the last before they hold half`;
  if (holds === null) return `lands heated ${times(n)}`;
  return `lands heated ${times(n)}, by the plans they hold about ${share(holds)} % of what they held${rest}`;
}

/** The same of the part that is on or goes on. */
export function partWords({ times: n, dose }: Heats['part']): string {
  if (n === 0) return '';
  if (dose === null) return `the part heated ${times(n)}`;
  return `the part heated ${times(n)}: ${Math.round(100 * dose)} % of what it may take`;
}
