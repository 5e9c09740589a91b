<script lang="ts">
  // Which run this is, whether its marks are kept, whether power is gone, how loud the cues are.
  import Volume2 from '@lucide/svelte/icons/volume-2';
  import MessageSquare from '@lucide/svelte/icons/message-square';
  import MessageSquareOff from '@lucide/svelte/icons/message-square-off';
  import VolumeX from '@lucide/svelte/icons/volume-x';
  import type { JobView } from '$lib/jobs/view';
  import { partName } from '@orthos/core/board';
  import type { Operation } from '@orthos/core/rework';
  import type { CueSettings } from './cues';
  import { outbox } from './outbox.svelte';
  import { OP_NAMES, type RunSession } from './session.svelte';

  interface Props {
    view: JobView;
    op: Operation;
    s: RunSession;
    /** Whether this page would open again without the server; unknown while the worker takes it. */
    kept: boolean | undefined;
    cues: CueSettings;
    onMute: () => void;
    onVolume: (volume: number) => void;
    onTalk: () => void;
  }
  let { view, op, s, kept, cues, onMute, onVolume, onTalk }: Props = $props();
  const box = outbox();

  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  const power = $derived(s.gates.find((g) => g.id === 'power-gone'));
  const count = $derived(s.course?.list.length ?? 0);
  const waiting = $derived(box.waiting.length);
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
</script>

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
    {power?.state === 'met' ? '✓ power gone' : power?.overridden ? '▲ power gate overridden' : '▲ power not shown gone'}
  </p>
  <div class="w-20">
    {#await import('$lib/ui/Slider.svelte') then { default: Slider }}
      <Slider aria-label="Volume" max={1} step={0.1} value={cues.muted ? 0 : cues.volume} onchange={onVolume} />
    {/await}
  </div>
  <button
    class="grid h-10 w-10 place-items-center"
    onclick={onTalk}
    aria-pressed={cues.spoken}
    aria-label="Speak what is told"
  >
    {#if cues.spoken}<MessageSquare size={22} />{:else}<MessageSquareOff size={22} />{/if}
  </button>
  <button class="grid h-10 w-10 place-items-center" onclick={onMute} aria-label={cues.muted ? 'Sound on' : 'Sound off'}>
    {#if cues.muted}<VolumeX size={22} />{:else}<Volume2 size={22} />{/if}
  </button>
</header>
