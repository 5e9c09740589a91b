<script lang="ts">
  import { tip } from '$lib/ui/tip.svelte';
  import PackagePick from '$lib/boards/PackagePick.svelte';
  import Check from '$lib/ui/Check.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { fromAddress, keepInAddress } from '$lib/calculate/address';
  import { Calculator } from '$lib/calculate/calculator.svelte';
  import CompositionField from '$lib/calculate/CompositionField.svelte';
  import Curve from '$lib/calculate/Curve.svelte';
  import { type AlloyAmount, readComposition } from '@orthos/core/alloys';
  import { formatTemperature, parseDecimal, toCelsius } from '@orthos/core/ground';
  import { readPackage } from '@orthos/core/packages';
  import { solderOf } from '@orthos/core/rework';
  import { onDestroy } from 'svelte';

  let { data } = $props();
  const START = {
    pkg: '',
    times: '1',
    joint: 'Sn96.5Ag3Cu0.5',
    mg: '12',
    alloy: 'Bi52.5Pb32Sn15.5',
    target: '150',
    mixing: '0.75',
    wire: '1',
    rows: '10 10',
    hold: '5',
    peak: '230',
    leadfree: '',
  };
  type Key = keyof typeof START;
  let v = $state(fromAddress<Key>(START));
  const FIELDS: [Key, string, string][] = [
    ['mg', 'Solder in all joints, mg', ''],
    ['target', 'Fluid from, °', ''],
    ['mixing', 'Part that really mixes', '0.5 to 0.8 in one pass, 0.8 to 0.95 with flux and two'],
    ['wire', 'Wire, mm', ''],
    ['rows', 'Rows to bead along, mm', 'lengths with a space between; empty: no bead'],
    ['hold', 'Movable after the heat, s', 'empty: not asked'],
    ['peak', 'Joints then at, °', ''],
  ];
  /** The package that the milligrams are of. */
  let taken = $state(v.pkg);
  const named = $derived(v.pkg.trim() === '' ? null : readPackage(v.pkg));
  /** Fills in what a part of this package holds, printed or by hand; both fields stay open to change. */
  function takePackage() {
    const [wt, times] = [readComposition(v.joint), parseDecimal(v.times)];
    if (!named || !('id' in named) || !wt || times === null || times <= 0) return;
    v.pkg = named.id;
    taken = named.id;
    const of = solderOf(named.id, wt, times);
    v.mg = of.mass_mg.toPrecision(3);
    v.rows = of.rows_mm.map((l) => l.toFixed(1)).join(' ');
  }
  const calculator = new Calculator<AlloyAmount>('alloy.amount');
  onDestroy(() => calculator.end());

  function inputOf(): object | string {
    if (named && 'problem' in named) return `${named.problem}.`;
    if (named && named.id !== taken) return 'Enter: the joints of this package.';
    const [joint, alloy] = [readComposition(v.joint), readComposition(v.alloy)];
    if (!joint || !alloy) return 'Joint and alloy: elements with their percent, Sn63Pb37.';
    const n = (key: Key) => parseDecimal(v[key]);
    const lengths =
      v.rows.trim() === ''
        ? []
        : v.rows
            .trim()
            .split(/\s+/)
            .map((s) => parseDecimal(s));
    if (lengths.some((l) => l === null)) return 'Rows: lengths in mm with a space between, 10 10.';
    const [mg, target, mixing, wire, peak] = [n('mg'), n('target'), n('mixing'), n('wire'), n('peak')];
    if (mg === null || target === null || mixing === null || wire === null)
      return 'Milligrams, temperature, mixing and wire: numbers.';
    const hold = v.hold.trim() === '' ? null : n('hold');
    if (v.hold.trim() !== '' && (hold === null || peak === null)) return 'Seconds and peak: numbers.';
    return {
      joint: { wt: joint, mass_mg: mg },
      alloy: { wt: alloy },
      targetLiquidus_C: toCelsius(target, data.shop),
      mixingEfficiency: mixing,
      wire: { dia_mm: wire },
      ...(lengths.length > 0 ? { rows: { lengths_mm: lengths } } : {}),
      ...(hold !== null && peak !== null ? { hold: { seconds: hold, peak_C: toCelsius(peak, data.shop) } } : {}),
      leadFree: v.leadfree === '1',
      path: 24,
    };
  }
  $effect(() => {
    calculator.ask(inputOf());
    keepInAddress('/calculate/amount', { ...v });
  });
  const out = $derived(calculator.answer);
  const needs = $derived.by(() => {
    if (!out?.reachable) return [];
    const rows = [
      { id: 'composition', name: 'to be fluid from there', amount: out as { mass_mg: number; wire_mm: number } },
    ];
    if (out.bead) rows.push({ id: 'bead', name: 'a bead along the rows', amount: out.bead });
    if (out.hold) rows.push({ id: 'hold', name: 'to stay movable', amount: out.hold });
    return rows;
  });
  const most = $derived(Math.max(1e-6, ...needs.map((r) => r.amount.mass_mg)));
  const mg = (m: number) => (m >= 100 ? m.toFixed(0) : m.toPrecision(2));
</script>

<svelte:head><title>Alloy needed · Calculate · Orthos</title></svelte:head>

<h1 class="mb-4 text-[26px]">How much alloy a joint needs</h1>
<div class="grid max-w-6xl grid-cols-[minmax(340px,2fr)_3fr] gap-6">
  <form
    class="grid grid-cols-2 content-start gap-x-4 gap-y-3 self-start border border-line bg-sheet p-5"
    aria-label="Case"
  >
    <PackagePick
      label="Joints of a package"
      soldered
      bind:text={v.pkg}
      onchange={takePackage}
      placeholder="none, mg below"
      aria-invalid={named && 'problem' in named ? true : undefined}
    />
    <label {@attach tip('by hand 1.5 to 2.5 times what paste leaves')}
      ><span class="label">as full as printed, times</span>
      <input class="field" inputmode="decimal" bind:value={v.times} onchange={takePackage} />
    </label>
    <CompositionField label="Joints are" bind:value={v.joint} onchange={takePackage} />
    <CompositionField label="Alloy to work in" bind:value={v.alloy} />
    {#each FIELDS as [key, label, hint] (key)}
      <label {@attach tip(hint)}
        ><span class="label">{label}{key === 'target' || key === 'peak' ? data.shop.temperature : ''}</span>
        <input class="field" bind:value={v[key]} />
      </label>
    {/each}
    <Check class="self-end" bind:checked={() => v.leadfree === '1', (on) => (v.leadfree = on ? '1' : '')}
      >stays lead-free</Check
    >
  </form>
  <div aria-live="polite" aria-busy={calculator.busy}>
    {#if out?.reachable}
      <p class="flex items-baseline gap-4">
        <span class="text-4xl font-bold" data-testid="needed">{mg(out.needed.mass_mg)} mg</span>
        <span class="text-ink2"
          >{out.needed.wire_mm.toFixed(out.needed.wire_mm < 10 ? 1 : 0)} mm of wire; {out.rules === 'composition'
            ? 'the composition rules'
            : out.rules === 'bead'
              ? 'the bead rules'
              : 'the holding time rules'}</span
        >
      </p>
      <ul class="mt-3" aria-label="What each asks for">
        {#each needs as r (r.id)}
          <li class="grid grid-cols-[170px_1fr_150px] items-center gap-3 border-t border-faint py-1.5">
            <span class={r.id === out.rules ? 'font-semibold' : ''}>{r.name}</span>
            <svg class="h-3 w-full" viewBox="0 0 100 1" preserveAspectRatio="none" aria-hidden="true"
              ><rect width="100" height="1" class="fill-faint" /><rect
                width={(100 * r.amount.mass_mg) / most}
                height="1"
                class={r.id === out.rules ? 'fill-hot' : 'fill-ink3'}
              /></svg
            >
            <span class="text-right"><b>{mg(r.amount.mass_mg)} mg</b>, {r.amount.wire_mm.toFixed(1)} mm</span>
          </li>
        {/each}
      </ul>
      {#if out.hold}<p class="mt-1 text-[13px] text-ink2">
          With that the joints stiffen at {formatTemperature(out.hold.freezes_C, data.shop)}, {out.hold.seconds.toFixed(
            0,
          )} s after the heat.
        </p>{/if}
      <p class="mt-2">
        {out.cleanUp
          ? `Costs ${out.cleanUp.cycles} rounds of braid and fresh solder until ${out.cleanUp.element} is under ${out.cleanUp.limit_wt} %: ${out.cleanUp.why}.`
          : 'Nothing of it has to come out again.'}
      </p>
      {#each out.notes as note (note)}<p class="mt-1 font-semibold text-caution">▲ {note}</p>{/each}
    {:else if out}
      <Notice text="▲ {out.why}." tone="caution" class="text-lg" />
    {:else if calculator.problem}
      <Notice text={calculator.problem} />
    {:else}
      <p class="text-ink2">computing</p>
    {/if}
    {#if out?.path}
      <div class="mt-4">
        <Curve
          lines={[
            {
              name: 'fluid from',
              tone: 'hot',
              points: out.path.map((p) => [(100 * p.ratio) / (1 + p.ratio), p.liquidus_C]),
            },
          ]}
          xName="% of the alloy in the joint"
          yName="°C"
          levels={[{ y: toCelsius(parseDecimal(v.target) ?? 0, data.shop), name: 'wanted' }]}
          at={out.reachable
            ? [{ x: (100 * out.ratio) / (1 + out.ratio), name: `${out.ratio.toPrecision(2)} × the joint` }]
            : []}
          told="Where the joint becomes fluid, over the share of the alloy in it"
        />
      </div>
    {/if}
  </div>
</div>
