/** What is written to a job is heard, whichever process wrote it, and after the connection was lost. */
import { v7 } from 'uuid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { News } from '../src/lib/server/news.ts';
import { createBoardModel } from '../src/lib/server/repositories/boardModels.ts';
import { appendEvents } from '../src/lib/server/repositories/jobEvents.ts';
import { addPhoto } from '../src/lib/server/repositories/photos.ts';
import { closeTicket, createTicket } from '../src/lib/server/repositories/tickets.ts';
import { admin, testDatabase } from './database.ts';

const { db, url } = testDatabase();
let news: News;
beforeAll(async () => {
  news = new News(url());
  await news.begun;
});
afterAll(() => news.close());

const until = async (holds: () => boolean) => {
  for (let n = 0; n < 100 && !holds(); n++) await new Promise((done) => setTimeout(done, 50));
  expect(holds()).toBe(true);
};
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
  return id;
}
const write = async (ticketId: string) => {
  const id = v7();
  await appendEvents(db(), ticketId, [
    { id, at: 0, actor: 'unsigned', v: 1, body: { type: 'observation', text: 'x' } },
  ]);
  return id;
};

describe('news of a job', () => {
  it('tells entries, photos and changes of the ticket by what they are, to who asked for that job alone', async () => {
    const [mine, other] = [await job(), await job()];
    const heard: string[] = [];
    const stop = news.of(mine, (what) => heard.push(what));
    const first = await write(mine);
    await until(() => heard.includes(first));
    heard.length = 0;
    const photo = { id: v7(), ticketId: mine, width: 1, height: 1 };
    await addPhoto(db(), { ...photo, image: Buffer.alloc(1), thumbnail: Buffer.alloc(1) });
    await write(other);
    await closeTicket(db(), mine, new Date());
    await until(() => heard.length >= 2);
    expect(heard).toEqual([photo.id, '2']);
    stop();
    await write(mine);
    await new Promise((done) => setTimeout(done, 200));
    expect(heard).toHaveLength(2);
  });
  it('listens again after the connection was lost, and says that something may have been missed', async () => {
    const id = await job();
    const heard: string[] = [];
    const stop = news.of(id, (what) => heard.push(what));
    const name = url().split('/').at(-1);
    await admin(
      `select pg_terminate_backend(pid) from pg_stat_activity where datname = '${name}' and query like 'listen%'`,
    );
    await until(() => heard.includes(''));
    const after = await write(id);
    await until(() => heard.includes(after));
    stop();
  });
});
