<script lang="ts">
  // Of one way, below the neighbours: alloy, joints, side effects, what matters most.
  import { SOLDER_ALLOYS } from '@orthos/core/alloys';
  import type { BoardModel, PlacedPart } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import { alloyLaid, type Method, type PlanResult } from '@orthos/core/rework';
  import type { PlanInputs } from '$lib/jobs/view';
  import Fold from '$lib/ui/Fold.svelte';
  import Alloy from './Alloy.svelte';
  import Joints from './Joints.svelte';
  import Matters from './Matters.svelte';
  import SideEffects from './SideEffects.svelte';

  interface Props {
    inputs: PlanInputs;
    board: BoardModel;
    target: PlacedPart;
    method: Method;
    result: PlanResult;
    units: UnitSettings;
    /** The tip's set-point, where a colder one can be set. */
    tip_C?: number;
    onTip: (set_C: number) => void;
  }
  let { inputs, board, target, method, result, units, tip_C, onTip }: Props = $props();

  let slowFast = $state(false);
  let approach = $state(false);

  const laid = $derived.by(() => {
    const own = SOLDER_ALLOYS.get(board.jointAlloy);
    return own ? alloyLaid(method, target.package, own.wt, Math.min(...result.joints.map((j) => j.peak_C))) : null;
  });
</script>

<Fold title="Slow or fast" class="mt-3" bind:open={slowFast}>
  {#if slowFast}
    {#key method}
      {#await import('./SlowFast.svelte') then { default: SlowFast }}
        <SlowFast {board} {inputs} {method} units={inputs.panel} />
      {/await}
    {/key}
  {/if}
</Fold>
<Fold title="From where, and how to hold it" bind:open={approach}>
  {#if approach}
    {#key method}
      {#await import('./Approach.svelte') then { default: Approach }}
        <Approach {board} {target} {inputs} {method} />
      {/await}
    {/key}
  {/if}
</Fold>
{#if laid}<Alloy {laid} {units} />{/if}
<Joints {result} {units} />
{#if result.outcomes}<SideEffects {board} {result} {units} />{/if}
<Matters {result} {units} {tip_C} {onTip} />
