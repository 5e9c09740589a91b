<script lang="ts" generics="T extends string">
  // Parts of a panel, one shown at a time.
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    tabs: Record<T, string>;
    at: T;
    /** Stands at the end of the line. */
    children?: Snippet;
  }
  let { label, tabs, at = $bindable(), children }: Props = $props();
</script>

<div role="group" aria-label={label} class="-mt-2 mb-3 flex flex-wrap">
  {#each Object.entries(tabs) as [id, title] (id)}
    <button
      type="button"
      aria-pressed={at === id}
      class="h-10 border-b-2 px-2.5 {at === id ? 'border-evidence font-semibold' : 'border-transparent text-ink2'}"
      onclick={() => (at = id as T)}>{title}</button
    >
  {/each}
  {@render children?.()}
</div>
