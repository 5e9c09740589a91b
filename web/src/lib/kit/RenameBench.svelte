<script lang="ts">
  // Another name for a bench, wherever it is spoken of.
  import Form from '$lib/ui/Form.svelte';
  import type { Answer } from '$lib/ui/form';
  import TextField from '$lib/ui/TextField.svelte';

  let { answer, bench }: { answer: Answer | null | undefined; bench: string } = $props();
</script>

<Form {answer} id="rename" action="?/rename" aria-label="Rename {bench}" class="flex flex-wrap items-start gap-3">
  {#snippet children({ busy })}
    <input type="hidden" name="from" value={bench} />
    <TextField class="w-60" name="to" label="New name of {bench}" start={bench} />
    <div class="pt-[22px]"><button class="button" disabled={busy}>Rename</button></div>
  {/snippet}
</Form>
