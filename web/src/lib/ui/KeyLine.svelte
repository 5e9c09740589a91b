<script lang="ts">
  import { offeredKeys, shownKeys } from './keys.svelte';

  let { onHelp }: { onHelp: () => void } = $props();
  const line = $derived(
    offeredKeys()
      .flatMap((g) => g.keys)
      .filter((k) => k.line),
  );
</script>

<footer
  class="flex h-8 items-center gap-5 overflow-hidden border-t border-line bg-bench px-3.5 text-[13px] whitespace-nowrap text-ink2 print:hidden"
>
  {#each line as key (key.label)}
    <span class="flex items-center gap-1.5">
      {#each shownKeys(key) as cap (cap)}<kbd class="keycap">{cap}</kbd>{/each}
      {key.label}
    </span>
  {/each}
  <button type="button" class="ml-auto flex items-center gap-1.5" onclick={onHelp}>
    <kbd class="keycap">?</kbd> all keys
  </button>
</footer>
