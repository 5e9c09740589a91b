<script lang="ts">
  // What shows after the work, and what to try next for it, the worthiest first; a second attempt in one act.
  import { goto } from '$app/navigation';
  import { landWords, partWords } from '$lib/hands/heatWords';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import Select from '$lib/ui/Select.svelte';
  import { partName, type PlacedPart } from '@orthos/core/board';
  import { heatsOf, knownOf, symptomsOf } from '@orthos/core/job';
  import { isSymptom, nextTries, type Symptom, SYMPTOMS } from '@orthos/core/prove';

  let { view, target, recorder }: { view: JobView; target: PlacedPart; recorder: Recorder } = $props();
  const job = $derived(stateOf(view.events));
  const shown = $derived(symptomsOf(job));
  let chosen = $state<Symptom | ''>('');
  const at = $derived(chosen === '' ? shown[0] : (shown.find((s) => s.symptom === chosen) ?? { symptom: chosen }));
  const tries = $derived(at ? nextTries(at.symptom, knownOf(job, view.board, target, at.fn)) : []);
  const heats = $derived(heatsOf(job));
  const budget = $derived([landWords(heats.lands), partWords(heats.part)].filter(Boolean).join('; '));
  const spent = $derived(heats.lands.left === 0 || (heats.part.dose ?? 0) >= 0.7);
  let all = $state(false);

  async function again() {
    const why = at ? `${SYMPTOMS[at.symptom]}${at.fn ? `: ${at.fn}` : ''}` : 'once more';
    if (await recorder.record({ type: 'new-attempt', why, same: true })) await goto(`/jobs/${view.ticket.id}/plan`);
  }
</script>

<section aria-label="Next try">
  <h3 class="mt-5 mb-1 border-t border-line pt-3">If it does not work</h3>
  <Select
    aria-label="What shows"
    none={shown.length > 0 ? `from the log: ${SYMPTOMS[shown[0].symptom]}` : 'what shows?'}
    choices={Object.entries(SYMPTOMS).map(([value, label]) => ({ value, label }))}
    value={chosen}
    onchange={(to) => (chosen = isSymptom(to) ? to : '')}
  />
  {#if at}
    <ol class="mt-1" aria-label="To try">
      {#each all ? tries : tries.slice(0, 4) as t, n (t.id)}
        <li class="flex gap-2 border-t border-faint py-1.5">
          <span class="w-5 font-semibold">{n + 1}</span>
          <span class="min-w-0 flex-1">
            <span class="inline-block first-letter:uppercase {n === 0 ? 'font-semibold' : ''}">{t.what}</span>
            {#if t.at.length > 0}<span class="font-semibold text-hot"> {t.at.join(', ')}</span>{/if}
            <span class="block text-[13px] text-ink2">{t.why.join('; ')}</span>
          </span>
          <span class="text-[13px] text-ink2">{t.minutes} min</span>
        </li>
      {/each}
    </ol>
    {#if tries.length > 4 && !all}<button class="text-[13px] text-evidence underline" onclick={() => (all = true)}
        >{tries.length - 4} more</button
      >{/if}
    <div class="mt-2 flex flex-wrap items-center gap-3 border-t border-faint pt-2">
      <button class="button px-3" onclick={again}>Second attempt at {partName(target)}</button>
      <span class="min-w-40 flex-1 text-[13px] {spent ? 'font-semibold text-caution' : 'text-ink2'}">
        {budget ? `${budget[0].toUpperCase()}${budget.slice(1)}.` : 'Nothing was heated by a plan yet.'}
        {spent ? 'Without heat first: wires, or leave it.' : ''}
      </span>
    </div>
  {/if}
</section>
