import { COMPLAINT, type JobEvent, type JobEventBody } from '@orthos/core/job';
import jpeg from 'jpeg-js';
import { describe, expect, it } from 'vitest';
import { recordOf } from '../src/lib/release/jobRecord.ts';
import { PhotoError, readPhoto } from '../src/lib/server/readPhoto.ts';
import { printable, recordPdf } from '../src/lib/server/recordPdf.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';
import { viewOf } from './view.ts';

const RUN = '019ac000-0000-4000-8000-00000000000a';
const log = (bodies: JobEventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({ id: `e${i}`, at: Date.UTC(2026, 2, 3) + i * 60_000, actor: 'unsigned', v: 1, body }));
const suspect = (partId: string): JobEventBody => ({ type: 'suspect', partId, why: `${partId} reads low` });
const begun = (op: 'remove' | 'prepare'): JobEventBody => ({
  type: 'run-begun',
  runId: RUN,
  op,
  methodId: 'air-slow',
  guide: null,
  offline: true,
  bench: false,
});
const day = (ms: number) => new Date(ms).toISOString().slice(0, 10);
const report = (bodies: JobEventBody[]) => recordOf(viewOf(quillon, 'q1', log(bodies)), day);

describe('the record', () => {
  it('keeps every attempt, overrides, slips and what was not done', () => {
    const r = report([
      suspect('u7'),
      { type: 'new-attempt', why: 'was not it' },
      suspect('q1'),
      { type: 'override', gate: 'power-gone', why: 'unplugged at the wall' },
      begun('remove'),
      { type: 'slip', kind: 'slipped', runId: RUN },
      { type: 'slip-checked', slipId: 'e5', ok: true, result: 'mask only' },
      { type: 'slip', kind: 'bumped', runId: RUN },
      { type: 'run-ended', runId: RUN, outcome: 'given up' },
    ]);
    expect(r.attempts.map((a) => a.title)).toEqual(['Attempt 1: U7', 'Attempt 2: Q1']);
    expect(r.attempts[1].runs[0].notes).toEqual(['given up', 'begun while the server was away']);
    expect(r.overrides).toEqual(['Power gone: unplugged at the wall']);
    expect(r.slips).toEqual(['Slipped: mask only', 'Bumped a neighbour: not looked at']);
    expect(r.notDone.some((t) => t.startsWith('Short check before power'))).toBe(true);
    expect(r.outcome).toBe('not released');
  });
  it('tells a set in lines: what came to the same, what is still open; none of it is an attempt at a suspect', () => {
    const run = (n: number, op: 'remove' | 'fit', partId: string): JobEventBody[] => {
      const runId = `019ac000-0000-4000-8000-00000000020${n}`;
      return [
        { type: 'set-at', partId },
        { type: 'run-begun', runId, op, methodId: 'tweezers', partId, guide: null, offline: true, bench: false },
        { type: 'run-ended', runId, outcome: 'finished' },
      ];
    };
    const of = (partId: string, more: object = {}) => ({ partId, side: 'top' as const, ...more });
    const { summary, attempts } = report([
      {
        type: 'set-parts',
        items: [of('q1', { do: 'salvage' }), of('u4', { do: 'salvage' }), of('u7', { missing: true })],
      },
      ...run(1, 'remove', 'q1'),
      ...run(2, 'remove', 'u4'),
    ]);
    expect(summary.done).toContain('2 parts salvaged: Q1, U4');
    expect(summary.watch).toContain('of the set still open: U7 (part not here)');
    expect(summary.wrong).toEqual([]);
    expect(attempts.map((a) => a.title)).toEqual(['Q1', 'U4']);
  });
  it('says lead when lands were cleaned with it, unless the release says otherwise', () => {
    const cleaned: JobEventBody[] = [
      suspect('q1'),
      begun('prepare'),
      { type: 'mark', runId: RUN, instruction: 'flood-1', what: 'done' },
    ];
    expect(report(cleaned).leadUsed).toBe(true);
    expect(report([...cleaned, { type: 'released', outcome: 'repaired', lead: false }]).leadUsed).toBe(false);
    expect(report([suspect('q1')]).leadUsed).toBe(false);
  });
  it('says lead when an alloy with lead was laid, whatever the lands were cleaned with', () => {
    const laid = (alloy?: Record<string, number>): JobEventBody[] => {
      const settings = {
        set_C: 320,
        tip_mm: 3,
        contact: 1,
        power_W: 70,
        bead_mm3_mm: 0.5,
        ...(alloy ? { alloy } : {}),
      };
      const phase = { id: 'alloy', kind: 'alloy' as const, settings, until: { told: true as const }, giveUp_s: 300 };
      return [
        suspect('u7'),
        { ...begun('remove'), phases: [phase] } as JobEventBody,
        { type: 'mark', runId: RUN, instruction: 'lay-1', what: 'done', phase: 'alloy' },
      ];
    };
    expect(report(laid()).leadUsed).toBe(true);
    expect(report(laid({ Bi: 58, Sn: 42 })).leadUsed).toBe(false);
  });
  it('counts the minutes under the hands until somebody says better', () => {
    const worked: JobEventBody[] = [
      suspect('q1'),
      begun('remove'),
      { type: 'mark', runId: RUN, instruction: 'flux', what: 'done' },
      { type: 'run-ended', runId: RUN, outcome: 'finished' },
    ];
    expect(new Map(report(worked).facts).get('Bench time')).toBe('3 min');
    const said = report([...worked, { type: 'released', outcome: 'repaired', minutes: 25, note: 'tab last' }]);
    expect(new Map(said.facts).get('Bench time')).toBe('25 min');
    expect(said.outcome).toBe('repaired: tab last');
  });
  it('says what was simulated, what came off and went on, what was swapped, and that the complaint is gone', () => {
    const reading: JobEventBody = {
      type: 'reading',
      place: { x_mm: 15, y_mm: 50.5, side: 'top', partId: 'q1', terminal: '3' },
      quantity: 'ohm',
      value: 0.3,
      good: 8300,
      powered: false,
      probe: { type: 'ohm', red: 'OUT', black: '12V', state: null, meter: 'Bench meter', simulated: true },
    };
    const r = report([
      reading,
      { type: 'swapped', partId: 'u7', followed: false },
      suspect('q1'),
      begun('remove'),
      { type: 'run-ended', runId: RUN, outcome: 'finished' },
      { type: 'off-board-test', result: 'bad', recovered: true },
      { type: 'new-part-measured', ok: true, note: 'D to S open', origin: 'donor board', from: 'scrap 7' },
      { type: 'function', name: COMPLAINT, when: 'after', state: 'works' },
      { type: 'functions-listed', kind: 'seat', names: ['forwards'] },
    ]);
    expect(r.attempts[0].readings).toEqual(['Q1.3 0.3 Ω (simulated, good 8.3 kΩ)']);
    expect(r.attempts[0].facts).toEqual([
      ['Off the board', 'bad, the line came back without it'],
      ['Put on', 'from a donor board, scrap 7, measured good: D to S open'],
    ]);
    expect(r.swaps).toEqual(['U7 changed for a good board’s: the fault stayed']);
    expect(new Map(r.facts).get('Complaint')).toBe('gone');
    // the complaint is no row of its own, a function nobody tried is none either
    expect(r.functions).toEqual([]);
  });
  it('has no empty sections', () => {
    const r = report([]);
    expect([r.attempts, r.shortCheck, r.swaps, r.functions, r.damage]).toEqual([[], '', [], [], []]);
    expect(new Map(r.facts).has('Complaint')).toBe(false);
  });
  it('becomes a PDF of as many pages as it needs, with a photo in it', async () => {
    const photo = jpeg.encode({ width: 64, height: 48, data: Buffer.alloc(64 * 48 * 4, 120) }, 80).data;
    const small = await recordPdf('Saltmarsh Board Repair', report([suspect('q1')]), []);
    expect(small.subarray(0, 5).toString()).toBe('%PDF-');
    // one for the owner, one for the next technician
    expect(small.toString('latin1').match(/\/Type \/Page\b/g)).toHaveLength(2);
    const many = report([suspect('q1')]);
    many.slips = Array.from({ length: 120 }, (_, i) => `slip ${i}: 4.7 kΩ ✓`);
    const large = await recordPdf('Saltmarsh Board Repair', many, [[photo, undefined]]);
    expect(large.toString('latin1').match(/\/Type \/Page\b/g)?.length).toBeGreaterThan(3);
    expect(large.toString('latin1')).toContain('/DCTDecode');
  });
  it('prints ohms, degrees and names as they are written, without the marks beside words', () => {
    expect(printable('✓ 2.4 kΩ −3 µF 20 °C Łukasz Őri Søren\u0007')).toBe('2.4 kΩ −3 µF 20 °C Łukasz Őri Søren');
  });
  it('tells the owner in a minute what was wrong, done, measured, and what to watch', () => {
    const reading = (value: number, simulated?: true): JobEventBody => ({
      ...{ type: 'reading', place: { x_mm: 15, y_mm: 50.5, side: 'top', partId: 'q1', terminal: '3' } },
      ...{ quantity: 'ohm', value, good: 8300, powered: false },
      ...(simulated ? { probe: { type: 'ohm', red: 'OUT', black: '12V', state: null, simulated } } : {}),
    });
    const tried = (name: string, when: 'before' | 'after' | 'closed', state: 'works' | 'dead'): JobEventBody => ({
      ...{ type: 'function', name, when, state },
    });
    const r = report([
      ...[reading(0.3), suspect('q1'), tried('forwards', 'before', 'dead'), tried('lamp', 'before', 'works')],
      begun('remove'),
      { type: 'run-ended', runId: RUN, outcome: 'finished' },
      { type: 'off-board-test', result: 'bad' },
      { type: 'new-part-measured', ok: true, note: '', substitute: { number: 'X-40', why: 'the old one is no more' } },
      ...[reading(8100, true), tried(COMPLAINT, 'after', 'works')],
      { type: 'neighbour-looked', partId: 'u7', state: 'melted' },
      { type: 'power-stopped', stop: 'over-voltage', why: '6.1 V where 5 V is right', rail: '5 V', simulated: true },
    ]);
    expect(r.summary.wrong).toEqual(['Q1, high-side switch, bad: q1 reads low']);
    expect(r.summary.done).toEqual(['Q1 taken off']);
    expect(r.summary.measured).toEqual([
      { what: 'Q1.3', before: '0.3 Ω', after: '8.1 kΩ (simulated)', good: '8.3 kΩ' },
    ]);
    expect(r.summary.watch).toEqual([
      'did not work before either: forwards',
      'not tried: lamp',
      'seen after the work: U7 melted',
      'X-40 was put on instead: the old one is no more',
      expect.stringMatching(/^not proven: .*short check before power/),
    ]);
    expect(new Map(r.attempts[0].proven).get('First power stopped')).toBe(
      'too much voltage on a rail, 5 V, 6.1 V where 5 V is right, simulated',
    );
    expect(r.functions).toEqual([
      { name: 'forwards', before: 'dead', after: 'not tried', closed: '' },
      { name: 'lamp', before: 'works', after: 'not tried', closed: '' },
    ]);
    // nothing found, nothing said
    expect(report([]).summary).toMatchObject({ wrong: [], done: [], measured: [] });
  });
});

describe('photos', () => {
  const picture = (width: number, height: number) => {
    const data = Buffer.alloc(width * height * 4, 255);
    for (let i = 0; i < data.length; i += 4) data[i] = (i / 4) % width < width / 2 ? 20 : 230;
    return jpeg.encode({ width, height, data }, 90).data;
  };
  it('are made smaller with a thumbnail, the picture still the picture', () => {
    const read = readPhoto(picture(2800, 700));
    expect([read.width, read.height]).toEqual([2560, 640]);
    const thumb = jpeg.decode(read.thumbnail, { useTArray: true });
    expect([thumb.width, thumb.height]).toEqual([320, 80]);
    const red = (x: number) => thumb.data[(40 * thumb.width + x) * 4];
    expect(red(20)).toBeLessThan(60);
    expect(red(300)).toBeGreaterThan(200);
  });
  it('lose everything that is not the picture', () => {
    const plain = Buffer.from(picture(64, 64));
    const secret = Buffer.from('Exif\0\0 51.5 N 0.1 W');
    const segment = Buffer.concat([Buffer.from([0xff, 0xe1, 0, secret.length + 2]), secret]);
    const tagged = Buffer.concat([plain.subarray(0, 2), segment, plain.subarray(2)]);
    expect(Buffer.from(readPhoto(tagged).image).includes(secret)).toBe(false);
  });
  it.each([
    ['no picture', Buffer.from('<svg onload="x"/>')],
    ['nothing', Buffer.alloc(0)],
    ['half of one', Buffer.from(picture(64, 64)).subarray(0, 80)],
    ['a speck', Buffer.from(picture(8, 8))],
  ])('%s is refused with a sentence', (_, bytes) => {
    expect(() => readPhoto(bytes)).toThrow(PhotoError);
  });
});
