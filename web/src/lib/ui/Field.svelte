<script lang="ts">
  import type { Snippet } from 'svelte';
  import { formAround } from './form';
  import Notice from './Notice.svelte';

  interface Control {
    id: string;
    name: string;
    /** Where the form keeps it: not where `start` says nothing, and the page binds it. */
    value?: string;
    'aria-describedby': string | undefined;
    'aria-invalid': true | undefined;
  }
  interface Props {
    label: string;
    /** Ties label, control and message together; also the field's name. */
    name: string;
    /** What stands in it until somebody types; without it the page binds the value itself. */
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
    ...(start === undefined ? {} : { value: posted?.value(name, start) ?? start }),
    'aria-describedby': note ? `${own}-${name}-note` : undefined,
    'aria-invalid': wrong ? true : undefined,
  })}
  {#if wrong}<Notice text={wrong} at="field" id="{own}-{name}-note" class="mt-1" />
  {:else if hint}<p id="{own}-{name}-note" class="mt-1 text-[13px] text-ink3">{hint}</p>{/if}
</div>
