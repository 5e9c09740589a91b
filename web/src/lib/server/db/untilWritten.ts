/** What is read of the database, read again only when something in it was written. */
import { sql } from 'drizzle-orm';
import { Kept } from '../kept.ts';
import type { Database } from './connect.ts';

interface Read<T> {
  /** What was to be seen when it was begun to be read. */
  seen: string;
  value: Promise<T>;
}

/** Two moments with the same have the same rows to be seen: it changes with every transaction that has written something and ends. */
async function toBeSeen(db: Database): Promise<string> {
  const { rows } = await db.execute<{ seen: string }>(sql`select pg_current_snapshot()::text as seen`);
  return rows[0].seen;
}

/** Answers by their questions, those of `most` questions. Who asks while an answer is on its way waits for that one. Not to be changed by who gets them. */
export class UntilWritten<T> {
  private readonly known = new WeakMap<Database, Kept<Read<T>>>();
  private readonly most: number;
  constructor(most: number) {
    this.most = most;
  }

  async read(db: Database, question: string, answer: () => Promise<T>): Promise<T> {
    const mine = this.known.get(db) ?? new Kept<Read<T>>(this.most);
    this.known.set(db, mine);
    const seen = await toBeSeen(db);
    const known = mine.get(question);
    // it was begun after `seen` was: nothing that was written before is missing
    if (known?.seen === seen) return known.value;
    const value = answer();
    mine.set(question, { seen, value });
    // what failed is asked again
    value.catch(() => mine.get(question)?.value === value && mine.delete(question));
    return value;
  }
}
