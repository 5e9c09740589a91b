<script lang="ts">
  // The parts of a board beside it: sorted, filtered, walked by keys. Only the rows in sight are on the page.
  import { type BoardModel, partName } from '@orthos/core/board';
  import { packageById } from '@orthos/core/packages';
  import { tick } from 'svelte';

  type Part = BoardModel['parts'][number];
  type Column = 'name' | 'package' | 'what' | 'side';
  interface Props {
    parts: readonly Part[];
    selected: string | null;
    onselect: (part: Part) => void;
  }
  let { parts, selected, onselect }: Props = $props();

  const ROW = 40;
  /** Rows kept above and below the window. */
  const SPARE = 6;
  const COLUMNS: { id: Column; title: string; of: (p: Part) => string }[] = [
    { id: 'name', title: 'Part', of: partName },
    { id: 'package', title: 'Package', of: (p) => packageById(p.package).label },
    { id: 'what', title: 'What', of: (p) => [p.what, p.value].filter(Boolean).join(', ') },
    { id: 'side', title: 'Side', of: (p) => p.side },
  ];
  let filter = $state('');
  let sort = $state<{ by: Column; down: boolean }>({ by: 'name', down: false });
  let top = $state(0);
  let height = $state(400);
  let list = $state<HTMLElement>();

  const rows = $derived(parts.map((part) => ({ part, cells: COLUMNS.map((c) => c.of(part)) })));
  const found = $derived.by(() => {
    const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
    const at = COLUMNS.findIndex((c) => c.id === sort.by);
    const order = new Intl.Collator('en', { numeric: true }).compare;
    return rows
      .filter((r) => {
        const text = [...r.cells, r.part.package, ...Object.values(r.part.nets ?? {})].join(' ').toLowerCase();
        return words.every((w) => text.includes(w));
      })
      .sort((a, b) => (order(a.cells[at], b.cells[at]) || order(a.cells[0], b.cells[0])) * (sort.down ? -1 : 1));
  });
  const first = $derived(Math.max(0, Math.floor(top / ROW) - SPARE));
  // places are set by script, which the server cannot do: rows come with it
  const shown = $derived(list === undefined ? [] : found.slice(first, first + Math.ceil(height / ROW) + 2 * SPARE));

  function sortBy(by: Column) {
    sort = { by, down: sort.by === by && !sort.down };
  }
  async function step(e: KeyboardEvent) {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10, Home: -Infinity, End: Infinity }[e.key];
    if (by === undefined || found.length === 0) return;
    e.preventDefault();
    const at = found.findIndex((r) => r.part.partId === selected);
    const next = Math.min(found.length - 1, Math.max(0, at < 0 ? 0 : at + by));
    onselect(found[next].part);
    await tick();
    if (list) list.scrollTop = Math.min(next * ROW, Math.max(list.scrollTop, (next + 1) * ROW - height));
  }
  // what is selected elsewhere comes into sight
  $effect(() => {
    const at = selected === null ? -1 : found.findIndex((r) => r.part.partId === selected);
    if (at < 0 || !list) return;
    if (at * ROW < list.scrollTop || (at + 1) * ROW > list.scrollTop + height) list.scrollTop = at * ROW - height / 3;
  });
</script>

<div class="flex h-full min-h-0 flex-col">
  <input
    class="field mb-2"
    type="search"
    bind:value={filter}
    placeholder="Part, package, value, net"
    aria-label="Find a part"
    onkeydown={(e) => {
      if (e.key === 'ArrowDown' || e.key === 'ArrowUp') void step(e);
    }}
  />
  <div role="grid" aria-label="Parts" aria-rowcount={found.length} class="flex min-h-0 flex-1 flex-col">
    <div role="row" class="row border-b border-line text-[13px] text-ink2">
      {#each COLUMNS as c (c.id)}
        <div role="columnheader" aria-sort={sort.by === c.id ? (sort.down ? 'descending' : 'ascending') : 'none'}>
          <button type="button" class="h-8 text-left" onclick={() => sortBy(c.id)}>
            {c.title}{sort.by === c.id ? (sort.down ? ' ▾' : ' ▴') : ''}
          </button>
        </div>
      {/each}
    </div>
    <!-- the grid is walked by arrows, so it takes the focus -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
    <div
      bind:this={list}
      bind:clientHeight={height}
      class="relative min-h-0 flex-1 overflow-auto [contain:strict]"
      role="rowgroup"
      tabindex="0"
      aria-label="Rows; arrows step through them"
      onscroll={(e) => (top = e.currentTarget.scrollTop)}
      onkeydown={step}
    >
      {#if list}<div style:height="{found.length * ROW}px" role="presentation"></div>{/if}
      {#each shown as { part, cells }, i (part.partId)}
        <div
          role="row"
          tabindex="-1"
          aria-rowindex={first + i + 1}
          aria-selected={part.partId === selected}
          class="row absolute inset-x-0 cursor-pointer border-b border-faint px-1 {part.partId === selected
            ? 'bg-evidence-soft'
            : 'hover:bg-bench'}"
          style:top="{(first + i) * ROW}px"
          style:height="{ROW}px"
          onclick={() => onselect(part)}
          onkeydown={(e) => {
            if (e.key === 'Enter') onselect(part);
          }}
        >
          <div role="gridcell" class="truncate font-semibold">{cells[0]}</div>
          <div role="gridcell" class="truncate text-ink2">{cells[1]}</div>
          <div role="gridcell" class="truncate">{cells[2]}</div>
          <div role="gridcell" class="text-ink2">{cells[3]}</div>
        </div>
      {/each}
    </div>
  </div>
  <p class="pt-1 text-[13px] text-ink2" aria-live="polite">
    {found.length === 0
      ? parts.length === 0
        ? 'No part placed yet.'
        : 'No part of that name.'
      : `${found.length} of ${parts.length} parts`}
  </p>
</div>

<style>
  .row {
    display: grid;
    grid-template-columns: 60px 128px minmax(0, 1fr) 56px;
    gap: 8px;
    align-items: center;
  }
</style>
