<script lang="ts">
  // What speaks besides readings: software, a swap with a good board, two faults at once, parts that fail together.
  import Fold from '$lib/ui/Fold.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import TakeBack from '$lib/jobs/TakeBack.svelte';
  import type { Circuit, DiagnoseView } from './view';
  import { partName } from '@orthos/core/board';
  import type { Fault } from '@orthos/core/circuit';
  import { type Diagnosis, NONE, SOFTWARE, type Swap, SWAPS } from '@orthos/core/diagnosis';
  import type { JobEventBody, JobState } from '@orthos/core/job';
  import { tick, untrack } from 'svelte';
  import { companionsFound, refs } from './question';
  import { SWAP_WORDS, swapOutcome } from './words';

  interface Props {
    view: DiagnoseView;
    job: JobState;
    circuit: Circuit;
    result: Diagnosis;
    /** Way to be without a part that was asked for elsewhere; null: none was. */
    asked: Swap | null;
    record: (body: JobEventBody) => Promise<boolean>;
  }
  let { view, job, circuit, result, asked, record }: Props = $props();
  const history = $derived(view.history);
  const desk = useDesk();
  let how = $state(untrack(() => job.software?.how ?? ''));
  let first = $state('');
  let second = $state('');
  let problem = $state('');
  let way = $state<Swap>('good board');
  let open = $state(false);
  let field = $state<{ focus: () => void }>();
  $effect(() => {
    if (asked === null) return;
    [way, open] = [asked, true];
    void tick().then(() => field?.focus());
  });
  const selected = $derived(view.board.parts.find((p) => p.partId === desk.selected));
  const companions = $derived(companionsFound(circuit.netlist, job, history, refs(view.board, circuit)));
  /** Whole parts that a pair can be made of, likeliest first. */
  const choices = $derived(
    result.parts.filter((p) => p.ref !== NONE && p.ref !== SOFTWARE && !p.ref.includes(' + ')).map((p) => p.ref),
  );
  const pairShare = $derived(result.parts.find((p) => job.pair?.every((f) => p.ref.split(' + ').includes(f.ref)))?.p);
  /** The likeliest fault of a part that the solver can put in by itself. */
  function faultOf(ref: string): Fault {
    const mode = result.suspects.find((s) => s.ref === ref)?.mode;
    return { ref, mode: mode === 'short' || mode === 'leaky' || mode === 'dead' ? mode : 'open' };
  }
  async function weigh(event: SubmitEvent) {
    event.preventDefault();
    if (!first || !second || first === second) return (problem = 'Choose two different parts.');
    problem = '';
    await record({ type: 'pair', faults: [faultOf(first), faultOf(second)] });
  }
  const nameOf = (partId: string) => {
    const part = view.board.parts.find((p) => p.partId === partId);
    return part ? partName(part) : partId;
  };
  const swaps = $derived(
    view.events.flatMap((e) =>
      e.body.type === 'swapped' && !job.withdrawn.has(e.id) ? [{ id: e.id, ...e.body }] : [],
    ),
  );
</script>

<Fold title="What else speaks: software, swaps, two at once" class="my-3 border-t border-line pt-1" bind:open>
  {#if companions.length > 0}
    <p class="mb-2">
      <b>{companions.join(', ')}</b>
      <span class="text-ink2">weigh more: they tend to fail along with what was found bad before.</span>
    </p>
  {/if}
  {#if history.jobs > 0}
    <p class="mb-2 text-ink2">
      {history.jobs} earlier {history.jobs === 1 ? 'job' : 'jobs'} on {view.board.name}
      {history.culprits.length > 0
        ? `weigh in: ${history.culprits
            .slice(0, 4)
            .map((c) => `${nameOf(c.partId)} ${c.jobs} ×`)
            .join(', ')}.`
        : 'convicted nothing.'}
    </p>
  {/if}

  <h3 class="mt-2 mb-1 text-[13px] text-ink2">Can software or a setting imitate it?</h3>
  <div class="flex gap-2">
    <input
      class="field"
      bind:value={how}
      aria-label="How software was ruled out"
      placeholder="its twin with the same software works"
      maxlength="400"
    />
    {#each [['possible', 'it can'], ['ruled out', 'ruled out']] as const as [state, label] (state)}
      <button
        type="button"
        class="button px-3 {job.software?.state === state ? 'button-main' : ''}"
        aria-pressed={job.software?.state === state}
        onclick={() => record({ type: 'software', state, how: how.trim() })}>{label}</button
      >
    {/each}
  </div>

  <h3 class="mt-4 mb-1 text-[13px] text-ink2">Without the part: swapped, renewed, a leg lifted</h3>
  {#each swaps as s (s.id)}
    <p class="flex items-center border-t border-faint">
      <span class="flex-1"><b>{nameOf(s.partId)}</b> {SWAP_WORDS[s.how ?? 'good board'].how}: {swapOutcome(s)}</span
      ><TakeBack
        what="swap of {nameOf(s.partId)}"
        onclick={() => record({ type: 'withdrawn', eventId: s.id, why: 'taken back' })}
      />
    </p>
  {/each}
  <div class="flex flex-wrap items-center gap-2">
    <span class="min-w-16">{selected ? partName(selected) : 'select the part on the board'}</span>
    <Select
      class="min-w-32 flex-1"
      choices={SWAPS.map((s) => ({ value: s, label: SWAP_WORDS[s].how }))}
      bind:value={way}
      bind:this={field}
      aria-label="How it was without the part"
    />
    <button
      type="button"
      class="button px-3"
      disabled={!selected}
      onclick={() => selected && record({ type: 'swapped', partId: selected.partId, followed: true, how: way })}
      >{SWAP_WORDS[way].gone.replace(/^the /, '').replace(' with it', '')}</button
    >
    <button
      type="button"
      class="button px-3"
      disabled={!selected}
      onclick={() => selected && record({ type: 'swapped', partId: selected.partId, followed: false, how: way })}
      >{SWAP_WORDS[way].stayed.replace(/^the /, '').replace(' as it was', '')}</button
    >
  </div>
  {#if way === 'good board'}<p class="mt-1 text-[13px] text-caution">
      ▲ About 15 min, and a good board at risk: read its rails for a short before the part of this one goes on it.
    </p>{/if}

  <h3 class="mt-4 mb-1 text-[13px] text-ink2">Two faults at once</h3>
  {#if job.pair}
    <p class="flex items-center border-t border-faint">
      <span class="flex-1"
        ><b>{job.pair.map((f) => `${f.ref} ${f.mode}`).join(' and ')}</b> together: {pairShare === undefined
          ? 'computing'
          : `${Math.round(100 * pairShare)} %`}</span
      ><TakeBack what="the pair" onclick={() => record({ type: 'pair', faults: null })} />
    </p>
  {/if}
  <form onsubmit={weigh} class="flex gap-2" aria-label="Two faults at once">
    {#each [0, 1] as n (n)}
      <Select
        none="part"
        {choices}
        aria-label={n === 0 ? 'First part' : 'Second part'}
        value={n === 0 ? first : second}
        onchange={(v) => (n === 0 ? (first = v) : (second = v))}
      />
    {/each}
    <button class="button">Weigh them</button>
  </form>
  <Notice text={problem} at="field" class="mt-1" />
</Fold>
