<script lang="ts">
  // Which board gives parts: one that lies here with a job, or one from the shelf, which gets one.
  import Fold from '$lib/ui/Fold.svelte';
  import Select from '$lib/ui/Select.svelte';
  import type { Donor } from './donor.svelte';

  let { donor }: { donor: Donor } = $props();
  let serial = $state('');
  let from = $state('');
  async function name(id: string) {
    if (id && !(await donor.name(id))) from = '';
  }
</script>

<Fold title="Parts from another board">
  <div class="flex flex-wrap items-end gap-2">
    <Select
      class="min-w-56 flex-1"
      label="A board that lies here"
      none={donor.choices.length === 0 ? 'no other job is open' : 'which job'}
      disabled={donor.busy || donor.choices.length === 0}
      choices={donor.choices.map((c) => ({
        value: c.id,
        label: `No. ${c.number} ${c.board}${c.serial ? `, ${c.serial}` : ''}${c.sameModel ? '' : ' (another kind)'}`,
      }))}
      bind:value={from}
      onchange={(id) => void name(id)}
    />
    <form
      class="flex items-end gap-2"
      aria-label="A board from the shelf"
      onsubmit={(e) => {
        e.preventDefault();
        void donor.shelve(serial.trim());
      }}
    >
      <label
        ><span class="label">Or one from the shelf</span><input
          class="field w-36"
          placeholder="serial, if any"
          maxlength="80"
          bind:value={serial}
        /></label
      >
      <button class="button" disabled={donor.busy}>Take it</button>
    </form>
  </div>
</Fold>
