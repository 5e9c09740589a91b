<script lang="ts">
  import DateField from '$lib/ui/DateField.svelte';
  import Select from '$lib/ui/Select.svelte';
  import { NOT_HERE } from '$lib/boards/notHere';
  import SizeFields from '$lib/boards/SizeFields.svelte';
  import Field from '$lib/ui/Field.svelte';
  import Form from '$lib/ui/Form.svelte';
  import { JOB_TYPE_IDS, JOB_TYPES } from '@orthos/core/job';

  let { data, form } = $props();
  // svelte-ignore state_referenced_locally
  let model = $state(form?.values.modelId ?? data.chosen);
  // svelte-ignore state_referenced_locally
  let device = $state(form?.values.device ?? '');
</script>

<svelte:head><title>New job · Orthos</title></svelte:head>

<div class="h-full overflow-auto px-8 py-7">
  <h1 class="text-[26px]">New job</h1>
  <p class="mt-1 mb-6 text-ink2">Four answers are enough; the rest can follow later.</p>
  <Form answer={form} class="grid max-w-4xl grid-cols-2 gap-x-8 gap-y-5 border border-line bg-sheet p-7">
    <Field label="Customer" name="customer" start="">
      {#snippet control(a)}<input {...a} class="field" required maxlength="200" autocomplete="off" />{/snippet}
    </Field>
    <Field label="Phone or mail" name="contact" start="">
      {#snippet control(a)}<input {...a} class="field" maxlength="200" autocomplete="off" />{/snippet}
    </Field>
    <Field label="Device" name="device">
      {#snippet control(a)}<input {...a} class="field" bind:value={device} required maxlength="200" />{/snippet}
    </Field>
    <Field label="Serial number" name="serial" start="">
      {#snippet control(a)}<input {...a} class="field" maxlength="100" />{/snippet}
    </Field>
    <div class="col-span-2">
      <Field label="Complaint, in the owner's words" name="complaint" start="">
        {#snippet control(a)}<textarea {...a} class="field" rows="3" required maxlength="2000"></textarea>{/snippet}
      </Field>
    </div>
    <Field label="What is in the box" name="inBox" start="" hint="bare board, whole device, cables, loose parts">
      {#snippet control(a)}<input {...a} class="field" maxlength="500" />{/snippet}
    </Field>
    <Field label="Board" name="modelId">
      {#snippet control(a)}
        <Select
          {...a}
          none="choose"
          choices={[
            { value: NOT_HERE, label: 'not here yet: a name and its size' },
            ...data.models.map((m) => ({ value: m.id, label: `${m.name}, ${m.layers} layers` })),
          ]}
          bind:value={model}
        />
      {/snippet}
    </Field>
    {#if model === NOT_HERE}
      <fieldset
        class="col-span-2 grid grid-cols-[minmax(0,1fr)_120px_120px] gap-x-4 border-l-[3px] border-evidence pl-4"
      >
        <legend class="sr-only">The board that is not here yet</legend>
        <Field label="Name of the board" name="board" start="">
          {#snippet control(a)}<input {...a} class="field" placeholder={device} maxlength="120" />{/snippet}
        </Field>
        <SizeFields />
        <p class="col-span-3 mt-1 text-[13px] text-ink2">
          Roughly is enough. Trace it from a photo or read a file when there is time: this job then works on that.
        </p>
      </fieldset>
    {/if}
    <Field label="Kind of job" name="kind" start="repair">
      {#snippet control(a)}
        <Select
          choices={JOB_TYPE_IDS.filter((t) => t !== 'express').map((id) => ({
            value: id,
            label: `${JOB_TYPES[id].label}: ${JOB_TYPES[id].says}`,
          }))}
          {...a}
        />
      {/snippet}
    </Field>
    <Field label="Promised for" name="promisedOn" start="">
      {#snippet control(a)}<DateField {...a} label="Promised for" beside="elsewhere" />{/snippet}
    </Field>
    <div class="col-span-2 flex items-center gap-3">
      <button class="button button-main">Take it in</button>
      <a class="button" href="/jobs">Cancel</a>
      <a class="ml-auto text-evidence underline underline-offset-2" href="/jobs/express">Express job instead</a>
    </div>
  </Form>
</div>
