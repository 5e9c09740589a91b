<script lang="ts">
  // What has to lie within reach and what each tool is set to: one tick where all is as planned.
  import { aboutWork } from '$lib/jobs/about';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import type { JobView } from '$lib/jobs/view';
  import Check from '$lib/ui/Check.svelte';
  import { ticked } from '$lib/ui/choices';
  import { parseDecimal, type UnitSettings } from '@orthos/core/ground';
  import type { Attempt } from '@orthos/core/job';
  import { heatAt, heatOnDial, type LayOut } from '@orthos/core/rework';
  import { untrack } from 'svelte';

  interface Props {
    view: JobView;
    layOut: LayOut;
    attempt: Attempt;
    recorder: Recorder;
    units: UnitSettings;
  }
  let { view, layOut, attempt, recorder, units }: Props = $props();

  const panel = $derived(view.inputs?.panel ?? units);
  /** What a tool is set to, as its dial says it. */
  function onDial(id: string, value: number): { value: number; unit: string } {
    const p = layOut.setPoints.find((q) => q.id === id);
    return p?.unit === '°C' ? heatOnDial(value, p.dial, panel) : { value, unit: p?.unit ?? '' };
  }
  let tools = $state<string[]>(untrack(() => attempt.laidOut?.tools ?? []));
  let setTo = $state<Record<string, string>>({});
  $effect(() => {
    // as planned, unless the tool was set otherwise
    const at = [...(attempt.laidOut?.setPoints ?? []), ...layOut.setPoints];
    untrack(() => {
      for (const p of at) setTo[p.id] ??= String(onDial(p.id, p.value).value);
    });
  });

  const laid = (setPoints: { id: string; value: number }[]) =>
    recorder.record({
      type: 'laid-out',
      tools,
      setPoints,
      ...aboutWork(view),
      ...(view.inUse ? { methodId: view.inUse.method.id } : {}),
    });
  async function asTicked(event: SubmitEvent) {
    event.preventDefault();
    const setPoints = [];
    for (const p of layOut.setPoints) {
      const text = (setTo[p.id] ?? '').trim();
      if (text === '') continue;
      const value = parseDecimal(text);
      if (value === null) return (recorder.problem = `${p.label}: a number as the tool shows it.`);
      setPoints.push({ id: p.id, value: p.unit === '°C' ? heatAt(value, p.dial, panel) : value });
    }
    await laid(setPoints);
  }
  async function asPlanned() {
    tools = [...layOut.tools];
    for (const p of layOut.setPoints) setTo[p.id] = String(onDial(p.id, p.value).value);
    await laid(layOut.setPoints.map(({ id, value }) => ({ id, value })));
  }
</script>

<form onsubmit={asTicked} aria-label="Lay-out">
  <div class="grid grid-cols-2 gap-x-3">
    {#each layOut.tools as t (t)}
      <Check class="text-[13px]" bind:checked={() => tools.includes(t), (on) => (tools = ticked(tools, t, on))}
        >{t}</Check
      >
    {/each}
  </div>
  <div class="mt-1 flex flex-wrap items-end gap-3">
    {#each layOut.setPoints as p (p.id)}
      <div class="w-36">
        <label class="label" for="set-{p.id}"
          >{p.label}, planned {onDial(p.id, p.value).value}
          {onDial(p.id, p.value).unit}</label
        >
        <input id="set-{p.id}" class="field" bind:value={setTo[p.id]} inputmode="decimal" placeholder="as set" />
      </div>
    {/each}
    <button type="button" class="button" onclick={asPlanned}>All as planned</button>
    <button class="button">Laid out as ticked</button>
  </div>
</form>
