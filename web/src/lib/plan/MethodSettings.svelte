<script lang="ts">
  import type { Method } from '@orthos/core/rework';
  import { KNOBS, methodOf, textsOf, unitName, type Panel } from './settings';

  interface Props {
    method: Method;
    units: Panel;
    onSave: (method: Method) => Promise<unknown>;
    onClose: () => void;
  }
  let { method, units, onSave, onClose }: Props = $props();

  const knobs = $derived(KNOBS[method.kind]);
  // the form starts from the method and is the user's afterwards
  // svelte-ignore state_referenced_locally
  let texts = $state(textsOf(method, units));
  let issues = $state<Record<string, string>>({});
  let busy = $state(false);
  /** Something rare is set: show it. */
  // svelte-ignore state_referenced_locally
  const opened = KNOBS[method.kind].more.some((k) => texts[k.key] !== '' && texts[k.key] !== k.choices?.[0][0]);

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

{#snippet field(k: (typeof knobs.usual)[number])}
  {@const unit = unitName(k, units)}
  <div>
    <label class="label" for="k-{k.key}">{k.label}{unit ? `, ${unit}` : ''}</label>
    {#if k.choices}
      <select id="k-{k.key}" class="field" bind:value={texts[k.key]}>
        {#each k.choices as [value, name] (value)}<option {value}>{name}</option>{/each}
      </select>
    {:else}
      <input
        id="k-{k.key}"
        class="field"
        inputmode={k.alloy ? undefined : 'decimal'}
        placeholder={k.hint}
        bind:value={texts[k.key]}
        aria-invalid={issues[k.key] ? true : undefined}
        aria-describedby={issues[k.key] ? `k-${k.key}-note` : undefined}
      />
    {/if}
    {#if issues[k.key]}<p id="k-{k.key}-note" role="alert" class="mt-1 text-[13px] font-semibold text-stop">
        {issues[k.key]}
      </p>{/if}
  </div>
{/snippet}

<form onsubmit={save} class="my-3 border border-line p-4" aria-label="Settings of {method.label}">
  <div class="grid grid-cols-3 gap-3">
    {#each knobs.usual as k (k.key)}{@render field(k)}{/each}
  </div>
  <details class="mt-3" open={opened}>
    <summary class="min-h-8 cursor-pointer text-ink2"
      >{method.kind === 'air' ? 'Path, stage 2, lean, mouth, pulses' : 'Tip and way of working'}</summary
    >
    <div class="mt-2 grid grid-cols-3 gap-3">
      {#each knobs.more as k (k.key)}{@render field(k)}{/each}
    </div>
  </details>
  <div class="mt-4 flex gap-2">
    <button class="button button-main" disabled={busy}>Keep these</button>
    <button type="button" class="button" onclick={onClose}>Leave as it was</button>
  </div>
</form>
