// Hands that do as they are told, on a board that a hidden bench plays: by every way of working the part comes off whole.
import { playHiddenBench } from '@orthos/core/hands';
import { currentAttempt, foldJob, type JobEvent, type JobEventBody, type JointMark } from '@orthos/core/job';
import { expressBoard, type Instruction, type Method } from '@orthos/core/rework';
import { describe, expect, it } from 'vitest';
import { planInputOf } from '../src/lib/plan/planInput.ts';
import { afterTurns, benchWords, looseJoints, type Turn } from '../src/lib/run/benchAnswers.ts';
import { courseOf, methodsOf, walksOf } from '../src/lib/run/work.ts';
import { viewOf } from './view.ts';

const RUN = '019ac000-0000-4000-8000-00000000000c';
/** Reading an instruction and doing what takes no longer, s. */
const TAP_S = 3;
/** Nobody goes on for ever. */
const MOST_TAPS = 400;

interface Way {
  packageId: string;
  methodId: string;
  /** Which board it is, and how: the bench's own dice. */
  seed?: number;
  /** Joints that are said to hold at their first turn, whatever the bench answers. */
  stuck?: string[];
}

async function journey({ packageId, methodId, seed = 7, stuck = [] }: Way) {
  const board = expressBoard({ package: packageId, boardKind: 'two-layer', plastic: 'pbt', distance_mm: 12 });
  const bare = viewOf(board, 'target');
  const method = methodsOf(bare, 'remove').find((m) => m.id === methodId) as Method;
  if (!bare.inputs) throw new Error('no target');
  const plan = { ...planInputOf(board, bare.inputs, method, false), quality: 'search' as const };
  const truth = await playHiddenBench({ plan, seed }, { now: () => 0 });

  const events: JobEvent[] = [];
  let now = 1_000_000;
  let heatOn: number | null = null;
  const turns: Turn[] = [];
  const told: Instruction[] = [];
  let loose: ReadonlySet<string> = new Set();
  const put = (body: JobEventBody) => events.push({ id: `e${events.length}`, at: now, actor: 'unsigned', v: 1, body });
  put({
    ...{ type: 'run-begun', runId: RUN, op: 'remove', methodId, phases: method.phases },
    ...{ guide: null, offline: false, bench: true },
  });
  const course = () => {
    // a log is known by its list: each state of it is another one
    const log = [...events];
    const found = courseOf({ ...bare, events: log }, log, 'remove');
    if (!found) throw new Error('no course');
    return found;
  };
  /** What the bench shows at this moment. */
  const look = () => {
    const walks = walksOf(course());
    const clock_s = !walks.last && heatOn !== null ? (now - heatOn) / 1000 : null;
    return looseJoints(truth, walks.any ? truth.pins : undefined, turns, clock_s);
  };
  const mark = (i: Instruction) => {
    put({
      ...{ type: 'mark', runId: RUN, instruction: i.id, what: i.mark },
      ...(i.phase ? { phase: i.phase } : {}),
    });
    if (i.mark === 'heat-on') heatOn = now;
  };
  const walk = (i: Instruction) => {
    for (const terminal of i.walk ?? []) {
      const first = i.trying !== true;
      const takes_s = truth.pins?.find((p) => p.terminal === terminal)?.takes_s ?? 20;
      now += 1000 * (first ? Math.min(60, takes_s + 1) : 1);
      if (first) turns.push({ terminal, seconds: Math.min(60, takes_s + 1) });
      const before = turns.filter((t) => t.terminal === terminal).length;
      const free = first ? afterTurns(terminal, truth.pins, turns) === 'free' : look().has(terminal);
      const state: JointMark = free && !(before === 1 && stuck.includes(terminal)) ? 'done' : 'stuck';
      put({ type: 'joint', runId: RUN, terminal, state, instruction: i.id });
    }
    mark(i);
  };
  for (let taps = 0; taps < MOST_TAPS; taps++) {
    const { list, at } = course();
    const due = list.at(at);
    if (!due) break;
    told.push(due);
    now += 1000 * TAP_S;
    if (due.walk) {
      walk(due);
      continue;
    }
    // what is watched for has to show before it is said
    const all = truth.joints.length;
    const enough = due.mark === 'first-wet' ? 1 : due.mark === 'all-wet' && heatOn !== null && !due.tries ? all : 0;
    for (let s = 0; look().size < enough; s++) {
      if (s > 900) throw new Error(`${methodId}: ${due.say} never shows`);
      now += 1000;
    }
    if (due.mark === 'lifted') loose = look();
    mark(due);
  }
  const { marks, walked } = currentAttempt(foldJob(events)).runs[0];
  return { told, loose: loose.size, of: truth.joints.length, marks, walked, truth };
}

const WAYS: Way[] = [
  { packageId: 'SOIC-8', methodId: 'air-slow' },
  { packageId: 'SOIC-8', methodId: 'alloy-then-air' },
  { packageId: 'SOIC-8', methodId: 'spike-then-air' },
  { packageId: 'SOIC-8', methodId: 'bead' },
  { packageId: 'SOIC-8', methodId: 'irons2' },
  { packageId: 'SOIC-8', methodId: 'preheat-air' },
  { packageId: 'SOIC-8', methodId: 'lift-legs' },
  { packageId: 'SOIC-8', methodId: 'cut-legs' },
  { packageId: 'SOIC-8', methodId: 'below-opening' },
  { packageId: 'DIP-8', methodId: 'vacuum' },
  { packageId: 'DIP-8', methodId: 'vacuum-then-air', stuck: ['2', '5'] },
  { packageId: 'R0805', methodId: 'tweezers' },
  { packageId: 'R0805', methodId: 'pool' },
  { packageId: 'FLEX-8', methodId: 'peel' },
  { packageId: 'CAN-8', methodId: 'twist-off' },
];

describe('journeys with a hidden bench', () => {
  it.each(WAYS)('$methodId, $packageId: told to the end, lifted only once every joint is loose', async (way) => {
    const { told, loose, of, marks } = await journey(way);
    expect(loose).toBe(of);
    const order = ['heat-on', 'all-wet', 'lifted'].map((what) => marks.findIndex((m) => m.what === what));
    expect(order).not.toContain(-1);
    expect([...order].sort((a, b) => a - b)).toEqual(order);
    expect(told.at(-1)?.id).toBe('count');
    expect(told.map((i) => i.id)).toContain('put-away');
    const hands = told.filter((i) => ['heat-on', 'all-wet', 'lifted'].includes(i.mark) || i.walk);
    expect(hands.filter((i) => !i.limbs && !i.trying)).toEqual([]);
  });

  it('two pins that stay stuck after the lap go to the air alone', async () => {
    const { told, walked } = await journey({ packageId: 'DIP-8', methodId: 'vacuum-then-air', stuck: ['2', '5'] });
    expect(walked.filter((w) => w.state === 'stuck').map((w) => w.terminal)).toEqual(
      expect.arrayContaining(['2', '5']),
    );
    expect(told.find((i) => i.mark === 'first-wet')?.say).toMatch(/^Air on what still holds: .*2.*5/);
  });

  it('pins that stay plugged come round again until none is left', async () => {
    // a board on which the bench has plugged pins
    for (let seed = 1; seed < 40; seed++) {
      const { told, truth, loose, of } = await journey({ packageId: 'DIP-8', methodId: 'vacuum', seed });
      const plugged = truth.pins?.filter((p) => p.stuck).map((p) => p.terminal) ?? [];
      if (plugged.length === 0) continue;
      expect(told.filter((i) => i.walk).at(-1)?.walk).toEqual(plugged);
      expect(loose).toBe(of);
      return;
    }
    throw new Error('no board with a plugged pin');
  });

  it('hands in a hurry are stopped: a joint that holds is found before anything is lifted', async () => {
    const { truth } = await journey({ packageId: 'DIP-8', methodId: 'vacuum' });
    const turns = truth.joints.map(({ terminal }) => ({ terminal, seconds: 0.1 }));
    const asked = { pins: truth.pins, turns, loose: new Set<string>(), joint: null, tried: false, elapsed_s: 1 };
    expect(benchWords(truth, asked)).toMatch(/still hold$/);
  });
});
