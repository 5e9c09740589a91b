<script lang="ts">
  import { goto } from '$app/navigation';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { stepLabel } from '$lib/jobs/words';
  import { JOB_TYPES } from '@orthos/core';

  let { data } = $props();
  let list = $state<HTMLElement>();

  const links = () => Array.from(list?.querySelectorAll<HTMLAnchorElement>('a.row') ?? []);
  function move(by: number) {
    const all = links();
    const at = all.indexOf(document.activeElement as HTMLAnchorElement);
    all[Math.max(0, Math.min(all.length - 1, at < 0 ? 0 : at + by))]?.focus();
  }
  useKeys('Jobs', () => [
    {
      keys: ['ArrowUp', 'ArrowDown'],
      label: 'choose a job',
      run: (key) => move(key === 'ArrowDown' ? 1 : -1),
      line: true,
    },
    { keys: ['Enter'], label: 'open it', run: () => {}, line: true },
    { keys: ['n'], label: 'new job', run: () => void goto('/jobs/new'), line: true },
    { keys: ['e'], label: 'express job', run: () => void goto('/jobs/express'), line: true },
  ]);
  const day = (iso: string | Date | null) =>
    iso === null
      ? ''
      : new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', timeZone: data.shop.timeZone }).format(
          new Date(iso),
        );
  const query = (change: Record<string, string | number>) => {
    const q = new URLSearchParams({ q: data.search, closed: data.closed ? '1' : '', page: String(data.page) });
    for (const [k, v] of Object.entries(change)) q.set(k, String(v));
    for (const [k, v] of [...q]) if (!v || (k === 'page' && v === '1')) q.delete(k);
    return `/jobs?${q}`;
  };
</script>

<svelte:head><title>Jobs · Orthos</title></svelte:head>

<div class="flex h-full flex-col">
  <header class="flex items-end gap-4 px-8 pt-7 pb-4">
    <div>
      <p class="text-[13px] text-ink2">{data.shop.name}</p>
      <h1 class="text-[26px]">{data.closed ? 'Closed jobs' : 'Open jobs'}</h1>
    </div>
    <form class="ml-6 flex w-72" action="/jobs" role="search">
      {#if data.closed}<input type="hidden" name="closed" value="1" />{/if}
      <input
        class="field"
        type="search"
        name="q"
        value={data.search}
        placeholder="Number, device, customer, complaint"
        aria-label="Search jobs"
      />
    </form>
    <a
      class="self-center pt-4 text-evidence underline underline-offset-2"
      href={query({ closed: data.closed ? '' : 1, page: 1 })}
    >
      {data.closed ? 'Show open jobs' : 'Show closed jobs'}
    </a>
    <div class="ml-auto flex gap-2">
      <a class="button" href="/jobs/express">Express job</a>
      <a class="button button-main" href="/jobs/new">New job</a>
    </div>
  </header>
  <div class="min-h-0 flex-1 overflow-auto px-8 pb-6" bind:this={list}>
    {#if data.jobs.length === 0}
      <div class="max-w-xl border border-line bg-sheet p-8">
        {#if data.search}
          <p class="mb-3">No {data.closed ? 'closed' : 'open'} job matches “{data.search}”.</p>
          <a class="button" href={query({ q: '', page: 1 })}>Show all</a>
        {:else if data.closed}
          <p>Nothing has been released yet.</p>
        {:else}
          <p class="mb-4">No board on the bench. Take one in, or ask for a plan without a board model.</p>
          <a class="button button-main" href="/jobs/new">New job</a>
          <a class="button" href="/jobs/express">Express job</a>
        {/if}
      </div>
    {:else}
      <div class="border border-line bg-sheet">
        <div class="grid-row border-b border-line text-[13px] text-ink2" aria-hidden="true">
          <span>No.</span><span>Device and complaint</span><span>Customer</span><span>Stands at</span><span
            >Waits for</span
          ><span class="text-right">{data.closed ? 'Closed' : 'Promised'}</span>
        </div>
        {#each data.jobs as job (job.id)}
          <a
            class="row grid-row border-b border-faint last:border-0 hover:bg-bench focus-visible:bg-evidence-soft"
            href="/jobs/{job.id}"
          >
            <span class="text-lg font-semibold">{job.number}</span>
            <span class="min-w-0">
              <span class="font-semibold">{job.device}</span>
              {#if job.kind !== 'repair'}<span class="text-ink2"> · {JOB_TYPES[job.kind].label}</span>{/if}
              <span class="block truncate text-ink2">{job.complaint}</span>
            </span>
            <span class="truncate">{job.customer}</span>
            <span>
              <span class="font-semibold">{stepLabel(job.step)}</span>
              <span class="block text-ink2">{job.about}{job.attempt > 1 ? ` · attempt ${job.attempt}` : ''}</span>
            </span>
            <span class="text-caution">{job.waitsFor}</span>
            <span class="text-right">{day(data.closed ? job.closedAt : job.promisedOn)}</span>
          </a>
        {/each}
      </div>
      {#if data.pages > 1}
        <p class="mt-4 flex items-center gap-4 text-ink2">
          {#if data.page > 1}<a class="button" href={query({ page: data.page - 1 })}>Newer</a>{/if}
          page {data.page} of {data.pages}, {data.total} jobs
          {#if data.page < data.pages}<a class="button" href={query({ page: data.page + 1 })}>Older</a>{/if}
        </p>
      {/if}
    {/if}
  </div>
</div>

<style>
  .grid-row {
    display: grid;
    grid-template-columns: 64px minmax(0, 1fr) 150px 140px 120px 84px;
    gap: 16px;
    align-items: center;
    padding: 8px 16px;
    min-height: 40px;
  }
</style>
