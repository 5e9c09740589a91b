<script lang="ts">
  import PackagePick from '$lib/boards/PackagePick.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Field from '$lib/ui/Field.svelte';
  import { enhance } from '$app/forms';
  import Form from '$lib/ui/Form.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import WhatFits from '$lib/plan/WhatFits.svelte';
  import { readPackage } from '@orthos/core/packages';
  import { BOARD_KINDS, PLASTICS } from '@orthos/core/rework';
  import { untrack } from 'svelte';

  const AGAIN = { scrap: 'it is scrap', again: 'it goes on again' };
  const HOUSED = { out: 'out of its housing', in: 'stays in its housing' };
  const METAL = { sound: 'sound', corroded: 'corroded', leaking: 'under what leaked' };

  let { data, form } = $props();
  const typed = untrack(() => form?.values as Record<string, string> | undefined);
  let text = $state(typed?.package ?? '');
  const meant = $derived(readPackage(text));
  let bench = $state(typed?.bench ?? untrack(() => data.benches[0].name));
  let plastic = $state(typed?.plastic ?? 'unknown');
</script>

<svelte:head><title>Express job · Orthos</title></svelte:head>

<div class="h-full overflow-auto px-8 py-7">
  <h1 class="text-[26px]">Express job</h1>
  <p class="mt-1 mb-6 text-ink2">
    A few answers and every way of taking it off is compared. No board model, no customer; both can be added later.
  </p>
  <div class="grid max-w-6xl grid-cols-[minmax(0,3fr)_minmax(260px,2fr)] items-start gap-8">
    <Form
      answer={form}
      action="?/fresh"
      class="grid grid-cols-2 content-start gap-x-8 gap-y-5 border border-line bg-sheet p-7"
    >
      {#snippet children({ busy })}
        <Field label="Part to take off" name="package" hint="as you would say it, or by its legs and size">
          {#snippet control(a)}<PackagePick {...a} soldered required focus bind:text />{/snippet}
        </Field>
        <Field label="Kind of board" name="boardKind" start="two-layer">
          {#snippet control(a)}
            <Select
              choices={Object.entries(BOARD_KINDS).map(([id, kind]) => ({ value: id, label: kind.label }))}
              {...a}
            />
          {/snippet}
        </Field>
        <Field label="Nearest plastic" name="plastic">
          {#snippet control(a)}
            <Select
              choices={Object.entries(PLASTICS).map(([id, p]) => ({ value: id, label: p.label }))}
              {...a}
              bind:value={plastic}
            />
          {/snippet}
        </Field>
        <Field label="Its distance, mm" name="distance_mm" start="5" hint="from body to body">
          {#snippet control(a)}
            <input {...a} class="field" inputmode="decimal" disabled={plastic === 'none'} />
          {/snippet}
        </Field>
        <Field label="What becomes of it" name="again" start="scrap">
          {#snippet control(a)}<Select {...a} choices={AGAIN} />{/snippet}
        </Field>
        <Field label="Its joints" name="metal" start="sound" hint="a can that leaked crusts them">
          {#snippet control(a)}<Select {...a} choices={METAL} />{/snippet}
        </Field>
        <Field label="The board" name="housed" start="out">
          {#snippet control(a)}<Select {...a} choices={HOUSED} />{/snippet}
        </Field>
        {#if data.benches.length > 1}
          <Field label="Bench" name="bench" start={bench}>
            {#snippet control(a)}
              <Select
                {...a}
                choices={data.benches.map(({ name }) => ({ value: name, label: name }))}
                bind:value={bench}
              />
            {/snippet}
          </Field>
        {/if}
        <div class="col-span-2 flex items-center gap-3">
          <button class="button button-main" disabled={busy}>{busy ? 'Making the board' : 'Plan it'}</button>
          <a class="button" href="/jobs">Cancel</a>
        </div>
      {/snippet}
    </Form>
    <aside aria-label="The part" aria-live="polite" class="border-l-[3px] border-evidence py-1 pl-5">
      {#if 'id' in meant}<WhatFits id={meant.id} at={data.benches.find((b) => b.name === bench) ?? data.benches[0]} />
      {:else}<p class="text-ink2">
          {text.trim() === ''
            ? 'The part shows here once it is named, with the ways of taking it off.'
            : 'No package of that name yet.'}
        </p>
        {#if data.lastTimes.length > 0}
          <h2 class="mt-6 mb-1 text-lg">As last time</h2>
          <p class="mb-2 text-[13px] text-ink2">
            A new job with its part, settings and price, planned for today's bench.
          </p>
          <Notice
            text={form?.issues && 'again' in form.issues ? String(form.issues.again) : null}
            at="panel"
            class="mb-2"
          />
          <ul aria-label="As last time">
            {#each data.lastTimes as l (l.id)}
              <li>
                <form
                  method="POST"
                  action="?/again"
                  use:enhance
                  class="flex items-center gap-3 border-t border-faint py-1.5"
                >
                  <input type="hidden" name="id" value={l.id} />
                  <p class="min-w-0 flex-1 text-[13px] leading-tight">
                    <strong>{l.part}</strong>, {l.device}
                    <span class="block text-ink2">
                      {[
                        ...l.readings,
                        l.method,
                        l.from,
                        l.minutes === null ? '' : `${Math.round(l.minutes)} min`,
                        l.price,
                        `No. ${l.number}`,
                      ]
                        .filter(Boolean)
                        .join(' · ')}
                    </span>
                  </p>
                  <button class="button shrink-0" aria-label="As last time: {l.part}, {l.device}">As last time</button>
                </form>
              </li>
            {/each}
          </ul>
        {/if}{/if}
    </aside>
  </div>
</div>
