<script lang="ts">
  // Joints proven on the drawing of the part, row by row: looked at, pushed, measured.
  import { layOnStage, useDesk } from '$lib/jobs/desk.svelte';
  import GateHead from '$lib/jobs/GateHead.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { JOINT_WORDS } from '$lib/part/jointStates';
  import JointShape from '$lib/part/JointShape.svelte';
  import LandSheet from '$lib/part/LandSheet.svelte';
  import { Walk } from '$lib/part/walk.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import Tabs from '$lib/ui/Tabs.svelte';
  import { type PlacedPart, solderedTerminals } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import { solderSide } from '@orthos/core/hands';
  import type { Attempt, JointMark } from '@orthos/core/job';
  import { JOINT_CRITERIA, JOINT_FINDINGS, type JointFinding, legsToPush, proofsOf } from '@orthos/core/prove';
  import { untrack } from 'svelte';
  import Pins from './Pins.svelte';
  import { PinWalk } from './pinWalk.svelte';

  interface Props {
    view: JobView;
    target: PlacedPart;
    attempt: Attempt;
    recorder: Recorder;
    units: UnitSettings;
  }
  let { view, target, attempt, recorder, units }: Props = $props();
  const desk = useDesk();
  const side = untrack(() => solderSide(target));
  type Way = 'look' | 'push' | 'measure';

  /** Older logs know a weak joint; what the hands said in a run is none of these. */
  const found = (state: JointMark): JointFinding | undefined =>
    state === 'weak'
      ? 'lean'
      : (JOINT_FINDINGS as readonly string[]).includes(state)
        ? (state as JointFinding)
        : undefined;
  const seen = $derived(
    new Map(
      [...attempt.joints].flatMap(([t, s]) => {
        const f = found(s);
        return f ? [[t, f] as const] : [];
      }),
    ),
  );
  const pushed = $derived(
    new Map([...attempt.proven.pushed].map(([t, firm]) => [t, firm ? 'firm' : 'gives'] as const)),
  );
  const look = untrack(
    () =>
      new Walk<JointFinding>({
        ...{ part: target, side, recorder, good: 'good' },
        stored: () => seen,
        event: ({ terminal }, state) => ({ type: 'joint', terminal, state }),
      }),
  );
  const push = untrack(
    () =>
      new Walk<'firm' | 'gives'>({
        ...{ part: target, side, recorder, good: 'firm', only: legsToPush(target) },
        stored: () => pushed,
        event: ({ terminal }, state) => ({ type: 'leg-pushed', terminal, firm: state === 'firm' }),
      }),
  );
  const pins = untrack(() => new PinWalk(proofsOf(view.board, target), recorder, () => attempt.proven.proofs));

  const gate = (id: string) => view.gates.find((g) => g.id === id);
  const tabs = $derived({
    look: `Look ${look.done}/${look.spots.length}`,
    ...(push.spots.length > 0 ? { push: `Push ${push.done}/${push.spots.length}` } : {}),
    ...(pins.proofs.length > 0 ? { measure: `Measure ${pins.done}/${pins.proofs.length}` } : {}),
  } as Record<Way, string>);
  let way = $state<Way>(
    untrack(() =>
      look.done < look.spots.length || push.done + pins.done === 0
        ? 'look'
        : push.done < push.spots.length
          ? 'push'
          : 'measure',
    ),
  );
  const walk = $derived(way === 'push' ? push : look);
  const due = $derived(way === 'measure' ? null : walk.due);
  const shown = $derived<Way>(tabs[way] ? way : 'look');

  /** What the drawing shows of each: what was seen, else what the needle or the meter told. */
  const drawn = $derived(
    look.spots.map((s) => {
      const told = shown === 'measure' ? pins.foundOf(s.terminal) : undefined;
      const needle = shown === 'push' ? push.stateOf(s) : undefined;
      const state: JointFinding | undefined =
        told?.state ??
        (needle === undefined ? undefined : needle === 'firm' ? 'good' : 'open') ??
        (shown === 'look' ? look.stateOf(s) : undefined);
      const next = walk.spots.find((o) => o.row === s.row && o.at === s.at + 1)?.terminal;
      return {
        terminal: s.terminal,
        due: shown === 'measure' ? (pins.due?.ends.includes(s.terminal) ?? false) : s.terminal === due?.terminal,
        found: state,
        ...(state ? { tone: JOINT_WORDS[state].tone, says: JOINT_WORDS[state].label } : {}),
        to: told?.to ?? next,
      };
    }),
  );
  const hidden = $derived(
    solderedTerminals(target).some((t) => t.id === due?.terminal && (t.kind === 'pad' || t.kind === 'ball')),
  );
  const bad = $derived(
    look.spots.flatMap((s) => {
      const state = look.stateOf(s);
      return state && state !== 'good' ? [{ ...s, state }] : [];
    }),
  );
  const touchUp = $derived(
    bad.some((b) => JOINT_CRITERIA[b.state].matters) || push.spots.some((s) => push.stateOf(s) === 'gives'),
  );

  layOnStage(desk, sheet);
  useKeys('Joints', () => {
    if (shown === 'measure') return pins.keys();
    const along = [
      {
        keys: ['ArrowLeft', 'ArrowRight'],
        label: 'along the row',
        run: (key: string) => walk.step(key === 'ArrowRight' ? 1 : -1),
        line: true,
      },
      {
        keys: ['ArrowUp', 'ArrowDown'],
        label: 'to another row',
        run: (key: string) => walk.stepRow(key === 'ArrowDown' ? 1 : -1),
      },
      {
        keys: ['r'],
        label: `row ${shown === 'push' ? 'firm' : 'good'} from here`,
        run: () => walk.rowIsClean(),
        line: due !== null,
      },
      { keys: ['v'], label: 'turn the view', run: () => walk.turns++ },
    ];
    if (shown === 'push')
      return [
        { keys: [' ', 'g'], shown: ['Space'], label: 'firm', run: () => push.say('firm'), line: due !== null },
        { keys: ['o'], label: 'gives', run: () => push.say('gives'), line: due !== null },
        ...along,
      ];
    return [
      ...JOINT_FINDINGS.map((f) => ({
        keys: f === 'good' ? [' ', 'g'] : [JOINT_WORDS[f].key],
        shown: [f === 'good' ? 'Space' : JOINT_WORDS[f].key.toUpperCase()],
        label: JOINT_WORDS[f].label.toLowerCase(),
        run: () => look.say(f),
        line: due !== null && ['good', 'bridge', 'open'].includes(f),
      })),
      ...along,
    ];
  });
</script>

{#snippet sheet()}
  <LandSheet
    board={view.board}
    {target}
    {side}
    turns={walk.turns}
    lands={drawn}
    {units}
    count={shown === 'measure' ? `${pins.done} of ${pins.proofs.length}` : `${walk.done} of ${walk.spots.length}`}
    onPick={(terminal) => {
      if (shown === 'measure') return pins.goTo(terminal);
      const spot = walk.spots.find((s) => s.terminal === terminal);
      if (spot) walk.go(spot);
    }}
    onTurn={() => walk.turns++}
  >
    {#snippet joint(at)}<JointShape {...at} state={drawn.find((d) => d.terminal === at.terminal)?.found} />{/snippet}
  </LandSheet>
{/snippet}

<section aria-label="Joints">
  <GateHead title="Joints" gate={gate('joints')} />
  <Tabs label="Joints" {tabs} bar="mb-1" bind:at={() => shown, (to) => (way = to)}>
    {#snippet panel()}
      {#if shown === 'measure'}
        <Pins {view} {pins} {recorder} />
      {:else if due}
        <h4 class="text-lg font-semibold" aria-live="polite">
          Joint {due.terminal}: {shown === 'push' ? 'does it give under a needle?' : 'what do you see?'}
        </h4>
        <p class="text-[13px] text-ink2">
          {[due.of > 1 ? `${due.at + 1} of ${due.of} in its row` : '', target.nets?.[due.terminal] ?? '']
            .filter(Boolean)
            .join(', ')}
          {#if hidden}Hidden: at its rim, through its vias from behind, or by X-ray.{/if}
        </p>
        <div
          class="mt-2 grid grid-cols-2 gap-px border border-line bg-line @md:grid-cols-4"
          role="group"
          aria-label="What is found"
        >
          {#if shown === 'push'}
            {#each [['firm', 'Firm', 'the leg does not move', 'Space'], ['gives', 'Gives', 'it moves on its land', 'O']] as const as [state, label, hint, key] (state)}
              {@render choice(label, hint, key, push.stateOf(due) === state, () => push.say(state))}
            {/each}
          {:else}
            {#each JOINT_FINDINGS as f (f)}
              {@const w = JOINT_WORDS[f]}
              {@render choice(
                w.label,
                w.hint,
                f === 'good' ? 'Space' : w.key.toUpperCase(),
                look.stateOf(due) === f,
                () => look.say(f),
              )}
            {/each}
          {/if}
        </div>
        <div class="mt-2 flex flex-wrap items-center gap-2">
          <button class="button px-3" onclick={() => walk.rowIsClean()}
            >Row is {shown === 'push' ? 'firm' : 'good'} from here</button
          >
          <button class="button px-3" onclick={() => walk.allClean()}
            >Rest are {shown === 'push' ? 'firm' : 'good'}</button
          >
        </div>
      {:else}
        <p class="font-semibold text-good">
          <span aria-hidden="true">✓</span> All {walk.spots.length}
          {shown === 'push' ? 'pushed' : 'looked at'}.
        </p>
      {/if}
    {/snippet}
  </Tabs>
  {#each bad as b (b.key)}
    {@const { matters, then } = JOINT_CRITERIA[b.state]}
    <div class="flex flex-wrap items-baseline gap-x-3 border-b border-faint py-1">
      <button
        class="w-14 text-left font-semibold"
        onclick={() => {
          way = 'look';
          look.go(b);
        }}
        aria-label="joint {b.terminal}: {JOINT_WORDS[b.state].label.toLowerCase()}"
      >
        <span class={matters ? 'text-stop' : 'text-caution'} aria-hidden="true">{matters ? '▲' : '◆'}</span>
        {b.terminal}
      </button>
      <span class="w-16 {matters ? 'text-stop' : 'text-caution'}">{JOINT_WORDS[b.state].label.toLowerCase()}</span>
      <span class="min-w-40 flex-1 text-[13px]">{then}</span>
    </div>
  {/each}
  {#if touchUp}
    <p class="mt-2 text-[13px]">
      Leave what works. <a class="underline" href="/jobs/{view.ticket.id}/fit">Reheat or touch up in place</a>
    </p>
    {#await import('$lib/hands/HeatSoFar.svelte') then { default: HeatSoFar }}<HeatSoFar {view} />{/await}
  {/if}
</section>

{#snippet choice(label: string, hint: string, key: string, here: boolean, say: () => void)}
  <button
    class="bg-sheet px-2 py-1.5 text-left {here ? 'outline-2 -outline-offset-2 outline-evidence' : 'hover:bg-bench'}"
    aria-pressed={here}
    onclick={say}
  >
    <kbd class="mr-1 border border-line px-1 text-[12px]">{key}</kbd>
    <span class="font-semibold">{label}</span>
    <span class="block text-[12px] text-ink2">{hint}</span>
  </button>
{/snippet}
