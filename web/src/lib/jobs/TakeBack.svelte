<script lang="ts">
  import { tip } from '$lib/ui/tip.svelte';
  import Undo2 from '@lucide/svelte/icons/undo-2';

  let { what, onclick }: { what: string; onclick: () => void } = $props();
</script>

<button
  type="button"
  class="grid h-9 w-9 place-items-center text-ink3 hover:text-ink"
  {@attach tip('Take it back')}
  aria-label="Take back: {what}"
  {onclick}
>
  <Undo2 size={16} aria-hidden="true" />
</button>
