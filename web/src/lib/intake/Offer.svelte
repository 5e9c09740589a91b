<script lang="ts">
  // What it will cost, in tiers; whether that is worth it; what is promised; declining with a reason.
  import Select from '$lib/ui/Select.svelte';
  import { goto } from '$app/navigation';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import type { ShopSettings } from '$lib/settings/shopSettings';
  import { parseDecimal } from '@orthos/core/ground';
  import {
    attemptsOf,
    DECLINE_REASONS,
    type DeclineReason,
    expectedAttempts,
    expectedMinutes,
    type JobState,
    type ModelHistory,
    priceOf,
    warrantyTerms,
    worthOf,
  } from '@orthos/core/job';
  import { untrack } from 'svelte';
  import { formatMoney, moneyField, parseMoney } from './money';

  interface Props {
    view: JobView;
    job: JobState;
    recorder: Recorder;
    history: ModelHistory;
    shop: ShopSettings;
  }
  let { view, job, recorder, history, shop }: Props = $props();
  const offer = $derived(job.intake.offer);
  const currency = untrack(() => job.intake.offer?.currency ?? shop.currency);

  interface Row {
    label: string;
    minutes: string;
    parts: string;
    attempts: string;
  }
  const found = untrack(() => history.culprits.reduce((n, c) => n + c.jobs, 0));
  /** What earlier jobs say about how soon the right part is found; one attempt and a half without any. */
  const odds = untrack(() => history.culprits.map((c) => c.jobs / (found + 1)));
  const likely = odds.length > 0 ? expectedAttempts(odds) : 1.5;
  const usual = untrack(() => Math.round(history.minutes ?? 45));

  let rows = $state<Row[]>(
    untrack(() =>
      job.intake.offer
        ? job.intake.offer.tiers.map((t) => ({
            label: t.label,
            minutes: String(t.minutes),
            parts: moneyField(t.parts_minor, currency),
            attempts: String(t.attempts),
          }))
        : [
            { label: 'the one part', minutes: String(usual), parts: '5', attempts: likely.toFixed(1) },
            { label: 'the whole circuit round it', minutes: String(usual + 40), parts: '15', attempts: '1' },
          ],
    ),
  );
  let worth = $state(
    untrack(() => (job.intake.offer?.worth_minor ? moneyField(job.intake.offer.worth_minor, currency) : '')),
  );

  function tierOf(row: Row) {
    const [minutes, attempts] = [parseDecimal(row.minutes), parseDecimal(row.attempts)];
    const parts_minor = parseMoney(row.parts, currency);
    if (minutes === null || minutes < 0 || attempts === null || attempts < 1 || attempts > 20 || parts_minor === null)
      return null;
    const tier = { label: row.label.trim(), minutes, attempts, parts_minor };
    return { ...tier, price_minor: priceOf(tier, shop.rate_minor_h) };
  }
  const tiers = $derived(rows.map(tierOf));
  const worth_minor = $derived(worth.trim() === '' ? null : parseMoney(worth, currency));

  async function make(event: SubmitEvent) {
    event.preventDefault();
    if (worth.trim() !== '' && worth_minor === null) return (recorder.problem = 'Worth: an amount, or leave it empty.');
    const whole = tiers.flatMap((t) => (t?.label ? [t] : []));
    if (whole.length < rows.length)
      return (recorder.problem = 'Each tier: a name, minutes and parts from 0 up, 1 to 20 attempts.');
    if (new Set(whole.map((t) => t.label)).size < whole.length)
      return (recorder.problem = 'Two tiers have the same name.');
    await recorder.record({ type: 'offer', currency, tiers: whole, worth_minor });
  }

  const suggested = $derived(
    warrantyTerms({
      months: shop.warrantyMonths,
      workedOn:
        job.onset.includes('rework') ||
        attemptsOf(job).length > 1 ||
        job.intake.damage.some((d) => d.kind === 'earlier repair' && d.whose === 'found'),
      liquid:
        job.onset.includes('liquid') || job.intake.damage.some((d) => d.kind === 'liquid' || d.kind === 'corrosion'),
      measuredOnly: job.intake.proof?.by === 'readings',
    }),
  );
  const agreed = $derived(job.intake.warranty);
  let months = $state('');
  let terms = $state('');
  $effect(() => {
    months = String(agreed?.months ?? suggested.months);
    terms = agreed?.terms ?? suggested.terms;
  });
  async function promise(event: SubmitEvent) {
    event.preventDefault();
    const n = Number(months);
    if (!Number.isInteger(n) || n < 0 || n > 120) return (recorder.problem = 'Warranty: whole months from 0 to 120.');
    await recorder.record({ type: 'warranty', months: n, terms });
  }

  let reason = $state<DeclineReason | ''>('');
  let why = $state('');
  async function decline(event: SubmitEvent) {
    event.preventDefault();
    if (!reason) return (recorder.problem = 'Choose why it is declined.');
    const note = why.trim();
    if (await recorder.record({ type: 'released', outcome: 'declined', reason, ...(note ? { note } : {}) }))
      await goto(`/jobs/${view.ticket.id}/release`);
  }
  const TONE = {
    'worth it': 'text-good',
    borderline: 'text-caution',
    'does not pay': 'text-stop',
    'not known': 'text-ink2',
  };
  const MARK = { 'worth it': '●', borderline: '▲', 'does not pay': '■', 'not known': '' };
</script>

<h2 class="mb-1 text-lg">Offer</h2>
<p class="mb-2 text-[13px] text-ink2">
  {formatMoney(shop.rate_minor_h, currency)} an hour.
  {history.minutes === null
    ? 'No earlier job on this model to go by.'
    : `Earlier jobs took ${Math.round(history.minutes)} min in the middle.`}
  {odds.length > 0 ? `Attempts from ${found} earlier culprits.` : ''}
</p>
<form onsubmit={make} aria-label="Offer">
  {#each rows as row, n (n)}
    {@const tier = tiers[n]}
    {@const judged = tier ? worthOf(tier.price_minor, worth_minor) : null}
    <fieldset class="border-t border-faint py-2">
      <legend class="sr-only">Tier {n + 1}</legend>
      <div class="grid grid-cols-[1fr_64px_72px_72px] items-end gap-1.5">
        <label
          ><span class="label">Tier</span><input class="field px-1.5" bind:value={row.label} maxlength="120" /></label
        >
        <label
          ><span class="label">minutes</span><input
            class="field px-1.5"
            bind:value={row.minutes}
            inputmode="decimal"
          /></label
        >
        <label
          ><span class="label">parts</span><input
            class="field px-1.5"
            bind:value={row.parts}
            inputmode="decimal"
          /></label
        >
        <label
          ><span class="label">attempts</span><input
            class="field px-1.5"
            bind:value={row.attempts}
            inputmode="decimal"
          /></label
        >
      </div>
      <p class="mt-1 flex items-baseline gap-3">
        {#if tier && judged}
          <span class="text-lg font-bold">{formatMoney(tier.price_minor, currency)}</span>
          <span class="text-[13px] text-ink2">{Math.round(expectedMinutes(tier))} min in all</span>
          {#if judged.share !== null}<span class="text-[13px] font-semibold {TONE[judged.state]}"
              ><span aria-hidden="true">{MARK[judged.state]}</span>
              {judged.state}, {Math.round(100 * judged.share)} % of its worth</span
            >{/if}
          {#if offer?.tiers.some((t) => t.label === tier.label && t.price_minor === tier.price_minor)}
            <button
              type="button"
              class="button ml-auto px-2.5 {job.intake.taken === tier.label ? 'button-main' : ''}"
              aria-pressed={job.intake.taken === tier.label}
              onclick={() => recorder.record({ type: 'offer-taken', tier: tier.label })}
              >{job.intake.taken === tier.label ? 'taken' : 'take it'}</button
            >
          {/if}
        {:else}<span class="text-[13px] font-semibold text-stop">a name, minutes, parts, attempts from 1</span>{/if}
      </p>
    </fieldset>
  {/each}
  <div class="flex items-end gap-2 border-t border-faint pt-2">
    <label class="w-32"
      ><span class="label">It is worth</span><input class="field" bind:value={worth} inputmode="decimal" /></label
    >
    <button
      type="button"
      class="button"
      disabled={rows.length >= 6}
      onclick={() => rows.push({ label: '', minutes: '60', parts: '0', attempts: '1' })}>Add a tier</button
    >
    {#if rows.length > 1}<button type="button" class="button" onclick={() => rows.pop()}>Drop the last</button>{/if}
    <button class="button button-main ml-auto">{offer ? 'Offer anew' : 'Offer it'}</button>
  </div>
</form>
{#if offer}
  <p class="mt-2 text-[13px] text-ink2" role="status">
    Offered: {offer.tiers.map((t) => `${t.label} ${formatMoney(t.price_minor, offer.currency)}`).join(', ')}.
    {job.intake.taken ? `Taken: ${job.intake.taken}.` : 'Waits for an answer.'}
  </p>
{/if}

{#if !view.ticket.closedAt}
  {#await import('./OwnerText.svelte') then { default: OwnerText }}<OwnerText {view} {job} {recorder} />{/await}
  <h3 class="mt-5 mb-1 border-t border-line pt-3">Waiting</h3>
  {#await import('$lib/jobs/Waits.svelte') then { default: Waits }}<Waits {job} {recorder} />{/await}
{/if}

<h3 class="mt-5 mb-1 border-t border-line pt-3">Warranty</h3>
<form onsubmit={promise} class="grid grid-cols-[72px_1fr] gap-2" aria-label="Warranty">
  <label><span class="label">months</span><input class="field" bind:value={months} inputmode="numeric" /></label>
  <label
    ><span class="label">covers</span><textarea class="field" rows="3" bind:value={terms} maxlength="2000"
    ></textarea></label
  >
  <button class="button col-start-2 justify-self-start">{agreed ? 'Change' : 'Promise'}</button>
</form>
<p class="mt-1 text-[13px] text-ink2">
  {agreed ? 'Promised, and on the record.' : 'Suggested from what was marked: earlier work, liquid, what can be run.'}
</p>

{#if !view.ticket.closedAt}
  <h3 class="mt-5 mb-1 border-t border-line pt-3">Decline</h3>
  <form onsubmit={decline} class="grid grid-cols-[190px_1fr_auto] gap-2" aria-label="Decline">
    <Select none="why" choices={DECLINE_REASONS} bind:value={reason} aria-label="Why it is declined" />
    <input class="field" bind:value={why} placeholder="in a few words" aria-label="Reason in words" maxlength="4000" />
    <button class="button">Decline</button>
  </form>
{/if}
