<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    label: string;
    /** Ties label, control and message together; also the field's name. */
    name: string;
    hint?: string;
    issue?: string;
    control: Snippet<
      [{ id: string; name: string; 'aria-describedby': string | undefined; 'aria-invalid': true | undefined }]
    >;
  }
  let { label, name, hint, issue, control }: Props = $props();
  const note = $derived(issue ?? hint);
</script>

<div>
  <label class="label" for="f-{name}">{label}</label>
  {@render control({
    id: `f-${name}`,
    name,
    'aria-describedby': note ? `f-${name}-note` : undefined,
    'aria-invalid': issue ? true : undefined,
  })}
  {#if note}
    <p id="f-{name}-note" class="mt-1 text-[13px] {issue ? 'font-semibold text-stop' : 'text-ink3'}">{note}</p>
  {/if}
</div>
