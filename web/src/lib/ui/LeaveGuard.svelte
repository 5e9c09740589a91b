<script lang="ts">
  // Asks before a page is left on which something is typed and not saved.
  import { beforeNavigate, goto } from '$app/navigation';
  import type LeaveDialog from './LeaveDialog.svelte';
  import { dropUnsaved, isUnsaved } from './unsaved.svelte';

  let Dialog = $state.raw<typeof LeaveDialog>();
  let to = $state.raw<URL | null>(null);

  beforeNavigate((navigation) => {
    if (!isUnsaved() || navigation.type === 'form') return;
    navigation.cancel();
    // a window that is closed, or another site: the browser asks in its own words
    if (navigation.willUnload) return;
    const url = navigation.to?.url ?? null;
    import('./LeaveDialog.svelte').then(
      (m) => {
        Dialog = m.default;
        to = url;
      },
      // without a server nothing is left
      () => {},
    );
  });
  function leave() {
    const url = to;
    to = null;
    dropUnsaved();
    if (url) void goto(url);
  }
</script>

{#if Dialog}<Dialog open={to !== null} onstay={() => (to = null)} onleave={leave} />{/if}
