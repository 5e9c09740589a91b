<script lang="ts">
  // Before the next part of a set: how far it has come, how long the board rests, from where to come, what goes on.
  import { nameOf } from '$lib/jobs/nameOf';
  import type { JobView } from '$lib/jobs/view';
  import type { RunSession } from '$lib/run/session.svelte';
  import type { PlacedPart } from '@orthos/core/board';
  import { formatTemperature } from '@orthos/core/ground';
  import { drawnMark } from '@orthos/core/hands';
  import { hourOf } from '@orthos/core/compare';
  import type { Operation } from '@orthos/core/rework';
  import { isVoid } from './atPart';
  import { countWords } from './words';

  let { view, op, s, target }: { view: JobView; op: Operation; s: RunSession; target: PlacedPart } = $props();

  const panel = $derived(view.inputs?.panel);
  const leg = $derived(s.leg);
  const stale = $derived(isVoid(view, op));
  const item = $derived(s.set?.parts.find((p) => p.item.partId === target.partId)?.item);
  /** When the part before was done, UTC ms. */
  const freed = $derived(
    Math.max(
      -Infinity,
      ...s.state.attempts.flatMap((a) =>
        a.ofSet === undefined ? [] : a.runs.flatMap((r) => (r.ended ? [r.ended.at] : [])),
      ),
    ),
  );
  const rest_s = $derived(leg && leg.rest_s > 0 ? Math.ceil(leg.rest_s - (s.now - freed) / 1000) : 0);
  const air = $derived(leg?.phases?.find((p) => p.kind === 'air'));
  const hour = $derived(
    air?.kind === 'air' && air.settings.approach_deg !== undefined && (air.settings.tilt_deg ?? 0) > 0
      ? Math.round(hourOf(air.settings.approach_deg))
      : null,
  );
  const named = (ids: readonly string[]) => ids.map((id) => nameOf(view.board, id)).join(', ');
  const mark = $derived(op === 'fit' ? drawnMark(target) : null);
  const orientationOpen = $derived(s.gates.find((g) => g.id === 'orientation')?.state !== 'met');
  const otherSide = $derived(s.gates.find((g) => g.id === 'target-marked')?.state !== 'met');
</script>

<div class="mt-3 space-y-1 text-[20px]" data-testid="set-ready">
  {#if s.set}<p class="text-ink2">{countWords(s.set)}.</p>{/if}
  {#if op === 'fit' && item}
    <p>
      Goes in: <strong>{item.substitute || 'the same'}</strong>{item.bin ? `, ${item.bin}` : ''}
      {#if item.missing}<span class="font-semibold text-stop">▲ not here yet</span>{/if}
    </p>
  {/if}
  {#if rest_s > 0 && leg}
    <p class="font-semibold text-hot" aria-live="off">
      Rest: {rest_s} s{leg.restFor.length > 0 && panel
        ? `, until ${named(leg.restFor.map((r) => r.partId))} ${leg.restFor.length > 1 ? 'are' : 'is'} below ${formatTemperature(Math.min(...leg.restFor.map((r) => r.C)), panel)}`
        : ''}
    </p>
  {/if}
  {#if leg?.covers?.length}
    <p>Cover first: <strong>{named(leg.covers.flatMap((c) => c.partId ?? []))}</strong></p>
  {/if}
  {#if stale}
    <p class="font-semibold text-stop">
      <span aria-hidden="true">▲</span> Bench, board or surroundings changed since the order was computed: its seconds
      are void. <a class="underline" href="/jobs/{view.ticket.id}/plan">Order it anew</a>
    </p>
  {:else if op === 'remove' && s.guide?.allWet_s}
    <p>
      Loose after about <strong>{Math.round(s.guide.allWet_s)} s</strong>, {Math.round(s.guide.allWetFrom_s ?? 0)} to
      {s.guide.allWetTo_s === null ? 'late' : Math.round(s.guide.allWetTo_s)}{panel && leg
        ? `, the board there at ${formatTemperature(leg.start_C, panel)}`
        : ''}.
    </p>
  {/if}
  {#if hour !== null}<p>Come from {hour} o’clock.</p>{/if}
  {#if item?.note}<p class="text-ink2">{item.note}</p>{/if}
  {#if op !== 'prepare' && otherSide}
    <p class="text-caution">
      <span aria-hidden="true">◆</span> First on this side:
      <a class="underline" href="/jobs/{view.ticket.id}/protect">find it from two landmarks</a>
    </p>
  {/if}
  {#if mark !== null && orientationOpen}
    <p>
      <button class="button" onclick={() => s.sayOrientation()}
        ><kbd class="keycap">O</kbd> its mark lies at {mark}, where the board’s is</button
      >
    </p>
  {/if}
</div>
