<script lang="ts" generics="T extends string">
  // One of two to four, all in sight.
  import { RadioGroup } from 'bits-ui';
  import { choicesOf, type Choices } from './choices';

  interface Props {
    choices: Choices<T>;
    value: T;
    onchange?: (value: T) => void;
    'aria-label': string;
    class?: string;
  }
  let { choices, value = $bindable(), onchange, class: size = '', ...named }: Props = $props();
  const id = $props.id();
</script>

<RadioGroup.Root
  class="flex flex-wrap gap-x-5 {size}"
  aria-label={named['aria-label']}
  bind:value={
    () => value,
    (next) => {
      value = next as T;
      onchange?.(value);
    }
  }
>
  {#each choicesOf(choices) as c (c.value)}
    <label for="{id}-{c.value}" class="flex min-h-10 items-center gap-2.5">
      <RadioGroup.Item id="{id}-{c.value}" value={c.value} disabled={c.disabled} class="tick rounded-full">
        {#if value === c.value}<span class="h-2 w-2 rounded-full bg-sheet"></span>{/if}
      </RadioGroup.Item>
      {c.label}
    </label>
  {/each}
</RadioGroup.Root>
