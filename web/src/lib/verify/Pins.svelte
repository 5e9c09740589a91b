<script lang="ts">
  // One pair of points after the other: neighbours apart, legs through to their tracks.
  import Notice from '$lib/ui/Notice.svelte';
  import { askMeter } from '$lib/diagnose/askMeter';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { parseReading } from '@orthos/core/ground';
  import { proofWords } from '@orthos/core/prove';
  import type { PinWalk } from './pinWalk.svelte';

  interface Props {
    view: JobView;
    pins: PinWalk;
    recorder: Recorder;
  }
  let { view, pins, recorder }: Props = $props();
  const due = $derived(pins.due?.proof ?? null);
  let typed = $state('');
  let asking = $state(false);
  /** About what was typed. It has a place of its own: readings still on their way must not take it away. */
  let wrong = $state<string | null>(null);

  function enter(event: SubmitEvent) {
    event.preventDefault();
    const ohm = parseReading(typed);
    if (ohm === null || (ohm !== 'OL' && ohm < 0)) return (wrong = 'Ohms such as 2k3, .4, or OL.');
    wrong = null;
    pins.say({ ohm });
    typed = '';
  }
  async function ask() {
    if (!due?.net) return;
    const black = due.kind === 'apart' ? due.toNet : due.net;
    if (black === undefined) return;
    asking = true;
    try {
      const { value, simulated } = await askMeter(view.ticket.id, { type: 'ohm', red: due.net, black, state: null });
      recorder.problem = null;
      pins.say({ ohm: value, ...(simulated ? { simulated } : {}) });
    } catch (e) {
      recorder.problem = (e as Error).message;
    } finally {
      asking = false;
    }
  }
  const TONES = { unmet: 'text-stop', unknown: 'text-caution' } as const;
</script>

<p class="text-[13px] text-ink2">No power, capacitors empty.</p>
{#if due}
  <h4 class="text-lg font-semibold" aria-live="polite">
    {due.kind === 'apart' ? 'Apart' : 'Through'}: {proofWords(view.board, due)}
  </h4>
  <p class="text-[13px] text-ink2">
    {due.kind === 'apart'
      ? 'Between both legs, not on the solder.'
      : 'From the leg, not from the land, to where its track goes.'}
    {#if due.linkedBy}{due.linkedBy} lies between.{/if}
  </p>
  <form class="mt-2 flex flex-wrap gap-2" onsubmit={enter} aria-label="Reading">
    <button
      type="button"
      class="button px-3"
      onclick={() => pins.say({ said: due.kind === 'apart' ? 'silent' : 'beeps' })}
      >{due.kind === 'apart' ? 'Silent' : 'Beeps'}</button
    >
    <button
      type="button"
      class="button px-3"
      onclick={() => pins.say({ said: due.kind === 'apart' ? 'beeps' : 'silent' })}
      >{due.kind === 'apart' ? 'Beeps' : 'Silent'}</button
    >
    <input class="field w-24" bind:value={typed} placeholder="or Ω" aria-label="Ohms between them" />
    <button class="button px-3">Enter</button>
    {#if due.kind === 'apart' && due.net && due.toNet}
      <button type="button" class="button px-3" onclick={ask} disabled={asking}>Ask the meter</button>
    {/if}
  </form>
  <Notice text={wrong} class="mt-2" />
  <button class="button mt-2 px-3" onclick={() => pins.restUsual()}
    >{due.kind === 'apart' ? 'All others are silent' : 'All others beep'}</button
  >
{:else}
  <p class="font-semibold {pins.off.length > 0 ? 'text-caution' : 'text-good'}">
    <span aria-hidden="true">{pins.off.length > 0 ? '◆' : '✓'}</span> All {pins.proofs.length} measured.
  </p>
{/if}
{#each pins.off as { proof, verdict } (proof.key)}
  <button
    class="flex w-full gap-3 border-b border-faint py-1 text-left"
    onclick={() => pins.go(proof)}
    aria-label="{proofWords(view.board, proof)}: {verdict.why}"
  >
    <span class="font-semibold {TONES[verdict.state === 'unmet' ? 'unmet' : 'unknown']}"
      ><span aria-hidden="true">{verdict.state === 'unmet' ? '▲' : '◆'}</span> {proofWords(view.board, proof)}</span
    >
    <span class="min-w-0 flex-1 text-right text-[13px]">{verdict.why}</span>
  </button>
{/each}
