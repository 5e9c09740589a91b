import { operationFor } from '@orthos/core/hands';
import { type Guide, type Mark } from '@orthos/core/rework';
import { currentAttempt, foldJob, type JobEvent, type JobEventBody, lastRun } from '@orthos/core/job';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { markRows } from '../src/lib/hands/marks.ts';
import { bearings, bearingText } from '../src/lib/part/landmarks.ts';
import { HOLD_MS, Pedal } from '../src/lib/run/pedal.ts';
import { courseOf, mergedLog, methodsOf } from '../src/lib/run/work.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { viewOf } from './view.ts';

const RUN = '019ac000-0000-4000-8000-00000000000a';
let n = 0;
const at = (seconds: number, body: JobEventBody): JobEvent => ({
  id: `e${++n}`,
  at: seconds * 1000,
  actor: 'unsigned',
  v: 1,
  body,
});
const guide: Guide = {
  joints: [
    { terminal: '1', wet_s: 30 },
    { terminal: '2', wet_s: 24 },
  ],
  last: '1',
  allWet_s: 31,
  allWetFrom_s: 27,
  allWetTo_s: 38,
  closes_s: null,
  closesFrom_s: null,
  closesTo_s: null,
  closedBy: '',
};
const begun = (op: 'remove' | 'fit', methodId = 'air-slow'): JobEventBody => ({
  type: 'run-begun',
  runId: RUN,
  op,
  methodId,
  guide,
  offline: false,
  bench: false,
});
const mark = (instruction: string, what: Mark = 'done'): JobEventBody => ({
  type: 'mark',
  runId: RUN,
  instruction,
  what,
});

describe('the pedal', () => {
  const heard: (string | number)[] = [];
  const pedal = new Pedal(
    (when) => heard.push(when),
    () => heard.push('hold'),
  );
  beforeEach(() => {
    heard.length = 0;
    vi.useFakeTimers({ now: 1_000_000 });
  });
  afterEach(() => vi.useRealTimers());

  it('tells a tap with the time at which it went down', () => {
    pedal.press();
    vi.advanceTimersByTime(HOLD_MS - 50);
    pedal.release();
    expect(heard).toEqual([1_000_000]);
  });
  it('tells a hold once, and no tap after it', () => {
    pedal.press();
    vi.advanceTimersByTime(HOLD_MS + 5);
    pedal.release();
    expect(heard).toEqual(['hold']);
    pedal.press();
    pedal.release();
    expect(heard).toHaveLength(2);
  });
  it('waits for a release that a busy page tells late, and not for one that never comes', () => {
    const busy = () => {
      pedal.press();
      vi.setSystemTime(1_000_400 + HOLD_MS);
      vi.advanceTimersByTime(HOLD_MS);
    };
    busy();
    expect(heard).toEqual([]);
    pedal.release();
    expect(heard).toEqual([1_000_000]);
    vi.setSystemTime(1_000_000);
    busy();
    vi.advanceTimersByTime(100);
    pedal.release();
    expect(heard).toEqual([1_000_000, 'hold']);
  });
  it('ignores the repeats of a key that is held', () => {
    for (let k = 0; k < 20; k++) {
      pedal.press();
      vi.advanceTimersByTime(20);
    }
    pedal.release();
    expect(heard).toEqual([1_000_000]);
    for (let k = 0; k < 60; k++) {
      pedal.press();
      vi.advanceTimersByTime(20);
    }
    pedal.release();
    expect(heard).toEqual([1_000_000, 'hold']);
  });
  it('forgets a press that was lost sight of', () => {
    pedal.press();
    pedal.forget();
    vi.advanceTimersByTime(2 * HOLD_MS);
    pedal.release();
    expect(heard).toEqual([]);
  });
});

describe('a course through an operation', () => {
  const view = viewOf(ternT2, 'u1');
  const [slow] = methodsOf(view, 'remove');
  const events = (...more: JobEventBody[]) => [at(0, begun('remove')), ...more.map((b, i) => at(i + 1, b))];

  it('is at the first instruction that is not marked', () => {
    expect(courseOf(view, [], 'remove')).toBeNull();
    expect(courseOf(view, events(), 'remove')?.at).toBe(0);
    expect(courseOf(view, events(mark('flux'), mark('heat-on', 'heat-on')), 'remove')?.at).toBe(2);
  });
  it('passes over what was not marked: a run needs no marks', () => {
    const course = courseOf(
      view,
      events(mark('flux'), mark('heat-on', 'heat-on'), mark('all-wet', 'all-wet')),
      'remove',
    );
    expect(course?.list[course.at].mark).toBe('lifted');
    expect(course?.run.marks).toHaveLength(3);
  });
  it('goes back when a mark is withdrawn', () => {
    const made = events(mark('flux'), mark('heat-on', 'heat-on'));
    const gone = at(9, { type: 'withdrawn', eventId: made[2].id, why: 'taken back' });
    expect(courseOf(view, [...made, gone], 'remove')?.at).toBe(1);
  });
  it('keeps its method when the plan changes in the middle', () => {
    const course = courseOf(view, [at(0, begun('remove', 'bead'))], 'remove');
    expect(course?.list.some((i) => i.id === 'lay-1')).toBe(true);
    expect(courseOf(view, [at(0, begun('remove', 'no-such-method'))], 'remove')).toBeNull();
  });
  it('fits by ways of its own, the one that was chosen first; runs begun before there were any go on', () => {
    expect(methodsOf(view, 'fit').map((m) => m.id)).toContain('fit-drag');
    expect(methodsOf(view, 'fit').every((m) => m.id.startsWith('fit-'))).toBe(true);
    const chosen = view.inputs && { ...view, inputs: { ...view.inputs, fitBy: 'fit-joints' } };
    expect(chosen && methodsOf(chosen, 'fit')[0].id).toBe('fit-joints');
    const drag = courseOf(view, [at(0, begun('fit', 'fit-joints'))], 'fit');
    expect(drag?.list.find((i) => i.walk)?.walk).toHaveLength(20);
    const { phases } = slow;
    const old = courseOf(view, [at(0, { ...begun('fit', 'air-slow'), phases } as JobEventBody)], 'fit');
    expect(old?.list.map((i) => i.id)).toContain('all-wet');
  });
  it('joins the log of the server with what is only here, each event once', () => {
    const stored = events(mark('flux'));
    const made = [stored[1], at(5, mark('heat-on', 'heat-on'))];
    expect(mergedLog(stored, made).map((e) => e.id)).toEqual([stored[0].id, stored[1].id, made[1].id]);
  });
  it('has no instructions without a target', () => {
    expect(courseOf(viewOf(ternT2, undefined), events(), 'remove')).toBeNull();
    expect(methodsOf(viewOf(ternT2, undefined), 'remove')).toEqual([]);
  });
});

describe('marks beside the prediction', () => {
  const run = (marks: [number, JobEventBody][]) => {
    const events = [at(0, begun('remove')), ...marks.map(([t, b]) => at(t, b))];
    const found = lastRun(currentAttempt(foldJob(events)), 'remove');
    if (!found) throw new Error('no run');
    return found;
  };
  it('are seconds after heat on, off by what they differ', () => {
    const rows = markRows(
      run([
        [8, mark('flux')],
        [10, mark('heat-on', 'heat-on')],
        [36, mark('first-wet', 'first-wet')],
        [45, mark('all-wet', 'all-wet')],
        [49, mark('lift', 'lifted')],
      ]),
    );
    expect(rows.map((r) => [r.label, r.planned, r.actual, r.off])).toEqual([
      ['heat on', null, 0, null],
      ['first joint wet', 24, 26, 2],
      ['all wet', 31, 35, 4],
      ['lifted', null, 39, null],
    ]);
  });
  it('without a heat-on mark there is no clock to compare with', () => {
    const rows = markRows(run([[45, mark('all-wet', 'all-wet')]]));
    expect(rows.map((r) => [r.actual, r.off])).toEqual([[null, null]]);
  });
});

describe('landmarks', () => {
  const mm = (v: number) => `${v.toFixed(1)} mm`;
  const part = (board: typeof quillon, ref: string) => {
    const found = board.parts.find((p) => p.ref === ref);
    if (!found) throw new Error(ref);
    return found;
  };
  it('give the way to the target as seen on the working side', () => {
    const q1 = part(quillon, 'Q1');
    const [first] = bearings(quillon, q1, 'top');
    expect(first.label).toBe('hole by C3');
    expect(bearingText(first, mm)).toBe('11.0 mm right, 46.5 mm down');
    // the same place on the other side is mirrored: left becomes right, down stays down
    const under = bearings(quillon, { ...q1, side: 'bottom' }, 'bottom');
    const same = under.find((b) => b.id === first.id);
    expect(same && bearingText(same, mm)).toBe('11.0 mm left, 46.5 mm down');
  });
  it('are landmarks first, then large parts of the same side, never the target itself', () => {
    const found = bearings(ternT2, part(ternT2, 'U2'), 'top');
    expect(found.slice(0, 2).every((b) => b.id.startsWith('hole'))).toBe(true);
    expect(found.map((b) => b.id)).not.toContain('u2');
    expect(found.length).toBeLessThanOrEqual(5);
    for (const b of found.slice(2)) expect(ternT2.parts.find((p) => p.partId === b.id)?.side).toBe('top');
  });
});

describe('instructions for the demo boards', () => {
  it.each(['u1', 'u2', 'c7', 'u3'])('Tern T2 %s has an operation for every step', (target) => {
    const view = viewOf(ternT2, target);
    for (const op of ['remove', 'prepare', 'fit'] as const) {
      const [method] = methodsOf(view, op);
      const placed = ternT2.parts.find((p) => p.partId === target);
      if (!placed) throw new Error(target);
      const list = operationFor(op, {
        board: ternT2,
        target: placed,
        method,
        guide: null,
        nearest: null,
        panel: { temperature: 'C', length: 'mm' },
      });
      expect(list.at(-1)?.id).toMatch(/count|lands|wash/);
    }
  });
});
