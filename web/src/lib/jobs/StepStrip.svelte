<script lang="ts">
  import { tip } from '$lib/ui/tip.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { STEPS } from '@orthos/core/hands';
  import TriangleAlert from '@lucide/svelte/icons/triangle-alert';
  import { goto } from '$app/navigation';
  import { useCommands } from '$lib/ui/palette.svelte';
  import { stepLabel, stepSummary } from './words';

  let { view, step }: { view: JobView; step: string } = $props();
  const MARKS = { met: '✓', open: '○', stop: '▲', unknown: '?', skipped: '–' } as const;
  /** Red is for where the job stands and for what comes next; further on nothing is due yet. */
  const due = (s: (typeof STEPS)[number]) => STEPS.indexOf(s) <= STEPS.indexOf(view.step) + 1;
  useCommands(() =>
    STEPS.map((s) => ({
      group: 'step' as const,
      title: stepLabel(s),
      run: () => void goto(`/jobs/${view.ticket.id}/${s}`),
    })),
  );
  const power = $derived(view.gates.find((g) => g.id === 'power-gone'));
</script>

<header class="col-span-2 flex h-[62px] items-stretch border-b border-line">
  <div class="flex w-44 shrink-0 flex-col justify-center px-3.5 leading-tight max-[1180px]:w-32 max-[1180px]:px-2.5">
    <p class="truncate text-base font-bold">No. {view.ticket.number} {view.board.name}</p>
    <p class="truncate text-[13px] text-ink2">{view.customer.name}{view.serial ? ` · ${view.serial}` : ''}</p>
  </div>
  <nav class="grid min-w-0 flex-1 grid-cols-9" aria-label="Steps">
    {#each STEPS as s (s)}
      {@const summary = stepSummary(s, view)}
      {@const state = summary.state === 'stop' && !due(s) ? 'open' : summary.state}
      <a
        href="/jobs/{view.ticket.id}/{s}"
        aria-current={s === step ? 'step' : undefined}
        class="flex min-w-0 flex-col justify-center gap-1 border-b-[3px] border-l border-line px-2.5 max-[1180px]:px-1.5 {s ===
        step
          ? 'border-b-hot bg-sheet'
          : 'border-b-transparent text-ink2 hover:bg-sheet'}"
        {@attach tip(`${stepLabel(s)}: ${summary.full}`)}
      >
        <span class="truncate max-[1180px]:text-[13px] {s === step ? 'font-bold text-ink' : ''}">{stepLabel(s)}</span>
        <span
          class="truncate text-[12px] {state === 'met' ? 'text-good' : state === 'stop' ? 'text-stop' : 'text-ink3'}"
        >
          <span aria-hidden="true">{MARKS[state]}</span>
          {summary.text}
        </span>
      </a>
    {/each}
  </nav>
  {#if power && power.state !== 'met'}
    <p class="flex w-40 shrink-0 items-center border-l border-line px-3 max-[1180px]:w-28 max-[1180px]:px-1.5">
      <a
        href="/jobs/{view.ticket.id}/protect"
        class="flex items-center gap-2 rounded-sm border border-stop px-2 py-1 text-[13px] leading-tight font-semibold text-stop"
        {@attach tip(power.why)}
      >
        <TriangleAlert size={16} class="shrink-0" aria-hidden="true" />
        <span class="max-[1180px]:hidden">{power.state === 'unknown' ? 'power not known' : 'power not shown gone'}</span
        >
        <span class="hidden max-[1180px]:inline">{power.state === 'unknown' ? 'power?' : 'power on?'}</span>
      </a>
    </p>
  {/if}
</header>
