/** What methods are called, by the ids of their recipes; nothing is matched by it. Apart from the recipes: a log is read without them. */
const NAMES: Readonly<Record<string, string>> = {
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
};

export const methodName = (id: string): string => NAMES[id] ?? id;
