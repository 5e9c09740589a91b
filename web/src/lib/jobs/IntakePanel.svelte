<script lang="ts">
  import type { JobView } from '$lib/server/jobView';
  import GateList from './GateList.svelte';
  import Photos from '$lib/photos/Photos.svelte';
  import { untrack } from 'svelte';
  import Cautions from './Cautions.svelte';
  import { useDesk } from './desk.svelte';
  import FunctionList from './FunctionList.svelte';
  import { Recorder } from './recorder.svelte';

  let { view, shop }: { view: JobView; shop: { timeZone: string } } = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));
  desk.lens = 'parts';
  desk.callouts = [];

  const when = (d: Date | string | null) =>
    d
      ? new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: shop.timeZone }).format(new Date(d))
      : 'not promised';
  const facts = $derived([
    ['Customer', [view.customer.name, view.customer.contact].filter(Boolean).join(', ')],
    ['Device', view.ticket.device],
    ['Serial', view.serial || 'none'],
    ['In the box', view.ticket.inBox || 'not noted'],
    [
      'Board model',
      `${view.board.name}, version ${view.boardVersion.number}, ${view.board.stack.length} layers, ${view.board.thickness_mm} mm`,
    ],
    ['Joints', view.board.jointAlloy],
    ['Can feed it', view.board.powerSources.map((s) => s.label).join(', ') || 'not listed'],
    ['Taken in', when(view.ticket.createdAt)],
    ['Promised', when(view.ticket.promisedOn)],
    ['Waits for', view.ticket.waitsFor || 'nothing'],
  ]);
</script>

<div class="p-5">
  <h2 class="mb-3 text-xl">{view.ticket.complaint}</h2>
  <dl class="mb-6 grid grid-cols-[110px_1fr] gap-y-1.5">
    {#each facts as [name, value] (name)}
      <dt class="text-ink2">{name}</dt>
      <dd>{value}</dd>
    {/each}
  </dl>
  <GateList gates={view.gates.filter((g) => g.step === 'intake')} />
  {#if view.board.opening?.length}
    <h3 class="mt-5 mb-1 text-[13px] text-ink2">Comes off first, in this order</h3>
    <ol class="list-inside list-decimal">
      {#each view.board.opening as step (step.id)}<li>{step.kind}{step.what ? `: ${step.what}` : ''}</li>{/each}
    </ol>
  {/if}
  <h3 class="mt-5 mb-1 text-[13px] text-ink2">Functions before the work</h3>
  {#if recorder.problem}<p role="alert" class="font-semibold text-stop">{recorder.problem}</p>{/if}
  <FunctionList {view} {recorder} when="before" />
  <Photos {view} taken="before" title="Photos before" />
  {#if view.reopenings.earlier}
    <p class="mt-4">
      Takes up <a class="underline" href="/jobs/{view.reopenings.earlier.id}/release"
        >No. {view.reopenings.earlier.number}</a
      >: what was done there is on its record.
    </p>
  {/if}
  <Cautions {view} step="intake" />
  <p class="mt-6 text-[13px] text-ink2">
    Wear eye protection, use extraction, wash hands after lead. Local rules and licensed practice come first where
    mains, vehicle safety or industrial safety functions are concerned.
  </p>
  <a class="button button-main mt-5" href="/jobs/{view.ticket.id}/diagnose">Diagnose</a>
</div>
