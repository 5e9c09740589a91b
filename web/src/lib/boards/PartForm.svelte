<script lang="ts">
  // The part that was chosen: what it is, where it stands, what it stands, its nets.
  import Check from '$lib/ui/Check.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import Select from '$lib/ui/Select.svelte';
  import { changePart, partName, type PlacedPart } from '@orthos/core/board';
  import { parseDecimal } from '@orthos/core/ground';
  import { lawWords, LIMITS } from '@orthos/core/materials';
  import { gripOf, packageById } from '@orthos/core/packages';
  import { limitRowOf, readOwnLimit } from '@orthos/core/rework';
  import type { Editor } from './editor.svelte';
  import PackagePick from './PackagePick.svelte';
  import type { Placing } from './placing.svelte';

  interface Props {
    part: PlacedPart;
    editor: Editor;
    placing: Placing;
    own: { label: string; designation: string }[];
  }
  let { part, editor, placing, own }: Props = $props();
  const grip = $derived(gripOf(packageById(part.package)));

  function set(label: string, change: Partial<PlacedPart>) {
    editor.commit(label, changePart(editor.doc, part.partId, change));
  }
  /** "250 10": what its papers say it stands; empty: nothing. */
  function setOwnLimit(field: HTMLInputElement) {
    const read = readOwnLimit(field.value);
    if (read === null) placing.said = 'What it stands: 30 to 500 °C, and 0.5 to 600 s if they say for how long.';
    else {
      placing.said = '';
      set('what its papers say', { ownLimit: read });
    }
  }
  function setNumber(key: 'x_mm' | 'y_mm' | 'rotation_deg', text: string) {
    const n = parseDecimal(text);
    if (n === null || Math.abs(n) > 2000) placing.said = `"${text}" is no number for it.`;
    else {
      placing.said = '';
      set('change a place', { [key]: n });
    }
  }
  function setNets(text: string) {
    const nets: Record<string, string> = {};
    for (const pair of text.split(/[\n,;]+/)) {
      const m = /^\s*([^\s=:]+)\s*[=:\s]\s*(\S.*?)\s*$/.exec(pair);
      if (m) nets[m[1]] = m[2].slice(0, 120);
    }
    set('nets', { nets: Object.keys(nets).length ? nets : undefined });
  }
</script>

<h2 class="mb-2 text-lg">
  {partName(part)} <span class="text-[13px] font-normal text-ink2">{packageById(part.package).label}</span>
</h2>
<div class="grid grid-cols-3 gap-x-3 gap-y-2">
  <label
    ><span class="label">Reference</span><input
      class="field"
      value={part.ref ?? ''}
      maxlength="20"
      onchange={(e) => set('reference', { ref: e.currentTarget.value.trim() || undefined })}
    /></label
  >
  <label class="col-span-2"
    ><span class="label">What it is</span><input
      class="field"
      value={part.what ?? ''}
      maxlength="200"
      onchange={(e) => set('what it is', { what: e.currentTarget.value.trim() || undefined })}
    /></label
  >
  <label
    ><span class="label">Value</span><input
      class="field"
      value={part.value ?? ''}
      maxlength="200"
      onchange={(e) => set('value', { value: e.currentTarget.value.trim() || undefined })}
    /></label
  >
  <Select
    label="Stands"
    class="col-span-2"
    none={`as its package: ${LIMITS.get(packageById(part.package).limit)?.what}`}
    choices={[...LIMITS.values()].map((l) => ({ value: l.id, label: `${l.what}: ${lawWords(l.law)}` }))}
    value={part.limit ? limitRowOf(part).id : ''}
    onchange={(v) => set('what it stands', { limit: v || undefined })}
  />
  <label class="col-span-2"
    ><span class="label">Its own papers say: °C, and for how many s</span><input
      class="field"
      value={part.ownLimit ? `${part.ownLimit.C}${part.ownLimit.s ? ` ${part.ownLimit.s}` : ''}` : ''}
      placeholder="nothing; 250 10"
      inputmode="decimal"
      onchange={(e) => setOwnLimit(e.currentTarget)}
    /></label
  >
  <label
    ><span class="label">x, mm</span><input
      class="field"
      value={part.x_mm}
      inputmode="decimal"
      onchange={(e) => setNumber('x_mm', e.currentTarget.value)}
    /></label
  >
  <label
    ><span class="label">y, mm</span><input
      class="field"
      value={part.y_mm}
      inputmode="decimal"
      onchange={(e) => setNumber('y_mm', e.currentTarget.value)}
    /></label
  >
  <label
    ><span class="label">Rotation, °</span><input
      class="field"
      value={part.rotation_deg}
      inputmode="decimal"
      onchange={(e) => setNumber('rotation_deg', e.currentTarget.value)}
    /></label
  >
</div>
<Fold title="Another package, nets, missing lands" class="mt-3">
  <PackagePick aria-label="Another package" {own} onpick={(id) => set('another package', { package: id })} />
  <label class="mt-2 block"
    ><span class="label">Nets, one to a line: terminal and net</span>
    <textarea
      class="field"
      rows="3"
      spellcheck="false"
      value={Object.entries(part.nets ?? {})
        .map(([t, n]) => `${t} ${n}`)
        .join('\n')}
      onchange={(e) => setNets(e.currentTarget.value)}></textarea>
  </label>
  <label class="mt-2 block"
    ><span class="label">Terminals without a land by design</span>
    <input
      class="field"
      value={(part.noLand ?? []).join(' ')}
      onchange={(e) => {
        const ids = packageById(part.package).terminals.map((t) => t.id);
        const wanted = e.currentTarget.value.split(/[\s,]+/).filter(Boolean);
        const unknown = wanted.filter((w) => !ids.includes(w));
        placing.said = unknown.length ? `${unknown.join(', ')}: no such terminal.` : '';
        if (!unknown.length) set('lands missing by design', { noLand: wanted.length ? wanted : undefined });
      }}
    />
  </label>
</Fold>
<Check
  class="mt-2"
  checked={part.blocksIron ?? false}
  onchange={(on) => set('in the way of an iron', { blocksIron: on || undefined })}
  >in the way of an iron at its neighbours</Check
>
<p class="text-[13px] text-ink2">
  Grip: {grip.tool}, {grip.faces}, {grip.width_mm.toFixed(1)} mm apart, {grip.height_mm.toFixed(1)} mm high.
</p>
<div class="mt-3 flex flex-wrap gap-2">
  <button type="button" class="button px-3" onclick={() => placing.turn(90)}>Turn (R)</button>
  <button type="button" class="button px-3" onclick={() => (placing.mode = 'row')}>Row (W)</button>
  <button type="button" class="button px-3" disabled={!placing.photo} onclick={() => placing.snap(part.partId)}
    >Slide (S)</button
  >
  <button type="button" class="button px-3 text-stop" onclick={() => placing.remove()}>Remove</button>
</div>
