<script lang="ts">
  // The part that was meant, drawn, and which ways of taking it off will be computed.
  import PackageDrawing from '$lib/boards/PackageDrawing.svelte';
  import { packageById } from '@orthos/core/packages';
  import { methodName, methodsFor } from '@orthos/core/rework';

  let { id }: { id: string } = $props();
  const pkg = $derived(packageById(id));
  const methods = $derived(methodsFor(id));
</script>

<h2 class="text-lg">{pkg.label}</h2>
<p class="text-[13px] text-ink2">
  {pkg.terminals.length} joints, body {pkg.body.l} × {pkg.body.w} × {pkg.body.h} mm, ± {pkg.plusMinus.mm} mm
</p>
<div class="h-72 py-2"><PackageDrawing {id} /></div>
<h3 class="mt-2 mb-1 text-[13px] text-ink2">Computed and compared</h3>
<ul>
  {#each methods as { method, unfit } (method.id)}
    <li class="border-t border-faint py-1.5 {unfit ? 'text-ink2' : 'font-semibold'}">
      {methodName(method.id)}{#if unfit}<span class="text-[13px]">: not here, {unfit}</span>{/if}
    </li>
  {/each}
</ul>
