<script lang="ts">
  // Who is suspected, how much, and which readings say so.
  import Notice from '$lib/ui/Notice.svelte';
  import { useDesk } from '$lib/jobs/desk.svelte';
  import { PART_CLASSES } from '@orthos/core/board';
  import { boardPartOf, classOf, type Netlist } from '@orthos/core/circuit';
  import { type Diagnosis, NONE, SOFTWARE } from '@orthos/core/diagnosis';
  import { few } from '@orthos/core/ground';
  import type { DiagnoseView } from './view';
  import type { CircuitEditor } from './circuitEditor.svelte';
  import { benchMeter } from './question';
  import { modeName, probeName, shown } from './probes';
  import Story from './Story.svelte';
  import { faultWords, percent, storyLines } from './words';

  interface Props {
    view: DiagnoseView;
    netlist: Netlist;
    result: Diagnosis;
    editor: CircuitEditor;
    onConvict: (partId: string, why: string, story: string[]) => void;
  }
  let { view, netlist, result, editor, onConvict }: Props = $props();
  const desk = useDesk();
  const meter = $derived(benchMeter(view));
  type Part = Diagnosis['parts'][number];
  type Voice = NonNullable<Part['voices']>[number];

  /** What the ranking lists as one: parts that read alike, and the rest of the likely ones. */
  interface Entry {
    refs: string[];
    p: number;
    /** Stands for all of them: same readings, same reasons. */
    part: Part;
  }
  const shareOf = (ref: string) => result.parts.find((p) => p.ref === ref)?.p ?? 0;
  /** Of parts that read alike, the one that looks, tests or millivolts along the rail put well ahead of the others. */
  const AHEAD = 2;
  function aheadOf(refs: readonly string[]): string | null {
    const [first, second] = refs.toSorted((a, b) => shareOf(b) - shareOf(a));
    return second !== undefined && shareOf(first) > AHEAD * shareOf(second) ? first : null;
  }
  /** A part with this much of what is shared by those that read alike stands for itself. */
  const APART = 0.6;
  const entries = $derived.by(() => {
    const byRef = new Map(result.parts.map((p) => [p.ref, p]));
    const told = new Set<string>();
    const list: Entry[] = [];
    const add = (refs: string[]) => {
      const fresh = refs.filter((r) => !told.has(r) && (byRef.get(r)?.p ?? 0) > 0.002);
      const part = byRef.get(fresh.find((r) => r !== NONE) ?? fresh[0] ?? '');
      if (!part) return;
      for (const r of fresh) told.add(r);
      list.push({ refs: fresh, p: fresh.reduce((sum, r) => sum + (byRef.get(r)?.p ?? 0), 0), part });
    };
    for (const group of result.groups) {
      // what tells parts apart that read alike: looks, tests, millivolts along the rail
      const share = (r: string) => byRef.get(r)?.p ?? 0;
      const sum = group.reduce((s, r) => s + share(r), 0);
      const apart = group.find((r) => share(r) > APART * sum);
      add(apart === undefined ? group : [apart]);
      add(group);
    }
    for (const part of result.parts) if (!told.has(part.ref)) add([part.ref]);
    return list
      .filter((e) => e.p > 0.005)
      .toSorted((x, y) => y.p - x.p)
      .slice(0, 6);
  });
  /** With less than this nobody thinks of a verdict, and of doubts about it. */
  const ACCUSED = 0.3;
  /** Two parts that failed together. */
  const isPair = (ref: string) => ref.includes(' + ');
  const mode = (ref: string) => {
    const s = result.suspects.find((x) => x.ref === ref);
    if (!s) return '';
    if (ref === NONE) return s.where ? `something that is not in this circuit, ${s.where}` : '';
    return isPair(ref) ? s.where : faultWords(s);
  };
  /** How parts that read alike fail: pins only where all of them name the same, three ways at most. */
  function sharedMode(refs: readonly string[]): string {
    const words = [...new Set(refs.filter((r) => r !== NONE).map(mode))];
    if (words.length === 1) return words[0];
    return few([...new Set(words.map((w) => w.replace(/ (pin|at) .*/, '')))], 3);
  }
  /** Faults of which no reading of this circuit tells anything. */
  const isHidden = (ref: string) => {
    const s = result.suspects.find((x) => x.ref === ref);
    return s?.mode === 'dead' && s.where === 'inside';
  };
  const kind = (ref: string) => {
    const part = netlist.parts.find((p) => p.ref === ref);
    return part ? (part.what ?? PART_CLASSES[classOf(part)]) : '';
  };
  const says = (v: Voice) =>
    `${probeName(v, netlist.ground)} ${v.type === 'ohm' ? '' : `(${modeName(v)}) `}reads ${shown(v.type, v.value)}, it would show ${shown(v.type, v.expected)}`;
  const voices = (part: Part, sign: 1 | -1) =>
    (part.voices ?? [])
      .filter((v) => sign * v.weight > 0)
      .slice(0, 2)
      .map(says)
      .join('; ');
  const onBoard = (ref: string) => {
    const part = netlist.parts.find((p) => p.ref === ref);
    return part && boardPartOf(view.board, part);
  };
  /** Shares say what fits best; the first part may still not fit. */
  const accused = $derived(result.parts.at(0));
  const doubted = ({ refs, p }: Entry, n: number) =>
    result.doubt !== null && accused !== undefined && p > ACCUSED && (n === 0 || refs.includes(accused.ref));
  const left = $derived(result.left_out);
  const why = (part: Part) => voices(part, 1) || 'readings leave it the likeliest';
</script>

{#snippet doubt()}
  <p class="text-[13px] font-semibold text-caution">▲ Not convicted yet: {result.doubt}.</p>
  {#if left}
    <button
      type="button"
      class="button mt-1"
      disabled={editor.busy}
      onclick={() => editor.takeIn(view.board.parts.filter((p) => left.refs.includes(p.ref ?? p.partId)))}
      >Take in {few(left.refs)}</button
    >
    <Notice text={editor.problem} at="field" />
  {/if}
{/snippet}

<section aria-label="Suspects">
  <h3 class="mt-5 mb-1 text-[13px] text-ink2">Suspects</h3>
  {#each entries as entry, n (entry.part.ref)}
    {@const { refs, p, part } = entry}
    {@const inDoubt = doubted(entry, n)}
    {@const others = refs.length > 1 && refs.includes(NONE)}
    {@const members = [...new Set(refs.flatMap((ref) => (others && ref === NONE ? [] : ref.split(' + '))))].map(
      (ref) => ({
        ref,
        placed: onBoard(ref),
      }),
    )}
    {@const ahead = aheadOf(refs)}
    {@const chosen =
      members.find((m) => m.placed && m.placed.partId === desk.selected) ??
      (members.length === 1 || isPair(part.ref) ? members[0] : null)}
    <div class="border-t border-faint py-2.5">
      <div class="flex items-baseline gap-2">
        <span class="min-w-0 flex-1">
          {#each members.slice(0, 12) as m (m.ref)}
            {#if m.placed}
              <button
                type="button"
                class="mr-2 min-h-6 text-base font-bold underline decoration-line underline-offset-4 {desk.selected ===
                m.placed.partId
                  ? 'text-evidence'
                  : ''}"
                onclick={() => (desk.selected = m.placed?.partId ?? null)}>{m.ref}</button
              >{#if m.ref === ahead}<span class="mr-2 text-ink2">{percent(shareOf(m.ref))}</span>{/if}
            {:else}<span class="mr-2 text-base font-bold">{m.ref}</span>{/if}
          {/each}
          {#if members.length > 12}<span class="text-ink2">and {members.length - 12} more</span>{/if}
          <span class="text-ink2"
            >{isPair(part.ref)
              ? `both: ${mode(part.ref)}`
              : refs.length > 1
                ? isHidden(part.ref)
                  ? 'show nothing to a meter: dead inside, or open where DC is blind'
                  : `read alike: ${sharedMode(refs)}${others ? ', or something that is not in this circuit' : ''}`
                : [kind(part.ref), mode(part.ref)].filter(Boolean).join(', ')}</span
          >
        </span>
        <span class="text-base font-bold {inDoubt && part.ref !== NONE ? 'text-caution' : ''}"
          >{inDoubt && part.ref !== NONE ? 'in doubt' : percent(p)}</span
        >
      </div>
      <svg class="my-1 block h-1.5 w-full" preserveAspectRatio="none" viewBox="0 0 100 1" aria-hidden="true">
        <rect width="100" height="1" class="fill-faint" />
        <rect width={100 * p} height="1" class={n === 0 ? 'fill-hot' : 'fill-ink3'} />
      </svg>
      {#if part.ref === NONE && inDoubt}{@render doubt()}{/if}
      {#if part.ref !== NONE && part.ref !== SOFTWARE}
        {#if voices(part, 1)}<p class="text-[13px]"><b>For:</b> {voices(part, 1)}</p>{/if}
        <p class="text-[13px] text-ink2">
          <b>Against:</b>
          {voices(part, -1) || 'nothing yet'}
        </p>
        {#if part.shop}<p class="text-[13px] text-ink2">
            Found in {part.shop.found} of {view.history.jobs}
            {view.history.jobs === 1 ? 'repair' : 'repairs'} of this board: weighs {part.shop.factor.toPrecision(2)} × as
            much as by its kind alone.
          </p>{/if}
        {#if inDoubt}{@render doubt()}{/if}
        {#if chosen?.placed && ((n === 0 && !result.doubt) || desk.selected === chosen.placed.partId)}
          <button
            type="button"
            class="button mt-2"
            onclick={() =>
              chosen.placed && onConvict(chosen.placed.partId, why(part), storyLines(result.story, netlist.ground))}
          >
            {n > 0 || result.doubt
              ? `Overrule: ${chosen.ref} it is`
              : isPair(part.ref)
                ? `Convict ${chosen.ref} first`
                : `Convict ${chosen.ref}`}
          </button>
        {/if}
      {/if}
    </div>
  {/each}
  <p class="mt-3 text-[13px]">
    {#if result.power === 'blocked'}
      <span class="font-semibold text-stop">■ Not under power yet:</span> {result.why}.
    {:else}
      <span class="font-semibold text-good">● Power may come on:</span> {result.why}.
    {/if}
  </p>
  {#if meter && meter.leadsOhm > 0}<p class="mt-1 text-[13px] text-ink2">
      {meter.leadsOhm} Ω of the leads of {meter.name} are taken off every ohm reading here.
    </p>{/if}
  <Story {result} {netlist} />
  {#each result.notes as note (note)}<p role="status" class="mt-1 text-[13px] font-semibold text-caution">
      ▲ {note}
    </p>{/each}
</section>
