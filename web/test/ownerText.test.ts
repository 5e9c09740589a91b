import type { JobEvent, JobEventBody } from '@orthos/core/job';
import { foldJob } from '@orthos/core/job';
import { describe, expect, it } from 'vitest';
import { ownerText } from '../src/lib/intake/ownerText.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';
import { weir } from '../src/lib/server/demo/weir.ts';
import { viewOf } from './view.ts';

const log = (bodies: JobEventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({ id: `e${i}`, at: i, actor: 'unsigned', v: 1, body }));
const tier = (label: string, minutes: number, price_minor: number) => ({
  ...{ label, minutes, price_minor, parts_minor: 0, attempts: 1 },
});
const text = (board: typeof quillon, ...bodies: JobEventBody[]) => {
  const events = log(bodies);
  return ownerText(viewOf(board, undefined, events), foldJob(events));
};

describe('the text for the owner', () => {
  it('says what was found, every tier with its price, and how to answer', () => {
    const told = text(
      quillon,
      { type: 'suspect', partId: 'q1', why: 'reads low' },
      { type: 'damage', kind: 'liquid', whose: 'found', note: '' },
      {
        ...{ type: 'offer', currency: 'EUR', worth_minor: null },
        tiers: [tier('the one part', 40, 4900), tier('the circuit', 200, 9900)],
      },
    );
    expect(told).toContain('The fault is at Q1');
    expect(told).toContain('Already there when it came in: liquid.');
    expect(told).toMatch(/1\. the one part: €49\.00, about 40 minutes of work/);
    expect(told).toMatch(/2\. the circuit: €99\.00, about 3\.5 hours of work/);
    expect(told).toContain('Answer with the number');
  });
  it('of a set says how many parts; without an offer, that no price is named', () => {
    const told = text(weir, {
      type: 'set-parts',
      items: ['c1', 'c2'].map((partId) => ({ partId, side: 'top' as const })),
    });
    expect(told).toContain('2 parts are to be renewed.');
    expect(told).toContain('No price is named yet.');
    expect(told).not.toContain('The fault');
  });
  it('does not make up what nobody found', () => {
    expect(text(quillon)).not.toMatch(/fault|measured|parts are/);
  });
});
