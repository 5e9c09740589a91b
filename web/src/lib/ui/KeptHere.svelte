<script lang="ts">
  /** What this browser holds for the server: what waits while it is away, and what it would not take, until a human has read why. */
  import { outbox } from '$lib/run/outbox.svelte';

  const box = outbox();
  const moment = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' });
  const marks = (n: number) => (n === 1 ? 'one mark' : `${n} marks`);
  const refused = $derived(box.refused);
</script>

{#if box.away && box.waiting.length > 0}
  <p role="status" class="border-t border-line bg-caution-soft px-5 py-1.5 font-semibold text-caution print:hidden">
    <span aria-hidden="true">◆</span> The server is away: {marks(box.waiting.length)}
    {box.keptHere === box.waiting.length ? 'kept here, sent when it is back.' : 'held by this page; do not close it.'}
  </p>
{/if}
{#if refused.length > 0}
  {@const first = refused[0]}
  <div role="alert" class="flex items-center gap-3 border-t border-stop px-5 py-1.5 text-stop print:hidden">
    <p class="flex-1">
      <strong><span aria-hidden="true">▲</span> {marks(refused.length)} not taken by the server, kept here.</strong>
      The first, <a class="underline underline-offset-2" href="/jobs/{first.ticketId}">of this job</a>, is from
      {moment.format(first.at)}: {first.message}
    </p>
    <button class="button" onclick={() => box.again(first.id)}>Send again</button>
    <button class="button" onclick={() => box.dismiss(first.id)}>Understood</button>
  </div>
{/if}
