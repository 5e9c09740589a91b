/**
 * What is told of methods by the ids of their recipes, apart from how they are made: a log is read, and a part is fitted, without the recipes.
 */

/** For people; nothing is matched by it. */
export const METHOD_NAMES: ReadonlyMap<string, string> = new Map(
  Object.entries({
    'air-slow': 'Air, slow',
    'air-fast': 'Air, fast',
    vacuum: 'Vacuum iron',
    'vacuum-then-air': 'Vacuum iron, then air for what is stuck',
    tweezers: 'Hot tweezers',
    bead: 'Low-melt + iron',
    'spike-then-air': 'Leaded spike, then air',
    'alloy-then-air': 'Low-melt, then mild air',
    'preheat-air': 'Warmed from below, then air',
    'vacuum-warm': 'Vacuum iron on a warm board',
    irons2: 'Two irons, flooded',
    pool: 'One iron, a pool over all',
    'lift-legs': 'Legs lifted one by one',
    'cut-legs': 'Legs cut',
    'below-opening': 'Heat from below through an opening',
    peel: 'Peeled along its row',
    'twist-off': 'Twisted off',
  }),
);

export const methodName = (id: string): string => METHOD_NAMES.get(id) ?? id;

/** The recipe that puts a part on as this one would, where that is another: what went before it is no part of it; null: an iron does it, joint by joint. */
const FITS_AS: ReadonlyMap<string, string | null> = new Map<string, string | null>(
  Object.entries({
    'spike-then-air': 'air-slow',
    'alloy-then-air': 'air-slow',
    'preheat-air': 'air-slow',
    'vacuum-then-air': null,
  }),
);

export const fitsAs = (id: string): string | null => {
  const as = FITS_AS.get(id);
  return as === undefined ? id : as;
};
