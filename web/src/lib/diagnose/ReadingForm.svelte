<script lang="ts">
  // A reading anywhere on the board, with the good board's beside it.
  import { useDesk } from '$lib/jobs/desk.svelte';
  import { parseReading, UNITS, type JobEventBody, type Place, type Quantity } from '@orthos/core';
  import type { JobView } from '$lib/jobs/view';
  import { placeName, placeOf } from './place';
  import { readTyped, TYPE_OF } from './probes';

  let { view, record }: { view: JobView; record: (body: JobEventBody) => Promise<boolean> } = $props();
  const desk = useDesk();
  let quantity = $state<Quantity>('ohm');
  let where = $state('');
  let value = $state('');
  let good = $state('');
  let goodFrom = $state<'good board' | 'expected'>('good board');
  let problem = $state<{ field: string; message: string } | null>(null);
  let whereInput = $state<HTMLInputElement>();

  // a click on the board names the place
  $effect(() => {
    if (desk.place) where = placeName(view.board, desk.place);
  });

  /** The place typed or clicked; a click's exact point is kept when the text still names it. */
  function placeTyped(): Place | null {
    if (desk.place && placeName(view.board, desk.place) === where) return desk.place;
    return placeOf(view.board, where);
  }
  async function add(event: SubmitEvent) {
    event.preventDefault();
    const place = placeTyped();
    if (!place)
      return (problem = { field: 'where', message: 'Name a part (C7), a terminal (U4.25), or click on the board.' });
    const read = readTyped(value, TYPE_OF[quantity]);
    if ('problem' in read) return (problem = { field: 'value', message: read.problem });
    const reference = good.trim() === '' ? null : parseReading(good);
    if (good.trim() !== '' && reference === null)
      return (problem = { field: 'good', message: 'A number such as 2k1, or leave it empty.' });
    problem = null;
    const stored = await record({
      type: 'reading',
      place,
      quantity,
      value: read.value,
      good: reference,
      ...(reference === null ? {} : { goodFrom }),
      powered: quantity === 'dcv' || quantity === 'current',
    });
    if (stored) {
      value = '';
      good = '';
      whereInput?.focus();
    }
  }
  const issue = (field: string) => (problem?.field === field ? problem.message : undefined);
</script>

{#snippet complaint(field: string)}
  {#if issue(field)}<p id="p-{field}" role="alert" class="mt-1 text-[13px] font-semibold text-stop">
      {issue(field)}
    </p>{/if}
{/snippet}

<form onsubmit={add} class="border-l-[3px] border-evidence bg-evidence-soft p-4" aria-label="Reading">
  <div class="grid grid-cols-[1fr_132px] gap-2">
    <div>
      <label class="label" for="r-where">Measured at</label>
      <input
        id="r-where"
        class="field"
        bind:value={where}
        bind:this={whereInput}
        placeholder="C7, U4.25, or click"
        autocomplete="off"
        aria-describedby={issue('where') ? 'p-where' : undefined}
      />
    </div>
    <div>
      <label class="label" for="r-quantity">What</label>
      <select id="r-quantity" class="field" bind:value={quantity}>
        <option value="ohm">ohms</option>
        <option value="diode">diode mode</option>
        <option value="dcv">volts, powered</option>
        <option value="current">current, powered</option>
      </select>
    </div>
  </div>
  {@render complaint('where')}
  <div class="mt-2 grid grid-cols-[1fr_1fr_auto] items-end gap-2">
    <div>
      <label class="label" for="r-value">Reads, {UNITS[quantity]}</label>
      <input
        id="r-value"
        class="field text-lg font-semibold"
        bind:value
        placeholder="4k7"
        autocomplete="off"
        aria-describedby={issue('value') ? 'p-value' : undefined}
      />
    </div>
    <div>
      <label class="label" for="r-good">{goodFrom === 'expected' ? 'Expected' : 'Good board'}, {UNITS[quantity]}</label>
      <input
        id="r-good"
        class="field text-lg"
        bind:value={good}
        autocomplete="off"
        aria-describedby={issue('good') ? 'p-good' : undefined}
      />
    </div>
    <button class="button button-main">Enter</button>
  </div>
  {@render complaint('value')}
  {@render complaint('good')}
  <label class="mt-2 flex min-h-10 items-center gap-2 text-[13px]">
    <input
      type="checkbox"
      class="h-4 w-4"
      checked={goodFrom === 'expected'}
      onchange={(e) => (goodFrom = e.currentTarget.checked ? 'expected' : 'good board')}
    />
    no good board at hand: the value is what I expect
  </label>
  {#if quantity === 'dcv' || quantity === 'current'}
    <p class="mt-2 text-[13px] font-semibold text-caution">▲ Under power: the power gate lapses with this reading.</p>
  {/if}
</form>
