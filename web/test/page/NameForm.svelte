<script lang="ts">
  import Form from '../../src/lib/ui/Form.svelte';
  import TextField from '../../src/lib/ui/TextField.svelte';
  import type { Answer } from '../../src/lib/ui/form';

  let { answer, id, ondone }: { answer: Answer | null; id?: string; ondone?: () => void } = $props();
</script>

<Form {answer} {id} {ondone}>
  {#snippet children({ busy })}
    <TextField name="customer" label="Customer" start="starts so" />
    <a href="/jobs">Cancel</a>
    <button disabled={busy}>Save</button>
  {/snippet}
</Form>
