<script lang="ts">
  // Yes or no, with what it means beside it.
  import Tick from '@lucide/svelte/icons/check';
  import { Checkbox } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    checked: boolean;
    onchange?: (checked: boolean) => void;
    children: Snippet;
    disabled?: boolean;
    /** Its name in a form that is posted: "on" when it is ticked. */
    name?: string;
    class?: string;
  }
  let { checked = $bindable(), onchange, children, disabled, name, class: size = '' }: Props = $props();
  const id = $props.id();
</script>

<label for={id} class="flex min-h-10 items-center gap-2.5 {size}">
  <Checkbox.Root
    {id}
    {disabled}
    class="tick"
    bind:checked={
      () => checked,
      (next) => {
        checked = next;
        onchange?.(next);
      }
    }
  >
    {#if checked}<Tick class="h-3.5 w-3.5" strokeWidth={3.5} aria-hidden="true" />{/if}
  </Checkbox.Root>
  <!-- the library's own field in a form has an inline style, which the content policy forbids -->
  {#if name && checked}<input type="hidden" {name} value="on" />{/if}
  <span class="min-w-0 flex-1">{@render children()}</span>
</label>
