<script lang="ts">
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { page } from '$app/state';
  import { keepInAddress } from '$lib/calculate/address';
  import { Calculator } from '$lib/calculate/calculator.svelte';
  import Field from '$lib/ui/Field.svelte';
  import { SOLDER_ALLOYS } from '@orthos/core/alloys';
  import { parseDecimal } from '@orthos/core/ground';
  import { onDestroy } from 'svelte';

  const ALLOYS: Record<string, Record<string, number>> = {
    Sn63Pb37: { Sn: 63, Pb: 37 },
    SAC305: { Sn: 96.5, Ag: 3, Cu: 0.5 },
    SnCu: { Sn: 99.3, Cu: 0.7 },
    SnBi: { Sn: 42, Bi: 58 },
  };
  const FIELDS = {
    paste: [
      ['a', 'Aperture length, mm', '1.5'],
      ['b', 'Aperture width, mm', '0.6'],
      ['stencil', 'Stencil, mm', '0.12'],
      ['transfer', 'Transfer × coverage', '0.9'],
      ['metal', 'Metal share of the paste', '0.5'],
    ],
    hole: [
      ['drill', 'Drill, mm', '1.0'],
      ['lead', 'Lead, mm', '0.64'],
      ['board', 'Board, mm', '1.6'],
      ['fill', 'Fill, 0 to 1', '1'],
      ['pad', 'Pad, mm', '2.0'],
      ['fillet', 'Fillet height, mm', '0.6'],
      ['k', 'Fillet hollow k', '0.5'],
      ['fillets', 'Fillets', '2'],
    ],
  } as const;
  type Kind = keyof typeof FIELDS;

  const q = page.url.searchParams;
  let kind = $state<Kind>(q.get('kind') === 'hole' ? 'hole' : 'paste');
  let alloy = $state(SOLDER_ALLOYS.has(q.get('alloy') ?? '') ? (q.get('alloy') as string) : 'SAC305');
  let texts = $state<Record<string, string>>(
    Object.fromEntries(
      Object.values(FIELDS).flatMap((list) => list.map(([key, , start]) => [key, q.get(key) ?? start])),
    ),
  );
  const calculator = new Calculator<{ volume_mm3: number; mass_mg: number }>('joint.volume');
  const answer = $derived(calculator.answer);
  onDestroy(() => calculator.end());

  $effect(() => {
    const n = (key: string) => parseDecimal(texts[key]) ?? NaN;
    const input =
      kind === 'paste'
        ? {
            paste: {
              aperture_mm: [n('a'), n('b')],
              stencil_mm: n('stencil'),
              transferTimesCoverage: n('transfer'),
              metalVolumeFraction: n('metal'),
            },
          }
        : {
            hole: {
              drill_mm: n('drill'),
              lead_mm: n('lead'),
              board_mm: n('board'),
              fill: n('fill'),
              pad_mm: n('pad'),
              fillet_mm: n('fillet'),
              k: n('k'),
              fillets: n('fillets'),
            },
          };
    calculator.ask({ ...input, wt: ALLOYS[alloy] });
    keepInAddress('/calculate', {
      kind,
      alloy,
      ...Object.fromEntries(FIELDS[kind].map(([key]) => [key, texts[key]])),
    });
  });
</script>

<svelte:head><title>Joint volume · Calculate · Orthos</title></svelte:head>

<h1 class="mb-4 text-[26px]">Solder in one joint</h1>
<div class="grid max-w-4xl grid-cols-[1fr_280px] gap-6">
  <div class="grid grid-cols-2 content-start gap-x-6 gap-y-4 border border-line bg-sheet p-6">
    <Field label="Joint" name="kind">
      {#snippet control(a)}
        <Select choices={{ paste: 'printed paste', hole: 'plated hole' }} {...a} bind:value={kind} />
      {/snippet}
    </Field>
    <Field label="Alloy" name="alloy">
      {#snippet control(a)}
        <Select
          choices={[...SOLDER_ALLOYS.values()].map((s) => ({ value: s.id, label: s.composition }))}
          {...a}
          bind:value={alloy}
        />
      {/snippet}
    </Field>
    {#each FIELDS[kind] as [key, label] (key)}
      <Field {label} name={key}>
        {#snippet control(a)}<input {...a} class="field" inputmode="decimal" bind:value={texts[key]} />{/snippet}
      </Field>
    {/each}
  </div>
  <div class="border-l-[3px] border-evidence py-2 pl-5" aria-live="polite">
    {#if answer}
      <p class="text-ink2">Volume</p>
      <p class="mb-4 text-4xl font-bold" data-testid="volume">
        {answer.volume_mm3.toPrecision(3)} <span class="text-lg font-normal">mm³</span>
      </p>
      <p class="text-ink2">Mass</p>
      <p class="text-4xl font-bold">{answer.mass_mg.toPrecision(3)} <span class="text-lg font-normal">mg</span></p>
      <p class="mt-4 text-[13px] text-ink3">
        Printed joints, ± 40 %. Hand-soldered ones hold 1.5 to 2.5 times as much.
      </p>
    {:else}
      <Notice text={calculator.problem} />
    {/if}
  </div>
</div>
