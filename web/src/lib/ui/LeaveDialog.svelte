<script lang="ts">
  import { AlertDialog } from 'bits-ui';

  let { open, onstay, onleave }: { open: boolean; onstay: () => void; onleave: () => void } = $props();
</script>

<AlertDialog.Root bind:open={() => open, (next) => next || onstay()}>
  <AlertDialog.Portal>
    <AlertDialog.Overlay class="fixed inset-0 z-40 bg-black/40" />
    <AlertDialog.Content
      class="fixed top-1/3 left-1/2 z-50 w-[min(420px,92vw)] -translate-x-1/2 rounded-md border border-line bg-sheet p-6"
    >
      <AlertDialog.Title class="text-lg font-semibold">Not saved yet</AlertDialog.Title>
      <AlertDialog.Description class="mt-1 mb-5 text-ink2"
        >What you typed here goes when you leave.</AlertDialog.Description
      >
      <div class="flex gap-2">
        <AlertDialog.Cancel class="button button-main">Stay here</AlertDialog.Cancel>
        <button type="button" class="button" onclick={onleave}>Leave without it</button>
      </div>
    </AlertDialog.Content>
  </AlertDialog.Portal>
</AlertDialog.Root>
