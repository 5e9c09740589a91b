<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  // What comes in: the ticket, how it opens, damage, what was tried, what is offered, what was found before.
  import Cautions from '$lib/jobs/Cautions.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import type { GoodStartUp } from '$lib/diagnose/view';
  import type { JobView } from '$lib/jobs/view';
  import type { ShopSettings } from '$lib/settings/shopSettings';
  import Tabs from '$lib/ui/Tabs.svelte';
  import type { ModelHistory } from '@orthos/core/job';
  import { untrack } from 'svelte';
  import Before from './Before.svelte';
  import Damage from './Damage.svelte';
  import Offer from './Offer.svelte';
  import Opening from './Opening.svelte';
  import Ticket from './Ticket.svelte';
  import Tried from './Tried.svelte';

  interface Props {
    view: JobView;
    history: ModelHistory;
    goodStartUps: GoodStartUp[];
    shop: ShopSettings;
  }
  let { view, history, goodStartUps, shop }: Props = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));
  desk.lens = 'parts';

  const TABS = {
    ticket: 'Ticket',
    tried: 'Tried',
    opening: 'Opening',
    damage: 'Damage',
    offer: 'Offer',
    before: 'Before',
  } as const;
  let tab = $state<keyof typeof TABS>('ticket');
  const job = $derived(stateOf(view.events));
</script>

<div class="p-5">
  <Tabs label="Intake" tabs={TABS} bind:at={tab}>
    {#snippet panel()}
      <Notice text={recorder.problem} at="panel" class="mb-3" />
      {#if tab === 'ticket'}
        <Ticket {view} {job} {recorder} {shop} />
      {:else if tab === 'tried'}
        <Tried {view} {job} {recorder} {goodStartUps} />
      {:else if tab === 'opening'}
        <Opening {view} {job} {recorder} {history} />
      {:else if tab === 'damage'}
        <Damage {view} {job} {recorder} />
      {:else if tab === 'offer'}
        <Offer {view} {job} {recorder} {history} {shop} />
      {:else}
        <Before {view} {history} />
      {/if}
    {/snippet}
  </Tabs>
  <Cautions {view} step="intake" />
  <p class="mt-6 text-[13px] text-ink2">
    Wear eye protection, use extraction, wash hands after lead. Local rules and licensed practice come first where
    mains, vehicle safety or industrial safety functions are concerned.
  </p>
  <a class="button button-main mt-5" href="/jobs/{view.ticket.id}/diagnose">Diagnose</a>
</div>
