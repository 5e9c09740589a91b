<script lang="ts">
  import type { GateResult } from '@orthos/core/job';

  let { gates }: { gates: GateResult[] } = $props();
  const WORDS = {
    met: { mark: '✓', word: 'met', tone: 'text-good' },
    unmet: { mark: '▲', word: 'not met', tone: 'text-caution' },
    unknown: { mark: '?', word: 'not known', tone: 'text-ink2' },
  } as const;
</script>

<ul class="divide-y divide-faint">
  {#each gates as gate (gate.id)}
    {@const w = WORDS[gate.state]}
    <li class="flex gap-3 py-2.5">
      <span class="w-24 shrink-0 font-semibold {gate.hard && gate.state !== 'met' ? 'text-stop' : w.tone}">
        <span aria-hidden="true">{w.mark}</span>
        {w.word}
      </span>
      <span>
        <span class="font-semibold">{gate.label}</span>{#if gate.hard}<span class="text-[13px] text-ink2">
            · stops the work</span
          >{/if}
        <span class="block text-ink2">{gate.overridden ? `overridden: ${gate.overridden}` : gate.why}</span>
      </span>
    </li>
  {/each}
</ul>
