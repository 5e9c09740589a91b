<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { loadCues, keepAwake, saveCues, sound, speak } from './cues';
  import { Pedal, PEDAL_KEYS } from './pedal';
  import { outbox } from './outbox.svelte';
  import { keepPage } from './keepPage';
  import { Lead } from './lead.svelte';
  import { RunSession } from './session.svelte';
  import { listenTo } from '$lib/jobs/listen';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { workSide } from '@orthos/core/hands';
  import type { Operation } from '@orthos/core/rework';
  import { onMount, untrack } from 'svelte';
  import Instruction from './Instruction.svelte';
  import RunHeader from './RunHeader.svelte';
  import RunPedals from './RunPedals.svelte';

  let { view, op, demo }: { view: JobView; op: Operation; demo: boolean } = $props();
  // svelte-ignore state_referenced_locally
  const s = new RunSession(() => view, op);
  const box = outbox();
  // svelte-ignore state_referenced_locally
  const lead = new Lead(`${view.ticket.id}.${op}`);
  const pedal = new Pedal(
    (at) => s.tap(at),
    () => s.hold(),
  );
  let cues = $state(loadCues());
  let turns = $state(Number(localStorage.getItem('orthos.turns')) || 0);
  let held = $state(false);
  // fetched with the page: they have to be there when the server is not
  const figure = import('$lib/part/PartFigure.svelte');
  const clock = import('./RunClock.svelte');

  const target = $derived(s.view.board.parts.find((p) => p.partId === s.view.inputs?.target));
  const allWet = $derived(s.course?.run.marks.some((m) => m.what === 'all-wet') ?? false);
  /** Whether this page would open again without the server; unknown while the worker takes it. */
  let kept = $state<boolean>();

  function down() {
    if (lead.state === 'follows') return;
    held = true;
    pedal.press();
  }
  function up() {
    released = performance.now();
    held = false;
    pedal.release();
  }
  function forget() {
    held = false;
    pedal.forget();
  }
  /** What keeps the focus would take the next press of the pedal for itself. */
  function letGo() {
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
  }
  function turn() {
    turns = (turns + 1) % 4;
    localStorage.setItem('orthos.turns', String(turns));
  }
  function mute() {
    cues = { ...cues, muted: !cues.muted };
    saveCues(cues);
  }
  function louder(volume: number) {
    cues = { ...cues, muted: volume === 0, volume };
    saveCues(cues);
    sound('opens', cues);
  }

  function talk() {
    cues = { ...cues, spoken: !cues.spoken };
    saveCues(cues);
    if (cues.spoken) speak(s.words?.say ?? 'Speaking.', cues);
  }

  const runKeys = () => [
    { keys: PEDAL_KEYS, shown: ['Space'], label: s.due?.tap ?? 'go on', run: down },
    { keys: ['x'], label: 'something is wrong (or hold Space)', run: () => s.hold() },
    { keys: ['Backspace', 'ArrowLeft', 'PageUp'], shown: ['Backspace'], label: 'back', run: () => s.back() },
    { keys: ['a'], label: 'all joints wet', run: () => s.allWet() },
    ...(s.joint
      ? [
          { keys: ['1'], label: 'this joint done', run: () => s.walk('done') },
          { keys: ['2'], label: 'stuck', run: () => s.walk('stuck') },
          { keys: ['3'], label: 'skip it', run: () => s.walk('skipped') },
        ]
      : s.due?.tries
        ? [{ keys: ['2'], label: 'one holds', run: () => s.oneHolds() }]
        : []),
    ...(s.trouble?.sheet
      ? [
          ...s.trouble.sheet.choices.map((c, i) => ({
            keys: [c.key ?? String(i + 1)],
            label: c.label,
            run: () => c.choose(),
          })),
          { keys: ['Escape'], label: 'close it', run: () => s.trouble?.close() },
        ]
      : []),
    { keys: ['n'], label: 'begin this operation again', run: () => s.ended && (s.again = true) },
    ...(s.set && !s.course
      ? [{ keys: ['o'], label: 'mark seen where it belongs', run: () => s.sayOrientation() }]
      : []),
  ];
  const VIEW_KEYS = [
    { keys: ['v'], label: 'turn the view', run: turn },
    { keys: ['m'], label: 'sound on or off', run: mute },
    { keys: ['s'], label: 'speak what is told, or not', run: talk },
  ];
  useKeys('Run', () =>
    lead.state === 'follows'
      ? [{ keys: ['t'], label: 'go on in this window', run: () => lead.takeOver() }, ...VIEW_KEYS]
      : [...runKeys(), ...VIEW_KEYS],
  );

  onMount(() => {
    lead.ask();
    void keepPage(location.pathname).then((is) => (kept = is));
    box.settle(
      view.ticket.id,
      view.events.map((e) => e.id),
    );
    const awake = keepAwake();
    const timer = setInterval(() => (s.now = Date.now()), 200);
    const deaf = listenTo(
      view.ticket.id,
      (what) => s.events.some((e) => e.id === what),
      () => s.look(),
    );
    return () => {
      awake();
      s.leaves();
      lead.end();
      deaf();
      clearInterval(timer);
      pedal.forget();
    };
  });
  $effect(() => {
    const abort = new AbortController();
    void s.times.ahead(abort.signal);
    return () => abort.abort();
  });
  $effect(() => {
    void s.correct();
  });
  $effect(() => void s.playHiddenBench());
  // a part of a set is told anew once hands are free for it
  const partNow = $derived(s.course ? undefined : s.leg?.partId);
  $effect(() => {
    if (partNow !== undefined) untrack(() => void s.retime());
  });
  const cue = $derived(
    !s.hot || allWet || s.oneByOne
      ? null
      : s.closing
        ? 'closing'
        : s.phase === 'look'
          ? 'opens'
          : s.phase === 'late'
            ? 'over'
            : null,
  );
  /** The joint whose turn it is should be done, or what is told changes on the way: hands that look elsewhere hear it. */
  const due = $derived(s.turnLeft !== null && s.turnLeft <= 0 ? s.joint : s.hot ? (s.changed ?? null) : null);
  $effect(() => {
    if (due !== null)
      sound(
        'turn',
        untrack(() => cues),
      );
  });
  const told = $derived(s.trouble?.sheet?.words?.say ?? s.trouble?.sheet?.title ?? (s.ended ? null : s.words?.say));
  $effect(() => {
    if (told)
      speak(
        told,
        untrack(() => cues),
      );
  });
  $effect(() => {
    if (cue)
      sound(
        cue,
        untrack(() => cues),
      );
  });
  /** How long the last mark took to appear, ms: for measuring. */
  let shownAfter = $state<number | null>(null);
  let released = 0;
  const progress = $derived(`${s.course?.at ?? -1}/${s.course?.run.walked.length ?? 0}`);
  $effect(() => {
    void progress;
    if (released > 0) {
      const since = released;
      released = 0;
      requestAnimationFrame(() => (shownAfter = performance.now() - since));
    }
  });
</script>

<svelte:window
  onkeyup={(e) => {
    if (!PEDAL_KEYS.includes(e.key) || !pedal.pressed) return;
    up();
  }}
  onblur={forget}
/>

<!-- a button clicked keeps the focus, and the next press of the pedal would be its own -->
<!-- svelte-ignore a11y_no_static_element_interactions, a11y_click_events_have_key_events -->
<div
  class="hands flex h-full flex-col px-8 py-5"
  onclick={(e) => e.detail > 0 && letGo()}
  data-shown-ms={shownAfter?.toFixed(1)}
  data-sent-ms={box.delay}
  data-kept={kept}
>
  <RunHeader view={s.view} {op} {s} {kept} {cues} onMute={mute} onVolume={louder} onTalk={talk} />

  {#each box.refused.filter((r) => r.ticketId === view.ticket.id) as r (r.id)}
    <Notice at="run" class="mt-3 flex items-center gap-4">
      <span class="flex-1">A mark was refused: {r.message}</span>
      <button class="button" onclick={() => box.again(r.id)}>Send again</button>
      <button class="button" onclick={() => box.dismiss(r.id)}>Understood</button>
    </Notice>
  {/each}
  {#if lead.state === 'follows'}
    <Notice at="run" tone="caution" class="mt-3 flex items-center gap-4 bg-caution-soft">
      <span class="flex-1"><span aria-hidden="true">◆</span> Another window leads this run; this one follows it.</span>
      <button class="button" onclick={() => lead.takeOver()}><kbd class="keycap">T</kbd> go on here</button>
    </Notice>
  {/if}
  <Notice text={s.problem ?? s.times.problem ?? s.played?.problem} at="run" class="mt-3" />

  <div class="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(300px,37%)] items-center gap-8 py-4">
    <Instruction view={s.view} {op} {s} {demo} {letGo} />
    {#if target && s.view.inputs}
      <div class="relative aspect-square max-h-full w-full justify-self-end border border-line">
        {#await figure then { default: PartFigure }}<PartFigure
            board={view.board}
            {target}
            units={s.view.inputs.panel}
            side={workSide(target, op, s.phases)}
            guide={s.guide}
            {turns}
            wet={s.played?.loose}
            joints={s.joints}
            current={s.joint}
          />{/await}
        <button
          class="absolute right-2 bottom-2 flex min-h-10 items-center gap-2 bg-sheet px-3 text-[15px]"
          onclick={turn}
        >
          <kbd class="keycap">V</kbd> turn
        </button>
      </div>
    {/if}
  </div>

  {#await clock}
    <div class="h-[150px]"></div>
  {:then { default: RunClock }}<RunClock {s} {op} {allWet} />{/await}

  <RunPedals {s} {op} follows={lead.state === 'follows'} {held} onDown={down} onUp={up} onForget={forget} />
</div>
