<script lang="ts">
  // Width and height of a board that is begun with a guess.
  import Field from '$lib/ui/Field.svelte';

  const SIZES = [
    ['width', 'Width, mm', '100'],
    ['height', 'Height, mm', '80'],
  ] as const;
</script>

{#each SIZES as [name, label, start] (name)}
  <Field {label} {name} {start}>
    {#snippet control(a)}<input {...a} class="field" required inputmode="decimal" />{/snippet}
  </Field>
{/each}
