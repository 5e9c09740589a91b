<script lang="ts">
  // Lands walked on the drawing of the part: what is seen of the one that is due, what was found so far, what each takes.
  import { layOnStage, useDesk } from '$lib/jobs/desk.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import LandSheet from '$lib/part/LandSheet.svelte';
  import { isOfHoles, LAND_ORDER, LAND_WORDS } from '$lib/part/landStates';
  import { netOf, Walk } from '$lib/part/walk.svelte';
  import { lasts } from '$lib/plan/ways';
  import { HOLD_MS, Pedal } from '$lib/run/pedal';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { PlacedPart, Side } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import { type LandMark, landRepair } from '@orthos/core/hands';
  import type { Attempt } from '@orthos/core/job';
  import { onMount, untrack } from 'svelte';
  import LandWire from './LandWire.svelte';

  interface Props {
    view: JobView;
    target: PlacedPart;
    side: Side;
    attempt: Attempt;
    recorder: Recorder;
    units: UnitSettings;
  }
  let { view, target, side, attempt, recorder, units }: Props = $props();
  const desk = useDesk();
  const walk = untrack(
    () =>
      new Walk<LandMark>({
        ...{ part: target, side, recorder, good: 'good', bothFaces: true },
        stored: () => attempt.lands,
        event: (spot, state) => ({ type: 'land', ...spot, state }),
      }),
  );
  /** Pedal held: it stopped here for somebody to look. */
  let stopped = $state(false);

  const due = $derived(walk.due);
  const farSide = $derived<Side>(side === 'top' ? 'bottom' : 'top');
  const shown = $derived(due?.far ? farSide : side);
  const faced = $derived(walk.spots.filter((s) => (s.far ? farSide : side) === shown));
  const choices = $derived(LAND_ORDER.filter((state) => !isOfHoles(state) || due?.hole));
  const found = $derived(
    walk.spots.flatMap((s) => {
      const state = walk.stateOf(s);
      const repair = state && landRepair(view.board, target, s.terminal, state, s.far);
      return state && repair ? [{ ...s, state, repair, mended: attempt.landRepairs.get(s.key) }] : [];
    }),
  );
  const wired = $derived(found.filter((f) => f.repair.wire && !f.far));
  const clean = $derived(walk.spots.filter((s) => walk.stateOf(s) === 'good').length);

  function otherFace() {
    const other = walk.spots.find((s) => (s.far ? farSide : side) !== shown);
    if (other) walk.go(other);
  }
  layOnStage(desk, sheet);
  const pedal = new Pedal(
    () => walk.rowIsClean(),
    () => (stopped = true),
  );
  onMount(() => {
    const down = (e: KeyboardEvent) => {
      if (e.key !== 'PageDown') return;
      e.preventDefault();
      stopped = false;
      pedal.press();
    };
    const up = (e: KeyboardEvent) => {
      if (e.key === 'PageDown') pedal.release();
    };
    window.addEventListener('keydown', down);
    window.addEventListener('keyup', up);
    return () => {
      window.removeEventListener('keydown', down);
      window.removeEventListener('keyup', up);
      pedal.forget();
    };
  });
  useKeys('Lands', () => [
    ...choices.map((state) => ({
      keys: state === 'good' ? [' ', 'g'] : [LAND_WORDS[state].key],
      shown: [state === 'good' ? 'Space' : LAND_WORDS[state].key.toUpperCase()],
      label: LAND_WORDS[state].label.toLowerCase(),
      run: () => {
        stopped = false;
        walk.say(state);
      },
      line: due !== null && ['good', 'dirty', 'torn'].includes(state),
    })),
    {
      keys: ['ArrowLeft', 'ArrowRight'],
      label: 'along the row',
      run: (key) => walk.step(key === 'ArrowRight' ? 1 : -1),
      line: true,
    },
    {
      keys: ['ArrowUp', 'ArrowDown'],
      label: 'to another row',
      run: (key) => walk.stepRow(key === 'ArrowDown' ? 1 : -1),
    },
    { keys: ['r'], label: 'row clean from here', run: () => walk.rowIsClean(), line: due !== null },
    { keys: ['v'], label: 'turn the view', run: () => walk.turns++ },
    ...(walk.spots.some((s) => s.far) ? [{ keys: ['f'], label: 'other face', run: otherFace, line: true }] : []),
  ]);
  const place = $derived.by(() => {
    if (!due) return '';
    const net = netOf(view.board, target.partId, due.terminal);
    return [
      net ? `Net ${net}` : '',
      due.of > 1 ? `${due.at + 1} of ${due.of} in its row` : '',
      due.far ? 'on the other face' : '',
    ]
      .filter(Boolean)
      .join(', ');
  });
</script>

{#snippet sheet()}
  <LandSheet
    board={view.board}
    {target}
    side={shown}
    turns={walk.turns}
    lands={faced.map((s) => ({
      terminal: s.terminal,
      state: walk.stateOf(s),
      due: s === due,
      mended: attempt.landRepairs.has(s.key),
    }))}
    {units}
    count="{walk.done} of {walk.spots.length}"
    wires={shown === target.side ? wired.flatMap((f) => f.repair.wire ?? []) : []}
    from={wired.map((f) => f.terminal)}
    onPick={(terminal) => {
      const spot = faced.find((s) => s.terminal === terminal);
      if (spot) walk.go(spot);
    }}
    onTurn={() => walk.turns++}
    onFlip={walk.spots.some((s) => s.far) ? otherFace : undefined}
  />
{/snippet}

<section class="mt-5" aria-label="Lands">
  {#if due}
    <h3 class="text-lg font-semibold" aria-live="polite">
      {due.hole ? 'Hole' : 'Land'}
      {due.terminal}: what do you see?
    </h3>
    <p class="text-[13px] text-ink2">{place}</p>
    {#if stopped}<p class="font-semibold text-caution" role="status">
        <span aria-hidden="true">◆</span> Stopped here by the pedal.
      </p>{/if}
    <div
      class="mt-2 grid grid-cols-2 gap-px border border-line bg-line @md:grid-cols-4"
      role="group"
      aria-label="What is seen"
    >
      {#each choices as state (state)}
        {@const w = LAND_WORDS[state]}
        {@const here = walk.stateOf(due) === state}
        <button
          class="bg-sheet px-2 py-1.5 text-left last:odd:col-span-2 {here
            ? 'outline-2 -outline-offset-2 outline-evidence'
            : 'hover:bg-bench'}"
          aria-pressed={here}
          onclick={() => walk.say(state)}
        >
          <kbd class="mr-1 border border-line px-1 text-[12px]">{state === 'good' ? 'Space' : w.key.toUpperCase()}</kbd>
          <span class="font-semibold">{w.label}</span>
          <span class="block text-[12px] text-ink2">{w.hint}</span>
        </button>
      {/each}
    </div>
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <button class="button px-3" onclick={() => walk.rowIsClean()}>Row is clean from here</button>
      <button class="button px-3" onclick={() => walk.allClean()}>Rest are good</button>
      <span class="text-[12px] text-ink2"
        >Pedal: tap, the row is good; hold {Math.round(HOLD_MS / 100) / 10} s, stop here.</span
      >
    </div>
  {:else}
    <p class="font-semibold text-good"><span aria-hidden="true">✓</span> All {walk.spots.length} looked at.</p>
  {/if}

  {#if walk.done > 0}
    <h3 class="mt-4 mb-1 flex justify-between border-t border-line pt-2 font-semibold">
      Found so far <span class="font-normal text-good">✓ {clean} clean</span>
    </h3>
    {#each found as f (f.key)}
      {@const w = LAND_WORDS[f.state]}
      <div class="flex flex-wrap items-center gap-x-3 border-b border-faint py-1">
        <button
          class="w-14 text-left font-semibold"
          onclick={() => walk.go(f)}
          aria-label="land {f.key}: {w.label.toLowerCase()}"
        >
          <span class={w.tone === 'stop' ? 'text-stop' : 'text-caution'} aria-hidden="true"
            >{w.tone === 'stop' ? '▲' : '◆'}</span
          >
          {f.key}
        </button>
        <span class="w-20 {w.tone === 'stop' ? 'text-stop' : 'text-caution'}">{w.label.toLowerCase()}</span>
        <span class="min-w-24 flex-1">{f.repair.what}</span>
        {#if f.mended}<span class="text-good">✓ {f.mended.how}</span>
        {:else}
          <span class="text-[13px] text-ink2">{lasts(f.repair.seconds)}</span>
          {#if f.state !== 'mask-gone' && !f.repair.wire}
            <button
              class="button px-3"
              onclick={() =>
                recorder.record({
                  type: 'land-repaired',
                  terminal: f.terminal,
                  ...(f.far ? { far: f.far } : {}),
                  how: f.repair.what,
                })}>Done</button
            >
          {/if}
        {/if}
        {#if f.repair.wire && !f.mended}
          <LandWire board={view.board} terminal={f.terminal} far={f.far} wire={f.repair.wire} {recorder} {units} />
        {/if}
      </div>
    {/each}
    {#if found.length === 0 && walk.done > 0}<p class="text-[13px] text-ink2">Nothing that has to be mended.</p>{/if}
  {/if}
</section>
