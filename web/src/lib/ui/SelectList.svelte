<script lang="ts" generics="T extends string">
  // The field of a `Select` with the list that opens. Loaded by it, and used by nobody else.
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { Select } from 'bits-ui';
  import type { Choice } from './choices';

  interface Props {
    offered: readonly Choice<T>[];
    value: T;
    /** Open from the start: the key or click that asked for it came before this was loaded. */
    open: boolean;
    disabled?: boolean;
    /** Attributes of the field. */
    field: { id: string; class: string; 'aria-label'?: string; 'aria-describedby'?: string; 'aria-invalid'?: true };
    listName?: string;
    shown: string;
    onchoose: (value: T) => void;
  }
  let { offered, value, open = $bindable(), disabled, field, listName, shown, onchoose }: Props = $props();

  type KeyHandler = (e: KeyboardEvent) => void;
  // the library takes the names of keys for letters of a label: "Tab" and "Shift" before the "T" of what is meant
  const isLetterless = (key: string) => ['Tab', 'Shift', 'Control', 'Alt', 'Meta', 'CapsLock'].includes(key);
</script>

<Select.Root
  type="single"
  bind:value={() => value, (next) => onchoose(next as T)}
  bind:open
  items={[...offered]}
  {disabled}
>
  <Select.Trigger {...field}>
    {#snippet child({ props })}
      <button {...props} onkeydown={(e) => isLetterless(e.key) || (props.onkeydown as KeyHandler)(e)}>
        <span class="min-w-0 flex-1 truncate">{shown}</span>
        <ChevronDown class="h-4 w-4 shrink-0 text-ink3" aria-hidden="true" />
      </button>
    {/snippet}
  </Select.Trigger>
  <Select.Portal>
    <Select.Content class="choices" aria-label={listName} align="start" sideOffset={2} collisionPadding={8}>
      {#each offered as c (c.value)}
        <Select.Item class="choice" value={c.value} label={c.label} disabled={c.disabled}>{c.label}</Select.Item>
      {/each}
    </Select.Content>
  </Select.Portal>
</Select.Root>
