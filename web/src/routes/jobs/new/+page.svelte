<script lang="ts">
  import { enhance } from '$app/forms';
  import Field from '$lib/ui/Field.svelte';
  import { JOB_TYPES, JOB_TYPE_IDS } from '@orthos/core';

  let { data, form } = $props();
  const value = (name: string) => String((form?.values as Record<string, unknown>)?.[name] ?? '');
  const issue = (name: string) => (form?.issues as Record<string, string> | undefined)?.[name];
</script>

<svelte:head><title>New job · Orthos</title></svelte:head>

<div class="h-full overflow-auto px-8 py-7">
  <h1 class="text-[26px]">New job</h1>
  <p class="mt-1 mb-6 text-ink2">Four answers are enough; the rest can follow later.</p>
  <form method="POST" use:enhance class="grid max-w-4xl grid-cols-2 gap-x-8 gap-y-5 border border-line bg-sheet p-7">
    <Field label="Customer" name="customer" issue={issue('customer')}>
      {#snippet control(a)}<input
          {...a}
          class="field"
          value={value('customer')}
          required
          maxlength="200"
          autocomplete="off"
        />{/snippet}
    </Field>
    <Field label="Phone or mail" name="contact" issue={issue('contact')}>
      {#snippet control(a)}<input
          {...a}
          class="field"
          value={value('contact')}
          maxlength="200"
          autocomplete="off"
        />{/snippet}
    </Field>
    <Field label="Device" name="device" issue={issue('device')}>
      {#snippet control(a)}<input {...a} class="field" value={value('device')} required maxlength="200" />{/snippet}
    </Field>
    <Field label="Serial number" name="serial" issue={issue('serial')}>
      {#snippet control(a)}<input {...a} class="field" value={value('serial')} maxlength="100" />{/snippet}
    </Field>
    <div class="col-span-2">
      <Field label="Complaint, in the owner's words" name="complaint" issue={issue('complaint')}>
        {#snippet control(a)}<textarea {...a} class="field" rows="3" required maxlength="2000"
            >{value('complaint')}</textarea
          >{/snippet}
      </Field>
    </div>
    <Field
      label="What is in the box"
      name="inBox"
      hint="bare board, whole device, cables, loose parts"
      issue={issue('inBox')}
    >
      {#snippet control(a)}<input {...a} class="field" value={value('inBox')} maxlength="500" />{/snippet}
    </Field>
    <Field label="Board model" name="modelId" issue={issue('modelId')} hint="Not there? An express job needs none.">
      {#snippet control(a)}
        <select {...a} class="field" required value={value('modelId')}>
          <option value="">choose</option>
          {#each data.models as model (model.id)}<option value={model.id}>{model.name}, {model.layers} layers</option
            >{/each}
        </select>
      {/snippet}
    </Field>
    <Field label="Kind of job" name="kind" issue={issue('kind')}>
      {#snippet control(a)}
        <select {...a} class="field" value={value('kind') || 'repair'}>
          {#each JOB_TYPE_IDS.filter((t) => t !== 'express') as id (id)}
            <option value={id}>{JOB_TYPES[id].label}: {JOB_TYPES[id].says}</option>
          {/each}
        </select>
      {/snippet}
    </Field>
    <Field label="Promised for" name="promisedOn" issue={issue('promisedOn')}>
      {#snippet control(a)}<input {...a} class="field" type="date" value={value('promisedOn')} />{/snippet}
    </Field>
    <div class="col-span-2 flex items-center gap-3">
      <button class="button button-main">Take it in</button>
      <a class="button" href="/jobs">Cancel</a>
      <a class="ml-auto text-evidence underline underline-offset-2" href="/jobs/express">Express job instead</a>
    </div>
  </form>
</div>
