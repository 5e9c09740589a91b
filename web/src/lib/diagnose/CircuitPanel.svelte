<script lang="ts">
  // The circuit round the fault: parts, nets, values; kept for all jobs on this kind of board.
  import { useDesk } from '$lib/jobs/desk.svelte';
  import { reload, send, SendError } from '$lib/jobs/send';
  import type { Circuit, DiagnoseView } from './view';
  import {
    circuitOfNet,
    circuitPartFrom,
    freeRef,
    groundOf,
    isGroundNet,
    looseNets,
    netlistSchema,
    netsOf,
    partName,
    TEMPLATES,
    templateById,
    tidied,
    withTemplate,
    type CircuitPart,
    type JobEventBody,
    type Netlist,
  } from '@orthos/core';
  import { v7 } from 'uuid';
  import CircuitPartForm from './CircuitPartForm.svelte';
  import SupplyForm from './SupplyForm.svelte';

  interface Props {
    view: DiagnoseView;
    circuit: Circuit | null;
    record: (body: JobEventBody) => Promise<boolean>;
  }
  let { view, circuit, record }: Props = $props();
  const desk = useDesk();
  let problem = $state('');
  let busy = $state(false);
  let template = $state('');
  let net = $state('');
  let open = $state<string | null>(null);
  /** Earlier states of this circuit, for undo. */
  let past = $state.raw<Netlist[]>([]);

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

  async function attempt(work: () => Promise<void>) {
    busy = true;
    try {
      await work();
      problem = '';
    } catch (e) {
      problem =
        e instanceof SendError && e.status === 409
          ? 'Somebody else has changed this circuit; theirs is shown now. Make your change again.'
          : (e as Error).message;
      if (e instanceof SendError && e.status === 409) await reload('job:board');
    } finally {
      busy = false;
    }
  }
  const begin = (name: string, made: Netlist) =>
    attempt(async () => {
      const id = v7();
      await send('POST', `/api/boards/${view.modelId}/circuits`, { id, name, netlist: made });
      await reload('job:board');
      past = [];
      await record({ type: 'circuit-used', circuitId: id });
    });
  const save = (next: Netlist, keep = true) =>
    attempt(async () => {
      if (!circuit) return;
      const checked = netlistSchema.safeParse(tidied(next));
      if (!checked.success) throw new Error(checked.error.issues.map((i) => i.message).join('; '));
      const before = circuit.netlist;
      await send('PUT', `/api/circuits/${circuit.id}`, {
        version: circuit.version,
        name: circuit.name,
        netlist: checked.data,
      });
      if (keep) past = [...past.slice(-49), before];
      await reload('job:board');
    });
  async function undo() {
    const last = past.at(-1);
    if (!last) return;
    past = past.slice(0, -1);
    await save(last, false);
  }
  async function addTemplate() {
    const t = templateById(template);
    if (!t) return;
    await (netlist ? save(withTemplate(netlist, t)) : begin(t.name, t.netlist));
    template = '';
  }
  async function addNet() {
    if (!net) return;
    const made = circuitOfNet(view.board, net);
    if (!netlist) return begin(`Round ${net}`, made);
    const known = new Set(netlist.parts.map((p) => p.partId ?? p.ref));
    const fresh = made.parts.filter((p) => !known.has(p.partId ?? p.ref));
    if (fresh.length === 0) return (problem = `all parts on ${net} are in the circuit already`);
    return save({ ...netlist, parts: [...netlist.parts, ...fresh] });
  }
  async function addSelected() {
    if (!target) return;
    const part = circuitPartFrom(target, netlist?.ground ?? groundOf(view.board));
    if (!netlist)
      return begin(`Round ${partName(target)}`, netlistSchema.parse({ ground: groundOf(view.board), parts: [part] }));
    if (netlist.parts.some((p) => (p.partId ?? p.ref) === (part.partId ?? part.ref)))
      return (problem = `${partName(target)} is in the circuit already`);
    open = part.ref;
    return save({ ...netlist, parts: [...netlist.parts, part] });
  }
  async function addTyped() {
    if (!netlist) return;
    const ref = freeRef(netlist, 'R1');
    const part: CircuitPart = {
      kind: 'R',
      ref,
      pins: { 1: netsOf(netlist)[0] ?? netlist.ground, 2: netlist.ground },
      value: 10e3,
    };
    open = ref;
    await save({ ...netlist, parts: [...netlist.parts, part] });
  }
  const change = (ref: string, part: CircuitPart) =>
    netlist && save({ ...netlist, parts: netlist.parts.map((p) => (p.ref === ref ? part : p)) });
  const remove = (ref: string) =>
    netlist && netlist.parts.length > 1 && save({ ...netlist, parts: netlist.parts.filter((p) => p.ref !== ref) });
</script>

{#if view.circuits.length > 1 || circuit}
  <div class="flex items-end gap-2">
    <div class="min-w-0 flex-1">
      <label class="label" for="c-choice">Circuit</label>
      <select
        id="c-choice"
        class="field"
        value={circuit?.id}
        onchange={(e) => record({ type: 'circuit-used', circuitId: e.currentTarget.value })}
      >
        {#each view.circuits as c (c.id)}<option value={c.id}>{c.name}, {c.netlist.parts.length} parts</option>{/each}
      </select>
    </div>
    <button type="button" class="button" onclick={undo} disabled={busy || past.length === 0}>Undo</button>
    <button type="button" class="button" onclick={() => (desk.lens = 'circuit')}>Draw it</button>
  </div>
{:else}
  <p class="text-ink2">
    No circuit yet. Begin with a usual one, or with the parts on a net; it stays with {view.board.name} for later jobs.
  </p>
{/if}
{#if problem}<p role="alert" class="mt-2 font-semibold text-stop">{problem}</p>{/if}

<div class="mt-3 grid grid-cols-[1fr_auto] items-end gap-2">
  <div>
    <label class="label" for="c-template">{netlist ? 'Add a usual circuit' : 'A usual circuit'}</label>
    <select id="c-template" class="field" bind:value={template}>
      <option value="">choose</option>
      {#each TEMPLATES as t (t.id)}<option value={t.id}>{t.name}</option>{/each}
    </select>
  </div>
  <button type="button" class="button" onclick={addTemplate} disabled={busy || !template}
    >{netlist ? 'Add' : 'Begin'}</button
  >
  <div>
    <label class="label" for="c-net">All parts on a net of the board</label>
    <select id="c-net" class="field" bind:value={net}>
      <option value="">choose</option>
      {#each boardNets as n (n)}<option value={n}>{n}</option>{/each}
    </select>
  </div>
  <button type="button" class="button" onclick={addNet} disabled={busy || !net}>{netlist ? 'Add' : 'Begin'}</button>
</div>
<div class="mt-2 flex gap-2">
  <button type="button" class="button" onclick={addSelected} disabled={busy || !target}
    >{target ? `Add ${partName(target)}` : 'Add the part chosen on the board'}</button
  >
  {#if netlist}<button type="button" class="button" onclick={addTyped} disabled={busy}>Add by hand</button>{/if}
</div>

{#if netlist}
  {#if loose.length}<p class="mt-3 text-[13px] font-semibold text-caution">
      ▲ Only one pin is on {loose.slice(0, 4).join(', ')}{loose.length > 4 ? ` and ${loose.length - 4} more` : ''}: a
      name mistyped?
    </p>{/if}
  <datalist id="c-nets"
    >{#each [netlist.ground, ...nets] as n (n)}<option value={n}></option>{/each}</datalist
  >
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
            onChange={(p) => change(part.ref, p)}
            onRemove={() => remove(part.ref)}
          />
        {/if}
      </li>
    {/each}
  </ul>
  <SupplyForm {netlist} onChange={(n) => save(n)} />
{/if}
