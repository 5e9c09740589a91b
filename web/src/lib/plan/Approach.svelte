<script lang="ts">
  // From where: hours of a clock round the part, what stands there or suffers, and how it is taken hold of.
  import { holdWords } from '$lib/part/holdWords';
  import { runInPool } from '$lib/compute/pool';
  import type { PlanInputs } from '$lib/jobs/view';
  import Notice from '$lib/ui/Notice.svelte';
  import OneOf from '$lib/ui/OneOf.svelte';
  import type { BoardModel, PlacedPart } from '@orthos/core/board';
  import { type ApproachTool, type Around, holdFor, hourOf, HOURS_DEG, hoursFor, LEAN_DEG } from '@orthos/core/compare';
  import { kindOf, mainPhase, type Method, phaseOf } from '@orthos/core/rework';
  import { onDestroy, untrack } from 'svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import { planInputOf } from './planInput';

  interface Props {
    board: BoardModel;
    target: PlacedPart;
    inputs: PlanInputs;
    method: Method;
  }
  let { board, target, inputs, method }: Props = $props();

  type Hand = 'right' | 'left';
  const HANDS: Record<Hand, string> = { right: 'right hand', left: 'left hand' };
  const KEPT = 'hand';
  let hand = $state<Hand>(localStorage.getItem(KEPT) === 'left' ? 'left' : 'right');

  interface Place {
    hour: number;
    tone: 'good' | 'caution' | 'stop';
    why: string;
  }
  const TONES = { works: 'good', tight: 'caution', no: 'stop', 'not here': 'stop' } as const;

  const absent = $derived(inputs.settings.surroundings?.absent ?? []);
  const byAir = $derived(phaseOf(method, 'air') !== undefined);
  const tool = $derived<ApproachTool>(kindOf(mainPhase(method)).tool === 'tweezers' ? 'tweezers' : 'iron');
  let around = $state.raw<Around | null>(null);
  let problem = $state('');
  const abort = new AbortController();
  onDestroy(() => abort.abort());
  untrack(() => {
    if (!byAir) return;
    void runInPool<Around>(
      'plan.around',
      {
        ...planInputOf(board, inputs, method, false),
        quality: 'coarse',
        as: method.id,
        at: HOURS_DEG.map((approach_deg) => ({ tilt_deg: LEAN_DEG, approach_deg })),
      },
      { signal: abort.signal, onProgress: (_, part) => (around = (part as Around | undefined) ?? around) },
    )
      .then((all) => (around = all))
      .catch((e: Error) => {
        if (e.name !== 'AbortError') problem = e.message;
      });
  });

  const places = $derived.by((): Place[] => {
    if (byAir)
      return (around?.rows ?? []).map((row, n) => {
        const margin = row.worst?.margin_K;
        const left =
          row.worst && margin !== null && margin !== undefined
            ? `${nameOf(board, row.worst.partId)} ${Math.round(margin)} K from its limit`
            : 'nobody near a limit';
        return { hour: hourOf(HOURS_DEG[n]), tone: TONES[row.verdict], why: row.verdict === 'no' ? row.why : left };
      });
    return hoursFor(board, target, tool, absent).map(({ hour, blockedBy }) => {
      if (blockedBy) return { hour, tone: 'stop', why: `${nameOf(board, blockedBy)} stands in the way` };
      // the hand lies on its own side of the board
      const across = hand === 'right' ? hour >= 7 && hour <= 11 : hour >= 1 && hour <= 5;
      return across
        ? { hour, tone: 'caution', why: `free, across a ${HANDS[hand]}: turn the board` }
        : { hour, tone: 'good', why: 'free' };
    });
  });
  const hold = $derived(holdFor(board, target, absent));
  const MARK = { good: '●', caution: '◆', stop: '▲' } as const;
  const spot = (hour: number, r: number) => {
    const a = ((hour - 3) * Math.PI) / 6;
    return { x: 80 + r * Math.cos(a), y: 80 + r * Math.sin(a) };
  };
  /** Hours that stand for one reason together. */
  const reasons = $derived.by(() => {
    const groups = new Map<string, Place & { hours: number[] }>();
    for (const p of [...places].sort((one, other) => (one.hour % 12) - (other.hour % 12))) {
      const key = `${p.tone} ${p.why}`;
      const group = groups.get(key) ?? { ...p, hours: [] };
      group.hours.push(p.hour);
      groups.set(key, group);
    }
    return [...groups.values()];
  });
  const hint = $derived(
    byAir
      ? `The nozzle leans ${LEAN_DEG}° and stands at that hour; 12 is the board’s upper edge as you see it.`
      : 'Where the tool comes from; 12 is the board’s upper edge as you see it.',
  );
</script>

<Notice text={problem} at="panel" class="mt-1" />
<div class="flex flex-wrap items-start gap-4">
  <svg class="w-40 shrink-0" viewBox="0 0 160 160" role="img" aria-label="Where it may come from">
    <circle cx="80" cy="80" r="58" fill="none" stroke="var(--line)" />
    <rect x="66" y="70" width="28" height="20" fill="none" stroke="var(--ink2)" />
    {#each places as p (p.hour)}
      {@const at = spot(p.hour, 58)}
      {@const inner = spot(p.hour, 24)}
      {#if p.tone !== 'stop'}
        {@const end = spot(p.hour, 46)}
        <line x1={end.x} y1={end.y} x2={inner.x} y2={inner.y} stroke="var(--{p.tone})" stroke-width="1.5" />
      {/if}
      <circle cx={at.x} cy={at.y} r="12" fill="var(--{p.tone}-soft)" stroke="var(--{p.tone})" />
      <text x={at.x} y={at.y + 4} text-anchor="middle" class="fill-ink text-[12px] font-semibold">{p.hour}</text>
    {/each}
  </svg>
  <div class="min-w-48 flex-1 text-[13px]">
    <p class="text-ink2">{hint}</p>
    {#if byAir && places.length < 12 && !problem}<p>Leaning the nozzle every way …</p>{/if}
    <ul>
      {#each reasons as r (r.hours[0])}
        <li><span class="text-{r.tone}">{MARK[r.tone]}</span> {r.hours.join(', ')} o’clock: {r.why}</li>
      {/each}
    </ul>
    {#if !byAir}
      <OneOf
        aria-label="Hand"
        choices={HANDS}
        bind:value={() => hand, (next) => ((hand = next), localStorage.setItem(KEPT, next))}
      />
    {/if}
    <p class="mt-1"><span class="text-ink2">Take hold</span> {holdWords(hold)}.</p>
  </div>
</div>
