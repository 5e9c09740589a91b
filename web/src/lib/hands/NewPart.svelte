<script lang="ts">
  // The part that goes on, before it does: where it is from, what it shows, and why another one than the old will do.
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { PlacedPart } from '@orthos/core/board';
  import { expectNew, isAsExpected, noWorseThan } from '@orthos/core/diagnosis';
  import { formatValue, type UnitSettings } from '@orthos/core/ground';
  import { type Attempt, DONORS, type JobState, PART_ORIGINS, type PartRecord } from '@orthos/core/job';

  interface Props {
    target: PlacedPart;
    attempt: Attempt;
    job: JobState;
    recorder: Recorder;
    units: UnitSettings;
  }
  let { target, attempt, job, recorder, units }: Props = $props();
  /** Of a set: the board that it comes from. */
  const elsewhere = $derived(attempt.ofSet === undefined ? undefined : job.set?.items.get(attempt.ofSet)?.from);
  /** What is known of it is said beforehand; hands may say otherwise. */
  function known(record: PartRecord) {
    if (!elsewhere) return;
    origin = 'donor board';
    from = `No. ${elsewhere.number} ${record.name}`;
    donor = record.donor;
  }

  const expected = $derived(expectNew(target));
  let measured = $state('');
  /** What was typed, against what a good one shows. */
  const fits = $derived(isAsExpected(expected, measured));
  let origin = $state<(typeof PART_ORIGINS)[number]>('new');
  let from = $state('');
  let donor = $state<(typeof DONORS)[number]>('not known');
  let other = $state(false);
  let number = $state('');
  let why = $state('');
  const last = $derived(attempt.newPart);

  async function measure(ok: boolean) {
    if (!measured.trim()) return (recorder.problem = 'What did you measure on the new part?');
    if (other && ok && (!number.trim() || !why.trim()))
      return (recorder.problem = 'Another part than the old one: which, and why will it do?');
    const stored = await recorder.record({
      ...{ type: 'new-part-measured', ok, note: measured, origin },
      ...(from.trim() ? { from } : {}),
      ...(origin === 'donor board' ? { donor } : {}),
      ...(other && number.trim() && why.trim() ? { substitute: { number, why } } : {}),
    });
    if (stored) measured = '';
  }
</script>

<div class="border-t border-faint py-2" role="group" aria-label="New part">
  <p class="font-semibold">
    New part
    {#if last}<span class="font-normal {last.ok ? 'text-good' : 'text-stop'}"
        >{last.ok ? '✓ good' : '▲ bad'}: {[
          last.origin,
          last.from,
          last.donor && `its board ${last.donor}`,
          last.note,
          last.substitute && `${last.substitute.number} instead: ${last.substitute.why}`,
        ]
          .filter(Boolean)
          .join(', ')}</span
      >{/if}
  </p>
  {#if elsewhere}
    {#await import('$lib/donor/CameWith.svelte') then { default: CameWith }}
      <CameWith partId={target.partId} from={elsewhere} {job} {recorder} {units} onRecord={known} />
    {/await}
  {/if}
  <p class="text-[13px] text-ink2">
    {expected.measure}: {#if expected.within}<b
        >{formatValue(expected.within.lo, expected.within.unit)} to {formatValue(
          expected.within.hi,
          expected.within.unit,
        )}</b
      >;&nbsp;{/if}{expected.expect}.
  </p>
  <div class="mt-1 flex gap-2">
    <Select class="w-40 shrink-0" choices={PART_ORIGINS} bind:value={origin} aria-label="Where the part is from" />
    <input
      class="field"
      bind:value={from}
      placeholder="which drawer, donor or order"
      aria-label="Which drawer, donor or order"
      maxlength="200"
    />
    {#if origin === 'donor board'}
      <Select class="w-52 shrink-0" choices={DONORS} bind:value={donor} aria-label="Its board" />
    {/if}
  </div>
  {#if origin === 'donor board'}
    <p class="mt-1 text-[13px] text-ink2">
      {donor === 'ran until it came off'
        ? 'It worked there: legs clean and straight, then the reading above.'
        : 'Nobody saw it work: measure it as above before it is soldered, all of its pins.'} It was hot once more than a new
      one.
    </p>
  {/if}
  <Check class="mt-1" bind:checked={other}>another number than the old one</Check>
  {#if other}
    <p class="text-[13px] text-ink2">Same package and pins, no worse in: {noWorseThan(target)}.</p>
    <div class="mt-1 flex gap-2">
      <input
        class="field"
        bind:value={number}
        placeholder="its number"
        aria-label="Number of the substitute"
        maxlength="120"
      />
      <input class="field" bind:value={why} placeholder="why it will do" aria-label="Why it will do" maxlength="400" />
    </div>
  {/if}
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
