<script lang="ts">
  // What a shop never works by. Posted only once it is there: what was not asked is not changed.
  import Check from '$lib/ui/Check.svelte';
  import { METHOD_NAMES } from '@orthos/core/rework';

  let { never }: { never: readonly string[] } = $props();
</script>

<fieldset>
  <legend class="label">House rules: this shop never works by</legend>
  <input type="hidden" name="rules" value="asked" />
  <div class="grid grid-cols-2 gap-x-6">
    {#each METHOD_NAMES as [id, name] (id)}
      <Check class="text-[13px]" name="never-{id}" checked={never.includes(id)}>{name}</Check>
    {/each}
  </div>
</fieldset>
