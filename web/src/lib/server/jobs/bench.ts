/** Which bench a job is done on, and what lies there. */
import { DEFAULT_STATION, type Kit, type StationModel } from '@orthos/core/rework';
import type { KitItem } from '../repositories/kit.ts';

export interface Bench {
  /** Empty where the shop has but one. */
  name: string;
  /** What lies there; absent where nobody listed it: then everything is taken to be there. */
  kit?: Kit;
  station?: KitItem;
  iron?: KitItem;
  /** How far the dials of both are from the truth. */
  model: StationModel;
}

/** Benches that tools were put on, by name. */
export const benchNames = (kit: readonly Pick<KitItem, 'bench'>[]): string[] =>
  [...new Set(kit.map((k) => k.bench).filter((name) => name !== ''))].sort();

/** A station and an iron alone say nothing of the rest. */
const isListed = (kit: readonly KitItem[]) => kit.some((k) => k.kind !== 'air' && k.kind !== 'iron');

/** A tool as plans are told of it: an air dial is what its station's model says it is. */
function specOf({ spec, doc }: KitItem): Kit[number] {
  if (spec.tool !== 'air') return spec;
  if (doc.air === 'unmarked') return { ...spec, flow_L_min: 'unmarked' };
  if (doc.air === undefined || spec.flow_L_min === 'unmarked') return spec;
  return { ...spec, flow_L_min: [Math.min(spec.flow_L_min[0], doc.air), doc.air] };
}

interface Asked {
  bench?: string;
  stationId?: string;
  ironId?: string;
}

/** The bench that was asked for, by name or by its station; the one of the first air station where nothing was. */
export function benchFor(all: readonly KitItem[], { bench, stationId, ironId }: Asked): Bench {
  const known = benchNames(all);
  const byId = (id: string | undefined) => all.find((k) => k.id === id);
  const first = byId(stationId) ?? byId(ironId) ?? all.find((k) => k.kind === 'air') ?? all.at(0);
  const name = bench !== undefined && known.includes(bench) ? bench : (first?.bench ?? '');
  const there = all.filter((k) => k.bench === name || k.bench === '');
  const listed = isListed(there);
  const working = there.filter((k) => !k.outOfOrder);
  // a bench that nobody listed borrows what it lacks
  const choose = (kind: 'air' | 'iron', id: string | undefined) => {
    const own = working.filter((k) => k.kind === kind);
    return own.find((k) => k.id === id) ?? own[0] ?? (listed ? undefined : all.find((k) => k.kind === kind));
  };
  const station = choose('air', stationId);
  const iron = choose('iron', ironId);
  return {
    name,
    ...(listed ? { kit: working.map(specOf) } : {}),
    station,
    iron,
    model: {
      ...(station?.doc ?? DEFAULT_STATION),
      ...dialsOf(station, iron, working),
      ironPlusMinus_K: (iron?.doc ?? DEFAULT_STATION).ironPlusMinus_K,
    },
  };
}

/** What is printed on the dials of what is taken to hand; a second iron has its own. */
function dialsOf(
  station: KitItem | undefined,
  iron: KitItem | undefined,
  working: readonly KitItem[],
): Pick<StationModel, 'dials'> {
  const second = working.find((k) => k.kind === 'iron' && k.id !== iron?.id);
  const first = (kind: 'tweezers' | 'vacuum') => working.find((k) => k.kind === kind)?.doc.dials?.[kind];
  const dials = {
    air: station?.doc.dials?.air,
    iron: iron?.doc.dials?.iron,
    iron2: second?.doc.dials?.iron,
    tweezers: first('tweezers'),
    vacuum: first('vacuum'),
  };
  const own = Object.fromEntries(Object.entries(dials).filter(([, dial]) => dial !== undefined));
  return { dials: Object.keys(own).length > 0 ? own : undefined };
}
