<script lang="ts">
  // A torn land by wire: from where to where, how long and thick, what it passes, and what proves it.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import type { BoardModel } from '@orthos/core/board';
  import { formatGap, formatLength, formatReading, parseReading, type UnitSettings } from '@orthos/core/ground';
  import type { Wire } from '@orthos/core/hands';

  interface Props {
    board: BoardModel;
    terminal: string;
    far: true | undefined;
    wire: Wire;
    recorder: Recorder;
    units: UnitSettings;
  }
  let { board, terminal, far, wire, recorder, units }: Props = $props();
  /** A hand meter's leads and clips leave this much on a sound wire, Ω. */
  const MOST_OHM = 1;
  let ohm = $state('');
  const to = $derived(`${nameOf(board, wire.to.partId)} ${wire.to.terminal}`);

  async function laid() {
    const value = ohm.trim() === '' ? undefined : parseReading(ohm);
    if (value === null || value === 'OL')
      return (recorder.problem = 'End to end as the meter shows it, such as 0.2; or empty.');
    if (value !== undefined && value > MOST_OHM)
      return (recorder.problem = `${formatReading(value, 'ohm')} end to end is no wire: solder both ends again, leads taken off.`);
    await recorder.record({
      type: 'land-repaired',
      terminal,
      ...(far ? { far } : {}),
      how: `wire to ${to}`,
      wire: { to: wire.to, length_mm: wire.length_mm, gauge_mm: wire.gauge_mm },
      ...(value === undefined ? {} : { ohm: value }),
    });
  }
</script>

<div class="w-full border-l-[3px] border-evidence py-1 pl-3" role="group" aria-label="Wire for {terminal}">
  <p>
    <b>{formatLength(wire.length_mm, units)}</b> of <b>{wire.gauge_mm} mm</b> enamelled wire, {terminal} to {to} ({wire.net}){wire.glue >
    0
      ? `, ${wire.glue} ${wire.glue === 1 ? 'spot' : 'spots'} of glue`
      : ''}.
  </p>
  <p class="text-[13px] text-ink2">
    {wire.through ? 'Through the board, by the nearest via or round its edge. ' : ''}{wire.round.length > 0
      ? `Round ${wire.round.slice(0, 3).join(', ')}, flat on the mask. `
      : 'Straight, flat on the mask. '}{wire.clear
      ? `Clear of ${wire.clear.name} by ${formatGap(wire.clear.mm, units)}.`
      : ''}
  </p>
  <p class="text-[13px]">Then {wire.check}</p>
  <div class="mt-1 flex gap-2">
    <input class="field w-28" bind:value={ohm} aria-label="Ohms of the wire" placeholder="Ω, measured" />
    <button class="button px-3" onclick={laid}>Laid, soldered, checked</button>
  </div>
</div>
