<script lang="ts">
  // Something that is asked for rarely, under its title. What was typed in it stays when it is closed.
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import { Collapsible } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    title: string;
    open?: boolean;
    children: Snippet;
    /** Small print beside what it belongs to, instead of a heading of the panel. */
    quiet?: boolean;
    class?: string;
  }
  let { title, open = $bindable(false), children, quiet = false, class: size = '' }: Props = $props();
</script>

<Collapsible.Root bind:open class={size}>
  <Collapsible.Trigger
    class="flex min-h-10 items-center gap-1.5 text-left {quiet ? 'text-[13px] text-ink2' : 'font-semibold'}"
  >
    <ChevronRight class="h-4 w-4 shrink-0 {open ? 'rotate-90' : ''}" aria-hidden="true" />{title}
  </Collapsible.Trigger>
  <!-- its measured height is for animations; as an attribute the content policy would not have it -->
  <Collapsible.Content forceMount>
    {#snippet child({ props })}<div {...props} style={undefined} hidden={!open}>{@render children()}</div>{/snippet}
  </Collapsible.Content>
</Collapsible.Root>
