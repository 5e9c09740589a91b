/** Which way round a part goes on: what its mark means, where it may lie, and whether all that was looked at agrees. */
import { z } from 'zod';
import { isGroundNet, type PlacedPart, solderedTerminals } from '../board/index.ts';
import { packageById, terminalSides } from '../packages/index.ts';

export const LOOKED_AT = ['photo', 'silkscreen', 'continuity'] as const;
export const LOOKED_WORDS: Record<(typeof LOOKED_AT)[number], string> = {
  photo: 'the photo before',
  silkscreen: 'the board’s mark',
  continuity: 'continuity',
};
const terminal = z.string().min(1).max(20);

/** Where a mark lies is told by the terminal next to it. */
export const orientationSchema = z.strictObject({
  /** Where the mark of the part that goes on lies. */
  lies: terminal,
  /** Where it belongs, by what was looked at; each at most once. */
  belongs: z
    .array(z.strictObject({ by: z.enum(LOOKED_AT), at: terminal, photoId: z.uuid().optional() }))
    .min(1, 'look at something on this board')
    .max(LOOKED_AT.length)
    .refine((b) => new Set(b.map(({ by }) => by)).size === b.length, 'the same twice'),
});
export type Orientation = z.infer<typeof orientationSchema>;

/** The terminals its mark may lie next to: both ends; else where the first one comes to lie when the part is turned, or its rows are mistaken for one another. */
export function markPlaces(part: PlacedPart): string[] {
  const all = solderedTerminals(part);
  if (all.length <= 2) return all.map((t) => t.id);
  const { x, y } = all[0].land;
  const turned = [
    [x, y],
    [-y, x],
    [-x, -y],
    [y, -x],
  ];
  const mistaken = [
    [x, y],
    [-x, y],
    [-x, -y],
    [x, -y],
  ];
  const places = terminalSides(packageById(part.package)) > 2 ? turned : mistaken;
  const far = ({ land }: (typeof all)[number], [px, py]: number[]) => Math.hypot(land.x - px, land.y - py);
  return [...new Set(places.map((p) => all.reduce((a, b) => (far(b, p) < far(a, p) - 1e-9 ? b : a)).id))];
}

/** Where its mark belongs as it is drawn; null where the package has none. */
export function drawnMark(part: PlacedPart): string | null {
  const { polarity, terminals } = packageById(part.package);
  return polarity === 'none' ? null : (terminals[0]?.id ?? null);
}

/** Lands that continuity to ground may be tried at, so that it tells where the mark belongs; none where nothing of it is on ground. */
export function groundPlaces(part: PlacedPart): string[] {
  const own = groundsOf(part);
  const all = solderedTerminals(part);
  const { polarity } = packageById(part.package);
  const told = own.length > 0 || polarity === 'minus-stripe' || polarity === 'plus-stripe';
  return all.length === 2 && told && own.length < 2 ? all.map((t) => t.id) : own;
}

const groundsOf = (part: PlacedPart): string[] =>
  solderedTerminals(part).flatMap((t) => (isGroundNet(part.nets?.[t.id] ?? '') ? [t.id] : []));

/** Where the mark belongs when this land reads through to ground; null where that does not tell. */
export function markByGround(part: PlacedPart, land: string): string | null {
  const [grounds, drawn, all] = [groundsOf(part), drawnMark(part), solderedTerminals(part)];
  const other = all.length === 2 ? (all.find((t) => t.id !== land)?.id ?? null) : null;
  // the model's own nets come first: a can may stand on a negative rail
  if (grounds.length > 0 && drawn !== null) return grounds.includes(land) ? drawn : other && otherOf(all, drawn);
  const { polarity } = packageById(part.package);
  if (polarity === 'minus-stripe') return land;
  return polarity === 'plus-stripe' ? other : null;
}
const otherOf = (all: readonly { id: string }[], id: string): string | null => all.find((t) => t.id !== id)?.id ?? null;

/** Whether it may be soldered so, and why or why not. `drawn`: `drawnMark`; what was measured outranks what is printed, seen or drawn. */
export function judgeOrientation({ lies, belongs }: Orientation, drawn: string | null): { ok: boolean; why: string } {
  const measured = belongs.find((b) => b.by === 'continuity');
  const said = [
    ...belongs.map((b) => ({ name: LOOKED_WORDS[b.by], at: b.at })),
    ...(drawn === null ? [] : [{ name: 'the drawing', at: drawn }]),
  ];
  const odd = said.find((s) => s.at !== said[0].at);
  if (odd && !measured)
    return { ok: false, why: `${said[0].name} says ${said[0].at}, ${odd.name} ${odd.at}: let continuity decide` };
  const at = measured?.at ?? said[0].at;
  if (lies !== at) return { ok: false, why: `its mark lies at ${lies}, it belongs at ${at}` };
  return { ok: true, why: `mark at ${lies}, as ${belongs.map((b) => LOOKED_WORDS[b.by]).join(', ')}` };
}
