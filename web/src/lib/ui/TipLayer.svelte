<script lang="ts">
  // The words of a `tip` beside its control. Loaded by the page's frame when the first one shows.
  import { Tooltip } from 'bits-ui';
  import { hideTip, type Tip } from './tip.svelte';

  let { tip }: { tip: Tip | null } = $props();
  const id = $props.id();

  /** The field of a label that is pointed at; its words stand above, where the next label is not hidden while one types. */
  const field = $derived(tip?.at.querySelector('input'));
  // said with the control
  $effect(() => {
    const control = field ?? tip?.at;
    if (!control || control.hasAttribute('aria-describedby')) return;
    control.setAttribute('aria-describedby', id);
    return () => control.removeAttribute('aria-describedby');
  });
</script>

<Tooltip.Provider disableHoverableContent>
  <Tooltip.Root bind:open={() => tip !== null, (next) => next || hideTip()}>
    <Tooltip.Portal>
      <Tooltip.Content
        {id}
        role="tooltip"
        customAnchor={tip?.at ?? null}
        side={field ? 'top' : 'bottom'}
        sideOffset={4}
        collisionPadding={8}
        class="z-70 max-w-80 rounded-sm bg-ink px-2.5 py-1.5 text-[13px] text-sheet print:hidden"
        >{tip?.words}</Tooltip.Content
      >
    </Tooltip.Portal>
  </Tooltip.Root>
</Tooltip.Provider>
