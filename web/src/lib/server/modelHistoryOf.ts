/** Earlier jobs on the same kind of board, from their logs. */
import { modelHistory, type ModelHistory, RunningJob } from '@orthos/core/job';
import { and, desc, eq, ne } from 'drizzle-orm';
import type { Database } from './db/connect.ts';
import { boards, tickets } from './db/schema.ts';
import { logsOf } from './jobs/logs.ts';

/** So many jobs, the newest: what is older says little about today's boards. */
const MOST = 200;

export async function modelHistoryOf(db: Database, modelId: string, butTicketId: string): Promise<ModelHistory> {
  const rows = await db
    .select({ id: tickets.id, number: tickets.number, complaint: tickets.complaint })
    .from(tickets)
    .innerJoin(boards, eq(boards.id, tickets.boardId))
    .where(and(eq(boards.modelId, modelId), ne(tickets.id, butTicketId)))
    .orderBy(desc(tickets.number))
    .limit(MOST);
  const logs = await logsOf(
    db,
    rows.map((r) => r.id),
  );
  return modelHistory(rows.map((r) => ({ ...r, log: logs.get(r.id) ?? new RunningJob() })));
}
