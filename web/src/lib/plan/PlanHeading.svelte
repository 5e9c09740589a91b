<!-- What the plan says in two sentences, or what stands in its way. -->
<script lang="ts">
  import { nameOf } from '$lib/jobs/nameOf';
  import type { BoardModel } from '@orthos/core/board';
  import type { Planned } from '@orthos/core/compare';
  import type { UnitSettings } from '@orthos/core/ground';
  import type { Method } from '@orthos/core/rework';
  import { atBench } from './ways';
  import { explanation, headline } from './words';

  interface Props {
    board: BoardModel;
    /** The part that comes off. */
    target: string;
    running: boolean;
    /** The way that is looked at. */
    shown: { id: string; result: Planned; method: Method | undefined } | undefined;
    /** No way has its tools here. */
    nothing: boolean;
    cancelled: boolean;
    units: UnitSettings;
  }
  let { board, target, running, shown, nothing, cancelled, units }: Props = $props();
</script>

{#if running && !shown}
  <h2 class="mb-1 text-xl">Computing {nameOf(board, target)}</h2>
  <p class="mb-3 text-ink2">Every way once, quickly; then the best with everything uncertain a little off.</p>
{:else if shown}
  <h2 class="mb-1 text-xl">{headline(shown.id, shown.result, board)}</h2>
  {#if running}<p class="mb-1 text-[13px] text-ink2">Others are still computed to compare it with.</p>{/if}
  <p class="mb-1 text-ink2">{shown.method ? explanation(shown.result, board, shown.method, units) : ''}</p>
  {#if shown.result.row}<p class="mb-3 font-semibold">{atBench(shown.result.row)}</p>{/if}
{:else if nothing}
  <h2 class="mb-1 text-xl">Nothing here takes {nameOf(board, target)} off</h2>
  <p class="mb-3 text-ink2">
    What it would take stands below. <a class="underline" href="/kit">List the tools</a> that are there after all, or work
    on another bench.
  </p>
{:else if cancelled}
  <h2 class="mb-1 text-xl">Cancelled</h2>
  <p class="mb-3 text-ink2">Nothing was stored.</p>
{:else}
  <h2 class="mb-1 text-xl">Plan for {nameOf(board, target)}</h2>
  <p class="mb-3 text-ink2">Not computed yet.</p>
{/if}
