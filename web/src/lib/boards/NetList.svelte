<script lang="ts">
  // Nets of a board: choosing one lights it up and lists the terminals on it.
  import type { Desk } from '$lib/jobs/desk.svelte';
  import Table, { type Column } from '$lib/ui/Table.svelte';
  import { type BoardModel, partName } from '@orthos/core/board';

  let { board, desk }: { board: BoardModel; desk: Desk } = $props();

  interface Net {
    name: string;
    terminals: string[];
  }
  const nets = $derived.by((): Net[] => {
    const found = new Map<string, string[]>();
    for (const p of board.parts)
      for (const [terminal, net] of Object.entries(p.nets ?? {})) {
        const list = found.get(net) ?? [];
        list.push(`${partName(p)}/${terminal}`);
        found.set(net, list);
      }
    return [...found].map(([name, terminals]) => ({ name, terminals }));
  });
  const lit = $derived(nets.find((n) => n.name === desk.net));
  const COLUMNS: Column<Net>[] = [
    { id: 'name', title: 'Net', of: (n) => n.name, class: 'font-semibold' },
    { id: 'count', title: 'Terminals', of: (n) => String(n.terminals.length), class: 'text-ink2' },
  ];
  function light({ name }: Net) {
    desk.net = desk.net === name ? null : name;
    if (desk.net) desk.lens = 'copper';
  }
</script>

{#if nets.length === 0}
  <p class="text-ink2">No nets yet. A board file or a netlist brings them; a part's own can be typed when editing.</p>
{:else}
  <div class="flex h-full min-h-0 flex-col gap-2">
    <div class="min-h-0 flex-1">
      <Table
        what="nets"
        rows={nets}
        columns={COLUMNS}
        tracks="grid-cols-[minmax(0,1fr)_80px]"
        keyOf={(n) => n.name}
        selected={desk.net}
        onselect={light}
        find={{ label: 'Find a net', example: 'Net, or a part on it', also: (n) => n.terminals.join(' ') }}
        none="No nets yet."
      />
    </div>
    {#if lit}
      <p class="max-h-28 overflow-auto border-t border-line pt-2 text-[13px]">
        <b>{lit.name}</b>: {lit.terminals.join(' ')}
      </p>
    {/if}
  </div>
{/if}
