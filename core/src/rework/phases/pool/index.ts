/** One tip, one pool of solder over all joints of a small part. */
import { writeComposition } from '../../../alloys/index.ts';
import { extentOf, packageById } from '../../../packages/index.ts';
import { LEADED } from '../../solders.ts';
import { setText } from '../../dials.ts';
import { RANGES, within } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { outOfReach } from '../rows.ts';
import { ironSetPoint, ironTools, uncertainTip } from '../tip.ts';
import { type PoolSettings, poolSettings } from './settings.ts';

const { pool_mm3 } = RANGES.pool;
/** A pool holds together over so much, mm, round a body with so many joints; it is off by this share (estimates). */
const [SPANS_MM, MOST_JOINTS, POOL] = [7, 3, 0.3];

export const pool = definePhase<'pool', PoolSettings>({
  kind: 'pool',
  name: 'One iron, a pool',
  settings: poolSettings,
  tool: 'iron',
  wants: (_, wire) => [{ tool: 'iron', name: 'soldering iron' }, wire.solder, { tool: 'flux', name: 'flux' }],
  onBench: (s, bench) => bench.tip(s),
  limbs: () => ({ left: 'wire, then nothing', right: 'iron across the part' }),
  line: ({ set_C, pool_mm3: mm3 }, panel) => `${setText(set_C, 'iron', panel)}, a pool of ${mm3} mm³`,
  irons: ({ power_W, set_C }) => [{ power_W, set_C }],
  paced: true,
  fromAbove: false,
  bridges: false,
  unfit(packageId) {
    const what = outOfReach(packageId);
    if (what) return `an iron cannot reach ${what}`;
    const pkg = packageById(packageId);
    if (pkg.terminals.some((t) => t.drill_mm)) return 'its joints lie in holes';
    if (pkg.terminals.length > MOST_JOINTS)
      return `no pool reaches all of its ${pkg.terminals.length} joints past the body`;
    const { x0, x1, y0, y1 } = extentOf(pkg);
    return Math.max(x1 - x0, y1 - y0) > SPANS_MM ? `no pool holds together over more than ${SPANS_MM} mm` : undefined;
  },
  brings({ pool_mm3: mm3, alloy = LEADED }, packageId) {
    const { terminals } = packageById(packageId);
    return new Map(terminals.map((t) => [t.id, { alloy, mm3: mm3 / terminals.length }]));
  },
  uncertain: [
    ...uncertainTip,
    { name: 'solder of the pool', settings: (s, z) => ({ pool_mm3: within(s.pool_mm3 * (1 + POOL * z), pool_mm3) }) },
  ],
  needs: ({ alloy = LEADED, ...iron }) => ({
    tools: [`${writeComposition(alloy)} wire for the pool`, ...ironTools(iron)],
    setPoints: [ironSetPoint(iron.set_C)],
  }),
  change_s: 5,
  cautions: [],
  wayOut: 'A wider tip, a larger pool or warming from below would change that.',
  spare: 'Cover it,',
});
