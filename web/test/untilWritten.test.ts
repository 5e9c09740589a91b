/** What was read is read again when something was written, and never older than when it was asked for. */
import { describe, expect, it } from 'vitest';
import { UntilWritten } from '../src/lib/server/db/untilWritten.ts';
import { countTickets } from '../src/lib/server/repositories/tickets.ts';
import { suggestJobs, suggestionsOf } from '../src/lib/server/repositories/suggestions.ts';
import { testDatabase } from './database.ts';

const { db } = testDatabase();
const suggestion = { id: '019b0000-0000-7000-8000-000000000000', title: 'Tern', shows: 'a first job' };

describe('what was read of the database', () => {
  it('is read again as soon as something was written, also by who waits for an answer begun before', async () => {
    const known = new UntilWritten<number>(1);
    const ask = () => known.read(db(), 'how many', async () => (await suggestionsOf(db())).length);
    expect(await ask()).toBe(0);
    await suggestJobs(db(), [suggestion]);
    expect(await ask()).toBe(1);

    // an answer that is still on its way was begun before this was written
    let go = () => {};
    const late = known.read(db(), 'late', () => new Promise((done) => (go = () => done(0))));
    await new Promise((done) => setTimeout(done, 50));
    await db().execute('create table written (n int)');
    expect(await known.read(db(), 'late', () => Promise.resolve(1))).toBe(1);
    go();
    expect(await late).toBe(0);
  });

  it('is read once while nothing is written, and once for all who ask meanwhile', async () => {
    const known = new UntilWritten<number>(2);
    let read = 0;
    // here nothing that others write is to be seen
    await db().transaction(
      async (tx) => {
        const ask = (question: string) =>
          known.read(tx, question, async () => {
            read++;
            return countTickets(tx);
          });
        await ask('a');
        await ask('b');
        await ask('a');
        expect(read).toBe(2);
        // what was asked longest ago goes first
        await ask('c');
        await ask('b');
        expect(read).toBe(4);

        let arrive: (n: number) => void = () => {};
        const slow = known.read(tx, 'slow', () => new Promise((done) => (arrive = done)));
        await ask('b');
        const joined = known.read(tx, 'slow', () => Promise.reject(new Error('asked twice')));
        await ask('b');
        arrive(7);
        expect(await Promise.all([slow, joined])).toEqual([7, 7]);
      },
      { isolationLevel: 'repeatable read' },
    );
  });

  it('is asked for again where it failed', async () => {
    const known = new UntilWritten<number>(1);
    await db().transaction(
      async (tx) => {
        await expect(known.read(tx, 'a', () => Promise.reject(new Error('away')))).rejects.toThrow('away');
        expect(await known.read(tx, 'a', () => Promise.resolve(1))).toBe(1);
      },
      { isolationLevel: 'repeatable read' },
    );
  });
});
