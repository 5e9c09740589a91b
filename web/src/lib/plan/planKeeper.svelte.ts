/** The plan of a job on its page: what is stored and what is computed on this visit, which way is shown, and which one the hands follow. */
import { aboutWork } from '$lib/jobs/about';
import { recordEvent, reloadView, SendError, sendPlan, takeKnownPlan } from '$lib/jobs/send';
import type { JobView } from '$lib/jobs/view';
import { EVEN, inTheEnd, type Planned, type Row, weighed, type Weights } from '@orthos/core/compare';
import { isDoable, type Method } from '@orthos/core/rework';
import { ENGINE_VERSION } from '@orthos/core/thermal';
import { untrack } from 'svelte';
import { Edits } from './edits';
import { type Planner, plannerOf } from './planner.svelte';

/** What its page does meanwhile. */
interface Page {
  /** All is computed anew. */
  begins: () => void;
  /** What it computes from was changed, and stored. */
  changed: () => void;
  /** A way is through, and shown. */
  shows: (result: Planned) => void;
}

export class PlanKeeper {
  readonly planner: Planner;
  readonly edits: Edits;
  /** The way that is shown. */
  chosen = $state<string | null>(null);
  /** What counts how much, as it is weighed on this page. */
  weights = $state<Weights>(EVEN);
  problem = $state<string | null>(null);
  cancelled = $state(false);
  using = $state(false);
  /** What somebody picked, against what is proposed. */
  private picked = $state<string | null>(null);
  /** Asked for, and not begun: what was computed before may be taken over. */
  private starting = $state(false);
  /** Picked while others were computed: it was asked for once. */
  private asked = '';
  private left = false;
  private readonly view: () => JobView;
  private readonly page: Page;

  /** On a component's way in. `asked`: a way that the address asks for. */
  constructor(view: () => JobView, asked: string | null, page: Page) {
    this.view = view;
    this.page = page;
    const { ticket, inputs } = untrack(view);
    this.planner = plannerOf(ticket.id);
    this.edits = new Edits({
      view,
      onKept: () => {
        // what is computed meanwhile is of what was set before
        this.planner.cancel();
        this.planner.forget();
        this.cancelled = false;
        page.changed();
      },
      onProblem: (message) => (this.problem = message),
    });
    if (inputs?.methods.some((m) => m.method.id === asked && isDoable(m))) this.picked = this.chosen = asked;
    $effect(() => this.propose());
    // asked for while others were computed, it comes after them; where nothing was computed yet, it comes with all of it
    $effect(() => {
      const { picked, planner, stale, starting } = this;
      if (!picked || starting || planner.anew || stale || this.results[picked] || this.asked === picked) return;
      if (!this.view().plan && !planner.from) return;
      this.asked = picked;
      untrack(() => void this.more(picked));
    });
  }

  readonly inputs = $derived.by(() => this.view().inputs);
  /** What is stored, with what was computed on this visit; nothing old while all is computed anew. */
  readonly results = $derived.by<Record<string, Planned>>(() =>
    this.planner.anew ? this.planner.results : { ...this.view().plan?.results, ...this.planner.results },
  );
  /** What is known of each way: in full, else a first answer. */
  readonly rows = $derived.by<Record<string, Row>>(() =>
    Object.fromEntries(
      [...Object.entries(this.planner.quick), ...Object.entries(this.results)].flatMap(([id, r]) =>
        r.row ? [[id, r.row]] : [],
      ),
    ),
  );
  /** Ways that are computed in full. */
  readonly sure = $derived.by(() => new Set(Object.keys(this.results)));
  /** Ways whose tools are all there. */
  readonly here = $derived.by(() => new Set(this.inputs?.methods.filter(isDoable).map((m) => m.method.id)));
  /** Their order, as weighed, and why. */
  readonly end = $derived.by(() =>
    inTheEnd(Object.values(this.rows).flatMap((r) => (this.here.has(r.id) ? [weighed(r, this.weights)] : []))),
  );
  /** Inputs have changed since it was computed. */
  readonly stale = $derived.by(
    () => !this.planner.running && this.view().plan !== null && this.view().freshness === 'stale',
  );
  readonly oldEngine = $derived.by(() => !this.planner.running && this.view().freshness === 'older-engine');
  /** Of the way that is shown. */
  readonly result = $derived.by(() => (this.chosen ? this.results[this.chosen] : undefined));
  readonly method = $derived.by(() => this.methodOf(this.chosen));
  /** The way the hands follow, as long as its plan holds. */
  readonly inUse = $derived.by(() => {
    const { gates, inUse } = this.view();
    return gates.find((g) => g.id === 'plan-fresh')?.state === 'met' ? inUse?.method.id : undefined;
  });
  private readonly isStored = $derived.by(
    () => !this.planner.anew && this.chosen !== null && this.view().plan?.results[this.chosen] !== undefined,
  );
  /** Computed in full, of today's inputs, and with tools that are there: hands may follow it, whether or not others are still computed. */
  readonly usable = $derived.by(() => {
    const { chosen, stale, here, planner } = this;
    return (
      chosen !== null && !stale && here.has(chosen) && (this.isStored || (planner.anew && this.result !== undefined))
    );
  });
  /** Each way was looked at, in this visit or when the plan was stored. */
  private readonly isLookedAt = $derived.by(
    () => this.view().plan?.whole === true || [...this.here].every((id) => this.rows[id] !== undefined),
  );
  /** No way is safe as tools are usually set. */
  readonly shut = $derived.by(
    () =>
      !this.planner.running &&
      !this.stale &&
      this.sure.size > 0 &&
      this.isLookedAt &&
      !this.end.rows.some((r) => r.verdict === 'works' && !r.lastResort),
  );

  /** Shows a way that somebody picked. */
  pick(id: string | null): void {
    this.picked = this.chosen = id;
  }

  private methodOf(id: string | null): Method | undefined {
    return this.inputs?.methods.find((m) => m.method.id === id && !m.unfit)?.method;
  }

  /** What was picked or is in use stays; else the best so far is shown, in full or by its first answer once every way has one. */
  private propose(): void {
    const { chosen, planner } = this;
    if (chosen && (chosen === this.picked || chosen === this.inUse)) return;
    if (planner.anew)
      this.chosen = (planner.timing.quick === null ? null : this.end.rows.find((r) => !r.lastResort)?.id) ?? chosen;
    else if (!planner.running && !(chosen && this.results[chosen])) this.chosen = this.bestOf(this.results) ?? chosen;
  }

  /** The way to propose of those computed in full. */
  private bestOf(at: Record<string, Planned>): string | null {
    const full = Object.values(at).flatMap((r) =>
      r.row && this.here.has(r.row.id) ? [weighed(r.row, this.weights)] : [],
    );
    return inTheEnd(full).rows.find((r) => !r.lastResort)?.id ?? Object.keys(at)[0] ?? null;
  }

  /** Computes all, or what is missing of a plan that was left; called off or failed, what is through by then stays. */
  async compute(): Promise<void> {
    this.asked = '';
    this.starting = true;
    await this.edits.storing;
    const { inputs: from, planner } = this;
    if (!from || this.here.size === 0) return void (this.starting = false);
    this.problem = null;
    this.cancelled = false;
    this.page.begins();
    // the page may be left, or its inputs changed, while this goes on
    const { board, freshness, plan, ticket } = this.view();
    const begun = freshness === 'fresh' && plan?.whole === false;
    await this.told(async () => {
      // asked for again where it stands already, it is computed again; so it is while nobody answers
      if ((begun || freshness !== 'fresh') && (await takeKnownPlan(ticket.id).catch(() => false))) {
        planner.forget();
        if (!this.left) this.look(this.view().plan?.results ?? {});
        return;
      }
      const known = (begun && plan.results) || {};
      const computing = planner.compute(board, from, () => (this.picked ? [this.picked] : []), known);
      this.starting = false;
      const whole = await computing;
      if (whole && !this.left) this.look(planner.results);
      if (!whole && (planner.running || Object.keys(planner.results).length <= Object.keys(known).length)) return;
      await this.send(ticket.id, from.hash, planner.results, whole);
    });
    this.starting = false;
  }

  /** The page is left; what was begun on it goes on without it. */
  leave(): void {
    this.left = true;
  }

  cancel(): void {
    this.planner.cancel();
    this.cancelled = true;
  }

  /** Shows what was picked or is in use already, else the best, at the moment it is through. */
  private look(at: Record<string, Planned>): void {
    // what was picked and is not there yet comes after the others
    const wanted = this.methodOf(this.picked)?.id;
    this.chosen = wanted ?? (this.inUse && at[this.inUse] ? this.inUse : this.bestOf(at));
    if (this.chosen && at[this.chosen]) this.page.shows(at[this.chosen]);
  }

  /** Somebody picked a way that was not computed in full: it is now, and kept with the others. */
  private async more(id: string): Promise<void> {
    const { inputs: from, planner, results: before } = this;
    const wanted = this.methodOf(id);
    if (!from || !wanted || planner.anew || before[id]) return;
    const { board, plan, ticket } = this.view();
    if (!(await planner.add(board, from, wanted))) return;
    const whole = plan?.whole ?? false;
    await this.told(() => this.send(ticket.id, from.hash, { ...before, ...planner.results }, whole));
  }

  /** First answers of ways that have none yet. */
  first(methods: readonly Method[]): void {
    if (this.inputs) void this.planner.look(this.view().board, this.inputs, methods);
  }

  /** The field of the way that is shown: a stored plan brings none. */
  picture(): void {
    const { inputs, method, planner, result, stale } = this;
    if (!inputs || !method || !result || stale || planner.running) return;
    untrack(() => void planner.fetchFrames(this.view().board, inputs, method));
  }

  /** The hands follow the way that is shown. */
  async use(): Promise<void> {
    const { chosen: methodId, planner } = this;
    if (!methodId || !this.usable || this.using) return;
    this.using = true;
    const view = this.view();
    const { ticket, plan } = view;
    await this.told(async () => {
      const planId =
        this.isStored && plan ? plan.id : await this.send(ticket.id, planner.from?.hash, planner.results, false);
      await recordEvent(ticket.id, { type: 'plan', planId, methodId, ...aboutWork(view) });
    });
    this.using = false;
  }

  /** Computed with what was changed, as soon as the server has it. */
  async anew(kept: Promise<boolean>, then?: () => void): Promise<void> {
    if (!(await kept)) return;
    then?.();
    await this.compute();
  }

  private send(
    ticketId: string,
    inputHash: string | undefined,
    results: Record<string, Planned>,
    whole: boolean,
  ): Promise<string> {
    return sendPlan(ticketId, { inputHash, engineVersion: ENGINE_VERSION, results, whole });
  }

  /** What goes wrong is said; a plan of inputs that have changed meanwhile is looked at anew. */
  private async told(act: () => Promise<unknown>): Promise<void> {
    try {
      await act();
    } catch (e) {
      this.problem = (e as Error).message;
      if (e instanceof SendError && e.status === 409) await reloadView();
    }
  }
}
