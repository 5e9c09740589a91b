<script lang="ts">
  // When each joint lets go, as a range, what it melts at, and where the heat of the last one goes.
  import Fold from '$lib/ui/Fold.svelte';
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import { type PlanResult, wetAt } from '@orthos/core/rework';

  let { result, units }: { result: PlanResult; units: UnitSettings } = $props();

  /** "12 to 18 s", or that it may or will stay solid. */
  function when(terminal: string): string {
    const joint = result.joints.find((j) => j.terminal === terminal);
    const range = result.jointRanges_s?.find((r) => r.terminal === terminal);
    const t = joint ? wetAt(joint) : null;
    if (!range) return t === null ? 'stays solid' : `${Math.round(t)} s`;
    if (range.from === null) return 'stays solid';
    if (range.to === null) return `from ${Math.round(range.from)} s, may stay solid`;
    return `${Math.round(range.from)} to ${Math.round(range.to)} s`;
  }
  const ordered = $derived(
    [...result.joints].sort((a, b) => (wetAt(a) ?? Infinity) - (wetAt(b) ?? Infinity) || a.peak_C - b.peak_C),
  );
  const degrees = (C: number | undefined) => (C === undefined ? '' : formatTemperature(C, units));
  const paths = $derived.by(() => {
    const p = result.last?.paths;
    if (!p) return [];
    return [
      { name: 'tool', W: p.tool_W },
      { name: 'air', W: p.air_W },
      { name: 'body', W: p.body_W },
      { name: 'board', W: p.board_W },
    ].filter((q) => Math.abs(q.W) >= 0.005);
  });
</script>

<Fold title="Each joint, and where the last one’s heat goes" quiet class="mt-4">
  {#if paths.length > 0}
    <p class="py-1">
      Joint {result.last?.terminal} just before it melts:
      {#each paths as p, n (p.name)}{n > 0 ? ', ' : ' '}<span class="font-semibold"
          >{p.W > 0 ? '+' : '−'}{Math.abs(p.W).toFixed(2)} W</span
        >
        {p.name}{/each}.
    </p>
  {/if}
  <table class="w-full" aria-label="Each joint">
    <thead class="text-[13px] text-ink2">
      <tr
        ><th class="text-left font-normal">Joint</th><th class="text-left font-normal">comes loose</th><th
          class="text-right font-normal">melts</th
        ><th class="text-right font-normal">at most</th></tr
      >
    </thead>
    <tbody>
      {#each ordered as j (j.terminal)}
        <tr class="border-t border-faint">
          <th scope="row" class="py-1 text-left font-semibold">{j.terminal}</th>
          <td>{when(j.terminal)}</td>
          <td class="text-right text-ink2"
            >{j.solidus_C === undefined ? '' : `${degrees(j.solidus_C).split(' ')[0]} to ${degrees(j.liquidus_C)}`}</td
          >
          <td class="text-right">{degrees(j.peak_C)}</td>
        </tr>
      {/each}
    </tbody>
  </table>
</Fold>
