// Proving a part that was put on: what joints are, what is measured, what is tried next.
import { describe, expect, it } from 'vitest';
import { blankBoard, type BoardModel } from '../src/board/index.ts';
import {
  JOINT_CRITERIA,
  JOINT_FINDINGS,
  judgeProof,
  legsToPush,
  nextTries,
  pinsFor,
  type Proof,
  proofKey,
  type Proofs,
  proofsOf,
  proofWords,
  type Symptom,
  SYMPTOMS,
} from '../src/prove/index.ts';

const part = (partId: string, pack: string, x_mm: number, nets: Record<string, string>, more = {}) => ({
  ...{ partId, package: pack, x_mm, y_mm: 10, rotation_deg: 0, side: 'top' as const, nets },
  ...more,
});
const board: BoardModel = {
  ...blankBoard('Probe', 60, 20),
  parts: [
    part('u1', 'SOIC-8', 10, { 1: 'VIN', 2: 'VIN', 3: 'EN', 4: 'FB', 5: 'GND', 6: 'V5', 7: 'SW', 8: 'BOOT' }),
    part('c1', 'C0805', 20, { 1: 'VIN', 2: 'GND' }),
    part('r1', 'R0603', 25, { 1: 'FB', 2: 'GND' }),
    part('r2', 'R0603', 40, { 1: 'FB', 2: 'EN' }, { value: '22R' }),
    part('j1', 'R0603', 50, { 1: 'SW', 2: 'V5' }, { value: '47u' }),
  ],
  rails: [{ id: 'r5', label: '5 V', partId: 'j1', terminal: '2', nature: { why: 'big chip', least_ohm: 0.4 } }],
};
const [u1] = board.parts;
const proof = (key: string): Proof => {
  const found = proofsOf(board, u1).find((p) => p.key === key);
  if (!found)
    throw new Error(
      `no proof ${key} among ${proofsOf(board, u1)
        .map((p) => p.key)
        .join(', ')}`,
    );
  return found;
};

describe('joints', () => {
  it('are judged by function: what only looks wrong is left, solder comes last', () => {
    expect(JOINT_FINDINGS.filter((f) => JOINT_CRITERIA[f].matters)).toEqual(['bridge', 'open', 'lifted', 'ball']);
    expect(JOINT_CRITERIA.dull.then).toMatch(/^leave it/);
    expect(JOINT_CRITERIA.open.then).toMatch(/no solder; solder only/);
  });
  it('are pushed where a leg would give', () => {
    expect(legsToPush(u1)).toHaveLength(8);
    expect(legsToPush(board.parts[1])).toEqual([]);
  });
});

describe('what is measured of a part', () => {
  it('is each pair of neighbours that do not belong together, and each pin to where its track goes', () => {
    const proofs = proofsOf(board, u1);
    const apart = proofs.filter((p) => p.kind === 'apart').map((p) => `${p.terminal}${p.to.terminal}`);
    // 1 and 2 are one net
    expect(apart).toEqual(['23', '34', '56', '67', '78']);
    const through = proofs.filter((p) => p.kind === 'through').map((p) => `${p.terminal} ${p.to.partId}`);
    // the nearest of each net; nothing else hangs on BOOT
    expect(through).toEqual(['1 c1', '2 c1', '3 r2', '4 r1', '5 c1', '6 j1', '7 j1']);
    expect(proofWords(board, proof('through 4 r1/1'))).toBe('4 to r1.1, FB');
    expect(new Set(proofs.map(proofKey)).size).toBe(proofs.length);
  });
  it('is nothing between the ends of a part of two, and nothing under one that hides its joints', () => {
    expect(proofsOf(board, board.parts[1]).filter((p) => p.kind === 'apart')).toEqual([]);
    const bare = { ...board.parts[0], nets: {} };
    expect(proofsOf(board, bare).map((p) => p.kind)).toEqual(Array(6).fill('apart'));
  });
  it.each([
    ['apart 2 u1/3', { ohm: 'OL' }, 'met'],
    ['apart 2 u1/3', { ohm: 4700 }, 'met'],
    ['apart 2 u1/3', { ohm: 0.5 }, 'unmet'],
    ['apart 2 u1/3', { ohm: 4 }, 'unknown'],
    ['apart 2 u1/3', { said: 'silent' }, 'met'],
    // a beep never counts as a short
    ['apart 2 u1/3', { said: 'beeps' }, 'unknown'],
    // 22 ohms between EN and FB by design
    ['apart 3 u1/4', { ohm: 0.6 }, 'unknown'],
    // a big chip's rail reads half an ohm by nature
    ['apart 5 u1/6', { ohm: 0.5 }, 'met'],
    ['apart 5 u1/6', { ohm: 0.1 }, 'unmet'],
    ['through 4 r1/1', { ohm: 0.6 }, 'met'],
    ['through 4 r1/1', { ohm: 3 }, 'unknown'],
    ['through 4 r1/1', { ohm: 'OL' }, 'unmet'],
    ['through 4 r1/1', { said: 'beeps' }, 'met'],
    ['through 4 r1/1', { said: 'silent' }, 'unmet'],
  ] as const)('%s %j is %s', (key, read, state) => {
    expect(judgeProof(proof(key), read).state).toBe(state);
  });
});

/** A polarised chip put on new, everything looked at, nothing found. */
const fine: Proofs = {
  pins: [
    { terminal: '1', net: 'VIN' },
    { terminal: '3', net: 'EN' },
    { terminal: '4', net: 'FB' },
    { terminal: '5', net: 'GND' },
    { terminal: '6', net: 'OUT_L' },
    { terminal: '7', net: 'SDA' },
  ],
  ...{ polarised: true, hidden: false, joints: {}, bridged: [], broken: [], unproven: 0, tilted: false },
  wayRound: 'agrees',
  part: { origin: 'new', donor: null, substitute: false, measured: true },
  ...{ hurt: [], storedOpen: false, slips: 0, limited: false, unplugged: 0, fluxLeft: false, oldGood: false },
  attempts: 1,
};
const fresh: Proofs = { ...fine, unproven: 20, wayRound: 'by word' };

describe('symptom to next try', () => {
  // what shows, what is known besides, what comes first, and a word of why
  it.each<[Symptom, Partial<Proofs>, string, RegExp]>([
    ['no output', fresh, 'open joint', /open joint is what hands leave/],
    ['no output', { ...fresh, tilted: true }, 'tilt', /marked as tilted/],
    ['no output', { joints: { 4: 'open' } }, 'open joint', /an open joint was found/],
    ['no output', { broken: ['5'] }, 'through', /no way from leg to track/],
    ['no output', { ...fresh, wayRound: 'differs' }, 'way round', /do not agree/],
    ['no output', { storedOpen: true }, 'stored', /not back/],
    ['no output', { limited: true }, 'limit', /held it at its limit/],
    ['no output', { ...fresh, part: { ...fine.part, measured: false } }, 'lost part', /measured bad/],
    ['shorted', fresh, 'bridge', /solder between neighbours/],
    ['shorted', { bridged: ['3–4'] }, 'bridge', /a bridge was found/],
    ['shorted', { joints: { 2: 'ball' } }, 'debris', /a ball was seen/],
    ['shorted', { ...fresh, wayRound: 'not checked' }, 'way round', /nobody checked/],
    ['shorted', { ...fresh, hurt: ['C4 moved'] }, 'neighbour', /not as it was/],
    ['pops', fresh, 'cause', /has a cause outside/],
    ['pops', { ...fresh, part: { ...fine.part, substitute: true } }, 'right part', /another part than the old/],
    ['pops', { ...fresh, wayRound: 'differs' }, 'way round', /dies at once/],
    ['still there', fine, 'not it', /changed nothing/],
    ['still there', { oldGood: true }, 'not it', /was good/],
    ['still there', { joints: { 1: 'lifted' } }, 'open joint', /an open joint/],
    ['dead since', { hurt: ['J3 melted'] }, 'neighbour', /not as it was/],
    ['dead since', { unplugged: 2 }, 'plugs', /2 still off/],
    ['dead since', { slips: 1 }, 'neighbour', /slip/],
    ['over-voltage', fine, 'sense', /end stop/],
    ['over-voltage', { ...fresh, part: { ...fine.part, substitute: true } }, 'right part', /another version/],
    ['draws more', { joints: { 3: 'bridge' } }, 'bridge', /was found/],
    ['draws less', { limited: true }, 'limit', /limit/],
    ['draws less', fresh, 'open joint', /draws nothing/],
    ['hot', fine, 'loads', /load/],
    ['now and then', fresh, 'open joint', /touching/],
    ['now and then', { fluxLeft: true }, 'residue', /flux was seen/],
    ['now and then', fine, 'through', /cracked track/],
  ])('%s with %j: %s', (symptom, known, first, why) => {
    const tries = nextTries(symptom, { ...fine, ...known });
    expect(tries[0].id).toBe(first);
    expect(tries[0].why.join('; ')).toMatch(why);
  });
  it('says what, how long and why of everything, the worthiest first, and nothing that cannot be', () => {
    for (const symptom of Object.keys(SYMPTOMS) as Symptom[]) {
      const tries = nextTries(symptom, fresh);
      expect(tries.length).toBeGreaterThan(2);
      expect(tries.every((t) => t.what && t.minutes > 0 && t.why[0])).toBe(true);
      expect(tries.map((t) => t.score)).toEqual(tries.map((t) => t.score).toSorted((a, b) => b - a));
      expect(nextTries(symptom, { ...fresh, polarised: false }).map((t) => t.id)).not.toContain('way round');
      expect(tries.map((t) => t.id)).not.toContain('stored');
    }
  });
  it('proving every joint puts the open joint far back', () => {
    const place = (known: Proofs) => nextTries('no output', known).findIndex((t) => t.id === 'open joint');
    expect(place(fresh)).toBe(0);
    expect(place(fine)).toBeGreaterThan(2);
    expect(place({ ...fine, hidden: true })).toBe(0);
  });
});

describe('pins to look at first', () => {
  it.each([
    ['left channel', ['6 OUT_L']],
    ['output voltage, no load', ['4 FB', '6 OUT_L']],
    ['bus answers', ['7 SDA']],
    ['switches on', ['1 VIN', '3 EN']],
    // nothing speaks of it: supplies and ground
    ['camera', ['1 VIN', '3 EN', '5 GND']],
  ])('%s: %j', (fn, pins) => {
    expect(pinsFor(fn, fine.pins).map((p) => `${p.terminal} ${p.net}`)).toEqual(pins);
  });
  it('are told where the try has to do with pins', () => {
    const [first] = nextTries('no output', { ...fresh, fn: 'bus answers' });
    expect(first).toMatchObject({ id: 'open joint', at: ['7 SDA'] });
  });
});
