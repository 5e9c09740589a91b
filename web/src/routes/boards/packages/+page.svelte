<script lang="ts">
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { enhance } from '$app/forms';
  import Form from '$lib/ui/Form.svelte';
  import PackageDrawing from '$lib/boards/PackageDrawing.svelte';
  import { parseDecimal } from '@orthos/core/ground';
  import { lawWords, LIMITS } from '@orthos/core/materials';
  import {
    FAMILIES,
    findPackages,
    gripOf,
    packageById,
    packageDesignation,
    PackageParamError,
    readDesignation,
  } from '@orthos/core/packages';

  let { data, form } = $props();
  let filter = $state('');
  let chosen = $state('SOIC-8');
  let making = $state(false);
  let family = $state('gull-rows');
  let values = $state<Record<string, string>>({});
  let label = $state('');

  const found = $derived(findPackages(filter, 400));
  const own = $derived(data.own.filter((o) => o.label.toLowerCase().includes(filter.trim().toLowerCase())));
  const kind = $derived(FAMILIES.get(family));
  /** What is typed as a designation, or why it is none. */
  const typed = $derived.by((): { id: string } | { field: string; message: string } => {
    const raw: Record<string, string | number> = {};
    for (const [key, p] of Object.entries(kind?.params ?? {})) {
      const text = values[`${family}.${key}`];
      if (text === undefined || text === '') continue;
      raw[key] = 'choices' in p ? text : (parseDecimal(text) ?? text);
    }
    try {
      return { id: packageDesignation(family, raw) };
    } catch (e) {
      if (e instanceof PackageParamError) return { field: e.field, message: e.message };
      throw e;
    }
  });
  let lastGood = $state('gull-rows:');
  $effect(() => {
    if ('id' in typed) lastGood = typed.id;
  });
  const shown = $derived(making ? lastGood : chosen);
  const pkg = $derived(packageById(shown));
  const stands = $derived(LIMITS.get(pkg.limit));
  const grip = $derived(gripOf(pkg));
  function startFrom(id: string) {
    making = true;
    const read = readDesignation(id);
    if (read) {
      family = read.family.id;
      for (const [k, v] of Object.entries(read.raw)) values[`${family}.${k}`] = v;
    } else family = packageById(id).family;
  }
</script>

<svelte:head><title>Packages · Orthos</title></svelte:head>

<div class="grid h-full grid-cols-[minmax(300px,360px)_minmax(0,1fr)] overflow-hidden">
  <section class="flex min-h-0 flex-col border-r border-line p-4" aria-label="Packages">
    <div class="mb-3 flex items-center gap-2">
      <h1 class="mr-auto text-xl">Packages</h1>
      <button type="button" class="button px-3" aria-pressed={making} onclick={() => startFrom(chosen)}>Make one</button
      >
    </div>
    <input
      class="field mb-2"
      type="search"
      bind:value={filter}
      placeholder="soic 8, 0603, coin cell"
      aria-label="Find a package"
    />
    <ul class="min-h-0 flex-1 divide-y divide-faint overflow-auto">
      {#each own as o (o.id)}
        <li class="flex items-center">
          <button
            type="button"
            class="flex min-h-10 min-w-0 flex-1 items-center gap-2 px-2 text-left {!making && chosen === o.designation
              ? 'bg-evidence-soft'
              : ''}"
            onclick={() => {
              chosen = o.designation;
              making = false;
            }}
          >
            <span class="truncate font-semibold">{o.label}</span><span class="ml-auto text-[13px] text-ink2">own</span>
          </button>
          <form method="POST" action="?/remove" use:enhance>
            <input type="hidden" name="id" value={o.id} />
            <button class="h-10 px-2 text-evidence underline" aria-label="Remove {o.label}">remove</button>
          </form>
        </li>
      {/each}
      {#each found as p (p.id)}
        <li class="[contain-intrinsic-size:auto_40px] [content-visibility:auto]">
          <button
            type="button"
            class="flex min-h-10 w-full items-center gap-2 px-2 text-left {!making && chosen === p.id
              ? 'bg-evidence-soft'
              : ''}"
            onclick={() => {
              chosen = p.id;
              making = false;
            }}
          >
            <span class="truncate font-semibold">{p.label}</span>
            <span class="ml-auto text-[13px] whitespace-nowrap text-ink2">{p.body.l} × {p.body.w}</span>
          </button>
        </li>
      {/each}
    </ul>
    {#if found.length + own.length === 0}<p class="py-2 text-ink2">
        No package of that name. Make one from its family.
      </p>{/if}
  </section>
  <section class="min-h-0 overflow-auto p-6" aria-label="The package">
    <div class="grid grid-cols-[minmax(0,1fr)_minmax(260px,320px)] gap-8">
      <div>
        <h2 class="text-2xl">
          {making
            ? label.trim() || 'A package of your own'
            : (data.own.find((o) => o.designation === chosen)?.label ?? pkg.label)}
        </h2>
        <p class="text-ink2">{FAMILIES.get(pkg.family)?.title}</p>
        <PackageDrawing id={shown} />
        <p class="text-[13px] text-ink2">
          Sizes ± {pkg.plusMinus.mm} mm, heat figures ± {Math.round(pkg.plusMinus.heat * 100)} %: {pkg.source}.
        </p>
      </div>
      {#if making}
        <Form
          answer={null}
          action="?/add"
          class="space-y-2"
          ondone={({ type }) => {
            if (type !== 'success') return;
            chosen = lastGood;
            making = false;
            label = '';
          }}
        >
          {#snippet children({ busy })}
            <Select
              label="Family"
              choices={[...FAMILIES.values()].map((f) => ({ value: f.id, label: f.title }))}
              bind:value={family}
            />
            {#each Object.entries(kind?.params ?? {}) as [key, p] (`${family}.${key}`)}
              {@const bad = 'field' in typed && typed.field === key}
              <label class="flex min-h-10 items-center gap-3">
                <span class="flex-1 text-[13px] text-ink2">{p.label}{'unit' in p && p.unit ? `, ${p.unit}` : ''}</span>
                {#if 'choices' in p}
                  <Select
                    class="w-36 shrink-0"
                    choices={p.choices.map((c) => ({ value: c, label: LIMITS.get(c)?.what ?? c }))}
                    value={values[`${family}.${key}`] ?? p.initial}
                    onchange={(v) => (values[`${family}.${key}`] = v)}
                  />
                {:else}
                  <input
                    class="field w-24 text-right"
                    inputmode="decimal"
                    aria-invalid={bad ? 'true' : undefined}
                    value={values[`${family}.${key}`] ?? p.initial}
                    oninput={(e) => (values[`${family}.${key}`] = e.currentTarget.value)}
                  />
                {/if}
              </label>
            {/each}
            <Notice text={'message' in typed && typed.message} />
            <Notice text={form?.message} />
            <label class="block"
              ><span class="label">Name</span><input
                class="field"
                name="label"
                bind:value={label}
                maxlength="60"
                required
                autocomplete="off"
              /></label
            >
            <input type="hidden" name="designation" value={'id' in typed ? typed.id : ''} />
            <div class="flex gap-2 pt-2">
              <button class="button button-main" disabled={busy || !('id' in typed)}>Keep it</button>
              <button type="button" class="button" onclick={() => (making = false)}>Cancel</button>
            </div>
          {/snippet}
        </Form>
      {:else}
        <dl class="grid grid-cols-[auto_1fr] content-start gap-x-4 gap-y-2">
          <dt class="text-ink2">joints</dt>
          <dd>
            {pkg.terminals.length || 'none'}{pkg.terminals.length
              ? `, ${pkg.terminals[0].volume_mm3.toFixed(3)} mm³ solder each`
              : ''}
          </dd>
          <dt class="text-ink2">body heats by</dt>
          <dd>{pkg.C_J_K.toPrecision(2)} J/K</dd>
          <dt class="text-ink2">stands</dt>
          <dd>
            {#if stands}{lawWords(stands.law)} ± {stands.plusMinus_K} K: {stands.what}, {stands.why}{/if}
          </dd>
          <dt class="text-ink2">mark</dt>
          <dd>
            {{
              none: 'none',
              pin1: 'corner of pin 1',
              cathode: 'band at the cathode, terminal 1',
              'minus-stripe': 'stripe at minus, terminal 1',
              'plus-stripe': 'stripe at plus, terminal 1',
            }[pkg.polarity]}
          </dd>
          <dt class="text-ink2">grip</dt>
          <dd>{grip.tool}, {grip.faces}, {grip.width_mm.toFixed(1)} mm apart, {grip.height_mm.toFixed(1)} mm high</dd>
          <dt class="text-ink2">gap below</dt>
          <dd>{pkg.body.gap} mm</dd>
          <dt class="text-ink2">written</dt>
          <dd class="break-all">{pkg.id}</dd>
        </dl>
      {/if}
    </div>
  </section>
</div>
