<script lang="ts">
  // A package by typing: `soic 8`, `0603 c`, `box 12 4 3 pbt`. Arrows choose, Enter takes.
  import { findPackages, packageById, type PackageModel } from '@orthos/core/packages';
  import { onMount } from 'svelte';

  interface Props {
    label: string;
    onpick: (id: string) => void;
    onclose?: () => void;
    /** The shop's own packages, searched as well. */
    own?: { label: string; designation: string }[];
    focus?: boolean;
    text?: string;
  }
  let { label, onpick, onclose, own = [], focus = true, text = $bindable('') }: Props = $props();
  let at = $state(0);
  let input = $state<HTMLInputElement>();
  const id = $props.id();

  const found = $derived.by((): { id: string; title: string; hint: string }[] => {
    const words = text.toLowerCase().split(/\s+/).filter(Boolean);
    const mine = own
      .filter((o) => words.length > 0 && words.every((w) => o.label.toLowerCase().includes(w)))
      .map((o) => ({ id: o.designation, title: o.label, hint: 'own' }));
    return [...mine, ...findPackages(text, 30).map((p) => ({ id: p.id, title: p.label, hint: hintOf(p) }))].slice(
      0,
      30,
    );
  });
  const hintOf = (p: PackageModel) =>
    `${p.body.l} × ${p.body.w} × ${p.body.h}${p.terminals.length ? `, ${p.terminals.length} joints` : ''}`;

  onMount(() => {
    if (focus) input?.focus();
  });
  function take(n: number) {
    const chosen = found[n];
    if (!chosen) return;
    // a designation of the shop's own was checked when it was made, but its family may have changed since
    packageById(chosen.id);
    onpick(chosen.id);
  }
  function onkeydown(e: KeyboardEvent) {
    if (e.key === 'ArrowDown') at = Math.min(found.length - 1, at + 1);
    else if (e.key === 'ArrowUp') at = Math.max(0, at - 1);
    else if (e.key === 'Enter') take(at);
    else if (e.key === 'Escape') onclose?.();
    else return;
    e.preventDefault();
    e.stopPropagation();
  }
</script>

<div class="relative">
  <input
    bind:this={input}
    bind:value={text}
    class="field"
    role="combobox"
    aria-label={label}
    aria-expanded={text.trim() !== ''}
    aria-controls="{id}-list"
    aria-activedescendant={found.length ? `${id}-${at}` : undefined}
    autocomplete="off"
    spellcheck="false"
    placeholder="soic 8, 0603 c, box 12 4 3 pbt"
    oninput={() => (at = 0)}
    {onkeydown}
  />
  {#if text.trim() !== ''}
    <ul
      id="{id}-list"
      role="listbox"
      aria-label="Packages found"
      class="max-h-64 overflow-auto border border-t-0 border-line bg-sheet"
    >
      {#each found as p, n (p.id)}
        <li
          id="{id}-{n}"
          role="option"
          aria-selected={n === at}
          class="flex min-h-10 cursor-pointer items-center gap-3 px-2.5 {n === at ? 'bg-evidence-soft' : ''}"
          onpointerdown={(e) => {
            e.preventDefault();
            take(n);
          }}
        >
          <span class="font-semibold">{p.title}</span>
          <span class="ml-auto text-[13px] text-ink2">{p.hint}</span>
        </li>
      {:else}
        <li class="px-2.5 py-2 text-ink2">No package of that name. Make one under Boards, Packages.</li>
      {/each}
    </ul>
  {/if}
</div>
