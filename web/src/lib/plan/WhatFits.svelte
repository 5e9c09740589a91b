<script lang="ts">
  // The part that was meant, drawn, and which ways of taking it off will be computed.
  import PackageDrawing from '$lib/boards/PackageDrawing.svelte';
  import { packageById } from '@orthos/core/packages';
  import { type AtHand, isDoable, methodName, methodsOn } from '@orthos/core/rework';

  let { id, at }: { id: string; at: AtHand } = $props();
  const pkg = $derived(packageById(id));
  const methods = $derived(methodsOn(id, {}, at));
</script>

<h2 class="text-lg">{pkg.label}</h2>
<p class="text-[13px] text-ink2">
  {pkg.terminals.length} joints, body {pkg.body.l} × {pkg.body.w} × {pkg.body.h} mm, ± {pkg.plusMinus.mm} mm
</p>
<div class="h-72 py-2"><PackageDrawing {id} /></div>
<h3 class="mt-2 mb-1 text-[13px] text-ink2">Computed and compared</h3>
<ul>
  {#each methods as choice (choice.method.id)}
    <li class="border-t border-faint py-1.5 {isDoable(choice) ? 'font-semibold' : 'text-ink2'}">
      {methodName(choice.method.id)}{#if choice.unfit}<span class="text-[13px]">: not here, {choice.unfit}</span
        >{:else if choice.lacks}<span class="text-[13px]">: needs {choice.lacks.join(', ')}</span>{/if}
    </li>
  {/each}
</ul>
