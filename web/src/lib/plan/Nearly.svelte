<script lang="ts">
  // A way's settings while they are dragged: what they come to by known effects (≈), and in full once they are let go.
  import { runInPool } from '$lib/compute/pool';
  import type { PlanInputs } from '$lib/jobs/view';
  import type { BoardModel } from '@orthos/core/board';
  import { type Around, type Near, nearOf, nearRow, type Planned } from '@orthos/core/compare';
  import type { Method } from '@orthos/core/rework';
  import { nameOf } from '$lib/jobs/nameOf';
  import { onDestroy, untrack } from 'svelte';
  import { planInputOf } from './planInput';
  import { numbersFree } from './settings';
  import { lasts } from './ways';

  interface Props {
    board: BoardModel;
    inputs: PlanInputs;
    /** As set, and as the form says it now. */
    method: Method;
    turned: Method;
    /** Numbers by setting, as a search names them: as set, and now. */
    was: Readonly<Record<string, number>>;
    now: Readonly<Record<string, number>>;
  }
  let { board, inputs, method, turned, was, now }: Props = $props();

  /** Values looked at along a setting. */
  const POINTS = 4;
  const keys = $derived(Object.keys(was));
  const valuesOf = (key: string): number[] => {
    const allowed = numbersFree(inputs.free[method.id]?.[key]);
    const [lo, hi] = [Math.min(...allowed), Math.max(...allowed)];
    return allowed.length > 2 ? allowed : Array.from({ length: POINTS }, (_, n) => lo + ((hi - lo) * n) / (POINTS - 1));
  };
  const asked = untrack(() => keys.flatMap((key) => valuesOf(key).map((value) => ({ key, value }))));
  let around = $state.raw<Around | null>(null);
  let exact = $state.raw<{ of: string; row: Near } | null>(null);
  const abort = new AbortController();
  let fine = new AbortController();
  onDestroy(() => [abort, fine].forEach((a) => a.abort()));

  const inputOf = (m: Method) => ({
    ...planInputOf(board, inputs, m, false),
    quality: 'coarse' as const,
    as: m.id,
  });

  if (asked.length > 0)
    void untrack(() =>
      runInPool<Around>(
        'plan.around',
        { ...inputOf(method), at: asked.map(({ key, value }) => ({ [key]: value })) },
        { signal: abort.signal, onProgress: (_, part) => (around = (part as Around | undefined) ?? around) },
      )
        .then((all) => (around = all))
        .catch(() => undefined),
    );

  const changed = $derived(keys.some((k) => was[k] !== now[k]));
  const set = $derived(around ? nearOf(around.known) : null);
  const near = $derived.by(() => {
    if (!set || !around) return null;
    const { rows } = around;
    const along = keys.map((key) => ({
      known: asked
        .flatMap((a, n) => (a.key === key && rows[n] ? [{ value: a.value, row: nearOf(rows[n]) }] : []))
        .concat(set ? [{ value: was[key], row: set }] : [])
        .sort((a, b) => a.value - b.value),
      from: was[key],
      to: now[key],
    }));
    return nearRow(set, along);
  });

  const name = $derived(JSON.stringify(turned.phases));
  // let go for a moment, it is computed as it is
  $effect(() => {
    const [of, m] = [name, turned];
    if (!changed) return;
    const later = setTimeout(() => void inFull(of, m), 350);
    return () => clearTimeout(later);
  });
  async function inFull(of: string, m: Method) {
    fine.abort();
    fine = new AbortController();
    try {
      const { row } = await runInPool<Planned>('plan.heat', inputOf(m), { signal: fine.signal });
      if (row) exact = { of, row: nearOf(row) };
    } catch {
      // what is near stays
    }
  }

  const shown = $derived(exact?.of === name ? exact.row : near);
  const about = $derived(exact?.of === name ? '' : '≈ ');
  const worst = $derived(around?.known.worst ? nameOf(board, around.known.worst.partId) : 'neighbours');
  const told = (r: Near) =>
    [
      r.loose_s === null ? 'joints stay solid' : `all loose ${lasts(r.loose_s)}`,
      r.margin_K === null ? '' : `${worst} ${Math.round(r.margin_K)} K`,
      `lands ${Math.round(100 * r.p_torn)} %`,
      `open ${Math.round(100 * r.p_open)} %`,
    ]
      .filter(Boolean)
      .join(', ');
</script>

{#if asked.length > 0}
  <div
    class="mt-3 grid min-h-12 grid-cols-[4.5rem_1fr] gap-x-2 text-[13px]"
    aria-live="polite"
    aria-label="What it comes to"
  >
    {#if !set}
      <span class="col-span-2 text-ink2">Finding out what each dial does …</span>
    {:else}
      <span class="text-ink2">as set</span><span>{told(set)}</span>
      {#if changed && shown}
        <span class="text-ink2">now</span><span class="font-semibold">{about}{told(shown)}</span>
      {/if}
    {/if}
  </div>
{/if}
