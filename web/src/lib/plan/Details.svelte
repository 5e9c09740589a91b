<script lang="ts">
  // Of one way, below the neighbours: alloy, joints, side effects, what matters most.
  import { SOLDER_ALLOYS } from '@orthos/core/alloys';
  import type { BoardModel, PlacedPart } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import { alloyLaid, type Method, type PlanResult } from '@orthos/core/rework';
  import Alloy from './Alloy.svelte';
  import Joints from './Joints.svelte';
  import Matters from './Matters.svelte';
  import SideEffects from './SideEffects.svelte';

  interface Props {
    board: BoardModel;
    target: PlacedPart;
    method: Method;
    result: PlanResult;
    units: UnitSettings;
    /** The tip's set-point, where a colder one can be set. */
    tip_C?: number;
    onTip: (set_C: number) => void;
  }
  let { board, target, method, result, units, tip_C, onTip }: Props = $props();

  const laid = $derived.by(() => {
    const own = SOLDER_ALLOYS.get(board.jointAlloy);
    return own ? alloyLaid(method, target.package, own.wt, Math.min(...result.joints.map((j) => j.peak_C))) : null;
  });
</script>

{#if laid}<Alloy {laid} {units} />{/if}
<Joints {result} {units} />
{#if result.outcomes}<SideEffects {board} {result} {units} />{/if}
<Matters {result} {units} {tip_C} {onTip} />
