<script lang="ts">
  import { formatTemperature, parseDecimal, toCelsius, type Method, type UnitSettings } from '@orthos/core';
  import { KNOBS } from './settings';

  interface Props {
    method: Method;
    units: UnitSettings;
    onSave: (method: Method) => Promise<void>;
    onClose: () => void;
  }
  let { method, units, onSave, onClose }: Props = $props();

  const knobs = $derived(KNOBS[method.kind]);
  const numberOf = (m: Method, key: string) => (m as unknown as Record<string, number>)[key];
  const shown = (key: string, unit: string) => {
    const value = numberOf(method, key);
    return unit === 'temperature' ? formatTemperature(value, units).split(' ')[0] : String(value);
  };
  const unitName = (unit: string) => (unit === 'temperature' ? `°${units.temperature}` : unit);
  const inUnits = (value: number, unit: string) =>
    unit === 'temperature' ? formatTemperature(value, units).split(' ')[0] : String(value);
  // the form starts from the method and is the user's afterwards
  // svelte-ignore state_referenced_locally
  let texts = $state<Record<string, string>>(
    Object.fromEntries(KNOBS[method.kind].map((k) => [k.key, shown(k.key, k.unit)])),
  );
  let issues = $state<Record<string, string>>({});
  let busy = $state(false);

  async function save(event: SubmitEvent) {
    event.preventDefault();
    const next: Record<string, unknown> = { ...method };
    const found: Record<string, string> = {};
    for (const k of knobs) {
      const typed = parseDecimal(texts[k.key]);
      const value = typed === null ? NaN : k.unit === 'temperature' ? toCelsius(typed, units) : typed;
      // a value left as it was keeps its exact number
      if (texts[k.key] === shown(k.key, k.unit)) continue;
      if (!(value >= k.min && value <= k.max))
        found[k.key] = `${inUnits(k.min, k.unit)} to ${inUnits(k.max, k.unit)} ${unitName(k.unit)}`;
      next[k.key] = value;
    }
    issues = found;
    if (Object.keys(found).length > 0) return;
    busy = true;
    await onSave(next as unknown as Method);
    busy = false;
  }
</script>

<form onsubmit={save} class="my-3 border border-line p-4" aria-label="Settings of {method.label}">
  <div class="grid grid-cols-3 gap-3">
    {#each knobs as k (k.key)}
      <div>
        <label class="label" for="k-{k.key}">{k.label}, {unitName(k.unit)}</label>
        <input
          id="k-{k.key}"
          class="field"
          inputmode="decimal"
          bind:value={texts[k.key]}
          aria-invalid={issues[k.key] ? true : undefined}
          aria-describedby={issues[k.key] ? `k-${k.key}-note` : undefined}
        />
        {#if issues[k.key]}<p id="k-{k.key}-note" class="mt-1 text-[13px] font-semibold text-stop">
            {issues[k.key]}
          </p>{/if}
      </div>
    {/each}
  </div>
  <div class="mt-4 flex gap-2">
    <button class="button button-main" disabled={busy}>Keep these</button>
    <button type="button" class="button" onclick={onClose}>Leave as it was</button>
  </div>
</form>
