<script lang="ts">
  import PackagePick from '$lib/boards/PackagePick.svelte';
  import Slider from '$lib/ui/Slider.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { fromAddress, keepInAddress } from '$lib/calculate/address';
  import { Calculator } from '$lib/calculate/calculator.svelte';
  import FieldPicture from '$lib/calculate/FieldPicture.svelte';
  import Joints from '$lib/plan/Joints.svelte';
  import { settingLine } from '$lib/plan/settingLine';
  import { rangeText, verdictOf, whySolid } from '$lib/plan/words';
  import { formatTemperature, parseDecimal, toCelsius } from '@orthos/core/ground';
  import { readPackage } from '@orthos/core/packages';
  import {
    BOARD_KINDS,
    DEFAULT_STATION,
    type ExpressAnswers,
    expressBoard,
    idOfLabel,
    methodName,
    methodsFor,
    phaseOf,
    type PlanResult,
    PLASTICS,
    wetAt,
    windowEnd,
  } from '@orthos/core/rework';
  import { onDestroy } from 'svelte';

  let { data } = $props();
  const units = $derived(data.shop);
  const START = {
    pkg: 'SOIC-8',
    board: 'two-layer',
    plastic: 'none',
    away: '5',
    tool: 'air-slow',
    set: '390',
    flow: '45',
    nozzle: '8',
    mm: '14',
    circle: '3',
  };
  type Key = keyof typeof START;
  // svelte-ignore state_referenced_locally
  let v = $state(fromAddress<Key>({ ...START, set: formatTemperature(390, data.shop).split(' ')[0] }));
  // a bookmark from before methods had ids says a tool's name
  v.tool = idOfLabel(v.tool);
  const named = $derived(readPackage(v.pkg));
  const pkg = $derived('id' in named ? named.id : null);
  const alloyOf = (kind: string) =>
    kind in BOARD_KINDS ? BOARD_KINDS[kind as keyof typeof BOARD_KINDS].alloy : undefined;
  const methods = $derived(pkg ? methodsFor(pkg, { jointAlloy: alloyOf(v.board) }) : []);
  const chosen = $derived(methods.find((m) => m.method.id === v.tool) ?? methods[0]);
  const air = $derived(chosen && phaseOf(chosen.method, 'air'));
  const AIR: [Key, string][] = [
    ['set', 'Set-point, °'],
    ['flow', 'Air, L/min'],
    ['nozzle', 'Nozzle, mm'],
    ['mm', 'Distance, mm'],
    ['circle', 'Hand moves, mm'],
  ];
  /** Another tool brings its own settings. */
  function takeTool() {
    const m = air?.settings;
    if (!m) return;
    v.set = formatTemperature(m.set_C, units).split(' ')[0];
    [v.flow, v.nozzle, v.mm, v.circle] = [m.flow_L_min, m.nozzle_mm, m.standoff_mm, m.sweep_mm].map(String);
  }

  const calculator = new Calculator<PlanResult>('plan.heat');
  onDestroy(() => calculator.end());
  const board = $derived.by(() => {
    if (!pkg || !(v.board in BOARD_KINDS) || !(v.plastic in PLASTICS)) return null;
    const away = parseDecimal(v.away);
    if (v.plastic !== 'none' && (away === null || away < 0.5 || away > 30)) return null;
    return expressBoard({
      package: pkg,
      boardKind: v.board as ExpressAnswers['boardKind'],
      plastic: v.plastic as ExpressAnswers['plastic'],
      distance_mm: away ?? 5,
    });
  });
  function inputOf(): object | string {
    if ('problem' in named) return `${named.problem}.`;
    if (!board) return 'The plastic stands 0.5 to 30 mm away.';
    if (chosen?.unfit) return `Not this way: ${chosen.unfit}.`;
    if (!chosen) return 'No method for this part.';
    let { phases } = chosen.method;
    if (air) {
      const [set, flow, nozzle, mm, circle] = AIR.map(([key]) => parseDecimal(v[key]));
      if (set === null || flow === null || nozzle === null || mm === null || circle === null)
        return 'Set-point, air, nozzle, distance, hand: numbers.';
      const typed = {
        set_C: toCelsius(set, units),
        flow_L_min: flow,
        nozzle_mm: nozzle,
        standoff_mm: mm,
        sweep_mm: circle,
      };
      phases = phases.map((p) => (p === air ? { ...air, settings: { ...air.settings, ...typed } } : p));
    }
    return {
      board,
      target: 'target',
      phases,
      station: DEFAULT_STATION,
      ambient_C: 22,
      quality: 'plan',
      frames: true,
    };
  }
  $effect(() => {
    calculator.ask(inputOf());
    keepInAddress('/calculate/melt', { ...v });
  });
  const out = $derived(calculator.answer);
  let time = $state(0);
  $effect(() => {
    if (out) time = Math.ceil(out.allWet_s ?? out.ended_s);
  });
  const last = $derived(out?.joints.find((j) => j.terminal === out.last?.terminal));
  const wet = $derived(out ? out.joints.filter((j) => (wetAt(j) ?? Infinity) <= time).length : 0);
  const end = $derived(out ? windowEnd(out) : null);
</script>

<svelte:head><title>Melt time · Calculate · Orthos</title></svelte:head>

<h1 class="mb-4 text-[26px]">How long until it floats</h1>
<div class="grid max-w-6xl grid-cols-[minmax(320px,2fr)_3fr] gap-6">
  <form
    class="grid grid-cols-2 content-start gap-x-4 gap-y-3 self-start border border-line bg-sheet p-5"
    aria-label="Case"
  >
    <PackagePick label="Package" soldered bind:text={v.pkg} onchange={takeTool} aria-invalid={pkg ? undefined : true} />
    <Select
      label="Kind of board"
      choices={Object.entries(BOARD_KINDS).map(([id, k]) => ({ value: id, label: k.label }))}
      bind:value={v.board}
    />
    <Select
      label="Nearest plastic"
      choices={Object.entries(PLASTICS).map(([id, p]) => ({ value: id, label: p.label }))}
      bind:value={v.plastic}
    />
    {#if v.plastic !== 'none'}
      <label><span class="label">Its distance, mm</span><input class="field" bind:value={v.away} /></label>
    {/if}
    <Select
      label="Tool"
      class="col-span-2"
      choices={methods.map(({ method }) => ({ value: method.id, label: methodName(method.id) }))}
      bind:value={v.tool}
      onchange={takeTool}
    />
    {#if air}
      {#each AIR as [key, label] (key)}
        <label
          ><span class="label">{label}{key === 'set' ? units.temperature : ''}</span>
          <input class="field" inputmode="decimal" bind:value={v[key]} /></label
        >
      {/each}
    {:else if chosen}
      <p class="col-span-2 text-ink2">
        {settingLine(chosen.method, units)}, as usual for this part; a job changes everything.
      </p>
    {/if}
  </form>
  <div aria-live="polite" aria-busy={calculator.busy}>
    {#if calculator.problem}
      <Notice text={calculator.problem} />
    {:else if !out || !board}
      <p class="text-ink2">computing</p>
    {:else}
      <p class="flex flex-wrap items-baseline gap-x-4">
        <span class="text-4xl font-bold" data-testid="melt"
          >{out.allWet_s === null ? verdictOf(out).word : `${Math.round(out.allWet_s)} s`}</span
        >
        <span class="text-ink2"
          >{rangeText(out) || 'however far the station is off'}; an uncalibrated station: trust the range.</span
        >
      </p>
      <p class="mt-1 mb-3">
        {#if out.allWet_s === null && chosen}{whySolid(out, chosen.method, units)}
        {:else}Joint {out.last?.terminal} is last: {out.last?.why}.{/if}
        {#if end !== null}The window closes at {Math.round(end)} s.{/if}
      </p>
      {#if out.frames}
        <FieldPicture
          {board}
          frames={out.frames}
          {time}
          target="target"
          {units}
          marked={out.last?.terminal}
          melts={last?.solidus_C === undefined
            ? null
            : { celsius: last.solidus_C, label: `${formatTemperature(last.solidus_C, units)}, solder begins to melt` }}
          told="Temperature of the working side {time} s after the heat came on"
        />
      {/if}
      <div class="mt-2 grid grid-cols-[auto_1fr_auto] items-center gap-3">
        <span class="text-[13px] text-ink2">After {time} s</span>
        <Slider aria-label="Time since the heat came on, seconds" max={Math.ceil(out.ended_s)} bind:value={time} />
        <span class="text-ink2">{wet} of {out.joints.length} joints loose</span>
      </div>
      <Joints result={out} {units} />
    {/if}
  </div>
</div>
