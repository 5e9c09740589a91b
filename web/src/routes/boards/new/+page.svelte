<script lang="ts">
  import Select from '$lib/ui/Select.svelte';
  import { enhance } from '$app/forms';
  import SizeFields from '$lib/boards/SizeFields.svelte';
  import Field from '$lib/ui/Field.svelte';

  let { form } = $props();
  const value = (name: string, otherwise = '') =>
    String((form?.values as Record<string, unknown> | undefined)?.[name] ?? otherwise);
  const issue = (name: string) => (form?.issues as Record<string, string> | undefined)?.[name];
</script>

<svelte:head><title>Trace a board · Orthos</title></svelte:head>

<div class="h-full overflow-auto px-8 py-7">
  <h1 class="text-[26px]">Trace a board</h1>
  <p class="mt-1 mb-6 text-ink2">A name and the size, measured with callipers or guessed: the photo can correct it.</p>
  <form method="POST" use:enhance class="grid max-w-3xl grid-cols-2 gap-x-8 gap-y-5 border border-line bg-sheet p-7">
    <Field label="Name of the board" name="name" issue={issue('name')}>
      {#snippet control(a)}<input
          {...a}
          class="field"
          value={value('name')}
          required
          maxlength="120"
          autocomplete="off"
        />{/snippet}
    </Field>
    <Field label="Field" name="field" issue={issue('field')} hint="consumer, automotive, industrial">
      {#snippet control(a)}<input {...a} class="field" value={value('field')} maxlength="60" />{/snippet}
    </Field>
    <SizeFields {value} {issue} />
    <Field
      label="Copper layers"
      name="layers"
      issue={issue('layers')}
      hint="dark lines in the cut edge are inner layers"
    >
      {#snippet control(a)}
        <Select choices={['1', '2', '4', '6', '8']} {...a} value={value('layers', '2')} />
      {/snippet}
    </Field>
    <Field label="Thickness, mm" name="thickness" issue={issue('thickness')}>
      {#snippet control(a)}<input
          {...a}
          class="field"
          value={value('thickness', '1.6')}
          required
          inputmode="decimal"
        />{/snippet}
    </Field>
    <div class="col-span-2 flex gap-3">
      <button class="button button-main">Go on to the photo</button>
      <a class="button" href="/boards">Cancel</a>
    </div>
  </form>
</div>
