<script lang="ts">
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { fromAddress, keepInAddress } from '$lib/calculate/address';
  import Curve from '$lib/calculate/Curve.svelte';
  import { type CleanUpPlace, PLACES, roundsUntil } from '@orthos/core/alloys';
  import { parseDecimal } from '@orthos/core/ground';

  const START = { from: '45', limit: '0.25', fresh: '1', place: 'lands', skip: '0' };
  type Key = keyof typeof START;
  let v = $state(fromAddress<Key>(START));
  const place = $derived<CleanUpPlace>(v.place in PLACES ? (v.place as CleanUpPlace) : 'lands');
  $effect(() => keepInAddress('/calculate/rounds', { ...v }));

  const numbers = $derived({ from: parseDecimal(v.from), limit: parseDecimal(v.limit), fresh: parseDecimal(v.fresh) });
  const problem = $derived(
    numbers.from === null || numbers.from < 0 || numbers.from > 100
      ? 'In the joint now: percent from 0 to 100.'
      : numbers.limit === null || numbers.limit <= 0 || numbers.limit > 100
        ? 'May stay: percent above 0.'
        : numbers.fresh === null || numbers.fresh <= 0 || numbers.fresh > 100
          ? 'Fresh solder: times the joint, above 0.'
          : '',
  );
  const runs = $derived(
    problem
      ? []
      : (Object.keys(PLACES) as CleanUpPlace[]).map((id) => ({
          id,
          ...PLACES[id],
          ...roundsUntil(
            { c_wt: numbers.from ?? 0, mass: 1 },
            { wick: PLACES[id].wick, add: numbers.fresh ?? 1, limit_wt: numbers.limit ?? 1 },
          ),
        })),
  );
  const mine = $derived(runs.find((r) => r.id === place));
  const skipped = $derived(Math.max(0, Math.min(mine?.cycles ?? 0, Math.round(parseDecimal(v.skip) ?? 0))));
  const left = $derived(mine ? mine.trace[mine.cycles - skipped].c_wt : 0);
</script>

<svelte:head><title>Clean-up rounds · Calculate · Orthos</title></svelte:head>

<h1 class="mb-4 text-[26px]">Rounds of braid and fresh solder</h1>
<div class="grid max-w-6xl grid-cols-[minmax(320px,2fr)_3fr] gap-6">
  <form
    class="grid grid-cols-2 content-start gap-x-4 gap-y-3 self-start border border-line bg-sheet p-5"
    aria-label="Case"
  >
    <label><span class="label">In the joint now, %</span><input class="field" bind:value={v.from} /></label>
    <label><span class="label">May stay, %</span><input class="field" bind:value={v.limit} /></label>
    <label><span class="label">Fresh solder, times the joint</span><input class="field" bind:value={v.fresh} /></label>
    <Select
      label="Where"
      choices={Object.entries(PLACES).map(([id, p]) => ({ value: id, label: p.label }))}
      bind:value={v.place}
    />
    <label
      ><span class="label">Rounds skipped</span><input class="field" inputmode="numeric" bind:value={v.skip} /></label
    >
    <p class="col-span-2 text-[13px] text-ink2">
      Guides: bismuth 0.25 % where there is lead (with both a last liquid stays at 96 °C), 2 % without; indium 0.1 %;
      lead 0.1 % in a lead-free joint. Limits of baths and new alloys; none is published for one repaired joint.
    </p>
  </form>
  <div aria-live="polite">
    {#if mine}
      <p class="flex items-baseline gap-4">
        <span class="text-4xl font-bold" data-testid="rounds"
          >{mine.cycles} {mine.cycles === 1 ? 'round' : 'rounds'}</span
        >
        <span class="text-ink2">on {mine.label}; then {mine.c_wt.toPrecision(2)} % is left</span>
      </p>
      {#if skipped > 0}
        <p class="mt-1 font-semibold {left > (numbers.limit ?? 0) ? 'text-stop' : 'text-good'}">
          {left > (numbers.limit ?? 0) ? '■' : '●'} After skipping {skipped}: {left.toPrecision(2)} % stays,
          {(left / (numbers.limit ?? 1)).toPrecision(2)} × the guide.
        </p>
      {/if}
      <div class="mt-3">
        <Curve
          lines={[{ name: mine.label, tone: 'hot', points: mine.trace.map((p, n) => [n, Math.max(p.c_wt, 1e-4)]) }]}
          xName="rounds"
          yName="% left"
          log
          whole
          levels={[{ y: numbers.limit ?? 1, name: 'guide' }]}
          told="Share left after each round: {mine.trace.map((p) => p.c_wt.toPrecision(2)).join(', ')} percent"
        />
      </div>
      <ul class="mt-3" aria-label="Rounds by place">
        {#each runs as r (r.id)}
          <li class="flex border-t border-faint py-1.5">
            <span class="flex-1">{r.label}, braid leaves {Math.round(100 * r.wick)} %</span>
            <b>{r.cycles}</b>
          </li>
        {/each}
      </ul>
      <p class="mt-2 text-[13px] text-ink2">
        Flooding without braid only thins by what comes: braid every round, both sides of a hole.
      </p>
    {:else}
      <Notice text={problem} />
    {/if}
  </div>
</div>
