<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { page } from '$app/state';
  import { keepInAddress } from '$lib/calculate/address';
  import { Calculator } from '$lib/calculate/calculator.svelte';
  import CompositionField from '$lib/calculate/CompositionField.svelte';
  import Curve from '$lib/calculate/Curve.svelte';
  import PhaseBar from '$lib/calculate/PhaseBar.svelte';
  import { type AlloyProperties, readComposition, writeComposition } from '@orthos/core/alloys';
  import { formatTemperature, parseDecimal } from '@orthos/core/ground';
  import { onDestroy, untrack } from 'svelte';

  let { data } = $props();
  const START = 'Sn96.5Ag3Cu0.5:10,Bi52.5Pb32Sn15.5:6';
  let parts = $state(
    untrack(() => page.url.searchParams.get('parts') ?? START)
      .split(',')
      .slice(0, 6)
      .map((p) => {
        const [wt = '', mass = ''] = p.split(':');
        return { wt, mass };
      }),
  );
  const calculator = new Calculator<AlloyProperties & { mass_mg: number }>('alloy.mix');
  onDestroy(() => calculator.end());

  $effect(() => {
    const list = parts.map((p) => ({ wt: readComposition(p.wt), mass_mg: parseDecimal(p.mass) }));
    const wrong = list.findIndex((p) => !p.wt || p.mass_mg === null || p.mass_mg <= 0);
    calculator.ask(
      wrong < 0 ? { parts: list, curve: 40 } : `Solder ${wrong + 1}: a composition and milligrams above 0.`,
    );
    keepInAddress('/calculate/mixture', { parts: parts.map((p) => `${p.wt}:${p.mass}`).join(',') });
  });
  const out = $derived(calculator.answer);
  const degrees = (C: number) => formatTemperature(C, data.shop);
</script>

<svelte:head><title>Mixture · Calculate · Orthos</title></svelte:head>

<h1 class="mb-4 text-[26px]">What a mixture melts at</h1>
<div class="grid max-w-6xl grid-cols-[minmax(320px,2fr)_3fr] gap-6">
  <form class="content-start self-start border border-line bg-sheet p-5" aria-label="Solders">
    {#each parts as part, n (n)}
      <div class="grid grid-cols-[1fr_96px] gap-3 {n > 0 ? 'mt-3 border-t border-faint pt-3' : ''}">
        <CompositionField label="Solder {n + 1}" bind:value={part.wt} />
        <label><span class="label">mg</span><input class="field" inputmode="decimal" bind:value={part.mass} /></label>
      </div>
    {/each}
    <div class="mt-3 flex gap-2">
      <button
        type="button"
        class="button"
        disabled={parts.length >= 6}
        onclick={() => parts.push({ wt: 'Sn63Pb37', mass: '5' })}>One more</button
      >
      {#if parts.length > 1}<button type="button" class="button" onclick={() => parts.pop()}>One less</button>{/if}
    </div>
  </form>
  <div aria-live="polite" aria-busy={calculator.busy}>
    {#if out}
      <p class="flex items-baseline gap-4">
        <span class="text-4xl font-bold" data-testid="liquidus">{degrees(out.matrixLiquidus_C)}</span>
        <span class="text-ink2">can be moved from here, ± {out.plusMinus_K} K ({out.confidence} confidence)</span>
      </p>
      <PhaseBar alloy={out} units={data.shop} />
      {#if out.curve}
        <Curve
          lines={[
            { name: 'evened out', tone: 'evidence', points: out.curve.map((p) => [p.T_C, 100 * p.solid]) },
            { name: 'as it really cools', tone: 'hot', points: out.curve.map((p) => [p.T_C, 100 * p.scheilSolid]) },
          ]}
          xName="°C"
          yName="% solid"
          told="Share that is solid, from {degrees(out.curve[0].T_C)} down to {degrees(
            out.curve[out.curve.length - 1].T_C,
          )}"
        />
      {/if}
      <dl class="mt-3 grid grid-cols-[150px_1fr] gap-y-1">
        <dt class="text-ink2">Mixture</dt>
        <dd>{writeComposition(out.wt)}, {out.mass_mg.toPrecision(3)} mg, {out.density_g_cm3.toFixed(2)} g/cm³</dd>
        <dt class="text-ink2">Last liquid</dt>
        <dd>
          {out.scheilEnd_C === null
            ? 'less than a thousandth stays liquid below the solidus'
            : `${(100 * out.scheilLast).toPrecision(2)} % freezes only at ${degrees(out.scheilEnd_C)}`}
        </dd>
        <dt class="text-ink2">Freezing range</dt>
        <dd>{out.freezingRange_K.toFixed(0)} K</dd>
        {#if out.published}
          <dt class="text-ink2">Published</dt>
          <dd>{degrees(out.published.solidus_C)} to {degrees(out.published.liquidus_C)}</dd>
        {/if}
      </dl>
      {#each out.notes as note (note)}<p class="mt-1 font-semibold text-caution">▲ {note}</p>{/each}
    {:else if calculator.problem}
      <Notice text={calculator.problem} />
    {:else}
      <p class="text-ink2">computing</p>
    {/if}
  </div>
</div>
