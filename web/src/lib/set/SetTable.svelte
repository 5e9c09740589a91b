<script lang="ts">
  // Parts of a set as a table: what each was, what goes in instead, what it has come to. One row is picked; arrows walk.
  import type { Desk } from '$lib/jobs/desk.svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import type { BoardModel } from '@orthos/core/board';
  import type { SetPart } from '@orthos/core/job';
  import { FATE_WORDS } from './words';
  import { whatItIs } from './kinds';

  interface Props {
    board: BoardModel;
    desk: Desk;
    /** In the order they are shown. */
    parts: readonly SetPart[];
    /** The part that hands are at. */
    at?: string | null;
    /** Numbers of the order; none while there is no order. */
    numbers?: ReadonlyMap<string, number>;
  }
  let { board, desk, parts, at = null, numbers }: Props = $props();

  const partOf = (id: string) => board.parts.find((p) => p.partId === id);
  function pick(id: string) {
    const part = partOf(id);
    if (part) desk.show(part);
  }
  function walk(e: KeyboardEvent) {
    const by = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
    if (by === 0 || e.altKey || parts.length === 0) return;
    e.preventDefault();
    const n = parts.findIndex((p) => p.item.partId === desk.selected);
    const to = parts[Math.min(parts.length - 1, Math.max(0, n < 0 ? 0 : n + by))].item.partId;
    pick(to);
    document.getElementById(`set-${to}`)?.focus();
  }
  const TONES: Record<string, string> = {
    now: 'font-bold text-hot',
    'given up': 'text-stop',
    waiting: 'text-ink2',
  };
</script>

<table class="w-full border-collapse text-[14px]" role="grid" aria-label="Parts of the set">
  <thead>
    <tr class="text-left text-[12.5px] text-ink2">
      {#if numbers}<th class="w-8 py-1 font-normal"><span class="sr-only">order</span></th>{/if}
      <th class="py-1 font-normal">part</th>
      <th class="py-1 font-normal">what it was</th>
      <th class="py-1 font-normal">goes in instead</th>
      <th class="py-1 font-normal">where</th>
      <th class="py-1 text-right font-normal">state</th>
    </tr>
  </thead>
  <tbody>
    {#each parts as { item, state } (item.partId)}
      {@const part = partOf(item.partId)}
      {@const picked = desk.selected === item.partId}
      <tr
        id="set-{item.partId}"
        tabindex={picked || (desk.selected === null && item === parts[0].item) ? 0 : -1}
        aria-current={item.partId === at ? 'step' : undefined}
        aria-selected={picked}
        class="cursor-pointer border-t border-faint {picked
          ? 'bg-evidence-soft'
          : item.partId === at
            ? 'bg-hot-soft'
            : ''}"
        onclick={() => pick(item.partId)}
        onkeydown={walk}
      >
        {#if numbers}<td class="py-1 text-ink2 tabular-nums">{numbers.get(item.partId) ?? ''}</td>{/if}
        <td class="py-1 pr-2 font-semibold whitespace-nowrap">{nameOf(board, item.partId)}</td>
        <td class="max-w-40 truncate py-1 pr-2">{part ? whatItIs(part, item) : ''}</td>
        <td class="max-w-44 truncate py-1 pr-2">
          {#if item.do === 'renew'}
            {#if item.missing}<span class="text-stop"
                ><span aria-hidden="true">▲</span> {item.substitute || 'the same'}</span
              >
            {:else if item.substitute}<span class="font-semibold">{item.substitute}</span>
            {:else}<span class="text-ink2">the same</span>{/if}
          {:else}<span class="text-caution">{FATE_WORDS[item.do]}{item.to ? `, to No. ${item.to.number}` : ''}</span
            >{#if item.do === 'place'}
              {item.substitute ?? ''}{/if}{#if item.do === 'lend' && item.missing}
              <span class="text-stop">▲ owed</span>{/if}{/if}
        </td>
        <td class="max-w-24 truncate py-1 pr-2 text-ink2">{item.missing ? 'not here yet' : (item.bin ?? '')}</td>
        <td class="py-1 text-right whitespace-nowrap {TONES[state] ?? 'text-good'}">{state}</td>
      </tr>
    {/each}
  </tbody>
</table>
