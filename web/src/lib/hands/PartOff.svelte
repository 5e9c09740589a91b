<script lang="ts">
  // The part that came off: what it is kept for, where it lies, what it went through.
  import { partHistory } from './partHistory';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import Select from '$lib/ui/Select.svelte';
  import { partName } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import { keptFor } from '@orthos/core/hands';
  import { currentAttempt } from '@orthos/core/job';
  import { type Method, PART_FATES, type PartFate } from '@orthos/core/rework';

  interface Props {
    view: JobView;
    method: Method | undefined;
    recorder: Recorder;
    units: UnitSettings;
  }
  let { view, method, recorder, units }: Props = $props();

  const attempt = $derived(currentAttempt(stateOf(view.events)));
  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  const known = $derived(attempt.partOff);
  let chosen = $state<PartFate>();
  let typed = $state<string>();
  const surroundings = $derived(view.inputs?.settings.surroundings ?? {});
  const fate = $derived(
    chosen ?? known?.fate ?? (method ? keptFor({ method, surroundings }) : ('to be tested' as const)),
  );
  const place = $derived(typed ?? known?.place ?? '');

  async function keep(event: SubmitEvent) {
    event.preventDefault();
    if (!target) return;
    if (fate !== 'scrap' && !place.trim())
      return (recorder.problem = 'Say where the part lies: nobody looks for it twice.');
    await recorder.record({ type: 'part-off', partId: target.partId, fate, place: place.trim() });
    [chosen, typed] = [undefined, undefined];
  }
</script>

{#if target}
  <section class="mt-5" aria-label="The part that came off">
    <h3 class="mb-1 text-[13px] text-ink2">{partName(target)}, the part that came off</h3>
    {#if known}
      <p class="border-t border-faint py-1">{partHistory(known, units)}</p>
    {/if}
    <form class="flex flex-wrap items-end gap-2" onsubmit={keep}>
      <Select
        label="Kept for"
        choices={PART_FATES.map((f) => ({ value: f, label: f }))}
        bind:value={() => fate, (f) => (chosen = f as PartFate)}
      />
      <div class="min-w-40 flex-1">
        <label class="label" for="part-place">Where it lies</label>
        <input
          id="part-place"
          class="field"
          bind:value={() => place, (text) => (typed = text)}
          placeholder="tray No. {view.ticket.number} {partName(target)}"
          maxlength="200"
        />
      </div>
      <button class="button" disabled={recorder.busy}>Keep it so</button>
    </form>
  </section>
{/if}
