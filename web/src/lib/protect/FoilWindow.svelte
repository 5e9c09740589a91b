<script lang="ts">
  // Foil pressed over everything but the target: who lies under it, what it saves and costs, the print to cut it by.
  import { nameOf } from '$lib/jobs/nameOf';
  import { planInputOf } from '$lib/plan/planInput';
  import { runInPool } from '$lib/compute/pool';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import { sendPlanSettings } from '$lib/jobs/send';
  import type { JobView } from '$lib/jobs/view';
  import Notice from '$lib/ui/Notice.svelte';
  import type { PlacedPart } from '@orthos/core/board';
  import { FOIL_CLEARANCE_MM, foilWindow } from '@orthos/core/hands';
  import { fateOf, type PlanResult } from '@orthos/core/rework';
  import { goto } from '$app/navigation';
  import { onDestroy } from 'svelte';
  import { type FoilFile, printFoil } from './printFoil';

  interface Props {
    view: JobView;
    target: PlacedPart;
    /** Landmarks by which the print is laid. */
    landmarks: { x_mm: number; y_mm: number; name: string }[];
    /** Why no metal may lie on the board yet. */
    powered: string | null;
    onLaid: (partIds: string[]) => Promise<void>;
    /** All of them are covered or accepted. */
    laid: (partIds: string[]) => boolean;
  }
  let { view, target, landmarks, powered, onLaid, laid }: Props = $props();

  const foil = $derived(foilWindow(view.board, target));
  const ids = $derived(foil.under.map((p) => p.partId));
  const names = (list: readonly string[], most = 8) =>
    `${list
      .slice(0, most)
      .map((id) => nameOf(view.board, id))
      .join(', ')}${list.length > most ? ` and ${list.length - most} more` : ''}`;
  const abort = new AbortController();
  onDestroy(() => abort.abort());
  let busy = $state(false);
  let problem = $state('');
  let computed = $state.raw<{ for: string; result: PlanResult } | null>(null);
  /** What a comparison is of: another plan has another. */
  const asked = $derived(JSON.stringify([view.inUse?.planId, view.inUse?.method, view.inputs?.hash]));
  const withFoil = $derived(computed?.for === asked ? computed.result : null);
  const without = $derived(view.inUse?.result ?? null);

  const hurtIn = (r: PlanResult) => r.neighbours.filter((n) => fateOf(r, n).tone === 'stop').map((n) => n.partId);
  const looseText = (r: PlanResult) =>
    r.allWet_s === null ? 'stays solid' : `all loose at ${Math.round(r.allWet_s)} s`;
  const saved = $derived.by(() => {
    if (!without || !withFoil) return [];
    const still = new Set(hurtIn(withFoil));
    return hurtIn(without).filter((id) => !still.has(id));
  });
  const costs = $derived(
    without?.allWet_s && withFoil?.allWet_s ? Math.round(withFoil.allWet_s - without.allWet_s) : null,
  );

  /** What a plan is told of it, besides what else it covers. */
  const covers = $derived.by(() => {
    const planned = view.inputs?.settings.surroundings?.covers ?? [];
    const others = planned.filter((c) => c.partId !== undefined && !ids.includes(c.partId));
    return [...others, ...foil.covers].slice(0, 60);
  });

  async function compare() {
    if (!view.inputs || !view.inUse) return;
    busy = true;
    problem = '';
    const { settings } = view.inputs;
    const inputs = { ...view.inputs, settings: { ...settings, surroundings: { ...settings.surroundings, covers } } };
    try {
      const now = asked;
      const result = await runInPool<PlanResult>(
        'plan.heat',
        planInputOf(view.board, inputs, view.inUse.method, false),
        {
          signal: abort.signal,
        },
      );
      computed = { for: now, result };
    } catch (e) {
      if ((e as Error).name !== 'AbortError') problem = (e as Error).message;
    } finally {
      busy = false;
    }
  }

  const place = $derived({
    ...{ x_mm: target.x_mm, y_mm: target.y_mm, rotation_deg: target.rotation_deg, side: target.side },
    clearance_mm: FOIL_CLEARANCE_MM,
  });
  async function print(as: FoilFile) {
    busy = true;
    problem = '';
    const name = nameOf(view.board, target.partId);
    const title = `${name} on ${view.board.name}`.slice(0, 120);
    try {
      await printFoil('protect.foil', { package: target.package, ...place, landmarks, title }, `foil-${name}`, as);
    } catch (e) {
      problem = (e as Error).message;
    } finally {
      busy = false;
    }
  }

  /** Areas that the plan covers besides, each printed for itself. */
  const areas = $derived.by(() => {
    const own = new Set(foil.covers.map((c) => JSON.stringify('area' in c ? c.area : null)));
    const planned = view.inputs?.settings.surroundings?.covers ?? [];
    return planned.flatMap((c) => (c.area && !own.has(JSON.stringify(c.area)) ? [c.area] : []));
  });
  async function printAreas() {
    busy = true;
    problem = '';
    try {
      for (const [n, { x_mm, y_mm, w_mm, h_mm }] of areas.entries()) {
        const [x, y] = [w_mm / 2, h_mm / 2];
        const outline_mm = [
          [-x, -y],
          [x, -y],
          [x, y],
          [-x, y],
        ];
        const at = { x_mm: x_mm + x, y_mm: y_mm + y, side: target.side, clearance_mm: 0, flange_mm: 0 };
        const title = `Area ${n + 1} on ${view.board.name}`.slice(0, 120);
        await printFoil('protect.cover', { outline_mm, ...at, title }, `area-${n + 1}`, 'pdf');
      }
    } catch (e) {
      problem = (e as Error).message;
    } finally {
      busy = false;
    }
  }

  // the cut, on the board
  const desk = useDesk();
  layOver(desk, () => ({ cut: { side: target.side, points: foil.window } }));

  /** The plan counts on the foil from now on: it is computed with it, and carried through. */
  async function intoPlan() {
    if (!view.inputs) return;
    busy = true;
    problem = '';
    const { settings } = view.inputs;
    try {
      const surroundings = { ...settings.surroundings, covers };
      await sendPlanSettings(view.ticket.id, view.ticket.version, { ...settings, surroundings });
      await goto(`/jobs/${view.ticket.id}/plan`, { invalidateAll: true });
    } catch (e) {
      problem = (e as Error).message;
    } finally {
      busy = false;
    }
  }
</script>

<section class="border-t border-faint py-2" aria-label="Foil with a window">
  <p>
    <span class="font-semibold">Foil with a window</span> <span class="text-ink2">all but the target, in one act</span>
  </p>
  <p class="text-[13px] text-ink2">
    Press foil over {nameOf(view.board, target.partId)} until it shows, cut {FOIL_CLEARANCE_MM} mm outside its mark, press
    the rim down.
    {#if ids.length > 0}Under it: <b class="font-semibold text-ink">{names(ids)}</b>.{/if}
    {#if foil.open.length > 0}
      <span class="text-caution">◆ In the window with it: {names(foil.open.map((p) => p.partId))}.</span>
    {/if}
  </p>
  <Notice text={problem} at="panel" class="my-1" />
  <div class="mt-1 flex flex-wrap items-center gap-2">
    {#if laid(ids)}<span class="text-[13px] text-good">✓ all of them covered or accepted</span>
    {:else}
      <button class="button px-3" disabled={busy || powered !== null || ids.length === 0} onclick={() => onLaid(ids)}
        >Foil laid</button
      >
    {/if}
    {#if without}<button class="button px-3" disabled={busy} onclick={compare}>With and without</button>{/if}
    {#if withFoil}<button class="button px-3" disabled={busy} onclick={intoPlan}>Into the plan</button>{/if}
    {#if landmarks.length === 2}
      <button class="button px-3" disabled={busy} onclick={() => print('pdf')}>Print 1:1, PDF</button>
      <button class="button px-3" disabled={busy} onclick={() => print('svg')}>SVG</button>
    {/if}
    {#if areas.length > 0}<button class="button px-3" disabled={busy} onclick={printAreas}>Areas 1:1</button>{/if}
    {#if powered !== null}<span class="text-[13px] text-stop">▲ no metal yet: {powered}</span>{/if}
  </div>
  {#if without && withFoil}
    <table class="mt-2 w-full text-[13px]" aria-label="With and without foil">
      <thead><tr class="text-left text-ink2"><th></th><th>by the plan</th><th>with foil</th></tr></thead>
      <tbody>
        <tr class="border-t border-faint"
          ><th class="text-left font-normal text-ink2">{nameOf(view.board, target.partId)}</th><td
            >{looseText(without)}</td
          ><td>{looseText(withFoil)}{costs === null ? '' : `, ${costs >= 0 ? '+' : '−'}${Math.abs(costs)} s`}</td></tr
        >
        <tr class="border-t border-faint"
          ><th class="text-left font-normal text-ink2">too hot, or blown away</th><td
            >{names(hurtIn(without), 5) || 'nobody'}</td
          ><td>{names(hurtIn(withFoil), 5) || 'nobody'}</td></tr
        >
      </tbody>
    </table>
    <p class="text-[13px] {saved.length > 0 ? 'text-good' : 'text-ink2'}">
      {saved.length > 0 ? `● saves ${names(saved, 5)}` : 'It saves nobody here.'}
      {#if without.allWet_s !== null && withFoil.allWet_s === null}
        <span class="text-caution">◆ Under foil it stays solid with this air.</span>
      {/if}
    </p>
  {/if}
</section>
