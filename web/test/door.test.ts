/** The one door: what is written to a job at once by several, twice, or by a process that died on the way. */
import { v7 } from 'uuid';
import { describe, expect, it } from 'vitest';
import { foldJob, type JobEventBody } from '@orthos/core/job';
import { connect } from '../src/lib/server/db/connect.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { appendJudged } from '../src/lib/server/jobs/door.ts';
import { logOf } from '../src/lib/server/jobs/logs.ts';
import { standingOf } from '../src/lib/server/jobs/standing.ts';
import { createBoardModel } from '../src/lib/server/repositories/boardModels.ts';
import { appendEvents, eventsOf } from '../src/lib/server/repositories/jobEvents.ts';
import { createTicket, ticketById } from '../src/lib/server/repositories/tickets.ts';
import { testDatabase } from './database.ts';

const { db, url } = testDatabase();
const NOW = new Date('2031-05-03T10:00:00Z');
const event = (body: JobEventBody, id = v7(), at = NOW.getTime()) => ({
  id,
  at,
  actor: 'unsigned',
  v: 1 as const,
  body,
});
const run = (op: 'remove' | 'fit', more: object = {}): JobEventBody =>
  ({
    ...{ type: 'run-begun', runId: v7(), op, methodId: 'air-slow', guide: null, offline: false, bench: false },
    ...more,
  }) as JobEventBody;
const GONE: JobEventBody[] = ['battery', 'cell'].map((sourceId) => ({ type: 'power-gone', sourceId, how: 'pulled' }));

async function job() {
  const { modelId, versionId } = await createBoardModel(db(), { doc: ternT2 });
  const { id } = await createTicket(db(), {
    ...{
      kind: 'repair',
      customer: 'Marla Quay',
      device: 'Tern',
      complaint: 'dead',
      modelId,
      boardVersionId: versionId,
    },
  });
  const write = (body: JobEventBody, key?: string) => appendJudged(db(), id, event(body, key), NOW);
  const types = async () => (await eventsOf(db(), id)).map((e) => e.body.type);
  return { id, write, types };
}
/** How many of these were taken. */
const taken = async (tries: Promise<unknown>[]) =>
  (await Promise.allSettled(tries)).filter((t) => t.status === 'fulfilled').length;

describe('several at once', () => {
  it('a run is not begun while power is connected, whichever comes first', async () => {
    for (let n = 0; n < 10; n++) {
      const { write, id } = await job();
      await write({ type: 'suspect', partId: 'c7', why: 'reads low' });
      for (const gone of GONE) await write(gone);
      await Promise.allSettled([write(run('remove')), write({ type: 'power-connected', sourceId: 'battery' })]);
      const log = await eventsOf(db(), id);
      const at = (type: string) => log.findIndex((e) => e.body.type === type);
      if (at('run-begun') >= 0 && at('power-connected') >= 0)
        expect(at('run-begun')).toBeLessThan(at('power-connected'));
    }
  });
  it('of two runs, two releases and two ends one is taken', async () => {
    const { write, types } = await job();
    await write({ type: 'suspect', partId: 'c7', why: 'reads low' });
    for (const gone of GONE) await write(gone);
    expect(await taken([write(run('remove')), write(run('remove'))])).toBe(1);
    const release: JobEventBody = { type: 'released', outcome: 'repaired', note: '' } as JobEventBody;
    expect(await taken([write(release), write(release), write(release)])).toBe(1);
    expect((await types()).filter((t) => t === 'released')).toHaveLength(1);
  });
  it('fifty windows on two servers: each event once, one order, what each server knows is the log', async () => {
    const { id, types } = await job();
    const other = connect(url());
    try {
      const bodies = Array.from({ length: 50 }, (_, n) => event({ type: 'observation', text: `seen ${n}` }));
      const sent = bodies.flatMap((e, n) => [db(), other.db].map((on) => appendJudged(n % 2 ? on : db(), id, e, NOW)));
      expect(await taken(sent)).toBe(100);
      const log = await eventsOf(db(), id);
      expect(log).toHaveLength(50);
      expect(new Set(log.map((e) => e.id)).size).toBe(50);
      expect(await types()).toHaveLength(50);
      expect((await logOf(db(), id)).events).toEqual(log);
      expect((await logOf(db(), id)).state).toEqual(foldJob(log));
    } finally {
      await other.close();
    }
  });
  it('new jobs of one new customer know each other’s', async () => {
    const { modelId, versionId } = await createBoardModel(db(), { doc: ternT2 });
    const made = await Promise.all(
      Array.from({ length: 6 }, () =>
        createTicket(db(), {
          ...{ kind: 'repair', customer: 'Tove Arne', device: 'Tern', complaint: 'dead', modelId },
          boardVersionId: versionId,
        }),
      ),
    );
    expect(new Set(made.map((t) => t.customerId)).size).toBe(1);
  });
});

describe('one after the other', () => {
  it('the same again changes nothing; another content under its id, or its id on another job, is refused', async () => {
    const { write, types } = await job();
    const other = await job();
    const key = v7();
    await write({ type: 'observation', text: 'brown' }, key);
    await write({ type: 'observation', text: 'brown' }, key);
    await expect(write({ type: 'observation', text: 'green' }, key)).rejects.toThrow('another content');
    await expect(other.write({ type: 'observation', text: 'brown' }, key)).rejects.toThrow('another job');
    expect(await types()).toEqual(['observation']);
    expect(await other.types()).toEqual([]);
  });
  it('a clock that is wrong by years dates its marks, and orders nothing', async () => {
    const { id, write } = await job();
    await write({ type: 'suspect', partId: 'c7', why: 'reads low' });
    for (const gone of GONE) await write(gone);
    const runId = v7();
    await write({ ...run('remove'), runId } as JobEventBody);
    const years = 5 * 365 * 86_400_000;
    for (const off of [-years, 301_000, years])
      await appendJudged(
        db(),
        id,
        event({ type: 'mark', runId, instruction: 'flux', what: 'done' } as JobEventBody, v7(), NOW.getTime() + off),
        NOW,
      );
    const marks = (await eventsOf(db(), id)).slice(-3);
    expect(marks.map((e) => e.at - NOW.getTime())).toEqual([-years, 301_000, years]);
  });
  it('release and closing are one: a job is never released and open', async () => {
    const { id, write } = await job();
    await write({ type: 'released', outcome: 'repaired', note: '' } as JobEventBody);
    expect((await ticketById(db(), id))?.ticket.closedAt).toEqual(NOW);
    await expect(write({ type: 'observation', text: 'late' })).rejects.toThrow('released');
    await write({ type: 'handed-over' } as JobEventBody);
  });
  it('what another writer added to the log is seen', async () => {
    const { id, write } = await job();
    await write({ type: 'observation', text: 'one' });
    await appendEvents(db(), id, [event({ type: 'suspect', partId: 'c7', why: 'reads low' })]);
    const found = await ticketById(db(), id);
    if (!found) throw new Error('the job is gone');
    const { state } = await standingOf(db(), found);
    expect(state).toEqual(foldJob(await eventsOf(db(), id)));
    expect(state.attempts[0].suspect?.partId).toBe('c7');
  });
  it('is judged by all of the log, also where this process knows less of it', async () => {
    const { id, write } = await job();
    await write({ type: 'suspect', partId: 'c7', why: 'reads low' });
    // another process shows power gone: what is known here would refuse to begin
    await appendEvents(
      db(),
      id,
      GONE.map((body) => event(body)),
    );
    await write(run('remove'));
    // another process ends that run and connects power: what is known here would let it begin
    const begun = (await eventsOf(db(), id)).at(-1)?.body as { runId: string };
    await appendEvents(db(), id, [
      event({ type: 'run-ended', runId: begun.runId, outcome: 'given up' } as JobEventBody),
      event({ type: 'power-connected', sourceId: 'battery' } as JobEventBody),
    ]);
    await expect(write(run('remove'))).rejects.toThrow(/[Pp]ower/);
    const log = await eventsOf(db(), id);
    expect((await logOf(db(), id)).events).toEqual(log);
  });
});
