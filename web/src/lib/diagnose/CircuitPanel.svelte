<script lang="ts">
  // The circuit round the fault: parts, nets, values; kept for all jobs on this kind of board.
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import type { Circuit, DiagnoseView } from './view';
  import { isGroundNet, partName } from '@orthos/core/board';
  import {
    circuitOfRail,
    type CircuitPart,
    circuitPartFrom,
    groundOf,
    looseNets,
    netlistSchema,
    netsOf,
    templateById,
    TEMPLATES,
    withTemplate,
  } from '@orthos/core/circuit';
  import type { JobEventBody } from '@orthos/core/job';
  import type { CircuitEditor } from './circuitEditor.svelte';
  import CircuitPartForm from './CircuitPartForm.svelte';
  import LeftOut from './LeftOut.svelte';
  import SupplyForm from './SupplyForm.svelte';
  import TypedParts from './TypedParts.svelte';

  interface Props {
    view: DiagnoseView;
    circuit: Circuit | null;
    editor: CircuitEditor;
    record: (body: JobEventBody) => Promise<boolean>;
  }
  let { view, circuit, editor, record }: Props = $props();
  const desk = useDesk();
  let template = $state('');
  let net = $state('');
  let open = $state<string | null>(null);

  const netlist = $derived(circuit?.netlist ?? null);
  const nets = $derived(
    [...new Set([...(netlist ? netsOf(netlist) : []), ...view.board.parts.flatMap((p) => Object.values(p.nets ?? {}))])]
      .filter((n) => !isGroundNet(n))
      .sort(),
  );
  const boardNets = $derived(
    [...new Set(view.board.parts.flatMap((p) => Object.values(p.nets ?? {})))].filter((n) => !isGroundNet(n)).sort(),
  );
  const loose = $derived(netlist ? looseNets(netlist) : []);
  const target = $derived(view.board.parts.find((p) => p.partId === desk.selected));

  async function addTemplate() {
    const t = templateById(template);
    if (!t) return;
    await (netlist ? editor.save(withTemplate(netlist, t)) : editor.begin(t.name, t.netlist));
    template = '';
  }
  async function addNet() {
    if (!net) return;
    if (!netlist) return editor.begin(`Round ${net}`, circuitOfRail(view.board, net));
    await editor.takeIn(view.board.parts.filter((p) => Object.values(p.nets ?? {}).includes(net)));
  }
  async function addSelected() {
    if (!target) return;
    if (netlist) {
      await editor.takeIn([target]);
      open = target.ref ?? target.partId;
      return;
    }
    const ground = groundOf(view.board);
    const part = circuitPartFrom(target, ground);
    await editor.begin(`Round ${partName(target)}`, netlistSchema.parse({ ground, parts: [part] }));
  }
  const change = (ref: string, part: CircuitPart) =>
    netlist && editor.save({ ...netlist, parts: netlist.parts.map((p) => (p.ref === ref ? part : p)) });
  const remove = (ref: string) =>
    netlist &&
    netlist.parts.length > 1 &&
    editor.save({ ...netlist, parts: netlist.parts.filter((p) => p.ref !== ref) });
</script>

{#if view.circuits.length > 1 || circuit}
  <div class="flex items-end gap-2">
    <div class="min-w-0 flex-1">
      <Select
        label="Circuit"
        choices={view.circuits.map((c) => ({ value: c.id, label: `${c.name}, ${c.netlist.parts.length} parts` }))}
        id="c-choice"
        value={circuit?.id ?? ''}
        onchange={(v) => record({ type: 'circuit-used', circuitId: v })}
      />
    </div>
    <button type="button" class="button" onclick={() => editor.undo()} disabled={editor.busy || !editor.canUndo}
      >Undo</button
    >
    <button type="button" class="button" onclick={() => (desk.lens = 'circuit')}>Draw it</button>
  </div>
{:else}
  <p class="text-ink2">
    No circuit yet. Begin with a usual one, or with the parts on a net; it stays with {view.board.name} for later jobs.
  </p>
{/if}
<Notice text={editor.problem} class="mt-2" />

<div class="mt-3 grid grid-cols-[1fr_auto] items-end gap-2">
  <Select
    label={netlist ? 'Add a usual circuit' : 'A usual circuit'}
    none="choose"
    choices={TEMPLATES.map((t) => ({ value: t.id, label: t.name }))}
    id="c-template"
    bind:value={template}
  />
  <button type="button" class="button" onclick={addTemplate} disabled={editor.busy || !template}
    >{netlist ? 'Add' : 'Begin'}</button
  >
  <Select
    label={netlist ? 'All parts on a net of the board' : 'A rail of the board'}
    none="choose"
    choices={boardNets}
    id="c-net"
    bind:value={net}
  />
  <button type="button" class="button" onclick={addNet} disabled={editor.busy || !net}
    >{netlist ? 'Add' : 'Begin'}</button
  >
</div>
<div class="mt-2 flex gap-2">
  <button type="button" class="button" onclick={addSelected} disabled={editor.busy || !target}
    >{target ? `Add ${partName(target)}` : 'Add the part chosen on the board'}</button
  >
</div>

<TypedParts {view} {netlist} {editor} />

{#if netlist}
  {#if loose.length}<p class="mt-3 text-[13px] font-semibold text-caution">
      ▲ Only one pin is on {loose.slice(0, 4).join(', ')}{loose.length > 4 ? ` and ${loose.length - 4} more` : ''}: a
      name mistyped?
    </p>{/if}
  <datalist id="c-nets"
    >{#each [netlist.ground, ...nets] as n (n)}<option value={n}></option>{/each}</datalist
  >
  <LeftOut {view} {netlist} {editor} />
  <h3 class="mt-5 mb-1 text-[13px] text-ink2">Parts</h3>
  <ul>
    {#each netlist.parts as part (part.ref)}
      <li class="border-t border-faint">
        <button
          type="button"
          class="flex min-h-10 w-full items-baseline gap-2 py-1.5 text-left"
          aria-expanded={open === part.ref}
          onclick={() => (open = open === part.ref ? null : part.ref)}
        >
          <span class="w-14 shrink-0 font-bold">{part.ref}</span>
          <span class="min-w-0 flex-1 truncate text-ink2">{Object.values(part.pins).join(' – ')}</span>
        </button>
        {#if open === part.ref}
          <CircuitPartForm
            {part}
            board={view.board}
            ground={netlist.ground}
            onChange={(p) => change(part.ref, p)}
            onRemove={() => remove(part.ref)}
          />
        {/if}
      </li>
    {/each}
  </ul>
  <SupplyForm {netlist} onChange={(n) => editor.save(n)} />
{/if}
