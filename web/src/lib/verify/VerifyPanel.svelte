<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import Extras from '$lib/intake/Extras.svelte';
  import { atRisk } from '$lib/jobs/atRisk';
  import Cautions from '$lib/jobs/Cautions.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import FunctionList from '$lib/jobs/FunctionList.svelte';
  import GateList from '$lib/jobs/GateList.svelte';
  import GateHead from '$lib/jobs/GateHead.svelte';
  import Override from '$lib/jobs/Override.svelte';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import SlipList from '$lib/jobs/SlipList.svelte';
  import TerminalWalk from '$lib/jobs/TerminalWalk.svelte';
  import { placeName } from '$lib/diagnose/place';
  import type { JobView } from '$lib/jobs/view';
  import { solderedTerminals } from '@orthos/core/board';
  import { formatReading, parseReading, type UnitSettings } from '@orthos/core/ground';
  import { solderSide } from '@orthos/core/hands';
  import { blocks, currentAttempt, pointOf, readingsToRepeat } from '@orthos/core/job';
  import { untrack } from 'svelte';
  import ShortCheck from './ShortCheck.svelte';

  let { view, units }: { view: JobView; units: UnitSettings } = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));
  untrack(() => {
    desk.lens = 'parts';
  });

  const job = $derived(stateOf(view.events));
  const attempt = $derived(currentAttempt(job));
  const gate = (id: string) => view.gates.find((g) => g.id === id);
  const gates = $derived(view.gates.filter((g) => g.step === 'verify'));
  const risks = $derived(atRisk(view));
  const shortCheck = $derived(gate('short-check'));
  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  $effect(() => {
    if (!target) return;
    const [side, partId] = [solderSide(target), target.partId];
    untrack(() => desk.show({ side, partId }));
  });
  const terminals = $derived(target ? solderedTerminals(target).map((t) => t.id) : []);
  const repeat = $derived(readingsToRepeat(job));
  // a capacitor is charged by the others, not connected
  const sources = $derived(
    [...view.board.powerSources, ...job.sources].filter((s) => s.kind !== 'none' && s.kind !== 'capacitor'),
  );
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

  <GateHead title="Joints" gate={gate('joints')} />
  {#if target && solderSide(target) !== target.side}{#await import('$lib/part/PartFigure.svelte') then { default: PartFigure }}<PartFigure
        board={view.board}
        {target}
        side={solderSide(target)}
        {units}
        joints={attempt.joints}
        class="my-2 aspect-square w-full max-w-96 border border-line"
      />{/await}{/if}
  <TerminalWalk
    noun="joint"
    question="fillet on both sides, pushed with a needle?"
    {terminals}
    states={attempt.joints}
    choices={[
      { state: 'good', key: 'g', label: 'Good', mark: '✓', tone: 'good' },
      { state: 'bridge', key: 'b', label: 'Bridge', mark: '▲', tone: 'stop' },
      { state: 'weak', key: 'w', label: 'Weak', mark: '◆', tone: 'caution' },
    ]}
    event={(terminal, state) => ({ type: 'joint', terminal, state })}
    {recorder}
  />

  {#if [...attempt.joints.values()].some((s) => s !== 'good')}
    <p class="mt-2 text-[13px]">
      Leave what works. Else fresh flux and heat, solder last:
      <a class="underline" href="/jobs/{view.ticket.id}/fit">reheat or touch up in place</a>
    </p>
    {#await import('$lib/hands/HeatSoFar.svelte') then { default: HeatSoFar }}<HeatSoFar {view} />{/await}
  {/if}

  <GateHead title="Surroundings" gate={gate('surroundings-after')} />
  <div class="flex flex-wrap items-center gap-2">
    <p class="min-w-48 flex-1 text-[13px] text-ink2">
      Compared with the photo before: shape, place, shine of every neighbour.
      {#if risks.length > 0}
        By the plan above all
        {#each risks.slice(0, 8) as r, i (r.partId)}{i > 0 ? ', ' : ''}<b class="font-semibold text-ink">{r.name}</b>
          ({r.word}){/each}{risks.length > 8 ? ` and ${risks.length - 8} more` : ''}.
      {/if}
    </p>
    {#each [true, false] as ok (ok)}
      <button
        class="button px-3 {attempt.scans.fitting === ok ? 'button-main' : ''}"
        aria-pressed={attempt.scans.fitting === ok}
        onclick={() => recorder.record({ type: 'surroundings-scanned', ok, after: 'fitting' })}
        >{ok ? 'As before' : 'Something is amiss'}</button
      >
    {/each}
  </div>

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
  <ShortCheck {view} checks={attempt.shortChecks} {recorder} />
  <Override {view} gates={gates.filter((g) => g.id === 'short-check')} {recorder} />

  {#if target && gate('stored-back')}
    {#await import('$lib/part/Stored.svelte') then { default: Stored }}<Stored
        {view}
        {target}
        when="after"
        {recorder}
      />{/await}
  {/if}

  <h3 class="mt-5 mb-1 border-t border-line pt-3">First power, limited</h3>
  {#each sources as s (s.id)}
    {@const gone = job.powerGone.has(s.id)}
    <div class="flex items-center gap-2 py-1">
      <span class="flex-1">{s.label}</span>
      {#if shortCheck && blocks(shortCheck)}
        <span class="text-[13px] font-semibold text-stop"><span aria-hidden="true">▲</span> short check first</span>
      {/if}
      <button
        class="button px-3"
        onclick={() => recorder.record({ type: 'power-connected', sourceId: s.id })}
        disabled={!gone && job.powerLapse !== undefined}
        >{gone || job.powerLapse === undefined ? 'Connect' : 'Connected'}</button
      >
    </div>
  {:else}
    <p class="text-ink2">No source is listed for this board.</p>
  {/each}

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

  {#if job.intake.extras.size > 0}<Extras {job} {recorder} states={['done', 'left']} />{/if}

  <SlipList {view} {recorder} />
  <Cautions {view} step="verify" />
  <div class="mt-5"><GateList gates={gates.filter((g) => g.id === 'slips')} /></div>
  <a class="button button-main mt-4" href="/jobs/{view.ticket.id}/release">Release</a>
</div>
