<script lang="ts">
  // The board that parts come from, beside this one: same view, same side; what is picked on one is picked on the other.
  import type { DonorView } from '$lib/jobs/donorView';
  import Stage from '$lib/stage/Stage.svelte';
  import { Desk, layBeside, layOver, type Numbered } from '$lib/jobs/desk.svelte';
  import { damageMarks } from '$lib/intake/damage';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { UnitSettings } from '@orthos/core/ground';
  import { untrack } from 'svelte';

  interface Props {
    desk: Desk;
    donor: DonorView;
    units: UnitSettings;
    /** Parts that go over, and what has become of each. */
    numbered: readonly Numbered[];
    /** The part there that stands for one here, and the other way round. */
    pairOf: (partId: string, from: 'here' | 'there') => string | undefined;
  }
  let { desk, donor, units, numbered, pairOf }: Props = $props();
  const own = new Desk();
  const state = $derived(stateOf(donor.events));
  layOver(own, () => ({ numbered, penMarks: damageMarks(state.intake.damage) }));
  $effect(() => {
    own.side = desk.side;
  });
  // whichever was picked last leads
  let last: { here: string | null; there: string | null } = { here: null, there: null };
  $effect(() => {
    const { selected: here } = desk;
    const { selected: there } = own;
    untrack(() => {
      if (here !== last.here) own.selected = here === null ? null : (pairOf(here, 'here') ?? null);
      else if (there !== last.there) desk.selected = there === null ? null : (pairOf(there, 'there') ?? null);
      last = { here: desk.selected, there: own.selected };
    });
  });
  untrack(() => {
    layBeside(desk, board);
    desk.lens = 'parts';
  });
</script>

{#snippet board()}
  <div class="flex min-h-0 min-w-0 flex-col">
    <p class="border-b border-line bg-caution-soft px-3 py-1 text-[14px]" data-testid="donor-name">
      <span class="font-semibold">Donor: No. {donor.number}</span>
      {donor.device}{donor.serial ? `, ${donor.serial}` : ''}
    </p>
    <div class="min-h-0 flex-1"><Stage board={donor.board} desk={own} {units} beside={desk} /></div>
  </div>
{/snippet}
