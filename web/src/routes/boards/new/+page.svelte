<script lang="ts">
  import Select from '$lib/ui/Select.svelte';
  import SizeFields from '$lib/boards/SizeFields.svelte';
  import Field from '$lib/ui/Field.svelte';
  import Form from '$lib/ui/Form.svelte';

  let { form } = $props();
</script>

<svelte:head><title>Trace a board · Orthos</title></svelte:head>

<div class="h-full overflow-auto px-8 py-7">
  <h1 class="text-[26px]">Trace a board</h1>
  <p class="mt-1 mb-6 text-ink2">A name and the size, measured with callipers or guessed: the photo can correct it.</p>
  <Form answer={form} class="grid max-w-3xl grid-cols-2 gap-x-8 gap-y-5 border border-line bg-sheet p-7">
    <Field label="Name of the board" name="name" start="">
      {#snippet control(a)}<input {...a} class="field" required maxlength="120" autocomplete="off" />{/snippet}
    </Field>
    <Field label="Field" name="field" start="" hint="consumer, automotive, industrial">
      {#snippet control(a)}<input {...a} class="field" maxlength="60" />{/snippet}
    </Field>
    <SizeFields />
    <Field label="Copper layers" name="layers" start="2" hint="dark lines in the cut edge are inner layers">
      {#snippet control(a)}
        <Select choices={['1', '2', '4', '6', '8']} {...a} />
      {/snippet}
    </Field>
    <Field label="Thickness, mm" name="thickness" start="1.6">
      {#snippet control(a)}<input {...a} class="field" required inputmode="decimal" />{/snippet}
    </Field>
    <div class="col-span-2 flex gap-3">
      <button class="button button-main">Go on to the photo</button>
      <a class="button" href="/boards">Cancel</a>
    </div>
  </Form>
</div>
