/** The methods for a part on a board, as this station can be set. */
import { upTo } from '../phases/air/index.ts';
import { kindOf } from '../phases/index.ts';
import { LONGEST_S, type Phase } from '../phases/schema.ts';
import { benchOf, has, type Kit, type Want, wiresFor } from '../kit.ts';
import { type Dials, fullScale } from '../dials.ts';
import { reachOf } from '../phases/rows.ts';
import type { MethodChoice } from './choice.ts';
import type { Method } from './method.ts';
import { FIT_RECIPES } from './fitRecipes.ts';
import { type Recipe, RECIPES, type Unfit } from './recipes.ts';
import { type Piece, softenFor } from './usual.ts';

/** What hands are about to do with a part: another list of recipes. */
export type OnOrOff = 'remove' | 'fit';
const LISTS: Record<OnOrOff, readonly Recipe[]> = { remove: RECIPES, fit: FIT_RECIPES };

/** `op`: only among what does that. */
export const recipeOf = (id: string, op?: OnOrOff): Recipe | undefined =>
  (op ? LISTS[op] : [...RECIPES, ...FIT_RECIPES]).find((r) => r.id === id);

/** A method as this station can be set. */
function onDial(method: Method, dials: Pick<Dials, 'air'>): Method {
  const full = fullScale(dials);
  if (full === undefined) return method;
  return {
    ...method,
    phases: method.phases.map((p) => (p.kind === 'air' ? { ...p, settings: upTo(full, p.settings) } : p)),
  };
}

/** All methods with the reason where one does not apply to this part or board. */
export function methodsFor(
  packageId: string,
  board: Omit<Piece, 'packageId'> = {},
  op: OnOrOff = 'remove',
): MethodChoice[] {
  const piece = { packageId, ...board };
  return LISTS[op].map((recipe) => {
    const own = recipe.phases(piece);
    // what is cut or twisted off needs nothing bare, and a part that goes on is
    const bare = op === 'fit' || own.every((p) => kindOf(p).tool === 'hand');
    const phases = inTime(bare ? own : [...softenFor(piece), ...own]);
    const unfit = unfitOf(recipe, phases, piece);
    return {
      method: { id: recipe.id, phases },
      ...(unfit ? { unfit: unfit.why } : {}),
      ...(unfit?.cheapest ? { cheapest: unfit.cheapest } : {}),
      ...(recipe.asked ? { asked: true as const } : {}),
      ...(recipe.again ? { again: true as const } : {}),
    };
  });
}

/** What goes on longest is given up sooner where all together would take too long. */
function inTime(phases: Phase[]): Phase[] {
  const over_s = phases.reduce((sum, p) => sum + p.giveUp_s, 0) - LONGEST_S;
  if (over_s <= 0) return phases;
  const longest = phases.reduce((a, b) => (b.giveUp_s > a.giveUp_s ? b : a));
  return phases.map((p) => (p === longest ? { ...p, giveUp_s: p.giveUp_s - over_s } : p));
}

function unfitOf(recipe: Recipe, phases: readonly Phase[], piece: Piece): Unfit | undefined {
  const own = recipe.unfit?.(piece);
  if (own) return own;
  const why = phases.map((p) => kindOf(p).unfit?.(piece.packageId)).find(Boolean);
  return why === undefined ? undefined : { why };
}

/** A bench as methods are chosen for it. */
export interface AtHand {
  /** Absent: every tool is there. */
  kit?: Kit;
  dials: Pick<Dials, 'air'>;
  /** Methods that this shop does not work by. */
  never?: readonly string[];
  /** Taking off, where nothing is said. */
  op?: OnOrOff;
  /** The board stays in its housing: nothing reaches its lower face. */
  housed?: boolean;
}

/** All methods as they can be done here: set as these tools can be, with what is missing for them. */
export function methodsOn(packageId: string, board: Omit<Piece, 'packageId'>, at: AtHand): MethodChoice[] {
  return methodsFor(packageId, board, at.op).map((choice) => {
    const method = onDial(onBench(choice.method, at.kit), at.dials);
    const out = choice.unfit
      ? undefined
      : at.never?.includes(method.id)
        ? FORBIDDEN
        : at.housed && housedOut(method, packageId);
    if (out) return { ...choice, method, unfit: out.why, cheapest: out.cheapest };
    const missing = lacks(method, at.kit, board.leadFree);
    return {
      ...choice,
      method,
      ...(missing.length > 0
        ? { lacks: missing.map(({ name, count = 1 }) => (count > 1 ? `${count} × ${name}` : name)) }
        : {}),
    };
  });
}

/** What a housing keeps from the hands; undefined where it is nothing. */
function housedOut({ phases }: Method, packageId: string): Required<Unfit> | undefined {
  const cheapest = 'Out of its housing it can be done';
  if (phases.some((p) => p.kind === 'below')) return { why: 'its housing is under the board', cheapest };
  if (reachOf(packageId).pins && phases.some((p) => !kindOf(p).fromAbove))
    return { why: 'its pins are worked from below, where its housing is', cheapest };
  return undefined;
}

const FORBIDDEN = { why: 'this shop does not work that way', cheapest: 'its house rules are under Settings' };

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
function onBench(method: Method, kit: Kit | undefined): Method {
  if (!kit) return method;
  const bench = benchOf(kit);
  const phases = method.phases.map(
    (p) => ({ ...p, settings: kindOf(p).onBench?.(p.settings, bench) ?? p.settings }) as Phase,
  );
  return { ...method, phases };
}

/** What of it a bench lacks. */
const lacks = (method: Method, kit: Kit | undefined, leadFree?: boolean): Want[] =>
  wantsOf(method, leadFree).filter((want) => !has(kit, want));
