<script lang="ts">
  // What was said in passing, at the lower left, above the key line.
  import X from '@lucide/svelte/icons/x';
  import { telling } from './told.svelte';

  async function undo(t: (typeof telling.list)[number]) {
    telling.drop(t.id);
    await t.undo?.().catch((e: Error) => telling.tell(`It could not be taken back: ${e.message}`, { tone: 'stop' }));
  }
</script>

<div class="fixed bottom-12 left-[92px] z-50 max-w-md print:hidden" role="status">
  <ul class="flex flex-col gap-2">
    {#each telling.list as t (t.id)}
      <li
        class="flex items-center gap-3 border bg-sheet py-2 pr-2 pl-4 {t.tone === 'stop'
          ? 'border-stop text-stop'
          : 'border-line'}"
      >
        <span class="flex-1 {t.tone === 'stop' ? 'font-semibold' : ''}"
          ><span aria-hidden="true">{t.tone === 'stop' ? '▲' : '●'}</span> {t.text}</span
        >
        {#if t.undo}<button class="button px-3" onclick={() => undo(t)}>Take back</button>{/if}
        <button class="button px-2" aria-label="Send away" onclick={() => telling.drop(t.id)}
          ><X size={16} aria-hidden="true" /></button
        >
      </li>
    {/each}
  </ul>
</div>
