/** Parts between two jobs: both logs say so or neither; what a part brings with it in words; which parts are one circuit. */
import { v7 } from 'uuid';
import { describe, expect, it } from 'vitest';
import { foldJob, type JobEventBody, type PartRecord } from '@orthos/core/job';
import { circuitRound } from '../src/lib/set/kinds.ts';
import { recordWords } from '../src/lib/donor/recordWords.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';
import { appendAll, EventRefused } from '../src/lib/server/jobs/door.ts';
import { bring, donorOf, leaveThere, nameDonor, shelveDonor } from '../src/lib/server/jobs/donors.ts';
import { createBoardModel } from '../src/lib/server/repositories/boardModels.ts';
import { eventsOf } from '../src/lib/server/repositories/jobEvents.ts';
import { createTicket, donorChoices } from '../src/lib/server/repositories/tickets.ts';
import { testDatabase } from './database.ts';

const { db } = testDatabase();
const event = (body: JobEventBody) => ({ id: v7(), at: 1_900_000_000_000, actor: 'unsigned', v: 1 as const, body });

async function jobs() {
  const { modelId, versionId: boardVersionId } = await createBoardModel(db(), { doc: quillon });
  const open = () =>
    createTicket(db(), {
      ...{ kind: 'transplant', customer: 'Marla Quay', device: 'Quillon', complaint: 'dead', modelId, boardVersionId },
    });
  return { here: (await open()).id, there: (await open()).id };
}
const types = async (id: string) => (await eventsOf(db(), id)).map((e) => e.body.type);
const setOf = async (id: string) => [...(foldJob(await eventsOf(db(), id)).set?.items.values() ?? [])];

describe('several jobs at once', () => {
  it('one refusal undoes all that came before it, in whichever log', async () => {
    const { here, there } = await jobs();
    const listed = (partId: string): JobEventBody => ({ type: 'set-parts', items: [{ partId, side: 'top' }] });
    const entries = [
      { ticketId: here, event: event(listed('u4')) },
      { ticketId: there, event: event(listed('u4')) },
      { ticketId: here, event: event(listed('nothing')) },
    ];
    await expect(appendAll(db(), entries)).rejects.toThrow(EventRefused);
    expect([await types(here), await types(there)]).toEqual([[], []]);
    await appendAll(db(), entries.slice(0, 2));
    expect([await types(here), await types(there)]).toEqual([['set-parts'], ['set-parts']]);
  });
  it('each is judged after those before it', async () => {
    const { here, there } = await jobs();
    const from = { ticketId: there, number: 7, partId: 'u4' };
    await appendAll(db(), [
      { ticketId: here, event: event({ type: 'set-parts', items: [{ partId: 'u4', side: 'top' }] }) },
      { ticketId: here, event: event({ type: 'set-at', partId: 'u4' }) },
      { ticketId: here, event: event({ type: 'set-parts', items: [{ partId: 'u4', side: 'top', from }] }) },
    ]);
    expect(await types(here)).toHaveLength(3);
    const gone = [{ ticketId: v7(), event: event({ type: 'set-at', partId: 'u4' }) }];
    await expect(appendAll(db(), gone)).rejects.toThrow('There is no such job.');
  });
});

describe('parts that come over', () => {
  it('are listed here and there, owed where the board is a good one, and stay when nobody has begun', async () => {
    const { here, there } = await jobs();
    await nameDonor(db(), here, there);
    await bring(db(), here, {
      from: there,
      items: [
        { partId: 'u4', from: 'u4' },
        { partId: 'q1', from: 'q1', place: true },
      ],
      owed: { until: '2031-05-06' },
    });
    expect(await setOf(here)).toMatchObject([
      { partId: 'u4', do: 'renew', from: { ticketId: there, partId: 'u4' } },
      { partId: 'q1', do: 'place' },
    ]);
    expect(await setOf(there)).toMatchObject([
      { partId: 'u4', do: 'lend', missing: true, to: { ticketId: here } },
      { partId: 'q1', do: 'lend' },
    ]);
    expect(foldJob(await eventsOf(db(), there)).intake.waits).toMatchObject({ for: 'part', until: '2031-05-06' });
    expect(await donorOf(db(), here)).toMatchObject({ id: there, sameModel: true, closed: false });
    await leaveThere(db(), here, ['u4']);
    expect((await setOf(here)).map((i) => i.partId)).toEqual(['q1']);
    expect((await setOf(there)).map((i) => i.partId)).toEqual(['q1']);
    await expect(leaveThere(db(), here, ['u4'])).rejects.toThrow('is not brought from another board');
  });
  it('a second debt stands beside the first; a job that waits for an answer goes on waiting for it', async () => {
    const { here, there } = await jobs();
    const lend = (partId: string) => bring(db(), here, { from: there, items: [{ partId, from: partId }], owed: {} });
    const waits = async () => foldJob(await eventsOf(db(), there)).intake.waits;
    await lend('u4');
    await lend('u2');
    expect((await waits())?.what).toMatch(/^U4, U2, lent to No\. \d+$/);
    await appendAll(db(), [{ ticketId: there, event: event({ type: 'waits', for: 'answer', what: 'the offer' }) }]);
    await lend('u5');
    expect(await waits()).toMatchObject({ for: 'answer', what: 'the offer' });
  });
  it('a board from the shelf gets a job, and others may be chosen, those of the kind first', async () => {
    const { here, there } = await jobs();
    const donor = await shelveDonor(db(), here, 'S-1');
    expect(await donorOf(db(), here)).toMatchObject({ id: donor, serial: 'S-1' });
    const choices = await donorChoices(db(), here);
    expect(
      choices
        .slice(0, 2)
        .map((c) => c.id)
        .toSorted(),
    ).toEqual([donor, there].toSorted());
    expect(choices.some((c) => c.id === here)).toBe(false);
    await nameDonor(db(), here, null);
    expect(await donorOf(db(), here)).toBeNull();
  });
});

describe('what a part brings with it', () => {
  const record: PartRecord = {
    ...{ name: 'U3', offAt: 1, times: 1, peak_C: 238, dose: 0.06, legs: ['Sn63Pb37'], legsClean: false, place: '' },
    ...{ tested: null, donor: 'not known', provenBy: [], holds: ['data', 'firmware'], copy: null, firmware: 'G 4' },
  };
  it('is said line by line: heat, legs, tests, what it holds', () => {
    const words = recordWords(record, 128, { temperature: 'C', length: 'mm' }, false);
    expect(words[0]).toBe('U3 of No. 128: nobody saw its board work');
    expect(words).toContain('Heat: hot once, its body up to 238 °C by the plan, 6 % of what it may take');
    expect(words).toContain('Legs: Sn63Pb37, not cleaned yet');
    expect(words).toContain('Holds data, firmware: no copy of its data; firmware G 4');
    expect(recordWords(record, 128, { temperature: 'C', length: 'mm' }, true)).toContain(
      'Legs: Sn63Pb37, cleaned one by one',
    );
    expect(recordWords({ ...record, times: 0 }, 1, { temperature: 'F', length: 'mm' }, false)).toContain(
      'No heat on record',
    );
  });
});

describe('the circuit round a part', () => {
  it('is what shares its small nets, never half of the board', () => {
    const names = circuitRound(quillon, 'u7').map((p) => p.ref);
    expect(names[0]).toBe('U7');
    expect(names).toContain('D3');
    expect(names.length).toBeLessThan(quillon.parts.length / 2);
    expect(circuitRound(quillon, 'nothing')).toEqual([]);
  });
});
