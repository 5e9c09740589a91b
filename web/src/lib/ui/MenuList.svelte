<script lang="ts">
  // The button of a `Menu` with the list that opens. Loaded by it, and used by nobody else.
  import { DropdownMenu } from 'bits-ui';
  import type { FileChoice } from './choices';

  interface Props {
    label: string;
    choices: readonly FileChoice[];
    open: boolean;
    /** Takes the focus at once. */
    focused: boolean;
  }
  let { label, choices, open = $bindable(), focused }: Props = $props();
  let button = $state<HTMLElement | null>(null);
  $effect(() => {
    if (focused) button?.focus();
  });
</script>

<DropdownMenu.Root bind:open>
  <DropdownMenu.Trigger class="button" bind:ref={button}>{label}</DropdownMenu.Trigger>
  <DropdownMenu.Portal>
    <DropdownMenu.Content class="choices" align="end" sideOffset={2} collisionPadding={8}>
      {#each choices as { title, href } (href)}
        <DropdownMenu.Item>
          {#snippet child({ props })}<a {...props} class="choice" {href} download>{title}</a>{/snippet}
        </DropdownMenu.Item>
      {/each}
    </DropdownMenu.Content>
  </DropdownMenu.Portal>
</DropdownMenu.Root>
