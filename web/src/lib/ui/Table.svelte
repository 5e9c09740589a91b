<script lang="ts" module>
  /** A column: what a row says in it, as text. */
  export interface Column<T> {
    id: string;
    title: string;
    of: (row: T) => string;
    class?: string;
  }
</script>

<script lang="ts" generics="T">
  // A long list: sorted by its columns, found by words, walked by keys. Only the rows in sight are on the page.
  import { createTable, getCoreRowModel, getFilteredRowModel, getSortedRowModel } from '@tanstack/table-core';
  import { untrack } from 'svelte';
  import { Rows } from './rows.svelte';

  interface Props {
    /** What the rows are, in the plural: `parts`. */
    what: string;
    rows: readonly T[];
    columns: readonly Column<T>[];
    /** Widths of the columns, as a class: the server's page may have no style attribute. */
    tracks: string;
    keyOf: (row: T) => string;
    selected: string | null;
    onselect: (row: T) => void;
    /** Name and example of the field that finds; `also`: further words by which a row is found. */
    find: { label: string; example: string; also?: (row: T) => string };
    /** Said where there is nothing at all. */
    none: string;
    /** Column it is sorted by at first. */
    by?: string;
  }
  let { what, rows, columns, tracks, keyOf, selected, onselect, find, none, by }: Props = $props();

  const ROW_PX = 40;
  const compare = new Intl.Collator('en', { numeric: true }).compare;
  let filter = $state('');
  let sort = $state.raw<{ id: string; desc: boolean }>({ id: untrack(() => by ?? columns[0].id), desc: false });
  let list = $state<HTMLElement>();
  const seen = new Rows();

  const found = $derived.by((): T[] => {
    const words = filter.toLowerCase().split(/\s+/).filter(Boolean);
    const textOf = (row: T) => [...columns.map((c) => c.of(row)), find.also?.(row) ?? ''].join(' ').toLowerCase();
    const table = createTable<T>({
      data: [...rows],
      columns: [
        ...columns.map((c) => ({
          id: c.id,
          accessorFn: c.of,
          sortingFn: (a: { original: T }, b: { original: T }) =>
            compare(c.of(a.original), c.of(b.original)) ||
            compare(columns[0].of(a.original), columns[0].of(b.original)),
        })),
        {
          id: 'words',
          accessorFn: textOf,
          filterFn: (row: { getValue: (id: string) => string }) =>
            words.every((w) => row.getValue('words').includes(w)),
        },
      ],
      getCoreRowModel: getCoreRowModel(),
      getSortedRowModel: getSortedRowModel(),
      getFilteredRowModel: getFilteredRowModel(),
      renderFallbackValue: null,
      onStateChange: () => {},
      state: {},
    });
    table.setOptions((o) => ({
      ...o,
      state: {
        ...table.initialState,
        sorting: [sort],
        columnFilters: words.length > 0 ? [{ id: 'words', value: words }] : [],
      },
    }));
    return table.getRowModel().rows.map((r) => r.original);
  });
  const at = $derived(selected === null ? -1 : found.findIndex((row) => keyOf(row) === selected));

  $effect(() => {
    if (!list) return;
    const [element, count] = [list, found.length];
    return untrack(() => seen.follow(element, count, ROW_PX));
  });
  // what is selected elsewhere comes into sight
  $effect(() => {
    if (at >= 0 && list) seen.show(at);
  });

  function step(e: KeyboardEvent) {
    const by = { ArrowDown: 1, ArrowUp: -1, PageDown: 10, PageUp: -10, Home: -Infinity, End: Infinity }[e.key];
    if (by === undefined || found.length === 0) return;
    e.preventDefault();
    onselect(found[Math.min(found.length - 1, Math.max(0, at < 0 ? 0 : at + by))]);
  }
</script>

<div class="flex h-full min-h-0 flex-col">
  <input
    class="field mb-2"
    type="search"
    bind:value={filter}
    placeholder={find.example}
    aria-label={find.label}
    onkeydown={(e) => {
      if (e.key === 'ArrowDown' || e.key === 'ArrowUp') step(e);
    }}
  />
  <div role="grid" aria-label={what} aria-rowcount={found.length} class="flex min-h-0 flex-1 flex-col">
    <div role="row" class="grid items-center gap-2 border-b border-line px-1 text-[13px] text-ink2 {tracks}">
      {#each columns as c (c.id)}
        <div role="columnheader" aria-sort={sort.id === c.id ? (sort.desc ? 'descending' : 'ascending') : 'none'}>
          <button
            type="button"
            class="h-8 text-left"
            onclick={() => (sort = { id: c.id, desc: sort.id === c.id && !sort.desc })}
            >{c.title}{sort.id === c.id ? (sort.desc ? ' ▾' : ' ▴') : ''}</button
          >
        </div>
      {/each}
    </div>
    <!-- the grid is walked by arrows, so it takes the focus -->
    <!-- svelte-ignore a11y_no_noninteractive_tabindex, a11y_no_noninteractive_element_interactions -->
    <div
      bind:this={list}
      class="relative min-h-0 flex-1 overflow-auto [contain:strict]"
      role="rowgroup"
      tabindex="0"
      aria-label="Rows; arrows step through them"
      onkeydown={step}
    >
      {#if list}<div style:height="{seen.height}px" role="presentation"></div>{/if}
      {#each seen.items as item (item.key)}
        {@const row = found[item.index]}
        {#if row}
          {@const here = item.index === at}
          <div
            role="row"
            tabindex="-1"
            aria-rowindex={item.index + 1}
            aria-selected={here}
            class="absolute inset-x-0 grid cursor-pointer items-center gap-2 border-b border-faint px-1 {tracks} {here
              ? 'bg-evidence-soft'
              : 'hover:bg-bench'}"
            style:top="{item.start}px"
            style:height="{ROW_PX}px"
            onclick={() => onselect(row)}
            onkeydown={(e) => {
              if (e.key === 'Enter') onselect(row);
            }}
          >
            {#each columns as c (c.id)}<div role="gridcell" class="truncate {c.class ?? ''}">{c.of(row)}</div>{/each}
          </div>
        {/if}
      {/each}
    </div>
  </div>
  <p class="pt-1 text-[13px] text-ink2" aria-live="polite">
    {rows.length === 0
      ? none
      : found.length === 0
        ? `No ${what} of that name.`
        : `${found.length} of ${rows.length} ${what}`}
  </p>
</div>
