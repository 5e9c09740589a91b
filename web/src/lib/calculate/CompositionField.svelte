<script lang="ts">
  // An alloy by its composition, typed or picked from the library; what it hurts stands below.
  import { ALLOY_LIBRARY, hazardsOf, readComposition } from '@orthos/core/alloys';

  interface Props {
    label: string;
    value: string;
    onchange?: () => void;
  }
  let { label, value = $bindable(), onchange }: Props = $props();
  const id = $props.id();
  const wt = $derived(readComposition(value));
  const hazards = $derived(wt ? hazardsOf(wt) : []);
</script>

<div>
  <label class="label" for={id}>{label}</label>
  <input
    {id}
    class="field"
    list="{id}-library"
    bind:value
    {onchange}
    maxlength="80"
    autocomplete="off"
    aria-invalid={wt ? undefined : true}
    aria-describedby="{id}-note"
  />
  <datalist id="{id}-library"
    >{#each ALLOY_LIBRARY as a (a.id)}<option value={a.id}>{a.says}</option>{/each}</datalist
  >
  <div id="{id}-note" class="mt-1 text-[13px]">
    {#if !wt}<p class="font-semibold text-stop">Elements with their percent: Sn96.5Ag3Cu0.5</p>{/if}
    {#each hazards as h (h.element)}<p class={h.refused ? 'font-semibold text-stop' : 'text-caution'}>
        ▲ {h.says}
      </p>{/each}
  </div>
</div>
