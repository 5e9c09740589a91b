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
    { id: 'name', title: 'Part', of: partName, class: 'font-semibold' },
    {
      id: 'package',
      title: 'Package',
      of: (p) => packageById(p.package).label,

      class: 'text-ink2',
    },
    { id: 'what', title: 'What', of: (p) => [p.what, p.value].filter(Boolean).join(', ') },
    { id: 'side', title: 'Side', of: (p) => p.side, class: 'text-ink2' },
  ];
</script>

<Table
  what="parts"
  rows={parts}
  columns={COLUMNS}
  tracks="grid-cols-[60px_128px_minmax(0,1fr)_56px]"
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
