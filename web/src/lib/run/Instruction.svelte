<script lang="ts">
  // What the hands do now: an instruction, a choice, why it cannot begin yet, or that it is over. Read from a metre and a half.
  import { stepLabel } from '$lib/jobs/words';
  import type { JobView } from '$lib/jobs/view';
  import type { Operation } from '@orthos/core/rework';
  import type { RunSession } from './session.svelte';
  import { warmUntil } from './work';

  interface Props {
    view: JobView;
    op: Operation;
    s: RunSession;
    /** A hidden bench may play the board. */
    demo: boolean;
    /** What keeps the focus would take the next press of the pedal for itself. */
    letGo: () => void;
  }
  let { view, op, s, demo, letGo }: Props = $props();

  // fetched with the page: it has to be there when the server is not
  const ready = import('./RunReady.svelte');
  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  /** What was just taken off is worth working on at once. */
  const warm_s = $derived.by(() => {
    const until = op === 'fit' ? null : warmUntil(s.state);
    return until === null ? 0 : Math.ceil((until - s.now) / 1000);
  });
  const LIMBS = [
    ['left', 'Left'],
    ['right', 'Right'],
    ['foot', 'Foot'],
  ] as const;
  const turnWords = (left_s: number) =>
    left_s >= 1 ? `empty in about ${Math.round(left_s)} s` : left_s > -3 ? 'empty about now' : 'later than planned';
</script>

{#snippet warm()}
  {#if warm_s > 0}
    <p class="mt-4 text-[22px]" aria-live="off" data-testid="still-warm">
      <span class="font-semibold text-hot">Still warm: {warm_s} s</span>
      <span class="text-ink2">the bulk of the solder first: half of the heat is in it already</span>
    </p>
  {/if}
{/snippet}

<div class="min-w-0" aria-live="assertive">
  {#if !target}
    <h1 class="text-[44px] leading-tight">No part chosen yet.</h1>
    <p class="mt-4 text-[24px] text-ink2">Choose the suspect first.</p>
    <a class="button mt-6" href="/jobs/{view.ticket.id}/diagnose">Diagnose</a>
  {:else if s.trouble?.sheet}
    <h1 class="text-[44px] leading-tight">{s.trouble.sheet.words?.say ?? s.trouble.sheet.title}</h1>
    {#if s.trouble.sheet.words}<p class="mt-3 text-[22px] text-ink2">{s.trouble.sheet.words.watch}</p>{/if}
    <ul
      class="mt-5 grid gap-1.5 {s.trouble.sheet.choices.length > 5 ? 'grid-cols-2' : ''}"
      aria-label={s.trouble.sheet.title}
    >
      {#each s.trouble.sheet.choices as c, i (c.label)}
        <li>
          <button
            class="flex min-h-12 w-full items-center gap-3 border px-4 text-left text-[20px] {i ===
            s.trouble?.highlighted
              ? 'border-hot bg-hot-soft font-bold'
              : 'border-line'}"
            onclick={c.choose}
            aria-current={i === s.trouble?.highlighted}
          >
            <kbd class="keycap">{c.key?.toUpperCase() ?? i + 1}</kbd>
            <span
              >{c.label}{#if c.detail}<span class="block text-[15px] font-normal text-ink2">{c.detail}</span>{/if}</span
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
        : `The heat so far is kept. Change the way in ${op === 'fit' ? 'Fit' : 'Plan'}, then begin again.`}
    </p>
    {#if s.ended.outcome === 'finished' && op === 'remove'}{@render warm()}{/if}
  {:else if !s.course || s.again}
    {#await ready then { default: RunReady }}<RunReady {view} {op} {s} {target} {demo} {letGo} />{/await}
    {#if op === 'prepare'}{@render warm()}{/if}
  {:else if s.words}
    <h1 class="text-[60px] leading-[1.08] text-balance">{s.words.say}</h1>
    <p class="mt-5 text-[26px] leading-snug text-ink2">
      {#if s.joint}
        Joint <strong class="text-ink">{s.joint}</strong>, {(s.due?.walk?.indexOf(s.joint) ?? 0) + 1} of {s.due?.walk
          ?.length}{s.turnLeft === null ? '.' : `, ${turnWords(s.turnLeft)}.`}
      {/if}
      {s.words.watch}
    </p>
    {#if s.due?.limbs}
      <dl class="mt-5 flex flex-wrap gap-x-7 gap-y-1 text-[20px]" aria-label="Hands">
        {#each LIMBS as [limb, name] (limb)}
          {#if s.due.limbs[limb]}
            <div class="flex gap-2">
              <dt class="text-ink2">{name}</dt>
              <dd>{s.due.limbs[limb]}</dd>
            </div>
          {/if}
        {/each}
      </dl>
    {/if}
    {#if op === 'prepare'}{@render warm()}{/if}
    {#if s.played?.says}<p class="mt-4 text-[20px] text-evidence">Bench: {s.played?.says}.</p>{/if}
  {/if}
</div>
