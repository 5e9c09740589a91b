<script lang="ts" generics="T extends string">
  // One of a few, from a list that opens: arrows or first letters choose, Enter takes.
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { Select } from 'bits-ui';
  import { choicesOf, type Choices } from './choices';

  interface Props {
    choices: Choices<T>;
    value: T;
    onchange?: (value: T) => void;
    /** Stands above. Without it `aria-label`, or a label elsewhere for `id`, names the control. */
    label?: string;
    /** The label stands on the left instead. */
    beside?: boolean;
    /** Words of the empty value, which then can be chosen too. */
    none?: string;
    id?: string;
    /** Its name in a form that is posted. */
    name?: string;
    required?: boolean;
    disabled?: boolean;
    class?: string;
    'aria-label'?: string;
    'aria-describedby'?: string;
    'aria-invalid'?: true;
  }
  const own = $props.id();
  let {
    choices,
    value = $bindable(),
    onchange,
    label,
    beside = false,
    none,
    id = own,
    name,
    required,
    disabled,
    class: size = '',
    ...named
  }: Props = $props();

  let trigger = $state<HTMLElement | null>(null);
  const offered = $derived([...(none === undefined ? [] : [{ value: '', label: none }]), ...choicesOf(choices)]);
  const listName = $derived(
    label ?? named['aria-label'] ?? (trigger as HTMLButtonElement | null)?.labels[0]?.textContent,
  );

  export function focus() {
    trigger?.focus();
  }
</script>

<div class="min-w-0 {size} {beside ? 'flex items-center gap-2' : ''}">
  {#if label}<label class={beside ? 'whitespace-nowrap' : 'label'} for={id}>{label}</label>{/if}
  <Select.Root
    type="single"
    bind:value={
      () => value,
      (next) => {
        value = next as T;
        onchange?.(value);
      }
    }
    items={offered}
    {name}
    {required}
    {disabled}
  >
    <Select.Trigger {id} bind:ref={trigger} class="field choose" data-value={value} {...named}>
      <span class="min-w-0 flex-1 truncate">{offered.find((c) => c.value === value)?.label ?? value}</span>
      <ChevronDown class="h-4 w-4 shrink-0 text-ink3" aria-hidden="true" />
    </Select.Trigger>
    <Select.Portal>
      <Select.Content class="choices" aria-label={listName} sideOffset={2} collisionPadding={8}>
        {#each offered as c (c.value)}
          <Select.Item class="choice" value={c.value} label={c.label} disabled={'disabled' in c && c.disabled}
            >{c.label}</Select.Item
          >
        {/each}
      </Select.Content>
    </Select.Portal>
  </Select.Root>
</div>
