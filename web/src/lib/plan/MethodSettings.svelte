<script lang="ts">
  import { guarded } from '$lib/ui/unsaved.svelte';
  import Fold from '$lib/ui/Fold.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { type Field, kindOf, type Method, methodName, type Phase } from '@orthos/core/rework';
  import type { PlanInputs } from '$lib/jobs/view';
  import Slider from '$lib/ui/Slider.svelte';
  import type { BoardModel } from '@orthos/core/board';
  import { parseDecimal } from '@orthos/core/ground';
  import Nearly from './Nearly.svelte';
  import {
    fieldName,
    fieldsOf,
    methodOf,
    numbersFree,
    shownIn,
    textsOf,
    unitName,
    valueAt,
    type Panel,
  } from './settings';

  interface Props {
    board: BoardModel;
    inputs: PlanInputs;
    method: Method;
    units: Panel;
    onSave: (method: Method) => Promise<unknown>;
    onClose: () => void;
  }
  let { board, inputs, method, units, onSave, onClose }: Props = $props();

  // the form starts from the method and is the user's afterwards
  // svelte-ignore state_referenced_locally
  let texts = $state(textsOf(method, units));
  let issues = $state<Record<string, string>>({});
  let busy = $state(false);
  /** The setting whose slider a hand is on. */
  let held = '';
  /** Something rare is set: show it. */
  // svelte-ignore state_referenced_locally
  let opened = $state(
    method.phases.map((p) =>
      fieldsOf(p).more.some((f) => {
        const text = texts[fieldName(p, f)];
        return text !== '' && text !== f.choices?.[0][0];
      }),
    ),
  );

  /** Settings with a slider: what a bench can turn, by its name in a search, with its ends. */
  const slid = $derived(
    method.phases.flatMap((p) =>
      fieldsOf(p).usual.flatMap((f) => {
        const key = `${p.id}.${f.key}`;
        const allowed = numbersFree(inputs.free[method.id]?.[key]);
        const is = valueAt(p, f);
        if (allowed.length < 2 || f.choices || typeof is !== 'number') return [];
        return [{ key, name: fieldName(p, f), f, lo: Math.min(is, ...allowed), hi: Math.max(is, ...allowed) }];
      }),
    ),
  );
  /** The method as the form says it now; as it was while something in it is wrong. */
  const now = $derived.by(() => {
    const read = methodOf(method, texts, units);
    return 'issues' in read ? method : read.method;
  });
  const numbersOf = (m: Method) =>
    Object.fromEntries(
      slid.flatMap(({ key, f }) => {
        const phase = m.phases.find((p) => key.startsWith(`${p.id}.`));
        const v = phase && valueAt(phase, f);
        return typeof v === 'number' ? [[key, v] as const] : [];
      }),
    );
  const STEP: Readonly<Record<string, number>> = { temperature: 5, 'L/min': 1 };

  async function save(event: SubmitEvent) {
    event.preventDefault();
    const read = methodOf(method, texts, units);
    issues = 'issues' in read ? read.issues : {};
    if ('issues' in read) return;
    busy = true;
    await onSave(read.method);
    busy = false;
  }
</script>

{#snippet field(p: Phase, f: Field)}
  {@const unit = unitName(f, units)}
  {@const name = fieldName(p, f)}
  <div>
    <label class="label" for="k-{name}">{f.label}{unit ? `, ${unit}` : ''}</label>
    {#if f.choices}
      <Select id="k-{name}" choices={Object.fromEntries(f.choices)} bind:value={texts[name]} />
    {:else}
      <input
        id="k-{name}"
        class="field"
        inputmode={f.alloy ? undefined : 'decimal'}
        placeholder={f.hint}
        bind:value={texts[name]}
        onfocus={() => (held = '')}
        aria-invalid={issues[name] ? true : undefined}
        aria-describedby={issues[name] ? `k-${name}-note` : undefined}
      />
    {/if}
    {#each slid.filter((s) => s.name === name) as { key, lo, hi } (key)}
      <!-- a slider snaps to its steps and ends by itself: only a hand on it may change what was typed -->
      <div role="presentation" onfocusin={() => (held = name)} onpointerdowncapture={() => (held = name)}>
        <Slider
          min={shownIn(lo, f, units)}
          max={shownIn(hi, f, units)}
          step={STEP[f.unit ?? ''] ?? 0.5}
          aria-label="{f.label} by hand"
          bind:value={
            () => Math.min(shownIn(hi, f, units), Math.max(shownIn(lo, f, units), parseDecimal(texts[name]) ?? 0)),
            (v) => {
              if (held === name) texts[name] = String(Math.round(10 * v) / 10);
            }
          }
        />
      </div>
    {/each}
    <Notice text={issues[name]} at="field" id="k-{name}-note" class="mt-1" />
  </div>
{/snippet}

<form
  onsubmit={save}
  {@attach guarded}
  class="my-3 border border-line p-4"
  aria-label="Settings of {methodName(method.id)}"
>
  {#each method.phases as p, n (p.id)}
    {@const { usual, more, moreTitle } = fieldsOf(p)}
    <fieldset class={n > 0 ? 'mt-4 border-t border-faint pt-3' : ''}>
      {#if method.phases.length > 1}<legend class="mb-2 font-semibold">{n + 1}. {kindOf(p).name}</legend>{/if}
      <div class="grid grid-cols-3 gap-3">
        {#each usual as f (f.key)}{@render field(p, f)}{/each}
      </div>
      {#if more.length > 0}
        <Fold title={moreTitle} quiet class="mt-3" bind:open={opened[n]}>
          <div class="mt-2 grid grid-cols-3 gap-3">
            {#each more as f (f.key)}{@render field(p, f)}{/each}
          </div>
        </Fold>
      {/if}
    </fieldset>
  {/each}
  <Nearly {board} {inputs} {method} turned={now} was={numbersOf(method)} now={numbersOf(now)} />
  <div class="mt-4 flex gap-2">
    <button class="button button-main" disabled={busy}>Keep these</button>
    <button type="button" class="button" onclick={onClose}>Leave as it was</button>
  </div>
</form>
