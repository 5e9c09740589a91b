<script lang="ts">
  // Before anything is measured: is it this board at all? What was tried stands among what was seen.
  import type { JobEventBody, JobState } from '@orthos/core/job';

  let { job, record }: { job: JobState; record: (body: JobEventBody) => Promise<boolean> } = $props();

  /** What can be tried, and what either outcome says. */
  const TRIALS = [
    { what: 'A good module in its place', here: 'works', elsewhere: 'fails the same' },
    { what: 'This one in a good device', here: 'fails there too', elsewhere: 'works there' },
    { what: 'A known-good load on it', here: 'fails the same', elsewhere: 'works' },
    { what: 'Fed from another source', here: 'fails the same', elsewhere: 'works' },
  ] as const;
  const textOf = (t: (typeof TRIALS)[number], here: boolean) =>
    `${t.what}: ${here ? t.here : t.elsewhere}. ${here ? 'It is this board.' : 'It is not this board alone.'}`;
  const told = $derived(new Set(job.observations.map((o) => o.text)));
  const elsewhere = $derived(TRIALS.filter((t) => told.has(textOf(t, false))));
</script>

<section aria-label="Which board at all" class="my-3 border-t border-line pt-2">
  <h3 class="mb-1 text-[13px] text-ink2">Which board at all? First what costs a minute</h3>
  {#each TRIALS as t (t.what)}
    <div class="flex min-h-10 items-center gap-2 border-t border-faint py-1">
      <span class="min-w-0 flex-1">{t.what}</span>
      {#each [true, false] as here (here)}
        {@const text = textOf(t, here)}
        <button
          type="button"
          class="button px-3 {told.has(text) ? 'button-main' : ''}"
          aria-label="{t.what}: {here ? t.here : t.elsewhere}"
          aria-pressed={told.has(text)}
          disabled={told.has(text)}
          onclick={() => record({ type: 'observation', text })}>{here ? t.here : t.elsewhere}</button
        >
      {/each}
    </div>
  {/each}
  {#if elsewhere.length > 0}<p role="status" class="mt-1 text-[13px] font-semibold text-caution">
      ▲ Look beside this board before it is measured: {elsewhere.map((t) => t.what.toLowerCase()).join(', ')}.
    </p>{/if}
</section>
