/** What a bench has for the work between the tools: which flux, how lands and holes are cleared, whether they can be flooded. */
import type { BoardModel, PlacedPart } from '../board/index.ts';
import { packageById } from '../packages/index.ts';
import { type Composition, LOW_MELT, LOW_MELT_LEAD_FREE } from '../alloys/index.ts';
import { has, type Kit, LEADED, wiresFor } from '../rework/index.ts';
import { type Flood, staysLeadFree } from './flood.ts';

/** How solder is taken off lands or out of holes. */
export type Clearing = 'braid' | 'vacuum' | 'pump' | 'tip';

export interface FluxAtHand {
  kind?: string;
  active_C?: readonly [number, number];
  /** The last day it keeps its word, as 2026-11-30. */
  expires?: string;
}

export interface Supplies {
  clears: { lands: Clearing; holes: Clearing };
  /** Solder of the shop's rule to flood with is there. */
  floods: boolean;
  /** Wires by what they are of. */
  wires: readonly Composition[];
  /** Null where nobody listed them. */
  fluxes: readonly FluxAtHand[] | null;
}

/** Of a bench that nobody listed. */
export const ANY_SUPPLIES: Supplies = {
  clears: { lands: 'braid', holes: 'braid' },
  floods: true,
  wires: [LEADED, LOW_MELT, LOW_MELT_LEAD_FREE],
  fluxes: null,
};

/** Where a part's solder is cleared from. */
export const placeOf = ({ package: pkg }: Pick<PlacedPart, 'package'>): keyof Supplies['clears'] =>
  packageById(pkg).terminals.some((t) => t.drill_mm) ? 'holes' : 'lands';

const BEST: Record<keyof Supplies['clears'], readonly Exclude<Clearing, 'tip'>[]> = {
  lands: ['braid', 'vacuum', 'pump'],
  holes: ['vacuum', 'braid', 'pump'],
};

export function suppliesOf(kit: Kit | undefined, board: Pick<BoardModel, 'jointAlloy'>, flood?: Flood): Supplies {
  if (!kit) return ANY_SUPPLIES;
  const clears = (place: keyof Supplies['clears']): Clearing =>
    BEST[place].find((tool) => has(kit, { tool, name: tool })) ?? 'tip';
  const wires = wiresFor(staysLeadFree(board, flood));
  return {
    clears: { lands: clears('lands'), holes: clears('holes') },
    floods: has(kit, flood === 'own' ? wires.solder : wires.leaded),
    wires: kit.flatMap((i) => (i.tool === 'wire' ? [i.wt] : [])),
    fluxes: kit.flatMap((i) => (i.tool === 'flux' ? [{ kind: i.kind, active_C: i.active_C, expires: i.expires }] : [])),
  };
}

/** What it is done with, as it lies ready. */
export const CLEARS_WITH: Record<Clearing, string> = {
  braid: 'braid',
  vacuum: 'vacuum iron for the clearing',
  pump: 'solder pump',
  tip: 'wet sponge for the tip',
};
