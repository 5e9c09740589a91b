<script lang="ts">
  import { ticked } from '$lib/ui/choices';
  import Check from '$lib/ui/Check.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import Cautions from '$lib/jobs/Cautions.svelte';
  import { aboutWork } from '$lib/jobs/about';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import GateHead from '$lib/jobs/GateHead.svelte';
  import Override from '$lib/jobs/Override.svelte';
  import { Recorder } from '$lib/jobs/recorder.svelte';
  import SourceForm from '$lib/jobs/SourceForm.svelte';
  import { SOURCE_NAMES } from '$lib/jobs/sources';
  import { nameOf } from '$lib/jobs/nameOf';
  import { fateText, neighbourKind } from '$lib/plan/words';
  import type { JobView } from '$lib/jobs/view';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { partName, type SourceKind, toBoard } from '@orthos/core/board';
  import { formatLength, parseDecimal, type UnitSettings } from '@orthos/core/ground';
  import { COVER_NAMES, plannedCovers, TAKEN_OUT, workSide } from '@orthos/core/hands';
  import { currentAttempt, HOLDS_CHARGE, JOB_TYPES } from '@orthos/core/job';
  import { fateOf, heatAt, heatOnDial, kindOf } from '@orthos/core/rework';
  import { goto } from '$app/navigation';
  import { untrack } from 'svelte';
  import { bearings, bearingText } from './landmarks';

  let { view, units }: { view: JobView; units: UnitSettings } = $props();
  const desk = useDesk();
  const recorder = new Recorder(untrack(() => view.ticket.id));

  const job = $derived(stateOf(view.events));
  const attempt = $derived(currentAttempt(job));
  const gate = (id: string) => view.gates.find((g) => g.id === id);
  const gates = $derived(view.gates.filter((g) => g.step === 'protect'));
  const sources = $derived([
    ...view.board.powerSources.map((s) => ({ ...s, kind: s.kind ?? ('lead' as SourceKind) })),
    ...job.sources,
  ]);
  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  /** What the events here say of the work they are for. */
  const byMethod = $derived(view.inUse ? { methodId: view.inUse.method.id } : {});
  const ofTarget = $derived(aboutWork(view));
  const forTarget = $derived({
    boardId: view.ticket.boardId,
    ...(target ? { target: target.partId } : {}),
    ...byMethod,
  });
  /** The side one works on. */
  const side = $derived(target ? workSide(target, view.inUse?.method) : 'top');
  const marks = $derived(target ? bearings(view.board, target, side) : []);
  const panel = $derived(view.inputs?.panel ?? units);
  const layOut = $derived(view.layOut);
  const nextStep = $derived(JOB_TYPES[view.ticket.kind].skips.includes('remove') ? 'fit' : 'remove');

  const HOW: Record<SourceKind, string> = {
    lead: 'pulled and laid aside',
    cell: 'taken out',
    capacitor: 'discharged through a resistor, waited a minute',
    mains: 'plug pulled, bled, waited a minute',
    none: 'nothing connected',
  };
  /** What a tool is set to, as its dial says it. */
  function onDial(id: string, value: number): { value: number; unit: string } {
    const p = layOut?.setPoints.find((q) => q.id === id);
    return p?.unit === '°C' ? heatOnDial(value, p.dial, panel) : { value, unit: p?.unit ?? '' };
  }
  let residual = $state<Record<string, string>>({});
  let seen = $state<string[]>(untrack(() => attempt.targetConfirmed?.landmarks ?? []));
  let cover = $state<Record<string, string>>({});
  let accept = $state<Record<string, string>>({});
  let tools = $state<string[]>(untrack(() => attempt.laidOut?.tools ?? []));
  let setTo = $state<Record<string, string>>({});
  $effect(() => {
    // as planned, unless the tool was set otherwise
    const at = [...(attempt.laidOut?.setPoints ?? []), ...(layOut?.setPoints ?? [])];
    untrack(() => {
      for (const p of at) setTo[p.id] ??= String(onDial(p.id, p.value).value);
    });
  });

  // the target and its landmarks on the stage, on the side one works from
  $effect(() => {
    if (!target) return;
    const shown = { partId: target.partId, side };
    untrack(() => {
      desk.lens = 'parts';
      desk.show(shown);
    });
  });
  layOver(desk, () => {
    if (!target) return {};
    const [x_mm, y_mm] = toBoard(target, 0, 0);
    return {
      callouts: [
        {
          id: target.partId,
          x_mm,
          y_mm,
          side,
          title: `${partName(target)}, the target`,
          detail: attempt.targetConfirmed ? 'confirmed' : 'confirm from two landmarks',
          tone: attempt.targetConfirmed ? 'evidence' : 'hot',
        },
        ...view.hotNeighbours.flatMap((id) => {
          const part = view.board.parts.find((p) => p.partId === id && p.side === side);
          if (!part) return [];
          const dealtWith = attempt.neighbours.has(id);
          return [
            {
              id,
              x_mm: part.x_mm,
              y_mm: part.y_mm,
              side,
              title: partName(part),
              detail: dealtWith ? 'dealt with' : todoFor(id),
              tone: dealtWith ? ('evidence' as const) : ('stop' as const),
            },
          ];
        }),
      ],
    };
  });

  async function gone(id: string, kind: SourceKind) {
    const text = (residual[id] ?? '').trim();
    const volts = text === '' ? undefined : (parseDecimal(text) ?? undefined);
    if (text !== '' && (volts === undefined || volts < 0 || volts > 2000))
      return (recorder.problem = 'What the meter still shows, in volts: a number from 0 to 2000.');
    if (HOLDS_CHARGE.has(kind) && volts === undefined)
      return (recorder.problem = 'It holds its charge: measure again after a minute and type the volts.');
    const stored = await recorder.record({
      type: 'power-gone',
      sourceId: id,
      how: HOW[kind],
      ...(volts === undefined ? {} : { residual_V: volts }),
    });
    if (!stored || kind !== 'cell') return;
    // a cell that was taken out of its holder is out of the heat as well
    const label = sources.find((s) => s.id === id)?.label ?? '';
    for (const partId of view.hotNeighbours)
      if (mustGo(partId) && !attempt.neighbours.has(partId) && label.includes(nameOf(view.board, partId)))
        await recorder.record({ type: 'neighbour-covered', partId, how: TAKEN_OUT, ...forTarget });
  }
  async function confirmTarget() {
    if (seen.length < 2) return (recorder.problem = 'Find the target from two landmarks, then confirm it.');
    await recorder.record({ type: 'target-confirmed', landmarks: seen, ...ofTarget });
  }
  const planned = (partId: string) => view.inUse?.result.neighbours.find((n) => n.partId === partId);
  const mustGo = (partId: string) => planned(partId)?.takeOut ?? false;
  /** What the plan counts on being over a part, or that it is off the board. */
  const byPlan = $derived(
    new Map(plannedCovers(view.inputs?.settings.surroundings ?? {}).map(({ partId, how }) => [partId, how])),
  );
  const todoFor = (partId: string) => {
    const how = byPlan.get(partId);
    if (how) return how === TAKEN_OUT ? 'comes out, by the plan' : `${how}, by the plan`;
    return mustGo(partId) ? 'take it out first' : 'too hot for it: cover';
  };
  const result = $derived(view.inUse?.result);
  /** Small parts in the wind are covered together. */
  const blown = $derived(
    view.hotNeighbours.filter((id) => {
      const n = planned(id);
      return n && result && !byPlan.has(id) && fateOf(result, n).first === 'wind';
    }),
  );
  const wanted = $derived(view.hotNeighbours.filter((id) => byPlan.has(id)));
  const alone = $derived(
    view.hotNeighbours.filter((id) => !blown.includes(id) && (!byPlan.has(id) || !attempt.neighbours.has(id))),
  );
  /** Those that nobody has dealt with, in one act. */
  async function coverAll(ids: readonly string[], how: (partId: string) => string) {
    const open = ids.filter((id) => !attempt.neighbours.has(id));
    await recorder.recordAll(
      open.map((partId) => ({ type: 'neighbour-covered', partId, how: how(partId), ...forTarget })),
    );
  }
  /** Two landmarks far from each other, by which a print is laid. */
  const registration = $derived.by(() => {
    const places = [
      ...view.board.landmarks.map(({ label, x_mm, y_mm }) => ({ name: label, x_mm, y_mm })),
      ...marks.flatMap((m) => {
        const part = view.board.parts.find((p) => p.partId === m.id);
        return part ? [{ name: m.label, x_mm: part.x_mm, y_mm: part.y_mm }] : [];
      }),
    ];
    let best: typeof places = [];
    let far_mm = 2;
    for (const a of places)
      for (const b of places) {
        const apart = Math.hypot(a.x_mm - b.x_mm, a.y_mm - b.y_mm);
        if (apart > far_mm) [far_mm, best] = [apart, [a, b]];
      }
    return best;
  });
  const foilHere = $derived(
    view.inputs?.bench.covers?.includes('foil') !== false &&
      view.inUse !== null &&
      side === target?.side &&
      view.inUse.method.phases.some((p) => kindOf(p).tool === 'air'),
  );
  async function coverWanted() {
    await coverAll(wanted, (id) => byPlan.get(id) ?? '');
  }
  /** What this bench has to cover a part with. */
  const covers = $derived(
    (['foil', 'tape', 'strip', 'thick'] as const).flatMap((kind) =>
      view.inputs?.bench.covers?.includes(kind) === false ? [] : [COVER_NAMES[kind]],
    ),
  );
  let windCover = $state(untrack(() => covers.find((c) => c === 'heat tape') ?? covers[0] ?? TAKEN_OUT));
  async function coverBlown() {
    await coverAll(blown, () => windCover);
  }
  const usualFor = (partId: string) => byPlan.get(partId) ?? (mustGo(partId) ? TAKEN_OUT : (covers[0] ?? TAKEN_OUT));
  const coverIt = (partId: string) =>
    recorder.record({
      type: 'neighbour-covered',
      partId,
      how: cover[partId] ?? usualFor(partId),
      ...forTarget,
    });
  async function acceptIt(partId: string) {
    const why = (accept[partId] ?? '').trim();
    if (!why) return (recorder.problem = `Why may ${nameOf(view.board, partId)} get that hot?`);
    await recorder.record({ type: 'neighbour-accepted', partId, why, ...forTarget });
  }
  const howOf = (partId: string): string | undefined => {
    const done = attempt.neighbours.get(partId);
    return done?.type === 'neighbour-covered' ? done.how : undefined;
  };
  async function layItOut(event: SubmitEvent) {
    event.preventDefault();
    if (!layOut) return;
    const setPoints = [];
    for (const p of layOut.setPoints) {
      const text = (setTo[p.id] ?? '').trim();
      if (text === '') continue;
      const value = parseDecimal(text);
      if (value === null) return (recorder.problem = `${p.label}: a number as the tool shows it.`);
      setPoints.push({ id: p.id, value: p.unit === '°C' ? heatAt(value, p.dial, panel) : value });
    }
    await recorder.record({ type: 'laid-out', tools, setPoints, ...ofTarget, ...byMethod });
  }
  async function asPlanned() {
    if (!layOut) return;
    tools = [...layOut.tools];
    for (const p of layOut.setPoints) setTo[p.id] = String(onDial(p.id, p.value).value);
    const setPoints = layOut.setPoints.map(({ id, value }) => ({ id, value }));
    await recorder.record({ type: 'laid-out', tools, setPoints, ...ofTarget, ...byMethod });
  }
  const firstOpen = () => {
    const s = sources.find((q) => q.kind !== 'none' && !job.powerGone.has(q.id));
    if (s) void gone(s.id, s.kind);
  };
  useKeys('Protect', () => [
    { keys: ['g'], label: 'next source is gone', run: firstOpen, line: gate('power-gone')?.state !== 'met' },
    { keys: ['t'], label: 'target confirmed', run: () => void confirmTarget(), line: true },
    { keys: ['b'], label: 'to the work', run: () => void goto(`/jobs/${view.ticket.id}/${nextStep}`), line: true },
  ]);
</script>

<div class="p-5 pt-4">
  <h2 class="text-xl">Protect</h2>
  <Notice text={recorder.problem} at="panel" class="mt-2" />

  <GateHead title="Power" gate={gate('power-gone')} />
  <ul>
    {#each sources as s (s.id)}
      {@const shown = job.powerGone.get(s.id)}
      <li class="flex min-h-12 flex-wrap items-center gap-2 border-t border-faint py-1.5" aria-label={s.label}>
        <span class="min-w-0 flex-1">
          <span class="font-semibold">{s.label}</span>
          <span class="block text-[13px] text-ink2"
            >{shown
              ? `${shown.how}${shown.residual_V === undefined ? '' : `, ${shown.residual_V} V left`}`
              : SOURCE_NAMES[s.kind]}</span
          >
        </span>
        {#if s.kind !== 'none'}
          {#if shown}
            <button
              class="button px-3"
              onclick={() => recorder.record({ type: 'power-connected', sourceId: s.id })}
              title="The power gate lapses">Connect again</button
            >
          {:else}
            <label class="flex items-center gap-1 text-[13px] text-ink2"
              >left, V
              <input
                class="field w-16"
                bind:value={residual[s.id]}
                inputmode="decimal"
                aria-label="Volts left at {s.label}"
                onkeydown={(e) => e.key === 'Enter' && void gone(s.id, s.kind)}
              /></label
            >
            <button class="button button-main px-3" onclick={() => gone(s.id, s.kind)}>Gone</button>
          {/if}
        {/if}
      </li>
    {/each}
  </ul>
  <SourceForm {recorder} />
  <Override {view} gates={gates.filter((g) => g.id === 'power-gone')} {recorder} />

  <GateHead title="Target" gate={gate('target-marked')} />
  {#if !target}
    <p class="text-ink2">No target yet. <a class="underline" href="/jobs/{view.ticket.id}/diagnose">Choose it</a></p>
  {:else}
    <p class="text-[13px] text-ink2">
      {partName(target)} seen from the {side}{side === target.side ? '' : ', its solder side'}{side === 'bottom'
        ? ', as mirrored on the stage'
        : ''}. Tick what you find where it says.
    </p>
    {#each marks as m (m.id)}
      <Check
        class="border-t border-faint"
        bind:checked={() => seen.includes(m.id), (on) => (seen = ticked(seen, m.id, on))}
      >
        <span class="flex gap-2">
          <span class="flex-1 truncate">from {m.label}</span>
          <span class="font-semibold">{bearingText(m, (mm) => formatLength(mm, units))}</span>
        </span>
      </Check>
    {/each}
    {#if marks.length < 2}<p class="text-[13px] text-caution">
        ◆ Fewer than two landmarks on this board model: mark the part with a pen instead; the record says not confirmed.
      </p>{/if}
    <button class="button mt-1" onclick={confirmTarget} disabled={seen.length < 2}>Target confirmed</button>
  {/if}

  <GateHead title="Neighbours" gate={gate('neighbours-covered')} />
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
        <button class="button mt-1 px-3" onclick={coverWanted}>All as planned</button>
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
          <button class="button px-3" onclick={coverBlown}>All covered</button>
        </div>
      {/if}
    </div>
  {/if}
  {#if foilHere && target}
    {#await import('./FoilWindow.svelte') then { default: FoilWindow }}
      <FoilWindow
        {view}
        {target}
        landmarks={registration}
        powered={gate('power-gone')?.state === 'met' ? null : (gate('power-gone')?.why ?? 'power not known')}
        onLaid={(ids) => coverAll(ids, () => COVER_NAMES.foil)}
        laid={(ids) => ids.every((id) => attempt.neighbours.has(id))}
      />
    {/await}
  {/if}
  {#each alone as id (id)}
    {@const n = planned(id)}
    {@const done = attempt.neighbours.get(id)}
    <div class="border-t border-faint py-2">
      <p class="flex gap-2">
        <span class="font-semibold">{nameOf(view.board, id)}</span>
        <span class="flex-1 truncate text-ink2">{neighbourKind(view.board, id)}</span>
        {#if byPlan.has(id)}<span class="text-ink2">{todoFor(id)}</span>
        {:else if n && result}
          {@const fate = fateOf(result, n)}
          <span class="text-stop"
            >▲ {mustGo(id) ? 'take it out first' : `${fate.word}, ${fateText(n, fate, units)}`}</span
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
          <button class="button px-3" onclick={() => coverIt(id)}>{n?.takeOut ? 'It is out' : 'Covered'}</button>
          {#if !mustGo(id)}
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

  <GateHead title="Lay-out" gate={gate('laid-out')} />
  {#if layOut}
    <form onsubmit={layItOut} aria-label="Lay-out">
      <div class="grid grid-cols-2 gap-x-3">
        {#each layOut.tools as t (t)}
          <Check class="text-[13px]" bind:checked={() => tools.includes(t), (on) => (tools = ticked(tools, t, on))}
            >{t}</Check
          >
        {/each}
      </div>
      <div class="mt-1 flex flex-wrap items-end gap-3">
        {#each layOut.setPoints as p (p.id)}
          <div class="w-36">
            <label class="label" for="set-{p.id}"
              >{p.label}, planned {onDial(p.id, p.value).value}
              {onDial(p.id, p.value).unit}</label
            >
            <input id="set-{p.id}" class="field" bind:value={setTo[p.id]} inputmode="decimal" placeholder="as set" />
          </div>
        {/each}
        <button type="button" class="button" onclick={asPlanned}>All as planned</button>
        <button class="button">Laid out as ticked</button>
      </div>
    </form>
  {/if}

  <Cautions {view} step="protect" />
  <a class="button button-main mt-4" href="/jobs/{view.ticket.id}/{nextStep}">{nextStep === 'fit' ? 'Fit' : 'Remove'}</a
  >
</div>
