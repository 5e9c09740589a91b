<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import Extras from '$lib/intake/Extras.svelte';
  import Cautions from '$lib/jobs/Cautions.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import FunctionList from '$lib/jobs/FunctionList.svelte';
  import GateList from '$lib/jobs/GateList.svelte';
  import GateHead from '$lib/jobs/GateHead.svelte';
  import Override from '$lib/jobs/Override.svelte';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import SlipList from '$lib/jobs/SlipList.svelte';
  import { placeName } from '$lib/diagnose/place';
  import type { GoodStartUp } from '$lib/diagnose/view';
  import type { JobView } from '$lib/jobs/view';
  import { solderedTerminals } from '@orthos/core/board';
  import { formatReading, parseReading, type UnitSettings } from '@orthos/core/ground';
  import { solderSide } from '@orthos/core/hands';
  import { currentAttempt, pointOf, readingsToRepeat } from '@orthos/core/job';
  import { untrack } from 'svelte';

  interface Props {
    view: JobView;
    units: UnitSettings;
    /** What good units of this kind of board draw, the latest first. */
    goodStartUps: GoodStartUp[];
  }
  let { view, units, goodStartUps }: Props = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));
  untrack(() => {
    desk.lens = 'parts';
  });

  const job = $derived(stateOf(view.events));
  const attempt = $derived(currentAttempt(job));
  const gate = (id: string) => view.gates.find((g) => g.id === id);
  const gates = $derived(view.gates.filter((g) => g.step === 'verify'));
  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  $effect(() => {
    if (!target) return;
    const [side, partId] = [solderSide(target), target.partId];
    untrack(() => desk.show({ side, partId }));
  });
  const terminals = $derived(target ? solderedTerminals(target).map((t) => t.id) : []);
  const repeat = $derived(readingsToRepeat(job));
  let typed = $state<Record<string, string>>({});

  async function readAgain(r: (typeof repeat.off)[number]) {
    const value = parseReading(typed[r.id] ?? '');
    if (value === null) return (recorder.problem = 'A number such as 4k7, .42, 12m, or OL.');
    const { place, quantity, good, goodFrom, powered } = r;
    const stored = await recorder.record({
      type: 'reading',
      place,
      quantity,
      value,
      good,
      ...(goodFrom ? { goodFrom } : {}),
      powered,
    });
    if (stored) delete typed[r.id];
  }
</script>

<div class="p-5 pt-4">
  <h2 class="text-xl">Verify</h2>
  <Notice text={recorder.problem} at="panel" class="mt-2" />

  {#if target && terminals.length > 0}
    {#await import('./Joints.svelte') then { default: Joints }}<Joints
        {view}
        {target}
        {attempt}
        {recorder}
        {units}
      />{/await}
  {:else}
    <GateHead title="Joints" gate={gate('joints')} />
    <p class="text-ink2">No part with joints is chosen.</p>
  {/if}
  {#await import('./Around.svelte') then { default: Around }}<Around
      {view}
      {attempt}
      {recorder}
      onShow={(partId) => {
        const part = view.board.parts.find((p) => p.partId === partId);
        if (part) desk.show({ side: part.side, partId });
        desk.lens = 'parts';
      }}
    />{/await}

  {#if gate('restored')?.state !== 'met'}
    <GateHead title="Left off by mistake" gate={gate('restored')} />
    <p class="text-[13px] text-ink2">No power until it is back on its lands and checked: say so at the slip below.</p>
    <Override {view} gates={gates.filter((g) => g.id === 'restored')} {recorder} />
  {/if}
  <GateHead
    title="Short check, before power"
    gate={gate('short-check')}
    why={gate('short-check')?.state === 'met' ? 'no rail is short' : undefined}
  />
  {#await import('./ShortCheck.svelte') then { default: ShortCheck }}<ShortCheck
      {view}
      checks={attempt.shortChecks}
      {recorder}
    />{/await}
  <Override {view} gates={gates.filter((g) => g.id === 'short-check')} {recorder} />

  {#if target && gate('stored-back')}
    {#await import('$lib/part/Stored.svelte') then { default: Stored }}<Stored
        {view}
        {target}
        when="after"
        {recorder}
      />{/await}
  {/if}

  {#await import('./FirstPower.svelte') then { default: FirstPower }}<FirstPower
      {view}
      {recorder}
      {goodStartUps}
    />{/await}

  <GateHead title="Readings back" gate={gate('readings-back')} />
  {#each repeat.off as r (r.id)}
    {@const now = repeat.again.get(pointOf(r))}
    <div class="flex items-center gap-2 border-t border-faint py-1">
      <span class="w-20 font-semibold">{placeName(view.board, r.place)}</span>
      <span class="flex-1 text-[13px] text-ink2"
        >was {formatReading(r.value, r.quantity)}, good {r.good === null ? '' : formatReading(r.good, r.quantity)}</span
      >
      {#if now}<span class="text-base font-bold">{formatReading(now.value, now.quantity)}</span>
        {#if now.probe?.simulated}<span class="text-[12px] text-caution">simulated</span>{/if}{/if}
      <input
        class="field w-24"
        bind:value={typed[r.id]}
        aria-label="{placeName(view.board, r.place)} now"
        placeholder="now"
        onkeydown={(e) => e.key === 'Enter' && void readAgain(r)}
      />
      <button class="button px-3" onclick={() => readAgain(r)}>Enter</button>
    </div>
  {:else}
    <p class="text-[13px] text-ink2">No reading was off before the work.</p>
  {/each}

  <GateHead title="Complaint and functions" gate={gate('functions')} />
  <FunctionList {view} {recorder} when="after" />

  {#if target}{#await import('./NextTry.svelte') then { default: NextTry }}<NextTry
        {view}
        {target}
        {recorder}
      />{/await}{/if}

  {#if job.intake.extras.size > 0}<Extras {job} {recorder} states={['done', 'left']} />{/if}

  <SlipList {view} {recorder} />
  <Cautions {view} step="verify" />
  <div class="mt-5"><GateList gates={gates.filter((g) => g.id === 'slips')} /></div>
  <a class="button button-main mt-4" href="/jobs/{view.ticket.id}/release">Release</a>
</div>
