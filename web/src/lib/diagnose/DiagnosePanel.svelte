<script lang="ts">
  import { goto } from '$app/navigation';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import { recordEvent } from '$lib/jobs/send';
  import TakeBack from '$lib/jobs/TakeBack.svelte';
  import type { JobView } from '$lib/server/jobView';
  import {
    compareReading,
    currentAttempt,
    foldJob,
    formatReading,
    parseReading,
    partName,
    UNITS,
    type JobEventBody,
    type Place,
    type Quantity,
  } from '@orthos/core';
  import { placeName, placeOf } from './place';

  let { view }: { view: JobView } = $props();
  const desk = useDesk();
  desk.lens = 'readings';

  const job = $derived(foldJob(view.events));
  const suspect = $derived(currentAttempt(job).suspect);
  const readings = $derived([...job.readings].reverse());
  const earlier = $derived(job.attempts.slice(0, -1));

  let quantity = $state<Quantity>('ohm');
  let where = $state('');
  let value = $state('');
  let good = $state('');
  let goodFrom = $state<'good board' | 'expected'>('good board');
  let note = $state('');
  let why = $state('');
  let problem = $state<{ field: string; message: string } | null>(null);
  let whereInput = $state<HTMLInputElement>();

  // a click on the board names the place
  $effect(() => {
    if (desk.place) where = placeName(view.board, desk.place);
  });
  $effect(() => {
    desk.callouts = job.readings.slice(-7).map((r) => {
      const difference = compareReading(r.value, r.good, r.quantity);
      const [x_mm, y_mm] = [r.place.x_mm, r.place.y_mm];
      return {
        id: r.id,
        x_mm,
        y_mm,
        side: r.place.side,
        title: formatReading(r.value, r.quantity),
        detail:
          difference === 'same'
            ? 'as good'
            : r.good === null
              ? 'no reference'
              : `${r.goodFrom === 'expected' ? 'expected' : 'good'}: ${formatReading(r.good, r.quantity)}`,
        tone: difference === 'low' || difference === 'high' ? 'hot' : 'evidence',
      };
    });
    return () => (desk.callouts = []);
  });

  const target = $derived(view.board.parts.find((p) => p.partId === desk.selected));
  const nameOf = (partId: string) => {
    const part = view.board.parts.find((p) => p.partId === partId);
    return part ? partName(part) : partId;
  };

  async function record(body: JobEventBody): Promise<boolean> {
    try {
      await recordEvent(view.ticket.id, body);
      problem = null;
      return true;
    } catch (e) {
      problem = { field: 'server', message: (e as Error).message };
      return false;
    }
  }
  /** The place typed or clicked; a click's exact point is kept when the text still names it. */
  function placeTyped(): Place | null {
    if (desk.place && placeName(view.board, desk.place) === where) return desk.place;
    return placeOf(view.board, where);
  }
  async function addReading(event: SubmitEvent) {
    event.preventDefault();
    const place = placeTyped();
    if (!place)
      return (problem = { field: 'where', message: 'Name a part (C7), a terminal (U4.25), or click on the board.' });
    const measured = parseReading(value);
    if (measured === null) return (problem = { field: 'value', message: 'A number such as 4k7, .42, 12m, or OL.' });
    const reference = good.trim() === '' ? null : parseReading(good);
    if (good.trim() !== '' && reference === null)
      return (problem = { field: 'good', message: 'A number such as 2k1, or leave it empty.' });
    const powered = quantity === 'dcv' || quantity === 'current';
    const stored = await record({
      type: 'reading',
      place,
      quantity,
      value: measured,
      good: reference,
      ...(reference === null ? {} : { goodFrom }),
      powered,
    });
    if (stored) {
      value = '';
      good = '';
      whereInput?.focus();
    }
  }
  async function addNote(event: SubmitEvent) {
    event.preventDefault();
    if (!note.trim()) return (problem = { field: 'note', message: 'Say what you see.' });
    const place = desk.place ?? undefined;
    if (await record({ type: 'observation', text: note, ...(place ? { place } : {}) })) note = '';
  }
  async function convict(event: SubmitEvent) {
    event.preventDefault();
    if (!target) return (problem = { field: 'why', message: 'Select the part on the board first.' });
    if (!why.trim()) return (problem = { field: 'why', message: 'Which reading or sign speaks against it?' });
    if (suspect && suspect.partId !== target.partId) {
      if (!(await record({ type: 'new-attempt', why: `${nameOf(suspect.partId)} was not it` }))) return;
    }
    if (await record({ type: 'suspect', partId: target.partId, why })) {
      why = '';
      await goto(`/jobs/${view.ticket.id}/plan`);
    }
  }
  const withdraw = (id: string) => record({ type: 'withdrawn', eventId: id, why: 'taken back' });
  const issue = (field: string) => (problem?.field === field ? problem.message : undefined);
</script>

{#snippet complaint(field: string)}
  {#if issue(field)}<p id="p-{field}" role="alert" class="mt-1 text-[13px] font-semibold text-stop">
      {issue(field)}
    </p>{/if}
{/snippet}

<div class="p-5">
  {#if issue('server')}<p role="alert" class="mb-3 border border-stop px-3 py-2 text-stop">{issue('server')}</p>{/if}
  <form onsubmit={addReading} class="border-l-[3px] border-evidence bg-evidence-soft p-4" aria-label="Reading">
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
        <label class="label" for="r-good"
          >{goodFrom === 'expected' ? 'Expected' : 'Good board'}, {UNITS[quantity]}</label
        >
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

  <h3 class="mt-5 mb-1 text-[13px] text-ink2">Readings</h3>
  {#if readings.length === 0}
    <p class="border-t border-faint py-3 text-ink2">
      None yet. Click a joint on the board, type what the meter shows, press Enter.
    </p>
  {:else}
    <table class="w-full">
      <thead class="sr-only"
        ><tr><th>Place</th><th>Reading</th><th>Good board</th><th>Difference</th><th>Take back</th></tr></thead
      >
      <tbody>
        {#each readings as r (r.id)}
          {@const d = compareReading(r.value, r.good, r.quantity)}
          <tr class="border-t border-faint">
            <td class="py-1.5 pr-2 font-semibold">{placeName(view.board, r.place)}</td>
            <td class="pr-2 text-right text-base font-bold">{formatReading(r.value, r.quantity)}</td>
            <td class="pr-2 text-right text-ink2">{r.good === null ? '' : formatReading(r.good, r.quantity)}</td>
            <td class="w-20 {d === 'same' ? 'text-evidence' : d ? 'font-semibold text-hot' : 'text-ink3'}">
              {d === 'same' ? '= as good' : d === 'low' ? '▼ too low' : d === 'high' ? '▲ too high' : 'no reference'}
            </td>
            <td class="w-9">
              <TakeBack what={`the reading at ${placeName(view.board, r.place)}`} onclick={() => withdraw(r.id)} />
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}

  <h3 class="mt-5 mb-1 text-[13px] text-ink2">Seen</h3>
  <ul>
    {#each job.observations as o (o.id)}
      <li class="flex items-start border-t border-faint py-1.5">
        <span class="flex-1"
          >{#if o.place}<span class="font-semibold">{placeName(view.board, o.place)}</span>:
          {/if}{o.text}</span
        >
        <TakeBack what={o.text} onclick={() => withdraw(o.id)} />
      </li>
    {/each}
  </ul>
  <form onsubmit={addNote} class="mt-1 flex gap-2" aria-label="Observation">
    <input
      class="field"
      bind:value={note}
      placeholder={desk.place
        ? `at ${placeName(view.board, desk.place)}: burn, crust, missing part`
        : 'burn, crust, missing part'}
      aria-label="What you see"
      maxlength="2000"
    />
    <button class="button">Note</button>
  </form>
  {@render complaint('note')}

  <h3 class="mt-6 mb-1 text-[13px] text-ink2">Suspect</h3>
  {#if suspect}
    <div class="border-l-[3px] border-hot py-1 pl-3">
      <p class="text-lg font-bold">{nameOf(suspect.partId)}</p>
      <p class="text-ink2">{suspect.why}</p>
    </div>
  {/if}
  {#each earlier as a, i (i)}
    {#if a.suspect}<p class="mt-2 text-[13px] text-ink2">
        Attempt {i + 1}: {nameOf(a.suspect.partId)}, {a.suspect.why}. Was not it.
      </p>{/if}
  {/each}
  <form onsubmit={convict} class="mt-3" aria-label="Suspect">
    <label class="label" for="s-why"
      >{target ? `Why ${partName(target)}` : 'Select a part on the board, then say why'}</label
    >
    <div class="flex gap-2">
      <input
        id="s-why"
        class="field"
        bind:value={why}
        placeholder="the reading that speaks against it"
        maxlength="2000"
        aria-describedby={issue('why') ? 'p-why' : undefined}
      />
      <button class="button button-main whitespace-nowrap">{target ? `${partName(target)} it is` : 'Suspect'}</button>
    </div>
    {@render complaint('why')}
  </form>
  {#if suspect}<a class="button mt-4" href="/jobs/{view.ticket.id}/plan">Plan for {nameOf(suspect.partId)}</a>{/if}
</div>
