<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  // The step's page of an operation: what has to hold, what the hands will be told, what they marked.
  import { useDesk } from '$lib/jobs/desk.svelte';
  import GateList from '$lib/jobs/GateList.svelte';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import { stepLabel } from '$lib/jobs/words';
  import { methodsOf, removalGuide, workOf } from '$lib/run/work';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { solderedTerminals } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import { operationFor, workSide } from '@orthos/core/hands';
  import { methodName, type Operation } from '@orthos/core/rework';
  import { blocks, currentAttempt, isOff } from '@orthos/core/job';
  import { goto } from '$app/navigation';
  import { untrack } from 'svelte';

  let { view, op, units }: { view: JobView; op: Operation; units: UnitSettings } = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));
  untrack(() => {
    desk.lens = 'parts';
  });

  const attempt = $derived(currentAttempt(stateOf(view.events)));
  const inSet = $derived((stateOf(view.events).set?.items.size ?? 0) > 0);
  const gates = $derived(view.gates.filter((g) => g.step === op));
  const hard = $derived(view.gates.filter((g) => g.id === 'power-gone' || (op === 'fit' && g.id === 'orientation')));
  const runs = $derived(attempt.runs.filter((r) => r.op === op));
  const method = $derived(methodsOf(view, op)[0]);
  const guide = $derived(op === 'remove' ? removalGuide(view, method) : null);
  const list = $derived.by(() => {
    const work = method && workOf(view, method, guide);
    const all = work ? operationFor(op, work) : [];
    // the heating has two marks under the same words
    return all.filter((i, n) => i.say !== all[n - 1]?.say);
  });
  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  const side = $derived(target ? workSide(target, op, method?.phases) : 'top');
  $effect(() => {
    if (!target) return;
    const shown = { side, partId: target.partId };
    untrack(() => desk.show(shown));
  });
  const terminals = $derived(target ? solderedTerminals(target).map((t) => t.id) : []);
  const open = $derived(runs.some((r) => !r.ended));
  const href = $derived(`/run/${view.ticket.id}/${op}`);

  useKeys('Work', () => [
    {
      keys: ['b', 'Enter'],
      shown: ['B'],
      label: open ? 'go on with the run' : 'begin',
      run: () => void goto(href),
      line: true,
    },
  ]);
</script>

<div class="p-5 pt-4">
  <h2 class="text-xl">{stepLabel(op)}</h2>
  <Notice text={recorder.problem} at="panel" class="mt-2" />
  {#each hard.filter(blocks) as g (g.id)}
    <p class="mt-2 border-l-[3px] border-stop py-1 pl-3">
      <span class="font-semibold text-stop"><span aria-hidden="true">▲</span> {g.label}.</span>
      {g.why}.
      {#if g.step !== op}<a class="underline" href="/jobs/{view.ticket.id}/{g.step}">{stepLabel(g.step)}</a>{/if}
    </p>
  {/each}
  {#if !hard.some(blocks) && hard.some((g) => g.overridden)}
    <p class="mt-2 text-caution">
      <span aria-hidden="true">◆</span> Overridden: {hard
        .filter((g) => g.overridden)
        .map((g) => g.label)
        .join(', ')}.
    </p>
  {/if}
  {#if inSet}{#await import('$lib/set/SetStrip.svelte') then { default: SetStrip }}<SetStrip
        {view}
        {op}
        {recorder}
      />{/await}{/if}
  {#if op !== 'prepare'}{#await import('./HeatSoFar.svelte') then { default: HeatSoFar }}<HeatSoFar
        {view}
      />{/await}{/if}
  {#if op === 'fit'}
    {#await import('./FitChecks.svelte') then { default: FitChecks }}<FitChecks {view} {side} {recorder} />{/await}
    {#if target}{#await import('./SetBy.svelte') then { default: SetBy }}<SetBy
          {view}
          {recorder}
          {target}
          {side}
          {units}
        />{/await}
      {#await import('./FitPlan.svelte') then { default: FitPlan }}<FitPlan
          {view}
          done={runs.some((r) => r.ended?.outcome === 'finished')}
        />{/await}{/if}
  {/if}

  <div class="mt-4 flex items-center gap-3">
    <a class="button button-main" {href}>{open ? 'Go on with the run' : runs.length > 0 ? 'Begin again' : 'Begin'}</a>
    <p class="text-[13px] text-ink2">
      {#if method}{op === 'prepare' ? 'After' : 'By'}
        {methodName(method.id).toLowerCase()}{#if op === 'fit'}{view.inputs?.fitBy
            ? ''
            : ': none is chosen below'}{:else if view.inUse === null && !guide}: no plan in use{/if}.{/if}
      One key or pedal leads through.
    </p>
  </div>
  {#await import('$lib/jobs/Override.svelte') then { default: Override }}
    <Override {view} gates={hard} {recorder} />
  {/await}

  {#if list.length > 0}
    <h3 class="mt-5 mb-1 text-[13px] text-ink2">What comes</h3>
    <ol class="list-decimal space-y-0.5 pl-6">
      {#each list as i (i.id)}<li class="border-b border-faint py-0.5">{i.say}</li>{/each}
    </ol>
  {:else}
    <p class="mt-4 text-ink2">
      No target yet. <a class="underline" href="/jobs/{view.ticket.id}/diagnose">Choose it</a>
    </p>
  {/if}

  {#each runs as run, i (run.id)}
    {#await import('./RunMarks.svelte') then { default: RunMarks }}<RunMarks
        {run}
        {recorder}
        title={runs.length > 1 ? `Run ${i + 1}` : 'The run'}
      />{/await}
  {/each}
  {#if op === 'remove' && isOff(attempt)}
    {#await import('./PartOff.svelte') then { default: PartOff }}<PartOff {view} {method} {recorder} {units} />{/await}
  {/if}
  {#if op === 'prepare' && target && terminals.length > 0}
    {#await import('./Lands.svelte') then { default: Lands }}{#key target.partId}<Lands
          {view}
          {target}
          {side}
          {attempt}
          {recorder}
          {units}
        />{/key}{/await}
  {/if}
  {#await import('$lib/jobs/SlipList.svelte') then { default: SlipList }}<SlipList {view} {recorder} />{/await}
  {#await import('$lib/jobs/Cautions.svelte') then { default: Cautions }}<Cautions {view} step={op} />{/await}
  <div class="mt-5"><GateList {gates} /></div>
</div>
