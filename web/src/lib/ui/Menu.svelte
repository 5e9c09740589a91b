<script lang="ts" module>
  import type MenuList from './MenuList.svelte';

  let list = $state.raw<typeof MenuList>();
  const load = async () => void (list ??= (await import('./MenuList.svelte')).default);
</script>

<script lang="ts">
  // A button that opens a list of files to save. What opens and places the list comes when somebody reaches for it.
  import type { FileChoice } from './choices';

  interface Props {
    label: string;
    choices: readonly FileChoice[];
  }
  let { label, choices }: Props = $props();
  let open = $state(false);
  let button = $state<HTMLButtonElement>();
  /** The button had the focus when its place was taken. */
  let focused = $state(false);
  /** Pressed, and not yet let go: it is meant for the list that comes in between. */
  let pressed = false;
  $effect.pre(() => {
    if (!list) return;
    focused = button !== undefined && document.activeElement === button;
    if (pressed) open = true;
  });
</script>

{#if list}
  {@const List = list}
  <List {label} {choices} bind:open {focused} />
{:else}
  <button
    type="button"
    class="button"
    aria-haspopup="menu"
    aria-expanded="false"
    bind:this={button}
    onpointerenter={load}
    onfocus={load}
    onpointerdown={() => (pressed = true)}
    onpointercancel={() => (pressed = false)}
    onclick={() => {
      open = true;
      void load();
    }}>{label}</button
  >
{/if}
