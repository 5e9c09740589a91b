<script lang="ts">
  // One line of text in a posted form.
  import Field from './Field.svelte';

  interface Props {
    label: string;
    name: string;
    start?: string;
    class?: string;
  }
  let { label, name, start = '', class: place = '' }: Props = $props();
</script>

<div class={place}>
  <Field {label} {name} {start}>
    {#snippet control(a)}<input {...a} class="field" />{/snippet}
  </Field>
</div>
