/** What has to lie within reach before heat, and what each tool must be set to. */
import { writeComposition } from '../alloys/index.ts';
import { dialOf, type Dials, flowAt, kindOf, type LayOut, type Phase, type SetPoint } from '../rework/index.ts';
import { floodSolder } from './flood.ts';
import { fluxFor, melts_C } from './flux.ts';
import type { CleanUpOf } from './prepare.ts';
import { heatBelow, protectionTools } from './protection.ts';
import { ANY_SUPPLIES, CLEARS_WITH, placeOf } from './supplies.ts';
import type { Work } from './work.ts';

/** Of what the bench has: nothing is asked for that does not lie there. */
export function layOutFor(
  work: CleanUpOf & Pick<Work, 'supplies' | 'surroundings'>,
  dials: Pick<Dials, 'air'>,
): LayOut {
  const { joints = [], supplies = ANY_SUPPLIES, surroundings = {}, board, flood } = work;
  const below = heatBelow(surroundings);
  const { phases } = work.method;
  const flux = supplies.fluxes === null ? 'flux' : fluxFor(supplies.fluxes, melts_C(work))?.name;
  const alloys = [...new Set(joints.flatMap((j) => (j.with ?? []).map((w) => writeComposition(w.alloy))))];
  const needs = phases.map((p) => kindOf(p).needs(p.settings, dials));
  const tools = [
    ...alloys.map((name) => `${name} to work in, and an iron for it`),
    ...(flux ? [flux] : []),
    'tweezers',
    CLEARS_WITH[supplies.clears[placeOf(work.target)]],
    ...(supplies.floods ? [floodSolder(board, flood)] : []),
    'alcohol and wipes',
    'heat-proof rest for the part',
    ...needs.flatMap((n) => n.tools),
    ...protectionTools(surroundings),
  ];
  return {
    tools: [...new Set(tools)],
    setPoints: apart([...(below ? [below.setPoint] : []), ...needs.flatMap((n) => n.setPoints)]),
  };
}

/** Whether a set-point is one of a tool's, the first or a later one. */
const isOf = (id: string, tool: string): boolean => id === tool || /^-\d+$/.test(id.slice(tool.length));

/** Set-points of all phases, each with the phases and the setting it stands for. */
function dialsOf(phases: readonly Phase[], dials: Pick<Dials, 'air'>): { point: SetPoint; of: number[] }[] {
  const each = phases.flatMap((p, n) =>
    kindOf(p)
      .needs(p.settings, dials)
      .setPoints.map((point) => ({ point, n })),
  );
  return apart(each.map((e) => e.point)).map((point) => ({
    point,
    of: each.filter((e) => isOf(point.id, e.point.id) && e.point.value === point.value).map((e) => e.n),
  }));
}

/** Phases with their dials as hands have really set them, and which are off by more than a tool's tolerance. */
export function asLaidOut(
  phases: readonly Phase[],
  laid: readonly { id: string; value: number }[],
  dials: Pick<Dials, 'air'>,
): { phases: Phase[]; differs: string[] } {
  const is = new Map(laid.map((l) => [l.id, l.value]));
  const off = dialsOf(phases, dials).filter(({ point }) => {
    const value = is.get(point.id);
    return value !== undefined && Math.abs(value - point.value) > point.tolerance;
  });
  const set = (phase: Phase, n: number): Phase => {
    const own = off.filter((o) => o.of.includes(n)).map(({ point }) => settingOf(point, is.get(point.id) ?? 0, dials));
    return own.length === 0 ? phase : ({ ...phase, settings: Object.assign({ ...phase.settings }, ...own) } as Phase);
  };
  return { phases: phases.map(set), differs: off.map((o) => o.point.label) };
}

/** What a dial sets, as the settings of a phase call it. */
function settingOf({ id }: SetPoint, value: number, dials: Pick<Dials, 'air'>): object {
  if (id.startsWith('flow')) return { flow_L_min: dialOf(0, dials).unit === '%' ? flowAt(value, dials) : value };
  return id.startsWith('below') ? { T_C: value } : { set_C: value };
}

/** A tool that is set alike twice is set once; one that has to be turned meanwhile has a set-point for each. */
function apart(points: readonly SetPoint[]): SetPoint[] {
  const found = new Map<string, SetPoint[]>();
  for (const p of points) {
    const of = found.get(p.id) ?? [];
    if (!of.some((q) => q.value === p.value)) found.set(p.id, [...of, p]);
  }
  return [...found.values()].flatMap((of) =>
    of.map((p, n) => (n === 0 ? p : { ...p, id: `${p.id}-${n + 1}`, label: `then ${p.label}` })),
  );
}
