<script lang="ts">
  // Puts a strip under board and panel while it is on the page.
  import { type Desk, layBelow } from '$lib/jobs/desk.svelte';
  import type { Snippet } from 'svelte';

  let { desk, strip }: { desk: Desk; strip: Snippet } = $props();
  // svelte-ignore state_referenced_locally
  layBelow(desk, strip);
</script>
