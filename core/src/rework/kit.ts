/** Tools and consumables of a bench, as work asks for them: whether something is there, and how far it can be set. */
import { type Composition, jointMetal, normalised, writeComposition } from '../alloys/index.ts';
import type { KitItem } from './kitForm.ts';
import { RANGES, within } from './ranges.ts';

export type Kit = readonly KitItem[];
type KitTool = KitItem['tool'];
type ItemOf<T extends KitTool> = Extract<KitItem, { tool: T }>;
type Metal = Extract<KitItem, { wt: Composition }>;

/** Something a phase cannot do without. */
export interface Want {
  tool: KitTool;
  /** As it is called at the bench. */
  name: string;
  /** How many of it; one when nothing is said. */
  count?: number;
  /** Whether a piece of that kind will do. */
  ok?: (item: KitItem) => boolean;
}

/** The pieces of a kit that meet a want. */
const meeting = (kit: Kit, { tool, ok }: Want): KitItem[] => kit.filter((i) => i.tool === tool && (ok?.(i) ?? true));

/** Whether a bench has what is wanted; one without a list has everything. */
export const has = (kit: Kit | undefined, want: Want): boolean =>
  kit === undefined || meeting(kit, want).length >= (want.count ?? 1);

/** Below this an alloy is one to keep joints liquid with, °C. */
const LOW_MELTING_C = 165;
export const isLowMelting = (wt: Composition): boolean => jointMetal(wt).Tl < LOW_MELTING_C;
const lead = (wt: Composition): number => normalised(wt).Pb ?? 0;

export const isLeadFree = (wt: Composition): boolean => lead(wt) <= 0.1;

/** Wires by what work asks of them. */
export interface Wires {
  leaded: Want;
  solder: Want;
  /** A wire that does what this alloy does. */
  like(alloy: Composition): Want;
  /** A paste that melts where this alloy does. */
  paste(alloy: Composition): Want;
}

/** Wires for work that may have to stay free of lead. */
export function wiresFor(leadFree: boolean): Wires {
  const wire = (name: string, ok: (wt: Composition) => boolean): Want => ({
    tool: 'wire',
    name,
    ok: (i) => i.tool === 'wire' && ok(i.wt),
  });
  const allowed = (wt: Composition) => !leadFree || isLeadFree(wt);
  const solder = wire(leadFree ? 'lead-free solder wire' : 'solder wire', (wt) => !isLowMelting(wt) && allowed(wt));
  const lowMelt = wire('low-melt alloy wire', (wt) => isLowMelting(wt) && allowed(wt));
  return {
    leaded: wire('leaded solder wire', (wt) => lead(wt) > 20 && !isLowMelting(wt)),
    solder,
    like: (alloy) => (isLowMelting(alloy) ? lowMelt : solder),
    paste: (alloy) => ({
      tool: 'paste',
      name: isLowMelting(alloy) ? 'low-temperature paste' : 'solder paste',
      ok: (i) => i.tool === 'paste' && isLowMelting(i.wt) === isLowMelting(alloy),
    }),
  };
}

const nearest = (values: readonly number[], to: number): number =>
  values.reduce((a, b) => (Math.abs(b - to) < Math.abs(a - to) ? b : a));
const round_mm = ({ nozzles }: ItemOf<'air'>): number[] =>
  nozzles.flatMap((n) => ('round_mm' in n ? [n.round_mm] : []));

/** The station of a kit that comes nearest to a nozzle; undefined where it has none. */
function airStation(kit: Kit, nozzle_mm: number): ItemOf<'air'> | undefined {
  const stations = kit.filter((i) => i.tool === 'air');
  const off = (s: ItemOf<'air'>) => Math.min(...round_mm(s).map((mm) => Math.abs(mm - nozzle_mm)), 100);
  return stations.sort((a, b) => off(a) - off(b))[0];
}

/** Settings of air as a station of this kit can be set. */
function airOn<S extends { set_C: number; flow_L_min: number; nozzle_mm: number }>(settings: S, kit: Kit): S {
  const station = airStation(kit, settings.nozzle_mm);
  if (!station) return settings;
  const { set_C, flow_L_min, nozzle_mm } = settings;
  const bores = round_mm(station);
  return {
    ...settings,
    set_C: within(set_C, station.set_C),
    flow_L_min: station.flow_L_min === 'unmarked' ? flow_L_min : within(flow_L_min, station.flow_L_min),
    nozzle_mm: bores.length > 0 ? nearest(bores, nozzle_mm) : nozzle_mm,
  };
}

/** Settings of an iron as one of this kit can be set. */
function tipOn<S extends { set_C: number; tip_mm: number; power_W: number }>(
  settings: S,
  kit: Kit,
  tool: 'iron' | 'tweezers' | 'vacuum' = 'iron',
): S {
  const irons = kit.filter((i): i is ItemOf<'iron' | 'tweezers' | 'vacuum'> => i.tool === tool);
  if (irons.length === 0) return settings;
  // the strongest is taken to hand
  const { set_C, power_W, tips_mm } = irons.reduce((a, b) => (b.power_W > a.power_W ? b : a));
  return {
    ...settings,
    set_C: within(settings.set_C, [Math.max(set_C[0], RANGES.iron.set_C[0]), Math.min(set_C[1], RANGES.iron.set_C[1])]),
    power_W,
    tip_mm: within(nearest(tips_mm, settings.tip_mm), RANGES.iron.tip_mm),
  };
}

/** A bench as phases are set by it: what they ask for, in what it has. */
export interface Bench {
  kit: Kit;
  air: <S extends { set_C: number; flow_L_min: number; nozzle_mm: number }>(settings: S) => S;
  tip: <S extends { set_C: number; tip_mm: number; power_W: number }>(
    settings: S,
    tool?: 'iron' | 'tweezers' | 'vacuum',
  ) => S;
  /** The wire that does what an alloy does: its own before another, and no lead where there is none in it. */
  wireLike: (alloy: Composition) => Metal | undefined;
  /** The paste that melts where an alloy does. */
  pasteLike: (alloy: Composition) => Metal | undefined;
}

export const benchOf = (kit: Kit): Bench => ({
  kit,
  air: (settings) => airOn(settings, kit),
  tip: (settings, tool) => tipOn(settings, kit, tool),
  wireLike(alloy) {
    const wires = kit.filter((i): i is Metal => i.tool === 'wire');
    const same = wires.find(({ wt }) => writeComposition(wt) === writeComposition(alloy));
    const like = ({ wt }: Metal) => isLowMelting(wt) === isLowMelting(alloy) && (isLeadFree(wt) || !isLeadFree(alloy));
    return same ?? wires.find(like);
  },
  pasteLike: (alloy) => kit.find((i): i is Metal => i.tool === 'paste' && isLowMelting(i.wt) === isLowMelting(alloy)),
});
