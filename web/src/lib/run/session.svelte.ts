/** One operation under way: what is due, what a tap, a hold and "back" mean. Knows nothing of how it looks. */
import { aboutWork } from '$lib/jobs/about';
import { stateOf } from '$lib/jobs/stateOf';
import { planInputOf } from '$lib/plan/planInput';
import { goto } from '$app/navigation';
import { runInPool } from '$lib/compute/pool';
import { isWell, send, SendError } from '$lib/jobs/send';
import type { JobView } from '$lib/jobs/view';
import {
  doubtId,
  type HiddenTruth,
  saidIn,
  surroundingsDone,
  SLIP_KINDS,
  type SlipKind,
  SLIPS,
} from '@orthos/core/hands';
import {
  blocks,
  type JobEvent,
  type JobEventBody,
  type JointMark,
  jointStates,
  currentAttempt,
} from '@orthos/core/job';
import {
  type Guide,
  guideOf,
  type Instruction,
  kindOf,
  latestSafe,
  mainPhase,
  type Method,
  type Operation,
  type PlanInput,
  type PlanResult,
  type WindowPhase,
  windowPhase,
  type Words,
} from '@orthos/core/rework';
import { v4, v7 } from 'uuid';
import { benchWords, looseJoints, type Turn } from './benchAnswers';
import { outbox, postEvent, type Answer } from './outbox.svelte';
import { courseOf, mergedLog, methodsOf, removalGuide, type Course } from './work';

interface Choice {
  label: string;
  detail?: string;
  choose: () => void;
}
export interface Sheet {
  title: string;
  words?: Words;
  choices: Choice[];
}

export const OP_NAMES: Record<Operation, string> = { remove: 'off', prepare: 'lands', fit: 'on' };
export const NEXT_STEP: Record<Operation, string> = { remove: 'prepare', prepare: 'fit', fit: 'verify' };
const HARD: Record<Operation, string[]> = {
  remove: ['power-gone'],
  prepare: ['power-gone'],
  fit: ['power-gone', 'orientation'],
};

export class RunSession {
  private readonly box = outbox();
  now = $state(Date.now());
  sheet = $state.raw<Sheet | null>(null);
  highlighted = $state(0);
  problem = $state<string | null>(null);
  beginning = $state(false);
  /** The method chosen before the run begins. */
  methodId = $state<string | null>(null);
  /** Predictions computed when the page opens: for fitting, and for a board that is not as planned; for removal it comes with the plan. */
  private predicted = $state.raw<Record<string, Guide>>({});
  computing = $state(false);
  truth = $state.raw<HiddenTruth | null>(null);
  bench = $state(false);
  /** Begin the operation once more after it has ended. */
  again = $state(false);

  readonly op: Operation;
  private readonly getView: () => JobView;
  constructor(getView: () => JobView, op: Operation) {
    this.getView = getView;
    this.op = op;
  }

  view = $derived.by(() => this.getView());
  /** The log as the server told it after the page was loaded. */
  private told = $state.raw<JobEvent[]>([]);
  events = $derived.by(() =>
    mergedLog(
      this.told.length > this.view.events.length ? this.told : this.view.events,
      this.box.of(this.view.ticket.id),
    ),
  );
  state = $derived.by(() => stateOf(this.events));
  course = $derived.by<Course | null>(() => courseOf(this.view, this.events, this.op));
  methods = $derived.by<Method[]>(() => methodsOf(this.view, this.op));
  method = $derived.by(
    () =>
      this.methods.find((m) => m.id === (this.course?.run.methodId ?? this.methodId)) ??
      (this.methods[0] as Method | undefined),
  );
  guide = $derived.by<Guide | null>(() => {
    if (this.course) return this.course.run.guide;
    if (this.op === 'fit' || this.differs.length > 0) return this.predicted[this.predictedFor] ?? null;
    return this.op === 'remove' ? removalGuide(this.view, this.method) : null;
  });
  /** What a prediction made here is for. */
  private predictedFor = $derived.by(() =>
    JSON.stringify([this.method, this.view.inputs?.hash, this.asLeft.surroundings]),
  );
  /**
   * The instruction due. Once the screen asks whether everything is shiny, a tap answers that: the mark of the first
   * joint is passed over.
   */
  due = $derived.by<Instruction | null>(() => {
    if (!this.course) return null;
    const { list, at } = this.course;
    const due = list[at] as Instruction | undefined;
    if (due?.mark === 'first-wet' && this.hot && this.phase !== 'early')
      return list.find((i) => i.mark === 'all-wet') ?? due;
    return due ?? null;
  });
  next = $derived.by<Instruction | null>(() => {
    const list = this.course?.list ?? [];
    return list[list.findIndex((i) => i.id === this.due?.id) + 1] ?? null;
  });
  ended = $derived.by(() => this.course?.run.ended ?? null);
  heatOn = $derived.by(() => this.course?.run.marks.find((m) => m.what === 'heat-on')?.at ?? null);
  heatOff = $derived.by(() => this.course?.run.marks.find((m) => m.what === 'heat-off')?.at ?? null);
  /** Seconds since the heat came on; stands still once it is off. */
  elapsed = $derived.by(() => (this.heatOn === null ? null : ((this.heatOff ?? this.now) - this.heatOn) / 1000));
  hot = $derived.by(() => this.heatOn !== null && this.heatOff === null && !this.ended);
  phase = $derived.by<WindowPhase>(() =>
    this.guide && this.elapsed !== null ? windowPhase(this.guide, this.elapsed) : 'early',
  );
  /** The window is about to close. */
  closing = $derived.by(() => {
    const end = this.guide && latestSafe(this.guide);
    return this.hot && typeof end === 'number' && this.elapsed !== null && this.elapsed > end - 5 && this.elapsed < end;
  });
  words = $derived.by<Words | null>(() => {
    if (!this.due) return null;
    return (this.hot && this.due.phases?.[this.phase]) || this.due;
  });
  /** What was said of the joints of the walk that is due. */
  private walked = $derived.by<ReadonlyMap<string, JointMark>>(() => {
    const { course, due } = this;
    const first = course?.list.find((i) => i.walk)?.id;
    const here = (course?.run.walked ?? []).filter((w) => (w.instruction ?? first) === due?.id);
    return new Map(here.map((w) => [w.terminal, w.state]));
  });
  /** The joint whose turn it is in a walk. */
  joint = $derived.by<string | null>(() => this.due?.walk?.find((t) => !this.walked.has(t)) ?? null);
  /** What was said of every joint so far. */
  joints = $derived.by(() => (this.course ? jointStates(this.course.run) : undefined));
  /** The turns of joints so far, each with the seconds since the tap before; the last is the one under way. */
  private turns = $derived.by<Turn[]>(() => {
    const { course, joint, due } = this;
    if (!course) return [];
    const tried = new Set(course.list.filter((i) => i.trying).map((i) => i.id));
    const taps = this.events.filter(
      ({ id, body }) =>
        (body.type === 'joint' || body.type === 'mark') &&
        body.runId === course.run.id &&
        !this.state.withdrawn.has(id),
    );
    const turns = taps.flatMap(({ at, body }, i) =>
      body.type === 'joint' && !tried.has(body.instruction ?? '')
        ? [{ terminal: body.terminal, seconds: (at - (taps[i - 1]?.at ?? at)) / 1000 }]
        : [],
    );
    const since = taps.at(-1)?.at;
    if (joint === null || due?.trying || since === undefined) return turns;
    return [...turns, { terminal: joint, seconds: (this.now - since) / 1000 }];
  });
  /** Whether joints come loose one after the other, not all together. */
  oneByOne = $derived.by(
    () => this.op === 'remove' && this.method !== undefined && kindOf(mainPhase(this.method)).inTurn === true,
  );
  /** When the joint whose turn it is should be done, s from now; null when it never is, or nothing is known. */
  turnLeft = $derived.by<number | null>(() => {
    const turn = this.turns.at(-1);
    const takes = this.guide?.turns?.find((t) => t.terminal === this.joint)?.takes_s ?? null;
    return this.op !== 'remove' || turn?.terminal !== this.joint || takes === null ? null : takes - turn.seconds;
  });
  private pins = $derived.by(() => (this.op === 'remove' ? this.truth?.pins : undefined));
  /** Joints that the hidden bench shows as loose. */
  wet = $derived.by<ReadonlySet<string>>(() => {
    if (!this.truth || this.ended) return new Set();
    return looseJoints(this.truth, this.pins, this.turns, !this.oneByOne && this.hot ? this.elapsed : null);
  });
  /** What the hidden bench shows, in words. */
  benchSays = $derived.by<string | null>(() => {
    const { truth, pins, turns, joint } = this;
    if (!truth || this.ended || this.heatOff !== null || (!this.hot && !pins)) return null;
    const tried = this.due?.trying === true;
    return benchWords(truth, { pins, turns, loose: this.wet, joint, tried, elapsed_s: this.elapsed ?? 0 });
  });
  /** As the server judged them last. */
  gates = $derived.by(() => this.box.gates[this.view.ticket.id] ?? this.view.gates);
  blocked = $derived.by(() => this.gates.filter((g) => HARD[this.op].includes(g.id) && blocks(g)));

  /** Which part, operation and method the events of the run speak of. */
  private get where() {
    const { methodId } = this.course?.run ?? {};
    return { op: this.op, ...aboutWork(this.view), ...(methodId ? { methodId } : {}) };
  }

  private put(body: JobEventBody, at?: number): void {
    this.box.put(this.view.ticket.id, body, at);
  }

  /** Somebody else wrote to this job: what the server has now. The page stays as it is when the server does not answer. */
  async look(): Promise<void> {
    const { id } = this.view.ticket;
    const { events, gates } = (await send('GET', `/api/jobs/${id}/events`)) as { events: JobEvent[] } & Answer;
    this.told = events;
    this.box.judged(id, gates);
  }

  /** The surroundings as hands left them, and who is not as planned. */
  private asLeft = $derived.by(() =>
    surroundingsDone(
      this.view.inputs?.settings.surroundings ?? {},
      currentAttempt(this.state).neighbours,
      this.view.inputs?.target,
    ),
  );
  /** Parts that are covered, or left open, other than the plan in use counts on. */
  differs = $derived.by<string[]>(() => (this.op === 'remove' && this.view.inUse ? this.asLeft.differs : []));

  /** What the calculation of a plan for this operation is asked: for the board as hands left it. */
  private planInput(method: Method): PlanInput | null {
    const { inputs, board } = this.view;
    if (!inputs) return null;
    const settings = { ...inputs.settings, surroundings: this.asLeft.surroundings };
    const input = planInputOf(board, { ...inputs, settings }, method, false);
    return { ...input, ...(this.op === 'fit' ? { fitting: true } : {}) };
  }

  /** Computes when the part should be wet while it goes on, or comes off a board that is not as planned; the run may begin without. */
  predict(signal: AbortSignal): Promise<void> {
    return (this.predicting = this.predictNow(signal));
  }
  private predicting: Promise<void> = Promise.resolve();

  private async predictNow(signal: AbortSignal): Promise<void> {
    const method = this.method;
    const asked = this.op === 'fit' ? method && kindOf(mainPhase(method)).fits : this.differs.length > 0;
    const key = this.predictedFor;
    if (!method || !asked || this.predicted[key] || this.course) return;
    const input = this.planInput(method);
    if (!input) return;
    this.computing = true;
    try {
      const result = await runInPool<PlanResult>('plan.heat', input, { signal });
      this.predicted = { ...this.predicted, [key]: guideOf(result, this.view.board, method) };
    } catch (e) {
      if ((e as Error).name !== 'AbortError') this.problem = `No times: ${(e as Error).message}`;
    } finally {
      this.computing = false;
    }
  }

  /** The hidden bench of a run, the same again after a reload: its seed is the run's id. */
  async playHiddenBench(signal: AbortSignal): Promise<void> {
    const run = this.course?.run;
    if (!run?.bench || this.truth || !this.method) return;
    const plan = this.planInput(this.method);
    if (!plan) return;
    const seed = Number.parseInt(run.id.replaceAll('-', '').slice(-8), 16);
    try {
      this.truth = await runInPool<HiddenTruth>('plan.bench', { plan, seed }, { signal });
    } catch (e) {
      if ((e as Error).name !== 'AbortError') this.problem = `The hidden bench stopped: ${(e as Error).message}`;
    }
  }

  async begin(): Promise<void> {
    if (!this.method || this.beginning || this.blocked.length > 0) return;
    this.beginning = true;
    this.problem = null;
    // times that are being computed come along
    await this.predicting;
    const body = {
      type: 'run-begun' as const,
      runId: v4(),
      op: this.op,
      methodId: this.method.id,
      phases: this.method.phases,
      ...(this.view.inUse?.method.id === this.method.id ? { planId: this.view.inUse.planId } : {}),
      ...aboutWork(this.view),
      ...(this.view.inputs ? { kit: this.view.inputs.kit } : {}),
      guide: this.guide,
      offline: false,
      bench: this.bench,
    };
    const event = { id: v7(), ticketId: this.view.ticket.id, at: Date.now(), body };
    try {
      // nothing on this page is loaded anew: it has to stand when the server falls
      this.box.sent(event, await postEvent(event));
    } catch (e) {
      // the server is away: what this page knows of the gates has to do
      if (e instanceof SendError && e.status === 0) this.put({ ...body, offline: true });
      else this.problem = (e as Error).message;
    } finally {
      this.beginning = false;
    }
  }

  tap(at: number): void {
    if (this.sheet) {
      this.highlighted = (this.highlighted + 1) % this.sheet.choices.length;
      return;
    }
    if (!this.course || (this.ended && this.again)) {
      this.again = false;
      void this.begin();
      return;
    }
    if (this.ended) {
      void this.leave();
      return;
    }
    if (this.joint) this.walk('done', at);
    else if (this.due) this.done(this.due, at);
  }

  /** On to the next step, if there is a server to show it: without one the browser would show its own error in place of this page. */
  private async leave(): Promise<void> {
    if (await isWell()) await goto(`/jobs/${this.view.ticket.id}/${NEXT_STEP[this.op]}`);
    else this.problem = 'The server is away. What you marked is kept here; go on when it is back.';
  }

  /** The joint whose turn it is. */
  walk(state: JointMark, at = Date.now()): void {
    const { course, joint, due } = this;
    if (!course || !joint || !due) return;
    const { id: instruction } = due;
    this.put({ type: 'joint', runId: course.run.id, terminal: joint, state, instruction, ...this.where }, at);
    if (this.joint === null) this.done(due, at);
  }

  /** Marks an instruction as done; the last one ends the run. */
  private done(instruction: Instruction, at: number): void {
    const course = this.course;
    if (!course) return;
    if (instruction.event) this.put(instruction.event, at);
    const phase = instruction.phase === undefined ? {} : { phase: instruction.phase };
    this.put(
      {
        type: 'mark',
        runId: course.run.id,
        instruction: instruction.id,
        what: instruction.mark,
        ...this.where,
        ...phase,
      },
      at,
    );
    if (instruction === course.list.at(-1) || instruction.id === course.list.at(-1)?.id)
      this.put({ type: 'run-ended', runId: course.run.id, outcome: 'finished', ...this.where }, at);
  }

  /** One of the joints that were said free holds: all are tried one by one. */
  oneHolds(at = Date.now()): void {
    const { course, due } = this;
    if (!course || !due?.tries) return;
    const { doubts } = saidIn(course.run);
    this.put({ type: 'mark', runId: course.run.id, instruction: doubtId(doubts), what: 'done', ...this.where }, at);
  }

  /** Says "all wet" although the first wet joint was not marked. */
  allWet(at = Date.now()): void {
    const instruction = this.course?.list.find((i) => i.mark === 'all-wet');
    if (instruction && this.hot && (this.due?.mark === 'first-wet' || this.due?.mark === 'all-wet'))
      this.done(instruction, at);
  }

  /** Takes the last mark back, with what it wrote. */
  back(): void {
    if (this.sheet) {
      this.sheet = null;
      return;
    }
    const run = this.course?.run;
    if (!run) return;
    const gone = this.state.withdrawn;
    const live = this.events.filter((e) => !gone.has(e.id));
    const mine = live.filter(({ body: b }) => 'runId' in b && b.runId === run.id && b.type !== 'run-begun');
    const last = mine.findLast(({ body: b }) => b.type === 'mark' || b.type === 'joint');
    if (!last) return;
    const ids = [...mine.filter((e) => e.body.type === 'run-ended').map((e) => e.id), last.id];
    if (last.body.type === 'mark') {
      const { instruction } = last.body;
      const wrote = this.course?.list.find((i) => i.id === instruction)?.event?.type;
      const other = live.findLast((e) => e.body.type === wrote);
      if (other) ids.push(other.id);
      // a walk ends by itself with its last joint
      const joint = mine.findLast((e) => e.body.type === 'joint');
      if (joint && joint.at === last.at) ids.push(joint.id);
    }
    for (const eventId of ids) this.put({ type: 'withdrawn', eventId, why: 'taken back' });
  }

  /** The long press: something is wrong. */
  hold(): void {
    if (this.sheet) {
      this.sheet.choices[this.highlighted].choose();
      return;
    }
    const run = this.course?.run;
    if (!run || this.ended) return;
    this.open({
      title: 'What is wrong?',
      choices: [
        ...SLIP_KINDS.map((kind) => ({
          label: SLIPS[kind].label,
          choose: () => this.slip(kind),
        })),
        {
          label: 'Finished, no more marks',
          choose: () => this.end('finished'),
        },
        { label: 'Give up here', detail: 'change the method or come back later', choose: () => this.end('given up') },
        { label: 'Nothing, go on', choose: () => (this.sheet = null) },
      ],
    });
  }

  private open(sheet: Sheet): void {
    this.highlighted = 0;
    this.sheet = sheet;
  }

  private slip(kind: SlipKind): void {
    const { id } = this.box.put(this.view.ticket.id, {
      type: 'slip',
      kind,
      ...(this.course ? { runId: this.course.run.id } : {}),
    });
    const checked = (ok: boolean, result: string) => () => {
      this.put({ type: 'slip-checked', slipId: id, ok, result });
      this.sheet = null;
    };
    this.open({
      title: SLIPS[kind].label,
      words: { say: SLIPS[kind].now, watch: SLIPS[kind].check },
      choices: [
        // first, so that a pedal held too long claims nothing
        { label: 'Check it later', detail: 'stays open until Verify', choose: () => (this.sheet = null) },
        { label: 'Checked, all right', choose: checked(true, 'all right') },
        { label: 'Checked, damage found', choose: checked(false, 'damage found') },
      ],
    });
  }

  end(outcome: 'finished' | 'given up'): void {
    const run = this.course?.run;
    if (run && !run.ended) this.put({ type: 'run-ended', runId: run.id, outcome, ...this.where });
    this.sheet = null;
  }
}
