<script lang="ts">
  import { Dialog } from 'bits-ui';
  import { offeredKeys, shownKeys } from './keys.svelte';

  let { open = $bindable() }: { open: boolean } = $props();
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Content
      class="fixed top-1/2 left-1/2 z-50 max-h-[80vh] w-[min(720px,92vw)] -translate-x-1/2 -translate-y-1/2 overflow-auto rounded-md border border-line bg-sheet p-6"
    >
      <Dialog.Title class="text-lg font-semibold">Keys here</Dialog.Title>
      <Dialog.Description class="mb-4 text-ink2"
        >They work while no text is being typed. Esc closes this sheet.</Dialog.Description
      >
      <div class="columns-2 gap-8">
        {#each offeredKeys() as group (group.title)}
          <section class="mb-5 break-inside-avoid">
            <h3 class="mb-1 border-b border-faint pb-1 text-[13px] text-ink2">{group.title}</h3>
            <dl>
              {#each group.keys as key (key.label)}
                <div class="flex items-center justify-between py-1">
                  <dt>{key.label}</dt>
                  <dd class="flex gap-1">
                    {#each shownKeys(key) as cap (cap)}<kbd class="keycap">{cap}</kbd>{/each}
                  </dd>
                </div>
              {/each}
            </dl>
          </section>
        {/each}
      </div>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
