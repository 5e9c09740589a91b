<script lang="ts">
  import type { Snippet } from 'svelte';
  import { formAround } from './form';

  interface Control {
    id: string;
    name: string;
    value: string;
    'aria-describedby': string | undefined;
    'aria-invalid': true | undefined;
  }
  interface Props {
    label: string;
    /** Ties label, control and message together; also the field's name. */
    name: string;
    /** What stands in it until somebody types. */
    start?: string;
    hint?: string;
    /** What is wrong with it; in a posted form the server's word of it. */
    issue?: string;
    control: Snippet<[Control]>;
  }
  let { label, name, start, hint, issue, control }: Props = $props();
  const own = $props.id();
  const posted = formAround();
  const wrong = $derived(issue ?? posted?.issue(name));
  const note = $derived(wrong ?? hint);
</script>

<div>
  <label class="label" for="{own}-{name}">{label}</label>
  {@render control({
    id: `${own}-${name}`,
    name,
    value: posted?.value(name, start) ?? start ?? '',
    'aria-describedby': note ? `${own}-${name}-note` : undefined,
    'aria-invalid': wrong ? true : undefined,
  })}
  {#if note}
    <p id="{own}-{name}-note" class="mt-1 text-[13px] {wrong ? 'font-semibold text-stop' : 'text-ink3'}">{note}</p>
  {/if}
</div>
