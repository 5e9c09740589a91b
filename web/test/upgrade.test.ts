/** What a shop kept before methods had ids: plans, settings and logs of that time are read as today's, and mean the same. */
import { foldJob, type JobEvent, jobEventSchema } from '@orthos/core/job';
import { methodName } from '@orthos/core/rework';
import { sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import { beforeAll, describe, expect, it } from 'vitest';
import { planSettingsSchema } from '../src/lib/plan/stored.ts';
import { courseOf } from '../src/lib/run/work.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { jobView } from '../src/lib/server/jobs/jobView.ts';
import { createBoardModel } from '../src/lib/server/repositories/boardModels.ts';
import { eventsOf } from '../src/lib/server/repositories/jobEvents.ts';
import { planById } from '../src/lib/server/repositories/plans.ts';
import { createTicket } from '../src/lib/server/repositories/tickets.ts';
import before from './demoBefore.json' with { type: 'json' };
import { testDatabase } from './database.ts';

const { db } = testDatabase();
const json = (value: unknown) => sql`${JSON.stringify(value)}::jsonb`;

/** Ids of the jobs as they are here, by the numbers they had there. */
const jobs = new Map<number, string>();

beforeAll(async () => {
  for (const k of before.kit)
    await db().execute(
      sql`insert into kit_items (id, kind, name, doc) values (${k.id}, ${k.kind}, ${k.name}, ${json(k.doc)})`,
    );
  const boards = new Map<string, { modelId: string; versionId: string }>();
  for (const doc of [quillon, ternT2]) {
    const made = await createBoardModel(db(), { doc });
    const { rows } = await db().execute<{ hash: string }>(
      sql`select hash from board_versions where id = ${made.versionId}`,
    );
    boards.set(rows[0].hash, made);
  }
  for (const { ticket, board, plans, events } of before.jobs) {
    const known = boards.get(board.hash);
    if (!known) throw new Error('the demo has another board now');
    const { id } = await createTicket(db(), {
      kind: ticket.kind as 'repair',
      customer: 'counter',
      device: 'as it was',
      complaint: ticket.complaint,
      modelId: known.modelId,
      boardVersionId: known.versionId,
    });
    jobs.set(ticket.number, id);
    if (ticket.planSettings)
      await db().execute(sql`update tickets set plan_settings = ${json(ticket.planSettings)} where id = ${id}`);
    for (const p of plans)
      await db().execute(
        sql`insert into plans (id, ticket_id, target, input_hash, engine_version, kit, methods, results)
          values (${p.id}, ${id}, ${p.target}, ${p.inputHash}, ${p.engineVersion}, ${json(p.kit)}, ${json(p.methods)}, ${json(p.results)})`,
      );
    for (const e of events)
      await db().execute(
        sql`insert into job_events (id, ticket_id, at, actor, v, body)
          values (${e.id}, ${id}, ${new Date(e.at).toISOString()}, ${e.actor}, 1, ${json(e.body)})`,
      );
  }
});

const viewOf = (number: number) => jobView(db(), jobs.get(number) ?? '');

describe.each(before.jobs.map((j) => [j.ticket.number, j] as const))('job %i of a shop of that time', (number, j) => {
  it('has every result of its plan under the id of its method', async () => {
    for (const p of j.plans) {
      const read = await planById(db(), p.id);
      expect(read?.v).toBe(1);
      expect(read?.methods.map((m) => methodName(m.id))).toEqual(p.methods.map((m) => m.label));
      for (const [label, result] of Object.entries(p.results)) {
        const id = read?.methods.find((m) => methodName(m.id) === label)?.id ?? '';
        expect(read?.results[id]).toMatchObject(result);
      }
    }
  });
  it('has a plan that is as fresh as it was, though methods came that it does not know', async () => {
    const view = await viewOf(number);
    const stored = view?.plan && (await planById(db(), view.plan.id));
    expect(view?.freshness).toBe(j.freshness);
    expect(view?.inputs?.methods.length).toBeGreaterThan(stored?.methods.length ?? 0);
  });
  it('reads its log as it was written, methods by their ids', async () => {
    const log = await eventsOf(db(), jobs.get(number) ?? '');
    expect(log.map((e) => e.v)).toEqual(log.map(() => 1));
    const { attempts } = foldJob(log);
    expect(attempts.map((a) => (a.plan ? methodName(a.plan.methodId) : null))).toEqual(
      j.folded.map((a) => a.plan?.label ?? null),
    );
    expect(
      attempts.map((a) =>
        a.runs.map(({ id, op, method, marks, walked, ended = null }) => ({
          ...{ id, op, method, marks, ended },
          joints: walked.map((w) => [w.terminal, w.state]),
        })),
      ),
    ).toEqual(j.folded.map((a) => a.runs));
  });
});

describe('what goes on from there', () => {
  it('settings that were changed are the same settings, and are stored in today’s form', () => {
    const changed = before.jobs.find((j) => j.ticket.planSettings);
    const given = changed?.ticket.planSettings;
    const read = planSettingsSchema.parse(given);
    expect(read).toMatchObject({ v: 2, stationId: given?.stationId, ambient_C: given?.ambient_C });
    expect(read.methods.map((m) => methodName(m.id))).toEqual(given?.methods.map((m) => m.label));
    for (const [n, m] of (given?.methods ?? []).entries()) {
      const { kind, label, limit_s, ...settings } = m as Record<string, unknown>;
      expect(read.methods[n].phases).toHaveLength(1);
      expect(read.methods[n].phases[0]).toMatchObject({ giveUp_s: limit_s });
      expect(settings).toMatchObject(read.methods[n].phases[0].settings);
    }
    expect(planSettingsSchema.parse(read)).toEqual(read);
  });
  it('a run that was under way goes on by its instructions', async () => {
    const view = await viewOf(148);
    const run = view?.events.find((e) => e.body.type === 'run-begun');
    expect(run?.body).toMatchObject({ methodId: 'vacuum', method: 'Vacuum iron' });
    expect(view && courseOf(view, view.events, 'remove')?.list.some((i) => i.walk)).toBe(true);
  });
  it('an event of an older page is taken, and is the same event when it is sent again', () => {
    const old = { type: 'plan', planId: v7(), label: 'Low-melt + iron' };
    const read = jobEventSchema.parse(old);
    expect(read).toEqual({ type: 'plan', planId: old.planId, methodId: 'bead' });
    expect(jobEventSchema.parse(read)).toEqual(read);
    const event: JobEvent = { id: v7(), at: 1, actor: 'unsigned', v: 2, body: read };
    expect(foldJob([event]).attempts[0].plan?.methodId).toBe('bead');
    expect(jobEventSchema.safeParse({ ...old, label: 5 }).success).toBe(false);
  });
});
