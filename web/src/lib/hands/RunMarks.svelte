<script lang="ts">
  // Marks of one run with the time predicted for each; times can be corrected, marks taken back.
  import TakeBack from '$lib/jobs/TakeBack.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { parseDecimal } from '@orthos/core/ground';
  import { jointStates, type Run, secondsOf } from '@orthos/core/job';
  import { markRows } from './marks';

  let { run, recorder, title }: { run: Run; recorder: Recorder; title: string } = $props();
  const rows = $derived(markRows(run));
  const joints = $derived([...jointStates(run)]);
  const heatOn = $derived(run.marks.find((m) => m.what === 'heat-on')?.at ?? null);
  let typed = $state<Record<string, string>>({});

  async function move(eventId: string) {
    const seconds = parseDecimal(typed[eventId] ?? '');
    if (seconds === null || seconds < 0 || seconds > 36_000 || heatOn === null)
      return (recorder.problem = 'Seconds after the heat came on: a number from 0 up.');
    if (await recorder.record({ type: 'mark-moved', eventId, to: Math.round(heatOn + seconds * 1000) }))
      delete typed[eventId];
  }
</script>

<section class="mt-5" aria-label={title}>
  <h3 class="mb-1 flex text-[13px] text-ink2">
    {title}: {run.method}{run.changes.map((c) => `, ${c}`).join('')}{run.bench
      ? ', played by a hidden bench'
      : ''}{run.offline ? ', begun while the server was away' : ''}
    <span class="ml-auto">{run.ended ? run.ended.outcome : 'under way'}</span>
  </h3>
  {#if rows.length === 0}
    <p class="border-t border-faint py-2 text-ink2">No marks. That is all right.</p>
  {:else}
    <table class="w-full">
      <thead class="text-[13px] text-ink3">
        <tr
          ><th class="text-left font-normal">Mark</th><th class="text-right font-normal">planned</th><th
            class="text-right font-normal">marked, s</th
          ><th class="text-right font-normal">off by</th><th><span class="sr-only">Take back</span></th></tr
        >
      </thead>
      <tbody>
        {#each rows as r (r.eventId)}
          <tr class="border-t border-faint">
            <td class="py-1">{r.label}</td>
            <td class="text-right text-ink2">{r.planned === null ? '' : Math.round(r.planned)}</td>
            <td class="text-right">
              {#if r.actual !== null && r.what !== 'heat-on'}
                <input
                  class="field ml-auto h-8 w-20 text-right font-semibold"
                  value={typed[r.eventId] ?? r.actual.toFixed(1)}
                  oninput={(e) => (typed[r.eventId] = e.currentTarget.value)}
                  onchange={() => void move(r.eventId)}
                  aria-label="Seconds of {r.label}"
                  inputmode="decimal"
                />
              {:else if r.what === 'heat-on'}<span class="font-semibold">0</span>{/if}
            </td>
            <td
              class="w-16 text-right {r.off !== null && Math.abs(r.off) > 10 ? 'font-semibold text-hot' : 'text-ink2'}"
              >{r.off === null ? '' : `${r.off >= 0 ? '+' : '−'}${Math.abs(Math.round(r.off))} s`}</td
            >
            <td class="w-9">
              <TakeBack
                what={r.label}
                onclick={() => recorder.record({ type: 'withdrawn', eventId: r.eventId, why: 'taken back' })}
              />
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
  {/if}
  {#if joints.length > 0}
    <p class="mt-1 text-[13px] text-ink2">
      Joint by joint: {joints.filter(([, st]) => st === 'done').length} done{#each ['stuck', 'skipped'] as st (st)}{@const which =
          joints.filter(([, q]) => q === st)}{#if which.length > 0}, {st}: {which
            .map(([t]) => t)
            .join(', ')}{/if}{/each}.
    </p>
  {/if}
  {#if secondsOf(run, 'all-wet') === null && run.op === 'remove' && run.ended}
    <p class="mt-1 text-[13px] text-ink2">“All wet” was not marked.</p>
  {/if}
</section>
