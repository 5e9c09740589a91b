<script lang="ts">
  // A new board that all parts move to: what is checked of it before any does, and which parts sink the heat.
  import { nameOf } from '$lib/jobs/nameOf';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import Check from '$lib/ui/Check.svelte';
  import { solderedTerminals } from '@orthos/core/board';
  import { type JobState, otherThickness, type SetItem } from '@orthos/core/job';

  interface Props {
    view: JobView;
    job: JobState;
    recorder: Recorder;
    items: readonly SetItem[];
  }
  let { view, job, recorder, items }: Props = $props();
  const found = $derived(job.bareBoard);
  const say = (what: { dryFit?: boolean; thickness_mm?: number; masked?: boolean }) =>
    recorder.record({ type: 'bare-board', ...what });
  let typed = $state('');
  let problem = $state('');
  async function measure() {
    const mm = Number(typed.replace(',', '.'));
    problem = mm >= 0.2 && mm <= 6 ? '' : 'Between 0.2 and 6 mm.';
    if (!problem && (await say({ thickness_mm: mm }))) typed = '';
  }
  const off = $derived(otherThickness(view.drawn_mm, job));
  /** Lands that take the heat of a big tip: tabs, and pads under a body. */
  const tabs = $derived(
    items
      .map((i) => view.board.parts.find((p) => p.partId === i.partId))
      .filter((p) => p && solderedTerminals(p).some((t) => t.kind === 'tab' || t.kind === 'pad'))
      .map((p) => nameOf(view.board, p?.partId ?? '')),
  );
</script>

<div class="grid gap-1 text-[14px]">
  {#if !found}
    <p class="text-ink2">Every place is empty: parts are put on, none comes off first.</p>
    <button class="button justify-self-start" disabled={recorder.busy} onclick={() => void say({})}
      >All places are empty</button
    >
  {:else}
    <Check checked={found.dryFit === true} onchange={(on) => void say({ dryFit: on })}
      >tried in its place without solder: screws, plugs, cover, light guides</Check
    >
    <div class="flex flex-wrap items-center gap-2">
      <label class="flex items-center gap-2"
        ><span>Thickness</span><input
          class="field w-24"
          inputmode="decimal"
          placeholder="{view.drawn_mm} mm"
          bind:value={typed}
          onchange={() => void measure()}
        /></label
      >
      {#if problem}<span class="font-semibold text-stop">{problem}</span>
      {:else if found.thickness_mm !== undefined}<span class="text-good">✓ {found.thickness_mm} mm</span>{/if}
    </div>
    {#if found.thickness_mm !== undefined}
      <p class="text-[13px] text-ink2">
        Plans, rests and seconds are computed for {found.thickness_mm} mm{off !== null && off < 0
          ? ': thinner warps sooner and hurts what lies below sooner'
          : ''}.
      </p>
    {/if}
    <Check checked={found.masked === true} onchange={(on) => void say({ masked: on })}
      >edge contacts, sockets and test pads masked from flux and solder</Check
    >
    {#if tabs.length > 0}
      <p>
        <span class="font-semibold">{tabs.join(', ')}</span>: tab or middle pad. The biggest tip, or heat from below;
        tinned thin before the part comes.
      </p>
    {/if}
  {/if}
</div>
