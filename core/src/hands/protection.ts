/** What a plan counts on besides its tools: who is covered or off the board, what lies under it and holds it; and what hands have made of that. */
import type { SetPoint, Surroundings } from '../rework/index.ts';

type Cover = NonNullable<Surroundings['covers']>[number];

/** Covers as they are called at the bench, and as a log keeps them. */
export const COVER_NAMES: Readonly<Record<Cover['kind'], string>> = {
  tape: 'heat tape',
  foil: 'foil',
  'foil-off': 'foil, standing off',
  strip: 'metal strip',
  thick: 'thick cover',
};
export const TAKEN_OUT = 'taken out';
/** Whether it is of metal: nothing for a board that has power. */
export const isMetal = (how: string): boolean =>
  [COVER_NAMES.foil, COVER_NAMES['foil-off'], COVER_NAMES.strip, COVER_NAMES.thick].includes(how);
const KIND_OF = new Map(Object.entries(COVER_NAMES).map(([kind, name]) => [name, kind as Cover['kind']]));

/** Parts that a plan counts on being covered or off the board, and how. */
export const plannedCovers = ({ covers = [], absent = [] }: Surroundings): { partId: string; how: string }[] => [
  ...covers.flatMap((c) => (c.partId === undefined ? [] : [{ partId: c.partId, how: COVER_NAMES[c.kind] }])),
  ...absent.map((partId) => ({ partId, how: TAKEN_OUT })),
];

/** A plan takes no more covers than this. */
const MOST_COVERS = 60;

/** What became of a part beside the target: covered or taken out somehow, or left as it is for a reason. */
type Dealt = { type: 'neighbour-covered'; how: string } | { type: 'neighbour-accepted' };

/** The surroundings as hands left them, and the parts that are not as planned; a cover of a name of its own is taken to do what was planned, or what tape does. `target`: the part that is worked at. */
export function surroundingsDone(
  planned: Surroundings,
  dealt: ReadonlyMap<string, Dealt>,
  target?: string,
): { surroundings: Surroundings; differs: string[] } {
  const differs: string[] = [];
  // nobody deals with areas and the target one by one: they are as planned
  const covers: Cover[] = (planned.covers ?? []).filter((c) => c.partId === undefined || c.partId === target);
  const absent: string[] = [];
  const wanted = new Map(plannedCovers(planned).map(({ partId, how }) => [partId, how]));
  for (const partId of new Set([...wanted.keys(), ...dealt.keys()])) {
    if (partId === target) continue;
    const want = wanted.get(partId);
    const did = dealt.get(partId);
    const how = did?.type === 'neighbour-covered' ? did.how : undefined;
    const is = how === undefined || how === TAKEN_OUT || KIND_OF.has(how) ? how : (want ?? COVER_NAMES.tape);
    if (is !== want) differs.push(partId);
    if (is === TAKEN_OUT) absent.push(partId);
    else if (is !== undefined) covers.push({ partId, kind: KIND_OF.get(is) ?? 'tape' });
  }
  const { covers: _, absent: __, ...rest } = planned;
  return {
    surroundings: {
      ...rest,
      ...(covers.length > 0 ? { covers: covers.slice(0, MOST_COVERS) } : {}),
      ...(absent.length > 0 ? { absent } : {}),
    },
    differs,
  };
}

/** What heats from below in a plan, in words, with what it is set to; undefined where nothing does. */
export function heatBelow({ under }: Surroundings): { name: string; setPoint: SetPoint } | undefined {
  if (under?.kind === 'preheater')
    return {
      name: 'preheater',
      setPoint: { id: 'under', label: 'preheater', value: under.T_C, unit: '°C', tolerance: 10 },
    };
  if (under?.kind === 'infrared')
    return {
      name: 'infrared heater',
      setPoint: { id: 'under', label: 'infrared', value: under.flux_W_m2 / 1000, unit: 'kW/m²', tolerance: 0.5 },
    };
  return undefined;
}

/** What has to lie ready for all of it. */
export function protectionTools(surroundings: Surroundings): string[] {
  const { covers = [], under, held } = surroundings;
  const below = heatBelow(surroundings)?.name ?? (under?.kind === 'mat' ? 'mat' : undefined);
  return [
    ...new Set(covers.map((c) => COVER_NAMES[c.kind])),
    ...(below ? [below] : []),
    ...(held?.kind === 'frame' ? ['board frame'] : held?.kind === 'props' ? [`${held.places.length} props`] : []),
  ];
}
