<script lang="ts">
  // What was measured and what it ruled out, reading by reading: for the customer, and for whoever looks at it next.
  import Fold from '$lib/ui/Fold.svelte';
  import type { Netlist } from '@orthos/core/circuit';
  import type { Diagnosis } from '@orthos/core/diagnosis';
  import { modeName, probeName, shown } from './probes';
  import { percent, ruledOut } from './words';

  let { result, netlist }: { result: Diagnosis; netlist: Netlist } = $props();
</script>

{#if result.story.length > 0}
  <Fold title="How it was narrowed down" class="mt-3 border-t border-faint">
    <ol class="border-l border-line pl-3 text-[13px]">
      {#each result.story as c, i (i)}
        <li class="relative py-1">
          <span class="absolute top-3 -left-[15px] h-1.5 w-1.5 bg-evidence" aria-hidden="true"></span>
          <p>
            <b>{probeName(c, netlist.ground)}</b>
            {modeName(c)}: <b>{shown(c.type, c.value)}</b>
            <span class="float-right text-ink2">{c.first} {percent(c.p)}</span>
          </p>
          {#each c.out as o (o.mode)}<p class="text-ink2">{ruledOut(o)}</p>{:else}<p class="text-ink2">
              ruled nobody out
            </p>{/each}
        </li>
      {/each}
    </ol>
  </Fold>
{/if}
