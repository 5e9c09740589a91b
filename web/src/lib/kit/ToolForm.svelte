<script lang="ts">
  // What a tool is, as a form.
  import { enhance } from '$app/forms';
  import Check from '$lib/ui/Check.svelte';
  import Field from '$lib/ui/Field.svelte';
  import Form from '$lib/ui/Form.svelte';
  import type { Answer } from '$lib/ui/form';
  import Select from '$lib/ui/Select.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { standingOf, type ToolView } from './tools';

  let { tool, answer }: { tool: ToolView; answer: Answer | null | undefined } = $props();
  const standing = $derived(standingOf(tool));
  const unmarked = $derived(tool.fields.some((f) => f.key === 'air' && f.value === 'unmarked'));
</script>

<Form
  {answer}
  id={tool.id}
  action="?/save"
  aria-label={tool.name}
  class="grid grid-cols-4 items-start gap-x-4 gap-y-3 pt-1 pb-4"
>
  {#snippet children({ busy, saved })}
    <input type="hidden" name="id" value={tool.id} />
    <input type="hidden" name="version" value={tool.version} />
    <TextField class="col-span-2" name="name" label="Name" start={tool.name} />
    <Field
      label="Bench"
      name="bench"
      start={tool.bench}
      hint={tool.bench === '' ? 'at hand on all of them' : undefined}
    >
      {#snippet control(a)}<input {...a} class="field" list="benches" maxlength="100" />{/snippet}
    </Field>
    <div class="pt-7">
      <Check name="outOfOrder" checked={tool.outOfOrder}>Out of order</Check>
    </div>
    {#each tool.fields as f (f.key)}
      <div class={f.wide ? 'col-span-2' : ''}>
        <Field
          label={f.unit ? `${f.label}, ${f.unit}` : f.label}
          name={f.key}
          start={f.value}
          hint={f.value === '' || f.wide ? f.hint : undefined}
        >
          {#snippet control(a)}
            {#if f.choices}<Select {...a} choices={f.choices} />
            {:else}<input {...a} class="field" maxlength="300" />{/if}
          {/snippet}
        </Field>
      </div>
    {/each}
    <div class="col-span-4 flex items-center gap-3">
      <button class="button button-main" disabled={busy}>Save</button>
      <button class="button" form="remove-{tool.id}">Take off the list</button>
      <p class="text-[13px] {standing?.tone ?? 'text-ink2'}" role="status">
        {[standing?.text, saved ? 'saved' : ''].filter(Boolean).join(', ')}{unmarked
          ? '; plans say percent of the dial, and take it as half to twice 60 L/min at full'
          : ''}
      </p>
    </div>
  {/snippet}
</Form>
<form method="POST" action="?/remove" id="remove-{tool.id}" use:enhance>
  <input type="hidden" name="id" value={tool.id} />
  <input type="hidden" name="version" value={tool.version} />
</form>
