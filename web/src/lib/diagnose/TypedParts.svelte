<script lang="ts">
  // A circuit by hand: parts as they are typed, one a line.
  import Fold from '$lib/ui/Fold.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { groundOf, type Netlist, withTyped } from '@orthos/core/circuit';
  import type { CircuitEditor } from './circuitEditor.svelte';
  import type { DiagnoseView } from './view';

  let { view, netlist, editor }: { view: DiagnoseView; netlist: Netlist | null; editor: CircuitEditor } = $props();
  const EXAMPLE = 'feed 12V 12 1\nU1 VIN=12V SW=SW FB=FB GND buck .8\nL1 SW 3V3 60m\nR1 3V3 FB 31k6\nC1 3V3 GND 22u';
  let text = $state('');
  let problem = $state('');

  async function add(event: SubmitEvent) {
    event.preventDefault();
    let made: Netlist;
    try {
      made = withTyped(netlist, text, groundOf(view.board));
    } catch (e) {
      problem = (e as Error).message;
      return;
    }
    problem = '';
    await (netlist ? editor.save(made) : editor.begin('By hand', made));
    if (!editor.problem) text = '';
  }
</script>

<Fold title="Type parts" class="mt-3">
  <form onsubmit={add} aria-label="Typed parts">
    <textarea
      class="field h-28 font-mono text-[13px]"
      bind:value={text}
      aria-label="Parts, one a line"
      placeholder={EXAMPLE}
      spellcheck="false"
      aria-describedby={problem ? 'p-typed' : undefined}></textarea>
    <p class="text-[13px] text-ink2">
      Name, nets, figure. Pins by name: VIN=12V. What it works as: buck, boost, ldo, opamp, buf. A name that is there is
      replaced.
    </p>
    <Notice text={problem} at="field" id="p-typed" />
    <button class="button mt-2" disabled={editor.busy || text.trim() === ''}
      >{netlist ? 'Add them' : 'Begin with them'}</button
    >
  </form>
</Fold>
