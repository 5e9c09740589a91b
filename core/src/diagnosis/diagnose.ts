/** `diagnose.rank` and `diagnose.next`: circuit and readings in, suspects, groups and next readings out. */
import { z } from 'zod';
import { type CalcContext, canonicalJson } from '../ground/index.ts';
import {
  circuitReadingSchema,
  faultSchema,
  isPowered,
  modelNet,
  type Netlist,
  netlistSchema,
  statesOf,
} from '../circuit/index.ts';
import { companionsOf } from './companions.ts';
import { doubtOf, MISFIT } from './conviction.ts';
import { buildDictionary, testKey, testsOf, type Dictionary, type Test } from './dictionary.ts';
import { hypothesesOf, type Beside, type Hypothesis } from './hypotheses.ts';
import { ambiguityGroups, nextTests, SPLITS, splitsOf, verdict, wantedTest } from './next.ts';
import { powerVerdict } from './power.ts';
import { EVENTS, NONE, SIGNS, SWAPS, type BoardEvent, type Sign } from './priors.ts';
import { CLASS_NAMES } from '../board/index.ts';
import { explain, heldDown, rank, shopFactors, type Circumstances, type Ranking, type Taken } from './rank.ts';
import { offScale, scaleSlope } from './evidence.ts';

const ref = z.string().trim().min(1).max(40);
const measured = z.union([z.number(), z.literal('OL')]);
const event = z.enum(EVENTS);

const history = z.union([
  z.array(event).max(20),
  z.strictObject({
    events: z.array(event).max(20).default([]),
    /** Closed jobs on this kind of board, and how many found each culprit. */
    jobs: z.int().min(0).default(0),
    culprits: z.record(ref, z.int().min(0)).default({}),
  }),
]);

export const diagnoseInput = z.strictObject({
  netlist: netlistSchema,
  readings: z
    .array(
      circuitReadingSchema.extend({
        value: measured,
        good: measured.nullish(),
        /** How far it may be off besides the meter, as a spread of its logarithm: a current of a start-up, say. */
        spread: z.number().min(0).max(3).optional(),
      }),
    )
    .max(1000)
    .default([]),
  /** Resistance of the leads, taken off every ohm reading. */
  lead_resistance_ohm: z.number().min(0).max(10).default(0),
  /** Basic accuracy of the meter, % of reading. */
  accuracy: z
    .strictObject({ ohm_percent: z.number().min(0).max(50), volt_percent: z.number().min(0).max(50) })
    .default({ ohm_percent: 0, volt_percent: 0 }),
  history: history.default([]),
  seen: z
    .array(z.strictObject({ ref, sign: z.enum(Object.keys(SIGNS) as [Sign, ...Sign[]]) }))
    .max(200)
    .default([]),
  off_board: z
    .array(z.strictObject({ ref, result: z.enum(['bad', 'good']), recovered: z.boolean().optional() }))
    .max(50)
    .default([]),
  swapped: z
    .array(z.strictObject({ ref, followed: z.boolean(), how: z.enum(SWAPS).optional() }))
    .max(50)
    .default([]),
  companions: z.array(ref).max(50).default([]),
  /** Millivolts along rails: shares of the parts on each as `diagnose.locate` gives them, all weighing alike there. */
  on_rails: z
    .array(
      z.strictObject({
        net: ref,
        places: z.array(z.strictObject({ ref, p: z.number().min(0).max(1) })).max(500),
        /** Whether the copper was as drawn; else assumed. */
        drawn: z.boolean().default(false),
      }),
    )
    .max(20)
    .default([]),
  software: z.enum(['possible', 'ruled out']).optional(),
  /** Two faults at once, to be weighed beside the single ones. */
  pair: z.tuple([faultSchema, faultSchema]).optional(),
  /**
   * What else the board holds on nets of the circuit and the circuit does not. A net with an empty list is known to be complete; of one that
   * is not listed nobody knows.
   */
  beside: z
    .array(z.strictObject({ net: ref, parts: z.array(z.strictObject({ ref, cls: z.enum(CLASS_NAMES) })).max(400) }))
    .max(400)
    .default([]),
});
export type DiagnoseInput = z.infer<typeof diagnoseInput>;

const group = z.array(z.string());
const nextTest = z.strictObject({
  type: circuitReadingSchema.shape.type,
  red: z.string(),
  black: z.string(),
  state: z.string().nullable(),
  bits: z.number(),
  minutes: z.number(),
  /** What a healthy board shows there. */
  healthy: measured,
  /** What the likeliest suspects would show: value and the range two thirds of readings lie in. */
  expects: z.array(z.strictObject({ ref: z.string(), p: z.number(), value: measured, from: measured, to: measured })),
});

const asRead = {
  type: circuitReadingSchema.shape.type,
  red: z.string(),
  black: z.string(),
  state: z.string().nullable(),
  value: measured,
};
/** What one reading says about a part beside the next one that reads otherwise: above 0 for it, below 0 against it (ln of the ratio). */
const voice = z.strictObject({ ...asRead, weight: z.number(), expected: measured });

/** What one reading changed: whom it ruled out, who stands first after it. */
const chapter = z.strictObject({
  ...asRead,
  out: z.array(z.strictObject({ mode: z.string(), refs: z.array(z.string()) })),
  first: z.string(),
  p: z.number(),
});

export const diagnoseOutput = z.strictObject({
  suspects: z.array(z.strictObject({ ref: z.string(), mode: z.string(), where: z.string(), p: z.number() })),
  parts: z.array(
    z.strictObject({
      ref: z.string(),
      p: z.number(),
      voices: z.array(voice).optional(),
      /** How often earlier jobs found it, and what that makes of its weight. */
      shop: z.strictObject({ found: z.int(), factor: z.number() }).optional(),
    }),
  ),
  groups: z.array(group),
  /** Share of each group, and the ways to split it. */
  group_shares: z.array(
    z.strictObject({ p: z.number(), splits: z.array(z.strictObject({ how: z.enum(SPLITS), minutes: z.number() })) }),
  ),
  next: z.array(nextTest),
  /** Why the first part is not to be convicted yet; null where nothing stands against it. */
  doubt: z.string().nullable(),
  /** Parts of the board on a net that may as well be it, and are not in the circuit. */
  left_out: z.strictObject({ net: z.string(), refs: z.array(z.string()) }).nullable(),
  power: z.enum(['allowed', 'blocked']),
  why: z.string(),
  done: z.boolean(),
  /** Reading by reading: what it ruled out. */
  story: z.array(chapter),
  notes: z.array(z.string()),
});

export type Diagnosis = z.infer<typeof diagnoseOutput>;

export const nextInput = diagnoseInput.extend({ most: z.int().min(1).max(50).default(8) });
export const nextOutput = diagnoseOutput.pick({ next: true, groups: true, power: true, why: true, done: true });

/** A reading of the form as the ranking takes it; null for what says nothing (a silent beeper). */
function taken(
  netlist: Netlist,
  r: DiagnoseInput['readings'][number],
  { lead_resistance_ohm: leads_ohm, accuracy }: DiagnoseInput,
): Taken | null {
  const state = isPowered(r.type) ? (r.state ?? statesOf(netlist)[0] ?? null) : null;
  const probes = r.type === 'isup' ? { red: '', black: '' } : { red: r.red ?? '', black: r.black ?? netlist.ground };
  if (r.type === 'cont' && r.value === 'OL') return null;
  const type = r.type === 'cont' ? 'ohm' : r.type;
  const value = type === 'ohm' && typeof r.value === 'number' ? Math.max(0, r.value - leads_ohm) : r.value;
  const percent = type === 'ohm' ? accuracy.ohm_percent : accuracy.volt_percent;
  const off = Math.hypot(percent / 100, r.spread ?? 0);
  const error = typeof value === 'number' ? scaleSlope(type, value) * Math.abs(value) * off : 0;
  const good = r.good ?? undefined;
  return { type, ...probes, state, value, shown: r.value, error, ...(good === undefined ? {} : { good }) };
}

/** A reading this much likelier under one part than under the next tells them apart (ln 3). */
const SEPARATES = Math.log(3);

/** How many parts are explained by their readings. */
const EXPLAINED = 8;

/** What a meter shows at a place on the scale of `evidence`. */
function shownAt(type: Taken['type'], y: number): number | 'OL' {
  const value = offScale(type, y);
  if (type === 'ohm' && value > 6e7) return 'OL';
  return type === 'diode' && value > 2.8 ? 'OL' : value;
}

const asTaken = ({ type, red, black, state, value, shown = value }: Taken) => ({
  type,
  red,
  black,
  state,
  value: shown,
});

/** A way of a part to fail that held this share before a reading and a fifth of it after is ruled out by it. */
const HELD = 0.004;
const RULED_OUT = 0.2;
/** The last so many readings are told; the record has the others. */
const CHAPTERS = 30;

/** Share of every part's ways to fail, whichever its pins. */
function waysOf({ suspects }: Ranking): Map<string, { ref: string; mode: string; p: number }> {
  const ways = new Map<string, { ref: string; mode: string; p: number }>();
  for (const { ref, mode, p } of suspects) {
    if (ref === NONE || mode === '') continue;
    const known = ways.get(`${ref}|${mode}`);
    if (known) known.p += p;
    else ways.set(`${ref}|${mode}`, { ref, mode, p });
  }
  return ways;
}

/** What each reading ruled out, in the order they were taken; what was seen or tested counts from the first. */
function storyOf(dictionary: Dictionary, readings: readonly Taken[], circumstances: Circumstances) {
  const begin = Math.max(0, readings.length - CHAPTERS);
  let before = waysOf(rank(dictionary, readings.slice(0, begin), circumstances));
  return readings.slice(begin).map((reading, n) => {
    const after = rank(dictionary, readings.slice(0, begin + n + 1), circumstances);
    const ways = waysOf(after);
    const out = new Map<string, string[]>();
    for (const [name, { ref, mode, p }] of before)
      if (p > HELD && (ways.get(name)?.p ?? 0) < RULED_OUT * p) out.set(mode, [...(out.get(mode) ?? []), ref]);
    before = ways;
    const [first] = after.parts;
    return { ...asTaken(reading), out: [...out].map(([mode, refs]) => ({ mode, refs })), first: first.ref, p: first.p };
  });
}

const cache = new Map<string, Dictionary>();
const KEPT = 4;

/** The dictionary of a circuit; the last few are kept, as ranking goes on reading by reading. */
function dictionaryFor(
  netlist: Netlist,
  events: readonly BoardEvent[],
  {
    extra = [],
    pair,
    beside = [],
    context = {},
  }: {
    extra?: readonly Test[];
    pair?: DiagnoseInput['pair'];
    beside?: readonly Beside[];
    context?: Partial<CalcContext>;
  } = {},
): Dictionary {
  const tests = testsOf(netlist);
  const known = new Set(tests.map(testKey));
  for (const test of extra) if (!known.has(testKey(test))) tests.push(test);
  const key = canonicalJson({ netlist, events: [...events].sort(), tests, beside, pair: pair ?? null });
  const kept = cache.get(key);
  if (kept) return kept;
  const hypotheses = hypothesesOf(netlist, events, beside);
  if (pair) {
    const chosen = pairOf(pair, hypotheses);
    // the technician's word stands for the same two weighed unasked
    const usual = hypotheses.findIndex((h) => h.loose && sameParts(h.ref, chosen.ref));
    if (usual >= 0) hypotheses.splice(usual, 1);
    hypotheses.push(chosen);
  }
  const dictionary = buildDictionary(netlist, hypotheses, tests, context);
  cache.set(key, dictionary);
  if (cache.size > KEPT) cache.delete(cache.keys().next().value as string);
  return dictionary;
}

const sameParts = (a: string, b: string) => a.split(' + ').sort().join() === b.split(' + ').sort().join();

/** Two faults at once, as likely as a chosen pair deserves: a tenth of the likelier of the two. */
function pairOf(pair: NonNullable<DiagnoseInput['pair']>, hypotheses: readonly Hypothesis[]): Hypothesis {
  const [a, b] = pair;
  const likely = hypotheses.filter((h) => h.ref === a.ref || h.ref === b.ref).map((h) => h.weight);
  return {
    ref: `${a.ref} + ${b.ref}`,
    mode: a.mode,
    where: `${a.ref} ${a.mode}, ${b.ref} ${b.mode}`,
    faults: [a, b],
    weight: 0.1 * Math.max(...likely, 0.1),
    vague: 0,
  };
}

/** Parts on the small nets of those that were acquitted: what feeds and commands them. */
function besideAcquitted(netlist: Netlist, swapped: DiagnoseInput['swapped']): string[] {
  const acquitted = new Set(swapped.filter((s) => !s.followed).map((s) => s.ref));
  const beside = [...acquitted].flatMap((ref) => companionsOf(netlist, ref));
  return [...new Set(beside)].filter((ref) => !acquitted.has(ref));
}

const wasProfiled = (rails: DiagnoseInput['on_rails'], refs: readonly string[]) =>
  rails.some((r) => r.places.some((p) => refs.includes(p.ref)));

/** Throws `NetlistError` for a circuit that does not hang together. */
export function diagnose(input: DiagnoseInput, context: Partial<CalcContext> = {}, most = 8): Diagnosis {
  const { netlist } = input;
  const events = Array.isArray(input.history) ? input.history : input.history.events;
  const readings = input.readings.flatMap((r) => taken(netlist, r, input) ?? []);
  const nets = new Set([
    netlist.ground,
    ...netlist.parts.flatMap((p) => Object.values(p.pins)),
    ...Object.values(netlist.alias),
  ]);
  const strange = readings.filter((r) => r.type !== 'isup' && !(nets.has(r.red) && nets.has(r.black)));
  const usable = readings.filter((r) => !strange.includes(r));
  const onModel = usable.map(({ type, red, black, state }): Test => ({
    type,
    red: modelNet(netlist, red),
    black: modelNet(netlist, black),
    state,
  }));
  const dictionary = dictionaryFor(netlist, events, {
    extra: onModel,
    pair: input.pair,
    beside: input.beside,
    context,
  });
  const shop = Array.isArray(input.history)
    ? undefined
    : { jobs: input.history.jobs, culprits: input.history.culprits };
  const circumstances = {
    seen: input.seen,
    offBoard: input.off_board,
    swapped: input.swapped,
    companions: input.companions,
    onRails: input.on_rails,
    besideAcquitted: besideAcquitted(netlist, input.swapped),
    ...(shop ? { shop } : {}),
    ...(input.software ? { software: input.software } : {}),
  };
  const fitted = rank(dictionary, usable, circumstances);
  const doubt = doubtOf(dictionary, fitted, {
    readings: usable,
    outside: strange,
    circumstances,
    beside: input.beside,
  });
  const ranking = doubt?.misfit ? heldDown(fitted) : fitted;
  const { power, why, unread } = powerVerdict(dictionary, ranking, usable);
  const allowPower = power === 'allowed';
  const groups = ambiguityGroups(dictionary, ranking, true);
  const offered = nextTests(dictionary, ranking, usable, { allowPower, unread, most });
  // what was read along a rail agrees with the reading before it as another reading would
  const earlier = input.on_rails.length > 0 ? usable : usable.slice(0, -1);
  const before = usable.length
    ? (ambiguityGroups(dictionary, rank(dictionary, earlier, { ...circumstances, onRails: [] }), true)[0]?.p ?? 0)
    : 0;
  const settled = verdict(groups, offered, before).done;
  // a part that nobody has measured at is measured before it is named
  const wanting =
    settled && doubt?.unread
      ? [wantedTest(dictionary, ranking, usable, { nets: doubt.unread, allowPower, unread })].filter(
          (t) => t !== undefined,
        )
      : [];
  // who reads alike cannot be told apart; the next one of another group can
  const rivalOf = (ref: string): string | null => {
    const alike = new Set(groups.find((g) => g.refs.includes(ref))?.refs ?? []);
    return ranking.parts.find((p) => p.ref !== ref && !alike.has(p.ref))?.ref ?? null;
  };
  const voicesOf = (ref: string) =>
    explain(dictionary, ranking, usable, { ref, rival: rivalOf(ref) })
      .filter((v) => Math.abs(v.weight) > SEPARATES)
      .map(({ reading, weight, expected }) => ({
        ...asTaken(reading),
        weight,
        expected: shownAt(reading.type, expected.y),
      }));
  const factors = shop && shopFactors(dictionary.hypotheses, shop);
  const foundBefore = (ref: string) => {
    const found = shop?.culprits[ref] ?? 0;
    return found > 0 ? { shop: { found, factor: factors?.get(ref) ?? 1 } } : {};
  };
  const notes = strange.map(
    (r) => `no part of the circuit is on ${nets.has(r.red) ? r.black : r.red}: that reading was left out`,
  );
  if (ranking.contradiction) notes.push(MISFIT);
  return {
    suspects: ranking.suspects.filter((s) => s.p > 1e-5).slice(0, 300),
    parts: ranking.parts.map((part, i) =>
      i < EXPLAINED ? { ...part, voices: voicesOf(part.ref), ...foundBefore(part.ref) } : part,
    ),
    groups: groups.map((g) => g.refs),
    group_shares: groups.map((g) => ({
      p: g.p,
      // what was read along the rail is not read again
      splits: splitsOf(dictionary, ranking, g).filter(
        (s) => s.how !== 'profile' || !wasProfiled(input.on_rails, g.refs),
      ),
    })),
    next: [...wanting, ...offered.filter((t) => !wanting.some((w) => testKey(w) === testKey(t)))]
      .slice(0, most)
      .map(({ type, red, black, state, bits, minutes, healthy, expects }) => ({
        type,
        red,
        black,
        state,
        bits,
        minutes,
        healthy: shownAt(type, healthy),
        expects: expects.map(({ ref, p, expected: { y, s } }) => ({
          ref,
          p,
          value: shownAt(type, y),
          from: shownAt(type, y - s),
          to: shownAt(type, y + s),
        })),
      })),
    doubt: doubt?.why ?? null,
    left_out: doubt?.leftOut ?? null,
    power,
    why,
    done: settled && wanting.length === 0,
    story: storyOf(dictionary, usable, circumstances),
    notes,
  };
}
