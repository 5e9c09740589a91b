<script lang="ts">
  // A set at work: how far it has come, the parts in their order, which one is next; hands may go to another.
  import { goto } from '$app/navigation';
  import { layOver, useDesk, type Numbered } from '$lib/jobs/desk.svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { currentAttempt, setProgress } from '@orthos/core/job';
  import type { Operation } from '@orthos/core/rework';
  import SetTable from './SetTable.svelte';
  import { countWords } from './words';

  let { view, op, recorder }: { view: JobView; op: Operation; recorder: Recorder } = $props();
  const desk = useDesk();

  const job = $derived(stateOf(view.events));
  const progress = $derived(setProgress(job));
  const at = $derived(currentAttempt(job).ofSet ?? null);
  const order = $derived.by(() => {
    const legs = [...(job.set?.ordered.values() ?? [])].flatMap((o) => o.legs.filter((l) => l.op === op));
    return new Map(legs.map((l, i) => [l.partId, i + 1]));
  });
  const parts = $derived(
    [...(progress?.parts ?? [])].sort(
      (a, b) => (order.get(a.item.partId) ?? Infinity) - (order.get(b.item.partId) ?? Infinity),
    ),
  );
  const picked = $derived(progress?.parts.find((p) => p.item.partId === desk.selected));
  const next = $derived(progress?.next?.op === op ? progress.next : null);
  layOver(desk, () => ({
    numbered: parts.map((p): Numbered => ({
      partId: p.item.partId,
      n: order.get(p.item.partId) ?? 0,
      tone: p.done[op] ? 'done' : p.item.partId === at ? 'now' : 'next',
    })),
  }));

  async function goTo(partId: string) {
    if (partId !== at) await recorder.record({ type: 'set-at', partId });
  }
  async function begin(partId: string) {
    if (await recorder.record({ type: 'set-at', partId })) await goto(`/run/${view.ticket.id}/${op}`);
  }
  useKeys('Set', () =>
    picked && picked.item.partId !== at
      ? [
          {
            keys: ['g'],
            label: `go to ${nameOf(view.board, picked.item.partId)}`,
            run: () => void goTo(picked.item.partId),
            line: true,
          },
        ]
      : [],
  );
</script>

{#if progress}
  <section class="mt-2" aria-label="Set">
    <p class="text-[14px]">
      <span class="font-semibold">{countWords(progress)}.</span>
      {#if !next && progress.next}
        <a class="underline" href="/jobs/{view.ticket.id}/{progress.next.op}">On to {progress.next.op}</a>
      {:else if progress.stage === null}
        Every part is done.
      {/if}
      {#if job.set?.ordered.size === 0}<a class="underline" href="/jobs/{view.ticket.id}/plan">No order yet</a>{/if}
    </p>
    {#if next && next.partId !== at}
      <button class="button button-main mt-1" disabled={recorder.busy} onclick={() => void begin(next.partId)}
        >Go on with {nameOf(view.board, next.partId)}</button
      >
    {/if}
    <div class="mt-1 max-h-64 overflow-auto">
      <SetTable board={view.board} {desk} {parts} {at} numbers={order} />
    </div>
    {#if picked && picked.item.partId !== at}
      <button class="button mt-1" onclick={() => void goTo(picked.item.partId)}
        ><kbd class="keycap">G</kbd> go to {nameOf(view.board, picked.item.partId)}</button
      >
    {/if}
  </section>
{/if}
