<script lang="ts">
  // What went wrong, said where it happened, and at once to who cannot see it. Nothing where there is nothing to say.
  import type { Snippet } from 'svelte';

  interface Props {
    text?: string | null | false;
    /** Under a field, in a form or a list, at the head of a panel, read from afar in a run. */
    at?: 'field' | 'form' | 'panel' | 'run';
    tone?: 'stop' | 'caution';
    /** For `aria-describedby` of the field it speaks of. */
    id?: string;
    /** Where it stands among its neighbours. */
    class?: string;
    /** Instead of plain text. */
    children?: Snippet;
  }
  let { text, at = 'form', tone = 'stop', id, class: place = '', children }: Props = $props();

  const LOOK = {
    field: 'text-[13px] font-semibold',
    form: 'font-semibold',
    panel: 'border-l-[3px] px-3 py-1 font-semibold',
    run: 'border-l-[3px] px-4 py-2 text-[18px] font-semibold',
  } as const;
  const TONE = { stop: 'border-stop text-stop', caution: 'border-caution text-caution' } as const;
</script>

{#if text || children}
  <p {id} role="alert" class="{LOOK[at]} {TONE[tone]} {place}">
    {#if children}{@render children()}{:else}{text}{/if}
  </p>
{/if}
