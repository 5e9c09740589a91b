<script lang="ts">
  // The text for the owner, made with one key, and his answer taken with another.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { JobState } from '@orthos/core/job';
  import { ownerText } from './ownerText';

  let { view, job, recorder }: { view: JobView; job: JobState; recorder: Recorder } = $props();

  /** An answer is expected within so many days. */
  const DAYS = 3;
  const PHOTOS = 3;
  const text = $derived(ownerText(view, job));
  const tiers = $derived(job.intake.offer?.tiers ?? []);
  const photos = $derived(view.photos.filter((p) => p.taken === 'before').slice(0, PHOTOS));
  let copied = $state(false);
  let field = $state<HTMLTextAreaElement>();

  async function copy() {
    try {
      await navigator.clipboard.writeText(text);
      copied = true;
    } catch {
      // a browser that does not let it: the text is there to be taken by hand
      field?.select();
      copied = false;
    }
    if (job.intake.waits?.for === 'answer' || tiers.length === 0) return;
    const until = new Date(Date.now() + DAYS * 86_400_000).toISOString().slice(0, 10);
    await recorder.record({ type: 'waits', for: 'answer', what: 'the offer', until });
  }
  const take = (n: number) => {
    const tier = tiers[n];
    if (tier) void recorder.record({ type: 'offer-taken', tier: tier.label });
  };
  useKeys('Owner', () => [
    { keys: ['m'], label: 'copy the text for the owner', run: () => void copy(), line: true },
    ...(tiers.length > 0 && !job.intake.taken
      ? [{ keys: ['y'], label: `yes to ${tiers[0].label}`, run: () => take(0), line: true }]
      : []),
  ]);
</script>

<section class="mt-5 border-t border-line pt-3" aria-label="For the owner">
  <h3 class="mb-1">For the owner</h3>
  <textarea
    class="field font-mono text-[13px]"
    rows={Math.min(14, text.split('\n').length + 1)}
    aria-label="Text for the owner"
    readonly
    bind:this={field}>{text}</textarea
  >
  {#if photos.length > 0}
    <p class="mt-1 flex gap-2">
      {#each photos as p, n (p.id)}
        <a href="/api/photos/{p.id}" download="No {view.ticket.number} photo {n + 1}.jpg"
          ><img class="h-16 border border-line" src="/api/photos/{p.id}?small" alt="photo {n + 1} to go with it" /></a
        >
      {/each}
    </p>
  {/if}
  <div class="mt-2 flex flex-wrap items-center gap-2">
    <button class="button" onclick={() => void copy()}
      ><kbd class="keycap">M</kbd> {copied ? 'Copied' : 'Copy it'}</button
    >
    {#if !job.intake.taken}
      {#each tiers as tier, n (tier.label)}
        <button class="button" disabled={recorder.busy} onclick={() => take(n)}
          >{#if n === 0}<kbd class="keycap">Y</kbd>
          {/if}answer: {n + 1}. {tier.label}</button
        >
      {/each}
    {/if}
  </div>
</section>
