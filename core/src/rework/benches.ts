/** Benches as they are met: what usually lies on one, so that it is listed in a minute and put right afterwards. */
import { LOW_MELT } from '../alloys/index.ts';
import type { KitItem } from './kitForm.ts';
import { LEADED } from './solders.ts';

export type KitTool = KitItem['tool'];

/** A tool as people call it, with what it usually is. */
interface Usual {
  name: string;
  spec: KitItem;
}

const iron = { set_C: [150, 450] as [number, number], power_W: 70, tips_mm: [1, 2.5, 3, 5] };

export const USUAL: Readonly<Record<KitTool, Usual>> = {
  air: {
    name: 'Air station',
    spec: {
      tool: 'air',
      set_C: [100, 480],
      flow_L_min: [5, 120],
      nozzles: [{ round_mm: 5 }, { round_mm: 8 }, { round_mm: 10 }, { round_mm: 12 }],
    },
  },
  iron: { name: 'Iron', spec: { tool: 'iron', ...iron } },
  tweezers: { name: 'Hot tweezers', spec: { tool: 'tweezers', ...iron, tips_mm: [1, 2, 3] } },
  vacuum: { name: 'Vacuum iron', spec: { tool: 'vacuum', ...iron, power_W: 80, tips_mm: [2, 2.5, 3] } },
  pump: { name: 'Solder pump', spec: { tool: 'pump' } },
  below: { name: 'Heat from below', spec: { tool: 'below', kind: 'air', T_C: [60, 300] } },
  wire: { name: 'Leaded wire', spec: { tool: 'wire', wt: LEADED, dia_mm: 0.7 } },
  paste: { name: 'Solder paste', spec: { tool: 'paste', wt: { Sn: 96.5, Ag: 3, Cu: 0.5 } } },
  flux: { name: 'Flux', spec: { tool: 'flux', kind: 'no-clean' } },
  braid: { name: 'Braid', spec: { tool: 'braid' } },
  cover: { name: 'Heat-proof tape', spec: { tool: 'cover', kind: 'tape' } },
  blade: { name: 'Blade', spec: { tool: 'blade' } },
  pliers: { name: 'Small cutters and pliers', spec: { tool: 'pliers' } },
  spring: { name: 'Light spring', spec: { tool: 'spring' } },
  fixture: { name: 'Board frame', spec: { tool: 'fixture', kind: 'frame' } },
  camera: { name: 'Microscope camera', spec: { tool: 'camera' } },
};

/** Benches by what they have; each a list to begin with. */
function benches() {
  const lowMelt: Usual = { name: 'Low-melt wire', spec: { tool: 'wire', wt: LOW_MELT, dia_mm: 1 } };
  const foil: Usual = { name: 'Foil', spec: { tool: 'cover', kind: 'foil' } };
  const leadFree: Usual = {
    name: 'Lead-free wire',
    spec: { tool: 'wire', wt: { Sn: 96.5, Ag: 3, Cu: 0.5 }, dia_mm: 0.7 },
  };
  const props: Usual = { name: 'Props under a board', spec: { tool: 'fixture', kind: 'props' } };
  const second: Usual = { name: 'Second iron', spec: USUAL.iron.spec };
  const of = (...tools: KitTool[]): Usual[] => tools.map((t) => USUAL[t]);
  const hand = of('flux', 'wire', 'braid', 'blade', 'pliers');
  return {
    full: {
      name: 'Everything: air, irons, vacuum, tweezers, heat from below',
      items: [
        ...of('air', 'iron'),
        second,
        ...of('tweezers', 'vacuum', 'pump', 'below', 'paste', 'cover', 'spring', 'fixture', 'camera'),
        props,
        foil,
        lowMelt,
        leadFree,
        ...hand,
      ],
    },
    air: {
      name: 'Hot air and an iron',
      items: [...of('air', 'iron', 'pump', 'cover', 'fixture'), foil, lowMelt, ...hand],
    },
    irons: {
      name: 'Irons, no hot air',
      items: [...of('iron'), second, ...of('tweezers', 'pump', 'fixture'), lowMelt, ...hand],
    },
    bare: { name: 'One iron', items: [...of('iron', 'pump'), ...hand] },
  };
}
export type BenchKind = keyof ReturnType<typeof benches>;
// marked pure: pages that list no bench load none
export const BENCHES: Readonly<Record<BenchKind, { name: string; items: readonly Usual[] }>> =
  /* @__PURE__ */ benches();
