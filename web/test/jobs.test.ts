import { type JobEvent, type JobEventBody, type JobType, RunningJob } from '@orthos/core/job';
import { PACKAGES } from '@orthos/core/packages';
import { DEFAULT_STATION, methodsFor } from '@orthos/core/rework';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { formIssues } from '../src/lib/server/forms.ts';
import { summarise } from '../src/lib/jobs/jobSummary.ts';
import { shopSettingsSchema } from '../src/lib/settings/shopSettings.ts';
import { settingLine } from '../src/lib/plan/settingLine.ts';
import { fieldsOf } from '../src/lib/plan/settings.ts';

let n = 0;
const log = (bodies: JobEventBody[]): JobEvent[] =>
  bodies.map((body) => ({ id: `e${++n}`, at: n, actor: 'unsigned', v: 1, body }));
const suspect: JobEventBody = { type: 'suspect', partId: 'u4', why: 'low' };
const plan: JobEventBody = { type: 'plan', planId: 'p', methodId: 'air-slow' };
const reading: JobEventBody = {
  type: 'reading',
  place: { x_mm: 0, y_mm: 0, side: 'top' },
  quantity: 'ohm',
  value: 1,
  good: null,
  powered: false,
};

const RUN = '019ac000-0000-4000-8000-00000000000a';
const begun = (op: 'remove' | 'fit'): JobEventBody => ({
  type: 'run-begun',
  runId: RUN,
  op,
  methodId: 'air-slow',
  guide: null,
  offline: false,
  bench: false,
});

describe('a job in the list', () => {
  it.each<[string, JobEventBody[], JobType, string, string, number]>([
    ['new', [], 'repair', 'intake', '', 1],
    ['measured', [reading, reading], 'repair', 'diagnose', '2 readings', 1],
    ['express', [], 'express', 'diagnose', '', 1],
    ['suspected', [suspect], 'repair', 'plan', 'U4', 1],
    ['planned', [suspect, plan], 'repair', 'protect', 'U4', 1],
    [
      'off',
      [suspect, plan, begun('remove'), { type: 'mark', runId: RUN, instruction: 'lift', what: 'lifted' }],
      'repair',
      'prepare',
      'U4',
      1,
    ],
    [
      'fitted',
      [suspect, begun('fit'), { type: 'run-ended', runId: RUN, outcome: 'finished' }],
      'fit-only',
      'verify',
      'U4',
      1,
    ],
    ['second try', [suspect, plan, { type: 'new-attempt', why: 'no' }], 'repair', 'diagnose', '', 2],
    ['released', [suspect, { type: 'released', outcome: 'repaired' }], 'repair', 'release', 'repaired', 1],
  ])('%s', (_, bodies, kind, step, about, attempt) => {
    expect(summarise(new RunningJob(log(bodies)), { kind })).toMatchObject({ step, about, attempt });
  });
});

describe('what a job waits for', () => {
  const offer: JobEventBody = {
    type: 'offer',
    currency: 'EUR',
    tiers: [{ label: 'the one part', minutes: 60, parts_minor: 0, attempts: 1, price_minor: 6000 }],
    worth_minor: null,
  };
  const of = (bodies: JobEventBody[], waitsFor = '') =>
    summarise(new RunningJob(log(bodies)), { kind: 'repair', waitsFor }, () => 'U4');
  it('hands, an answer, a part, or to be fetched', () => {
    expect(of([suspect])).toMatchObject({ block: 'hands', next: 'plan how U4 comes off', minutes: 45 });
    expect(of([offer])).toMatchObject({ block: 'answer', next: 'ask for an answer to the offer', minutes: 60 });
    expect(of([offer, { type: 'offer-taken', tier: 'the one part' }, suspect])).toMatchObject({ block: 'hands' });
    expect(of([suspect], 'donor board')).toMatchObject({ block: 'part', next: 'waits for donor board' });
    const done: JobEventBody = { type: 'released', outcome: 'repaired' };
    expect(of([suspect, done])).toMatchObject({ block: 'pick-up', next: 'hand it over', minutes: 0 });
    expect(of([suspect, done, { type: 'handed-over' }]).next).toBe('handed over');
  });
});

describe('what somebody says it waits for', () => {
  const of = (...bodies: JobEventBody[]) =>
    summarise(new RunningJob(log(bodies)), { kind: 'refurbish' }, (id) => id.toUpperCase());
  it('comes with its date, before all that is only guessed', () => {
    const part: JobEventBody = { type: 'waits', for: 'part', what: 'two cans', until: '2026-12-09' };
    expect(of(part)).toMatchObject({ block: 'part', next: 'waits for two cans, 9 Dec' });
    expect(of(part, { type: 'waits', for: null }).block).toBe('hands');
    expect(of({ type: 'waits', for: 'answer' })).toMatchObject({
      block: 'answer',
      next: 'ask for an answer to the offer',
    });
    expect(of({ type: 'waits', for: 'pick-up' })).toMatchObject({ block: 'pick-up', next: 'to be fetched as it is' });
  });
  it('a set waits for its parts once nothing else of it can be done', () => {
    const item = (partId: string, missing?: true) => ({ partId, side: 'top' as const, do: 'renew' as const, missing });
    const run = (n: number, op: 'remove' | 'prepare' | 'fit', partId: string): JobEventBody[] => {
      const runId = `019ac000-0000-4000-8000-00000000010${n}`;
      return [
        { type: 'set-at', partId },
        { type: 'run-begun', runId, op, methodId: 'tweezers', partId, guide: null, offline: true, bench: false },
        { type: 'run-ended', runId, outcome: 'finished' },
      ];
    };
    const listed: JobEventBody = { type: 'set-parts', items: [item('c1'), item('c2', true)] };
    const ready = [
      ...run(1, 'remove', 'c1'),
      ...run(2, 'remove', 'c2'),
      ...run(3, 'prepare', 'c1'),
      ...run(4, 'prepare', 'c2'),
    ];
    expect(of(listed, ...ready).block).toBe('hands');
    // one alone has no order
    expect(of(listed)).toMatchObject({ step: 'plan', about: '2 parts', next: 'put 2 parts in order' });
    expect(of({ type: 'set-parts', items: [item('c1')] })).toMatchObject({
      about: 'C1',
      next: 'plan how C1 comes off',
    });
    expect(of(listed, ...ready, ...run(5, 'fit', 'c1'))).toMatchObject({ block: 'part', next: 'waits for C2' });
  });
});

describe('method settings', () => {
  const units = { temperature: 'C', length: 'mm' } as const;
  it('have a field for every number a technician sets, within what the model accepts', () => {
    for (const phase of methodsFor('SOIC-16').flatMap((m) => m.method.phases))
      for (const field of fieldsOf(phase).usual.filter((f) => !f.optional && !f.choices)) {
        const all = { ...phase.settings, giveUp_s: phase.giveUp_s } as unknown as Record<string, number>;
        const [min, max] = field.range ?? [NaN, NaN];
        expect(all[field.key], `${phase.kind} ${field.key}`).toBeGreaterThanOrEqual(min);
        expect(all[field.key]).toBeLessThanOrEqual(max);
      }
  });
  it('are said in one line, in the shop’s units', () => {
    const all = methodsFor('SOIC-16').map((m) => m.method);
    const [slow] = all;
    const iron = all.find((m) => m.id === 'bead') ?? slow;
    expect(settingLine(slow, units)).toBe('390 °C, 45 L/min, 14 mm');
    expect(settingLine(slow, { ...units, temperature: 'F' })).toMatch(/^734 °F/);
    expect(settingLine(iron, units)).toBe('320 °C, 1.2 mm³/mm of alloy; then 320 °C, 25 s');
  });
  it('exist for every package with joints', () => {
    for (const p of PACKAGES.values()) {
      if (p.terminals.length === 0) continue;
      const choices = methodsFor(p.id);
      expect(choices.length).toBeGreaterThanOrEqual(3);
      expect(choices.some((c) => !c.unfit)).toBe(true);
    }
    expect(DEFAULT_STATION.calibrated).toBe(false);
  });
});

describe('forms', () => {
  it('give the first sentence per field', () => {
    const schema = z.object({ a: z.string().min(3, 'three letters').max(1, 'one letter'), b: z.number('a number') });
    const parsed = schema.safeParse({ a: 'xx', b: 'y' });
    expect(parsed.error && formIssues(parsed.error)).toEqual({ a: 'three letters', b: 'a number' });
  });
  it('settings want a real time zone and known units', () => {
    const ok = { v: 1, name: 'Shop', temperature: 'C', length: 'mm', timeZone: 'Europe/Lisbon' };
    expect(shopSettingsSchema.safeParse(ok).success).toBe(true);
    for (const bad of [{ timeZone: 'Moon/Sea' }, { temperature: 'K' }, { name: '  ' }, { length: 'ell' }])
      expect(shopSettingsSchema.safeParse({ ...ok, ...bad }).success).toBe(false);
  });
});
