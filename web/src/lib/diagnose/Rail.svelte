<script lang="ts">
  // Where on a rail a short sits: a current is injected, millivolts are read from pad to pad, the place is computed.
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { type Callout, layOver, useDesk } from '$lib/jobs/desk.svelte';
  import type { Circuit, DiagnoseView } from './view';
  import { isGroundNet } from '@orthos/core/board';
  import { classOf, placesOfNet } from '@orthos/core/circuit';
  import { type Diagnosis, injectionWarmth, probeWalk, worthOnRail } from '@orthos/core/diagnosis';
  import { parseReading, type Place } from '@orthos/core/ground';
  import type { JobEventBody, JobState } from '@orthos/core/job';
  import { untrack } from 'svelte';
  import { refs, standing } from './question';
  import { placeName } from './place';
  import { drawnCopper, standingProfiles, TRACK_MM, type RailPlaces } from './railPlaces.svelte';
  import { feedOf, lowestRail } from './rails';
  import { percent } from './words';

  interface Props {
    view: DiagnoseView;
    job: JobState;
    circuit: Circuit | null;
    /** Rail that was asked for; null: the one that was worked on last, or reads lowest. */
    asked: string | null;
    record: (body: JobEventBody) => Promise<boolean>;
    result: Diagnosis | null;
    computed: RailPlaces;
    onConvict: (partId: string, why: string) => void;
  }
  let { view, job, circuit, asked, record, result, computed, onConvict }: Props = $props();
  const desk = useDesk();
  const netlist = $derived(circuit?.netlist ?? null);

  /** Rails with enough pads for a profile. */
  const nets = $derived.by(() => {
    const names = new Set(view.board.parts.flatMap((p) => Object.values(p.nets ?? {})));
    for (const part of netlist?.parts ?? []) for (const net of Object.values(part.pins)) names.add(net);
    return [...names].filter((n) => !isGroundNet(n) && placesOfNet(view.board, netlist, n).length >= 3).sort();
  });
  const nameOf = (p: Place) => placeName(view.board, p);
  const begin = untrack(
    () => asked ?? standingProfiles(job).at(-1)?.net ?? lowestRail(view.board, netlist, standing(job), nets) ?? '',
  );
  let chosen = $state(begin);
  const net = $derived(nets.includes(chosen) ? chosen : (nets[0] ?? ''));
  const places = $derived(placesOfNet(view.board, netlist, net));
  const profile = $derived(standingProfiles(job).find((p) => p.net === net) ?? null);
  // a place of earlier millivolts is not shown for these
  const place = $derived.by(() => {
    const known = computed.byNet.get(net);
    return known && known.profile.id === profile?.id ? known : null;
  });
  const located = $derived(place?.located ?? null);

  /** What was typed, by rail; what was stored stands there until it is changed. */
  let typedByNet = $state<Record<string, Record<string, string>>>({});
  const typed = $derived(typedByNet[net] ?? {});
  let typedCurrent = $state<string | null>(null);
  const current = $derived(typedCurrent ?? String(profile?.current_A ?? 1));
  let injection = $state('');
  let typedWidth = $state<string | null>(null);
  const width = $derived(typedWidth ?? String(profile?.track_mm ?? TRACK_MM));
  let problem = $state('');
  /** Less than this names a place, not a part. */
  const SURE = 0.6;
  const at = $derived(
    places.find((p) => nameOf(p) === injection) ??
      places.find((p) => profile && nameOf(p) === nameOf(profile.injection)) ??
      feedOf(netlist, places, nameOf) ??
      places[0],
  );
  /** From where the current goes in, along the shortest way. */
  const pads = $derived.by((): Place[] => {
    const rest = places.filter((p) => p !== at);
    return at ? [at, ...probeWalk(rest, at).map((i) => rest[i])] : [];
  });
  const storedAt = (p: Place) => profile?.points.find((q) => nameOf(q.place) === nameOf(p))?.mV;
  const textAt = (p: Place) => typed[nameOf(p)] ?? String(storedAt(p) ?? '');

  async function store(event: SubmitEvent) {
    event.preventDefault();
    const current_A = parseReading(current);
    if (typeof current_A !== 'number' || current_A <= 0 || current_A > 20)
      return (problem = 'The current that is injected: .5 or 1, at most 20 A.');
    const points = [];
    for (const p of pads) {
      const text = textAt(p).trim();
      if (text === '' || nameOf(p) === nameOf(at)) continue;
      const mV = parseReading(text);
      if (typeof mV !== 'number') return (problem = `${nameOf(p)}: millivolts as a number, 12.4.`);
      points.push({ place: p, mV });
    }
    if (points.length < 3) return (problem = 'Three pads at least, besides the one where the current goes in.');
    const track_mm = parseReading(width);
    if (!drawn && !(typeof track_mm === 'number' && track_mm > 0 && track_mm <= 50))
      return (problem = 'The width of the tracks: 1 or .5, at most 50 mm.');
    problem = '';
    const assumed = drawn || typeof track_mm !== 'number' ? {} : { track_mm };
    await record({ type: 'profile', net, current_A, injection: at, points, ...assumed });
  }

  // without it tracks are assumed
  $effect(() => void computed.draw(view.board).catch(() => undefined));
  const drawn = $derived(at ? drawnCopper({ board: view.board, netlist }, computed.drawing, net, at) : null);
  /** Parts on the rail: by the millivolts alone, and in the ranking of all that is known. */
  const candidates = $derived.by(() => {
    const refOf = circuit ? refs(view.board, circuit) : () => undefined;
    const overall = new Map(result?.parts.map((p) => [p.ref, p.p]));
    const all = located?.candidates ?? [];
    return all
      .map(({ ref, p: fits }) => {
        const p = worthOnRail(fits, all.length, place?.drawn ?? false);
        const partId = place?.partIds.get(ref);
        const part = view.board.parts.find((x) => x.partId === partId);
        const share = overall.get((partId && refOf(partId)) ?? '');
        return { ref, part, p, share, leads: share ?? p };
      })
      .toSorted((a, b) => b.leads - a.leads)
      .filter((c, n) => n < 5 && Math.max(c.leads, c.p) > 0.01);
  });
  /** Why the first of them is not convicted yet. */
  const doubt = $derived(located?.doubt ?? (candidates[0]?.share === undefined ? null : (result?.doubt ?? null)));
  /** Place whose millivolts are being typed. */
  let typedAt = $state.raw<Place | null>(null);
  layOver(desk, () => ({
    ...(typedAt ? { probes: { next: typedAt } } : {}),
    ...(located && profile ? { callouts: [shortOn(located, profile)] } : {}),
  }));
  function shortOn({ best }: NonNullable<typeof located>, { injection }: NonNullable<typeof profile>): Callout {
    const [first] = candidates;
    return {
      id: 'short',
      x_mm: best.x_mm,
      y_mm: best.y_mm,
      side: injection.side,
      title: first ? `${first.ref}, ${doubt ? 'in doubt' : percent(first.leads)}` : 'short',
      detail: `within ${best.radius_mm.toFixed(1)} mm`,
      tone: 'hot',
    };
  }

  // what the same current does to the short
  const shortOhm = $derived(
    standing(job)
      .filter(
        (r) => r.quantity === 'ohm' && typeof r.value === 'number' && pads.some((p) => nameOf(p) === nameOf(r.place)),
      )
      .at(-1)?.value,
  );
  const suspect = $derived(candidates[0]?.ref);
  const warmth = $derived.by(() => {
    if (typeof shortOhm !== 'number') return null;
    const part = netlist?.parts.find((p) => p.ref === suspect);
    const cls = part ? classOf(part) : 'mlcc';
    const shape = cls === 'mlcc' || cls === 'mlccbig' ? cls : part?.kind === 'IC' ? 'ic' : 'other';
    const limit_A = typeof parseReading(current) === 'number' ? (parseReading(current) as number) : 1;
    return injectionWarmth(shape, { limit_A, volts: 1, wires_ohm: 0.05, short_ohm: Math.max(shortOhm, 0.01) });
  });
</script>

{#if nets.length === 0}
  <p class="text-ink2">
    No rail of this board has three pads that are known. Give its parts their nets, or draw the circuit.
  </p>
{:else}
  {#if profile && located}
    <section class="mb-4 border-l-[3px] border-hot py-1 pl-3" aria-label="Place of the short">
      <p class="text-[13px] text-ink2">
        {profile.current_A} A into {nameOf(profile.injection)}, {profile.points.length} pads
      </p>
      {#each candidates as { ref, part, p, share, leads }, n (ref)}
        <p class="flex items-center gap-3 {n === 0 ? 'text-xl font-bold' : ''}">
          <span class="flex-1">{ref} <span class="text-[13px] font-normal text-ink2">{part?.what ?? ''}</span></span>
          {#if share !== undefined}<span class="text-[13px] font-normal text-ink2">by millivolts {percent(p)}</span
            >{/if}
          <span>{n === 0 && doubt ? 'in doubt' : percent(leads)}</span>
          {#if part && n === 0 && !doubt && leads > SURE}<button
              type="button"
              class="button px-3"
              onclick={() => onConvict(part.partId, `millivolts along ${net} end at ${ref}, ${percent(p)}`)}
              >Convict {ref}</button
            >{/if}
        </p>
      {/each}
      <p class="text-[13px] text-ink2">
        within {located.best.radius_mm.toFixed(1)} mm; would read {profile.points
          .map((p, i) => `${nameOf(p.place)} ${located?.fitted_mV[i].toFixed(1)}`)
          .join(', ')} mV
      </p>
      {#if doubt}<p class="text-[13px] font-semibold text-caution">▲ Not convicted yet: {doubt}.</p>{/if}
      {#each located.notes as note (note)}<p class="text-[13px] font-semibold text-caution">▲ {note}</p>{/each}
    </section>
  {:else if profile && !computed.problem}
    <p class="mb-3 text-ink2" role="status">computing</p>
  {/if}
  <h2 class="mb-1 text-lg">Where on the rail</h2>
  <p class="mb-2 text-[13px] text-ink2">
    Supply off the board. Inject a limited current between rail and ground, never above the rail’s own voltage nor above
    1 V. Read millivolts from where the current goes in to each pad. The last pad before the short is not the lowest:
    everything beyond it reads the same.
  </p>
  <form onsubmit={store} aria-label="Millivolt profile">
    <div class="flex items-end gap-2">
      <Select label="Rail" class="w-32" choices={nets} bind:value={() => net, (v) => (chosen = v)} />
      <label class="w-20"
        ><span class="label">injected, A</span><input
          class="field"
          bind:value={() => current, (v) => (typedCurrent = v)}
        /></label
      >
      <Select
        label="goes in at"
        class="w-32"
        choices={pads.map((p) => ({ value: nameOf(p), label: nameOf(p) }))}
        bind:value={() => nameOf(at), (v) => (injection = v)}
      />
      {#if !drawn}<label class="w-24"
          ><span class="label">track, mm</span><input
            class="field"
            bind:value={() => width, (v) => (typedWidth = v)}
            inputmode="decimal"
          /></label
        >{/if}
    </div>
    <ul class="mt-2 grid grid-cols-2 gap-x-4" aria-label="Pads of {net}">
      {#each pads as p (nameOf(p))}
        {@const here = nameOf(p) === nameOf(at)}
        <li class="flex items-center gap-2 border-t border-faint py-1">
          <span class="min-w-0 flex-1 truncate font-semibold">{nameOf(p)}</span>
          {#if here}<span class="text-[13px] text-ink2">current goes in</span>
          {:else}
            <input
              class="field w-24 text-right"
              aria-label="{nameOf(p)}, millivolts"
              placeholder="mV"
              bind:value={() => textAt(p), (v) => (typedByNet[net] = { ...typed, [nameOf(p)]: v })}
              onfocus={() => (typedAt = p)}
              onblur={() => (typedAt = null)}
            />
          {/if}
        </li>
      {/each}
    </ul>
    <div class="mt-2 flex items-center gap-3">
      <button class="button button-main">Compute the place</button>
      <span class="text-[13px] text-ink2"
        >{drawn
          ? 'copper as it is drawn'
          : `no copper drawn for ${net}: tracks from pad to pad are assumed, so distances are rough`}</span
      >
    </div>
  </form>
  <Notice text={problem || computed.problem} class="mt-2" />

  {#if warmth}
    <p class="mt-3">
      <b>By warmth:</b>
      {warmth.current_A.toFixed(2)} A through {typeof shortOhm === 'number' ? shortOhm : ''} Ω
      {suspect ? `in ${suspect}` : ''} makes {warmth.power_W.toFixed(2)} W, about {Math.round(warmth.rise_K)} K warmer.
      <span class="text-ink2"
        >{warmth.rise_K < 3 ? 'Too little to feel: more current, or the profile.' : 'Stop before 60 K.'}</span
      >
    </p>
  {/if}
{/if}
