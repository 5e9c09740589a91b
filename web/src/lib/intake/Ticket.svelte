<script lang="ts">
  import GateList from '$lib/jobs/GateList.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import SourceForm from '$lib/jobs/SourceForm.svelte';
  import { SOURCE_NAMES } from '$lib/jobs/sources';
  import TakeBack from '$lib/jobs/TakeBack.svelte';
  import Photos from '$lib/photos/Photos.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { calendarDay, dayIn } from '$lib/ui/dates';
  import type { ShopSettings } from '$lib/settings/shopSettings';
  import { type BoardEvent, EVENTS } from '@orthos/core/diagnosis';
  import { JOB_TYPES, type JobState } from '@orthos/core/job';
  import Extras from './Extras.svelte';
  import TicketForm from './TicketForm.svelte';

  interface Props {
    view: JobView;
    job: JobState;
    recorder: Recorder;
    shop: ShopSettings;
  }
  let { view, job, recorder, shop }: Props = $props();
  let changing = $state(false);

  const ONSET: Record<BoardEvent, string> = {
    sudden: 'sudden',
    creeping: 'creeping',
    intermittent: 'comes and goes',
    liquid: 'after liquid',
    drop: 'after a drop',
    reversed: 'after reversed supply',
    rework: 'after earlier repair',
  };
  const toggle = (e: BoardEvent) =>
    recorder.record({
      type: 'onset',
      events: job.onset.includes(e) ? job.onset.filter((x) => x !== e) : [...job.onset, e],
    });
  const waits = $derived(job.intake.waits);
  const facts = $derived([
    ['Kind of job', `${JOB_TYPES[view.ticket.kind].label}: ${JOB_TYPES[view.ticket.kind].says}`],
    ['Customer', [view.customer.name, view.customer.contact].filter(Boolean).join(', ')],
    ['Device', [view.ticket.device, view.serial].filter(Boolean).join(', ')],
    ['In the box', view.ticket.inBox || 'not noted'],
    [
      'Board model',
      `${view.board.name}, version ${view.boardVersion.number}, ${view.board.stack.length} layers, ${view.board.thickness_mm} mm, ${view.board.jointAlloy}`,
    ],
    ['Taken in', dayIn(shop.timeZone, view.ticket.createdAt)],
    ['Promised', calendarDay(view.ticket.promisedOn) || 'not promised'],
    [
      'Waits for',
      waits
        ? `${waits.what || waits.for}${waits.until ? `, until ${calendarDay(waits.until)}` : ''}`
        : view.ticket.waitsFor || 'nothing',
    ],
  ]);
</script>

<p class="text-[13px] text-ink2">In the owner's words</p>
<h2 class="mb-3 text-xl">{view.ticket.complaint}</h2>
{#if changing}
  <TicketForm {view} onDone={() => (changing = false)} />
{:else}
  <dl class="mb-3 grid grid-cols-[110px_1fr] gap-y-1.5">
    {#each facts as [name, value] (name)}
      <dt class="text-ink2">{name}</dt>
      <dd>{value}</dd>
    {/each}
  </dl>
  <div class="mb-4 flex gap-2">
    <a class="button px-3" href="/label/{view.ticket.id}">Label</a>
    {#if !view.ticket.closedAt}
      <button type="button" class="button px-3" onclick={() => (changing = true)}>Change the ticket</button>
    {/if}
  </div>
{/if}
{#if view.reopenings.earlier}
  <p class="mb-3">
    Takes up <a class="underline" href="/jobs/{view.reopenings.earlier.id}/release"
      >No. {view.reopenings.earlier.number}</a
    >: what was done there is on its record.
  </p>
{/if}

<h3 class="mt-5 mb-1 border-t border-line pt-3">How it began</h3>
<div class="flex flex-wrap gap-2" role="group" aria-label="How it began">
  {#each EVENTS as e (e)}
    <button
      type="button"
      class="button px-3 {job.onset.includes(e) ? 'button-main' : ''}"
      aria-pressed={job.onset.includes(e)}
      onclick={() => toggle(e)}>{ONSET[e]}</button
    >
  {/each}
</div>
<p class="mt-1 text-[13px] text-ink2">It weighs in the ranking of suspects.</p>

<h3 class="mt-5 mb-1 border-t border-line pt-3">What can feed it</h3>
<ul>
  {#each view.board.powerSources as s (s.id)}
    <li class="flex min-h-9 items-center border-t border-faint">
      <span class="flex-1">{s.label}</span><span class="text-[13px] text-ink2">{SOURCE_NAMES[s.kind ?? 'lead']}</span>
    </li>
  {/each}
  {#each job.sources as s (s.id)}
    <li class="flex min-h-9 items-center border-t border-faint">
      <span class="flex-1">{s.label}</span><span class="text-[13px] text-ink2">{SOURCE_NAMES[s.kind]}</span>
      <TakeBack
        what={s.label}
        onclick={() => recorder.record({ type: 'withdrawn', eventId: s.id, why: 'taken back' })}
      />
    </li>
  {/each}
</ul>
<SourceForm {recorder} />
<p class="mt-1 text-[13px] text-ink2">Each has to be shown gone before iron, air or metal touches the board.</p>

<Extras {job} {recorder} states={['wanted', 'left']} />
<div class="mt-5"><GateList gates={view.gates.filter((g) => g.step === 'intake')} /></div>
<Photos {view} taken="before" title="Photos before" />
