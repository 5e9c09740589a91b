<script lang="ts" generics="T extends string">
  // Parts of a panel, one shown at a time; arrow keys go from one to the next while one of the tabs has the focus.
  import { Tabs } from 'bits-ui';
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    tabs: Record<T, string>;
    at: T;
    /** What the tab that is open shows. */
    panel: Snippet;
    /** Stands at the end of the line. */
    end?: Snippet;
    /** Of the whole, of the line of tabs, and of what the open one shows. */
    class?: string;
    bar?: string;
    body?: string;
  }
  let { label, tabs, at = $bindable(), panel, end, class: size, bar = '-mt-2 mb-3', body }: Props = $props();
</script>

<Tabs.Root class={size} bind:value={() => at, (next) => (at = next as T)}>
  <div class="flex flex-wrap {bar}">
    <Tabs.List aria-label={label} class="flex flex-wrap">
      {#each Object.entries(tabs) as [id, title] (id)}
        <Tabs.Trigger
          value={id}
          class="h-10 border-b-2 border-transparent px-2.5 text-ink2 data-[state=active]:border-evidence data-[state=active]:font-semibold data-[state=active]:text-ink"
          >{title}</Tabs.Trigger
        >
      {/each}
    </Tabs.List>
    {@render end?.()}
  </div>
  <Tabs.Content value={at} class={body}>{@render panel()}</Tabs.Content>
</Tabs.Root>
