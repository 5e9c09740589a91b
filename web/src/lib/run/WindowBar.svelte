<script lang="ts">
  // The window on a time axis: too early, look now (`word`), too late.
  import StopHatch from '$lib/ui/StopHatch.svelte';
  import { type Guide, latestSafe } from '@orthos/core/rework';

  let { guide, elapsed, word }: { guide: Guide; elapsed: number; word: string } = $props();
  let width = $state(900);

  const from = $derived(guide.allWetFrom_s ?? guide.allWet_s);
  const over = $derived(latestSafe(guide));
  const end = $derived(
    Math.max(10, elapsed * 1.05, (guide.allWetTo_s ?? guide.allWet_s ?? 60) * 1.25, (over ?? 0) * 1.15),
  );
  const x = $derived((at_s: number) => 1 + (at_s / end) * (width - 2));
  const lookEnd = $derived(over ?? end);
</script>

<div bind:clientWidth={width} class="h-[66px]">
  <svg class="h-full w-full" aria-hidden="true">
    <StopHatch id="run-hatch" />
    <rect x="1" y="12" width={width - 2} height="42" fill="var(--sheet)" stroke="var(--line)" />
    {#if from !== null}
      <rect x={x(0)} y="12" width={Math.max(0, x(Math.min(from, lookEnd)) - x(0))} height="42" fill="var(--faint)" />
      {#if lookEnd > from}
        <rect x={x(from)} y="12" width={x(lookEnd) - x(from)} height="42" fill="var(--good-soft)" />
        <text x={x(from) + 14} y="40" class="fill-good text-[21px] font-bold">{word}</text>
      {/if}
      {#if x(from) > 110}<text x="14" y="40" class="fill-ink2 text-[20px]">too early</text>{/if}
    {:else}
      <text x="14" y="40" class="fill-ink2 text-[20px]">stays solid by the plan</text>
    {/if}
    {#if over !== null}
      <rect x={x(over)} y="12" width={Math.max(0, x(end) - x(over))} height="42" fill="url(#run-hatch)" />
      <text
        x={Math.min(x(over) + 12, width - 150)}
        y="40"
        class="fill-stop text-[20px] font-bold"
        stroke="var(--bench)"
        stroke-width="6"
        paint-order="stroke">{guide.closedBy || 'too late'}</text
      >
    {/if}
    {#each guide.joints as j (j.terminal)}
      {#if j.wet_s !== null && j.wet_s < end}
        <line
          x1={x(j.wet_s)}
          x2={x(j.wet_s)}
          y1={j.terminal === guide.last ? 6 : 46}
          y2="54"
          stroke={j.terminal === guide.last ? 'var(--ink)' : 'var(--ink2)'}
          stroke-width={j.terminal === guide.last ? 3 : 1.2}
        />
      {/if}
    {/each}
    <rect x={x(Math.min(elapsed, end)) - 2.5} y="2" width="5" height="62" fill="var(--hot)" />
  </svg>
</div>
