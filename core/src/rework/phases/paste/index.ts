/** Paste on the lands, through a stencil or a needle. */
import { writeComposition } from '../../../alloys/index.ts';
import { packageById } from '../../../packages/index.ts';
import { LEADED } from '../../solders.ts';
import { RANGES, within } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { LAID } from '../tin/index.ts';
import { type PasteSettings, pasteSettings } from './settings.ts';

export const paste = definePhase<'paste', PasteSettings>({
  kind: 'paste',
  name: 'Paste on the lands',
  settings: pasteSettings,
  tool: 'hand',
  wants: ({ alloy = LEADED }, wire) => [wire.paste(alloy)],
  onBench(settings, bench) {
    const own = bench.pasteLike(settings.alloy ?? LEADED);
    return own ? { ...settings, alloy: own.wt } : settings;
  },
  limbs: () => ({ left: 'holds the board', right: 'needle or squeegee' }),
  line: ({ share, alloy = LEADED }) => `${writeComposition(alloy)} paste, ${share} ×`,
  irons: () => [],
  fromAbove: true,
  bridges: false,
  unfit: (packageId) =>
    packageById(packageId).terminals.some((t) => t.drill_mm) ? 'its joints lie in holes' : undefined,
  brings: ({ share, alloy = LEADED }, packageId, own_mm3 = new Map()) =>
    new Map(
      packageById(packageId).terminals.map((t) => [t.id, { alloy, mm3: share * (own_mm3.get(t.id) ?? t.volume_mm3) }]),
    ),
  uncertain: [
    {
      name: 'solder on the lands',
      settings: (s, z) => ({ share: within(s.share * (1 + LAID * z), RANGES.fit.share) }),
    },
  ],
  needs: ({ alloy = LEADED }) => ({ tools: [`${writeComposition(alloy)} paste`], setPoints: [] }),
  change_s: 0,
  cautions: [
    {
      steps: ['fit'],
      text: 'Paste is poison on the skin: gloves, and wash hands. Not past its date, not warmed twice.',
    },
  ],
  wayOut: '',
  spare: '',
});
