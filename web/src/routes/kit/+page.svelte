<script lang="ts">
  import { enhance } from '$app/forms';
  import { GROUPS } from '$lib/kit/tools';
  import Tool from '$lib/kit/Tool.svelte';

  let { data, form } = $props();
  const bench = $derived(data.bench);
  let adding = $state(false);
  let renaming = $state(false);
  const gone = $derived(form && 'gone' in form ? form.gone : undefined);
  const there = $derived(
    GROUPS.map(({ title, kinds }) => ({
      title,
      kinds,
      tools: data.tools.filter((t) => t.kind in kinds),
    })),
  );
</script>

<svelte:head><title>Kit · Orthos</title></svelte:head>
<datalist id="benches"
  >{#each data.benches as name (name)}<option value={name}></option>{/each}</datalist
>

{#snippet benchForm(label: string, name: string, renames = false)}
  {#await import('$lib/kit/BenchForm.svelte') then { default: BenchForm }}
    <BenchForm answer={form} presets={renames ? undefined : data.presets} {label} {name} />
  {/await}
{/snippet}

<div class="h-full overflow-auto px-8 py-7">
  <h1 class="text-[26px]">Kit</h1>
  <p class="mt-1 mb-4 max-w-prose text-ink2">
    What lies on a bench, and how far its dials are from the truth. Plans offer what can be done with it, set as its
    tools can be set; a change here makes plans that used it stale.
  </p>
  {#if data.benches.length > 0}
    <nav class="mb-1 flex flex-wrap gap-1" aria-label="Benches">
      {#each data.benches as name (name)}
        <a
          class="border-b-[3px] px-3 py-1.5 {name === bench
            ? 'border-hot font-semibold'
            : 'border-transparent text-ink2 hover:text-ink'}"
          aria-current={name === bench ? 'page' : undefined}
          href="/kit?bench={encodeURIComponent(name)}">{name}</a
        >
      {/each}
    </nav>
    <button
      type="button"
      class="mb-2 min-h-9 text-[13px] text-evidence hover:underline"
      aria-expanded={adding}
      onclick={() => ((adding = !adding), (renaming = false))}>+ another bench</button
    >
    {#if bench}
      <button
        type="button"
        class="mb-2 ml-4 min-h-9 text-[13px] text-evidence hover:underline"
        aria-expanded={renaming}
        onclick={() => ((renaming = !renaming), (adding = false))}>rename {bench}</button
      >
    {/if}
    {#if renaming}
      <div class="mb-3 border border-line bg-sheet p-4">
        {#key bench}{@render benchForm('Rename', bench, true)}{/key}
      </div>
    {/if}
    {#if adding}<div class="mb-3 border border-line bg-sheet p-4">{@render benchForm('Add the bench', '')}</div>{/if}
  {/if}
  {#if gone}
    <form method="POST" action="?/putBack" use:enhance class="mb-3 flex items-center gap-3" role="status">
      <input type="hidden" name="item" value={gone.item} />
      <p>{gone.name} is off the list.</p>
      <button class="button">Put it back</button>
    </form>
  {/if}
  <div class="grid max-w-[1500px] items-start gap-6 min-[1200px]:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <div>
      {#if !data.listed}
        <div class="mb-5 border border-line bg-sheet p-4">
          <p class="mb-2 font-semibold">Nobody has listed {bench || 'this bench'} yet.</p>
          <p class="mb-3 text-[13px] text-ink2">
            Plans take every tool to be there. Begin with what usually lies on such a bench, then put it right.
          </p>
          {@render benchForm('List it', bench)}
        </div>
      {/if}
      {#each there as { title, kinds, tools } (title)}
        <section class="mb-4 border border-line bg-sheet" aria-label={title}>
          <div class="flex items-center gap-3 px-3 py-1.5">
            <h2 class="text-[15px] font-semibold">{title}</h2>
            {#if tools.length === 0}<p class="text-[13px] text-ink2">
                {data.listed ? 'none: what needs it is not offered' : 'none said'}
              </p>{/if}
            <form method="POST" action="?/add" use:enhance class="ml-auto flex flex-wrap gap-2">
              <input type="hidden" name="bench" value={bench} />
              {#each Object.entries(kinds) as [kind, words] (kind)}
                <button class="text-[13px] text-evidence hover:underline" name="kind" value={kind}>+ {words}</button>
              {/each}
            </form>
          </div>
          {#each tools as tool (tool.id)}<Tool {tool} answer={form} benches={data.benches} />{/each}
        </section>
      {/each}
    </div>
    {#await import('$lib/kit/Meters.svelte') then { default: Meters }}
      <Meters meters={data.meters} answer={form} {bench} />
    {/await}
  </div>
</div>
