<script lang="ts" module>
  import type SelectList from './SelectList.svelte';

  // what opens and places the list is as heavy as half a page: it comes when somebody reaches for the first field
  let list = $state.raw<typeof SelectList>();
  const load = async () => void (list ??= (await import('./SelectList.svelte')).default);
</script>

<script lang="ts" generics="T extends string">
  // One of a few, from a list that opens: arrows or first letters choose, Enter takes.
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { choicesOf, type Choice, type Choices } from './choices';

  interface Props {
    choices: Choices<T>;
    value?: T;
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
    disabled,
    class: size = '',
    ...named
  }: Props = $props();

  let root = $state<HTMLElement>();
  let open = $state(false);
  // nothing kept yet is the empty value
  const at = $derived(value ?? ('' as T));
  const offered = $derived<Choice<T>[]>([
    ...(none === undefined ? [] : [{ value: '' as T, label: none }]),
    ...choicesOf(choices),
  ]);
  const shown = $derived(offered.find((c) => c.value === at)?.label ?? at);
  const field = $derived({ id, class: 'field choose', 'data-value': at, ...named });

  const trigger = () => root?.querySelector('button');
  export function focus() {
    trigger()?.focus();
  }
  // the field that had the focus keeps it when the list takes its place
  let focused = false;
  /** Pressed, and not yet let go: it is meant for the list that comes in between. */
  let pressed = false;
  /** Letters of a label, typed before the list is here: it waits until they have been taken. */
  let letters = $state('');
  $effect.pre(() => {
    if (!list || letters) return;
    focused = document.activeElement === trigger();
    if (pressed) open = true;
  });
  $effect(() => {
    if (list && focused) focus();
  });
  let pause: ReturnType<typeof setTimeout> | undefined;
  function typed(letter: string) {
    letters += letter.toLowerCase();
    clearTimeout(pause);
    pause = setTimeout(() => (letters = ''), 500);
    const meant = offered.find((c) => !c.disabled && c.label.toLowerCase().startsWith(letters));
    if (meant && meant.value !== at) choose(meant.value);
  }
  function choose(next: T) {
    value = next;
    onchange?.(next);
    // for the form around, which hears only of what is typed
    root?.dispatchEvent(new Event('change', { bubbles: true }));
  }
</script>

<div class="min-w-0 {size} {beside ? 'flex items-center gap-2' : ''}" bind:this={root}>
  {#if label}<label class={beside ? 'whitespace-nowrap' : 'label'} for={id}>{label}</label>{/if}
  {#if name}<input type="hidden" {name} value={at} />{/if}
  {#if list && !letters}
    {@const List = list}
    <List
      {offered}
      value={at}
      bind:open
      {disabled}
      {field}
      listName={label ?? named['aria-label'] ?? trigger()?.labels[0]?.textContent}
      {shown}
      onchoose={(next) => choose(next as T)}
    />
  {:else}
    <button
      type="button"
      role="combobox"
      aria-haspopup="listbox"
      aria-expanded="false"
      {disabled}
      {...field}
      onpointerenter={load}
      onfocus={load}
      onpointerdown={() => (pressed = true)}
      onpointercancel={() => (pressed = false)}
      onclick={() => (open = true)}
      onkeydown={(e) => {
        if (e.key.length === 1 && !e.ctrlKey && !e.metaKey && (e.key !== ' ' || letters)) typed(e.key);
        else if (['ArrowDown', 'ArrowUp', 'Enter', ' '].includes(e.key)) open = true;
        else return;
        e.preventDefault();
      }}
    >
      <span class="min-w-0 flex-1 truncate">{shown}</span>
      <ChevronDown class="h-4 w-4 shrink-0 text-ink3" aria-hidden="true" />
    </button>
  {/if}
</div>
