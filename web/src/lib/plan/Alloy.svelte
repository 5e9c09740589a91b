<script lang="ts">
  // Alloy in hands' units: wire for each row, all of it, and which need rules it, by the same model as the calculator.
  import { runInPool } from '$lib/compute/pool';
  import { type AlloyAmount, writeComposition } from '@orthos/core/alloys';
  import type { UnitSettings } from '@orthos/core/ground';
  import type { AlloyLaid } from '@orthos/core/rework';
  import { onDestroy } from 'svelte';
  import { amountWords } from './words';

  let { laid, units }: { laid: AlloyLaid; units: UnitSettings } = $props();
  const over = new AbortController();
  onDestroy(() => over.abort());

  const rows = $derived(laid.rows_mm.map((mm) => Math.round(mm)).join(' + '));
  // called off with the page
  const answer = $derived(
    runInPool<AlloyAmount>('alloy.amount', laid.asked, { signal: over.signal }).catch(() => null),
  );
  const sums = $derived(
    new URLSearchParams({
      joint: writeComposition(laid.asked.joint.wt),
      mg: laid.asked.joint.mass_mg.toPrecision(3),
      alloy: writeComposition(laid.alloy),
      wire: String(laid.dia_mm),
      rows: (laid.asked.rows?.lengths_mm ?? []).map((mm) => mm.toFixed(1)).join(' '),
    }),
  );
</script>

<p class="mt-4">
  <strong>{writeComposition(laid.alloy)}</strong>, row by row: {rows} mm of {laid.dia_mm} mm wire, {Math.round(
    laid.mass_mg,
  )} mg in all.
  {#await answer then told}{told ? amountWords(told, laid, units) : ''}{/await}
  <a class="whitespace-nowrap text-evidence underline" href="/calculate/amount?{sums}">In the calculator</a>
</p>
