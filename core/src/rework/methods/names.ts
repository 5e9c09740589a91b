/**
 * What is told of methods by the ids of their recipes, apart from how they are made: a log is read without the recipes.
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
    'fit-air': 'Air on tinned lands',
    'fit-paste': 'Paste and air',
    'fit-molten': 'Set down on molten lands',
    'fit-press': 'Lands fat, pressed down',
    'fit-joints': 'Iron, joint by joint',
    'fit-drag': 'Tacked, rows dragged',
    'fit-one-land': 'One land tinned, then the other',
    'fit-holes': 'Hole by hole',
    'fit-socket': 'A socket instead',
    'fit-paste-low': 'Low-temperature paste and air',
    'fit-warm-air': 'Warmed from below, then air',
    'fit-below': 'Paste, heat from below',
    'again-air': 'Reheated in place',
    'again-iron': 'Touched up in place',
  }),
);

export const methodName = (id: string): string => METHOD_NAMES.get(id) ?? id;
