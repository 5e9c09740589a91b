<script lang="ts">
  // Time since the heat came on, beside what the plan expects.
  import type { Operation } from '@orthos/core/rework';
  import type { RunSession } from './session.svelte';
  import WindowBar from './WindowBar.svelte';

  let { s, op, allWet }: { s: RunSession; op: Operation; allWet: boolean } = $props();
  const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
  const otherwise = $derived(s.course?.run.changes.join('; ') ?? '');
  const expected = $derived.by(() => {
    if (!s.guide || s.elapsed === null || allWet || s.oneByOne) return '';
    const { allWetFrom_s: from, allWetTo_s: to, allWet_s: mid } = s.guide;
    if (mid === null && from === null) return 'not expected to melt';
    const left = (t: number) => Math.round(t - (s.elapsed ?? 0));
    if (to !== null && left(to) <= 0) return `all wet expected ${-left(to)} s ago`;
    const first = Math.max(0, left(from ?? mid ?? 0));
    return to === null
      ? `all wet expected from ${first} s on, or it stays solid`
      : `all wet expected in ${first} to ${left(to)} s`;
  });
</script>

<div class="h-[150px]">
  {#if otherwise && !s.ended}
    <p class="mb-1 text-[18px] text-caution">
      <span aria-hidden="true">◆</span>
      {otherwise}: {s.guide
        ? 'times are for that'
        : `the plan’s times do not count${s.times.computing ? ', computing others' : ''}`}
    </p>
  {/if}
  {#if s.elapsed !== null && !s.ended}
    <p class="flex items-baseline gap-6">
      <span class="text-[64px] leading-none font-bold" data-testid="clock">{clock(s.elapsed)}</span>
      <span class="text-[22px] text-ink2">{s.heatOff === null ? expected : 'heat off'}</span>
      {#if s.closing && !allWet}<span class="text-[22px] font-bold text-stop">▲ window closing</span>{/if}
    </p>
    {#if s.guide && s.heatOff === null}<WindowBar
        guide={s.guide}
        elapsed={s.elapsed}
        word={!allWet ? (s.oneByOne ? 'all done by plan' : 'look now') : op === 'remove' ? 'lift' : 'heat off'}
      />{/if}
  {/if}
</div>
