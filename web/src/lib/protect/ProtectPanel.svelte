<script lang="ts">
  import { tip } from '$lib/ui/tip.svelte';
  import { ticked } from '$lib/ui/choices';
  import Check from '$lib/ui/Check.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import { aboutWork } from '$lib/jobs/about';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import GateHead from '$lib/jobs/GateHead.svelte';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import { SOURCE_NAMES } from '$lib/jobs/sources';
  import { nameOf } from '$lib/jobs/nameOf';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { classOfPart, partName, type SourceKind, toBoard } from '@orthos/core/board';
  import { formatLength, parseDecimal, type UnitSettings } from '@orthos/core/ground';
  import { TAKEN_OUT, workSide } from '@orthos/core/hands';
  import { currentAttempt, HOLDS_CHARGE, JOB_TYPES } from '@orthos/core/job';
  import { goto } from '$app/navigation';
  import { untrack } from 'svelte';
  import { bearings, bearingText } from '$lib/part/landmarks';
  import LayOut from './LayOut.svelte';
  import Neighbours from './Neighbours.svelte';
  import { aboutNeighbour, mustGo, needOf } from './planned';

  let { view, units }: { view: JobView; units: UnitSettings } = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));

  const job = $derived(stateOf(view.events));
  const attempt = $derived(currentAttempt(job));
  const gate = (id: string) => view.gates.find((g) => g.id === id);
  const gates = $derived(view.gates.filter((g) => g.step === 'protect'));
  const sources = $derived([
    ...view.board.powerSources.map((s) => ({ ...s, kind: s.kind ?? ('lead' as SourceKind) })),
    ...job.sources,
  ]);
  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  const ofTarget = $derived(aboutWork(view));
  /** The side one works on. */
  const side = $derived(target ? workSide(target, 'remove', view.inUse?.method.phases) : 'top');
  const marks = $derived(target ? bearings(view.board, target, side) : []);
  const nextStep = $derived(JOB_TYPES[view.ticket.kind].skips.includes('remove') ? 'fit' : 'remove');

  const HOW: Record<SourceKind, string> = {
    lead: 'pulled and laid aside',
    cell: 'taken out',
    capacitor: 'discharged through a resistor, waited a minute',
    mains: 'plug pulled, bled, waited a minute',
    none: 'nothing connected',
  };
  let residual = $state<Record<string, string>>({});
  let seen = $state<string[]>(untrack(() => attempt.targetConfirmed?.landmarks ?? []));
  // the target and its landmarks on the stage, on the side one works from
  $effect(() => {
    if (!target) return;
    const shown = { partId: target.partId, side };
    untrack(() => {
      desk.lens = 'parts';
      desk.show(shown);
    });
  });
  layOver(desk, () => {
    if (!target) return {};
    const [x_mm, y_mm] = toBoard(target, 0, 0);
    return {
      callouts: [
        {
          id: target.partId,
          x_mm,
          y_mm,
          side,
          title: `${partName(target)}, the target`,
          detail: attempt.targetConfirmed ? 'confirmed' : 'confirm from two landmarks',
          tone: attempt.targetConfirmed ? 'evidence' : 'hot',
        },
        ...view.hotNeighbours.flatMap((id) => {
          const part = view.board.parts.find((p) => p.partId === id && p.side === side);
          if (!part) return [];
          const dealtWith = attempt.neighbours.has(id);
          return [
            {
              id,
              x_mm: part.x_mm,
              y_mm: part.y_mm,
              side,
              title: partName(part),
              detail: dealtWith ? 'dealt with' : needOf(view, id),
              tone: dealtWith ? ('evidence' as const) : ('stop' as const),
            },
          ];
        }),
      ],
    };
  });

  async function gone(id: string, kind: SourceKind) {
    const text = (residual[id] ?? '').trim();
    const volts = text === '' ? undefined : (parseDecimal(text) ?? undefined);
    if (text !== '' && (volts === undefined || volts < 0 || volts > 2000))
      return (recorder.problem = 'What the meter still shows, in volts: a number from 0 to 2000.');
    if (HOLDS_CHARGE.has(kind) && volts === undefined)
      return (recorder.problem = 'It holds its charge: measure again after a minute and type the volts.');
    const stored = await recorder.record({
      type: 'power-gone',
      sourceId: id,
      how: HOW[kind],
      ...(volts === undefined ? {} : { residual_V: volts }),
    });
    if (!stored || kind !== 'cell') return;
    // a cell that was taken out of its holder is out of the heat as well
    const label = sources.find((s) => s.id === id)?.label ?? '';
    for (const partId of view.hotNeighbours)
      if (mustGo(view, partId) && !attempt.neighbours.has(partId) && label.includes(nameOf(view.board, partId)))
        await recorder.record({ type: 'neighbour-covered', partId, how: TAKEN_OUT, ...aboutNeighbour(view) });
  }
  async function confirmTarget() {
    if (seen.length < 2) return (recorder.problem = 'Find the target from two landmarks, then confirm it.');
    await recorder.record({ type: 'target-confirmed', landmarks: seen, ...ofTarget });
  }
  const firstOpen = () => {
    const s = sources.find((q) => q.kind !== 'none' && !job.powerGone.has(q.id));
    if (s) void gone(s.id, s.kind);
  };
  useKeys('Protect', () => [
    { keys: ['g'], label: 'next source is gone', run: firstOpen, line: gate('power-gone')?.state !== 'met' },
    { keys: ['t'], label: 'target confirmed', run: () => void confirmTarget(), line: true },
    { keys: ['b'], label: 'to the work', run: () => void goto(`/jobs/${view.ticket.id}/${nextStep}`), line: true },
  ]);
</script>

<div class="p-5 pt-4">
  <h2 class="text-xl">Protect</h2>
  <Notice text={recorder.problem} at="panel" class="mt-2" />

  {#if job.bareBoard}
    <GateHead title="New board" gate={gate('bare-board')} />
    {#await import('$lib/donor/BareBoard.svelte') then { default: BareBoard }}
      <BareBoard {view} {job} {recorder} items={[...(job.set?.items.values() ?? [])]} />
    {/await}
  {/if}
  <GateHead title="Power" gate={gate('power-gone')} />
  <ul>
    {#each sources as s (s.id)}
      {@const shown = job.powerGone.get(s.id)}
      <li class="flex min-h-12 flex-wrap items-center gap-2 border-t border-faint py-1.5" aria-label={s.label}>
        <span class="min-w-0 flex-1">
          <span class="font-semibold">{s.label}</span>
          <span class="block text-[13px] text-ink2"
            >{shown
              ? `${shown.how}${shown.residual_V === undefined ? '' : `, ${shown.residual_V} V left`}`
              : SOURCE_NAMES[s.kind]}</span
          >
        </span>
        {#if s.kind !== 'none'}
          {#if shown}
            <button
              class="button px-3"
              onclick={() => recorder.record({ type: 'power-connected', sourceId: s.id })}
              {@attach tip('The power gate lapses')}>Connect again</button
            >
          {:else}
            <label class="flex items-center gap-1 text-[13px] text-ink2"
              >left, V
              <input
                class="field w-16"
                bind:value={residual[s.id]}
                inputmode="decimal"
                aria-label="Volts left at {s.label}"
                onkeydown={(e) => e.key === 'Enter' && void gone(s.id, s.kind)}
              /></label
            >
            <button class="button button-main px-3" onclick={() => gone(s.id, s.kind)}>Gone</button>
          {/if}
        {/if}
      </li>
    {/each}
  </ul>
  {#await import('$lib/jobs/SourceForm.svelte') then { default: SourceForm }}<SourceForm {recorder} />{/await}
  {#await import('$lib/jobs/Override.svelte') then { default: Override }}
    <Override {view} gates={gates.filter((g) => g.id === 'power-gone')} {recorder} />
  {/await}

  <GateHead title="Target" gate={gate('target-marked')} />
  {#if !target}
    <p class="text-ink2">No target yet. <a class="underline" href="/jobs/{view.ticket.id}/diagnose">Choose it</a></p>
  {:else}
    <p class="text-[13px] text-ink2">
      {partName(target)} seen from the {side}{side === target.side ? '' : ', its solder side'}{side === 'bottom'
        ? ', as mirrored on the stage'
        : ''}. Tick what you find where it says.
    </p>
    {#if side !== target.side}{#await import('$lib/part/PartFigure.svelte') then { default: PartFigure }}<PartFigure
          board={view.board}
          {target}
          {side}
          {units}
          class="my-2 aspect-square w-full max-w-96 border border-line"
        />{/await}{/if}
    {#each marks as m (m.id)}
      <Check
        class="border-t border-faint"
        bind:checked={() => seen.includes(m.id), (on) => (seen = ticked(seen, m.id, on))}
      >
        <span class="flex gap-2">
          <span class="flex-1 truncate">from {m.label}</span>
          <span class="font-semibold">{bearingText(m, (mm) => formatLength(mm, units))}</span>
        </span>
      </Check>
    {/each}
    {#if marks.length < 2}<p class="text-[13px] text-caution">
        ◆ Fewer than two landmarks on this board model: mark the part with a pen instead; the record says not confirmed.
      </p>{/if}
    <button class="button mt-1" onclick={confirmTarget} disabled={seen.length < 2}>Target confirmed</button>
  {/if}

  {#if target && (gate('stored-read') || classOfPart(target) === 'load')}
    {#await import('$lib/part/Stored.svelte') then { default: Stored }}<Stored
        {view}
        {target}
        when="before"
        {recorder}
      />{/await}
  {/if}

  <GateHead title="Neighbours" gate={gate('neighbours-covered')} />
  <Neighbours {view} {attempt} {recorder} {units} {side} {marks} gate={gate('power-gone')} />

  <GateHead title="Lay-out" gate={gate('laid-out')} />
  {#if view.layOut}<LayOut {view} layOut={view.layOut} {attempt} {recorder} {units} />{/if}

  {#await import('$lib/jobs/Cautions.svelte') then { default: Cautions }}<Cautions {view} step="protect" />{/await}
  <a class="button button-main mt-4" href="/jobs/{view.ticket.id}/{nextStep}">{nextStep === 'fit' ? 'Fit' : 'Remove'}</a
  >
</div>
