// Joints walked by keys that come faster than the server answers, and pins measured one after the other.
import type { JobEventBody } from '@orthos/core/job';
import { proofsOf } from '@orthos/core/prove';
import { describe, expect, it } from 'vitest';
import type { Recorder } from '../../src/lib/jobs/recorder.svelte.ts';
import { Walk } from '../../src/lib/part/walk.svelte.ts';
import { quillon } from '../../src/lib/server/demo/quillon.ts';
import { PinWalk } from '../../src/lib/verify/pinWalk.svelte.ts';

const part = quillon.parts.find((p) => p.partId === 'u7') ?? quillon.parts[0];
/** Takes what it is given, or not; what it was given. */
function recorder(takes: (body: JobEventBody) => boolean = () => true) {
  const given: JobEventBody[] = [];
  const record = (body: JobEventBody) => {
    given.push(body);
    return Promise.resolve(takes(body));
  };
  return { given, recorder: { record, problem: null } as unknown as Recorder };
}
const walked = (to: Recorder, only?: string[]) =>
  new Walk<'good' | 'open'>({
    ...{ part, side: 'top', recorder: to, good: 'good', stored: () => new Map() },
    ...(only ? { only } : {}),
    event: ({ terminal }, state) => ({ type: 'joint', terminal, state }),
  });

describe('a walk', () => {
  it('says each of the one it was meant for, whatever was answered by then', async () => {
    const { given, recorder: to } = recorder();
    const walk = walked(to);
    const first = walk.spots.slice(0, 3).map((s) => s.terminal);
    walk.say('good');
    walk.say('open');
    walk.say('good');
    await new Promise((done) => setTimeout(done));
    expect(given.map((b) => b.type === 'joint' && [b.terminal, b.state])).toEqual([
      [first[0], 'good'],
      [first[1], 'open'],
      [first[2], 'good'],
    ]);
    expect(walk.done).toBe(3);
  });
  it('goes on with the row, then with what is left, and ends', () => {
    const walk = walked(recorder().recorder);
    walk.say('open');
    walk.rowIsClean();
    expect(walk.due?.row).toBe(1);
    walk.allClean();
    expect([walk.due, walk.done]).toEqual([null, walk.spots.length]);
    expect(walk.stateOf(walk.spots[0])).toBe('open');
  });
  it('takes back what nobody stored', async () => {
    const walk = walked(recorder(() => false).recorder);
    walk.say('good');
    await new Promise((done) => setTimeout(done));
    expect(walk.done).toBe(0);
  });
  it('walks those alone that it was asked for', () => {
    expect(walked(recorder().recorder, ['2', '5']).spots.map((s) => s.terminal)).toEqual(['2', '5']);
  });
});

describe('pins', () => {
  const proofs = proofsOf(quillon, part);
  const pins = () => new PinWalk(proofs, recorder().recorder, () => new Map());
  it('come one after the other; what is left of a kind says what it usually says', () => {
    const walk = pins();
    const first = walk.due?.proof;
    expect(first?.kind).toBe('apart');
    walk.say({ ohm: 0.2 });
    walk.restUsual();
    expect(walk.due?.proof.kind).toBe('through');
    walk.restUsual();
    expect([walk.due, walk.done]).toEqual([null, proofs.length]);
    expect(walk.off.map((o) => o.proof.key)).toEqual([first?.key]);
    // a bridge shows at its joint, towards the other one
    expect(walk.foundOf(first?.terminal ?? '')).toEqual({ state: 'bridge', to: first?.to.terminal });
  });
  it('say nothing of a joint before all of its own were read', () => {
    const walk = pins();
    const first = walk.due?.proof;
    walk.say({ said: 'silent' });
    const more = proofs.filter((p) => p.terminal === first?.terminal).length > 1;
    expect(walk.foundOf(first?.terminal ?? '')).toEqual(more ? undefined : { state: 'good' });
    expect(walk.foundOf('no such')).toBeUndefined();
  });
  it('are gone to by their joint', () => {
    const walk = pins();
    walk.goTo('7');
    expect(walk.due?.ends).toContain('7');
    walk.step(-1);
    expect(walk.due).not.toBeNull();
  });
});
