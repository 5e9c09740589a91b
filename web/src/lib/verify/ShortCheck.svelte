<script lang="ts">
  // Rails measured without power: the board alone, then with each load, judged at once.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import OneOf from '$lib/ui/OneOf.svelte';
  import { judgeShort } from '@orthos/core/diagnosis';
  import { formatReading, parseReading } from '@orthos/core/ground';
  import type { Attempt } from '@orthos/core/job';

  let { view, checks, recorder }: { view: JobView; checks: Attempt['shortChecks']; recorder: Recorder } = $props();
  const loads = $derived([null, ...(view.board.loads ?? []).map((l) => l.label)]);
  const rows = $derived(
    (view.board.rails ?? []).flatMap((rail) =>
      loads.map((load) => ({ rail, load, key: `${rail.label}/${load ?? ''}` })),
    ),
  );
  const latest = (rail: string, load: string | null) => checks.findLast((c) => c.rail === rail && c.load === load);
  const extra = $derived(
    checks.filter(
      (c, i) =>
        !rows.some((r) => r.rail.label === c.rail && r.load === c.load) &&
        checks.findLastIndex((d) => d.rail === c.rail && d.load === c.load) === i,
    ),
  );
  let typed = $state<Record<string, string>>({});
  let rail = $state('');
  let ohm = $state('');
  let good = $state('');
  /** What the meter is set to. */
  let mode = $state<'ohm' | 'diode'>('ohm');
  const unit = $derived(mode === 'ohm' ? 'Ω' : 'V');
  const ASKS = { ohm: 'Ohms such as 2k3, .4, or OL.', diode: 'Volts as diode mode shows them, such as .45, or OL.' };
  /** What was typed, as the event has it; null where it is no such reading. */
  function readingOf(text: string, good_V: number | null = null) {
    const value = parseReading(text);
    if (value === null || (value !== 'OL' && (value < 0 || (mode === 'diode' && value > 10)))) return null;
    return mode === 'ohm' ? { ohm: value } : { diode: { V: value, good_V } };
  }
  const MARKS = { met: '✓', unmet: '▲', unknown: '?' } as const;
  const TONES = { met: 'text-good', unmet: 'text-stop', unknown: 'text-caution' } as const;

  async function enter(row: (typeof rows)[number]) {
    const read = readingOf(typed[row.key] ?? '');
    if (read === null) return (recorder.problem = ASKS[mode]);
    const stored = await recorder.record({
      type: 'short-check',
      rail: row.rail.label,
      load: row.load,
      ...read,
      good_ohm: row.rail.good_ohm ?? null,
      nature: row.rail.nature ?? null,
    });
    if (stored) delete typed[row.key];
  }
  async function enterOther(event: SubmitEvent) {
    event.preventDefault();
    const reference = good.trim() === '' ? null : parseReading(good);
    if (!rail.trim()) return (recorder.problem = 'Name the rail: 5 V, VBAT, supply input.');
    if (good.trim() !== '' && (typeof reference !== 'number' || reference <= 0))
      return (recorder.problem = `Good board: ${mode === 'ohm' ? 'ohms such as 2k4' : 'volts such as .45'}, or leave it empty.`);
    const known = typeof reference === 'number' ? reference : null;
    const read = readingOf(ohm, known);
    if (read === null) return (recorder.problem = ASKS[mode]);
    const stored = await recorder.record({
      type: 'short-check',
      rail: rail.trim(),
      load: null,
      ...read,
      good_ohm: mode === 'ohm' ? known : null,
      nature: null,
    });
    if (stored) [rail, ohm, good] = ['', '', ''];
  }
</script>

<OneOf
  aria-label="Meter set to"
  choices={[
    { value: 'ohm', label: 'ohms' },
    { value: 'diode', label: 'diode mode' },
  ]}
  bind:value={mode}
/>
{#each rows as row (row.key)}
  {@const c = latest(row.rail.label, row.load)}
  {@const v = c && judgeShort(c)}
  <div class="flex items-center gap-2 border-t border-faint py-1">
    <span class="w-36 shrink-0 leading-tight"
      ><span class="font-semibold">{row.rail.label}</span>
      <span class="block text-[13px] text-ink2"
        >{row.load ? `with ${row.load}` : 'board alone'}, {row.rail.partId.toUpperCase()}.{row.rail.terminal}</span
      ></span
    >
    <span class="min-w-0 flex-1 text-[13px] {v ? TONES[v.state] : 'text-ink2'}"
      >{v
        ? `${MARKS[v.state]} ${v.why}`
        : row.rail.good_ohm
          ? `good board ${formatReading(row.rail.good_ohm, 'ohm')}`
          : (row.rail.nature?.why ?? 'no reference')}</span
    >
    <input
      class="field w-20"
      bind:value={typed[row.key]}
      placeholder={unit}
      aria-label="{row.rail.label} {row.load ? `with ${row.load}` : 'board alone'}, {mode === 'ohm'
        ? 'ohms'
        : 'diode mode'}"
      onkeydown={(e) => e.key === 'Enter' && void enter(row)}
    />
    <button class="button px-3" onclick={() => enter(row)}>Enter</button>
  </div>
{/each}
{#each extra as c (c.id)}
  {@const v = judgeShort(c)}
  <p class="flex gap-2 border-t border-faint py-1">
    <span class="w-36 font-semibold">{c.rail}</span>
    <span class="text-[13px] {TONES[v.state]}">{MARKS[v.state]} {v.why}</span>
  </p>
{/each}
<form onsubmit={enterOther} class="flex gap-2 border-t border-faint pt-2" aria-label="Another rail">
  <input class="field" bind:value={rail} placeholder="another rail" aria-label="Rail" maxlength="120" />
  <input
    class="field w-24"
    bind:value={ohm}
    placeholder={unit}
    aria-label="Rail, {mode === 'ohm' ? 'ohms' : 'diode mode'}"
  />
  <input
    class="field w-28"
    bind:value={good}
    placeholder="good board {unit}"
    aria-label="Good board, {mode === 'ohm' ? 'ohms' : 'diode mode'}"
  />
  <button class="button px-3">Enter</button>
</form>
