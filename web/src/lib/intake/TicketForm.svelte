<script lang="ts">
  import { guarded } from '$lib/ui/unsaved.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { reload, send, SendError } from '$lib/jobs/send';
  import type { JobView } from '$lib/jobs/view';
  import { JOB_TYPE_IDS, JOB_TYPES } from '@orthos/core/job';
  import { untrack } from 'svelte';

  let { view, onDone }: { view: JobView; onDone: () => void } = $props();
  const { ticket } = untrack(() => view);
  let kind = $state(ticket.kind);
  let device = $state(ticket.device);
  let complaint = $state(ticket.complaint);
  let inBox = $state(ticket.inBox);
  let waitsFor = $state(ticket.waitsFor);
  let promisedOn = $state(ticket.promisedOn ?? '');
  let problem = $state('');
  /** Saved against this; after a conflict against what is there now. */
  let version = ticket.version;
  const kinds = JOB_TYPE_IDS.filter((k) => (k === 'express') === (ticket.kind === 'express'));

  async function save(event: SubmitEvent) {
    event.preventDefault();
    try {
      await send('PUT', `/api/jobs/${ticket.id}/ticket`, {
        version,
        kind,
        device,
        complaint,
        inBox,
        waitsFor,
        promisedOn: promisedOn || null,
      });
      await reload('job:view');
      onDone();
    } catch (e) {
      if (!(e instanceof SendError)) throw e;
      problem = e.message;
      if (e.status !== 409) return;
      await reload('job:view');
      version = view.ticket.version;
      problem += ' What stands here is yours; save again to keep it.';
    }
  }
</script>

<form onsubmit={save} {@attach guarded} class="mb-4 grid grid-cols-2 gap-3" aria-label="Ticket">
  <Select
    label="Kind of job"
    class="col-span-2"
    choices={kinds.map((k) => ({ value: k, label: `${JOB_TYPES[k].label}: ${JOB_TYPES[k].says}` }))}
    bind:value={kind}
  />
  <label class="col-span-2"
    ><span class="label">Complaint, in the owner's words</span>
    <textarea class="field" rows="3" bind:value={complaint} required maxlength="2000"></textarea>
  </label>
  <label><span class="label">Device</span><input class="field" bind:value={device} required maxlength="200" /></label>
  <label><span class="label">In the box</span><input class="field" bind:value={inBox} maxlength="500" /></label>
  <label><span class="label">Waits for</span><input class="field" bind:value={waitsFor} maxlength="200" /></label>
  <DateField label="Promised for" bind:value={promisedOn} />
  <Notice text={problem} class="col-span-2" />
  <div class="col-span-2 flex gap-2">
    <button class="button button-main">Save</button>
    <button type="button" class="button" onclick={onDone}>Leave it</button>
  </div>
</form>
