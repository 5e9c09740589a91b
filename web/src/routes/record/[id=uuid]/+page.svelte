<script lang="ts">
  import { recordOf } from '$lib/release/jobRecord';
  import { sideBySide } from '$lib/release/recordSummary';
  import { dayIn } from '$lib/ui/dates';
  import { useKeys } from '$lib/ui/keys.svelte';

  let { data } = $props();
  const view = $derived(data.view);
  const record = $derived(recordOf(view, (ms) => dayIn(data.shop.timeZone, ms)));
  const closed = $derived(record.functions.some((f) => f.closed));
  /** A row of photos each: before on the left, after on the right. */
  const pairs = $derived(sideBySide(view.photos));
  const shown = (t: number | null) => (t === null ? '' : `${t.toFixed(0)} s`);
  useKeys('Record', () => [{ keys: ['p'], label: 'print', run: () => window.print(), line: true }]);
</script>

<svelte:head><title>Record · No. {view.ticket.number} · Orthos</title></svelte:head>

{#snippet list(title: string, items: string[], tone = '')}
  {#if items.length > 0}
    <section class="mt-5 break-inside-avoid">
      <h2 class="text-base">{title}</h2>
      <ul class="mt-1 list-disc pl-5 {tone}">
        {#each items as item, i (i)}<li>{item}</li>{/each}
      </ul>
    </section>
  {/if}
{/snippet}

<div class="h-full overflow-auto bg-sheet print:h-auto print:overflow-visible print:bg-transparent">
  <article class="mx-auto max-w-[820px] px-4 py-4 sm:px-8 sm:py-6 print:max-w-none print:p-0">
    <div class="mb-4 flex gap-2 print:hidden">
      <a class="button" href="/jobs/{view.ticket.id}/release">Back to the job</a>
      <button class="button" onclick={() => window.print()}>Print</button>
      <a class="button" href="/record/{view.ticket.id}/pdf">PDF</a>
    </div>
    <header class="border-b-2 border-ink pb-3">
      <p class="flex text-[13px] text-ink2"><span>{data.shop.name}</span><span class="ml-auto">Record of work</span></p>
      <h1 class="mt-1 text-2xl">{record.title}</h1>
      <p class="text-lg text-ink2">{record.subtitle}</p>
    </header>
    <dl class="mt-4 grid grid-cols-[100px_1fr] gap-x-4 gap-y-1 sm:grid-cols-[110px_1fr_110px_1fr]">
      {#each record.facts as [name, value] (name)}
        <dt class="text-ink2">{name}</dt>
        <dd>{value}</dd>
      {/each}
    </dl>
    <p class="mt-4 border-l-[3px] border-ink pl-3 text-lg font-semibold first-letter:uppercase">{record.outcome}</p>

    {@render list('What was wrong', record.summary.wrong)}
    {@render list('What was done', record.summary.done)}
    {#if record.summary.measured.length > 0}
      <section class="mt-5 break-inside-avoid">
        <h2 class="text-base">Measured before and after</h2>
        <table class="mt-1 w-full max-w-[560px]">
          <thead class="text-left text-[13px] text-ink2"
            ><tr
              ><th class="font-normal">Where</th><th class="font-normal">before</th><th class="font-normal">after</th
              ><th class="font-normal">good</th></tr
            ></thead
          >
          <tbody>
            {#each record.summary.measured as m, i (i)}
              <tr class="border-t border-faint"
                ><td>{m.what}</td><td>{m.before}</td><td class="font-semibold">{m.after}</td><td>{m.good}</td></tr
              >
            {/each}
          </tbody>
        </table>
      </section>
    {/if}
    {@render list('What to watch', record.summary.watch)}
    {#if pairs.length > 0}
      <section class="mt-5">
        <h2 class="text-base">Before and after</h2>
        <div class="mt-1 grid grid-cols-2 gap-2">
          {#each pairs as pair, i (i)}
            {#each pair as p, side (side)}
              {#if p}<img
                  class="w-full break-inside-avoid border border-line"
                  src="/api/photos/{p.id}?small"
                  alt="{side === 0 ? 'Before' : 'After'}, {i + 1}"
                  width={p.width}
                  height={p.height}
                />{:else}<span></span>{/if}
            {/each}
          {/each}
        </div>
      </section>
    {/if}

    <h2 class="mt-8 border-t-2 border-ink pt-2 text-lg">In detail</h2>
    {#if record.intake.length > 0}
      <dl class="mt-4 grid grid-cols-[130px_1fr] gap-x-4 gap-y-1">
        {#each record.intake as [name, value] (name)}<dt class="text-ink2">{name}</dt>
          <dd>{value}</dd>{/each}
      </dl>
    {/if}
    {@render list('Damage', record.damage)}

    {#each record.attempts as a, i (i)}
      <section class="mt-5">
        <h2 class="text-base">{a.title}</h2>
        {#if a.why}<p class="text-ink2">{a.why}</p>{/if}
        {#if a.story.length > 0}<ol class="mt-1 list-inside list-decimal text-[13px]">
            {#each a.story as line, n (n)}<li>{line}</li>{/each}
          </ol>{/if}
        {#if a.readings.length > 0}<p class="mt-1 text-[13px]">Readings: {a.readings.join('; ')}.</p>{/if}
        {#if a.facts.length > 0}<dl class="mt-1 grid grid-cols-[130px_1fr] gap-x-4 text-[13px]">
            {#each a.facts as [name, value] (name)}<dt class="text-ink2">{name}</dt>
              <dd>{value}</dd>{/each}
          </dl>{/if}
        {#each a.runs as run, k (k)}
          <div class="mt-3 break-inside-avoid">
            <h3>
              {[run.title, run.method].filter(Boolean).join(', ')}{run.notes.length > 0
                ? ` (${run.notes.join(', ')})`
                : ''}
            </h3>
            {#if run.rows.length > 0}
              <table class="mt-1 w-full max-w-[560px]">
                <thead class="text-left text-[13px] text-ink2">
                  <tr
                    ><th class="font-normal">Moment</th><th class="text-right font-normal">predicted</th><th
                      class="text-right font-normal">actual</th
                    ><th class="text-right font-normal">difference</th></tr
                  >
                </thead>
                <tbody>
                  {#each run.rows as r (r.eventId)}
                    <tr class="border-t border-faint">
                      <td>{r.label}</td>
                      <td class="text-right">{shown(r.planned)}</td>
                      <td class="text-right font-semibold">{shown(r.actual)}</td>
                      <td class="text-right"
                        >{r.off === null ? '' : `${r.off >= 0 ? '+' : '−'}${Math.abs(r.off).toFixed(0)} s`}</td
                      >
                    </tr>
                  {/each}
                </tbody>
              </table>
            {:else if run.method}
              <p class="text-[13px] text-ink2">No times were marked.</p>
            {/if}
            {#if run.joints.length > 0}
              <p class="mt-1 text-[13px] text-ink2">
                Predicted melting: {run.joints
                  .map((j) => `${j.terminal} ${j.wet_s === null ? 'may stay solid' : `${j.wet_s.toFixed(0)} s`}`)
                  .join(', ')}.
              </p>
            {/if}
          </div>
        {/each}
        {#if a.proven.length > 0}<dl
            class="mt-3 grid grid-cols-[130px_1fr] gap-x-4 text-[13px] sm:grid-cols-[190px_1fr]"
          >
            {#each a.proven as [name, value], n (n)}<dt class="text-ink2">{name}</dt>
              <dd>{value}</dd>{/each}
          </dl>{/if}
      </section>
    {/each}

    {@render list('Changed while searching', record.swaps)}
    {#if record.shortCheck}
      <section class="mt-5 break-inside-avoid">
        <h2 class="text-base">Short check before power</h2>
        <p>{record.shortCheck}</p>
      </section>
    {/if}
    {#if record.functions.length > 0}
      <section class="mt-5 break-inside-avoid">
        <h2 class="text-base">Functions</h2>
        <table class="mt-1 w-full max-w-[560px]">
          <thead class="text-left text-[13px] text-ink2"
            ><tr
              ><th class="font-normal">What</th><th class="font-normal">before</th><th class="font-normal">after</th
              >{#if closed}<th class="font-normal">closed</th>{/if}</tr
            ></thead
          >
          <tbody>
            {#each record.functions as f (f.name)}
              <tr class="border-t border-faint"
                ><td class="first-letter:uppercase">{f.name}</td><td>{f.before}</td><td>{f.after}</td>{#if closed}<td
                    >{f.closed || 'not tried'}</td
                  >{/if}</tr
              >
            {/each}
          </tbody>
        </table>
      </section>
    {/if}
    {@render list('While it was open', record.extras)}
    {@render list('Slips', record.slips)}
    {@render list('Gates overridden', record.overrides)}
    {@render list('Not done', record.notDone, 'text-ink2')}

    <p class="mt-6 border-t border-faint pt-2 text-[13px] text-ink2">
      {record.leadUsed ? 'Leaded solder was used on this board: wash hands after handling. ' : ''}Local rules and
      licensed practice come first where mains, vehicle safety or industrial safety functions are concerned.
    </p>
  </article>
</div>
