<script lang="ts">
  // What the times hang on most, and how cold the tip of a bead may be.
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import type { PlanResult } from '@orthos/core/rework';

  interface Props {
    result: PlanResult;
    units: UnitSettings;
    /** Set-point of the bead's tip, where one lays a bead and may set it, °C. */
    tip_C?: number;
    onTip: (set_C: number) => void;
  }
  let { result, units, tip_C, onTip }: Props = $props();
  const lowest = $derived(result.lowestTip_C);
</script>

<h3 class="mt-4 mb-1 text-[13px] text-ink2">What matters most</h3>
<ul class="border-t border-faint pt-1">
  {#each result.matters.slice(0, 4) as m (m.input)}
    <li class="flex justify-between py-0.5">
      <span>{m.input}</span>
      <span class="font-semibold"
        >{m.shift_s === null
          ? 'decides whether it melts'
          : `${m.shift_s >= 0 ? '+' : '−'}${Math.abs(Math.round(m.shift_s))} s`}</span
      >
    </li>
  {/each}
</ul>
{#if tip_C !== undefined && lowest !== undefined}
  <div class="mt-2 flex items-center gap-3 border-t border-faint pt-2">
    <p class="flex-1 text-ink2">
      {#if lowest === null}
        No tip keeps every joint liquid for a lift once the iron has left: lift while it strokes.
      {:else}
        <strong class="text-ink">{formatTemperature(lowest, units)}</strong> is the lowest tip that keeps every joint
        liquid for a lift once the iron has left{lowest === tip_C ? ': as set' : ''}.
      {/if}
    </p>
    {#if lowest !== null && lowest !== tip_C}
      <button class="button" onclick={() => onTip(lowest)}>Set {formatTemperature(lowest, units)}</button>
    {/if}
  </div>
{/if}
<p class="mt-2 text-ink2">
  Heat left on to {Math.round(result.ended_s)} s: body up to
  <strong>{formatTemperature(result.body_C, units)}</strong>, lands up to
  <strong>{formatTemperature(result.pads_C, units)}</strong>.
  <span class="text-ink3">{result.cells.toLocaleString('en')} cells, {result.steps.toLocaleString('en')} steps.</span>
</p>
