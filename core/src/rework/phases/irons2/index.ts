/** Two irons on opposite rows at once, until the part floats between them. */
import { stroke } from '../stroke/index.ts';
import { definePhase } from '../declaration.ts';
import { rowsOf } from '../rows.ts';
import type { StrokeSettings } from '../stroke/settings.ts';

const both = (s: StrokeSettings): StrokeSettings => ({ ...s, irons: 2 });

export const irons2 = definePhase<'irons2', StrokeSettings>({
  ...stroke,
  kind: 'irons2',
  name: 'Two irons',
  wants: () => [
    { tool: 'iron', name: 'soldering iron', count: 2 },
    { tool: 'flux', name: 'flux' },
  ],
  // between two rows it slides out while both are hot; round four it has to wait
  handsFull: (packageId) => rowsOf(packageId).length > 2,
  limbs: () => ({ left: 'iron on one row', right: 'iron on the other: the part slides between the tips' }),
  line: (s, panel) => stroke.line(both(s), panel),
  irons: (s) => stroke.irons(both(s)),
  unfit(packageId) {
    const rows = rowsOf(packageId).length;
    if (rows < 2) return 'its joints stand in one row';
    return stroke.unfit?.(packageId);
  },
  needs: (s, station) => stroke.needs(both(s), station),
});
