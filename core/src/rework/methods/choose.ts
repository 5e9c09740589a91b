/** The methods for a part on a board, as this station can be set. */
import { onUnmarkedDial } from '../phases/air/index.ts';
import { kindOf, type Phase } from '../phases/index.ts';
import { benchOf, has, type Kit, type Want, wiresFor } from '../kit.ts';
import type { StationModel } from '../station.ts';
import type { Method } from './method.ts';
import { type Recipe, RECIPES, type Unfit } from './recipes.ts';
import type { Piece } from './usual.ts';

export interface MethodChoice {
  method: Method;
  /** Why this method is not for this part; absent when it is. */
  unfit?: string;
  /** The cheapest thing that would make it one. */
  cheapest?: string;
  /** Computed only when somebody asks for it. */
  asked?: true;
}

export const recipeOf = (id: string): Recipe | undefined => RECIPES.find((r) => r.id === id);

/** A method as this station can be set. */
export function onDial(method: Method, { air }: Pick<StationModel, 'air'>): Method {
  if (air !== 'unmarked') return method;
  return {
    ...method,
    phases: method.phases.map((p) => (p.kind === 'air' ? { ...p, settings: onUnmarkedDial(p.settings) } : p)),
  };
}

/** All methods with the reason where one does not apply to this part or board. */
export function methodsFor(packageId: string, board: Omit<Piece, 'packageId'> = {}): MethodChoice[] {
  const piece = { packageId, ...board };
  return RECIPES.map((recipe) => {
    const phases = recipe.phases(piece);
    const unfit = unfitOf(recipe, phases, piece);
    return {
      method: { id: recipe.id, phases },
      ...(unfit ? { unfit: unfit.why } : {}),
      ...(unfit?.cheapest ? { cheapest: unfit.cheapest } : {}),
      ...(recipe.asked ? { asked: true as const } : {}),
    };
  });
}

function unfitOf(recipe: Recipe, phases: readonly Phase[], piece: Piece): Unfit | undefined {
  const own = recipe.unfit?.(piece);
  if (own) return own;
  const why = phases.map((p) => kindOf(p).unfit?.(piece.packageId)).find(Boolean);
  return why === undefined ? undefined : { why };
}

/** What a method cannot do without, each tool once. */
export function wantsOf({ phases }: Pick<Method, 'phases'>, leadFree = false): Want[] {
  const wires = wiresFor(leadFree);
  const wants = phases.flatMap((p) => [...kindOf(p).wants(p.settings, wires)]);
  const named = new Map<string, Want>();
  for (const want of wants) {
    const known = named.get(want.name);
    if (!known || (want.count ?? 1) > (known.count ?? 1)) named.set(want.name, want);
  }
  return [...named.values()];
}

/** A method set as the tools of a bench can be; what is not there leaves it as it is. */
export function onBench(method: Method, kit: Kit | undefined): Method {
  if (!kit) return method;
  const bench = benchOf(kit);
  const phases = method.phases.map(
    (p) => ({ ...p, settings: kindOf(p).onBench?.(p.settings, bench) ?? p.settings }) as Phase,
  );
  return { ...method, phases };
}

/** What of it a bench lacks. */
export const lacks = (method: Method, kit: Kit | undefined, leadFree?: boolean): Want[] =>
  wantsOf(method, leadFree).filter((want) => !has(kit, want));
