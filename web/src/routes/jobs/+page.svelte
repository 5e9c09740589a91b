<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { goto, invalidateAll } from '$app/navigation';
  import { calendarDay, dayIn } from '$lib/ui/dates';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { recordEvent } from '$lib/jobs/send';
  import { stepLabel } from '$lib/jobs/words';
  import { JOB_TYPES } from '@orthos/core/job';

  let { data } = $props();
  let list = $state<HTMLElement>();
  let problem = $state('');

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

  type Block = NonNullable<typeof data.today>['blocks'][number];
  type Row = Pick<Block['jobs'][number], 'number' | 'device' | 'kind' | 'complaint' | 'customer'>;
  const TITLES: Record<Block['id'], { title: string; empty: string }> = {
    hands: { title: 'Hands now', empty: 'Nothing that hands could do now.' },
    answer: { title: 'Answer due', empty: '' },
    part: { title: 'Part due', empty: '' },
    'pick-up': { title: 'To be fetched', empty: '' },
  };
  const inTime = (minutes: number) =>
    minutes < 60 ? `about ${minutes} min` : `about ${Math.floor(minutes / 60)} h ${minutes % 60} min`;
  const jobsSaid = ({ id, total, minutes }: Block) =>
    `${total} ${total === 1 ? 'job' : 'jobs'}${id === 'hands' && minutes > 0 ? `, ${inTime(minutes)}` : ''}`;
  const today = new Date().toISOString().slice(0, 10);
  const due = (promisedOn: string | null) =>
    promisedOn === null
      ? ''
      : promisedOn < today
        ? 'text-stop font-semibold'
        : promisedOn === today
          ? 'font-semibold'
          : '';
  const none = $derived(data.page ? data.page.jobs.length === 0 : data.today.blocks.every((b) => b.total === 0));

  async function handOver(job: { id: string }) {
    try {
      await recordEvent(job.id, { type: 'handed-over' });
      problem = '';
      await invalidateAll();
    } catch (e) {
      problem = (e as Error).message;
    }
  }
  const closedOn = (at: number | null) => dayIn(data.shop.timeZone, at, 'bare');
  const query = (change: { q?: string; closed?: boolean; before?: number; after?: number; all?: boolean }) => {
    const { q = data.search, closed = data.closed, all = !closed && data.page !== null, before, after } = change;
    const params = new URLSearchParams({
      ...(q ? { q } : {}),
      ...(closed ? { closed: '1' } : {}),
      ...(all && !q ? { all: '1' } : {}),
      ...(before === undefined ? {} : { before: String(before) }),
      ...(after === undefined ? {} : { after: String(after) }),
    });
    return params.size > 0 ? `/jobs?${params}` : '/jobs';
  };
</script>

<svelte:head><title>Jobs · Orthos</title></svelte:head>

{#snippet who(job: Row)}
  <span class="text-lg font-semibold">{job.number}</span>
  <span class="min-w-0">
    <span class="font-semibold">{job.device}</span>
    {#if job.kind !== 'repair'}<span class="text-ink2"> · {JOB_TYPES[job.kind].label}</span>{/if}
    <span class="block truncate text-ink2">{job.complaint}</span>
  </span>
  <span class="truncate">{job.customer}</span>
{/snippet}

<div class="flex h-full flex-col">
  <header class="flex items-end gap-4 px-8 pt-7 pb-4">
    <div>
      <p class="text-[13px] text-ink2">{data.shop.name}</p>
      <h1 class="text-[26px]">{data.closed ? 'Closed jobs' : data.today ? 'On the bench' : 'Open jobs'}</h1>
    </div>
    <form class="ml-6 flex w-72" action="/jobs" role="search">
      {#if data.closed}<input type="hidden" name="closed" value="1" />{/if}
      <input
        class="field"
        type="search"
        name="q"
        value={data.search}
        placeholder="Number, customer, any words"
        aria-label="Search jobs"
      />
    </form>
    <a
      class="self-center pt-4 text-evidence underline underline-offset-2"
      href={query({ closed: !data.closed, all: false })}
    >
      {data.closed ? 'Show open jobs' : 'Show closed jobs'}
    </a>
    <div class="ml-auto flex gap-2">
      <a class="button" href="/jobs/express">Express job</a>
      <a class="button button-main" href="/jobs/new">New job</a>
    </div>
  </header>
  <div class="min-h-0 flex-1 overflow-auto px-8 pb-6" bind:this={list}>
    {#if data.today && data.today.suggestions.length > 0}
      <ol class="mb-5 grid grid-cols-3 gap-3" aria-label="To begin with">
        {#each data.today.suggestions as s, i (s.id)}
          <li class="border-l-[3px] border-evidence bg-evidence-soft">
            <a class="block h-full px-4 py-3 hover:underline" href="/jobs/{s.id}">
              <span class="text-[13px] text-ink2">To begin with, {i + 1}</span>
              <span class="block font-semibold">{s.title}</span>
              <span class="block text-[13px]">{s.shows}</span>
            </a>
          </li>
        {/each}
      </ol>
    {/if}
    <Notice text={problem} class="mb-3" />
    {#if none}
      <div class="max-w-xl border border-line bg-sheet p-8">
        {#if data.search}
          <p class="mb-3">No {data.closed ? 'closed' : 'open'} job matches “{data.search}”.</p>
          <a class="button" href={query({ q: '', all: false })}>Show all</a>
        {:else if data.closed}
          <p>Nothing has been released yet.</p>
        {:else}
          <p class="mb-4">No board on the bench. Take one in, or ask for a plan without a board model.</p>
          <a class="button button-main" href="/jobs/new">New job</a>
          <a class="button" href="/jobs/express">Express job</a>
        {/if}
      </div>
    {:else if data.today}
      {#each data.today.blocks.filter((b) => b.total > 0 || TITLES[b.id].empty) as block (block.id)}
        <section class="mb-5 border border-line bg-sheet" aria-label={TITLES[block.id].title}>
          <h2 class="flex items-baseline gap-3 border-b border-line px-4 py-2 text-base">
            {TITLES[block.id].title}
            <span class="text-[13px] font-normal text-ink2">{jobsSaid(block)}</span>
          </h2>
          {#each block.jobs as job (job.id)}
            <div class="flex items-center border-b border-faint last:border-0 hover:bg-bench">
              <a class="row day-row min-w-0 flex-1 focus-visible:bg-evidence-soft" href="/jobs/{job.id}">
                {@render who(job)}
                <span
                  ><span class="font-semibold">{job.next}</span>
                  {#if job.attempt > 1}<span class="block text-[13px] text-ink2">attempt {job.attempt}</span>{/if}</span
                >
                <span class="text-right text-ink2">{job.minutes > 0 ? `${job.minutes} min` : ''}</span>
                <span class="text-right {due(job.promisedOn)}"
                  >{block.id === 'pick-up'
                    ? `done ${closedOn(job.closedAt)}`
                    : job.promisedOn
                      ? `due ${calendarDay(job.promisedOn, 'bare')}`
                      : ''}</span
                >
              </a>
              {#if block.id === 'pick-up'}<button
                  type="button"
                  class="button mr-3 px-3"
                  aria-label="No. {job.number} handed over"
                  onclick={() => handOver(job)}>Handed over</button
                >{/if}
            </div>
          {/each}
          {#if block.total === 0}<p class="px-4 py-3 text-ink2">{TITLES[block.id].empty}</p>{/if}
          {#if block.total > block.jobs.length}
            <p class="border-t border-faint px-4 py-3 text-ink2">
              and {block.total - block.jobs.length} more{#if block.id !== 'pick-up'}:
                <a class="text-evidence underline" href={query({ all: true })}>all open jobs</a>{/if}
            </p>
          {/if}
        </section>
      {/each}
    {:else if data.page}
      <div class="border border-line bg-sheet">
        <div class="grid-row border-b border-line text-[13px] text-ink2" aria-hidden="true">
          <span>No.</span><span>Device and complaint</span><span>Customer</span><span>Stands at</span><span
            >Waits for</span
          ><span class="text-right">{data.closed ? 'Closed' : 'Promised'}</span>
        </div>
        {#each data.page.jobs as job (job.id)}
          <a
            class="row grid-row border-b border-faint last:border-0 hover:bg-bench focus-visible:bg-evidence-soft"
            href="/jobs/{job.id}"
          >
            {@render who(job)}
            <span>
              <span class="font-semibold">{stepLabel(job.step)}</span>
              <span class="block text-ink2">{job.about}{job.attempt > 1 ? ` · attempt ${job.attempt}` : ''}</span>
            </span>
            <span class="text-caution">{job.waitsFor}</span>
            <span class="text-right">{data.closed ? closedOn(job.closedAt) : calendarDay(job.promisedOn, 'bare')}</span>
          </a>
        {/each}
      </div>
      {@const { jobs, older, newer } = data.page}
      {@const [first, last] = [jobs[0].number, jobs[jobs.length - 1].number]}
      {#if older || newer}
        <p class="mt-4 flex items-center gap-4 text-ink2">
          {#if newer}<a class="button" href={query({ after: first })}>Newer</a>{/if}
          No. {last} to {first}
          {#if older}<a class="button" href={query({ before: last })}>Older</a>{/if}
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
  .day-row {
    display: grid;
    grid-template-columns: 64px minmax(0, 1fr) 140px minmax(150px, 220px) 64px 96px;
    gap: 16px;
    align-items: center;
    padding: 8px 16px;
    min-height: 40px;
  }
  @media (max-width: 1180px) {
    .day-row {
      grid-template-columns: 48px minmax(0, 1fr) 110px 160px 52px 84px;
      gap: 10px;
    }
  }
</style>
