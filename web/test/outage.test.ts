/** The database is killed under a running application: health says so within its second, and all goes on by itself when it is back. */
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { cluster, throwAwayRoot } from '../../scripts/postgres.mjs';
import { connect, isAway, migrateDatabase, reached } from '../src/lib/server/db/connect.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { appendJudged } from '../src/lib/server/jobs/door.ts';
import { News } from '../src/lib/server/news.ts';
import { createBoardModel } from '../src/lib/server/repositories/boardModels.ts';
import { eventsOf } from '../src/lib/server/repositories/jobEvents.ts';
import { createTicket } from '../src/lib/server/repositories/tickets.ts';

const root = throwAwayRoot();
const own = cluster(root);
beforeAll(() => own.start(), 120_000);
afterAll(() => {
  own.stop();
  rmSync(root, { recursive: true, force: true });
});

it('goes on with the same pool when a killed database is started again, and hears its news', async () => {
  own.createDatabase('shop');
  await migrateDatabase(own.url('shop'), 'drizzle');
  const { db, close } = connect(own.url('shop'));
  const news = new News(own.url('shop'));
  await news.begun;
  const { modelId, versionId } = await createBoardModel(db, { doc: ternT2 });
  const { id } = await createTicket(db, {
    ...{
      kind: 'repair',
      customer: 'Marla Quay',
      device: 'Tern',
      complaint: 'dead',
      modelId,
      boardVersionId: versionId,
    },
  });
  const write = (text: string) => {
    const event = { id: v7(), at: 1, actor: 'unsigned', v: 1 as const, body: { type: 'observation' as const, text } };
    return appendJudged(db, id, event, new Date());
  };
  const heard: string[] = [];
  news.of(id, (what) => heard.push(what));
  await write('before');
  expect(await reached(db)).toBe(true);
  const address = own.address();

  for (let round = 1; round <= 2; round++) {
    // in the middle of something: a process that does not expect that would end here
    const asleep = db.transaction((tx) => tx.execute(sql`select pg_sleep(30)`)).catch((e: unknown) => e);
    await new Promise((done) => setTimeout(done, 200));
    process.kill(Number(readFileSync(join(root, 'pg/postmaster.pid'), 'utf8').split('\n')[0]), 'SIGKILL');
    const asked = performance.now();
    while (own.alive()) await new Promise((done) => setTimeout(done, 10));
    expect(isAway(await asleep)).toBe(true);
    expect(await reached(db)).toBe(false);
    expect(performance.now() - asked).toBeLessThan(5000);
    const why: unknown = await write('lost').catch((e: unknown) => e);
    expect(isAway(why)).toBe(true);
    heard.length = 0;
    await own.start();
    // at the same address, so that nobody has to be told
    expect(own.address()).toBe(address);
    await expect.poll(() => reached(db), { timeout: 10_000 }).toBe(true);
    await write(`after ${round}`);
    // the listener says that something may have been missed, or has heard it
    await expect.poll(() => heard.length, { timeout: 10_000 }).toBeGreaterThan(0);
  }
  const texts = (await eventsOf(db, id)).map((e) => (e.body.type === 'observation' ? e.body.text : ''));
  expect(texts).toEqual(['before', 'after 1', 'after 2']);
  await news.close();
  await close();
}, 120_000);
