<script lang="ts">
  // What the part holds that cannot be bought: read twice before it is heated, there again once it is on.
  import GateHead from '$lib/jobs/GateHead.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import Check from '$lib/ui/Check.svelte';
  import { ticked } from '$lib/ui/choices';
  import { partName, type PlacedPart } from '@orthos/core/board';
  import { checksumOf } from '@orthos/core/ground';
  import { copyOf, type Holding, HOLDINGS, mayHold, shortSum } from '@orthos/core/job';

  interface Props {
    view: JobView;
    target: PlacedPart;
    when: 'before' | 'after';
    recorder: Recorder;
  }
  let { view, target, when, recorder }: Props = $props();
  /** A dump is summed in one piece, MB. */
  const MOST_MB = 512;

  const gate = $derived(view.gates.find((g) => g.id === (when === 'before' ? 'stored-read' : 'stored-back')));
  const stored = $derived(stateOf(view.events).stored.get(target.partId));
  const holds = $derived(stored?.holds);
  const copy = $derived(copyOf(stored ?? { before: [] }));
  const reads = $derived(stored?.[when] ?? []);
  const name = $derived(partName(target));
  const ASK: Record<Holding, string> = {
    data: 'data: calibration, counters, keys, addresses',
    firmware: 'firmware that a new one comes without',
    settings: 'settings, lost without power',
  };

  let typed = $state('');
  let summing = $state(false);
  let version = $state('');
  let note = $state('');

  async function read(checksum: string, of: { bytes?: number; file?: string } = {}) {
    if (await recorder.record({ type: 'stored-read', partId: target.partId, when, checksum, ...of })) typed = '';
  }
  async function sum(file: File | undefined) {
    if (!file) return;
    if (file.size === 0) return (recorder.problem = `${file.name} is empty: no read.`);
    if (file.size > MOST_MB * 2 ** 20)
      return (recorder.problem = `Up to ${MOST_MB} MB here. Type the checksum your reader shows.`);
    summing = true;
    try {
      const bytes = new Uint8Array(await file.arrayBuffer());
      await read(checksumOf(bytes), { bytes: file.size, file: file.name.slice(0, 200) });
    } catch {
      recorder.problem = `${file.name} could not be read. Nothing was stored.`;
    } finally {
      summing = false;
    }
  }
  const say = (held: readonly Holding[]) =>
    recorder.record({ type: 'part-holds', partId: target.partId, holds: [...held] });
  const COPY = {
    none: 'Not read yet.',
    once: 'Read once: take the clip off, put it on again, read again.',
    differ: 'Two reads differ: contact, clip or supply. Read until two in a row agree.',
    copy: 'Two reads agree: this is the copy.',
  } as const;
</script>

<!-- asked where its name speaks for it, and wherever somebody wants to say so -->
{#if gate}<GateHead title={when === 'before' ? 'What it holds' : 'What it holds, again'} {gate} />{:else}
  <h3 class="mt-5 mb-1 border-t border-line pt-3">What it holds</h3>
{/if}
{#if when === 'before'}
  <div role="group" aria-label="What {name} holds">
    {#each HOLDINGS as h (h)}
      <Check bind:checked={() => holds?.includes(h) ?? false, (on) => void say(ticked(holds ?? [], h, on))}
        >{ASK[h]}</Check
      >
    {/each}
    {#if holds === undefined}
      <p class="text-[13px] text-ink2">
        {mayHold(target).length > 0 ? `By its name ${name} may hold ${mayHold(target).join(' and ')}. ` : ''}
        <button class="underline" onclick={() => say([])}>It holds nothing</button>
      </p>
    {:else if holds.length === 0}<p class="text-[13px] text-ink2">{name} holds nothing.</p>{/if}
  </div>
{/if}

{#if holds?.includes('data')}
  <p class="mt-1 {when === 'before' ? (copy.state === 'copy' ? 'text-good' : 'text-ink2') : 'text-ink2'}" role="status">
    {#if when === 'before'}{COPY[copy.state]}{:else if copy.state !== 'copy' || !copy.read}There is no copy of two reads
      that agree to hold it against.{:else}Read it in place and hold it against the copy ({shortSum(
        copy.read.checksum,
      )}). Moved with its data, or written anew: the read must be the same.{/if}
  </p>
  {#if reads.length > 0}
    <ol class="list-decimal pl-6 text-[13px]">
      {#each reads as r (r.id)}
        <li>
          <code>{shortSum(r.checksum)}</code>{r.bytes ? `, ${r.bytes.toLocaleString('en')} bytes` : ''}{r.file
            ? `, ${r.file}`
            : ''}
          {#if when === 'after' && copy.state === 'copy' && copy.read}<b
              class={r.checksum === copy.read.checksum ? 'text-good' : 'text-stop'}
              >{r.checksum === copy.read.checksum ? '✓ the same' : '▲ not the same'}</b
            >{/if}
        </li>
      {/each}
    </ol>
  {/if}
  <div class="mt-1 flex flex-wrap gap-2">
    <label class="button cursor-pointer px-3 focus-within:outline-2 focus-within:outline-evidence">
      {summing ? 'Summing' : 'File that was read'}
      <input
        class="sr-only"
        type="file"
        disabled={summing}
        aria-label="File that was read, {when}"
        onchange={(e) => {
          const input = e.currentTarget;
          void sum(input.files?.[0]).then(() => (input.value = ''));
        }}
      />
    </label>
    <input
      class="field min-w-40 flex-1"
      bind:value={typed}
      placeholder="or the checksum your reader shows"
      aria-label="Checksum, {when}"
      maxlength="128"
    />
    <button class="button px-3" disabled={!typed.trim()} onclick={() => read(typed)}>Read</button>
  </div>
  <p class="text-[13px] text-ink2">The file stays with you: only its name, length and SHA-256 are kept here.</p>
{/if}
{#if when === 'after' && holds?.includes('firmware')}
  {#if stored?.firmware}<p class="mt-2 text-[13px]">Firmware loaded: {stored.firmware}</p>{/if}
  <div class="mt-2 flex gap-2">
    <input
      class="field"
      bind:value={version}
      placeholder="firmware loaded, version"
      aria-label="Firmware loaded"
      maxlength="200"
    />
    <button
      class="button px-3"
      onclick={() =>
        version.trim()
          ? recorder.record({ type: 'firmware-loaded', partId: target.partId, version })
          : (recorder.problem = 'Which version was loaded?')}>Loaded</button
    >
  </div>
{/if}
{#if when === 'after' && holds?.includes('settings')}
  {#if stored?.settings !== undefined}<p class="mt-2 text-[13px]">Settings: {stored.settings || 'set again'}</p>{/if}
  <div class="mt-2 flex gap-2">
    <input
      class="field"
      bind:value={note}
      placeholder="what was set again"
      aria-label="Settings set again"
      maxlength="400"
    />
    <button class="button px-3" onclick={() => recorder.record({ type: 'settings-again', partId: target.partId, note })}
      >Set again</button
    >
  </div>
{/if}
