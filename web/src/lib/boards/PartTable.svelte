<script lang="ts">
  // The parts of a board beside it.
  import Table, { type Column } from '$lib/ui/Table.svelte';
  import { type PlacedPart, partName } from '@orthos/core/board';
  import { packageById } from '@orthos/core/packages';

  interface Props {
    parts: readonly PlacedPart[];
    selected: string | null;
    onselect: (part: PlacedPart) => void;
  }
  let { parts, selected, onselect }: Props = $props();

  const COLUMNS: Column<PlacedPart>[] = [
    { id: 'name', title: 'Part', of: partName, width: '60px', class: 'font-semibold' },
    {
      id: 'package',
      title: 'Package',
      of: (p) => packageById(p.package).label,
      width: '128px',
      class: 'text-ink2',
    },
    { id: 'what', title: 'What', of: (p) => [p.what, p.value].filter(Boolean).join(', '), width: 'minmax(0,1fr)' },
    { id: 'side', title: 'Side', of: (p) => p.side, width: '56px', class: 'text-ink2' },
  ];
</script>

<Table
  what="parts"
  rows={parts}
  columns={COLUMNS}
  keyOf={(p) => p.partId}
  {selected}
  {onselect}
  find={{
    label: 'Find a part',
    example: 'Part, package, value, net',
    also: (p) => [p.package, ...Object.values(p.nets ?? {})].join(' '),
  }}
  none="No part placed yet."
/>
