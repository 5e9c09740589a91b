<script lang="ts">
  import Slider from '$lib/ui/Slider.svelte';
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { loadCues, keepAwake, saveCues, sound } from './cues';
  import { HOLD_MS, Pedal, PEDAL_KEYS } from './pedal';
  import { outbox } from './outbox.svelte';
  import { keepPage } from './keepPage';
  import { Lead } from './lead.svelte';
  import { methodsOf } from './work';
  import { NEXT_STEP, OP_NAMES, RunSession } from './session.svelte';
  import { listenTo } from '$lib/jobs/listen';
  import { stepLabel } from '$lib/jobs/words';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { partName } from '@orthos/core/board';
  import { cautionsFor, type Step, workSide } from '@orthos/core/hands';
  import { methodName, type Operation } from '@orthos/core/rework';
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import VolumeX from '@lucide/svelte/icons/volume-x';
  import { onMount } from 'svelte';
  import RunPart from './RunPart.svelte';
  import WindowBar from './WindowBar.svelte';

  let { view, op, demo }: { view: JobView; op: Operation; demo: boolean } = $props();
  // svelte-ignore state_referenced_locally
  const s = new RunSession(() => view, op);
  const box = outbox();
  // svelte-ignore state_referenced_locally
  const lead = new Lead(`${view.ticket.id}.${op}`);
  const waiting = $derived(box.waiting.length);
  const pedal = new Pedal(
    (at) => s.tap(at),
    () => s.hold(),
  );
  let cues = $state(loadCues());
  let turns = $state(Number(localStorage.getItem('orthos.turns')) || 0);
  let held = $state(false);

  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  const power = $derived(s.gates.find((g) => g.id === 'power-gone'));
  const count = $derived(s.course?.list.length ?? 0);
  const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;
  const allWet = $derived(s.course?.run.marks.some((m) => m.what === 'all-wet') ?? false);
  const expected = $derived.by(() => {
    if (!s.guide || s.elapsed === null || allWet || s.oneByOne) return '';
    const { allWetFrom_s: from, allWetTo_s: to, allWet_s: mid } = s.guide;
    if (mid === null && from === null) return 'not expected to melt';
    const left = (t: number) => Math.round(t - (s.elapsed ?? 0));
    if (to !== null && left(to) <= 0) return `all wet expected ${-left(to)} s ago`;
    const first = Math.max(0, left(from ?? mid ?? 0));
    return to === null
      ? `all wet expected from ${first} s on, or it stays solid`
      : `all wet expected in ${first} to ${left(to)} s`;
  });
  const turnWords = (left_s: number) =>
    left_s >= 1 ? `empty in about ${Math.round(left_s)} s` : left_s > -3 ? 'empty about now' : 'later than planned';
  const cautions = $derived(
    cautionsFor(op as Step, {
      board: view.board,
      target,
      method: s.method,
      alloyed: view.inputs?.settings.surroundings?.joints?.some((j) => (j.with?.length ?? 0) > 0),
      sources: view.board.powerSources.map((p) => p.kind ?? 'lead'),
    }),
  );
  /** Whether this page would open again without the server; unknown while the worker takes it. */
  let kept = $state<boolean>();
  const saved = $derived(
    box.unkept
      ? 'this browser keeps nothing: do not close the page'
      : waiting === 0
        ? kept === false
          ? 'marks saved; without the server this page would not open again'
          : 'marks saved'
        : box.keptHere < waiting
          ? `${waiting - box.keptHere} of ${waiting} being kept`
          : `${waiting} ${waiting === 1 ? 'mark' : 'marks'} kept here${box.away ? ', server away' : ''}`,
  );

  function down() {
    if (lead.state === 'follows') return;
    held = true;
    pedal.press();
  }
  function up() {
    held = false;
    pedal.release();
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
    cues = { muted: volume === 0, volume };
    saveCues(cues);
    sound('opens', cues);
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
      : []),
    ...(s.sheet
      ? [
          ...s.sheet.choices.map((c, i) => ({ keys: [String(i + 1)], label: c.label, run: () => c.choose() })),
          { keys: ['Escape'], label: 'close it', run: () => (s.sheet = null) },
        ]
      : []),
    { keys: ['n'], label: 'begin this operation again', run: () => s.ended && (s.again = true) },
  ];
  const VIEW_KEYS = [
    { keys: ['v'], label: 'turn the view', run: turn },
    { keys: ['m'], label: 'sound on or off', run: mute },
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
      lead.end();
      deaf();
      clearInterval(timer);
      pedal.forget();
    };
  });
  $effect(() => {
    const abort = new AbortController();
    void s.predictFitting(abort.signal);
    return () => abort.abort();
  });
  $effect(() => {
    const abort = new AbortController();
    void s.playHiddenBench(abort.signal);
    return () => abort.abort();
  });
  const cue = $derived(
    !s.hot || allWet ? null : s.closing ? 'closing' : s.phase === 'look' ? 'opens' : s.phase === 'late' ? 'over' : null,
  );
  $effect(() => {
    if (cue) sound(cue, cues);
  });
  /** How long the last mark took to appear, ms: for measuring. */
  let shownAfter = $state<number | null>(null);
  let released = 0;
  const progress = $derived(`${s.course?.at ?? -1}/${s.course?.run.joints.size ?? 0}`);
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
    released = performance.now();
    up();
  }}
  onblur={() => {
    held = false;
    pedal.forget();
  }}
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
  <header class="flex items-center gap-6 text-[16px]">
    <p>
      <a href="/jobs/{view.ticket.id}/{op}" class="font-bold hover:underline"
        >No. {view.ticket.number}, {target ? partName(target) : 'part'} {OP_NAMES[op]}</a
      >
      {#if s.course && !s.ended}<span class="ml-2 text-ink2">step {Math.min(s.course.at + 1, count)} of {count}</span
        >{/if}
    </p>
    <p class="ml-auto {box.away || box.unkept ? 'font-semibold text-caution' : 'text-ink2'}" role="status">
      {waiting === 0 && !box.unkept ? '✓' : '◆'}
      {saved}
    </p>
    <p class={power?.state === 'met' ? 'text-ink2' : 'font-semibold text-stop'}>
      {power?.state === 'met'
        ? '✓ power gone'
        : power?.overridden
          ? '▲ power gate overridden'
          : '▲ power not shown gone'}
    </p>
    <Slider
      aria-label="Volume"
      class="w-20"
      max={1}
      step={0.1}
      value={cues.muted ? 0 : cues.volume}
      onchange={louder}
    />
    <button class="grid h-10 w-10 place-items-center" onclick={mute} aria-label={cues.muted ? 'Sound on' : 'Sound off'}>
      {#if cues.muted}<VolumeX size={22} />{:else}<Volume2 size={22} />{/if}
    </button>
  </header>

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
  <Notice text={s.problem} at="run" class="mt-3" />

  <div class="grid min-h-0 flex-1 grid-cols-[minmax(0,1fr)_minmax(300px,37%)] items-center gap-8 py-4">
    <div class="min-w-0" aria-live="assertive">
      {#if !target}
        <h1 class="text-[44px] leading-tight">No part chosen yet.</h1>
        <p class="mt-4 text-[24px] text-ink2">Choose the suspect first.</p>
        <a class="button mt-6" href="/jobs/{view.ticket.id}/diagnose">Diagnose</a>
      {:else if s.sheet}
        <h1 class="text-[44px] leading-tight">{s.sheet.words?.say ?? s.sheet.title}</h1>
        {#if s.sheet.words}<p class="mt-3 text-[22px] text-ink2">{s.sheet.words.watch}</p>{/if}
        <ul class="mt-5 grid gap-1.5 {s.sheet.choices.length > 5 ? 'grid-cols-2' : ''}" aria-label={s.sheet.title}>
          {#each s.sheet.choices as c, i (c.label)}
            <li>
              <button
                class="flex min-h-12 w-full items-center gap-3 border px-4 text-left text-[20px] {i === s.highlighted
                  ? 'border-hot bg-hot-soft font-bold'
                  : 'border-line'}"
                onclick={c.choose}
                aria-current={i === s.highlighted}
              >
                <kbd class="keycap">{i + 1}</kbd>
                <span
                  >{c.label}{#if c.detail}<span class="block text-[15px] font-normal text-ink2">{c.detail}</span
                    >{/if}</span
                >
              </button>
            </li>
          {/each}
        </ul>
      {:else if s.ended && !s.again}
        <h1 class="text-[56px] leading-tight">
          {s.ended.outcome === 'finished' ? `${stepLabel(op)}: finished.` : 'Given up here.'}
        </h1>
        <p class="mt-4 text-[24px] text-ink2">
          {s.ended.outcome === 'finished'
            ? 'Times can be corrected on the step’s page.'
            : 'The heat so far is kept. Change the method in Plan, then begin again.'}
        </p>
      {:else if !s.course || s.again}
        <h1 class="text-[56px] leading-tight">
          {s.blocked.length > 0
            ? 'Not yet.'
            : `Ready to ${op === 'remove' ? 'take it off' : op === 'prepare' ? 'clean the lands' : 'put it on'}?`}
        </h1>
        {#each s.blocked as g (g.id)}
          <p class="mt-4 text-[24px] font-semibold text-stop"><span aria-hidden="true">▲</span> {g.label}: {g.why}.</p>
          <a class="button mt-3" href="/jobs/{view.ticket.id}/{g.step}">{stepLabel(g.step)}</a>
        {/each}
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
            {#if s.computing}<span class="text-ink2">computing the times</span>{/if}
            {#if op === 'remove' && !s.guide}<span class="text-caution">◆ no plan in use: no times</span>{/if}
          </div>
        {/if}
      {:else if s.words}
        <h1 class="text-[60px] leading-[1.08] text-balance">{s.words.say}</h1>
        <p class="mt-5 text-[26px] leading-snug text-ink2">
          {#if s.joint}
            Joint <strong class="text-ink">{s.joint}</strong>, {s.course.run.joints.size + 1} of {s.due?.walk
              ?.length}{s.turnLeft === null ? '.' : `, ${turnWords(s.turnLeft)}.`}
          {/if}
          {s.words.watch}
        </p>
        {#if s.benchSays}<p class="mt-4 text-[20px] text-evidence">Bench: {s.benchSays}.</p>{/if}
      {/if}
    </div>
    {#if target}
      <div class="relative aspect-square max-h-full w-full justify-self-end border border-line">
        <RunPart
          board={view.board}
          {target}
          side={workSide(
            target,
            methodsOf(view, op).find((m) => m.id === s.course?.run.methodId) ?? methodsOf(view, op)[0],
          )}
          guide={s.guide}
          {turns}
          wet={s.wet}
          joints={s.course?.run.joints}
          current={s.joint}
        />
        <button
          class="absolute right-2 bottom-2 flex min-h-10 items-center gap-2 bg-sheet px-3 text-[15px]"
          onclick={turn}
        >
          <kbd class="keycap">V</kbd> turn
        </button>
      </div>
    {/if}
  </div>

  <div class="h-[150px]">
    {#if s.elapsed !== null && !s.ended}
      <p class="flex items-baseline gap-6">
        <span class="text-[64px] leading-none font-bold" data-testid="clock">{clock(s.elapsed)}</span>
        <span class="text-[22px] text-ink2">{s.heatOff === null ? expected : 'heat off'}</span>
        {#if s.closing && !allWet}<span class="text-[22px] font-bold text-stop">▲ window closing</span>{/if}
      </p>
      {#if s.guide && s.heatOff === null}<WindowBar
          guide={s.guide}
          elapsed={s.elapsed}
          word={!allWet ? (s.oneByOne ? 'all done by plan' : 'look now') : op === 'remove' ? 'lift' : 'heat off'}
        />{/if}
    {/if}
  </div>

  <footer
    inert={lead.state === 'follows'}
    class="{lead.state === 'follows'
      ? 'opacity-40'
      : ''} flex items-center gap-5 border-t border-line pt-4 text-[17px] whitespace-nowrap xl:gap-6 xl:text-[19px]"
  >
    <button
      class="flex min-h-12 touch-none items-center gap-3 border px-4 select-none {held
        ? 'border-hot bg-hot-soft'
        : 'border-line'}"
      onpointerdown={(e) => {
        e.preventDefault();
        down();
      }}
      onpointerup={() => {
        released = performance.now();
        up();
      }}
      onpointercancel={() => {
        held = false;
        pedal.forget();
      }}
      title="Tap: go on. Hold {HOLD_MS / 1000} s: something is wrong."
    >
      <kbd class="keycap text-[15px]">Space</kbd>
      <strong>
        {s.sheet
          ? 'next choice, hold: take it'
          : s.ended && !s.again
            ? `to ${stepLabel(NEXT_STEP[op] as Step)}`
            : !s.course || s.again
              ? s.blocked.length > 0
                ? 'not yet'
                : 'begin'
              : s.joint
                ? 'this joint done'
                : (s.due?.tap ?? 'done')}
      </strong>
    </button>
    {#if s.course && !s.ended && !s.sheet}
      <button class="flex min-h-12 items-center gap-2" onclick={() => s.hold()}>
        <kbd class="keycap text-[15px]">X</kbd> <span class="text-ink2">or hold: something is wrong</span>
      </button>
    {/if}
    {#if s.course}
      <button class="flex min-h-12 items-center gap-2" onclick={() => s.back()}>
        <kbd class="keycap text-[15px]">Backspace</kbd> <span class="text-ink2">back</span>
      </button>
    {/if}
    {#if s.joint && !s.sheet}
      {#each [['2', 'stuck', 'stuck'], ['3', 'skip', 'skipped']] as const as [key, word, state] (key)}
        <button class="flex min-h-12 items-center gap-2" onclick={() => s.walk(state)}>
          <kbd class="keycap text-[15px]">{key}</kbd> <span class="text-ink2">{word}</span>
        </button>
      {/each}
    {/if}
    {#if s.ended && !s.again}
      <button class="flex min-h-12 items-center gap-2" onclick={() => (s.again = true)}>
        <kbd class="keycap text-[15px]">N</kbd> <span class="text-ink2">once more</span>
      </button>
    {/if}
    <p class="ml-auto hidden truncate text-ink2 xl:block">
      {s.next && !s.ended && !s.sheet ? `then: ${s.next.say}` : ''}
    </p>
  </footer>
</div>
