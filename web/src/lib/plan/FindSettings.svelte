<script lang="ts">
  // What the dials of this bench should be set to: searched in the pool, shown beside what is set now, taken in one act.
  import { runInPool } from '$lib/compute/pool';
  import type { PlanInputs } from '$lib/jobs/view';
  import Notice from '$lib/ui/Notice.svelte';
  import type { BoardModel } from '@orthos/core/board';
  import type { Free, Row, Tuned, TunedSoFar, Weights } from '@orthos/core/compare';
  import { COVER_NAMES } from '@orthos/core/hands';
  import { COVER_KINDS, kindOf, type Method, methodName, type Panel } from '@orthos/core/rework';
  import { onDestroy } from 'svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import { planInputOf } from './planInput';
  import { fieldName, fieldsOf, textsOf, unitName } from './settings';
  import { lasts, neighboursBar, padsBar, VERDICT } from './ways';

  interface Props {
    board: BoardModel;
    inputs: PlanInputs;
    method: Method;
    weights: Weights;
    units: Panel;
    /** The neighbour that suffers most, where a cover may help it. */
    worst?: string;
    onTake: (method: Method, covers: Tuned['covers']) => Promise<unknown>;
    onClose: () => void;
  }
  let { board, inputs, method, weights, units, worst, onTake, onClose }: Props = $props();

  let done = $state(0);
  let busy = $state(false);
  let taking = $state(false);
  let problem = $state('');
  /** The best so far while it is searched, `nearly` where a glance alone says so. */
  let found = $state.raw<(Tuned & { nearly?: boolean }) | null>(null);
  let abort = new AbortController();
  onDestroy(() => abort.abort());

  const air = $derived(method.phases.some((p) => p.kind === 'air' || p.kind === 'peel'));
  /** The best cover of this bench. */
  const cover = $derived(COVER_KINDS.find((k) => inputs.bench.covers?.includes(k) ?? true));
  const free = $derived<Free>({
    ...inputs.free[method.id],
    ...(air && worst && cover ? { [`cover.${worst}`]: ['none', cover] } : {}),
  });
  const nothing = $derived(Object.keys(free).length === 0);

  async function search() {
    abort = new AbortController();
    const { signal } = abort;
    // progress comes by a way of its own and may arrive after the end
    const onProgress = (part: number, better?: unknown) => {
      if (!busy || signal.aborted) return;
      done = Math.max(done, part);
      if (better) found = better as TunedSoFar;
    };
    [busy, problem, found, done] = [true, '', null, 0];
    const { phases, quality: _, frames: __, ...plan } = planInputOf(board, inputs, method, false);
    try {
      found = await runInPool<Tuned>(
        'plan.tune',
        { ...plan, phases, as: method.id, free, weights: { ...weights } },
        { signal, onProgress },
      );
    } catch (e) {
      if ((e as Error).name !== 'AbortError') problem = (e as Error).message;
    } finally {
      busy = false;
    }
  }
  async function take() {
    if (!found) return;
    abort.abort();
    taking = true;
    await onTake({ ...method, phases: found.phases }, found.covers);
    taking = false;
  }

  /** What is turned, from what to what, as its form calls it. */
  const changes = $derived.by(() => {
    if (!found) return [];
    const [was, is] = [textsOf(method, units), textsOf({ ...method, phases: found.phases }, units)];
    const before = inputs.settings.surroundings?.covers ?? [];
    const laid = found.covers.flatMap(({ partId, kind }) =>
      partId === undefined || before.some((c) => c.partId === partId && c.kind === kind)
        ? []
        : [`${COVER_NAMES[kind]} over ${nameOf(board, partId)}`],
    );
    const dials = method.phases.flatMap((p) => {
      const { usual, more } = fieldsOf(p);
      return [...usual, ...more].flatMap((f) => {
        const name = fieldName(p, f);
        const to = is[name] === '' ? 'none' : `${is[name]} ${unitName(f, units)}`;
        return was[name] === is[name] ? [] : [`${f.label} ${was[name] || 'none'} → ${to}`];
      });
    });
    return [...dials, ...laid];
  });
  /** What stands at an end of what was looked at: further that way nobody looked. */
  const atEnds = $derived.by(() => {
    if (!found) return [];
    const { settings } = found;
    return method.phases.flatMap((p) => {
      const { usual, more } = fieldsOf(p);
      return [...usual, ...more].flatMap((f) => {
        const key = `${p.id}.${f.key}`;
        const ends = free[key]?.length === 2 && free[key].every((v) => typeof v === 'number');
        return ends && free[key].some((v) => v === settings[key]) ? [f.label.toLowerCase()] : [];
      });
    });
  });
  const better = $derived(found !== null && found.score < (found.before.score ?? Infinity) - 1e-3);
  /** The search is through. */
  const ended = $derived(found !== null && found.nearly === undefined);
  const rows = $derived<[string, Row, Method['phases']][]>(
    found
      ? [
          ['as set', found.before, method.phases],
          [ended ? 'found' : 'best so far', found.row, found.phases],
        ]
      : [],
  );
</script>

<section class="mt-3 border border-line bg-sheet p-3" aria-label="Find settings">
  <div class="flex flex-wrap items-center gap-3">
    <h3 class="flex-1">Settings for {methodName(method.id).toLowerCase()} on this bench</h3>
    {#if busy}
      <progress class="w-40 accent-evidence" max="1" value={done} aria-label="Settings looked at"></progress>
      <button class="button px-3" onclick={() => abort.abort()}>Cancel</button>
    {:else}
      <button class="button px-3" onclick={search} disabled={nothing || taking}
        >{found ? 'Search again' : 'Search'}</button
      >
    {/if}
    <button class="button px-3" onclick={onClose}>Close</button>
  </div>
  <p class="mt-1 text-[13px] text-ink2">
    {nothing
      ? 'Nothing of it can be turned on this bench.'
      : 'Looks at what the tools here can be set to and keeps what costs least by pads, neighbours, part and minutes as weighed above.'}
  </p>
  <Notice text={problem} at="panel" class="mt-2" />
  {#if found}
    <table class="mt-2 w-full text-[13px]" aria-label="Settings found">
      <thead>
        <tr class="text-left text-ink2">
          <th></th><th>Settings</th><th>All loose</th><th>Neighbours</th><th>Pads</th><th>Open</th><th>Costs</th>
        </tr>
      </thead>
      <tbody>
        {#each rows as [name, row, phases] (name)}
          {@const verdict = VERDICT[row.verdict]}
          <tr class="border-t border-faint align-top {name === 'as set' ? '' : 'font-semibold'}">
            <th class="py-1 pr-2 text-left font-normal text-ink2">{name}</th>
            <td class="pr-2">{phases.map((p) => kindOf(p).line(p.settings as never, units)).join('; ')}</td>
            <td class="pr-2 whitespace-nowrap">{row.loose_s?.p50 ? lasts(row.loose_s.p50) : 'never'}</td>
            <td class="pr-2 whitespace-nowrap">{neighboursBar(row, board).word}</td>
            <td class="pr-2 whitespace-nowrap">{padsBar(row)?.word ?? ''}</td>
            <td class="pr-2 whitespace-nowrap">{Math.round(100 * (row.window?.p_open ?? 0))} %</td>
            <td class="whitespace-nowrap"
              ><span class="text-{verdict.tone}"
                >{verdict.mark} {found.nearly && name !== 'as set' ? '≈ ' : ''}{row.verdict}</span
              >
              {row.score?.toFixed(3)}</td
            >
          </tr>
        {/each}
      </tbody>
    </table>
    {#if better && changes.length > 0}<p class="mt-2">{changes.join(', ')}</p>{/if}
    {#if ended && better && atEnds.length > 0}
      <p class="text-[13px] text-caution">
        ◆ At the end of what was looked at: {atEnds.join(', ')}. Seconds there are least sure; try it on scrap first.
      </p>
    {/if}
    <div class="mt-2 flex flex-wrap items-center gap-3">
      {#if better && (ended || found.row.verdict !== 'no')}
        <button class="button button-main px-3" onclick={take} disabled={taking}>Take these settings</button>
      {/if}
      <p class="text-[13px] text-ink2">
        {better ? '' : 'Nothing better than what is set. '}{found.evaluated} settings looked at{ended ? '' : ' so far'}.
        {#if found.nearly}≈ by one run of each.{/if}
        {#if found.row.verdict !== 'works'}
          <span class="text-caution">◆ {found.row.why}.</span>
        {/if}
      </p>
    </div>
  {/if}
</section>
