<script lang="ts">
  import { page } from '$app/state';
  import { CALCULATORS } from '$lib/calculate/places';

  let { children } = $props();
</script>

<div class="h-full overflow-auto px-8 pt-5 pb-7">
  <nav class="mb-5 flex flex-wrap border-b border-line" aria-label="Calculators">
    {#each CALCULATORS as { href, name } (href)}
      {@const here = page.url.pathname === href}
      <a
        {href}
        aria-current={here ? 'page' : undefined}
        class="flex h-10 items-center border-b-2 px-4 {here
          ? 'border-evidence font-semibold'
          : 'border-transparent text-ink2'}">{name}</a
      >
    {/each}
  </nav>
  {@render children()}
  <p class="mt-6 text-[13px] text-ink2">
    The address holds the numbers: copy it to share the case. For a board and a job of its own there is the <a
      class="text-evidence underline"
      href="/jobs/express">express job</a
    >.
  </p>
</div>
