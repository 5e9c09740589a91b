<script lang="ts">
  import Select from '$lib/ui/Select.svelte';
  import { goto } from '$app/navigation';
  import { Desk } from '$lib/jobs/desk.svelte';
  import Stage from '$lib/stage/Stage.svelte';
  import { toScreen, type StageView } from '$lib/stage/view';
  import { type BoardChange, type BoardModel, cornersOnBoard } from '@orthos/core/board';
  import { packageById } from '@orthos/core/packages';

  let { data } = $props();
  const desk = new Desk();
  const COLOUR = { added: 'var(--good)', removed: 'var(--stop)', changed: 'var(--caution)' } as const;
  const TONE = { added: 'text-good', removed: 'text-stop', changed: 'text-caution' } as const;
  const MARK = { added: '+', removed: '−', changed: '≠' } as const;
  const choices = $derived([...data.versions.map(String), 'draft']);

  function go(from: string, to: string) {
    void goto(`?from=${from}&to=${to}`, { replaceState: true, keepFocus: true });
  }
  function show(c: BoardChange) {
    const part = [...data.board.parts, ...data.before.parts].find((p) => p.partId === c.partId);
    if (!part) return;
    desk.show(part);
  }
  const outline = (board: BoardModel, partId: string, view: StageView) => {
    const part = board.parts.find((p) => p.partId === partId && p.side === desk.side);
    if (!part) return '';
    const { body } = packageById(part.package);
    return cornersOnBoard(part, { x: 0, y: 0, w: body.l, h: body.w })
      .map(([x, y]) => toScreen(view, x, y).join(','))
      .join(' ');
  };
</script>

<svelte:head><title>{data.model.name}, compared · Orthos</title></svelte:head>

<div class="grid h-full grid-cols-[minmax(0,1fr)_minmax(340px,460px)] grid-rows-[auto_minmax(0,1fr)]">
  <header class="col-span-2 flex h-[62px] items-center gap-4 border-b border-line px-4">
    <h1 class="text-xl"><a href="/boards/{data.model.id}" class="hover:underline">{data.model.name}</a></h1>
    {#each ['from', 'to'] as const as end (end)}
      <Select
        label={end === 'from' ? 'before' : 'after'}
        beside
        class="text-ink2"
        choices={choices.map((c) => ({ value: c, label: c === 'draft' ? 'draft' : `version ${c}` }))}
        value={data[end]}
        onchange={(v) => (end === 'from' ? go(v, data.to) : go(data.from, v))}
      />
    {/each}
  </header>
  <Stage board={data.board} {desk} units={data.shop}>
    {#snippet over(view)}
      <svg class="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
        {#each data.changes as c (`${c.what} ${c.partId ?? c.detail}`)}
          {#if c.partId}
            {#if c.what !== 'added'}
              <polygon
                points={outline(data.before, c.partId, view)}
                fill="none"
                stroke={COLOUR[c.what]}
                stroke-width="2"
                stroke-dasharray="5 4"
              />
            {/if}
            {#if c.what !== 'removed'}
              <polygon
                points={outline(data.board, c.partId, view)}
                fill={COLOUR[c.what]}
                fill-opacity="0.2"
                stroke={COLOUR[c.what]}
                stroke-width="2"
              />
            {/if}
          {/if}
        {/each}
      </svg>
    {/snippet}
  </Stage>
  <aside class="isolate overflow-auto border-l border-line bg-sheet p-4" aria-label="Differences">
    <h2 class="mb-2 text-lg">
      {data.changes.length === 0
        ? 'No difference'
        : `${data.changes.length} ${data.changes.length === 1 ? 'difference' : 'differences'}`}
    </h2>
    <ul class="divide-y divide-faint">
      {#each data.changes as c (`${c.what} ${c.partId ?? c.detail}`)}
        <li class="[contain-intrinsic-size:auto_41px] [content-visibility:auto]">
          <button type="button" class="flex min-h-10 w-full items-baseline gap-2 text-left" onclick={() => show(c)}>
            <span class="w-4 font-bold {TONE[c.what]}" aria-hidden="true">{MARK[c.what]}</span>
            <span class="w-20 text-ink2">{c.what}</span>
            <span class="w-14 font-semibold">{c.subject}</span>
            <span class="min-w-0 flex-1 text-[13px]">{c.detail}</span>
          </button>
        </li>
      {/each}
    </ul>
  </aside>
</div>
