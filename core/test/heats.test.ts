// What lands and parts have been through over all attempts.
import { describe, expect, it } from 'vitest';
import { foldJob, heatsOf, type JobEventBody, jobEventSchema } from '../src/job/index.ts';

let n = 0;
const log = (bodies: [at_s: number, body: JobEventBody][]) =>
  bodies.map(([at_s, body]) => ({
    id: `e${n++}`,
    at: 1000 * at_s,
    actor: 'bench',
    v: 2 as const,
    body: jobEventSchema.parse(body),
  }));
const guide = (land_K_s: number, dose: number | null) => ({
  ...{ joints: [], last: null, allWet_s: 40, allWetFrom_s: null, allWetTo_s: null, closes_s: null },
  ...{ closesFrom_s: null, closesTo_s: null, closedBy: '', heat: { land_K_s, dose } },
});
const suspect: JobEventBody = { type: 'suspect', partId: 'u1', why: 'low' };
/** A run of 40 s by the plan that took `wet_s`. */
function run(
  id: number,
  op: 'remove' | 'fit',
  wet_s: number,
  land_K_s = 6000,
  dose: number | null = 0.2,
): [number, JobEventBody][] {
  const runId = `019ac000-0000-4000-8000-00000000000${id}`;
  const mark = (what: 'heat-on' | 'all-wet' | 'lifted'): JobEventBody => ({
    type: 'mark',
    runId,
    instruction: what,
    what,
  });
  const at = 1000 * id;
  return [
    [
      at,
      {
        type: 'run-begun',
        runId,
        op,
        methodId: op === 'fit' ? 'fit-air' : 'air-slow',
        guide: guide(land_K_s, dose),
        offline: false,
        bench: false,
      },
    ],
    [at + 10, mark('heat-on')],
    [at + 10 + wet_s, mark('all-wet')],
    [at + 12 + wet_s, op === 'fit' ? { type: 'run-ended', runId, outcome: 'finished' } : mark('lifted')],
  ];
}
const of = (...bodies: [number, JobEventBody][]) => heatsOf(foldJob(log([[0, suspect], ...bodies])));

describe('heat over all attempts', () => {
  it('is none before the first', () => {
    expect(of()).toEqual({ lands: { times: 0, K_s: 0, holds: 1, left: null }, part: { times: 0, dose: null } });
  });
  it('adds up over removal, fitting and attempts, longer where it took longer', () => {
    const { lands, part } = of(...run(1, 'remove', 40), ...run(2, 'fit', 80));
    expect(lands.K_s).toBeCloseTo(18_000, 6);
    expect(lands.holds).toBeCloseTo(Math.exp(-0.3), 12);
    // 41 589 K·s until they hold half: 23 589 are left, three more of 6000
    expect(lands.left).toBe(3);
    // what goes on was not there when the old one came off
    expect(part).toEqual({ times: 1, dose: expect.closeTo(0.4, 12) });
    const again = of(
      ...run(1, 'remove', 40),
      ...run(2, 'fit', 40),
      [2500, { type: 'new-attempt', why: 'tilted' }],
      [2501, suspect],
      ...run(3, 'remove', 40),
    );
    expect(again.lands).toMatchObject({ times: 3, K_s: 18_000 });
  });
  it('a new part has felt its own fitting alone, the old one all of it', () => {
    const fitted = (origin: 'new' | 'the old one') =>
      of(
        ...run(1, 'remove', 40),
        [1500, { type: 'new-part-measured', ok: true, note: '', origin }],
        ...run(2, 'fit', 40),
      ).part;
    expect(fitted('new')).toEqual({ times: 1, dose: expect.closeTo(0.2, 12) });
    expect(fitted('the old one')).toEqual({ times: 2, dose: expect.closeTo(0.4, 12) });
  });
  it('says nothing of what lands hold where no plan was followed', () => {
    const bare = run(1, 'remove', 40).map(([at, body]): [number, JobEventBody] => [
      at,
      body.type === 'run-begun' ? { ...body, guide: null } : body,
    ]);
    expect(of(...bare)).toMatchObject({ lands: { times: 1, K_s: 0, holds: null, left: null }, part: { dose: null } });
  });
  it('another part’s heat is not this one’s; lands at their floor have nothing left, and marks in doubt do not run away', () => {
    const other: JobEventBody = { type: 'suspect', partId: 'u9', why: 'low' };
    const moved = of(...run(1, 'remove', 40), [1500, { type: 'new-attempt', why: 'not it' }], [1501, other]);
    expect(moved.lands.times).toBe(0);
    const spent = of(...run(1, 'remove', 4000, 20_000), ...run(2, 'fit', 40, 20_000));
    expect(spent.lands).toMatchObject({ K_s: 80_000, holds: 0.5, left: 0 });
  });
});
