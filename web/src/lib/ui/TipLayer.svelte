<script lang="ts">
  // The words of a `tip` beside its control. Loaded by the page's frame when the first one shows.
  import { Tooltip } from 'bits-ui';
  import { hideTip, type Tip } from './tip.svelte';

  let { tip }: { tip: Tip | null } = $props();
  const id = $props.id();

  // said with the control; where a label is pointed at, with its field
  $effect(() => {
    const control = tip?.at.querySelector('input') ?? tip?.at;
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
        side="bottom"
        sideOffset={4}
        collisionPadding={8}
        class="z-70 max-w-80 rounded-sm bg-ink px-2.5 py-1.5 text-[13px] text-sheet print:hidden"
        >{tip?.words}</Tooltip.Content
      >
    </Tooltip.Portal>
  </Tooltip.Root>
</Tooltip.Provider>
