<script lang="ts">
  // Meters and supplies of a bench: where they answer, how well they measure.
  import { enhance } from '$app/forms';
  import Form from '$lib/ui/Form.svelte';
  import type { Answer } from '$lib/ui/form';
  import TextField from '$lib/ui/TextField.svelte';

  interface Meter {
    id: string;
    kind: 'meter' | 'supply';
    name: string;
    bench: string;
    simulated: boolean;
    host: string;
    port: number;
    ohmPercent: number;
    voltPercent: number;
    leadsOhm: number;
    version: number;
  }
  let { meters, answer, bench }: { meters: Meter[]; answer: Answer | null | undefined; bench: string } = $props();
</script>

<section aria-label="Meters and supplies" class="border border-line bg-sheet">
  <div class="flex items-center gap-3 px-3 py-1.5">
    <h2 class="text-[15px] font-semibold">Meters and supplies</h2>
    <form method="POST" action="?/add" use:enhance class="ml-auto flex gap-2">
      <input type="hidden" name="bench" value={bench} />
      <button class="text-[13px] text-evidence hover:underline" name="kind" value="meter">+ meter</button>
      <button class="text-[13px] text-evidence hover:underline" name="kind" value="supply">+ supply</button>
    </form>
  </div>
  {#if meters.length === 0}<p class="border-t border-faint p-3 text-[13px] text-ink2">
      None yet. Readings are typed; a meter with a network plug can fill them in, a supply can run a start-up.
    </p>{/if}
  {#each meters as meter (meter.id)}
    <Form
      {answer}
      id={meter.id}
      action="?/saveMeter"
      aria-label={meter.name}
      class="grid grid-cols-3 items-start gap-3 border-t border-faint p-3"
    >
      {#snippet children({ busy, saved })}
        <input type="hidden" name="id" value={meter.id} />
        <input type="hidden" name="version" value={meter.version} />
        <TextField class="col-span-2" name="name" label="Name" start={meter.name} />
        <TextField name="bench" label="Bench" start={meter.bench} />
        {#if !meter.simulated}
          <TextField class="col-span-2" name="host" label="Address (SCPI)" start={meter.host} />
          <TextField name="port" label="Port" start={String(meter.port)} />
        {/if}
        {#if meter.kind === 'meter'}
          <TextField name="ohmPercent" label="Ohms, %" start={String(meter.ohmPercent)} />
          <TextField name="voltPercent" label="Volts, %" start={String(meter.voltPercent)} />
          <TextField name="leadsOhm" label="Leads, Ω" start={String(meter.leadsOhm)} />
        {/if}
        <div class="col-span-3 flex items-center gap-3">
          <button class="button" disabled={busy}>Save</button>
          <p class="text-[13px] text-ink2" role="status">
            {meter.kind === 'supply' ? 'supply: runs start-ups' : 'meter'}{meter.simulated
              ? '; simulated, ships with Orthos'
              : ''}{saved ? ', saved' : ''}
          </p>
        </div>
      {/snippet}
    </Form>
  {/each}
</section>
