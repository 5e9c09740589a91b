<script lang="ts" generics="State extends string">
  // Every joint or land of the part looked at, one key each.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import type { JobEventBody } from '@orthos/core/job';

  interface Choice {
    state: State;
    key: string;
    label: string;
    mark: string;
    tone: 'good' | 'caution' | 'stop';
  }
  interface Props {
    noun: 'joint' | 'land';
    question: string;
    terminals: string[];
    states: ReadonlyMap<string, State>;
    /** The first is the good one. */
    choices: Choice[];
    event: (terminal: string, state: State) => JobEventBody;
    recorder: Recorder;
  }
  let { noun, question, terminals, states, choices, event, recorder }: Props = $props();
  const TONES = {
    good: 'border-good text-good',
    caution: 'border-caution text-caution',
    stop: 'border-stop text-stop',
  };

  let chosen = $state<string | null>(null);
  // keys may come faster than the server answers: each goes to the one it was meant for
  let queue = Promise.resolve();
  const given = $state<Record<string, State>>({});
  const shown = (t: string) => given[t] ?? states.get(t);
  const due = $derived(chosen ?? terminals.find((t) => shown(t) === undefined) ?? null);
  function say(state: State) {
    const terminal = due;
    if (!terminal) return;
    given[terminal] = state;
    chosen = null;
    queue = queue.then(async () => {
      if (!(await recorder.record(event(terminal, state)))) delete given[terminal];
    });
  }
  function restGood() {
    for (const t of terminals) if (shown(t) === undefined) say(choices[0].state);
  }
  useKeys('Joints and lands', () =>
    choices.map((c) => ({
      keys: [c.key],
      label: `${noun} ${c.label.toLowerCase()}`,
      run: () => say(c.state),
      line: due !== null,
    })),
  );
</script>

{#if terminals.length === 0}
  <p class="text-ink2">No target yet.</p>
{:else}
  <div class="flex flex-wrap gap-1" role="group" aria-label="{noun}s">
    {#each terminals as t (t)}
      {@const st = shown(t)}
      {@const choice = choices.find((c) => c.state === st)}
      <button
        class="h-10 min-w-10 border px-1 text-[13px] {choice ? TONES[choice.tone] : 'border-line'} {t === due
          ? 'outline-2 outline-evidence'
          : ''}"
        aria-label="{noun} {t}: {choice?.label.toLowerCase() ?? 'not looked at'}"
        onclick={() => (chosen = t)}><span aria-hidden="true">{choice?.mark ?? ''}</span>{t}</button
      >
    {/each}
  </div>
  <div class="mt-2 flex flex-wrap items-center gap-2">
    <p class="w-full">
      {#if due}{noun === 'joint' ? 'Joint' : 'Land'} <strong>{due}</strong>: {question}{:else}All looked at.{/if}
    </p>
    {#each choices as c (c.state)}
      <button class="button px-3" onclick={() => say(c.state)} disabled={due === null}>{c.label}</button>
    {/each}
    {#if due}<button class="button px-3" onclick={restGood}>Rest are good</button>{/if}
  </div>
{/if}
