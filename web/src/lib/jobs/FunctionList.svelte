<script lang="ts">
  import { stateOf } from '$lib/jobs/stateOf';
  // What the device can do, tried before the work and again after it.
  import type { JobView } from '$lib/jobs/view';
  import { COMPLAINT } from '@orthos/core/job';
  import { pinsOf } from '@orthos/core/prove';
  import type { Recorder } from './recorder.svelte';

  let { view, recorder, when }: { view: JobView; recorder: Recorder; when: 'before' | 'after' | 'closed' } = $props();
  const functions = $derived(stateOf(view.events).functions);
  /** What the nets of the part speak of is tried first, after the complaint. */
  const near = $derived.by(() => {
    const target = when === 'before' ? undefined : view.board.parts.find((p) => p.partId === view.inputs?.target);
    const pins = Object.entries(target?.nets ?? {}).map(([terminal, net]) => ({ terminal, net }));
    return new Set([...functions.keys()].filter((n) => pinsOf(n, pins).length > 0));
  });
  const names = $derived([
    ...(when === 'before' ? [] : [COMPLAINT]),
    ...[...functions.keys()].filter((n) => n !== COMPLAINT && near.has(n)),
    ...[...functions.keys()].filter((n) => n !== COMPLAINT && !near.has(n)),
  ]);
  let name = $state('');
  const STATES = ['works', 'dead', 'not tried'] as const;
  const word = (n: string, s: (typeof STATES)[number]) =>
    n === COMPLAINT ? { works: 'gone', dead: 'still there', 'not tried': 'not tried' }[s] : s;

  async function add(event: SubmitEvent) {
    event.preventDefault();
    if (!name.trim()) return (recorder.problem = 'Name a function: display, buttons, left motor.');
    if (await recorder.record({ type: 'function', name: name.trim(), when, state: 'not tried' })) name = '';
  }
</script>

<ul aria-label={when === 'closed' ? 'Functions, closed again' : `Functions ${when} the work`}>
  {#each names as n (n)}
    {@const tried = functions.get(n)}
    <li class="flex flex-wrap items-center gap-2 border-t border-faint py-1" aria-label={n}>
      <span class="min-w-0 flex-1">
        <span class="font-semibold first-letter:uppercase">{n}</span>
        {#if n === COMPLAINT}<span class="block truncate text-[13px] text-ink2">{view.ticket.complaint}</span>
        {:else if when !== 'before' && tried?.before}<span class="block text-[13px] text-ink2"
            >{near.has(n) ? 'near the work; ' : ''}before: {tried.before}{when === 'closed' && tried.after
              ? `, open: ${tried.after}`
              : ''}</span
          >{/if}
      </span>
      {#each STATES as s (s)}
        <button
          class="button px-2.5 {tried?.[when] === s ? 'button-main' : ''}"
          aria-pressed={tried?.[when] === s}
          onclick={() => recorder.record({ type: 'function', name: n, when, state: s })}>{word(n, s)}</button
        >
      {/each}
    </li>
  {/each}
</ul>
<form onsubmit={add} class="mt-1 flex gap-2" aria-label="Another function, {when}">
  <input class="field" bind:value={name} placeholder="another function" aria-label="Function" maxlength="120" />
  <button class="button">Add</button>
</form>
