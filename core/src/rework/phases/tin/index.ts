/** Lands tinned with an iron before the part is there: all alike, or one alone. */
import { writeComposition } from '../../../alloys/index.ts';
import { LEADED } from '../../solders.ts';
import { RANGES, within } from '../../ranges.ts';
import { packageById } from '../../../packages/index.ts';
import { definePhase } from '../declaration.ts';
import { ironSetPoint, ironTools } from '../tip.ts';
import { type TinSettings, tinSettings } from './settings.ts';

/** What a hand lays differs from what is asked for by this share (estimate). */
export const LAID = 0.3;
const { share } = RANGES.fit;

export const tin = definePhase<'tin', TinSettings>({
  kind: 'tin',
  name: 'Lands tinned',
  settings: tinSettings,
  tool: 'iron',
  wants: (_, wire) => [{ tool: 'iron', name: 'soldering iron' }, wire.solder, { tool: 'flux', name: 'flux' }],
  onBench: (s, bench) => bench.tip(s),
  limbs: () => ({ left: 'wire', right: 'iron along the lands' }),
  line: ({ share: s, one }) => `${one ? 'one land' : 'lands'} tinned, ${s} ×`,
  irons: () => [],
  fromAbove: false,
  bridges: false,
  brings({ share: s, pad_share = s, one, alloy = LEADED }, packageId, own_mm3 = new Map()) {
    const { terminals } = packageById(packageId);
    return new Map(
      (one ? terminals.slice(0, 1) : terminals).map((t) => [
        t.id,
        { alloy, mm3: (t.kind === 'pad' ? pad_share : s) * (own_mm3.get(t.id) ?? t.volume_mm3) },
      ]),
    );
  },
  uncertain: [
    {
      name: 'solder on the lands',
      settings: (s, z) => ({
        share: within(s.share * (1 + LAID * z), share),
        ...(s.pad_share === undefined ? {} : { pad_share: within(s.pad_share * (1 + LAID * z), share) }),
      }),
    },
  ],
  needs: ({ alloy = LEADED, ...iron }) => ({
    tools: [`${writeComposition(alloy)} wire`, ...ironTools(iron)],
    setPoints: [ironSetPoint(iron.set_C)],
  }),
  change_s: 0,
  cautions: [],
  wayOut: '',
  spare: '',
});
