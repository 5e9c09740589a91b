<script lang="ts">
  // What a method does besides melting joints, until the part is off.
  import type { BoardModel } from '@orthos/core/board';
  import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
  import type { Harm } from '@orthos/core/materials';
  import { fateOf, HARM_TONE, type PlanResult } from '@orthos/core/rework';
  import { nameOf } from '$lib/jobs/nameOf';
  import { MARK } from './words';

  interface Props {
    board: BoardModel;
    result: PlanResult;
    units: UnitSettings;
  }
  let { board, result, units }: Props = $props();
  type Tone = 'good' | 'caution' | 'stop';
  const percent = (p: number) => (p < 0.001 ? 'below 0.1 %' : `${(100 * p).toFixed(p < 0.1 ? 1 : 0)} %`);
  const tornTone = (p: number): Tone => (p < 0.005 ? 'good' : p < 0.025 ? 'caution' : 'stop');
  const BODY: Record<Harm, string> = {
    hurts: 'not to be used again',
    'may hurt': 'may not live',
    near: 'lives, near its limit',
    clear: 'lives',
  };
  const LAMINATE: Record<Harm, string> = {
    hurts: 'blisters',
    'may hurt': 'may blister',
    near: 'near blistering',
    clear: 'unharmed',
  };

  const rows = $derived.by(() => {
    const list: { name: string; says: string; tone: Tone; word: string }[] = [];
    const outcomes = result.outcomes as NonNullable<PlanResult['outcomes']>;
    const { torn, body, laminate } = outcomes;
    if (torn) {
      const land = outcomes.lands.find((l) => l.terminal === torn.terminal);
      list.push({
        name: `Land ${torn.terminal}`,
        says:
          land && land.aboveTg_s > 0
            ? `${land.aboveTg_s.toFixed(0)} s soft, ${Math.round(land.exposure_K_s)} K·s`
            : 'stays hard',
        tone: tornTone(torn.p),
        word: `torn: ${percent(torn.p)}`,
      });
    }
    if (laminate)
      list.push({
        name: 'Laminate',
        says: `${formatTemperature(laminate.peak_C, units)} at the hottest land`,
        tone: HARM_TONE[laminate.says],
        word: LAMINATE[laminate.says],
      });
    list.push({
      name: 'Its body',
      says: `${formatTemperature(body.peak_C, units)}${body.why && body.says !== 'clear' ? `: ${body.why}` : ''}`,
      tone: body.over || body.says === 'may hurt' ? 'caution' : 'good',
      word: body.says ? BODY[body.says] : body.over ? 'not to be used again' : 'lives',
    });
    const own = outcomes.wind.find((w) => w.loosens_s === 0 && w.verdict !== 'stays');
    if (own)
      list.push({
        name: nameOf(board, own.partId),
        says: `laid down, the wind is ${own.N.toFixed(1)} × what holds it`,
        tone: own.verdict === 'flies' ? 'stop' : 'caution',
        word: own.verdict,
      });
    for (const word of ['flies', 'skews', 'falls off', 'loosens'] as const) {
      const alike = result.neighbours.filter((n) => fateOf(result, n).word === word);
      if (alike.length === 0) continue;
      const names = alike.map((n) => nameOf(board, n.partId));
      const fate = fateOf(result, alike[0]);
      const from = Math.min(...alike.map((n) => n.loosens_s ?? Infinity));
      list.push({
        name: fate.first === 'wind' ? 'In the wind' : 'Other side',
        says: `${names.slice(0, 5).join(', ')}${names.length > 5 ? ` and ${names.length - 5} more` : ''}: loose from ${from.toFixed(0)} s${fate.first === 'wind' ? '; cover them' : ''}`,
        tone: fate.tone,
        word,
      });
    }
    for (const c of outcomes.ceramics.filter((q) => q.step_K !== undefined))
      list.push({
        name: nameOf(board, c.partId),
        says: `the tip is ${Math.round((c.step_K ?? 0) * (units.temperature === 'F' ? 1.8 : 1))} ${units.temperature === 'F' ? '°F' : 'K'} hotter when it touches`,
        tone: c.grade === 'harsh' ? 'caution' : 'good',
        word: c.grade === 'harsh' ? 'may crack: not again' : c.grade,
      });
    const harsh = outcomes.ceramics.filter((c) => c.grade === 'harsh');
    if (harsh.length > 0)
      list.push({
        name: 'Ceramics',
        says: harsh
          .slice(0, 4)
          .map((c) => nameOf(board, c.partId))
          .join(', '),
        tone: 'caution',
        word: `rise up to ${Math.max(...harsh.map((c) => c.ramp_K_s)).toFixed(0)} K/s`,
      });
    return list;
  });
</script>

<h3 class="mt-4 mb-1 text-[13px] text-ink2">Besides, until it is off</h3>
<table class="w-full" aria-label="Besides, until it is off">
  <tbody>
    {#each rows as r (r.name + r.says)}
      <tr class="border-t border-faint">
        <th scope="row" class="w-20 py-1.5 text-left font-semibold">{r.name}</th>
        <td class="text-ink2">{r.says}</td>
        <td
          class="pl-3 text-right font-semibold whitespace-nowrap {r.tone === 'good'
            ? 'text-good'
            : r.tone === 'caution'
              ? 'text-caution'
              : 'text-stop'}"
        >
          <span aria-hidden="true">{MARK[r.tone]}</span>
          {r.word}
        </td>
      </tr>
    {/each}
  </tbody>
</table>
