<script lang="ts">
  // A package as people say it (`qfp 44`, `0402 c`, `box 12 4 3 pbt`), or by counting its legs where nobody knows its name.
  import { tip } from '$lib/ui/tip.svelte';
  import { findPackages, packageById } from '@orthos/core/packages';
  import Ruler from '@lucide/svelte/icons/ruler-dimension-line';
  import { Combobox, Popover } from 'bits-ui';
  import { onMount } from 'svelte';
  import PackageByLegs from './PackageByLegs.svelte';
  import PackageRow from './PackageRow.svelte';

  interface Props {
    /** What is typed; after a choice the name of what was chosen. */
    text?: string;
    /** Once one is chosen from the list. */
    onpick?: (id: string) => void;
    /** Once the typing is left: what stands there may mean a package as it is. */
    onchange?: () => void;
    /** Escape, with the list closed. */
    onclose?: () => void;
    /** The shop's own packages, searched as well. */
    own?: { label: string; designation: string }[];
    /** Only what has joints that can be heated. */
    soldered?: boolean;
    focus?: boolean;
    /** Stands above. Without it `aria-label`, or a label elsewhere for `id`, names the field. */
    label?: string;
    id?: string;
    name?: string;
    required?: boolean;
    placeholder?: string;
    'aria-label'?: string;
    'aria-describedby'?: string;
    'aria-invalid'?: true;
  }
  const fresh = $props.id();
  let {
    text = $bindable(''),
    onpick,
    onchange,
    onclose,
    own = [],
    soldered = false,
    focus = false,
    label,
    id = fresh,
    placeholder = 'qfp 44, 0402 c, box 12 4 3',
    ...named
  }: Props = $props();

  let open = $state(false);
  let counting = $state(false);
  let input = $state<HTMLElement | null>(null);
  const MOST = 30;
  const found = $derived.by((): { id: string; label?: string }[] => {
    if (!open) return [];
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    const mine = own
      .filter((o) => words.length > 0 && words.every((w) => o.label.toLowerCase().includes(w)))
      .map((o) => ({ id: o.designation, label: o.label }));
    const known = findPackages(text, 2 * MOST).filter((p) => !soldered || p.terminals.length > 0);
    return [...mine, ...known.map((p) => ({ id: p.id }))].slice(0, MOST);
  });

  onMount(() => {
    if (focus) input?.focus();
  });
  function take(chosen: string) {
    counting = false;
    if (!chosen) return;
    // a designation of the shop's own was checked when it was made, but its family may have changed since
    const pkg = packageById(chosen);
    text = own.find((o) => o.designation === chosen)?.label ?? pkg.id;
    onpick?.(chosen);
    onchange?.();
  }
</script>

<div class="min-w-0">
  {#if label}<label class="label" for={id}>{label}</label>{/if}
  <div class="flex">
    <Combobox.Root type="single" bind:value={() => '', take} inputValue={text} bind:open>
      <Combobox.Input
        {id}
        bind:ref={input}
        class="field"
        autocomplete="off"
        spellcheck="false"
        {placeholder}
        {...named}
        oninput={(e) => {
          text = e.currentTarget.value;
          // also what was pasted opens the list
          open = true;
        }}
        onchange={() => onchange?.()}
        onkeydown={(e) => {
          if (e.key !== 'Escape' || open || !onclose) return;
          e.preventDefault();
          onclose();
        }}
      />
      <Combobox.Portal>
        <Combobox.Content class="choices max-w-[30rem]" aria-label="Found" sideOffset={2} collisionPadding={8}>
          {#each found as p (p.id)}
            <Combobox.Item class="choice" value={p.id} label={p.label ?? p.id}><PackageRow {...p} /></Combobox.Item>
          {:else}
            <p class="max-w-72 px-2.5 py-2 text-ink2">
              No package of that name. Count its legs (the key beside the field), or make one under Boards, Packages.
            </p>
          {/each}
        </Combobox.Content>
      </Combobox.Portal>
    </Combobox.Root>
    <Popover.Root bind:open={counting}>
      <Popover.Trigger
        class="button -ml-px shrink-0 px-2.5"
        aria-label="By its legs and size"
        {@attach tip('Nobody knows its name: by its legs and size')}
        ><Ruler size={18} aria-hidden="true" /></Popover.Trigger
      >
      <Popover.Portal>
        <Popover.Content class="choices w-96 p-3" align="end" sideOffset={2} collisionPadding={8}>
          <PackageByLegs onpick={take} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  </div>
</div>
