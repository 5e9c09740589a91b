<script lang="ts">
  // A part whose name nobody knows: count one side, lay a ruler on it.
  import { parseDecimal } from '@orthos/core/ground';
  import { packagesByLegs } from '@orthos/core/packages';
  import OneOf from '$lib/ui/OneOf.svelte';
  import PackageRow from './PackageRow.svelte';

  let { onpick }: { onpick: (id: string) => void } = $props();
  const id = $props.id();
  let sides = $state<'1' | '2' | '4'>('2');
  let legs = $state('');
  let size = $state('');

  const counted = $derived(parseDecimal(legs));
  const body = $derived(
    size
      .split(/[\s×x*]+/)
      .filter(Boolean)
      .map((s) => parseDecimal(s)),
  );
  const body_mm = $derived.by((): [number, number] | undefined => {
    const [a, b = a] = body;
    return a && b ? [a, b] : undefined;
  });
  const found = $derived(
    counted ? packagesByLegs({ legs: counted, sides: Number(sides) as 1 | 2 | 4, body_mm }, 12) : [],
  );
</script>

<OneOf
  aria-label="Where its legs are"
  choices={{ '2': 'on two sides', '4': 'on four', '1': 'in one row' }}
  bind:value={sides}
/>
<div class="mt-1 grid grid-cols-2 gap-2">
  <div>
    <label class="label" for="{id}-legs">Legs on one side</label>
    <!-- the popover was asked for -->
    <!-- svelte-ignore a11y_autofocus -->
    <input id="{id}-legs" class="field" inputmode="numeric" autocomplete="off" autofocus bind:value={legs} />
  </div>
  <div>
    <label class="label" for="{id}-size">Its body, mm</label>
    <input id="{id}-size" class="field" autocomplete="off" placeholder="10 × 10" bind:value={size} />
  </div>
</div>
<ul class="mt-2 max-h-72 overflow-auto" aria-label="Packages like it">
  {#each found as p (p.id)}
    <li>
      <button type="button" class="choice w-full px-1 text-left hover:bg-evidence-soft" onclick={() => onpick(p.id)}
        ><PackageRow id={p.id} /></button
      >
    </li>
  {:else}
    <li class="py-2 text-[13px] text-ink2" role="status">
      {legs.trim() === ''
        ? 'The side that has most of them counts. Nearest in size comes first.'
        : counted
          ? 'Nothing here has so many.'
          : `"${legs.trim()}" is no number.`}
    </li>
  {/each}
</ul>
