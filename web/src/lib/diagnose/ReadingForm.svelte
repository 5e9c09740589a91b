<script lang="ts">
  // A reading anywhere on the board, with the good board's beside it.
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import { formatReading, type Measured, parseReading, type Place, type Quantity, UNITS } from '@orthos/core/ground';
  import type { JobEventBody } from '@orthos/core/job';
  import { stateOf } from '$lib/jobs/stateOf';
  import { referenceFor, standing } from './question';
  import { placeName, placeNamed } from './place';
  import { probeOfReading, readTyped, TYPE_OF } from './probes';
  import type { Circuit, DiagnoseView } from './view';

  interface Props {
    view: DiagnoseView;
    circuit: Circuit | null;
    record: (body: JobEventBody) => Promise<boolean>;
  }
  let { view, circuit, record }: Props = $props();
  const desk = useDesk();
  let quantity = $state<Quantity>('ohm');
  let where = $state('');
  let value = $state('');
  let good = $state('');
  /** Whence the value beside it comes, and what its field is called. */
  const SOURCES = {
    'good board': 'Good board',
    twin: 'Twin, value or place',
    expected: 'Expected',
  } as const;
  let goodFrom = $state<keyof typeof SOURCES>('good board');
  let problem = $state<{ field: string; message: string } | null>(null);
  let whereInput = $state<HTMLInputElement>();

  // a click on the board names the place
  $effect(() => {
    if (desk.place) where = placeName(view.board, desk.place);
  });

  /** The place typed or clicked; a click's exact point is kept when the text still names it. */
  function placeTyped(): Place | null {
    if (desk.place && placeName(view.board, desk.place) === where) return desk.place;
    return placeNamed(view.board, where);
  }
  /** What is known of the place that is typed, so that it need not be typed. */
  const known = $derived.by(() => {
    const place = where ? placeTyped() : null;
    const probe = place && probeOfReading({ place, quantity }, view.board, circuit?.netlist ?? null);
    return probe && referenceFor(view, circuit?.netlist ?? null, probe);
  });
  /** What this job last read at a twin's place, as U6.8 or as another channel's net would be. */
  function twinReads(text: string): Measured | null {
    const twin = placeNamed(view.board, text);
    if (!twin) return null;
    const same = standing(stateOf(view.events)).findLast(
      (r) => r.quantity === quantity && placeName(view.board, r.place) === placeName(view.board, twin),
    );
    return same?.value ?? null;
  }
  async function add(event: SubmitEvent) {
    event.preventDefault();
    const place = placeTyped();
    if (!place)
      return (problem = { field: 'where', message: 'Name a part (C7), a terminal (U4.25), or click on the board.' });
    const read = readTyped(value, TYPE_OF[quantity]);
    if ('problem' in read) return (problem = { field: 'value', message: read.problem });
    const number = good.trim() === '' ? null : parseReading(good);
    const reference = number ?? (goodFrom === 'twin' ? twinReads(good) : null);
    if (good.trim() !== '' && reference === null) {
      const message =
        goodFrom === 'twin' && placeNamed(view.board, good)
          ? `Nothing was read at ${good.trim()} yet in this mode: measure the twin first.`
          : 'A number such as 2k1, or leave it empty.';
      return (problem = { field: 'good', message });
    }
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
  <Notice text={issue(field)} at="field" id="p-{field}" class="mt-1" />
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
    <Select
      label="What"
      choices={{ ohm: 'ohms', diode: 'diode mode', dcv: 'volts, powered', current: 'current, powered' }}
      id="r-quantity"
      bind:value={quantity}
    />
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
      <label class="label" for="r-good">{SOURCES[goodFrom]}, {UNITS[quantity]}</label>
      <input
        id="r-good"
        class="field text-lg"
        bind:value={good}
        placeholder={known ? formatReading(known.value, quantity) : ''}
        autocomplete="off"
        aria-describedby={issue('good') ? 'p-good' : undefined}
      />
    </div>
    <button class="button button-main">Enter</button>
  </div>
  {@render complaint('value')}
  {@render complaint('good')}
  {#if known && good === ''}<p class="mt-1 text-[13px] text-ink2">
      Known good: {formatReading(known.value, quantity)}, {known.units}
      {known.units === 1 ? 'board' : 'boards'}; it counts without being typed.
    </p>{/if}
  <Select
    label="beside it stands"
    beside
    class="mt-2 text-[13px]"
    choices={{
      'good board': 'a good board’s value',
      twin: 'the twin channel’s, on this board',
      expected: 'what I expect',
    }}
    bind:value={goodFrom}
  />
  {#if quantity === 'dcv' || quantity === 'current'}
    <p class="mt-2 text-[13px] font-semibold text-caution">▲ Under power: the power gate lapses with this reading.</p>
  {/if}
</form>
