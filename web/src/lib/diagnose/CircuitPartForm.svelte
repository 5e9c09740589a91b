<script lang="ts">
  // One part of the circuit: class, value, pins. Figures are typed as on the bench (4k7, 100n).
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { type BoardModel, PART_CLASSES, type PartClass, partName } from '@orthos/core/board';
  import { agrees, asClass, type CircuitPart, circuitPartSchema, classOf } from '@orthos/core/circuit';
  import { parseReading } from '@orthos/core/ground';
  import { untrack } from 'svelte';
  import IcFields from './IcFields.svelte';

  interface Props {
    part: CircuitPart;
    board: BoardModel;
    ground: string;
    onChange: (part: CircuitPart) => void;
    onRemove: () => void;
  }
  let { part, board, ground, onChange, onRemove }: Props = $props();
  let problem = $state('');

  const KINDS: Record<CircuitPart['kind'], string> = {
    R: 'resistor',
    C: 'capacitor',
    L: 'coil',
    FB: 'ferrite',
    F: 'fuse',
    RLY: 'relay coil',
    D: 'diode',
    Z: 'clamp, one way',
    ZB: 'clamp, both ways',
    M: 'MOSFET',
    Q: 'transistor',
    IC: 'IC',
    J: 'plug',
  };
  const FIGURES: Record<string, [string, string]> = {
    value: ['Value', ''],
    r: ['Resistance, Ω', 'Ω'],
    bv: ['Clamps at, V', 'V'],
    leak: ['Leak, Ω', 'Ω'],
    vto: ['Threshold, V', 'V'],
    kp: ['Gain, A/V²', ''],
    bf: ['Current gain', ''],
  };
  const figures = $derived(Object.keys(FIGURES).filter((f) => f in part && (f !== 'leak' || part.kind === 'C')));
  let draft = $state<Record<string, string>>({});
  let pins = $state<Record<string, string>>({});
  let ref = $state('');
  let pinName = $state('');
  let pinNet = $state('');
  let resistances = $state<{ a: string; b: string; off: string; on: string }[]>([]);
  // a form of its own, begun anew when the part was changed elsewhere
  $effect(() => {
    const p = part;
    untrack(() => {
      draft = Object.fromEntries(Object.keys(FIGURES).map((f) => [f, f in p ? String(p[f as keyof CircuitPart]) : '']));
      pins = { ...p.pins };
      ref = p.ref;
      resistances =
        p.kind === 'IC' ? p.res.map(([a, b, off, on = off]) => ({ a, b, off: String(off), on: String(on) })) : [];
    });
  });

  function apply(event: SubmitEvent) {
    event.preventDefault();
    const kept = Object.entries(pins).filter(([, net]) => net.trim() !== '');
    if (pinName.trim() && pinNet.trim()) kept.push([pinName.trim(), pinNet.trim()]);
    const raw: Record<string, unknown> = { ...part, ref: ref.trim(), pins: Object.fromEntries(kept) };
    for (const f of figures) {
      const value = parseReading(draft[f] ?? '');
      if (typeof value !== 'number') return (problem = `${FIGURES[f][0]}: a number such as 4k7 or 100n`);
      raw[f] = value;
    }
    if (part.kind === 'IC') {
      const res: unknown[] = [];
      for (const { a, b, off, on } of resistances) {
        const [asleep, awake] = [parseReading(off), parseReading(on)];
        if (typeof asleep !== 'number' || typeof awake !== 'number')
          return (problem = `${a} to ${b}: ohms asleep and awake, such as 2k4 and 40`);
        res.push([a, b, asleep, awake]);
      }
      raw.res = res;
    }
    const checked = circuitPartSchema.safeParse(raw);
    [pinName, pinNet] = ['', ''];
    if (!checked.success) return (problem = checked.error.issues.map((i) => i.message).join('; '));
    problem = '';
    onChange(checked.data);
  }
  /** The kind goes along: a clamp is no resistor. */
  const setClass = (cls: string) => onChange(asClass(part, cls as PartClass, ground));
  function setType(type: string) {
    if (part.kind === 'M' || part.kind === 'Q') onChange({ ...part, type: type === 'P' ? 'P' : 'N' });
  }
  const bound = $derived(board.parts.find((p) => p.partId === part.partId));
</script>

<form onsubmit={apply} class="mb-3 border-l-[3px] border-evidence bg-evidence-soft p-3" aria-label="Part {part.ref}">
  <div class="grid grid-cols-2 gap-2">
    <div>
      <label class="label" for="cp-ref">Name</label>
      <input id="cp-ref" class="field" bind:value={ref} maxlength="40" autocomplete="off" />
    </div>
    <Select
      label="{KINDS[part.kind]}, as a"
      choices={PART_CLASSES}
      id="cp-class"
      value={classOf(part)}
      onchange={(v) => setClass(v)}
    />
    {#if part.kind === 'M' || part.kind === 'Q'}
      <Select
        label="Channel"
        choices={{ N: 'N', P: 'P' }}
        id="cp-type"
        value={part.type}
        onchange={(v) => setType(v)}
      />
    {/if}
    {#each figures as f (f)}
      <div>
        <label class="label" for="cp-{f}">{FIGURES[f][0]}</label>
        <input id="cp-{f}" class="field" bind:value={draft[f]} autocomplete="off" />
      </div>
    {/each}
    {#each Object.keys(pins) as pin (pin)}
      <div>
        <label class="label" for="cp-pin-{pin}">Pin {pin} on</label>
        <input id="cp-pin-{pin}" class="field" bind:value={pins[pin]} list="c-nets" autocomplete="off" maxlength="80" />
      </div>
    {/each}
  </div>
  {#if part.kind === 'IC' || part.kind === 'J'}
    <div class="mt-2 grid grid-cols-2 gap-2">
      <div>
        <label class="label" for="cp-new-pin">One more pin</label>
        <input id="cp-new-pin" class="field" bind:value={pinName} placeholder="VIN" maxlength="20" autocomplete="off" />
      </div>
      <div>
        <label class="label" for="cp-new-net">on the net</label>
        <input id="cp-new-net" class="field" bind:value={pinNet} list="c-nets" maxlength="80" autocomplete="off" />
      </div>
    </div>
  {/if}
  {#if part.kind === 'IC'}
    <IcFields {part} onChange={(p) => onChange(p)} />
    {#each resistances as r, i (i)}
      <p class="mt-2 text-[13px] text-ink2">{r.a} to {r.b}, Ω asleep and awake</p>
      <div class="grid grid-cols-2 gap-2">
        <input class="field" bind:value={r.off} aria-label="{r.a} to {r.b} asleep" autocomplete="off" />
        <input class="field" bind:value={r.on} aria-label="{r.a} to {r.b} awake" autocomplete="off" />
      </div>
    {/each}
  {/if}
  {#if !agrees(part)}<p class="mt-2 text-[13px] font-semibold text-caution">
      ▲ It is drawn as a {KINDS[part.kind]} and weighed as a {PART_CLASSES[classOf(part)]}.
    </p>{/if}
  <Notice text={problem} at="field" class="mt-2" />
  <div class="mt-3 flex items-center gap-2">
    <button class="button button-main">Keep</button>
    <button type="button" class="button" onclick={onRemove}>Take out</button>
    <span class="text-[13px] text-ink2">{bound ? `is ${partName(bound)} on the board` : 'not tied to the board'}</span>
  </div>
</form>
