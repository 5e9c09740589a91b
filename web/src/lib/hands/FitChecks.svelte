<script lang="ts">
  import { stateOf } from '$lib/jobs/stateOf';
  // Before solder: the old part tested, the new one measured, its orientation checked against something.
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { classOfPart, type Side } from '@orthos/core/board';
  import { offBoardVerdict, recipeFor } from '@orthos/core/diagnosis';
  import { currentAttempt, JOB_TYPES } from '@orthos/core/job';
  import NewPart from './NewPart.svelte';
  import Orientation from './Orientation.svelte';

  let { view, side, recorder }: { view: JobView; side: Side; recorder: Recorder } = $props();
  const job = $derived(stateOf(view.events));
  const attempt = $derived(currentAttempt(job));
  /** Nothing stood there: no old part came off. */
  const wasEmpty = $derived(attempt.ofSet !== undefined && job.set?.items.get(attempt.ofSet)?.do === 'place');
  const target = $derived(view.board.parts.find((p) => p.partId === view.inputs?.target));
  const tested = $derived(
    attempt.offBoardTest && attempt.offBoardTest.result !== 'not tested' ? attempt.offBoardTest.result : null,
  );
  const verdict = $derived(
    target && tested && attempt.offBoardTest?.recovered !== undefined
      ? offBoardVerdict(classOfPart(target), tested, attempt.offBoardTest.recovered)
      : null,
  );
</script>

<section class="mt-3" aria-label="Before solder">
  {#if !JOB_TYPES[view.ticket.kind].skips.includes('remove') && !wasEmpty}
    <div class="flex flex-wrap items-center gap-2 border-t border-faint py-2">
      <span class="flex-1 font-semibold">Old part, off the board</span>
      {#each ['bad', 'good', 'not tested'] as const as result (result)}
        <button
          class="button px-3 {attempt.offBoardTest?.result === result ? 'button-main' : ''}"
          aria-pressed={attempt.offBoardTest?.result === result}
          disabled={recorder.busy}
          onclick={() => recorder.record({ type: 'off-board-test', result })}>{result}</button
        >
      {/each}
    </div>
    {#if target && attempt.offBoardTest?.result !== 'not tested'}
      <p class="pb-2 text-[13px] text-ink2">{recipeFor(classOfPart(target))}</p>
    {/if}
    {#if tested}
      <div class="flex flex-wrap items-center gap-2 pb-2">
        <span class="flex-1">The board's line without it</span>
        {#each [[true, 'came back'], [false, 'still wrong']] as const as [recovered, label] (label)}
          <button
            class="button px-3 {attempt.offBoardTest?.recovered === recovered ? 'button-main' : ''}"
            aria-pressed={attempt.offBoardTest?.recovered === recovered}
            disabled={recorder.busy}
            onclick={() => recorder.record({ type: 'off-board-test', result: tested, recovered })}>{label}</button
          >
        {/each}
      </div>
    {/if}
    {#if verdict}
      <p class="pb-2 text-[13px] {{ good: 'text-good', caution: 'text-caution', stop: 'text-stop' }[verdict.tone]}">
        <span aria-hidden="true">{{ good: '●', caution: '◆', stop: '■' }[verdict.tone]}</span>
        <b>{verdict.title}.</b>
        {verdict.next}
        {#if verdict.tone !== 'good'}<a class="underline" href="/jobs/{view.ticket.id}/diagnose">Diagnose</a>{/if}
      </p>
    {/if}
  {/if}
  {#if target}
    <NewPart {target} {attempt} {job} {recorder} units={view.inputs?.panel ?? { temperature: 'C', length: 'mm' }} />
    <Orientation {view} {target} {side} {recorder} />
  {/if}
</section>
