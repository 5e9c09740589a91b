<script lang="ts">
  // Eyes before meters: asked once, as long as nothing was seen and nothing was measured.
  import type { JobEventBody } from '@orthos/core/job';

  let { record, onLook }: { record: (body: JobEventBody) => Promise<boolean>; onLook: () => void } = $props();
</script>

<p class="mb-3 flex flex-wrap items-center gap-2 border-l-[3px] border-line py-1 pl-3">
  <span class="min-w-48 flex-1"
    ><b>Look first</b>, both sides, under the microscope: burns, cracks, crust, parts missing or the wrong way round.</span
  >
  <button type="button" class="button px-3" onclick={onLook}>Note it</button>
  <button
    type="button"
    class="button px-3"
    onclick={() => record({ type: 'observation', text: 'Looked over, both sides: nothing to see.' })}
    >Nothing to see</button
  >
</p>
