<script lang="ts">
  // Names something that can feed the board; it counts for the power gate from then on.
  import Select from '$lib/ui/Select.svelte';
  import type { SourceKind } from '@orthos/core/board';
  import type { Recorder } from './recorder.svelte';
  import { SOURCE_NAMES } from './sources';

  let { recorder }: { recorder: Recorder } = $props();
  let label = $state('');
  let kind = $state<SourceKind>('lead');

  async function add(event: SubmitEvent) {
    event.preventDefault();
    const name = label.trim() || (kind === 'none' ? 'nothing can feed this board' : '');
    if (!name) return (recorder.problem = 'Name what can feed the board: a plug, a cell, a large capacitor.');
    if (await recorder.record({ type: 'power-source', label: name, kind })) label = '';
  }
</script>

<form onsubmit={add} class="flex gap-2 border-t border-faint pt-2" aria-label="Another source">
  <Select class="w-40 shrink-0" choices={SOURCE_NAMES} bind:value={kind} aria-label="Kind of source" />
  <input
    class="field"
    bind:value={label}
    placeholder="another source"
    aria-label="Name of the source"
    maxlength="120"
    disabled={kind === 'none'}
  />
  <button class="button">Add</button>
</form>
