<script lang="ts">
  import { ticked } from '$lib/ui/choices';
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  // Before solder: the old part tested, the new one measured, its orientation checked against something.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { classOfPart, isPolarised, partName } from '@orthos/core/board';
  import { expectNew, isAsExpected, offBoardVerdict, recipeFor } from '@orthos/core/diagnosis';
  import { formatValue } from '@orthos/core/ground';
  import { currentAttempt, JOB_TYPES, PART_ORIGINS } from '@orthos/core/job';
  import { packageById } from '@orthos/core/packages';

  let { view, recorder }: { view: JobView; recorder: Recorder } = $props();
  const attempt = $derived(currentAttempt(stateOf(view.events)));
  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  const polarity = $derived(target ? packageById(target.package).polarity : 'none');
  const polarised = $derived(target !== undefined && isPolarised(target));
  const tested = $derived(
    attempt.offBoardTest && attempt.offBoardTest.result !== 'not tested' ? attempt.offBoardTest.result : null,
  );
  const verdict = $derived(
    target && tested && attempt.offBoardTest?.recovered !== undefined
      ? offBoardVerdict(classOfPart(target), tested, attempt.offBoardTest.recovered)
      : null,
  );
  const MEANING = {
    none: 'Nothing on its package says which way: look for a band, dot or plus on the part itself.',
    pin1: 'Pin 1 is at the cut corner or dot.',
    cathode: 'The stripe is the cathode.',
    'minus-stripe': 'Aluminium can: the stripe is minus. Board shading differs between makers.',
    'plus-stripe': 'Moulded tantalum: the stripe is plus.',
  } as const;
  const AGAINST = ['photo before', 'silkscreen', 'pin-1 mark', 'continuity'];
  let against = $state<string[]>([]);
  let measured = $state('');
  const expected = $derived(target && expectNew(target));
  /** What was typed, against what a good one shows. */
  const fits = $derived(expected ? isAsExpected(expected, measured) : null);
  let origin = $state<(typeof PART_ORIGINS)[number]>('new');
  let from = $state('');

  async function measure(ok: boolean) {
    if (!measured.trim()) return (recorder.problem = 'What did you measure on the new part?');
    const where = from.trim() ? { from } : {};
    if (await recorder.record({ type: 'new-part-measured', ok, note: measured, origin, ...where })) measured = '';
  }
  async function orient() {
    if (against.length === 0) return (recorder.problem = 'Check it against at least one of these.');
    await recorder.record({ type: 'orientation-checked', against });
  }
</script>

<section class="mt-3" aria-label="Before solder">
  {#if !JOB_TYPES[view.ticket.kind].skips.includes('remove')}
    <div class="flex flex-wrap items-center gap-2 border-t border-faint py-2">
      <span class="flex-1 font-semibold">Old part, off the board</span>
      {#each ['bad', 'good', 'not tested'] as const as result (result)}
        <button
          class="button px-3 {attempt.offBoardTest?.result === result ? 'button-main' : ''}"
          aria-pressed={attempt.offBoardTest?.result === result}
          disabled={recorder.busy}
          onclick={() => recorder.record({ type: 'off-board-test', result })}>{result}</button
        >
      {/each}
    </div>
    {#if target && attempt.offBoardTest?.result !== 'not tested'}
      <p class="pb-2 text-[13px] text-ink2">{recipeFor(classOfPart(target))}</p>
    {/if}
    {#if tested}
      <div class="flex flex-wrap items-center gap-2 pb-2">
        <span class="flex-1">The board's line without it</span>
        {#each [[true, 'came back'], [false, 'still wrong']] as const as [recovered, label] (label)}
          <button
            class="button px-3 {attempt.offBoardTest?.recovered === recovered ? 'button-main' : ''}"
            aria-pressed={attempt.offBoardTest?.recovered === recovered}
            disabled={recorder.busy}
            onclick={() => recorder.record({ type: 'off-board-test', result: tested, recovered })}>{label}</button
          >
        {/each}
      </div>
    {/if}
    {#if verdict}
      <p class="pb-2 text-[13px] {{ good: 'text-good', caution: 'text-caution', stop: 'text-stop' }[verdict.tone]}">
        <span aria-hidden="true">{{ good: '●', caution: '◆', stop: '■' }[verdict.tone]}</span>
        <b>{verdict.title}.</b>
        {verdict.next}
        {#if verdict.tone !== 'good'}<a class="underline" href="/jobs/{view.ticket.id}/diagnose">Diagnose</a>{/if}
      </p>
    {/if}
  {/if}
  <div class="border-t border-faint py-2">
    <p class="font-semibold">
      New part
      {#if attempt.newPart}<span class="font-normal {attempt.newPart.ok ? 'text-good' : 'text-stop'}"
          >{attempt.newPart.ok ? '✓ good' : '▲ bad'}: {[
            attempt.newPart.origin,
            attempt.newPart.from,
            attempt.newPart.note,
          ]
            .filter(Boolean)
            .join(', ')}</span
        >{/if}
    </p>
    {#if expected}
      <p class="text-[13px] text-ink2">
        {expected.measure}: {#if expected.within}<b
            >{formatValue(expected.within.lo, expected.within.unit)} to {formatValue(
              expected.within.hi,
              expected.within.unit,
            )}</b
          >,
        {/if}{expected.expect}.
      </p>
    {/if}
    <div class="mt-1 flex gap-2">
      <Select class="w-40 shrink-0" choices={PART_ORIGINS} bind:value={origin} aria-label="Where the part is from" />
      <input
        class="field"
        bind:value={from}
        placeholder="which drawer, donor or order"
        aria-label="Which drawer, donor or order"
        maxlength="200"
      />
    </div>
    <div class="mt-1 flex gap-2">
      <input
        class="field"
        bind:value={measured}
        placeholder="what the meter shows, number on the part"
        aria-label="New part, measured"
        maxlength="2000"
      />
      <button class="button px-3" onclick={() => measure(true)}>Good</button>
      <button class="button px-3" onclick={() => measure(false)}>Bad</button>
    </div>
    {#if fits !== null}
      <p class="mt-1 text-[13px] {fits ? 'text-good' : 'font-semibold text-caution'}" role="status">
        {fits ? '✓ inside what a good one shows' : '◆ outside what a good one shows: leads, range, or another part?'}
      </p>
    {/if}
  </div>
  <div class="border-t border-faint py-2">
    <p class="font-semibold">
      Orientation
      {#if !polarised && target}<span class="font-normal text-ink2">{partName(target)} has no wrong way round</span>
      {:else if attempt.orientation}<span class="font-normal text-good">✓ against {attempt.orientation.join(', ')}</span
        >{/if}
    </p>
    {#if polarised}
      <p class="text-[13px] text-ink2">{MEANING[polarity]}</p>
      <div class="flex flex-wrap items-center gap-x-4">
        {#each AGAINST as a (a)}
          <Check bind:checked={() => against.includes(a), (on) => (against = ticked(against, a, on))}>{a}</Check>
        {/each}
        <button class="button ml-auto px-3" onclick={orient}>Checked</button>
      </div>
    {/if}
  </div>
</section>
