<script lang="ts">
  // The same kind of board before: what it was, what went with it, which points were off.
  import { placeName } from '$lib/diagnose/place';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { partName } from '@orthos/core/board';
  import type { ModelHistory } from '@orthos/core/job';

  let { view, history }: { view: JobView; history: ModelHistory } = $props();
  const desk = useDesk();
  const nameOf = (id: string) => {
    const part = view.board.parts.find((p) => p.partId === id);
    return part ? partName(part) : id;
  };
  const whatOf = (id: string) => view.board.parts.find((p) => p.partId === id)?.what ?? '';
  const times = (n: number) => (n === 1 ? 'once' : n === 2 ? 'twice' : `${n} ×`);
  function show(id: string) {
    const part = view.board.parts.find((p) => p.partId === id);
    if (part) desk.show(part);
  }
</script>

<h2 class="mb-1 text-lg">{view.board.name} before</h2>
{#if history.latest.length === 0}
  <p class="text-ink2">The first one of its kind here. What is found now will stand here for the next.</p>
{:else}
  <p class="mb-2 text-ink2">
    {history.jobs} repaired, {history.declined} declined, {history.open} open{history.minutes === null
      ? ''
      : `; ${Math.round(history.minutes)} bench minutes in the middle`}. The counts weigh in the ranking of suspects.
  </p>
  {#if history.culprits.length > 0}
    <h3 class="mt-3 mb-1 text-[13px] text-ink2">What it was</h3>
    <ul aria-label="Culprits before">
      {#each history.culprits.slice(0, 8) as c (c.partId)}
        <li class="flex min-h-9 items-center gap-3 border-t border-faint">
          <button
            type="button"
            class="min-h-8 w-14 text-left text-base font-bold underline"
            onclick={() => show(c.partId)}>{nameOf(c.partId)}</button
          >
          <span class="flex-1 text-ink2">{whatOf(c.partId)}</span>
          <span>{c.jobs} of {history.jobs}</span>
        </li>
      {/each}
    </ul>
  {/if}
  {#if history.companions.length > 0}
    <h3 class="mt-3 mb-1 text-[13px] text-ink2">Went with it</h3>
    <ul aria-label="Companions before">
      {#each history.companions.slice(0, 8) as c (c.culprit + c.partId)}
        <li class="flex min-h-9 items-center border-t border-faint">
          <span class="flex-1"
            ><b>{nameOf(c.partId)}</b> with {nameOf(c.culprit)}
            <span class="text-ink2">{whatOf(c.partId)}</span></span
          ><span>{times(c.jobs)}</span>
        </li>
      {/each}
    </ul>
  {/if}
  {#if history.readings.length > 0}
    <h3 class="mt-3 mb-1 text-[13px] text-ink2">Points that were off</h3>
    <ul aria-label="Points that were off before">
      {#each history.readings as r (placeName(view.board, r.place) + r.quantity)}
        <li class="flex min-h-9 items-center border-t border-faint">
          <span class="flex-1"><b>{placeName(view.board, r.place)}</b>, mostly with {nameOf(r.culprit)}</span><span
            >{times(r.jobs)}</span
          >
        </li>
      {/each}
    </ul>
  {/if}
  <h3 class="mt-3 mb-1 text-[13px] text-ink2">The latest</h3>
  <ul aria-label="Latest jobs">
    {#each history.latest as j (j.id)}
      <li class="border-t border-faint py-1.5">
        <a class="flex gap-3" href="/jobs/{j.id}">
          <span class="w-12 font-semibold underline">{j.number}</span>
          <span class="min-w-0 flex-1 truncate">{j.complaint}</span>
          <span class="text-ink2">{j.culprit ? nameOf(j.culprit) : j.outcome}</span>
        </a>
      </li>
    {/each}
  </ul>
{/if}
