// What a part holds: asked by its name, copied by two reads that agree, there again after.
import { describe, expect, it } from 'vitest';
import { expressBoard } from '../src/rework/index.ts';
import {
  copyOf,
  foldJob,
  type GateResult,
  type JobEventBody,
  judgeGates,
  jobEventSchema,
  mayHold,
} from '../src/job/index.ts';

let n = 0;
const log = (bodies: JobEventBody[]) =>
  bodies.map((body) => ({ id: `e${n++}`, at: n, actor: 'bench', v: 2 as const, body: jobEventSchema.parse(body) }));
const board = expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
const gate = (id: string, bodies: JobEventBody[], holds: ReturnType<typeof mayHold> = []): GateResult | undefined =>
  judgeGates(foldJob(log(bodies)), {
    ...{ complaint: 'dead', type: 'repair', powerSources: board.powerSources, planFresh: null, hotNeighbours: null },
    ...{ layOut: null, rails: [], loads: [], terminals: null, targetPolarised: true, drawnMark: '1', mayHold: holds },
    ...{ legs: [], proofs: [], atRisk: null },
  }).find((g) => g.id === id);

const suspect: JobEventBody = { type: 'suspect', partId: 'u1', why: 'reads nothing' };
const holds = (...h: ('data' | 'firmware' | 'settings')[]): JobEventBody => ({
  type: 'part-holds',
  partId: 'u1',
  holds: h,
});
const read = (checksum: string, when: 'before' | 'after' = 'before', bytes?: number): JobEventBody => ({
  ...{ type: 'stored-read', partId: 'u1', when, checksum },
  ...(bytes ? { bytes } : {}),
});

describe('what a part may hold', () => {
  it('is asked where its name speaks for it', () => {
    expect(mayHold({ what: 'EEPROM 24C64' })).toEqual(['data']);
    expect(mayHold({ what: 'configuration memory' })).toEqual(['data']);
    expect(mayHold({ what: 'motor controller' })).toEqual(['firmware', 'settings']);
    expect(mayHold({ value: '100 nF' })).toEqual([]);
    expect(mayHold({ what: 'flashing light driver' })).toEqual([]);
  });
  it('is no gate of a part that holds nothing anybody spoke of', () => {
    expect(gate('stored-read', [suspect])).toBeUndefined();
    expect(gate('stored-back', [suspect])).toBeUndefined();
    expect(gate('stored-read', [suspect], ['data'])).toMatchObject({ state: 'unknown', why: 'may hold data: say so' });
    expect(gate('stored-read', [suspect, holds()], ['data'])?.state).toBe('met');
  });
});

describe('a copy', () => {
  it('is two reads one after the other that agree; case and gaps of a checksum do not matter', () => {
    const before = (sums: JobEventBody[]) => gate('stored-read', [suspect, holds('data'), ...sums]);
    expect(before([])).toMatchObject({ state: 'unmet', why: 'not read yet' });
    expect(before([read('A1B2 C3D4')])).toMatchObject({ state: 'unmet', why: 'read once' });
    expect(before([read('A1B2 C3D4'), read('a1b2c3d4')])?.state).toBe('met');
    expect(before([read('a1b2c3d4'), read('a1b2c3d5')])?.why).toMatch(/differ/);
    // the clip slipped once: two good ones after it are a copy
    expect(before([read('a1b2c3d4'), read('ffff'), read('a1b2c3d4')])?.state).toBe('unmet');
    expect(before([read('ffff'), read('a1b2c3d4'), read('a1b2c3d4')])?.state).toBe('met');
    expect(before([read('a1b2c3d4', 'before', 8192), read('a1b2c3d4', 'before', 4096)])?.state).toBe('unmet');
  });
  it('of another part is not this one’s', () => {
    const other: JobEventBody = { type: 'stored-read', partId: 'u9', when: 'before', checksum: 'a1b2c3d4' };
    expect(gate('stored-read', [suspect, holds('data'), other, other])?.state).toBe('unmet');
  });
  it('asked for by hand tells the four cases', () => {
    const r = (checksum: string) => ({ id: '', checksum });
    expect([[], [r('a')], [r('a'), r('b')], [r('a'), r('a')]].map((before) => copyOf({ before }).state)).toEqual([
      ...['none', 'once', 'differ', 'copy'],
    ]);
  });
});

describe('afterwards', () => {
  const copied = [suspect, holds('data'), read('a1b2c3d4'), read('a1b2c3d4')];
  it('data is there again when it reads as the copy did', () => {
    expect(gate('stored-back', copied)?.state).toBe('unknown');
    expect(gate('stored-back', [...copied, read('a1b2c3d4', 'after')])?.state).toBe('met');
    expect(gate('stored-back', [...copied, read('00001111', 'after')])).toMatchObject({ state: 'unmet' });
    expect(gate('stored-back', [suspect, holds('data'), read('a1b2c3d4', 'after')])?.why).toMatch(/no copy/);
  });
  it('firmware is loaded, or came along in the old part; settings are set again', () => {
    const asks = [suspect, holds('firmware', 'settings')];
    expect(gate('stored-back', asks)?.why).toBe('no firmware loaded; settings not set again');
    const set: JobEventBody = { type: 'settings-again', partId: 'u1', note: 'address 12' };
    const loaded: JobEventBody = { type: 'firmware-loaded', partId: 'u1', version: '4.2' };
    expect(gate('stored-back', [...asks, loaded, set])).toMatchObject({
      state: 'met',
      why: 'firmware 4.2; address 12',
    });
    const old: JobEventBody = { type: 'new-part-measured', ok: true, note: '', origin: 'the old one' };
    expect(gate('stored-back', [...asks, old, set])?.state).toBe('met');
  });
  it('what is known of a part outlives an attempt', () => {
    expect(gate('stored-read', [...copied, { type: 'new-attempt', why: 'again' }, suspect])?.state).toBe('met');
  });
});
