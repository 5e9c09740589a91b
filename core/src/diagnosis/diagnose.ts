/** `diagnose.rank` and `diagnose.next`: circuit and readings in, suspects, groups and next readings out. */
import { type CalcContext, canonicalJson } from '../ground/index.ts';
import { isPowered, modelNet, type Netlist, statesOf } from '../circuit/index.ts';
import { companionsOf } from './companions.ts';
import { doubtOf, MISFIT } from './conviction.ts';
import { buildDictionary, testKey, testsOf, type Dictionary, type Test } from './dictionary.ts';
import { hypothesesOf, type Beside, type Hypothesis } from './hypotheses.ts';
import type { DiagnoseInput, Diagnosis } from './diagnoseForm.ts';
import { ambiguityGroups, nextTests, splitsOf, verdict, wantedTest, type Group, type NextTest } from './next.ts';
import { powerVerdict } from './power.ts';
import { NONE, type BoardEvent } from './priors.ts';
import { explain, heldDown, rank, shopFactors, type Circumstances, type Ranking, type Taken } from './rank.ts';
import { offScale, scaleSlope } from './evidence.ts';

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

/** A next reading as it is told: values instead of places on the scale of `evidence`. */
const nextTold = ({
  type,
  red,
  black,
  state,
  bits,
  minutes,
  healthy,
  expects,
}: NextTest): Diagnosis['next'][number] => ({
  ...{ type, red, black, state, bits, minutes },
  healthy: shownAt(type, healthy),
  expects: expects.map(({ ref, p, expected: { y, s } }) => ({
    ...{ ref, p },
    value: shownAt(type, y),
    from: shownAt(type, y - s),
    to: shownAt(type, y + s),
  })),
});

/** Parts with their shares, the first of them with what speaks for and against them, and what the shop knows. */
function partsTold(
  dictionary: Dictionary,
  ranking: Ranking,
  readings: readonly Taken[],
  { groups, shop }: { groups: readonly Group[]; shop: Circumstances['shop'] },
): Diagnosis['parts'] {
  // who reads alike cannot be told apart; the next one of another group can
  const rivalOf = (ref: string): string | null => {
    const alike = new Set(groups.find((g) => g.refs.includes(ref))?.refs ?? []);
    return ranking.parts.find((p) => p.ref !== ref && !alike.has(p.ref))?.ref ?? null;
  };
  const voicesOf = (ref: string) =>
    explain(dictionary, ranking, readings, { ref, rival: rivalOf(ref) })
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
  return ranking.parts.map((part, i) =>
    i < EXPLAINED ? { ...part, voices: voicesOf(part.ref), ...foundBefore(part.ref) } : part,
  );
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
  const notes = strange.map(
    (r) => `no part of the circuit is on ${nets.has(r.red) ? r.black : r.red}: that reading was left out`,
  );
  if (ranking.contradiction) notes.push(MISFIT);
  return {
    suspects: ranking.suspects.filter((s) => s.p > 1e-5).slice(0, 300),
    parts: partsTold(dictionary, ranking, usable, { groups, shop }),
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
      .map(nextTold),
    doubt: doubt?.why ?? null,
    left_out: doubt?.leftOut ?? null,
    power,
    why,
    done: settled && wanting.length === 0,
    story: storyOf(dictionary, usable, circumstances),
    notes,
  };
}
