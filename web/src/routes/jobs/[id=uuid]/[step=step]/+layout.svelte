<script lang="ts">
  import { stateOf } from '$lib/jobs/stateOf';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { loadDrawing } from '$lib/boards/store';
  import { layOver, provideDesk, type Lens } from '$lib/jobs/desk.svelte';
  import { circuitOf } from '$lib/diagnose/circuitOf';
  import { damageMarks } from '$lib/intake/damage';
  import StepStrip from '$lib/jobs/StepStrip.svelte';
  import Stage from '$lib/stage/Stage.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { listenTo } from '$lib/jobs/listen';
  import { reload, reloadView } from '$lib/jobs/send';
  import { untrack } from 'svelte';
  import type { CopperDrawing } from '@orthos/core/copper';
  import { STEPS } from '@orthos/core/hands';

  let { data, children } = $props();
  const desk = provideDesk();
  const view = $derived(data.view);
  const at = $derived(STEPS.findIndex((s) => s === page.params.step));
  const lenses = $derived<Lens[]>([
    // two boards side by side leave room for what is compared
    ...(desk.beside ? (['parts', 'copper'] as const) : (['parts', 'readings', 'heat', 'copper', 'circuit'] as const)),
    ...(desk.sheet ? (['sheet'] as const) : []),
  ]);
  let drawing = $state.raw<CopperDrawing | null>(null);
  $effect(() => {
    const hash = view.board.drawing;
    if (desk.lens === 'copper' && hash) void loadDrawing(hash).then((d) => (drawing = d));
  });

  const job = $derived(stateOf(view.events));
  const netlist = $derived(circuitOf(data.circuits, job)?.netlist ?? null);
  layOver(desk, () => ({ penMarks: damageMarks(job.intake.damage) }));

  const knows = (what: string) =>
    view.events.some((e) => e.id === what) ||
    view.plan?.id === what ||
    view.photos.some((p) => p.id === what) ||
    String(view.ticket.version) === what;
  const ticketId = $derived(view.ticket.id);
  $effect(() => listenTo(ticketId, knows, reloadView));

  // a job taken up with an empty board works on the first that is published
  $effect(() => {
    if (view.ticket.boardVersionId !== view.boardVersion.id) void reload('job:board');
  });

  // a part that was searched for is shown
  $effect(() => {
    const wanted = page.url.searchParams.get('part');
    const part = untrack(() => view.board.parts.find((p) => p.partId === wanted));
    if (part) desk.show(part);
  });

  function go(by: number) {
    const next = STEPS[at + by];
    if (next) void goto(`/jobs/${view.ticket.id}/${next}`);
  }
  useKeys('Job', () => [
    { keys: ['['], label: 'step before', run: () => go(-1) },
    { keys: [']'], label: 'next step', run: () => go(1), line: true },
  ]);
</script>

{#snippet schematic()}
  {#await import('$lib/diagnose/Schematic.svelte') then { default: Schematic }}<Schematic
      board={view.board}
      {netlist}
    />{/await}
{/snippet}

{#await import('$lib/photos/PhotoInbox.svelte') then { default: PhotoInbox }}<PhotoInbox
    ticketId={view.ticket.id}
    step={STEPS[at] ?? 'intake'}
    watches={data.shop.photoFolder !== undefined}
  />{/await}
<!-- a comparison wants the width, everything else the board -->
<div
  class="grid h-full grid-rows-[auto_minmax(0,1fr)_auto] {['plan', 'fit'].includes(page.params.step ?? '')
    ? 'grid-cols-[minmax(0,1fr)_clamp(520px,57vw,920px)]'
    : 'grid-cols-[minmax(0,1fr)_clamp(380px,36vw,452px)]'}"
>
  <StepStrip {view} step={page.params.step ?? ''} />
  <div class="flex min-h-0 min-w-0 flex-col">
    {#if view.board.parts.length === 0}
      <p class="flex flex-wrap items-center gap-3 border-b border-line bg-caution-soft px-4 py-2" role="status">
        <span class="font-semibold">Nothing is placed on {view.board.name} yet.</span>
        <a class="button" href="/boards/{view.modelId}/edit">Trace it from a photo</a>
        <a class="button" href="/boards/import?into={view.modelId}">Read its file</a>
        <span class="text-[13px] text-ink2">This job works on it once it is published.</span>
      </p>
    {/if}
    {#if desk.lens === 'copper'}{#await import('$lib/boards/CopperBar.svelte') then { default: CopperBar }}<CopperBar
          board={view.board}
          {desk}
          drawn={view.board.drawing !== undefined}
        />{/await}{/if}
    <div class="grid min-h-0 flex-1 {desk.beside ? 'grid-cols-2 divide-x divide-line' : ''}">
      <div class="flex min-h-0 min-w-0 flex-col">
        {#if desk.beside}
          <p class="truncate border-b border-line px-3 py-1 text-[14px]">
            <span class="font-semibold">This board: No. {view.ticket.number}</span>
            {view.ticket.device}{view.serial ? `, ${view.serial}` : ''}
          </p>
        {/if}
        <div class="min-h-0 flex-1">
          <Stage
            board={view.board}
            {desk}
            units={data.shop}
            {lenses}
            copper={drawing}
            tool={desk.tool}
            instead={desk.lens === 'circuit' ? schematic : desk.lens === 'sheet' ? desk.sheet : undefined}
          />
        </div>
      </div>
      {@render desk.beside?.()}
    </div>
    {#if desk.lens === 'heat' && desk.over.heat}
      {#await import('$lib/plan/MeltScrubber.svelte') then { default: MeltScrubber }}<MeltScrubber {desk} />{/await}
    {/if}
  </div>
  <aside class="isolate min-h-0 overflow-auto border-l border-line bg-sheet" aria-label="Step">
    {@render children()}
  </aside>
  {#if desk.below}<div class="col-span-2 min-w-0 border-t border-line bg-sheet">{@render desk.below()}</div>{/if}
</div>
