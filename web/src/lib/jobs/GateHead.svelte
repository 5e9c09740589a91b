<script lang="ts">
  // Heading of a panel's section with the state of its gate.
  import type { GateResult } from '@orthos/core/job';

  let { title, gate, why }: { title: string; gate: GateResult | undefined; why?: string } = $props();
  const met = $derived(gate?.state === 'met');
</script>

<h3 class="mt-5 mb-1 flex items-baseline gap-3 border-t border-line pt-3">
  <span class="shrink-0">{title}</span>
  <span
    class="ml-auto text-right text-[13px] font-semibold {met ? 'text-good' : gate?.hard ? 'text-stop' : 'text-ink2'}"
  >
    <span aria-hidden="true">{met ? '✓' : gate?.hard ? '▲' : '○'}</span>
    {gate?.overridden ? `overridden: ${gate.overridden}` : (why ?? gate?.why)}
  </span>
</h3>
