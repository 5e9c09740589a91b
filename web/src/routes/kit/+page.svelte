<script lang="ts">
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { enhance } from '$app/forms';

  let { data, form } = $props();
  const issue = (id: string, field: string) =>
    form?.id === id && form && 'issues' in form ? (form.issues as Record<string, string>)[field] : undefined;
  const groups = $derived([
    { kind: 'air', title: 'Air stations', items: data.kit.filter((k) => k.kind === 'air') },
    { kind: 'iron', title: 'Irons', items: data.kit.filter((k) => k.kind === 'iron') },
  ]);
  const percent = (v: number) => String(Math.round(v * 1000) / 10);
</script>

<svelte:head><title>Kit · Orthos</title></svelte:head>

{#snippet box(id: string, name: string, label: string, value: string, wide: boolean)}
  <div class={wide ? 'col-span-2' : ''}>
    <label class="label" for="{id}-{name}">{label}</label>
    <input id="{id}-{name}" {name} class="field" {value} aria-invalid={issue(id, name) ? true : undefined} />
    <Notice text={issue(id, name)} at="field" class="mt-1" />
  </div>
{/snippet}

<div class="h-full overflow-auto px-8 py-7">
  <h1 class="text-[26px]">Kit</h1>
  <p class="mt-1 mb-5 max-w-prose text-ink2">
    What a plan knows about your tools. Until a station is calibrated its plans show wide ranges; a change here makes
    plans that used it stale.
  </p>
  {#each groups as group (group.kind)}
    <section class="mb-7 max-w-5xl">
      <div class="mb-2 flex items-center">
        <h2 class="text-lg">{group.title}</h2>
        <form method="POST" action="?/add" use:enhance class="ml-auto">
          <input type="hidden" name="kind" value={group.kind} />
          <button class="button">Add</button>
        </form>
      </div>
      {#if group.items.length === 0}<p class="border border-line bg-sheet p-5 text-ink2">
          None yet. Plans use the figures of an average one.
        </p>{/if}
      {#each group.items as item (item.id)}
        <form
          method="POST"
          action="?/save"
          aria-label={item.name}
          use:enhance={() =>
            ({ update }) =>
              update({ reset: false })}
          class="mb-2 grid grid-cols-[1.9fr_1fr_90px_110px_150px_auto] items-start gap-3 border border-line bg-sheet p-4"
        >
          <input type="hidden" name="id" value={item.id} />
          <input type="hidden" name="version" value={item.version} />
          {@render box(item.id, 'name', 'Name', item.name, false)}
          {@render box(item.id, 'bench', 'Bench', item.bench, false)}
          {#if item.kind === 'air'}
            {@render box(item.id, 'efficiency', 'Reaches, %', percent(item.doc.efficiency), false)}
            {@render box(
              item.id,
              'efficiencyPlusMinus',
              'Give or take, %',
              percent(item.doc.efficiencyPlusMinus),
              false,
            )}
            <Select
              label="Air dial"
              choices={{ marked: 'in L/min', unmarked: 'no L/min on it' }}
              id="{item.id}-air"
              name="air"
              value={item.doc.air ?? 'marked'}
            />
          {:else}
            {@render box(item.id, 'ironPlusMinus_K', 'Tip off by, K', String(item.doc.ironPlusMinus_K), true)}
            <span></span>
          {/if}
          <div class="pt-[22px]"><button class="button">Save</button></div>
          <p class="col-span-6 text-[13px] {item.doc.calibrated ? 'text-good' : 'text-caution'}" role="status">
            {item.doc.calibrated ? '● calibrated' : '◆ uncalibrated'}{form?.id === item.id && form && 'saved' in form
              ? ', saved'
              : ''}{item.doc.air === 'unmarked'
              ? '; plans say percent of the dial, and take it as half to twice 60 L/min at full'
              : ''}
          </p>
        </form>
      {/each}
    </section>
  {/each}
  <section class="mb-7 max-w-5xl">
    <div class="mb-2 flex items-center">
      <h2 class="text-lg">Meters and supplies</h2>
      <form method="POST" action="?/add" use:enhance class="ml-auto flex gap-2">
        <button class="button" name="kind" value="meter">Add a meter</button>
        <button class="button" name="kind" value="supply">Add a supply</button>
      </form>
    </div>
    {#if data.meters.length === 0}<p class="border border-line bg-sheet p-5 text-ink2">
        None yet. Readings are typed; a meter with a network plug can fill them in, a supply can run a start-up.
      </p>{/if}
    {#each data.meters as meter (meter.id)}
      <form
        method="POST"
        action="?/saveMeter"
        aria-label={meter.name}
        use:enhance={() =>
          ({ update }) =>
            update({ reset: false })}
        class="mb-2 grid grid-cols-[1.4fr_1fr_1.2fr_80px_80px_80px_80px_auto] items-start gap-3 border border-line bg-sheet p-4"
      >
        <input type="hidden" name="id" value={meter.id} />
        <input type="hidden" name="version" value={meter.version} />
        {@render box(meter.id, 'name', 'Name', meter.name, false)}
        {@render box(meter.id, 'bench', 'Bench', meter.bench, false)}
        {#if meter.simulated}
          <p class="col-span-2 pt-[30px] text-[13px] text-ink2">simulated, ships with Orthos</p>
        {:else}
          {@render box(meter.id, 'host', 'Address (SCPI)', meter.host, false)}
          {@render box(meter.id, 'port', 'Port', String(meter.port), false)}
        {/if}
        {#if meter.kind === 'meter'}
          {@render box(meter.id, 'ohmPercent', 'Ohms, %', String(meter.ohmPercent), false)}
          {@render box(meter.id, 'voltPercent', 'Volts, %', String(meter.voltPercent), false)}
          {@render box(meter.id, 'leadsOhm', 'Leads, Ω', String(meter.leadsOhm), false)}
        {:else}<p class="col-span-3 pt-[30px] text-[13px] text-ink2">supply: runs start-ups</p>{/if}
        <div class="pt-[22px]"><button class="button">Save</button></div>
        {#if form?.id === meter.id && form && 'saved' in form}<p class="col-span-8 text-[13px]" role="status">
            saved
          </p>{/if}
      </form>
    {/each}
  </section>
</div>
