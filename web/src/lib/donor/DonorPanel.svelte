<script lang="ts">
  // Two boards: which one gives parts, what is wrong with each, what a board that works takes, and which parts come over.
  import type { Desk, Numbered } from '$lib/jobs/desk.svelte';
  import { nameOf } from '$lib/jobs/nameOf';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import Check from '$lib/ui/Check.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { solderedTerminals } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import { type SetItem, setProgress } from '@orthos/core/job';
  import { onDestroy, untrack } from 'svelte';
  import { Advice, comparedOf } from './advice.svelte';
  import BareBoard from './BareBoard.svelte';
  import Choice from './Choice.svelte';
  import { broughtOf, Donor, type Wanted } from './donor.svelte';
  import DonorStage from './DonorStage.svelte';

  interface Props {
    view: JobView;
    desk: Desk;
    recorder: Recorder;
    items: readonly SetItem[];
    /** Parts that hands have been at. */
    begun: ReadonlySet<string>;
  }
  let { view, desk, recorder, items, begun }: Props = $props();
  const donor = new Donor(untrack(() => view.ticket.id));
  const advice = new Advice();
  onDestroy(() => {
    donor.end();
    advice.end();
  });

  const job = $derived(stateOf(view.events));
  const there = $derived(donor.view);
  const units = $derived<UnitSettings>(view.inputs?.panel ?? { temperature: 'C', length: 'mm' });
  const compared = $derived(there?.sameModel ? comparedOf(view, there) : null);
  $effect(() => {
    if (!there || !compared) return;
    const [now, asked] = [there, compared];
    untrack(() => void advice.ask(view, now, asked));
  });

  const brought = $derived(broughtOf(items, there?.id));
  const progressThere = $derived(there ? setProgress(stateOf(there.events)) : null);
  const stateThere = (partId: string) => progressThere?.parts.find((p) => p.item.partId === partId)?.state;

  /** The part there of the same place; on another kind of board, the one of the same name and package. */
  function pairOf(partId: string, from: 'here' | 'there'): string | undefined {
    if (!there) return undefined;
    const [mine, theirs] = from === 'here' ? [view.board, there.board] : [there.board, view.board];
    const known = items.find((i) => (from === 'here' ? i.partId : i.from?.partId) === partId)?.from;
    if (known && from === 'here') return known.partId;
    const part = mine.parts.find((p) => p.partId === partId);
    return theirs.parts.find((p) =>
      there.sameModel ? p.partId === partId : p.ref === part?.ref && p.package === part?.package,
    )?.partId;
  }
  const badHere = $derived(new Set(compared?.here.flatMap((f) => (f.mend === 'land' ? [] : (f.partId ?? [])))));
  const emptyHere = $derived(new Set(compared?.here.flatMap((f) => (f.mend === 'empty' ? (f.partId ?? []) : []))));
  const badThere = $derived(
    new Set(compared?.there.flatMap((f) => (f.mend === 'part' || f.mend === 'empty' ? (f.partId ?? []) : []))),
  );

  /** What may come over: listed to, wrong here and sound there, in the set already, picked. */
  const rows = $derived.by(() => {
    if (!there) return [];
    const wanted = compared?.here.flatMap((f) => ((f.mend === 'part' || f.mend === 'empty') && f.partId) || []) ?? [];
    const ids = [
      ...brought.map((i) => i.partId),
      ...wanted.filter((id) => !badThere.has(id)),
      ...items.filter((i) => i.do === 'renew' || i.do === 'place').map((i) => i.partId),
      ...(desk.selected ? [desk.selected] : []),
    ];
    return [...new Set(ids)].flatMap((partId) => {
      const from = items.find((i) => i.partId === partId)?.from?.partId ?? pairOf(partId, 'here');
      const part = view.board.parts.find((p) => p.partId === partId);
      if (from === undefined || !part || solderedTerminals(part).length === 0) return [];
      return [{ partId, from, isBrought: brought.some((i) => i.partId === partId) }];
    });
  });

  let owes = $state(false);
  let until = $state('');
  const isBare = $derived(job.bareBoard !== null);
  const wantedOf = ({ partId, from }: { partId: string; from: string }): Wanted => ({
    ...{ partId, from },
    ...(isBare || emptyHere.has(partId) ? { place: true as const } : {}),
  });
  const owed = $derived(owes ? (until ? { until } : {}) : null);
  const toggle = (row: (typeof rows)[number]) =>
    row.isBrought ? donor.leave([row.partId]) : donor.bring([wantedOf(row)], owed);
  const open = $derived(rows.filter((r) => !r.isBrought));
  const bringAll = () => donor.bring(open.map(wantedOf), owed);

  useKeys('Two boards', () => {
    const row = rows.find((r) => r.partId === desk.selected);
    return row && there && !begun.has(row.partId)
      ? [
          {
            ...{ keys: ['b'], line: true, run: () => void toggle(row) },
            label: row.isBrought ? 'it stays on its board' : 'bring it over',
          },
        ]
      : [];
  });

  const numbered = $derived(
    brought.flatMap((i): Numbered[] =>
      i.from
        ? [{ partId: i.from.partId, n: 0, tone: stateThere(i.from.partId) === 'waiting' ? 'listed' : 'done' }]
        : [],
    ),
  );
  const minutes = (m: number) => `${Math.max(1, Math.round(m))} min`;
  const WAYS = { mend: 'Mend this board', bring: 'Bring parts over', over: 'Go on with the other board' } as const;
  const parts = (ids: readonly string[]) => ids.map((id) => nameOf(view.board, id)).join(', ');
</script>

<section class="mt-3 border-y border-line py-3" aria-label="Two boards">
  <Notice text={donor.problem ?? advice.problem} at="panel" class="mb-2" />
  {#if !there}
    <Choice {donor} />
  {:else}
    <DonorStage {desk} donor={there} {units} {numbered} {pairOf} />
    <div class="flex flex-wrap items-baseline justify-between gap-x-3">
      <h3 class="font-semibold">
        Parts from <a class="underline" href="/jobs/{there.id}">No. {there.number}</a>
        <span class="font-normal text-ink2">{there.device}{there.serial ? `, ${there.serial}` : ''}</span>
      </h3>
      {#if brought.length === 0}
        <button class="underline" disabled={donor.busy} onclick={() => void donor.name(null)}>another board</button>
      {/if}
    </div>

    {#if compared}
      <div class="mt-2 grid grid-cols-2 gap-3 text-[14px]">
        {#each [{ name: 'Wrong here', found: compared.here }, { name: `Wrong on No. ${there.number}`, found: compared.there }] as side (side.name)}
          <div>
            <h4 class="text-[12.5px] text-ink2">{side.name}</h4>
            <ul>
              {#each side.found as f, n (n)}<li>
                  <span class={f.mend === 'none' ? 'text-ink3' : 'text-stop'} aria-hidden="true"
                    >{f.mend === 'none' ? '●' : '▲'}</span
                  >
                  {f.what}
                </li>{:else}<li class="text-ink2">nothing known</li>{/each}
            </ul>
          </div>
        {/each}
      </div>
    {/if}
    {#if advice.progress !== null}
      <p class="mt-2 text-[13px] text-ink2" role="status">What each way takes: {Math.round(100 * advice.progress)} %</p>
    {/if}
    {#each advice.ways ?? [] as way, n (way.id)}
      <div class="mt-2 border-l-[3px] pl-3 {n === 0 ? 'border-good' : 'border-faint'}" data-testid="way-{way.id}">
        <p>
          <span class="font-semibold">{WAYS[way.id]}{way.id === 'over' ? `, No. ${there.number}` : ''}</span>:
          {way.minutes === null ? 'not with this bench' : `about ${minutes(way.minutes)}`}
          {#if n === 0 && way.minutes !== null}<span class="text-good"
              >✓ {way.doubts.length > 0 ? 'least bad' : 'best'}</span
            >{/if}
        </p>
        <p class="text-[13px] text-ink2">
          {way.steps.map((s) => `${s.what} ${minutes(s.minutes)}`).join('; ') || 'nothing to be done'}
        </p>
        {#each way.doubts as d (d)}<p class="text-[13px] text-caution"><span aria-hidden="true">◆</span> {d}.</p>{/each}
        {#if way.id === 'bring' && way.moves.some((id) => !brought.some((b) => b.partId === id))}
          <button
            class="button mt-1"
            disabled={donor.busy}
            onclick={() =>
              void donor.bring(rows.filter((r) => way.moves.includes(r.partId) && !r.isBrought).map(wantedOf), owed)}
            >Bring {parts(way.moves)}</button
          >
        {:else if way.id === 'over' && n === 0 && brought.length === 0}
          <button
            class="button mt-1"
            disabled={donor.busy || there.closed}
            onclick={() => void donor.turnRound(way.moves)}
            >{way.moves.length > 0 ? `Bring ${parts(way.moves)} onto` : 'Go on with'} No. {there.number}</button
          >
        {/if}
      </div>
    {/each}

    <table class="mt-3 w-full border-collapse text-[14px]" aria-label="What comes over">
      <thead>
        <tr class="text-left text-[12.5px] text-ink2">
          <th class="py-1 font-normal">comes over</th>
          <th class="py-1 font-normal">here</th>
          <th class="py-1 text-right font-normal">on No. {there.number}</th>
        </tr>
      </thead>
      <tbody>
        {#each rows as row (row.partId)}
          {@const part = view.board.parts.find((p) => p.partId === row.partId)}
          <tr class="border-t border-faint {desk.selected === row.partId ? 'bg-evidence-soft' : ''}">
            <td class="py-0.5">
              <Check
                checked={row.isBrought}
                disabled={donor.busy || begun.has(row.partId)}
                onchange={() => void toggle(row)}
                ><span class="font-semibold">{nameOf(there.board, row.from)}</span>
                <span class="text-ink2">{part?.what ?? part?.value ?? ''}</span></Check
              >
            </td>
            <td class="py-0.5 text-ink2"
              >{emptyHere.has(row.partId) || isBare ? 'empty' : badHere.has(row.partId) ? 'bad' : ''}</td
            >
            <td class="py-0.5 text-right {badThere.has(row.from) ? 'text-stop' : 'text-ink2'}"
              >{badThere.has(row.from) ? '▲ bad there' : row.isBrought ? (stateThere(row.from) ?? '') : ''}</td
            >
          </tr>
        {:else}
          <tr
            ><td class="py-1 text-ink2" colspan="3"
              >Pick a part on either board: <kbd class="keycap">B</kbd> brings it over.</td
            ></tr
          >
        {/each}
      </tbody>
    </table>
    {#if open.length > 1}
      <button class="button mt-1" disabled={donor.busy} onclick={() => void bringAll()}>Bring all {open.length}</button>
    {/if}
    <div class="mt-1 flex flex-wrap items-center gap-x-4">
      <Check bind:checked={owes}>No. {there.number} is a good board: it gets them back</Check>
      {#if owes}
        <DateField label="until" beside bind:value={until} />
      {/if}
    </div>
    <Fold title="This is a new board without parts" quiet open={isBare}>
      <BareBoard {view} {job} {recorder} {items} />
    </Fold>
  {/if}
</section>
