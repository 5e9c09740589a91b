<script lang="ts">
  // A bench by what usually lies on one of its kind; a new one gets a name first.
  import Field from '$lib/ui/Field.svelte';
  import Form from '$lib/ui/Form.svelte';
  import type { Answer } from '$lib/ui/form';
  import Select from '$lib/ui/Select.svelte';
  import TextField from '$lib/ui/TextField.svelte';

  interface Props {
    answer: Answer | null | undefined;
    presets: Record<string, string>;
    label: string;
    /** The bench that is listed; empty: a new one. */
    name: string;
  }
  let { answer, presets, label, name }: Props = $props();
</script>

<Form {answer} id="bench" action="?/list" aria-label={label} class="flex flex-wrap items-start gap-3">
  {#snippet children({ busy })}
    {#if name}<input type="hidden" name="name" value={name} />
    {:else}<TextField class="w-44" name="name" label="Name" />{/if}
    <div class="w-80">
      <Field label="What is on it" name="kind" start="air">
        {#snippet control(a)}<Select {...a} choices={presets} />{/snippet}
      </Field>
    </div>
    <div class="pt-[22px]"><button class="button" disabled={busy}>{label}</button></div>
  {/snippet}
</Form>
