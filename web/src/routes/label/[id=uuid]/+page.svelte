<script lang="ts">
  import { dayIn } from '$lib/ui/dates';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { JOB_TYPES } from '@orthos/core/job';

  let { data } = $props();
  const day = $derived(dayIn(data.shop.timeZone, data.ticket.createdAt));
  useKeys('Label', () => [{ keys: ['p'], label: 'print', run: () => window.print(), line: true }]);
</script>

<svelte:head><title>Label · No. {data.ticket.number} · Orthos</title></svelte:head>

<div class="h-full overflow-auto p-8 print:h-auto print:overflow-visible print:p-0">
  <div class="mb-6 flex gap-2 print:hidden">
    <a class="button" href="/jobs/{data.ticket.id}/intake">Back to the job</a>
    <button class="button button-main" onclick={() => window.print()}>Print</button>
  </div>
  <!-- 90 × 50 mm, whatever the printer's page is; black on white in either theme -->
  <article class="label-paper flex gap-[3mm] border border-line bg-white p-[3mm] text-black" aria-label="Label">
    <svg
      class="h-[34mm] w-[34mm] shrink-0"
      viewBox="0 0 {data.code.size} {data.code.size}"
      role="img"
      aria-label="Opens job {data.ticket.number}"
      shape-rendering="crispEdges"><path d={data.code.path} fill="#000" /></svg
    >
    <div class="flex min-w-0 flex-1 flex-col leading-tight">
      <p class="text-[9pt]">{data.shop.name}</p>
      <p class="text-[22pt] font-bold">{data.ticket.number}</p>
      <p class="truncate text-[10pt] font-semibold">{data.ticket.device}</p>
      <p class="truncate text-[9pt]">{data.customer}{data.serial ? `, ${data.serial}` : ''}</p>
      <p class="text-[9pt]">{JOB_TYPES[data.ticket.kind].label}, in {day}</p>
      <p class="mt-auto line-clamp-2 text-[8pt]">{data.ticket.complaint}</p>
    </div>
  </article>
  <p class="mt-3 text-[13px] text-ink2 print:hidden">
    90 × 50 mm. Scanned into the search of Jobs, or by a phone on this machine's address, it opens the job.
  </p>
</div>

<style>
  .label-paper {
    width: 90mm;
    height: 50mm;
  }
</style>
