<script lang="ts">
  import { Slider } from 'bits-ui';
  import type { Desk } from '$lib/jobs/desk.svelte';
  import StopHatch from '$lib/ui/StopHatch.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { scaleLinear } from 'd3';

  let { desk }: { desk: Desk } = $props();
  let width = $state(600);

  const end = $derived(Math.max(1, desk.over.melt?.end ?? desk.over.heat?.frames.times_s.at(-1) ?? 60));
  const x = $derived(scaleLinear([0, end], [18, width - 18]));
  const ticks = $derived(x.ticks(Math.max(3, Math.floor(width / 110))));
  const nudge = (by: number) => (desk.time = Math.min(end, Math.max(0, desk.time + by)));

  useKeys('Time', () => [
    {
      keys: ['ArrowLeft', 'ArrowRight'],
      label: 'time',
      run: (key) => nudge(key === 'ArrowRight' ? 1 : -1),
      line: true,
    },
    { keys: ['Home'], label: 'cold', run: () => (desk.time = 0) },
    { keys: ['End'], label: 'end', run: () => (desk.time = end) },
    { keys: ['w'], label: 'to all wet', run: () => (desk.time = desk.over.melt?.allWet ?? desk.time) },
  ]);
</script>

<div class="relative h-[86px] shrink-0 border-t border-line bg-sheet" bind:clientWidth={width}>
  <svg class="absolute inset-0 h-full w-full" aria-hidden="true">
    <StopHatch id="over-hatch" />
    <line x1={x(0)} x2={x(end)} y1="54" y2="54" stroke="var(--line)" />
    {#each ticks as t (t)}
      <line x1={x(t)} x2={x(t)} y1="54" y2="59" stroke="var(--line)" />
      {#if Math.abs(x(t) - x(desk.time)) > 24}
        <text x={x(t)} y="73" text-anchor="middle" class="fill-ink2 text-[12px]">{t}</text>
      {/if}
    {/each}
    <text x={width - 6} y="84" text-anchor="end" class="fill-ink3 text-[11px]">seconds</text>
    {#if desk.over.melt}
      {@const m = desk.over.melt}
      {#if m.allWet !== null}
        {@const until = Math.max(m.allWet, Math.min(end, m.closes ?? end))}
        <rect x={x(m.allWet)} y="26" width={x(until) - x(m.allWet)} height="28" fill="var(--good-soft)" />
        {#if x(until) - x(m.allWet) > 80}<text x={x(m.allWet) + 10} y="44" class="fill-good text-[13px] font-bold"
            >look now</text
          >{/if}
      {/if}
      {#if m.closes !== null && m.closes < end}
        <rect x={x(m.closes)} y="26" width={x(end) - x(m.closes)} height="28" fill="url(#over-hatch)" />
        <text
          x={Math.min(x(m.closes) + 6, width - 70)}
          y="44"
          class="fill-stop text-[13px] font-bold"
          stroke="var(--sheet)"
          stroke-width="4"
          paint-order="stroke">{m.closedBy}</text
        >
      {/if}
      {#each m.joints as t, i (i)}
        <line x1={x(t)} x2={x(t)} y1="28" y2="54" stroke="var(--ink2)" stroke-width="1.2" />
      {/each}
      {#if m.allWet !== null}
        <rect x={x(m.allWet) - 1.5} y="22" width="3" height="32" fill="var(--hot)" />
        <text
          x={x(m.allWet) > 190 ? x(m.allWet) - 9 : x(m.allWet) + 64}
          y="16"
          text-anchor={x(m.allWet) > 190 ? 'end' : 'start'}
          class="fill-hot text-[13px] font-bold"
        >
          all wet {Math.round(m.allWet)} s{m.allWetRange.from !== null && m.allWetRange.to !== null
            ? `, ${Math.round(m.allWetRange.from)} to ${Math.round(m.allWetRange.to)}`
            : ''}
        </text>
      {/if}
    {/if}
    <line x1={x(desk.time)} x2={x(desk.time)} y1="10" y2="60" stroke="var(--ink)" stroke-width="2" />
    <circle cx={x(desk.time)} cy="10" r="5.5" fill="var(--ink)" />
    <text
      x={x(desk.time)}
      y="73"
      text-anchor="middle"
      class="fill-ink text-[13px] font-bold"
      stroke="var(--sheet)"
      stroke-width="6"
      paint-order="stroke">{desk.time.toFixed(0)} s</text
    >
  </svg>
  <Slider.Root
    type="single"
    class="absolute inset-x-[9px] top-0 h-full cursor-ew-resize touch-none"
    max={end}
    step={0.5}
    bind:value={desk.time}
  >
    <Slider.Thumb
      index={0}
      aria-label="Time since the heat came on, seconds"
      class="block h-full w-3 cursor-ew-resize"
    />
  </Slider.Root>
</div>
