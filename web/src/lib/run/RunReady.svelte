<script lang="ts">
  // Before a run begins: whether it may, what to mind, by which way, and whether its times count.
  import { stepLabel } from '$lib/jobs/words';
  import type { JobView } from '$lib/jobs/view';
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import { partName, type PlacedPart } from '@orthos/core/board';
  import { cautionsFor, type Step } from '@orthos/core/hands';
  import { methodName, type Operation } from '@orthos/core/rework';
  import type { RunSession } from './session.svelte';

  interface Props {
    view: JobView;
    op: Operation;
    s: RunSession;
    target: PlacedPart;
    demo: boolean;
    letGo: () => void;
  }
  let { view, op, s, target, demo, letGo }: Props = $props();

  // fetched with the page: it has to be there when the server is not
  const setReady = import('$lib/set/SetReady.svelte');
  const cautions = $derived(
    cautionsFor(op as Step, {
      board: view.board,
      target,
      method: s.method,
      alloyed: view.inputs?.settings.surroundings?.joints?.some((j) => (j.with?.length ?? 0) > 0),
      sources: view.board.powerSources.map((p) => p.kind ?? 'lead'),
    }),
  );
</script>

<h1 class="text-[56px] leading-tight">
  {s.blocked.length > 0
    ? 'Not yet.'
    : `Ready to ${op === 'remove' ? `take ${s.set ? partName(target) : 'it'} off` : op === 'prepare' ? 'clean the lands' : 'put it on'}?`}
</h1>
{#each s.blocked as g (g.id)}
  <p class="mt-4 text-[24px] font-semibold text-stop"><span aria-hidden="true">▲</span> {g.label}: {g.why}.</p>
  <a class="button mt-3" href="/jobs/{view.ticket.id}/{g.step}">{stepLabel(g.step)}</a>
{/each}
{#if s.set}{#await setReady then { default: SetReady }}<SetReady {view} {op} {s} {target} />{/await}{/if}
{#if s.blocked.length === 0}
  <ul class="mt-4 space-y-1 text-[18px] text-ink2">
    {#each cautions.slice(0, 4) as c (c)}<li><span aria-hidden="true">▲</span> {c}</li>{/each}
  </ul>
  <div class="mt-5 flex flex-wrap items-center gap-5 text-[18px]">
    {#if op !== 'prepare' && s.methods.length > 0}
      <Select
        label="How"
        beside
        choices={s.methods.map((m) => ({ value: m.id, label: methodName(m.id) }))}
        bind:value={() => s.method?.id ?? '', (id) => (s.methodId = id)}
        onchange={letGo}
      />
    {/if}
    {#if demo && op !== 'prepare'}
      <Check bind:checked={s.bench} onchange={letGo}>a hidden bench plays the board</Check>
    {/if}
    {#if s.times.differs.length > 0}
      <span class="text-caution"
        >◆ {s.times.differs.length > 4 ? `${s.times.differs.length} things are` : s.times.differs.join(', ')} not as planned:
        {s.guide ? 'times are for the board as it is' : 'its times do not count'}</span
      >
    {/if}
    {#if s.times.before.length > 0}
      <span>◆ what was done to it before counts: heat, alloy in the joints, joints that are free</span>
    {/if}
    {#if s.times.computing}<span class="text-ink2">computing the times</span>
    {:else if op === 'remove' && !s.guide && s.times.differs.length === 0}
      <span class="text-caution">◆ {s.times.expected ? 'no times yet' : 'no plan in use: no times'}</span>
    {/if}
  </div>
{/if}
