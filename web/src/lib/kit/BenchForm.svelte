<script lang="ts">
  // A bench by what usually lies on one of its kind, a new one with a name first; or another name for one that is there.
  import Field from '$lib/ui/Field.svelte';
  import Form from '$lib/ui/Form.svelte';
  import type { Answer } from '$lib/ui/form';
  import Select from '$lib/ui/Select.svelte';
  import TextField from '$lib/ui/TextField.svelte';

  interface Props {
    answer: Answer | null | undefined;
    /** Kinds of bench to list it by; none: it only gets another name. */
    presets?: Record<string, string>;
    label: string;
    /** The bench that is listed or renamed; empty: a new one. */
    name: string;
  }
  let { answer, presets, label, name }: Props = $props();
  const id = $derived(presets ? 'bench' : 'rename');
</script>

<Form
  {answer}
  {id}
  action={presets ? '?/list' : '?/rename'}
  aria-label={label}
  class="flex flex-wrap items-start gap-3"
>
  {#snippet children({ busy })}
    {#if name}<input type="hidden" name={presets ? 'name' : 'from'} value={name} />{/if}
    {#if !presets}<TextField class="w-60" name="to" label="New name of {name}" start={name} />
    {:else}
      {#if !name}<TextField class="w-44" name="name" label="Name" />{/if}
      <div class="w-80">
        <Field label="What is on it" name="kind" start="air">
          {#snippet control(a)}<Select {...a} choices={presets} />{/snippet}
        </Field>
      </div>
    {/if}
    <div class="pt-[22px]"><button class="button" disabled={busy}>{label}</button></div>
  {/snippet}
</Form>
