<script lang="ts">
  // What pedal and keys do now, as buttons for a hand that is free.
  import { tip } from '$lib/ui/tip.svelte';
  import { stepLabel } from '$lib/jobs/words';
  import type { Step } from '@orthos/core/hands';
  import type { Operation } from '@orthos/core/rework';
  import { HOLD_MS } from './pedal';
  import { NEXT_STEP, type RunSession } from './session.svelte';

  interface Props {
    s: RunSession;
    op: Operation;
    /** Another window leads the run. */
    follows: boolean;
    /** The pedal is down. */
    held: boolean;
    onDown: () => void;
    onUp: () => void;
    onForget: () => void;
  }
  let { s, op, follows, held, onDown, onUp, onForget }: Props = $props();
</script>

<footer
  inert={follows}
  class="{follows
    ? 'opacity-40'
    : ''} flex items-center gap-5 border-t border-line pt-4 text-[17px] whitespace-nowrap xl:gap-6 xl:text-[19px]"
>
  <button
    class="flex min-h-12 touch-none items-center gap-3 border px-4 select-none {held
      ? 'border-hot bg-hot-soft'
      : 'border-line'}"
    onpointerdown={(e) => {
      e.preventDefault();
      onDown();
    }}
    onpointerup={onUp}
    onpointercancel={onForget}
    {@attach tip(`Tap: go on. Hold ${HOLD_MS / 1000} s: something is wrong.`)}
  >
    <kbd class="keycap text-[15px]">Space</kbd>
    <strong>
      {s.trouble?.sheet
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
  {#if s.course && !s.ended && !s.trouble?.sheet}
    <button class="flex min-h-12 items-center gap-2" onclick={() => s.hold()}>
      <kbd class="keycap text-[15px]">X</kbd> <span class="text-ink2">or hold: something is wrong</span>
    </button>
  {/if}
  {#if s.course}
    <button class="flex min-h-12 items-center gap-2" onclick={() => s.back()}>
      <kbd class="keycap text-[15px]">Backspace</kbd> <span class="text-ink2">back</span>
    </button>
  {/if}
  {#if s.joint && !s.trouble?.sheet}
    {#each [['2', 'stuck', 'stuck'], ['3', 'skip', 'skipped']] as const as [key, word, state] (key)}
      <button class="flex min-h-12 items-center gap-2" onclick={() => s.walk(state)}>
        <kbd class="keycap text-[15px]">{key}</kbd> <span class="text-ink2">{word}</span>
      </button>
    {/each}
  {/if}
  {#if s.due?.tries && !s.joint && !s.trouble?.sheet && !s.ended}
    <button class="flex min-h-12 items-center gap-2" onclick={() => s.oneHolds()}>
      <kbd class="keycap text-[15px]">2</kbd> <span class="text-ink2">one holds</span>
    </button>
  {/if}
  {#if s.ended && !s.again}
    <button class="flex min-h-12 items-center gap-2" onclick={() => (s.again = true)}>
      <kbd class="keycap text-[15px]">N</kbd> <span class="text-ink2">once more</span>
    </button>
  {/if}
  <p class="ml-auto hidden truncate text-ink2 xl:block">
    {s.next && !s.ended && !s.trouble?.sheet ? `then: ${s.next.say}` : ''}
  </p>
</footer>
