<script lang="ts">
  // Of one way, below the neighbours: joints, side effects, what matters most.
  import type { BoardModel } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import type { PlanResult } from '@orthos/core/rework';
  import Joints from './Joints.svelte';
  import Matters from './Matters.svelte';
  import SideEffects from './SideEffects.svelte';

  interface Props {
    board: BoardModel;
    result: PlanResult;
    units: UnitSettings;
    /** The tip's set-point, where a colder one can be set. */
    tip_C?: number;
    onTip: (set_C: number) => void;
  }
  let { board, result, units, tip_C, onTip }: Props = $props();
</script>

<Joints {result} {units} />
{#if result.outcomes}<SideEffects {board} {result} {units} />{/if}
<Matters {result} {units} {tip_C} {onTip} />
