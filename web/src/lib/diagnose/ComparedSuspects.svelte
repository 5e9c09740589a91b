<script lang="ts">
  // Suspects without a circuit: from what a good board reads in the same places.
  import { useDesk } from '$lib/jobs/desk.svelte';
  import { NONE, overNominal, unplugFirst } from '@orthos/core/diagnosis';
  import { compareReading, formatReading } from '@orthos/core/ground';
  import { compared } from './comparing';
  import type { Circuit, DiagnoseView } from './view';
  import { percent } from './words';

  interface Props {
    view: DiagnoseView;
    /** What the ranking knows; what is off lies outside of it, or there is none. */
    circuit: Circuit | null;
    onConvict: (partId: string, why: string) => void;
  }
  let { view, circuit, onConvict }: Props = $props();
  const desk = useDesk();
  /** Comparing alone never makes surer than this. */
  const MOST = 0.95;
  const found = $derived(compared(view));
  const plug = $derived(unplugFirst(view.board, found.readings));
  /** A rail over its nominal, as far as good boards say what that is; the last reading of a net counts. */
  const tooHigh = $derived.by(() => {
    const last = new Map(found.readings.filter((r) => r.quantity === 'dcv').map((r) => [r.net, r]));
    for (const { net, value, good } of last.values()) {
      const said = typeof value === 'number' && typeof good === 'number' ? overNominal(net, value, good) : null;
      if (said) return said;
    }
    return null;
  });
  /** What is off and does not speak for the first of them. */
  const unexplained = $derived.by(() => {
    const [first] = found.suspects;
    const at = found.readings.findIndex(
      (r, i) =>
        ['low', 'high'].includes(compareReading(r.value, r.good, r.quantity) ?? '') && !first?.speaksFor.includes(i),
    );
    return at < 0 || !first || first.ref === NONE ? null : `${says([at])}, and ${first.ref} does not explain it`;
  });
  const top = $derived(found.suspects.filter((s, i) => i < 6 && s.p > 0.02));
  /** A place on no net goes by its part. */
  const called = (net: string) => {
    const part = view.board.parts.find((p) => p.partId === net);
    return part ? (part.ref ?? part.partId) : net;
  };
  const says = (indices: number[]) =>
    indices
      .slice(0, 2)
      .map((i) => {
        const r = found.readings[i];
        return `${called(r.net)} reads ${formatReading(r.value, r.quantity)}, a good board ${formatReading(r.good, r.quantity)}`;
      })
      .join('; ');
</script>

{#if found.readings.length > 0}
  <section aria-label={circuit ? 'Outside of the circuit' : 'Suspects'}>
    <h3 class="mt-5 mb-1 text-[13px] text-ink2">
      {circuit
        ? 'What is off lies outside of the circuit; from good-board readings alone'
        : 'Suspects, from good-board readings alone'}
    </h3>
    {#if plug}<p class="border-t border-faint py-2 font-semibold">
        Unplug {plug} and read the low lines again first: it may be what hangs on them.
      </p>{/if}
    {#each top as s (s.partId || s.ref)}
      <div class="border-t border-faint py-2">
        <div class="flex items-baseline gap-2">
          <span class="text-base font-bold">{s.ref}</span>
          <span class="min-w-0 flex-1 truncate text-ink2"
            >{view.board.parts.find((p) => p.partId === s.partId)?.what ?? ''}</span
          >
          <span class="text-base font-bold {s === top[0] && unexplained ? 'text-caution' : ''}"
            >{s === top[0] && unexplained ? 'in doubt' : percent(Math.min(s.p, MOST))}</span
          >
        </div>
        {#if s.ref !== NONE}
          {#if s.speaksFor.length}<p class="text-[13px]"><b>For:</b> {says(s.speaksFor)}</p>{/if}
          <p class="text-[13px] text-ink2"><b>Against:</b> {says(s.against) || 'nothing yet'}</p>
          {#if s === top[0] && unexplained}<p class="text-[13px] font-semibold text-caution">
              ▲ Not convicted yet: {unexplained}.
            </p>{/if}
          {#if (s === top[0] && !unexplained) || desk.selected === s.partId}
            <button
              type="button"
              class="button mt-1"
              onclick={() => onConvict(s.partId, says(s.speaksFor) || 'the likeliest on its line')}
              >{s === top[0] && !unexplained ? `Convict ${s.ref}` : `Overrule: ${s.ref} it is`}</button
            >
          {/if}
        {/if}
      </div>
    {/each}
    {#if tooHigh}<p class="mt-2 text-[13px]">
        <span class="font-semibold text-stop">■ Not under power again:</span>
        {tooHigh}.
      </p>{/if}
    <p class="mt-1 text-[13px] text-ink2">
      {circuit ? 'Take it into the circuit' : 'Draw the circuit'} to know what each fault would read, and what to measure
      next.
    </p>
  </section>
{/if}
