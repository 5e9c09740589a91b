<script lang="ts">
  import { offeredKeys, shownKeys } from './keys.svelte';

  let { onHelp }: { onHelp: () => void } = $props();
  const line = $derived(
    offeredKeys()
      .reverse()
      .flatMap((g) => g.keys)
      .filter((k) => k.line),
  );
</script>

<footer
  class="flex h-8 items-center gap-5 overflow-hidden border-t border-line bg-bench px-3.5 text-[13px] whitespace-nowrap text-ink2 print:hidden"
>
  <!-- newest first: where there is no room for all, the keys of what one is doing stay -->
  <div
    class="flex [height:1.9rem] min-w-0 flex-1 flex-wrap items-center gap-x-5 gap-y-2 self-start overflow-hidden pt-1"
  >
    {#each line as key (key.label)}
      <span class="flex items-center gap-1.5">
        {#each shownKeys(key) as cap (cap)}<kbd class="keycap">{cap}</kbd>{/each}
        {key.label}
      </span>
    {/each}
  </div>
  <button type="button" class="flex items-center gap-1.5 self-start pt-1" onclick={onHelp}>
    <kbd class="keycap">?</kbd> all keys
  </button>
</footer>
