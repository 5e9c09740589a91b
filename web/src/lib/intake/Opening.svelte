<script lang="ts">
  // How the device came open, step by step; closing is the same list backwards.
  import Select from '$lib/ui/Select.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import TakeBack from '$lib/jobs/TakeBack.svelte';
  import PhotoPick from '$lib/photos/PhotoPick.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { OPENING_KINDS, type OpeningKind } from '@orthos/core/board';
  import { type JobState, type ModelHistory, screwsOut } from '@orthos/core/job';
  import ClosingList from './ClosingList.svelte';

  interface Props {
    view: JobView;
    job: JobState;
    recorder: Recorder;
    history: ModelHistory;
  }
  let { view, job, recorder, history }: Props = $props();
  const NAMES: Record<OpeningKind, string> = {
    screw: 'screws',
    clip: 'clips',
    pry: 'pry spot',
    cable: 'cable, plug',
    frame: 'frame',
    shield: 'shield',
    heatsink: 'heat sink',
    glue: 'glue, tape',
    other: 'other',
  };
  let kind = $state<OpeningKind>('screw');
  let what = $state('');
  let count = $state('1');
  let photoId = $state('');

  const opened = $derived(job.intake.opened);
  const out = $derived(screwsOut(job.intake));
  /** Steps that are known and not yet taken: of the board model, else of the last job that wrote them down. */
  const ahead = $derived.by(() => {
    const known = view.board.opening?.length
      ? view.board.opening.map((s) => ({ key: s.id, kind: s.kind, what: s.what, count: 1 }))
      : (history.opening?.steps ?? []).map((s) => ({ key: s.id, kind: s.kind, what: s.what, count: s.count }));
    return known.filter((k) => !opened.some((o) => o.modelStep === k.key));
  });

  async function add(event: SubmitEvent) {
    event.preventDefault();
    const n = Number(count);
    if (!Number.isInteger(n) || n < 1 || n > 200) return (recorder.problem = 'How many: a whole number from 1.');
    const step = { kind, what: what.trim(), count: n, ...(photoId ? { photoId } : {}) };
    // the next one may be typed while this one is stored
    [what, count, photoId] = ['', '1', ''];
    if (await recorder.record({ type: 'opened', ...step })) return;
    [what, count, photoId] = [step.what, String(n), step.photoId ?? ''];
  }
  const take = (s: (typeof ahead)[number]) =>
    recorder.record({ type: 'opened', kind: s.kind, what: s.what, count: s.count, modelStep: s.key });
</script>

<h2 class="mb-2 text-lg">Opening</h2>
{#if ahead.length > 0}
  <p class="mb-1 text-[13px] text-ink2">
    {view.board.opening?.length ? 'Known for this board' : `As in No. ${history.opening?.number}`}, next first
  </p>
  <ol class="mb-3">
    {#each ahead as s (s.key)}
      <li class="flex min-h-11 items-center gap-2 border-t border-faint">
        <span class="flex-1"><b>{NAMES[s.kind]}</b>{s.count > 1 ? ` ${s.count} ×` : ''} {s.what}</span>
        <button
          type="button"
          class="button px-3"
          aria-label="{NAMES[s.kind]} {s.what}: it is off"
          onclick={() => take(s)}>Off</button
        >
      </li>
    {/each}
  </ol>
{/if}
<ol aria-label="Opened">
  {#each opened as s, n (s.id)}
    <li class="flex min-h-11 items-center gap-2 border-t border-faint">
      <span class="w-6 font-semibold">{n + 1}</span>
      {#if s.photoId && view.photos.some((p) => p.id === s.photoId)}
        <a href="/api/photos/{s.photoId}" target="_blank" rel="noopener"
          ><img
            class="h-9 w-12 border border-line object-cover"
            src="/api/photos/{s.photoId}?small"
            alt="step {n + 1}"
          /></a
        >
      {/if}
      <span class="min-w-0 flex-1"><b>{s.count > 1 ? `${s.count} × ` : ''}{NAMES[s.kind]}</b> {s.what}</span>
      <TakeBack
        what="{NAMES[s.kind]} {s.what}"
        onclick={() => recorder.record({ type: 'withdrawn', eventId: s.id, why: 'taken back' })}
      />
    </li>
  {:else}
    <li class="border-t border-faint py-2 text-ink2">
      Nothing opened yet. Write each thing down as it comes off: it goes back in the reverse order.
    </li>
  {/each}
</ol>
<form onsubmit={add} class="mt-2 grid grid-cols-[130px_64px_1fr] gap-2" aria-label="What came off">
  <Select
    choices={OPENING_KINDS.map((k) => ({ value: k, label: NAMES[k] }))}
    bind:value={kind}
    aria-label="What it is"
  />
  <input class="field" bind:value={count} inputmode="numeric" aria-label="How many" />
  <input
    class="field"
    bind:value={what}
    placeholder={kind === 'pry' ? 'where a lever does no harm' : 'M2 × 6, under the feet'}
    aria-label="Which, where"
    maxlength="200"
  />
  <div class="col-span-2"><PhotoPick {view} bind:photoId /></div>
  <button class="button justify-self-end">Add</button>
</form>
{#if out > 0}
  <p class="mt-3 font-semibold text-caution">
    <span aria-hidden="true">▲</span>
    {out}
    {out === 1 ? 'screw is' : 'screws are'} out
  </p>
{/if}
<ClosingList {job} {recorder} />
