<script lang="ts">
  import Select from '$lib/ui/Select.svelte';
  import { enhance } from '$app/forms';
  import TextField from '$lib/ui/TextField.svelte';
  import Form from '$lib/ui/Form.svelte';

  let { data, form } = $props();
  const groups = $derived([
    { kind: 'air', title: 'Air stations', items: data.kit.filter((k) => k.kind === 'air') },
    { kind: 'iron', title: 'Irons', items: data.kit.filter((k) => k.kind === 'iron') },
  ]);
  const percent = (v: number) => String(Math.round(v * 1000) / 10);
</script>

<svelte:head><title>Kit · Orthos</title></svelte:head>

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
        <Form
          answer={form}
          id={item.id}
          action="?/save"
          aria-label={item.name}
          class="mb-2 grid grid-cols-[1.9fr_1fr_90px_110px_150px_auto] items-start gap-3 border border-line bg-sheet p-4"
        >
          {#snippet children({ busy, saved })}
            <input type="hidden" name="id" value={item.id} />
            <input type="hidden" name="version" value={item.version} />
            <TextField name="name" label="Name" start={item.name} />
            <TextField name="bench" label="Bench" start={item.bench} />
            {#if item.kind === 'air'}
              <TextField name="efficiency" label="Reaches, %" start={percent(item.doc.efficiency)} />
              <TextField
                name="efficiencyPlusMinus"
                label="Give or take, %"
                start={percent(item.doc.efficiencyPlusMinus)}
              />
              <Select
                label="Air dial"
                choices={{ marked: 'in L/min', unmarked: 'no L/min on it' }}
                id="{item.id}-air"
                name="air"
                value={item.doc.air ?? 'marked'}
              />
            {:else}
              <TextField
                name="ironPlusMinus_K"
                label="Tip off by, K"
                start={String(item.doc.ironPlusMinus_K)}
                class="col-span-2"
              />
              <span></span>
            {/if}
            <div class="pt-[22px]"><button class="button" disabled={busy}>Save</button></div>
            <p class="col-span-6 text-[13px] {item.doc.calibrated ? 'text-good' : 'text-caution'}" role="status">
              {item.doc.calibrated ? '● calibrated' : '◆ uncalibrated'}{saved ? ', saved' : ''}{item.doc.air ===
              'unmarked'
                ? '; plans say percent of the dial, and take it as half to twice 60 L/min at full'
                : ''}
            </p>
          {/snippet}
        </Form>
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
      <Form
        answer={form}
        id={meter.id}
        action="?/saveMeter"
        aria-label={meter.name}
        class="mb-2 grid grid-cols-[1.4fr_1fr_1.2fr_80px_80px_80px_80px_auto] items-start gap-3 border border-line bg-sheet p-4"
      >
        {#snippet children({ busy, saved })}
          <input type="hidden" name="id" value={meter.id} />
          <input type="hidden" name="version" value={meter.version} />
          <TextField name="name" label="Name" start={meter.name} />
          <TextField name="bench" label="Bench" start={meter.bench} />
          {#if meter.simulated}
            <p class="col-span-2 pt-[30px] text-[13px] text-ink2">simulated, ships with Orthos</p>
          {:else}
            <TextField name="host" label="Address (SCPI)" start={meter.host} />
            <TextField name="port" label="Port" start={String(meter.port)} />
          {/if}
          {#if meter.kind === 'meter'}
            <TextField name="ohmPercent" label="Ohms, %" start={String(meter.ohmPercent)} />
            <TextField name="voltPercent" label="Volts, %" start={String(meter.voltPercent)} />
            <TextField name="leadsOhm" label="Leads, Ω" start={String(meter.leadsOhm)} />
          {:else}<p class="col-span-3 pt-[30px] text-[13px] text-ink2">supply: runs start-ups</p>{/if}
          <div class="pt-[22px]"><button class="button" disabled={busy}>Save</button></div>
          {#if saved}<p class="col-span-8 text-[13px]" role="status">saved</p>{/if}
        {/snippet}
      </Form>
    {/each}
  </section>
</div>
