/** Words of the search for a fault. */

/** Ways to tell parts apart that no reading can. */
export const SPLIT: Record<string, string> = {
  look: 'look at them under the microscope',
  profile: 'millivolts along the rail with a current injected',
  warmth: 'inject a current and feel which one warms up',
  lift: 'lift one leg after the other',
  swap: 'swap one after the other',
};

/** "C1, C2, C3 and 8 more". */
export const few = (names: readonly string[], most = 4): string =>
  names.length > most + 1 ? `${names.slice(0, most).join(', ')} and ${names.length - most} more` : names.join(', ');

export const percent = (p: number): string => (p > 0.995 ? '> 99 %' : p < 0.005 ? '< 1 %' : `${Math.round(100 * p)} %`);
