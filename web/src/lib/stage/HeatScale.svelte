<script lang="ts">
  // What colours of the heat field mean, at the foot of the stage.
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import { heatColour } from './heatLayer';

  interface Props {
    size: { w: number; h: number };
    scope: boolean;
    units: UnitSettings;
  }
  let { size, scope, units }: Props = $props();
  const colour = $derived(heatColour(scope));
</script>

<g transform="translate({size.w - 196} {size.h - 26})">
  {#each [50, 75, 100, 125, 150, 175, 200, 225, 250, 275] as c, i (c)}
    <rect x={i * 18} width="18" height="9" fill={colour(c + 12)} />
  {/each}
  {#each [50, 150, 250] as c (c)}
    <text x={((c - 50) / 25) * 18} y="21" class="fill-ink2 text-[11px]" text-anchor="middle"
      >{formatTemperature(c, units)}</text
    >
  {/each}
</g>
