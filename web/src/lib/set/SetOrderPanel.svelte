<script lang="ts">
  // The order of a set: what each part takes from the warmth the last one left, against the list as it stands. Changed by hand, it is told anew.
  import { layOver, useDesk, type Numbered } from '$lib/jobs/desk.svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import Notice from '$lib/ui/Notice.svelte';
  import OneOf from '$lib/ui/OneOf.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import { currentAttempt, isFreshOrder, setProgress } from '@orthos/core/job';
  import { methodName } from '@orthos/core/rework';
  import type { SetOrder, Stage } from '@orthos/core/sets';
  import { onMount, untrack } from 'svelte';
  import Below from './Below.svelte';
  import { orderedOf } from './ordered';
  import { didOf, setInputOf, setPlannerOf } from './setPlanner.svelte';
  import Timeline from './Timeline.svelte';
  import { countWords, STAGE_WORDS } from './words';

  let { view, units }: { view: JobView; units: UnitSettings } = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));
  const planner = untrack(() => setPlannerOf(view.ticket.id));

  const job = $derived(stateOf(view.events));
  const progress = $derived(setProgress(job));
  /** Part by part, or all of one thing after the other. */
  let each = $state(untrack(() => job.set?.ordered.has('each') ?? false));
  const stage = $derived<Stage>(each ? 'each' : progress?.stage && progress.stage !== 'each' ? progress.stage : 'off');
  const panel = $derived(view.inputs?.panel ?? units);
  const result = $derived(planner.stage === stage ? planner.result : null);
  const told = $derived(job.set?.ordered.get(stage));
  /** Parts in the order that hands changed it to; what was computed without. */
  let byHand = $state<string[] | null>(null);
  /** The order that is kept is the one that is shown. */
  const keyOf = (legs: readonly { partId: string; op: string }[]) => legs.map((l) => `${l.partId} ${l.op}`).join();
  const kept = $derived(
    result !== null &&
      told !== undefined &&
      keyOf(told.legs) === keyOf(result.order) &&
      isFreshOrder(told, view.inputs?.setHash) &&
      !planner.rough,
  );
  const done = $derived(
    new Set(progress?.parts.filter((p) => p.left.length === 0 || isDone(p.item.partId)).map((p) => p.item.partId)),
  );
  const isDone = (partId: string) => {
    const part = progress?.parts.find((p) => p.item.partId === partId);
    return stage === 'off' ? part?.done.remove : stage === 'prepared' ? part?.done.prepare : part?.left.length === 0;
  };

  const asked = $derived.by(() => {
    if (!progress) return null;
    const did = didOf(job, progress, stage);
    const input = setInputOf(view, progress, stage, did);
    return input ? { input, did } : null;
  });
  let askedFor = '';
  async function compute(order: string[] | null = byHand) {
    if (!asked) return;
    askedFor = JSON.stringify([asked.input, asked.did]);
    await planner.ask(asked.input, { did: asked.did, ...(order ? { order } : {}) });
  }
  onMount(() => {
    desk.selected = null;
    desk.lens = 'parts';
    const { result: before, rough, progress: under } = planner;
    if (before && !rough && planner.stage === stage && under === null)
      askedFor = JSON.stringify(asked && [asked.input, asked.did]);
  });
  // whatever the order is made of has changed: it is made anew
  $effect(() => {
    const now = JSON.stringify(asked && [asked.input, asked.did]);
    if (asked && now !== askedFor) untrack(() => void compute());
  });

  async function keep() {
    if (!result || planner.rough) return;
    const first = result.order.find((l) => !isDone(l.partId));
    const at = currentAttempt(job);
    // hands begin with the first, unless they are at one already
    const goes = first && (at.ofSet === undefined || (at.runs.length === 0 && at.ofSet !== first.partId));
    await recorder.recordAll([
      orderedOf(result, stage, byHand !== null, view.inputs?.setHash),
      ...(goes ? [{ type: 'set-at' as const, partId: first.partId }] : []),
    ]);
  }
  /** Moves the picked part up or down. */
  function move(by: -1 | 1) {
    const ids = [...new Set(result?.order.map((l) => l.partId))];
    const n = ids.indexOf(desk.selected ?? '');
    const to = n + by;
    if (n < 0 || to < 0 || to >= ids.length || isDone(ids[n]) || isDone(ids[to])) return;
    [ids[n], ids[to]] = [ids[to], ids[n]];
    byHand = ids;
    void compute(ids);
  }
  function best() {
    byHand = null;
    void compute(null);
  }
  useKeys('Order', () => [
    { keys: ['u'], label: 'use this order', run: () => void keep(), line: true },
    { keys: ['p'], label: 'part sooner', run: () => move(-1) },
    { keys: ['n'], label: 'part later', run: () => move(1) },
    ...(byHand ? [{ keys: ['o'], label: 'the best order again', run: best }] : []),
  ]);

  const numbered = $derived.by((): Numbered[] => {
    const ids = [...new Set(result?.order.map((l) => l.partId))];
    // what was done without its times being told has no number any more
    const before = [...done].filter((partId) => !ids.includes(partId));
    const shown = ids.map((partId, i): Numbered => {
      const lean = leanOf(partId);
      return {
        partId,
        n: i + 1,
        tone: done.has(partId) ? 'done' : partId === desk.selected ? 'now' : 'next',
        ...(lean === undefined ? {} : { from_deg: lean }),
      };
    });
    return [...before.map((partId): Numbered => ({ partId, n: 0, tone: 'done' })), ...shown];
  });
  const leanOf = (partId: string): number | undefined => {
    const phases = result?.methods.find((m) => m.partId === partId)?.method.phases ?? [];
    const air = phases.find((p) => p.kind === 'air');
    return air?.kind === 'air' ? air.settings.approach_deg : undefined;
  };
  layOver(desk, () => ({ numbered }));

  const minutes = (m: number) => `${Math.max(1, Math.round(m))} min`;
  /** Half a minute is nothing to boast of. */
  const longer = (m: number) => (m < 0.5 ? 'no longer' : `${minutes(m)} more`);
  const saved = $derived(result ? result.list_minutes - result.minutes : 0);
  const more = $derived(result && byHand ? result.minutes - result.list_minutes : 0);
  const worstOf = (leg: SetOrder['order'][number]) =>
    leg.worst ? `${nameOf(view.board, leg.worst.partId)} ${Math.round(leg.worst.margin_K)} K` : '';
  const coversOf = (partId: string) => result?.methods.find((m) => m.partId === partId)?.covers ?? [];
</script>

{#snippet strip()}
  {#if result && result.order.length > 0}<Timeline {view} {result} rough={planner.rough} units={panel} {desk} />{/if}
{/snippet}
{#if result}<Below {desk} {strip} />{/if}

<div class="p-5 pt-4">
  <div class="flex flex-wrap items-baseline justify-between gap-x-4">
    <h2 class="text-xl">
      {#if result}
        {stage === 'each' ? 'Part by part' : STAGE_WORDS[stage]}: about {minutes(result.minutes)}
      {:else}The order of {progress?.parts.length ?? 0} parts{/if}
    </h2>
    {#if progress}<span class="text-[13px] text-ink2">{countWords(progress)}</span>{/if}
  </div>
  <p class="text-ink2">
    {#if planner.progress !== null}
      {planner.rough ? 'Run through with the heat that each leaves' : 'Each part by itself, then orders of them'}:
      {Math.round(100 * planner.progress)} %
      <button class="ml-2 underline" onclick={() => planner.end()}>Cancel</button>
    {:else if result && byHand}
      Changed by hand: {Math.abs(more) < 0.5
        ? 'as long as the list'
        : `${minutes(Math.abs(more))} ${more < 0 ? 'less' : 'more'} than the list`}.
    {:else if result && result.order.length > 1}
      As listed {longer(saved)}; always the nearest next {longer(result.nearest_minutes - result.minutes)}.
    {:else if !asked}No bench is known yet.{/if}
  </p>
  <Notice text={planner.problem ?? recorder.problem} at="panel" class="mt-2" />

  <div class="mt-2 flex flex-wrap items-center gap-3">
    <button
      class="button button-main"
      disabled={!result || planner.rough || kept || recorder.busy}
      onclick={() => void keep()}
    >
      {kept ? 'In use' : 'Use this order'}
    </button>
    {#if !result && planner.progress === null && asked}<button class="button" onclick={() => void compute()}
        >Compute</button
      >{/if}
    {#if byHand}<button class="button" onclick={best}><kbd class="keycap">O</kbd> the best again</button>{/if}
    <OneOf
      aria-label="How the set is worked"
      choices={{ all: 'all of one thing first', each: 'part by part' }}
      value={each ? 'each' : 'all'}
      onchange={(to) => {
        each = to === 'each';
        byHand = null;
      }}
    />
  </div>

  {#if progress && progress.missing.length > 0}
    <p class="mt-2 text-[14px] text-stop">
      <span aria-hidden="true">▲</span> Not here yet: {progress.missing
        .map((i) => nameOf(view.board, i.partId))
        .join(', ')}.
      <a class="underline" href="/jobs/{view.ticket.id}/diagnose">The list</a>
    </p>
  {/if}
  {#each result?.cannot ?? [] as c (c.partId + c.op)}
    <p class="mt-2 text-[14px] text-stop">
      <span aria-hidden="true">▲</span>
      {nameOf(view.board, c.partId)}: {c.why}
    </p>
  {/each}

  {#if result}
    <table class="mt-3 w-full border-collapse text-[14px]" role="grid" aria-label="Order">
      <thead>
        <tr class="text-left text-[12.5px] text-ink2">
          <th class="w-8 py-1 font-normal"><span class="sr-only">number</span></th>
          <th class="py-1 font-normal">part</th>
          <th class="py-1 font-normal">how</th>
          <th class="py-1 text-right font-normal">board then</th>
          <th class="py-1 text-right font-normal">rest</th>
          <th class="py-1 text-right font-normal">loose after</th>
          <th class="py-1 text-right font-normal">from cold</th>
          <th class="py-1 text-right font-normal">nearest limit</th>
        </tr>
      </thead>
      <tbody>
        {#each result.order as leg, i (leg.partId + leg.op)}
          {@const hurt = leg.worst !== null && leg.worst.margin_K < 0}
          {@const covers = coversOf(leg.partId)}
          <tr
            class="cursor-pointer border-t border-faint {desk.selected === leg.partId ? 'bg-evidence-soft' : ''}"
            aria-selected={desk.selected === leg.partId}
            onclick={() => {
              const part = view.board.parts.find((p) => p.partId === leg.partId);
              if (part) desk.show(part);
            }}
          >
            <td class="py-1 text-ink2 tabular-nums">{i + 1}</td>
            <td class="py-1 pr-2 font-semibold whitespace-nowrap">
              {isDone(leg.partId) ? '✓ ' : ''}{nameOf(view.board, leg.partId)}{leg.flip ? ', board turned' : ''}
            </td>
            <td class="max-w-48 truncate py-1 pr-2 text-ink2">
              {leg.op === 'prepare' ? 'lands' : leg.method ? methodName(leg.method).toLowerCase() : ''}{covers.length >
              0
                ? `, ${covers.map((c) => (c.partId ? nameOf(view.board, c.partId) : 'board')).join(', ')} covered`
                : ''}
            </td>
            <td class="py-1 text-right tabular-nums"
              >{leg.op === 'prepare' ? '' : formatTemperature(leg.start_C, panel)}</td
            >
            <td class="py-1 text-right tabular-nums">{leg.rest_s > 0 ? `${Math.round(leg.rest_s)} s` : ''}</td>
            <td class="py-1 text-right font-semibold tabular-nums">
              {leg.op === 'prepare'
                ? ''
                : leg.loose_s === null
                  ? 'never'
                  : `${planner.rough ? '≈ ' : ''}${Math.round(leg.loose_s)} s`}
            </td>
            <td class="py-1 text-right text-ink2 tabular-nums"
              >{leg.cold_s === null ? '' : `${Math.round(leg.cold_s)} s`}</td
            >
            <td class="py-1 text-right whitespace-nowrap {hurt ? 'font-semibold text-stop' : ''}"
              >{hurt ? '▲ ' : ''}{worstOf(leg)}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    <p class="mt-1 text-[13px] text-ink2">
      <kbd class="keycap">P</kbd> <kbd class="keycap">N</kbd> move the picked part sooner or later; everything is told anew.
    </p>
  {/if}
</div>
