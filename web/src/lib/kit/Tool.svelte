<script lang="ts">
  // One tool of a bench: a line of what it is, and its form when it is opened.
  import type { Answer } from '$lib/ui/form';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import { standingOf, type ToolView } from './tools';

  let { tool, answer, benches }: { tool: ToolView; answer: Answer | null | undefined; benches: string[] } = $props();
  let open = $state(false);
  /** Opened once, it stays: what was typed is there when it is opened again. */
  let opened = $state(false);
  const standing = $derived(standingOf(tool));
  const id = $props.id();
</script>

<div class="border-t border-faint px-3">
  <button
    type="button"
    class="flex min-h-9 w-full items-center gap-1.5 text-left"
    aria-expanded={open}
    aria-controls={id}
    onclick={() => ([open, opened] = [!open, true])}
  >
    <ChevronRight class="h-4 w-4 shrink-0 {open ? 'rotate-90' : ''}" aria-hidden="true" />
    <span class="font-semibold">{tool.name}</span>
    {#if !open}
      <span class="ml-auto min-w-0 truncate text-right text-[13px] text-ink2">
        {tool.line}{tool.bench === '' && benches.length > 0 ? ' · on every bench' : ''}
        {#if standing}<span class="ml-2 {standing.tone}">{standing.text}</span>{/if}
      </span>
    {/if}
  </button>
  <div {id} hidden={!open}>
    {#if opened}
      {#await import('./ToolForm.svelte') then { default: ToolForm }}<ToolForm {tool} {answer} />{/await}
    {/if}
  </div>
</div>
