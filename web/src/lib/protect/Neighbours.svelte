<script lang="ts">
  // Who stands round the target and what is done about it: by the plan, in the wind, under foil, one by one.
  import { nameOf } from '$lib/jobs/nameOf';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { fateText, neighbourKind } from '$lib/plan/words';
  import Select from '$lib/ui/Select.svelte';
  import type { Side } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import { COVER_NAMES, isMetal, TAKEN_OUT } from '@orthos/core/hands';
  import { type Attempt, blocks, type GateResult } from '@orthos/core/job';
  import { fateOf, kindOf } from '@orthos/core/rework';
  import { untrack } from 'svelte';
  import { type Bearing, registration } from '$lib/part/landmarks';
  import { packageById } from '@orthos/core/packages';
  import { aboutNeighbour, byPlanOf, computedFor, mustGo, needOf } from './planned';

  interface Props {
    view: JobView;
    attempt: Attempt;
    recorder: Recorder;
    units: UnitSettings;
    /** The side one works on. */
    side: Side;
    marks: Bearing[];
    /** Of power. */
    gate: GateResult | undefined;
  }
  let { view, attempt, recorder, units, side, marks, gate }: Props = $props();

  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  const result = $derived(view.inUse?.result);
  const byPlan = $derived(byPlanOf(view));
  /** Small parts in the wind are covered together. */
  const blown = $derived(
    view.hotNeighbours.filter((id) => {
      const n = computedFor(view, id);
      return n && result && !byPlan.has(id) && fateOf(result, n).first === 'wind';
    }),
  );
  const wanted = $derived(view.hotNeighbours.filter((id) => byPlan.has(id)));
  const alone = $derived(
    view.hotNeighbours.filter((id) => !blown.includes(id) && (!byPlan.has(id) || !attempt.neighbours.has(id))),
  );
  const howOf = (partId: string): string | undefined => {
    const done = attempt.neighbours.get(partId);
    return done?.type === 'neighbour-covered' ? done.how : undefined;
  };

  /** Why no metal may lie on the board yet. */
  const noMetal = $derived(gate && blocks(gate) ? gate.why : null);
  /** Those that nobody has dealt with, in one act. */
  async function coverAll(ids: readonly string[], how: (partId: string) => string) {
    const open = ids.filter((id) => !attempt.neighbours.has(id)).map((partId) => ({ partId, how: how(partId) }));
    if (noMetal !== null && open.some((c) => isMetal(c.how))) {
      recorder.problem = `No metal on the board yet: ${noMetal}.`;
      return;
    }
    await recorder.recordAll(open.map((c) => ({ type: 'neighbour-covered', ...c, ...aboutNeighbour(view) })));
  }
  /** What this bench has to cover a part with. */
  const covers = $derived(
    (['foil', 'tape', 'strip', 'thick'] as const).flatMap((kind) =>
      view.inputs?.bench.covers?.includes(kind) === false ? [] : [COVER_NAMES[kind]],
    ),
  );
  let cover = $state<Record<string, string>>({});
  let accept = $state<Record<string, string>>({});
  let windCover = $state(untrack(() => covers.find((c) => c === COVER_NAMES.tape) ?? covers[0] ?? TAKEN_OUT));
  const usualFor = (partId: string) =>
    byPlan.get(partId) ?? (mustGo(view, partId) ? TAKEN_OUT : (covers[0] ?? TAKEN_OUT));
  async function acceptIt(partId: string) {
    const why = (accept[partId] ?? '').trim();
    if (!why) return (recorder.problem = `Why may ${nameOf(view.board, partId)} get that hot?`);
    await recorder.record({ type: 'neighbour-accepted', partId, why, ...aboutNeighbour(view) });
  }
  /** Its own cover of foil, cut and folded by a print. */
  async function printCover(partId: string) {
    const part = view.board.parts.find((p) => p.partId === partId);
    if (!part) return;
    const name = nameOf(view.board, partId);
    const { package: pkg, x_mm, y_mm, rotation_deg, side: on } = part;
    const height_mm = packageById(pkg).body.h;
    const title = `${name} on ${view.board.name}`.slice(0, 120);
    const input = { package: pkg, x_mm, y_mm, rotation_deg, side: on, height_mm, title };
    try {
      const { printFoil } = await import('./printFoil');
      await printFoil('protect.cover', input, `cover-${name}`, 'pdf');
    } catch (e) {
      recorder.problem = (e as Error).message;
    }
  }
  const foilHere = $derived(
    view.inputs?.bench.covers?.includes('foil') !== false &&
      view.inUse !== null &&
      side === target?.side &&
      view.inUse.method.phases.some((p) => kindOf(p).tool === 'air'),
  );
</script>

{#if view.inUse === null}
  <p class="text-ink2">No plan in use. <a class="underline" href="/jobs/{view.ticket.id}/plan">Plan</a></p>
{/if}
{#if wanted.length > 0}
  <div class="border-t border-faint py-2" role="group" aria-label="By the plan">
    <p class="flex gap-2">
      <span class="font-semibold">By the plan</span>
      <span class="flex-1 text-ink2"
        >{wanted.map((id) => `${nameOf(view.board, id)} ${byPlan.get(id)}`).join(', ')}</span
      >
    </p>
    {#if wanted.every((id) => attempt.neighbours.has(id))}
      {@const not = wanted.filter((id) => howOf(id) !== byPlan.get(id))}
      {#if not.length === 0}<p class="text-[13px] text-good">✓ all as planned</p>
      {:else}
        <p class="text-[13px] text-caution">
          ◆ {not.map((id) => `${nameOf(view.board, id)} ${howOf(id) ?? 'left open'}`).join(', ')}: times are computed
          anew for it
        </p>
      {/if}
    {:else}
      <button class="button mt-1 px-3" onclick={() => coverAll(wanted, (id) => byPlan.get(id) ?? '')}
        >All as planned</button
      >
    {/if}
  </div>
{/if}
{#if blown.length > 0}
  <div class="border-t border-faint py-2">
    <p class="flex gap-2">
      <span class="font-semibold">In the wind</span>
      <span class="flex-1 text-ink2">{blown.map((id) => nameOf(view.board, id)).join(', ')}</span>
      <span class="text-stop">▲ loose before the part is off</span>
    </p>
    {#if blown.every((id) => attempt.neighbours.has(id))}
      <p class="text-[13px] text-good">✓ all covered or accepted</p>
    {:else}
      <div class="mt-1 flex gap-2">
        <Select
          class="w-32 shrink-0"
          choices={[...covers, TAKEN_OUT]}
          bind:value={windCover}
          aria-label="Cover against the wind"
        />
        <button class="button px-3" onclick={() => coverAll(blown, () => windCover)}>All covered</button>
      </div>
    {/if}
  </div>
{/if}
{#if foilHere && target}
  {#await import('./FoilWindow.svelte') then { default: FoilWindow }}
    <FoilWindow
      {view}
      {target}
      landmarks={registration(view.board, marks)}
      powered={noMetal}
      onLaid={(ids) => coverAll(ids, () => COVER_NAMES.foil)}
      laid={(ids) => ids.every((id) => attempt.neighbours.has(id))}
    />
  {/await}
{/if}
{#each alone as id (id)}
  {@const n = computedFor(view, id)}
  {@const done = attempt.neighbours.get(id)}
  <div class="border-t border-faint py-2">
    <p class="flex gap-2">
      <span class="font-semibold">{nameOf(view.board, id)}</span>
      <span class="flex-1 truncate text-ink2">{neighbourKind(view.board, id)}</span>
      {#if byPlan.has(id)}<span class="text-ink2">{needOf(view, id)}</span>
      {:else if n && result}
        {@const fate = fateOf(result, n)}
        <span class="text-stop"
          >▲ {mustGo(view, id) ? 'take it out first' : `${fate.word}, ${fateText(n, fate, units)}`}</span
        >
      {/if}
    </p>
    {#if done}
      <p class="text-[13px] text-good">
        ✓ {done.type === 'neighbour-covered' ? `covered: ${done.how}` : `accepted: ${done.why}`}
      </p>
    {:else}
      <div class="mt-1 flex gap-2">
        <Select
          class="w-32 shrink-0"
          choices={n?.takeOut ? [TAKEN_OUT] : [...new Set([usualFor(id), ...covers, TAKEN_OUT])]}
          bind:value={cover[id]}
          aria-label="Cover for {nameOf(view.board, id)}"
        />
        <button class="button px-3" onclick={() => coverAll([id], () => cover[id] ?? usualFor(id))}
          >{n?.takeOut ? 'It is out' : 'Covered'}</button
        >
        {#if (cover[id] ?? usualFor(id)) === COVER_NAMES.foil}
          <button
            class="button px-3"
            onclick={() => printCover(id)}
            aria-label="Print the cover of {nameOf(view.board, id)}">1:1</button
          >
        {/if}
        {#if !mustGo(view, id)}
          <input
            class="field"
            bind:value={accept[id]}
            placeholder="or accept, why"
            aria-label="Why {nameOf(view.board, id)} may get that hot"
            maxlength="2000"
          />
          <button class="button px-3" onclick={() => acceptIt(id)}>Accept</button>
        {/if}
      </div>
    {/if}
  </div>
{/each}
