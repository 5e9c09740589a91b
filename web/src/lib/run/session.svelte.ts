/** One operation under way: what is due, what a tap, a hold and "back" mean. Knows nothing of how it looks. */
import { aboutWork } from '$lib/jobs/about';
import { stateOf } from '$lib/jobs/stateOf';
import { goto } from '$app/navigation';
import { isWell, send, SendError } from '$lib/jobs/send';
import type { JobView } from '$lib/jobs/view';
import { type Composition, writeComposition } from '@orthos/core/alloys';
import { doubtId, drawnMark, lateBy, LOOKED_WORDS, saidIn, withAlloy } from '@orthos/core/hands';
import { atPart, legOf } from '$lib/set/atPart';
import {
  blocks,
  currentAttempt,
  type JobEvent,
  type JobEventBody,
  type JointMark,
  jointStates,
  setProgress,
} from '@orthos/core/job';
import {
  type Guide,
  type Instruction,
  latestSafe,
  type Method,
  type Operation,
  type Phase,
  type WindowPhase,
  windowPhase,
  type Words,
  wordsAt,
} from '@orthos/core/rework';
import { v4, v7 } from 'uuid';
import type { Turn } from './benchAnswers';
import { outbox, postEvent, type Answer } from './outbox.svelte';
import type { PlayedBench } from './playedBench.svelte';
import { Prediction } from './prediction.svelte';
import type { Hands, Trouble } from './trouble.svelte';
import { courseOf, mergedLog, methodsOf, walksOf, type Course } from './work';

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
  problem = $state<string | null>(null);
  beginning = $state(false);
  /** The method chosen before the run begins. */
  methodId = $state<string | null>(null);
  bench = $state(false);
  /** Begin the operation once more after it has ended. */
  again = $state(false);

  readonly op: Operation;
  private readonly getView: () => JobView;
  constructor(getView: () => JobView, op: Operation) {
    this.getView = getView;
    this.op = op;
    void import('./trouble.svelte').then((m) => (this.trouble = new m.Trouble(() => this.atHand())));
  }

  /** What may be wrong, and what may come of it. */
  private atHand(): Hands {
    return {
      view: this.view,
      op: this.op,
      runId: this.course?.run.id,
      due: this.due,
      phase: this.course?.run.phases?.find((p) => p.id === this.due?.phase),
      joint: this.joint,
      hot: this.hot,
      put: (body) => this.box.put(this.view.ticket.id, body).id,
      walk: (state) => this.walk(state),
      oneHolds: () => this.oneHolds(),
      otherAlloy: (alloy) => this.otherAlloy(alloy),
      end: (outcome) => this.end(outcome),
    };
  }

  private loaded = $derived.by(() => this.getView());
  /** The log as the server told it after the page was loaded. */
  private told = $state.raw<JobEvent[]>([]);
  events = $derived.by(() =>
    mergedLog(
      this.told.length > this.loaded.events.length ? this.told : this.loaded.events,
      this.box.of(this.loaded.ticket.id),
    ),
  );
  state = $derived.by(() => stateOf(this.events));
  /** The job at the part that hands are at now. */
  view = $derived.by<JobView>(() => atPart({ ...this.loaded, events: this.events }, this.state));
  /** Of a set: how far it has come, and what the order says of this part. */
  set = $derived.by(() => setProgress(this.state));
  leg = $derived.by(() => (this.set ? legOf(this.view, this.op) : undefined));
  /** Times of this part from what really went before it, of a set; null while they are not there. */
  private timed = $state.raw<{ partId: string; guide: Guide } | null>(null);
  course = $derived.by<Course | null>(() => courseOf(this.view, this.events, this.op));
  methods = $derived.by<Method[]>(() => methodsOf(this.view, this.op));
  /** The run under way, or over; none while it is about to be begun once more. */
  private run = $derived.by(() => (this.again && this.course?.run.ended ? null : (this.course?.run ?? null)));
  method = $derived.by(
    () =>
      this.methods.find((m) => m.id === (this.run?.methodId ?? this.methodId ?? this.course?.run.methodId)) ??
      (this.methods[0] as Method | undefined),
  );
  /** When joints should be wet. */
  readonly times = new Prediction(
    () => ({
      view: this.view,
      op: this.op,
      method: this.method,
      state: this.state,
      run: this.run,
    }),
    () => this.now,
  );
  guide = $derived.by<Guide | null>(() => {
    const { timed } = this;
    const fresh = timed && !this.run && this.op === 'remove' && timed.partId === this.leg?.partId;
    return fresh ? timed.guide : this.times.guide;
  });
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
  /** What is told to be changed on the way, once its time has come; s since the heat came on. */
  changed = $derived.by<string | null>(() => {
    const at = this.due?.later?.findLast((l) => (this.elapsed ?? -1) >= l.from_s);
    return at ? `${this.due?.id} ${at.from_s}` : null;
  });
  words = $derived.by<Words | null>(() => {
    if (!this.due) return null;
    return this.hot ? wordsAt(this.due, this.phase, this.elapsed ?? 0) : this.due;
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
  private walks = $derived.by(() =>
    this.course && this.op !== 'prepare' ? walksOf(this.course) : { any: false, last: false },
  );
  /** Whether joints come loose one after the other, not all together. */
  oneByOne = $derived.by(() => this.walks.last);
  /** When the joint whose turn it is should be done, s from now; null when it never is, or nothing is known. */
  turnLeft = $derived.by<number | null>(() => {
    const turn = this.turns.at(-1);
    const takes = this.guide?.turns?.find((t) => t.terminal === this.joint)?.takes_s ?? null;
    return this.op !== 'remove' || turn?.terminal !== this.joint || takes === null ? null : takes - turn.seconds;
  });
  /** What hands are at: the phase told now, or all of a run that has not begun. */
  phases = $derived.by<readonly Phase[]>(() => {
    const all = this.course?.run.phases ?? this.method?.phases ?? [];
    const now = all.filter((p) => p.id === this.due?.phase);
    return now.length > 0 ? now : all;
  });
  /** What a hold of the pedal opens; fetched with the page. */
  trouble = $state.raw<Trouble | null>(null);
  /** The hidden bench, where one plays. */
  played = $state.raw<PlayedBench | null>(null);
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

  /** Where hands do otherwise than planned, the plan's times are void, and computed for what is done. */
  async correct(): Promise<void> {
    const { course } = this;
    if (!course || course.run.ended || this.op !== 'remove') return;
    const { run, list } = course;
    const late_s = run.late_s === undefined ? lateBy(list, run, run.guide?.starts_s) : 0;
    if (late_s > 0) return this.change(`its last tool came ${late_s} s later than planned`, { late_s, guide: null });
    const why = run.changes.at(-1);
    const doing = JSON.stringify([run.id, run.phases, run.late_s]);
    if (run.guide || why === undefined || !run.phases || doing === this.correctingFor) return;
    this.correctingFor = doing;
    this.correcting.abort();
    const { signal } = (this.correcting = new AbortController());
    const guide = await this.times.compute(run.phases, { signal, late_s: run.late_s ?? 0, quickly: true });
    if (guide) this.change(why, { guide });
  }
  /** What times are being computed for while the run goes on. */
  private correctingFor = '';
  private correcting = new AbortController();

  private change(
    why: string,
    what: Omit<Extract<JobEventBody, { type: 'run-changed' }>, 'type' | 'runId' | 'why'>,
  ): void {
    const run = this.course?.run;
    if (run) this.put({ type: 'run-changed', runId: run.id, why, ...what, ...this.where });
  }

  /** Another alloy is laid, or worked in, than the plan's. */
  private otherAlloy(alloy: Composition): void {
    const phases = this.course?.run.phases;
    if (phases)
      this.change(`${writeComposition(alloy)} instead of the alloy planned`, {
        phases: withAlloy(phases, alloy),
        guide: null,
      });
  }

  /** The hidden bench of a run plays what hands really do. */
  async playHiddenBench(): Promise<void> {
    const { course, method, times } = this;
    const run = course?.run;
    const phases = run?.phases ?? method?.phases;
    const plan = run?.bench && phases ? times.input(phases, run.late_s) : null;
    const before = times.before.length;
    if (!run || !plan) return;
    const { PlayedBench } = await import('./playedBench.svelte');
    this.played ??= new PlayedBench(() => ({
      pinByPin: this.walks.any,
      fitting: this.op === 'fit',
      run: this.course?.run ?? null,
      turns: this.turns,
      joint: this.joint,
      tried: this.due?.trying === true,
      oneByOne: this.oneByOne,
      hot: this.hot,
      heatOff: this.heatOff !== null,
      elapsed: this.elapsed,
    }));
    await this.played.play(run.id, plan, before);
  }
  /** The page is left: nothing is computed for it any longer. */
  leaves(): void {
    this.played?.stop();
    this.correcting.abort();
  }

  async begin(): Promise<void> {
    if (!this.method || this.beginning || this.blocked.length > 0) return;
    this.beginning = true;
    this.problem = null;
    // times that are being computed come along
    await this.times.settled;
    const body = {
      type: 'run-begun' as const,
      runId: v4(),
      op: this.op,
      methodId: this.method.id,
      phases: this.op === 'remove' ? this.times.phases : this.method.phases,
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
    if (this.trouble?.sheet) return this.trouble.next();
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
    const step = this.set?.next?.op ?? NEXT_STEP[this.op];
    if (await isWell()) await goto(`/jobs/${this.view.ticket.id}/${step}`);
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
    if (instruction === course.list.at(-1) || instruction.id === course.list.at(-1)?.id) {
      this.put({ type: 'run-ended', runId: course.run.id, outcome: 'finished', ...this.where }, at);
      this.toNext();
    }
  }

  /** Hands go on to the next part of the set, as long as it is the same work. */
  private toNext(): void {
    const [now, next] = [currentAttempt(this.state).ofSet, this.set?.next];
    if (now === undefined || !next || next.op !== this.op || next.partId === now) return;
    this.methodId = null;
    this.put({ type: 'set-at', partId: next.partId });
  }
  /** Back to the part that was done last. */
  private toLast(): void {
    const runs = this.state.attempts.flatMap((a) =>
      a.ofSet === undefined
        ? []
        : a.runs.flatMap((r) => (r.op === this.op && r.ended ? [{ partId: a.ofSet, at: r.ended.at }] : [])),
    );
    const last = runs.toSorted((a, b) => a.at - b.at).at(-1)?.partId;
    if (last !== undefined && last !== currentAttempt(this.state).ofSet) this.put({ type: 'set-at', partId: last });
  }

  /** Which way round the part in the tweezers lies: its mark where the board's own is. */
  sayOrientation(): void {
    const part = this.view.board.parts.find((p) => p.partId === currentAttempt(this.state).ofSet);
    const mark = part && drawnMark(part);
    if (!mark || this.op !== 'fit') return;
    const seen = { lies: mark, belongs: [{ by: 'silkscreen' as const, at: mark }] };
    this.put({ type: 'orientation-checked', against: [LOOKED_WORDS.silkscreen], seen });
  }

  /** Of a set: computes the times of this part anew, from what really went and from when hands are free. */
  async retime(): Promise<void> {
    const { set, state, leg, op } = this;
    if (!set || !leg || op !== 'remove' || set.stage === null) return;
    const { retimed } = await import('$lib/set/retime');
    const guide = await retimed(this.view, state, set, leg.partId);
    if (guide) this.timed = { partId: leg.partId, guide };
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
    if (this.trouble?.sheet) return this.trouble.close();
    const run = this.course?.run;
    if (!run) return this.toLast();
    const gone = this.state.withdrawn;
    const live = this.events.filter((e) => !gone.has(e.id));
    const mine = live.filter(({ body: b }) => 'runId' in b && b.runId === run.id && b.type !== 'run-begun');
    const last = mine.findLast(({ body: b }) => b.type === 'mark' || b.type === 'joint');
    if (!last) return;
    const after = mine.slice(mine.indexOf(last)).filter((e) => ['run-ended', 'run-changed'].includes(e.body.type));
    const ids = [...after.map((e) => e.id), last.id];
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
    if (this.trouble?.sheet) this.trouble.take();
    else if (this.course && !this.ended) this.trouble?.ask();
  }

  end(outcome: 'finished' | 'given up'): void {
    const run = this.course?.run;
    if (run && !run.ended) this.put({ type: 'run-ended', runId: run.id, outcome, ...this.where });
  }
}
