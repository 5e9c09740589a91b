<script lang="ts">
  import Select from '$lib/ui/Select.svelte';
  import Field from '$lib/ui/Field.svelte';
  import Form from '$lib/ui/Form.svelte';
  import { moneyField } from '$lib/intake/money';
  import { limitLines } from '$lib/settings/limits';
  import { setTheme } from '$lib/ui/theme';
  import { lawWords, LIMITS } from '@orthos/core/materials';

  let { data, form } = $props();
  const shop = $derived(data.settings.value);
  const zones = Intl.supportedValuesOf('timeZone');
</script>

<svelte:head><title>Settings · Orthos</title></svelte:head>

<div class="h-full overflow-auto px-8 py-7">
  <h1 class="mb-5 text-[26px]">Settings</h1>
  <div class="grid max-w-7xl items-start gap-8 min-[1100px]:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
    <Form answer={form} class="grid grid-cols-2 gap-x-8 gap-y-5 border border-line bg-sheet p-7">
      {#snippet children({ busy, saved })}
        <input type="hidden" name="version" value={data.settings.version} />
        <div class="col-span-2">
          <Field label="Shop" name="name" start={shop.name}>
            {#snippet control(a)}<input {...a} class="field" required maxlength="100" />{/snippet}
          </Field>
        </div>
        <Field label="Temperatures" name="temperature" start={shop.temperature}>
          {#snippet control(a)}
            <Select choices={{ C: '°C', F: '°F' }} {...a} />
          {/snippet}
        </Field>
        <Field label="Lengths" name="length" start={shop.length}>
          {#snippet control(a)}
            <Select choices={{ mm: 'mm', mil: 'mil', in: 'inch' }} {...a} />
          {/snippet}
        </Field>
        <Field label="Time zone" name="timeZone" start={shop.timeZone}>
          {#snippet control(a)}
            <input {...a} class="field" list="zones" required />
            <datalist id="zones"
              >{#each zones as zone (zone)}<option value={zone}></option>{/each}</datalist
            >
          {/snippet}
        </Field>
        <Field label="An hour at the bench costs" name="rate" start={moneyField(shop.rate_minor_h, shop.currency)}>
          {#snippet control(a)}<input {...a} class="field" inputmode="decimal" required />{/snippet}
        </Field>
        <Field label="Currency" name="currency" start={shop.currency} hint="three letters: EUR">
          {#snippet control(a)}<input {...a} class="field" required maxlength="3" />{/snippet}
        </Field>
        <Field label="Warranty on clean work, months" name="warrantyMonths" start={String(shop.warrantyMonths)}>
          {#snippet control(a)}<input {...a} class="field" inputmode="numeric" required />{/snippet}
        </Field>
        <Field label="Lands are flooded with" name="flood" start={shop.flood}>
          {#snippet control(a)}
            <Select
              choices={{ leaded: 'leaded solder: wets soonest', own: "the board's own: hotter, lead-free stays so" }}
              {...a}
            />
          {/snippet}
        </Field>
        <div class="col-span-2">
          <Field
            label="Folder for photos"
            name="photoFolder"
            start={shop.photoFolder ?? ''}
            hint="where a phone or microscope puts its pictures, on this machine: they come into the open job"
          >
            {#snippet control(a)}<input {...a} class="field" maxlength="500" placeholder="none" />{/snippet}
          </Field>
        </div>
        <div class="col-span-2">
          <Field
            label="Limits of this shop"
            name="limits"
            start={limitLines(shop.limits)}
            hint="a row of the table, °C, and for how many s: elko-radial 140 10"
          >
            {#snippet control(a)}<textarea
                {...a}
                class="field"
                rows="3"
                placeholder="as the table says"
                maxlength="4000"></textarea>{/snippet}
          </Field>
        </div>
        <div class="col-span-2 min-h-64">
          {#await import('$lib/settings/HouseRules.svelte') then { default: HouseRules }}
            <HouseRules never={shop.never ?? []} />
          {/await}
        </div>
        <div>
          <span class="label">Theme of this screen</span>
          <div class="flex gap-2">
            <button type="button" class="button" onclick={() => setTheme('day')}>Day</button>
            <button type="button" class="button" onclick={() => setTheme('scope')}>Scope</button>
          </div>
        </div>
        <div class="col-span-2 flex items-center gap-4">
          <button class="button button-main" disabled={busy}>Save</button>
          <p role="status" class="font-semibold text-good">{saved ? '● saved' : ''}</p>
        </div>
      {/snippet}
    </Form>
    <section aria-labelledby="limits-table">
      <h2 id="limits-table" class="mb-2 text-lg">What parts stand</h2>
      <p class="mb-3 text-[13px] text-ink2">
        The table that plans go by. A row of it is overruled by a line under Limits of this shop; a part’s own papers
        overrule both.
      </p>
      <table class="w-full text-[13px]">
        <tbody>
          {#each LIMITS.values() as l (l.id)}
            <tr class="border-t border-faint align-top">
              <th scope="row" class="py-1 pr-3 text-left font-normal">
                <span class="font-semibold">{l.id}</span>
                <span class="block text-ink2">{l.what}: {l.why}</span>
              </th>
              <td class="py-1 text-right whitespace-nowrap">{lawWords(l.law)} ± {l.plusMinus_K} K</td>
            </tr>
          {/each}
        </tbody>
      </table>
    </section>
  </div>
</div>
