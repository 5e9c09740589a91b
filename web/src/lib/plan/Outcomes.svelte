<script lang="ts">
  // What a method does besides melting joints, until the part is off.
  import { formatTemperature, type BoardModel, type PlanResult, type UnitSettings } from '@orthos/core';
  import { nameOf } from './words';

  interface Props {
    board: BoardModel;
    outcomes: NonNullable<PlanResult['outcomes']>;
    units: UnitSettings;
  }
  let { board, outcomes, units }: Props = $props();
  type Tone = 'good' | 'caution' | 'stop';
  const MARK = { good: '●', caution: '◆', stop: '▲' } as const;

  const rows = $derived.by(() => {
    const list: { name: string; says: string; tone: Tone; word: string }[] = [];
    const { padStress: pad, body } = outcomes;
    const land = outcomes.lands.find((l) => l.terminal === pad.terminal);
    list.push({
      name: `Land ${pad.terminal}`,
      says:
        land && land.aboveTg_s > 0
          ? `${land.aboveTg_s.toFixed(0)} s soft, ${Math.round(pad.exposure_K_s)} K·s`
          : 'stays hard',
      tone: pad.says === 'easy' ? 'good' : pad.says === 'careful' ? 'caution' : 'stop',
      word: pad.says === 'tears' ? 'tears if one joint holds' : pad.says,
    });
    list.push({
      name: 'Its body',
      says: `${formatTemperature(body.peak_C, units)} of ${formatTemperature(body.limit_C, units)}`,
      tone: body.over ? 'caution' : 'good',
      word: body.over ? 'not to be used again' : 'lives',
    });
    for (const w of outcomes.wind.filter((q) => q.verdict !== 'stays'))
      list.push({
        name: nameOf(board, w.partId),
        says: `loose from ${w.loosens_s?.toFixed(0) ?? '?'} s, wind ${w.N.toFixed(1)} × its hold`,
        tone: w.verdict === 'flies' ? 'stop' : 'caution',
        word: w.verdict,
      });
    for (const f of outcomes.farSide.filter((q) => q.verdict !== 'holds'))
      list.push({
        name: nameOf(board, f.partId),
        says: `other side, ${formatTemperature(f.peak_C, units)}`,
        tone: f.verdict === 'falls' ? 'stop' : 'caution',
        word: f.verdict,
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
          class="pl-3 text-right font-semibold {r.tone === 'good'
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
