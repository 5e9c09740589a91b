<script lang="ts">
  // Width and height of a board that is begun with a guess.
  import Field from '$lib/ui/Field.svelte';

  interface Props {
    /** What was typed before under a name, else how it starts. */
    value: (name: string, otherwise: string) => string;
    issue: (name: string) => string | undefined;
  }
  let { value, issue }: Props = $props();
  const SIZES = [
    ['width', 'Width, mm', '100'],
    ['height', 'Height, mm', '80'],
  ] as const;
</script>

{#each SIZES as [name, label, start] (name)}
  <Field {label} {name} issue={issue(name)}>
    {#snippet control(a)}<input
        {...a}
        class="field"
        value={value(name, start)}
        required
        inputmode="decimal"
      />{/snippet}
  </Field>
{/each}
