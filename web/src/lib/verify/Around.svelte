<script lang="ts">
  // Who could suffer by the plan, one by one beside the photo from before; then all the rest in one look.
  import { atRisk } from '$lib/jobs/atRisk';
  import GateHead from '$lib/jobs/GateHead.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import PhotoCrop from '$lib/photos/PhotoCrop.svelte';
  import Select from '$lib/ui/Select.svelte';
  import type { Attempt, NeighbourState } from '@orthos/core/job';
  import { NEIGHBOUR_STATES } from '@orthos/core/job';

  interface Props {
    view: JobView;
    attempt: Attempt;
    recorder: Recorder;
    /** Shows a part on the stage. */
    onShow: (partId: string) => void;
  }
  let { view, attempt, recorder, onShow }: Props = $props();
  const risks = $derived(atRisk(view));
  const looked = $derived(attempt.proven.looked);
  const open = $derived(risks.filter((r) => !looked.has(r.partId)));
  const gate = $derived(view.gates.find((g) => g.id === 'surroundings-after'));
  const placed = $derived(stateOf(view.events).photosPlaced);
  const before = $derived(view.photos.filter((p) => p.taken === 'before').slice(0, 6));
  const say = (partId: string, state: NeighbourState) => recorder.record({ type: 'neighbour-looked', partId, state });
  const scan = (ok: boolean) => recorder.record({ type: 'surroundings-scanned', ok, after: 'fitting' });
  const HARM = NEIGHBOUR_STATES.filter((s) => s !== 'as before');

  async function allAsBefore() {
    for (const r of open) if (!(await say(r.partId, 'as before'))) return;
    await scan(true);
  }
</script>

<GateHead title="Surroundings" {gate} />
{#if risks.length > 0}
  <p class="text-[13px] text-ink2">
    By the plan these could suffer; each beside the photo from before: shape, place, shine.
  </p>
{/if}
{#if before.length > 0}
  <p class="my-1 flex flex-wrap items-center gap-1.5 text-[13px] text-ink2">
    Before:
    {#each before as p, n (p.id)}
      <a href="/api/photos/{p.id}" target="_blank" rel="noreferrer"
        ><img
          class="h-12 w-auto border border-line"
          src="/api/photos/{p.id}?small"
          alt="Photo before, {n + 1}"
          width={p.width}
          height={p.height}
        /></a
      >
    {/each}
  </p>
{/if}
{#each risks as r (r.partId)}
  {@const part = view.board.parts.find((p) => p.partId === r.partId)}
  {@const is = looked.get(r.partId)}
  <div
    class="flex flex-wrap items-center gap-2 border-t border-faint py-1"
    role="group"
    aria-label="{r.name}: {is ?? 'not looked at'}"
  >
    {#if part}<PhotoCrop {view} {part} {placed} />{/if}
    <button class="min-w-24 flex-1 text-left" onclick={() => onShow(r.partId)}>
      <b class="font-semibold">{r.name}</b>
      <span class="block text-[13px] {r.tone === 'stop' ? 'text-stop' : 'text-caution'}">{r.word}</span>
    </button>
    <button
      class="button px-2.5 {is === 'as before' ? 'button-main' : ''}"
      aria-pressed={is === 'as before'}
      onclick={() => say(r.partId, 'as before')}>As before</button
    >
    <Select
      class="w-32"
      aria-label="{r.name}, what is amiss"
      none="amiss …"
      choices={HARM.map((h) => ({ value: h, label: h }))}
      value={is === undefined || is === 'as before' ? undefined : is}
      onchange={(h) => void (h && say(r.partId, h as NeighbourState))}
    />
  </div>
{/each}
<div class="flex flex-wrap items-center gap-2 border-t border-faint pt-1">
  <span class="min-w-32 flex-1 text-[13px] text-ink2"
    >{risks.length > 0 ? 'All the rest' : 'Every neighbour beside the photo before: shape, place, shine'}</span
  >
  {#if open.length > 0}<button class="button px-3" onclick={allAsBefore}
      >{open.length > 1 ? `All ${open.length}` : 'It'} and the rest as before</button
    >{/if}
  <!-- those the plan spoke of come first, one by one or in one act -->
  {#each open.length > 0 ? [false] : [true, false] as ok (ok)}
    <button
      class="button px-3 {attempt.scans.fitting === ok ? 'button-main' : ''}"
      aria-pressed={attempt.scans.fitting === ok}
      onclick={() => scan(ok)}>{ok ? 'As before' : 'Something is amiss'}</button
    >
  {/each}
</div>
