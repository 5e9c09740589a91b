<script lang="ts">
  // Where no window is: what would open one on this bench, what each costs, or what another bench would need.
  import { runInPool } from '$lib/compute/pool';
  import type { PlanInputs } from '$lib/jobs/view';
  import Notice from '$lib/ui/Notice.svelte';
  import type { BoardModel } from '@orthos/core/board';
  import type { Rescue, Way } from '@orthos/core/compare';
  import { kindOf, type Panel } from '@orthos/core/rework';
  import { onDestroy } from 'svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import { planInputOf } from './planInput';
  import { changeWords } from './wayOutWords';
  import { lasts, neighboursBar, padsBar, VERDICT } from './ways';

  interface Props {
    board: BoardModel;
    inputs: PlanInputs;
    units: Panel;
    onTake: (way: Way) => Promise<unknown>;
  }
  let { board, inputs, units, onTake }: Props = $props();

  let done = $state(0);
  let busy = $state(false);
  let problem = $state('');
  let ways = $state.raw<readonly Way[]>([]);
  let found = $state.raw<Rescue | null>(null);
  let abort = new AbortController();
  onDestroy(() => abort.abort());

  async function look() {
    abort = new AbortController();
    [busy, problem, found, ways, done] = [true, '', null, [], 0];
    const { phases: _, frames: __, ...plan } = planInputOf(board, inputs, { phases: [] }, false);
    const choices = inputs.methods.flatMap(({ method, unfit, lacks }) => (unfit ? [] : [{ method, lacks }]));
    try {
      found = await runInPool<Rescue>(
        'plan.way-out',
        { ...plan, quality: 'coarse', choices, kit: inputs.bench.tools },
        {
          signal: abort.signal,
          onProgress(part, partial) {
            done = Math.max(done, part);
            if (Array.isArray(partial) && partial.length > 0) ways = partial as Way[];
          },
        },
      );
      ways = found.ways;
    } catch (e) {
      if ((e as Error).name !== 'AbortError') problem = (e as Error).message;
    } finally {
      busy = false;
    }
  }
  async function take(way: Way) {
    abort.abort();
    await onTake(way);
  }
</script>

<section class="mt-3 border border-line bg-sheet p-3" aria-label="Way out">
  <div class="flex flex-wrap items-center gap-3">
    <h3 class="flex-1">What would open a window here</h3>
    {#if busy}
      <progress class="w-40 accent-evidence" max="1" value={done} aria-label="Changes looked at"></progress>
      <button class="button px-3" onclick={() => abort.abort()}>Cancel</button>
    {:else}
      <button class="button px-3" onclick={look}>{found ? 'Look again' : 'Look for a way out'}</button>
    {/if}
  </div>
  <p class="mt-1 text-[13px] text-ink2">
    Covers, nozzles, where the air comes from, heat from below, what comes off first: alone and together, with the dials
    set for each. It takes a minute or two; what opens shows as it is found.
  </p>
  <Notice text={problem} at="panel" class="mt-2" />
  {#if ways.length > 0}
    <ol class="mt-2 grid gap-2" aria-label="Ways out">
      {#each ways as way, n (n)}
        {@const { row } = way}
        {@const verdict = VERDICT[row.verdict]}
        <li class="border-t border-faint pt-2">
          <div class="flex flex-wrap items-start gap-x-4 gap-y-1">
            <p class="min-w-60 flex-1 font-semibold">{changeWords(way.changes, board, units)}</p>
            <button class="button px-3" onclick={() => take(way)}>Plan it so</button>
          </div>
          <p class="text-[13px]">
            <span class="text-{verdict.tone}">{verdict.mark} {row.verdict}</span>: open on
            {Math.round(100 * (row.window?.p_open ?? 0))} % of benches, all loose after
            {row.loose_s?.p50 ? lasts(row.loose_s.p50) : 'never'}, worst neighbour {neighboursBar(row, board).word},
            lands
            {padsBar(row)?.word ?? 'untouched'}; {Math.round(way.minutes)} min in all.
          </p>
          <p class="text-[13px] text-ink2">
            {row.name}: {row.procedure?.phases.map((p) => kindOf(p).line(p.settings as never, units)).join('; then ')}
          </p>
          {#each way.first ?? [] as first (first.procedure?.partId)}
            <p class="text-[13px] text-ink2">
              {nameOf(board, first.procedure?.partId ?? '')} first, and on again afterwards: {first.name.toLowerCase()},
              {first.procedure?.phases.map((p) => kindOf(p).line(p.settings as never, units)).join('; then ')}, loose
              after
              {first.loose_s?.p50 ? lasts(first.loose_s.p50) : 'never'}, {Math.round(first.minutes ?? 0)} min.
            </p>
          {/each}
        </li>
      {/each}
    </ol>
  {/if}
  {#if found && found.elsewhere}
    <p class="mt-2 font-semibold">
      {ways.length > 0 ? 'Surer with what is not on this bench:' : 'Nothing on this bench opens it.'}
    </p>
    {#if ways.length === 0 && found.why}<p class="text-[13px]">Nearest: {found.why}.</p>{/if}
    <ul class="text-[13px]" aria-label="Elsewhere">
      {#each found.elsewhere as { tool, why } (tool + why)}<li>{tool}: {why}.</li>{/each}
    </ul>
  {:else if found && ways.length === 0}
    <p class="mt-2">Something works as it is usually set: it stands above.</p>
  {/if}
</section>
