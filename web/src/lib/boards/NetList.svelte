<script lang="ts">
  // Nets of a board: choosing one lights it up and lists the terminals on it.
  import { type BoardModel, partName } from '@orthos/core/board';
  import type { Desk } from '$lib/jobs/desk.svelte';

  let { board, desk }: { board: BoardModel; desk: Desk } = $props();
  const MOST = 200;
  let filter = $state('');
  const nets = $derived.by(() => {
    const found = new Map<string, { partId: string; text: string }[]>();
    for (const p of board.parts)
      for (const [terminal, net] of Object.entries(p.nets ?? {})) {
        const list = found.get(net) ?? [];
        list.push({ partId: p.partId, text: `${partName(p)}/${terminal}` });
        found.set(net, list);
      }
    return [...found].sort((a, b) => b[1].length - a[1].length || a[0].localeCompare(b[0]));
  });
  const shown = $derived(nets.filter(([name]) => name.toLowerCase().includes(filter.trim().toLowerCase())));
  function light(name: string) {
    desk.net = desk.net === name ? null : name;
    if (desk.net) desk.lens = 'copper';
  }
</script>

<input class="field mb-2" type="search" bind:value={filter} placeholder="Net" aria-label="Find a net" />
{#if nets.length === 0}
  <p class="text-ink2">No nets yet. A board file or a netlist brings them; a part's own can be typed when editing.</p>
{:else}
  <ul class="divide-y divide-faint">
    {#each shown.slice(0, MOST) as [name, terminals] (name)}
      <li>
        <button
          type="button"
          class="flex min-h-10 w-full items-baseline gap-3 px-1 text-left {desk.net === name ? 'bg-evidence-soft' : ''}"
          aria-pressed={desk.net === name}
          onclick={() => light(name)}
        >
          <span class="min-w-24 font-semibold">{name}</span>
          <span class="truncate text-[13px] text-ink2">
            {desk.net === name ? terminals.map((t) => t.text).join(' ') : `${terminals.length} terminals`}
          </span>
        </button>
      </li>
    {/each}
  </ul>
  {#if shown.length > MOST}<p class="pt-2 text-ink2">{MOST} of {shown.length} shown; type to find the others.</p>{/if}
{/if}
