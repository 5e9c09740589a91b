<script lang="ts">
  import Fold from '$lib/ui/Fold.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import { goto } from '$app/navigation';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import Tabs from '$lib/ui/Tabs.svelte';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import type { DiagnoseView } from './view';
  import { partName } from '@orthos/core/board';
  import { companionsOf, type Swap } from '@orthos/core/diagnosis';
  import { compareReading, few, formatReading } from '@orthos/core/ground';
  import { attemptsOf, currentAttempt, isFitted } from '@orthos/core/job';
  import { onDestroy, untrack } from 'svelte';
  import Circumstances from './Circumstances.svelte';
  import { CircuitEditor } from './circuitEditor.svelte';
  import ComparedSuspects from './ComparedSuspects.svelte';
  import { circuitOf } from './circuitOf';
  import { isOffOutside } from './comparing';
  import { Finder } from './finder.svelte';
  import { questionOf, refs } from './question';
  import { RailPlaces, standingProfiles } from './railPlaces.svelte';
  import LookFirst from './LookFirst.svelte';
  import NextCard from './NextCard.svelte';
  import ReadingForm from './ReadingForm.svelte';
  import ReadingTable from './ReadingTable.svelte';
  import Seen from './Seen.svelte';
  import Suspects from './Suspects.svelte';
  import WhichBoard from './WhichBoard.svelte';

  interface Props {
    view: DiagnoseView;
    /** All kinds of board, for the family of a routine. */
    models: { id: string; name: string }[];
  }
  let { view, models }: Props = $props();
  const desk = useDesk();
  desk.lens = 'readings';
  const recorder = new Recorder(untrack(() => view.ticket.id));
  const record = recorder.record.bind(recorder);
  const finder = new Finder();
  const railPlaces = new RailPlaces();
  onDestroy(() => {
    finder.end();
    railPlaces.end();
  });

  const GOOD_WORD = { 'good board': 'good', twin: 'twin', expected: 'expected' } as const;
  const TABS = {
    find: 'Find',
    sheet: 'Sheet',
    circuit: 'Circuit',
    rail: 'Rail',
    current: 'Current',
    routine: 'Routine',
  } as const;
  type Tab = keyof typeof TABS;
  let tab = $state<Tab>('find');
  /** Rail that a search along copper was asked for; null: the one that reads lowest. */
  let railNet = $state<string | null>(null);
  /** Way to be without a part that was asked for. */
  let without = $state<Swap | null>(null);
  let seen = $state<Seen>();

  const job = $derived(stateOf(view.events));
  const circuit = $derived(circuitOf(view.circuits, job));
  const editor = new CircuitEditor(() => ({ modelId: view.modelId, circuit }), record);
  const suspect = $derived(currentAttempt(job).suspect);
  const wanted = $derived(view.board.parts.find((p) => p.partId === suspect?.partId));
  const isGone = $derived(
    suspect !== undefined && job.observations.some((o) => o.sign === 'missing' && o.place?.partId === suspect.partId),
  );
  /** What feeds, commands or shares the small nets of the suspect. */
  const beside = $derived.by(() => {
    if (!circuit || !suspect) return [];
    const ref = refs(view.board, circuit)(suspect.partId);
    return ref === undefined ? [] : companionsOf(circuit.netlist, ref);
  });
  const earlier = $derived(attemptsOf(job).slice(0, -1));
  $effect(() => {
    const [board, netlist, profiles] = [view.board, circuit?.netlist ?? null, standingProfiles(job)];
    untrack(() => void railPlaces.ask({ board, netlist }, profiles));
  });
  const question = $derived(questionOf(view, railPlaces.byNet));
  $effect(() => {
    const asked = question;
    untrack(() => void finder.ask(asked));
  });

  layOver(desk, () => ({
    callouts: job.readings.slice(-7).map((r) => {
      const difference = compareReading(r.value, r.good, r.quantity);
      const [x_mm, y_mm] = [r.place.x_mm, r.place.y_mm];
      return {
        id: r.id,
        x_mm,
        y_mm,
        side: r.place.side,
        title: formatReading(r.value, r.quantity),
        detail: r.probe?.simulated
          ? 'simulated'
          : difference === 'same'
            ? 'as good'
            : r.good === null
              ? (r.probe?.red ?? 'no reference')
              : `${GOOD_WORD[r.goodFrom ?? 'good board']}: ${formatReading(r.good, r.quantity)}`,
        tone: difference === 'low' || difference === 'high' ? 'hot' : 'evidence',
      };
    }),
  }));

  const target = $derived(view.board.parts.find((p) => p.partId === desk.selected));
  const nameOf = (partId: string) => {
    const part = view.board.parts.find((p) => p.partId === partId);
    return part ? partName(part) : partId;
  };
  /** Whether the form for a reading of one's own is unfolded, once somebody has said so. */
  let ownOpen = $state<boolean | null>(null);
  let why = $state('');
  let problem = $state('');

  /** A part that tested bad, or was put on new, was no wrong suspect. */
  const wasRenewed = (a: (typeof job.attempts)[number]) =>
    a.offBoardTest?.result === 'bad' || (isFitted(a) && a.offBoardTest?.result !== 'good');

  async function convict(partId: string, reason: string, story: string[] = []) {
    if (suspect && suspect.partId !== partId) {
      const why = `${nameOf(suspect.partId)} ${wasRenewed(currentAttempt(job)) ? 'is renewed; there is more' : 'was not it'}`;
      if (!(await record({ type: 'new-attempt', why }))) return;
    }
    if (await record({ type: 'suspect', partId, why: reason, ...(story.length > 0 ? { story } : {}) })) {
      why = '';
      await goto(`/jobs/${view.ticket.id}/plan`);
    }
  }
  async function convictSelected(event: SubmitEvent) {
    event.preventDefault();
    if (!target) return (problem = 'Select the part on the board first.');
    if (!why.trim()) return (problem = 'Which reading or sign speaks against it?');
    problem = '';
    await convict(target.partId, why);
  }
  const withdraw = (id: string) => void record({ type: 'withdrawn', eventId: id, why: 'taken back' });
</script>

<div class="p-5">
  <Tabs label="Diagnose" tabs={TABS} bind:at={tab}>
    {#snippet end()}
      {#if finder.progress !== null && circuit}
        <p class="ml-auto self-center text-[13px] text-ink2" role="status">
          computing faults {Math.round(100 * finder.progress)} %
        </p>
      {/if}
    {/snippet}
    {#snippet panel()}
      <Notice text={recorder.problem} at="panel" class="mb-3" />
      <Notice text={finder.problem && `The circuit cannot be computed: ${finder.problem}`} at="panel" class="mb-3" />

      <!-- what stands behind a tab is loaded when it is opened -->
      {#if tab === 'circuit'}
        {#await import('./CircuitPanel.svelte') then { default: CircuitPanel }}<CircuitPanel
            {view}
            {circuit}
            {editor}
            {record}
          />{/await}
      {:else if tab === 'rail'}
        {#await import('./Rail.svelte') then { default: Rail }}<Rail
            {view}
            {job}
            {circuit}
            asked={railNet}
            {record}
            result={finder.result}
            computed={railPlaces}
            onConvict={convict}
          />{/await}
      {:else if tab === 'current'}
        {#await import('$lib/intake/StartUps.svelte') then { default: StartUps }}<StartUps
            {view}
            {job}
            {recorder}
            goodStartUps={view.goodStartUps}
          />{/await}
      {:else if tab === 'routine'}
        {#await import('./Routines.svelte') then { default: Routines }}<Routines
            {view}
            {job}
            {circuit}
            {models}
            {record}
          />{/await}
      {:else if tab === 'sheet'}
        {#await import('./Sheet.svelte') then { default: Sheet }}<Sheet
            {view}
            {job}
            {circuit}
            {record}
            result={finder.result}
          />{/await}
      {:else}
        {#if job.readings.length === 0 && job.observations.length === 0}
          <LookFirst {record} onLook={() => seen?.focus()} />
        {/if}
        {#if circuit && finder.result}
          <NextCard
            {view}
            netlist={circuit.netlist}
            result={finder.result}
            {record}
            onRail={(net) => {
              railNet = net;
              tab = 'rail';
            }}
            onLook={() => seen?.focus()}
            onWithout={(way) => (without = way)}
          />
          {#if isOffOutside(view, circuit)}<ComparedSuspects {view} {circuit} onConvict={convict} />{/if}
          <Suspects {view} netlist={circuit.netlist} result={finder.result} {editor} onConvict={convict} />
          <Circumstances {view} {job} {circuit} result={finder.result} asked={without} {record} />
        {/if}
        {#if !circuit}
          {#await import('./FirstCircuit.svelte') then { default: FirstCircuit }}<FirstCircuit
              {view}
              {editor}
            />{/await}
        {/if}
        {#if job.readings.length === 0}<WhichBoard {job} {record} />{/if}
        <Fold
          class="my-3"
          title={circuit ? 'Another reading' : 'A reading'}
          bind:open={() => ownOpen ?? !circuit, (on) => (ownOpen = on)}
        >
          <ReadingForm {view} {circuit} {record} />
        </Fold>
        {#if !circuit}<ComparedSuspects {view} {circuit} onConvict={convict} />{/if}
        <ReadingTable board={view.board} readings={job.readings} {withdraw} />
        <Seen {view} {job} {record} {withdraw} bind:this={seen} />

        {#if view.ticket.kind === 'data-only' && wanted}
          {#await import('$lib/part/Stored.svelte') then { default: Stored }}
            <Stored {view} target={wanted} when="before" {recorder} />
          {/await}
        {/if}
        <h3 class="mt-6 mb-1 text-[13px] text-ink2">Suspect</h3>
        {#if suspect}
          <div class="border-l-[3px] border-hot py-1 pl-3">
            <p class="text-lg font-bold">{nameOf(suspect.partId)}</p>
            <p class="text-ink2">{suspect.why}</p>
            {#if isGone}<p class="mt-1">
                It is not on the board: nothing comes off. <a class="underline" href="/jobs/{view.ticket.id}/intake"
                  >Make it a fit-only job</a
                > at its ticket.
              </p>{/if}
            {#if beside.length > 0}<p class="mt-1">
                What broke it, and what did it take along? <b>{few(beside, 6)}</b>
                <span class="text-ink2">hang on its small nets: read them before a new one goes on.</span>
              </p>{/if}
          </div>
        {/if}
        {#each earlier as a, i (i)}
          {#if a.suspect}<p class="mt-2 text-[13px] text-ink2">
              Attempt {i + 1}: {nameOf(a.suspect.partId)}, {a.suspect.why}. {wasRenewed(a) ? 'Renewed.' : 'Was not it.'}
            </p>{/if}
        {/each}
        <form onsubmit={convictSelected} class="mt-3" aria-label="Suspect">
          <label class="label" for="s-why"
            >{target ? `Why ${partName(target)}` : 'Select a part on the board, then say why'}</label
          >
          <div class="flex gap-2">
            <input
              id="s-why"
              class="field"
              bind:value={why}
              placeholder="the reading that speaks against it"
              maxlength="2000"
              aria-describedby={problem ? 'p-why' : undefined}
            />
            <button class="button button-main whitespace-nowrap"
              >{target ? `${partName(target)} it is` : 'Suspect'}</button
            >
          </div>
          <Notice text={problem} at="field" id="p-why" class="mt-1" />
        </form>
        {#if suspect}<a class="button mt-4" href="/jobs/{view.ticket.id}/plan">Plan for {nameOf(suspect.partId)}</a
          >{/if}
      {/if}
    {/snippet}
  </Tabs>
</div>
