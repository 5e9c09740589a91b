<script lang="ts">
  // How it goes on: every way computed from the lands as they are, the one that hands will follow, its settings.
  import { Edits } from '$lib/plan/edits';
  import { fitInputs, standsThere } from '$lib/plan/fitInputs';
  import { stateOf } from '$lib/jobs/stateOf';
  import { currentAttempt } from '@orthos/core/job';
  import { plannerOf } from '$lib/plan/planner.svelte';
  import Ways from '$lib/plan/Ways.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { cameOffBy } from '$lib/run/work';
  import Notice from '$lib/ui/Notice.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { EVEN, inTheEnd, type Row, weighed, type Weights } from '@orthos/core/compare';
  import { isDoable, type Method, methodName } from '@orthos/core/rework';
  import { untrack } from 'svelte';
  import { fitRowOf, holdWords, landWords, madeWords, orderWords, windWords } from './fitWords';

  interface Props {
    view: JobView;
    /** It is on already: nothing is computed unasked. */
    done: boolean;
  }
  let { view, done }: Props = $props();
  /** It stands there already: heated again, or touched up. */
  const again = $derived(standsThere(currentAttempt(stateOf(view.events))));
  const by = $derived(cameOffBy(view) ?? view.inUse?.method);
  /** What was computed for another part, or from other lands, is not shown for this one. */
  const planner = $derived(
    plannerOf(
      JSON.stringify([view.ticket.id, again, view.inputs?.target, view.inputs?.hash, view.inputs?.settings.fits, by]),
    ),
  );
  const inputs = $derived(view.inputs && fitInputs({ board: view.board, inputs: view.inputs }, by, again));
  let weights = $state<Weights>(EVEN);
  let picked = $state<string | null>(null);
  let editing = $state(false);
  let problem = $state<string | null>(null);

  const here = $derived(new Set(inputs?.methods.filter(isDoable).map((m) => m.method.id)));
  const rows = $derived<Record<string, Row>>(
    Object.fromEntries(
      [...Object.entries(planner.quick), ...Object.entries(planner.results)].flatMap(([id, r]) =>
        r.row ? [[id, r.row]] : [],
      ),
    ),
  );
  const sure = $derived(new Set(Object.keys(planner.results)));
  const end = $derived(
    inTheEnd(
      Object.values(rows).flatMap((r) => (here.has(r.id) ? [weighed(r, weights)] : [])),
      'fit',
    ),
  );
  /** Where nothing is safe the nearest is shown, and why not. */
  const proposed = $derived(end.recommended ?? end.rows.at(0)?.id ?? null);
  const chosen = $derived(picked ?? (inputs?.fitBy && here.has(inputs.fitBy) ? inputs.fitBy : proposed));
  const method = $derived(inputs?.methods.find((m) => m.method.id === chosen)?.method);
  const shown = $derived(chosen ? (planner.results[chosen] ?? planner.quick[chosen]) : undefined);
  const row = $derived(shown && fitRowOf(shown));
  const inUse = $derived(chosen !== null && inputs?.fitBy === chosen);

  const edits = new Edits({
    view: () => view,
    onKept: () => (editing = false),
    onProblem: (message) => (problem = message),
  });
  async function compute() {
    if (!inputs || here.size === 0) return;
    problem = null;
    await edits.storing;
    await planner.compute(view.board, inputs, () => (chosen ? [chosen] : []));
  }
  /** What is set is computed with at once; unasked where nothing is done yet. */
  async function save(next: Method) {
    const before = planner;
    if (!(await edits.fit(next))) return;
    before.cancel();
    if (done) await compute();
  }
  const use = () => chosen && void edits.fitBy(chosen);
  /** Begun unasked once each. */
  const begun = new WeakSet<object>();
  $effect(() => {
    const wanted = planner;
    if (done || begun.has(wanted)) return;
    begun.add(wanted);
    untrack(() => {
      if (!wanted.running && sure.size === 0) void compute();
    });
  });
  const added = new WeakMap<object, string>();
  // somebody picked a way that was not computed in full
  $effect(() => {
    const wanted = picked;
    const way = inputs?.methods.find((m) => m.method.id === wanted && !m.unfit)?.method;
    if (!wanted || !way || sure.has(wanted) || planner.running || added.get(planner) === wanted) return;
    // once: neither a cancel nor a failure begins it again
    added.set(planner, wanted);
    untrack(() => inputs && void planner.add(view.board, inputs, way));
  });
  useKeys('Ways of putting it on', () => [
    { keys: ['u'], label: 'put it on this way', run: use, line: chosen !== null && !inUse },
    { keys: ['s'], label: 'change settings', run: () => (editing = !editing) },
  ]);
</script>

{#if inputs}
  <section
    class="mt-4"
    aria-label={again ? 'Again, in place' : 'How it goes on'}
    data-shown={chosen && sure.has(chosen) ? methodName(chosen) : undefined}
  >
    <div class="flex flex-wrap items-start gap-x-4 gap-y-2">
      <div class="min-w-64 flex-1" aria-live="polite">
        {#if planner.running && !row}
          <h3 class="font-semibold">Computing how it goes on</h3>
          <p class="text-[13px] text-ink2">
            Every way once, quickly; then the best with everything uncertain a little off.
          </p>
        {:else if row && chosen}
          <h3 class="font-semibold">{methodName(chosen)}{inUse ? ', in use' : ''}</h3>
          <p>{madeWords(row)}{sure.has(chosen) ? '' : ' ≈'}</p>
          {#if row.verdict !== 'works'}<p
              class={row.verdict === 'no' ? 'font-semibold text-stop' : 'font-semibold text-caution'}
            >
              <span aria-hidden="true">{row.verdict === 'no' ? '▲' : '◆'}</span>
              {row.why}. {row.cheapest ?? ''}
            </p>{/if}
          {#each [windWords(row), orderWords(row), holdWords(row)].filter(Boolean) as line (line)}<p
              class="text-[13px] {line === windWords(row) && row.wind?.verdict !== 'stays'
                ? 'font-semibold text-caution'
                : 'text-ink2'}"
            >
              {line}
            </p>{/each}
          <p class="text-[13px] text-ink2">
            {again
              ? 'In place: its joints as they were made. Every heat counts on its lands and on the part.'
              : landWords(inputs.settings.surroundings?.joints ?? [])}
          </p>
        {:else if here.size === 0}
          <p class="text-ink2">Nothing on this bench puts it on. <a class="underline" href="/kit">List the tools</a></p>
        {:else}
          <p class="text-ink2">Not computed for this visit.</p>
        {/if}
      </div>
      <div class="flex flex-wrap justify-end gap-2">
        {#if planner.running}<button class="button" onclick={() => planner.cancel()}>Cancel</button>
        {:else if sure.size === 0}<button class="button" onclick={compute} disabled={here.size === 0}
            >Compute the ways</button
          >{/if}
        <button class="button" onclick={use} disabled={!chosen || !here.has(chosen) || inUse}
          >{inUse ? 'In use' : 'Put it on this way'}</button
        >
        <button class="button" onclick={() => (editing = !editing)} disabled={!method} aria-expanded={editing}
          >Change settings</button
        >
      </div>
    </div>
    <Notice text={problem ?? planner.error} at="panel" class="mt-2" />
    {#if editing && method}
      {#key method.id}
        {#await import('$lib/plan/MethodSettings.svelte') then { default: MethodSettings }}<MethodSettings
            board={view.board}
            {inputs}
            {method}
            units={inputs.panel}
            onSave={save}
            onClose={() => (editing = false)}
          />{/await}
      {/key}
    {/if}
    {#if Object.keys(rows).length > 0 || planner.running}
      <Ways
        board={view.board}
        methods={inputs.methods}
        bench={inputs.bench.names.length > 1 ? inputs.bench.name : ''}
        {rows}
        {sure}
        settling={planner.anew && planner.timing.quick === null}
        progress={planner.progress}
        bind:chosen={() => chosen, (id) => (picked = id)}
        bind:weights
        mustLive
        op="fit"
        units={inputs.panel}
        stale={false}
        onLook={planner.running ? undefined : (methods) => void planner.look(view.board, inputs, methods)}
      />
    {/if}
  </section>
{/if}
