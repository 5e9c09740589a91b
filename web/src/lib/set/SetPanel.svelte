<script lang="ts">
  // Which parts are done together, and what becomes of each: chosen by kind, by net, by rubbing over them, from a kept list.
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import Waits from '$lib/jobs/Waits.svelte';
  import type { JobView } from '$lib/jobs/view';
  import Fold from '$lib/ui/Fold.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import Select from '$lib/ui/Select.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { solderedTerminals, type PlacedPart } from '@orthos/core/board';
  import { type SetSaid, setProgress } from '@orthos/core/job';
  import { partAt } from '@orthos/core/scene';
  import { untrack } from 'svelte';
  import { circuitRound, kindsOn, netsOn, type Together } from './kinds';
  import { Lists } from './lists.svelte';
  import SetItemForm from './SetItemForm.svelte';
  import SetTable from './SetTable.svelte';
  import { countWords } from './words';

  let { view }: { view: JobView } = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));
  const lists = new Lists(untrack(() => view.modelId));

  const job = $derived(stateOf(view.events));
  const progress = $derived(setProgress(job));
  const items = $derived(progress?.parts.map((p) => p.item) ?? []);
  const listed = $derived(new Set(items.map((i) => i.partId)));
  const picked = $derived(items.find((i) => i.partId === desk.selected));
  /** The circuit of the part that is looked at, where its nets are known. */
  const round = $derived.by((): Together | null => {
    if (desk.selected === null) return null;
    const parts = circuitRound(view.board, desk.selected);
    return parts.length > 1
      ? { key: 'circuit', label: `the circuit of ${nameOf(view.board, desk.selected)}`, parts }
      : null;
  });
  /** What was begun stays in the set. */
  const begun = $derived(new Set(progress?.parts.filter((p) => p.state !== 'waiting').map((p) => p.item.partId)));
  const kinds = $derived(kindsOn(view.board));
  const nets = $derived(netsOn(view.board));

  layOver(desk, () => ({
    numbered: items.map((i) => ({ partId: i.partId, n: 0, tone: begun.has(i.partId) ? 'done' : 'listed' }) as const),
  }));

  const fresh = ({ partId, side }: PlacedPart): SetSaid => ({ partId, side });
  async function add(parts: readonly PlacedPart[]) {
    const more = parts.filter((p) => !listed.has(p.partId) && solderedTerminals(p).length > 0);
    if (more.length > 0) await recorder.record({ type: 'set-parts', items: more.map(fresh) });
  }
  async function drop(partIds: readonly string[]) {
    const gone = partIds.filter((id) => listed.has(id) && !begun.has(id));
    if (gone.length > 0) await recorder.record({ type: 'set-dropped', partIds: gone });
  }
  const isIn = ({ parts }: Together) => parts.every((p) => listed.has(p.partId));
  const toggle = (group: Together) => (isIn(group) ? drop(group.parts.map((p) => p.partId)) : add(group.parts));

  /** Rubbing over parts takes them in, or out where the first one was in. */
  let rubbing = $state(false);
  let stroke: { takesOut: boolean; parts: Map<string, PlacedPart> } | null = null;
  $effect(() => {
    if (!rubbing) return;
    const touch = ({ x_mm, y_mm, mm_px }: { x_mm: number; y_mm: number; mm_px: number }) => {
      const part = partAt(view.board, desk.side, x_mm, y_mm, 4 * mm_px);
      if (part && stroke) stroke.parts.set(part.partId, part);
    };
    const tool = {
      cross: true,
      down(at: Parameters<typeof touch>[0]) {
        const first = partAt(view.board, desk.side, at.x_mm, at.y_mm, 4 * at.mm_px);
        stroke = { takesOut: first !== null && first !== undefined && listed.has(first.partId), parts: new Map() };
        touch(at);
        return true;
      },
      move(at: Parameters<typeof touch>[0]) {
        if (!stroke) return false;
        touch(at);
        return true;
      },
      up() {
        const was = stroke;
        stroke = null;
        if (!was) return false;
        void (was.takesOut ? drop([...was.parts.keys()]) : add([...was.parts.values()]));
        return true;
      },
    };
    desk.tool = tool;
    return () => {
      if (desk.tool === tool) desk.tool = undefined;
    };
  });

  useKeys('Set', () => [
    { keys: ['e'], label: rubbing ? 'done rubbing over parts' : 'rub over parts', run: () => (rubbing = !rubbing) },
    ...(desk.selected && !picked
      ? [{ keys: ['Insert', 'i'], shown: ['I'], label: 'into the set', run: () => void addSelected() }]
      : []),
    ...(picked && !begun.has(picked.partId)
      ? [{ keys: ['Delete'], label: 'out of the set', run: () => void drop([picked.partId]) }]
      : []),
  ]);
  async function addSelected() {
    const part = view.board.parts.find((p) => p.partId === desk.selected);
    if (part) await add([part]);
  }
  let net = $state('');
  async function takeNet(name: string) {
    const found = nets.find((n) => n.key === name);
    net = '';
    if (found) await add(found.parts);
  }
  let list = $state('');
  async function takeList(id: string) {
    const found = lists.all.find((l) => l.id === id);
    list = '';
    if (!found) return;
    // a part that this version of the board does not have is named, the others are taken
    const known = found.items.filter((i) => view.board.parts.some((p) => p.partId === i.partId));
    const gone = found.items.length - known.length;
    const fresh = known.filter((i) => !begun.has(i.partId));
    if (fresh.length > 0 && !(await recorder.record({ type: 'set-parts', items: fresh }))) return;
    if (gone > 0) recorder.problem = `${gone} of the list ${gone === 1 ? 'is' : 'are'} not on this board.`;
  }
  let name = $state('');
  async function keep() {
    if (!name.trim() || items.length === 0) return;
    if (await lists.keep(name.trim(), items)) name = '';
  }
</script>

<section class="border-b border-line p-5 pt-4" aria-label="Set">
  <div class="flex flex-wrap items-baseline justify-between gap-x-4">
    <h2 class="text-xl">
      {items.length === 0
        ? 'Which parts together?'
        : items.length === 1
          ? 'One part so far'
          : `${items.length} parts together`}
    </h2>
    {#if progress && items.length > 0}<span class="text-[13px] text-ink2">{countWords(progress)}</span>{/if}
  </div>
  <Notice text={recorder.problem ?? lists.problem} at="panel" class="mt-2" />

  {#await import('$lib/donor/DonorPanel.svelte') then { default: DonorPanel }}
    <DonorPanel {view} {desk} {recorder} {items} {begun} />
  {/await}
  <div class="mt-2 flex flex-wrap gap-2" role="group" aria-label="By kind">
    {#each kinds.slice(0, 7) as kind (kind.key)}
      <button
        class="button {isIn(kind) ? 'border-evidence bg-evidence-soft' : ''}"
        aria-pressed={isIn(kind)}
        disabled={recorder.busy}
        onclick={() => void toggle(kind)}
      >
        {kind.parts.length}
        {kind.label}
      </button>
    {/each}
  </div>
  <div class="mt-2 flex flex-wrap items-center gap-2">
    <button
      class="button {rubbing ? 'border-hot bg-hot-soft' : ''}"
      aria-pressed={rubbing}
      onclick={() => (rubbing = !rubbing)}><kbd class="keycap">E</kbd> rub over parts</button
    >
    {#if round}
      <button
        class="button {isIn(round) ? 'border-evidence bg-evidence-soft' : ''}"
        aria-pressed={isIn(round)}
        disabled={recorder.busy}
        onclick={() => void toggle(round)}
      >
        {round.parts.length}: {round.label}
      </button>
    {/if}
    {#if nets.length > 0}
      <Select
        aria-label="By net"
        class="w-40"
        none="by net"
        choices={nets.map((n) => ({ value: n.key, label: `${n.label}, ${n.parts.length}` }))}
        bind:value={net}
        onchange={takeNet}
      />
    {/if}
    {#if lists.all.length > 0}
      <Select
        aria-label="From a kept list"
        class="w-48"
        none="from a kept list"
        choices={lists.all.map((l) => ({ value: l.id, label: `${l.name}, ${l.items.length}` }))}
        bind:value={list}
        onchange={takeList}
      />
    {/if}
  </div>

  {#if progress && items.length > 0}
    <div class="mt-3"><SetTable board={view.board} {desk} parts={progress.parts} /></div>
    {#if progress.missing.length > 0}
      <p class="mt-2 text-[14px] text-stop">
        <span aria-hidden="true">▲</span> Not here yet: {progress.missing
          .map((i) => nameOf(view.board, i.partId))
          .join(', ')}. Before the heat, or they stay off until it comes.
      </p>
      <Waits {job} {recorder} missing={progress.missing.map((i) => nameOf(view.board, i.partId)).join(', ')} />
    {/if}
    {#if picked}
      {#key picked.partId}
        <SetItemForm
          {view}
          {items}
          item={picked}
          {recorder}
          begun={begun.has(picked.partId)}
          onDrop={(ids) => void drop(ids)}
        />
      {/key}
    {:else}
      <p class="mt-2 text-[13px] text-ink2">Pick a row: what goes in, where it lies, what becomes of it.</p>
    {/if}
    <div class="mt-3 flex flex-wrap items-end gap-2">
      <label class="flex-1"
        ><span class="label">Keep as a list of {view.board.name}</span><input
          class="field"
          placeholder="all cans, or only what the conversion needs"
          maxlength="80"
          bind:value={name}
          onkeydown={(e) => e.key === 'Enter' && void keep()}
        /></label
      >
      <button class="button" disabled={!name.trim()} onclick={() => void keep()}>Keep</button>
      <a class="button button-main" href="/jobs/{view.ticket.id}/plan">In which order?</a>
    </div>
  {/if}
  {#if lists.all.length > 0 || lists.forgotten}
    <Fold title="Kept lists" quiet>
      {#each lists.all as l (l.id)}
        <p class="flex items-center gap-3 text-[14px]">
          <span class="flex-1">{l.name}, {l.items.length}</span>
          <button class="button" aria-label="Forget the list {l.name}" onclick={() => void lists.forget(l)}
            >Forget</button
          >
        </p>
      {/each}
      {#if lists.forgotten}
        <p class="flex items-center gap-3 text-[14px]" role="status">
          <span class="flex-1 text-ink2">“{lists.forgotten.name}” is forgotten.</span>
          <button class="button" onclick={() => void lists.keepAfterAll()}>Keep it after all</button>
        </p>
      {/if}
    </Fold>
  {/if}
</section>
