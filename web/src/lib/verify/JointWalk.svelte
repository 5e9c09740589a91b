<script lang="ts">
  // Every joint looked at, one key each.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { JointMark } from '@orthos/core';

  interface Props {
    terminals: string[];
    states: ReadonlyMap<string, JointMark>;
    recorder: Recorder;
  }
  let { terminals, states, recorder }: Props = $props();
  let chosen = $state<string | null>(null);
  const SIGNS: Partial<Record<JointMark, { mark: string; tone: string }>> = {
    good: { mark: '✓', tone: 'border-good text-good' },
    bridge: { mark: '▲', tone: 'border-stop text-stop' },
    weak: { mark: '◆', tone: 'border-caution text-caution' },
  };

  // keys may come faster than the server answers: each goes to the joint it was meant for
  let queue = Promise.resolve();
  const given = $state<Record<string, JointMark>>({});
  const shown = (t: string) => given[t] ?? states.get(t);
  const due = $derived(chosen ?? terminals.find((t) => shown(t) === undefined) ?? null);
  function say(state: JointMark) {
    const terminal = due;
    if (!terminal) return;
    given[terminal] = state;
    chosen = null;
    queue = queue.then(async () => {
      if (!(await recorder.record({ type: 'joint', terminal, state }))) delete given[terminal];
    });
  }
  async function allGood() {
    for (const t of terminals) if (shown(t) === undefined) say('good');
    await queue;
  }
  useKeys('Joints', () => [
    { keys: ['g'], label: 'joint good', run: () => say('good'), line: due !== null },
    { keys: ['b'], label: 'bridge', run: () => say('bridge'), line: due !== null },
    { keys: ['w'], label: 'weak', run: () => say('weak'), line: due !== null },
  ]);
</script>

{#if terminals.length === 0}
  <p class="text-ink2">No target yet.</p>
{:else}
  <div class="flex flex-wrap gap-1" role="group" aria-label="Joints">
    {#each terminals as t (t)}
      {@const st = shown(t)}
      {@const sign = st ? SIGNS[st] : undefined}
      <button
        class="h-10 min-w-10 border px-1 text-[13px] {sign?.tone ?? 'border-line'} {t === due
          ? 'outline-2 outline-evidence'
          : ''}"
        aria-label="Joint {t}: {st ?? 'not looked at'}"
        onclick={() => (chosen = t)}><span aria-hidden="true">{sign?.mark ?? ''}</span>{t}</button
      >
    {/each}
  </div>
  <div class="mt-2 flex flex-wrap items-center gap-2">
    <p class="flex-1">
      {#if due}Joint <strong>{due}</strong>: fillet on both sides, pushed with a needle?{:else}All looked at.{/if}
    </p>
    <button class="button px-3" onclick={() => say('good')} disabled={due === null}>Good</button>
    <button class="button px-3" onclick={() => say('bridge')} disabled={due === null}>Bridge</button>
    <button class="button px-3" onclick={() => say('weak')} disabled={due === null}>Weak</button>
    {#if due}<button class="button px-3" onclick={allGood}>Rest are good</button>{/if}
  </div>
{/if}
