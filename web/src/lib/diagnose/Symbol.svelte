<script lang="ts">
  // One part of a circuit, drawn with its top left corner at 0, 0.
  import type { DrawnNode } from './layOutSchematic';

  let { node }: { node: DrawnNode } = $props();
  // parts with two ends are drawn lying and turned when they hang
  const twoEnds = $derived(!['IC', 'J', 'M', 'Q'].includes(node.kind));
  const turn = $derived(node.hanging ? 'translate(14 0) rotate(90)' : 'translate(0 14)');
  const length = $derived(node.hanging ? node.h : node.w);
  const mid = $derived(length / 2);
  const anodeFirst = $derived(!node.hanging || node.ports[0].pin === 'A' || node.ports[0].pin === '1');
</script>

{#if twoEnds}
  <g transform={turn} fill="none" stroke="var(--drawn)" stroke-width="1.6">
    {#if node.kind === 'R' || node.kind === 'F'}
      <path d="M0 0H{mid - 15}M{mid + 15} 0H{length}" />
      <rect x={mid - 15} y="-6" width="30" height="12" />
      {#if node.kind === 'F'}<path d="M{mid - 15} 0H{mid + 15}" />{/if}
    {:else if node.kind === 'FB'}
      <path d="M0 0H{mid - 13}M{mid + 13} 0H{length}" />
      <rect x={mid - 13} y="-6" width="26" height="12" fill="var(--faint)" />
    {:else if node.kind === 'L' || node.kind === 'RLY'}
      <path d="M0 0H{mid - 18}a6 6 0 0 1 12 0a6 6 0 0 1 12 0a6 6 0 0 1 12 0H{length}" />
      {#if node.kind === 'RLY'}<rect x={mid - 22} y="-9" width="44" height="13" stroke-dasharray="3 2" />{/if}
    {:else if node.kind === 'C'}
      <path d="M0 0H{mid - 3}M{mid + 3} 0H{length}" />
      <path d="M{mid - 3} -10V10M{mid + 3} -10V10" stroke-width="2.2" />
    {:else}
      <g transform={anodeFirst ? '' : `translate(${length} 0) scale(-1 1)`}>
        <path d="M0 0H{length}" />
        <path d="M{mid - 8} -8L{mid + 7} 0L{mid - 8} 8Z" fill="var(--sheet)" />
        <path d="M{mid + 7} -9V9" stroke-width="2.2" />
        {#if node.kind === 'Z' || node.kind === 'ZB'}<path d="M{mid + 7} -9h5M{mid + 7} 9h-5" />{/if}
      </g>
    {/if}
  </g>
{:else if node.kind === 'M'}
  <path
    d="M0 28H16M16 14V42M22 12V20M22 24V32M22 36V44M22 16H34V0M22 40H34V56M22 28H34V40"
    fill="none"
    stroke="var(--drawn)"
    stroke-width="1.8"
  />
{:else if node.kind === 'Q'}
  <path d="M0 28H18M18 14V42M18 22L34 10V0M18 34L34 46V56" fill="none" stroke="var(--drawn)" stroke-width="1.8" />
{:else}
  <rect width={node.w} height={node.h} fill="var(--part)" stroke="var(--drawn)" stroke-width="1.6" />
  {#each node.ports as p (p.pin)}
    {#if p.side === 'WEST'}<text x="6" y={p.y + 4} class="fill-ink2 text-[11px]">{p.pin}</text>
    {:else if p.side === 'EAST'}<text x={node.w - 6} y={p.y + 4} text-anchor="end" class="fill-ink2 text-[11px]"
        >{p.pin}</text
      >
    {:else}<text x={p.x} y={node.h - 5} text-anchor="middle" class="fill-ink2 text-[11px]">{p.pin}</text>{/if}
  {/each}
{/if}
