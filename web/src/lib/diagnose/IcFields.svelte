<script lang="ts">
  // What an IC works as, by which pins; where its supply comes in; which of its pins stand side by side.
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import {
    type Block,
    BLOCK_FIGURE,
    BLOCK_NAMES,
    circuitPartSchema,
    DIODE_MODELS,
    type PartOf,
    rolesOf,
    worksAs,
  } from '@orthos/core/circuit';
  import { parseReading } from '@orthos/core/ground';

  let { part, onChange }: { part: PartOf<'IC'>; onChange: (part: PartOf<'IC'>) => void } = $props();
  let problem = $state('');
  const block = $derived(part.blocks.at(0));
  const pins = $derived(Object.keys(part.pins));
  const roles = $derived(block ? rolesOf(block.type) : { needed: [], optional: [] });
  const figure = $derived(block ? BLOCK_FIGURE[block.type] : null);
  const value = $derived(block && figure && figure.key in block ? String(block[figure.key as keyof Block]) : '');

  function become(type: string) {
    const made = worksAs(part, type === '' ? null : (type as Block['type']));
    problem = made ? '' : `${part.ref} has too few pins for that: add them below first.`;
    if (made) onChange(made);
  }
  function setRole(role: string, pin: string) {
    if (!block) return;
    const kept = Object.entries(block.pins ?? {}).filter(([name]) => name !== role);
    const next = Object.fromEntries(pin === '' ? kept : [...kept, [role, pin]]);
    onChange({ ...part, blocks: [{ ...block, pins: next }, ...part.blocks.slice(1)] });
  }
  function setFigure(text: string) {
    const read = parseReading(text);
    if (!block || !figure) return;
    if (typeof read !== 'number') return (problem = `${figure.label}: a number such as 3.3.`);
    problem = '';
    onChange({ ...part, blocks: [{ ...block, [figure.key]: read } as Block, ...part.blocks.slice(1)] });
  }
  /** "1-2, 2-3" as pairs of pins that are there. */
  function setNeighbours(text: string) {
    const pairs = text
      .split(/[,;]+/)
      .map((p) => p.trim().split(/\s*[-–]\s*/))
      .filter((p) => p.some((pin) => pin !== ''));
    const wrong = pairs.find((p) => p.length !== 2 || !p.every((pin) => pins.includes(pin)));
    if (wrong) return (problem = `Neighbours: pairs of its pins, such as ${pins[0]}-${pins[1] ?? pins[0]}.`);
    problem = '';
    onChange({ ...part, adjacent: pairs.map(([a, b]): [string, string] => [a, b]) });
  }
  /** "GND>VIN, SW>VIN body" as diodes from pin to pin. */
  function setClamps(text: string) {
    const esd = text.split(/[,;]+/).flatMap((one) => {
      const [a, k, model = 'esd'] = one.trim().split(/[\s>]+/);
      return a ? [[a, k, model]] : [];
    });
    const checked = circuitPartSchema.safeParse({ ...part, esd });
    const known = esd.every(([a, k]) => pins.includes(a) && pins.includes(k));
    if (!known || !checked.success || checked.data.kind !== 'IC')
      return (problem = `Diodes: pin to pin, and of which kind (${Object.keys(DIODE_MODELS).join(', ')}), such as ${pins[0]}>${pins[1] ?? pins[0]} body.`);
    problem = '';
    onChange(checked.data);
  }
  const setRail = (pin: string, on: boolean) =>
    onChange({ ...part, rail: on ? [...(part.rail ?? []), pin] : (part.rail ?? []).filter((p) => p !== pin) });
</script>

<div class="mt-3 grid grid-cols-2 gap-2 border-t border-line pt-3">
  <Select
    label="Works as"
    none="nothing is known"
    choices={BLOCK_NAMES}
    id="ic-works"
    value={block?.type ?? ''}
    onchange={(v) => become(v)}
  />
  {#if figure}
    <div>
      <label class="label" for="ic-figure">{figure.label}</label>
      <input
        id="ic-figure"
        class="field"
        {value}
        autocomplete="off"
        onchange={(e) => setFigure(e.currentTarget.value)}
      />
    </div>
  {/if}
  {#each [...roles.needed, ...roles.optional] as role (role)}
    {@const name = role.toUpperCase()}
    <Select
      label="{name} is pin"
      id="ic-role-{role}"
      none={roles.optional.includes(role) ? 'none' : undefined}
      choices={pins.map((pin) => ({ value: pin, label: part.pins[pin] === pin ? pin : `${pin}, ${part.pins[pin]}` }))}
      value={String(block?.pins?.[name] ?? '')}
      onchange={(pin) => setRole(name, pin)}
    />
  {/each}
</div>
<fieldset class="mt-2">
  <legend class="label">Its supply comes in at</legend>
  <p class="flex flex-wrap gap-x-3">
    {#each pins.slice(0, 24) as pin (pin)}
      <Check class="text-[13px]" checked={part.rail?.includes(pin) ?? false} onchange={(on) => setRail(pin, on)}
        >{pin}</Check
      >
    {/each}
  </p>
</fieldset>
<label class="mt-2 block"
  ><span class="label">Pins side by side, that solder may bridge</span>
  <input
    class="field"
    value={part.adjacent.map((p) => p.join('-')).join(', ')}
    placeholder="1-2, 2-3"
    autocomplete="off"
    onchange={(e) => setNeighbours(e.currentTarget.value)}
  /></label
>
<label class="mt-2 block"
  ><span class="label">Diodes between its pins</span>
  <input
    class="field"
    value={part.esd.map(([a, k, model]) => `${a}>${k}${model === 'esd' ? '' : ` ${model}`}`).join(', ')}
    placeholder="GND>VIN, SW>VIN body"
    autocomplete="off"
    onchange={(e) => setClamps(e.currentTarget.value)}
  /></label
>
<Notice text={problem} at="field" class="mt-1" />
