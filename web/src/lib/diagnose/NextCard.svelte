<script lang="ts">
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  // The reading that tells most per minute: where, how, what each suspect would show.
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { isPowered, type Netlist, rangeOf } from '@orthos/core/circuit';
  import type { Diagnosis, Swap } from '@orthos/core/diagnosis';
  import { few, type Measured, type Place, UNITS } from '@orthos/core/ground';
  import type { JobEventBody } from '@orthos/core/job';
  import type { DiagnoseView } from './view';
  import { askMeter, sourceOf } from './askMeter';
  import { standing } from './question';
  import {
    modeName,
    otherPlaceOf,
    placeOfProbe,
    probeKey,
    placeWords,
    probeName,
    QUANTITY_OF,
    readTyped,
    shown,
  } from './probes';
  import { SPLIT } from './words';

  interface Props {
    view: DiagnoseView;
    netlist: Netlist;
    result: Diagnosis;
    record: (body: JobEventBody) => Promise<boolean>;
    /** Goes to the millivolts along a rail; null where none of theirs is known. */
    onRail: (net: string | null) => void;
    /** Goes to where a sight is noted. */
    onLook: () => void;
    /** Goes to where it is said how the board was without a part. */
    onWithout: (way: Swap) => void;
  }
  let { view, netlist, result, record, onRail, onLook, onWithout }: Props = $props();
  const desk = useDesk();
  let skipped = $state(0);
  let value = $state('');
  let problem = $state('');
  let asking = $state(false);
  let input = $state<HTMLInputElement>();

  /** What is advised and has not been read meanwhile: the ranking follows a moment later. */
  const offered = $derived.by(() => {
    const taken = new Set(standing(stateOf(view.events)).flatMap((r) => (r.probe ? [probeKey(r.probe)] : [])));
    return result.next.filter((t) => !taken.has(probeKey(t)));
  });
  const next = $derived(offered.at(Math.min(skipped, offered.length - 1)));
  const place = $derived(next ? placeOfProbe(next, view.board, netlist, desk.place) : null);
  $effect(() => {
    void result;
    skipped = 0;
  });
  const other = $derived(next && place ? otherPlaceOf(next, view.board, netlist, place) : null);
  layOver(desk, () => {
    if ((result.done && group.length > 1) || !place) return {};
    return {
      probes: { next: place, ...(other && next ? { other: { place: other, red: next.red === netlist.ground } } : {}) },
    };
  });
  const group = $derived(result.groups[0] ?? []);
  /** The net that all of the group stand on. */
  const rail = $derived.by(() => {
    const nets = group.flatMap((ref) => {
      const part = netlist.parts.find((p) => p.ref === ref);
      return part ? [new Set(Object.values(part.pins))] : [];
    });
    const [first] = nets;
    return [...(first ?? [])].find((net) => net !== netlist.ground && nets.every((own) => own.has(net))) ?? null;
  });
  /** Every way to split them opens where it is done. */
  function split(how: keyof typeof SPLIT): void {
    if (how === 'look') onLook();
    else if (how === 'profile' || how === 'warmth') onRail(rail);
    else onWithout(how === 'lift' ? 'leg lifted' : 'good board');
  }
  const skip = () => (skipped = (skipped + 1) % Math.max(1, offered.length));
  useKeys('Diagnose', () => [
    { keys: ['s'], label: 'skip, next best', run: skip, line: true },
    { keys: ['n'], label: 'type the reading', run: () => input?.focus(), line: true },
    { keys: ['m', 'PageDown'], label: 'read the meter', run: () => void fromMeter(), line: true, shown: ['M'] },
  ]);

  type Asked = Diagnosis['next'][number];
  /** `asked` and `at` as they were when the reading was taken: the advice may have gone on meanwhile. */
  async function store(
    asked: Asked,
    at: Place,
    measured: Measured,
    by: { meter?: string; simulated?: true } = {},
  ): Promise<boolean> {
    const { type, red, black, state } = asked;
    return record({
      type: 'reading',
      place: at,
      quantity: QUANTITY_OF[type],
      value: measured,
      good: null,
      powered: isPowered(type),
      probe: { type, red, black, state, range: rangeOf(type, measured), ...by },
    });
  }
  async function enter(event: SubmitEvent) {
    event.preventDefault();
    if (!next || !place) return;
    const read = readTyped(value, next.type);
    if ('problem' in read) return (problem = read.problem);
    problem = '';
    if (await store(next, place, read.value)) {
      value = '';
      input?.focus();
    }
  }
  async function fromMeter() {
    if (!next || !place || asking) return;
    const [asked, at] = [next, place];
    asking = true;
    try {
      const answer = await askMeter(view.ticket.id, asked);
      problem = '';
      await store(asked, at, answer.value, sourceOf(answer));
    } catch (e) {
      problem = (e as Error).message;
    } finally {
      asking = false;
    }
  }
  const words = (e: NonNullable<typeof next>['expects'][number], type: NonNullable<typeof next>['type']) => {
    if (e.from === e.to || e.from === 'OL') return shown(type, e.value);
    return `${shown(type, e.from)} to ${shown(type, e.to)}`;
  };
</script>

{#if result.done && group.length > 1}
  <section class="border-l-[3px] border-evidence bg-evidence-soft p-4" aria-label="Split the suspects">
    <p class="text-[13px] text-ink2">No meter reading tells these apart</p>
    <h2 class="text-xl leading-tight">{few(group)}: split them</h2>
    <ol class="mt-1 list-inside list-decimal">
      {#each result.group_shares[0].splits as s (s.how)}
        <li>
          <button
            type="button"
            class="min-h-6 underline decoration-line underline-offset-4"
            onclick={() => split(s.how)}>{SPLIT[s.how]}</button
          >, <span class="text-ink2">about {s.minutes} min</span>
        </li>
      {/each}
    </ol>
  </section>
{:else if next && place}
  <form onsubmit={enter} class="border-l-[3px] border-evidence bg-evidence-soft p-4" aria-label="Next reading">
    <p class="text-[13px] text-ink2">
      {result.done ? 'Could still be measured' : 'Measure next, tells most per minute'}
    </p>
    <h2 class="text-xl leading-tight">
      {probeName(next, netlist.ground)}, {modeName(next)}
      <span class="text-base font-normal text-ink2"
        >{placeWords(view.board, place)}{other
          ? `, ${next.red === netlist.ground ? 'red' : 'black'} ${placeWords(view.board, other)}`
          : ''}</span
      >
    </h2>
    <p class="mt-1 flex flex-wrap gap-x-3 text-[13px]">
      <span class="whitespace-nowrap"
        ><span class="text-ink2">healthy →</span>
        <span class="font-semibold text-good">{shown(next.type, next.healthy)}</span></span
      >
      {#each next.expects as e (e.ref)}
        <span class="whitespace-nowrap"
          ><span class="text-ink2">{e.ref} →</span> <span class="font-semibold">{words(e, next.type)}</span></span
        >
      {/each}
    </p>
    <div class="mt-2 flex flex-wrap items-center gap-2">
      <input
        class="field w-28 text-lg font-semibold"
        bind:value
        bind:this={input}
        aria-label="Next reading, {UNITS[QUANTITY_OF[next.type]]}"
        placeholder="4k7"
        autocomplete="off"
        aria-describedby={problem ? 'p-next' : undefined}
      />
      <span class="text-ink2">{UNITS[QUANTITY_OF[next.type]]}</span>
      <button type="button" class="button ml-auto" onclick={fromMeter} disabled={asking}>Meter</button>
      <button type="button" class="button" onclick={skip} disabled={offered.length < 2}>Skip</button>
      <button class="button button-main">Enter</button>
    </div>
    <Notice text={problem} at="field" id="p-next" class="mt-1" />
    {#if isPowered(next.type)}
      <p class="mt-2 text-[13px] font-semibold text-caution">
        ▲ Under power: current limit set, the power gate lapses with this reading.
      </p>
    {/if}
  </form>
{:else}
  <p class="border-l-[3px] border-evidence bg-evidence-soft p-4">Every reading of this circuit has been taken.</p>
{/if}
