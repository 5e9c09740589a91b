<script lang="ts">
  // What is said of one part of a set, and of all that are like it unless somebody says otherwise.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import type { JobView } from '$lib/jobs/view';
  import Check from '$lib/ui/Check.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import OneOf from '$lib/ui/OneOf.svelte';
  import { isPolarised } from '@orthos/core/board';
  import { packageById } from '@orthos/core/packages';
  import type { SetItem, SetSaid } from '@orthos/core/job';
  import { untrack } from 'svelte';
  import { likeOf, whatItIs } from './kinds';
  import { FATE_WORDS } from './words';

  interface Props {
    view: JobView;
    items: readonly SetItem[];
    item: SetItem;
    recorder: Recorder;
    /** Hands have been at it. */
    begun: boolean;
    onDrop: (partIds: readonly string[]) => void;
  }
  let { view, items, item, recorder, begun, onDrop }: Props = $props();

  const part = $derived(view.board.parts.find((p) => p.partId === item.partId));
  const like = $derived(likeOf(view.board, items, item.partId));
  let forAll = $state(true);
  const meant = $derived(forAll ? like : [item]);
  const field = (key: 'substitute' | 'bin' | 'value' | 'rating' | 'size' | 'note') => untrack(() => item[key] ?? '');
  let substitute = $state(field('substitute'));
  let bin = $state(field('bin'));
  let value = $state(field('value'));
  let rating = $state(field('rating'));
  let size = $state(field('size'));
  let note = $state(field('note'));
  let after = $state(untrack(() => (item.after ?? []).map((id) => nameOf(view.board, id)).join(' ')));
  let problem = $state('');

  const change = (said: Omit<SetSaid, 'partId' | 'side'>) =>
    recorder.record({ type: 'set-parts', items: meant.map(({ partId, side }) => ({ partId, side, ...said })) });
  const said = (key: 'substitute' | 'bin' | 'value' | 'rating' | 'size' | 'note', text: string) => {
    if ((item[key] ?? '') !== text.trim()) void change({ [key]: text.trim() || null });
  };
  /** Parts that have to come off before this one, by name; of this part alone. */
  async function sayAfter() {
    const names = after.split(/[\s,]+/).filter(Boolean);
    const ids = names.map(
      (n) => items.find((i) => nameOf(view.board, i.partId).toLowerCase() === n.toLowerCase())?.partId,
    );
    const strange = names.filter((_, n) => ids[n] === undefined || ids[n] === item.partId);
    problem = strange.length > 0 ? `Not another part of the set: ${strange.join(', ')}.` : '';
    if (problem) return;
    const { partId, side } = item;
    const first = ids.filter((id) => id !== undefined);
    await recorder.record({ type: 'set-parts', items: [{ partId, side, after: first.length > 0 ? first : null }] });
  }
</script>

<div class="mt-3 border border-line p-3">
  <div class="flex flex-wrap items-baseline justify-between gap-x-4">
    <h3 class="font-semibold">
      {nameOf(view.board, item.partId)}
      <span class="font-normal text-ink2"
        >{part
          ? `${whatItIs(part, item)}, ${packageById(part.package).label}${isPolarised(part) ? ', polarised' : ''}`
          : ''}</span
      >
    </h3>
    {#if like.length > 1}<Check bind:checked={forAll}>for all {like.length} like it</Check>{/if}
  </div>
  <OneOf
    aria-label="What becomes of it"
    choices={FATE_WORDS}
    value={item.do}
    onchange={(to) => void change({ do: to })}
  />
  {#if item.from}
    <p class="text-[14px]">
      Comes from <a class="underline" href="/jobs/{item.from.ticketId}">No. {item.from.number}</a>.
    </p>
  {/if}
  {#if item.to}
    <p class="text-[14px]">
      Goes to <a class="underline" href="/jobs/{item.to.ticketId}">No. {item.to.number}</a>.
    </p>
  {/if}
  {#if item.do === 'renew' || item.do === 'place' || item.do === 'lend'}
    <div class="mt-1 grid grid-cols-[1fr_9rem] gap-2">
      <label
        ><span class="label">Goes in instead</span><input
          class="field"
          id="set-substitute"
          placeholder="the same"
          maxlength="120"
          bind:value={substitute}
          onchange={() => said('substitute', substitute)}
        /></label
      >
      <label
        ><span class="label">Where it lies</span><input
          class="field"
          placeholder="bin, bag"
          maxlength="80"
          bind:value={bin}
          onchange={() => said('bin', bin)}
        /></label
      >
    </div>
    <Check checked={item.missing === true} onchange={(on) => void change({ missing: on || null })}>not here yet</Check>
  {/if}
  <Fold title="Value, rating, size, what comes first, note" quiet>
    <div class="grid grid-cols-3 gap-2">
      <label
        ><span class="label">Value</span><input
          class="field"
          maxlength="80"
          bind:value
          onchange={() => said('value', value)}
        /></label
      >
      <label
        ><span class="label">Rating</span><input
          class="field"
          maxlength="80"
          bind:value={rating}
          onchange={() => said('rating', rating)}
        /></label
      >
      <label
        ><span class="label">Size</span><input
          class="field"
          maxlength="80"
          bind:value={size}
          onchange={() => said('size', size)}
        /></label
      >
      <label class="col-span-3"
        ><span class="label">Comes off after</span><input
          class="field"
          placeholder="parts of the set that stand over it"
          maxlength="200"
          bind:value={after}
          onchange={() => void sayAfter()}
        /></label
      >
      <label class="col-span-3"
        ><span class="label">Note</span><input
          class="field"
          maxlength="400"
          bind:value={note}
          onchange={() => said('note', note)}
        /></label
      >
    </div>
    {#if problem}<p class="text-[13px] font-semibold text-stop">{problem}</p>{/if}
  </Fold>
  {#if !begun}
    <button class="button mt-2" onclick={() => onDrop(meant.map((i) => i.partId))}
      >Out of the set{meant.length > 1 ? `, all ${meant.length}` : ''}</button
    >
  {/if}
</div>
