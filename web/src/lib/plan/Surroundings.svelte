<script lang="ts">
  // What is found at the bench: heat from below, what holds the board, draught, covers and metal on parts, what is in the joints.
  import { guarded } from '$lib/ui/unsaved.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import type { AtBench } from '$lib/jobs/view';
  import type { BoardModel, PlacedPart } from '@orthos/core/board';
  import type { UnitSettings } from '@orthos/core/ground';
  import { packageById } from '@orthos/core/packages';
  import type { Surroundings } from '@orthos/core/rework';
  import { untrack } from 'svelte';
  import {
    AFTER,
    coversOn,
    DRAUGHT,
    heldOn,
    MOISTURE,
    OUT,
    SINKS,
    surroundingsOf,
    textsOf,
    underOn,
  } from './surroundings';
  import { nameOf } from '$lib/jobs/nameOf';

  interface Props {
    board: BoardModel;
    target: PlacedPart;
    value: Surroundings;
    /** Neighbours worth covering. */
    near: string[];
    units: UnitSettings;
    bench: AtBench;
    onSave: (value: Surroundings) => Promise<void>;
  }
  let { board, target, value, near, units, bench, onSave }: Props = $props();

  let t = $state(untrack(() => textsOf(value, units)));
  const listed = $derived([...new Set([target.partId, ...near, ...Object.keys(t.covers), ...Object.keys(t.sinks)])]);
  let problem = $state('');
  let busy = $state(false);

  async function save(event: SubmitEvent) {
    event.preventDefault();
    const terminals = packageById(target.package).terminals.map((p) => p.id);
    const read = surroundingsOf(t, units, { ...target, terminals });
    problem = 'problem' in read ? read.problem : '';
    if ('problem' in read) return;
    busy = true;
    await onSave(read.value);
    busy = false;
  }
</script>

{#snippet choice(
  label: string,
  key: 'under' | 'held' | 'draught' | 'moisture' | 'after',
  options: Record<string, string>,
)}
  <Select {label} choices={options} bind:value={t[key]} />
{/snippet}
{#snippet text(
  label: string,
  key:
    | 'plate'
    | 'flux'
    | 'window'
    | 'frame'
    | 'props'
    | 'prop'
    | 'own'
    | 'mixed'
    | 'ratio'
    | 'volume'
    | 'corroded'
    | 'clipped',
  hint = '',
)}
  <label
    ><span class="label">{label}</span><input
      class="field"
      bind:value={t[key]}
      placeholder={hint}
      maxlength="300"
      autocomplete="off"
    /></label
  >
{/snippet}

<form onsubmit={save} {@attach guarded} class="my-3 border border-line p-4" aria-label="Surroundings">
  <div class="grid grid-cols-3 gap-3">
    {@render choice('Under the board', 'under', underOn(bench, t.under))}
    {#if t.under === 'preheater'}{@render text(`at, °${units.temperature}`, 'plate')}
    {:else if t.under === 'infrared'}{@render text('kW/m²', 'flux')}{/if}
    {#if t.under === 'preheater' || t.under === 'infrared'}
      {@render text('only in a window, mm', 'window', 'everywhere')}
    {/if}
    {@render choice('The board is', 'held', heldOn(bench, t.held))}
    {#if t.held === 'frame'}{@render text('rim on it, mm', 'frame')}
    {:else if t.held === 'props'}
      {@render text('props at x y, mm', 'props', '5 5, 55 40')}
      {@render text('thick, mm', 'prop')}
    {/if}
    {@render choice('The room', 'draught', DRAUGHT)}
    {@render choice('Board and parts', 'moisture', MOISTURE)}
    {@render choice(`Afterwards ${nameOf(board, target.partId)}`, 'after', AFTER)}
  </div>

  <p class="label mt-3">On the parts</p>
  <ul>
    {#each listed as id (id)}
      <li class="flex items-center gap-2 border-t border-faint py-1">
        <span class="flex-1 truncate font-semibold">{nameOf(board, id)}</span>
        <Select
          class="w-40 shrink-0"
          none="not covered"
          choices={{ ...coversOn(bench, t.covers[id]), ...(id === target.partId ? {} : { [OUT]: 'taken out' }) }}
          bind:value={t.covers[id]}
          aria-label="Cover on {nameOf(board, id)}"
        />
        <Select
          class="w-36 shrink-0"
          none="nothing on it"
          choices={SINKS}
          bind:value={t.sinks[id]}
          aria-label="What sits on {nameOf(board, id)}"
        />
      </li>
    {/each}
  </ul>

  <fieldset class="mt-3">
    <legend class="label">Joints of {nameOf(board, target.partId)}</legend>
    <div class="grid grid-cols-3 gap-3">
      {@render text('Their own solder', 'own', board.jointAlloy)}
      {@render text('Worked in before', 'mixed', 'nothing')}
      {@render text('that, × the solder', 'ratio')}
      {@render text('Solder, × printed', 'volume')}
      {@render text('Corroded ones', 'corroded', 'none; 1 5, all, or leaked')}
      {@render text('A clip holds the leads', 'clipped', 'none; 1 5')}
    </div>
  </fieldset>

  <Notice text={problem} class="mt-2" />
  <button class="button button-main mt-3" disabled={busy}>Compute with these</button>
</form>
