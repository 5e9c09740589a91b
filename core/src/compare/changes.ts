/**
 * What a technician can change about a way that leaves no window: something over or off a neighbour, the nozzle, where the air comes from, heat from
 * below. Each says what it does to the plan, and the minutes it takes that a row does not count itself.
 */
import { z } from 'zod';
import { gapBetween, solderedTerminals } from '../board/index.ts';
import { COVER_KINDS, has, type Kit, type Phase, type PlanRun, warmBoard } from '../rework/index.ts';
import { hourOf, LEAN_DEG } from './approach.ts';
import { mostThrough } from './free.ts';
import type { Found } from './glances.ts';

export const changeSchema = z.strictObject({
  what: z.enum(['cover', 'nozzle', 'spike', 'preheat', 'unplug', 'approach', 'remove first', 'method']),
  partId: z.string().optional(),
  to: z.string().optional(),
});
export type Change = z.infer<typeof changeSchema>;

/** A plan as changes act on it. */
export interface Planned {
  phases: Phase[];
  found: Found;
}

export interface Step {
  changes: readonly Change[];
  /** Besides what the row of the way counts. */
  minutes: number;
  on(plan: Planned): Planned;
}

/** Taking a plug or a cell out and putting it back. */
const UNPLUG_MIN = 1;
const blows = (phases: readonly Phase[]): boolean => phases.some((p) => p.kind === 'air' || p.kind === 'peel');

const setAir = (phases: readonly Phase[], settings: object): Phase[] =>
  phases.map((p) => (p.kind === 'air' ? ({ ...p, settings: { ...p.settings, ...settings } } as Phase) : p));

/** Covers that a bench has, the least first that they leave of a jet. */
export const coversOf = (kit: Kit | undefined): (typeof COVER_KINDS)[number][] => {
  const owned = kit?.flatMap((i) => (i.tool === 'cover' ? [i.kind] : []));
  // foil is pressed on, or stands off: one roll does both
  return COVER_KINDS.filter((k) => !owned || owned.includes(k) || (k === 'foil-off' && owned.includes('foil')));
};

const covering = (partIds: readonly string[], kind: (typeof COVER_KINDS)[number]): Step => ({
  changes: partIds.map((partId) => ({ what: 'cover', partId, to: kind })),
  minutes: 0,
  on: ({ phases, found }) => ({
    phases,
    found: {
      ...found,
      covers: [
        ...(found.covers ?? []).filter((c) => !partIds.includes(c.partId ?? '')),
        ...partIds.map((partId) => ({ partId, kind })),
      ],
    },
  }),
});

/** The board without a part; one that is soldered takes its own time to come off. */
export const without = (partId: string, soldered: boolean): Step => ({
  changes: [{ what: soldered ? 'remove first' : 'unplug', partId }],
  minutes: soldered ? 0 : UNPLUG_MIN,
  on: ({ phases, found }) => ({ phases, found: { ...found, absent: [...(found.absent ?? []), partId] } }),
});

export const leaning = (approach_deg: number): Step => ({
  changes: [{ what: 'approach', to: `${hourOf(approach_deg)} o’clock` }],
  minutes: 0,
  on: ({ phases, found }) => ({ phases: setAir(phases, { tilt_deg: LEAN_DEG, approach_deg }), found }),
});

const nozzle = (mm: number): Step => ({
  changes: [{ what: 'nozzle', to: `${mm} mm` }],
  minutes: 0,
  on: ({ phases, found }) => ({
    phases: phases.map((p) =>
      p.kind === 'air'
        ? {
            ...p,
            settings: { ...p.settings, nozzle_mm: mm, flow_L_min: Math.min(p.settings.flow_L_min, mostThrough(mm)) },
          }
        : p,
    ),
    found,
  }),
});

function preheated(kit: Kit | undefined, phases: readonly Phase[]): Step | undefined {
  const source = kit?.find((i) => i.tool === 'below');
  const warm = warmBoard(phases[0]);
  if (!has(kit, { tool: 'below', name: 'heat from below' }) || phases.some((p) => p.kind === 'below')) return undefined;
  const [lo, hi] = source?.T_C ?? [0, 1000];
  const settings = {
    ...warm.settings,
    source: source?.kind ?? warm.settings.source,
    T_C: Math.min(hi, Math.max(lo, warm.settings.T_C)),
  };
  return {
    changes: [{ what: 'preheat', ...('C' in warm.until ? { to: `${warm.until.C} °C` } : {}) }],
    minutes: 0,
    on: (plan) => ({ ...plan, phases: [{ ...warm, settings } as Phase, ...plan.phases] }),
  };
}

/** Who a run brings into trouble: by heat, the worst first, and small ones that come loose in the wind. */
export interface Trouble {
  hot: readonly string[];
  wind: readonly string[];
}

export function troubleOf(run: PlanRun, harmed: readonly string[]): Trouble {
  const blown = new Set(run.outcomes?.wind.flatMap((w) => (w.verdict === 'stays' ? [] : [w.partId])));
  const { closes } = run;
  const heat = closes && closes.why !== 'wind' && closes.partId ? [closes.partId] : [];
  return {
    hot: [...new Set([...heat, ...harmed])],
    wind: run.neighbours.flatMap((n) => (!n.far && !n.takeOut && blown.has(n.partId) ? [n.partId] : [])),
  };
}

/** Neighbours looked after at once. */
const MOST_NEIGHBOURS = 3;

/** Everything that could be changed about a way on a bench, but for its dials and where the air comes from. */
export function changesFor({ phases, found }: Planned, { hot, wind }: Trouble, kit: Kit | undefined): Step[] {
  const { board, target, held, covers = [] } = found;
  const part = board.parts.find((p) => p.partId === target);
  const near = hot.slice(0, MOST_NEIGHBOURS).flatMap((id) => board.parts.filter((p) => p.partId === id));
  const [best] = coversOf(kit);
  const small = coversOf(kit).at(-1);
  const air = phases.find((p) => p.kind === 'air');
  const bores = new Set(
    kit?.flatMap((i) => (i.tool === 'air' ? i.nozzles.flatMap((n) => ('round_mm' in n ? [n.round_mm] : [])) : [])),
  );
  const warm = held?.kind === 'housing' ? undefined : preheated(kit, phases);
  const bare = (id: string) => covers.every((c) => c.partId !== id);
  const loose = wind.filter(bare);
  return [
    ...(small && loose.length > 0 && blows(phases) ? [covering(loose, small)] : []),
    ...(best && blows(phases)
      ? near.filter((p) => p.side === part?.side && bare(p.partId)).map((p) => covering([p.partId], best))
      : []),
    ...(air?.kind === 'air' && !air.settings.mouth
      ? [...bores].filter((mm) => mm !== air.settings.nozzle_mm).map(nozzle)
      : []),
    ...(warm ? [warm] : []),
    ...near
      .filter((p) => part && gapBetween(part, p) > 0)
      .map((p) => without(p.partId, solderedTerminals(p).length > 0)),
  ];
}

/** Only what can be done together: nobody covers what is off the board, or leans a nozzle two ways. */
export function together(steps: readonly Step[]): boolean {
  const changes = steps.flatMap((s) => s.changes);
  const parts = changes.flatMap((c) => c.partId ?? []);
  const kinds = changes.flatMap((c) => (c.partId === undefined ? [c.what] : []));
  return new Set(parts).size === parts.length && new Set(kinds).size === kinds.length;
}

export const applied = (steps: readonly Step[], plan: Planned): Planned => steps.reduce((p, s) => s.on(p), plan);
