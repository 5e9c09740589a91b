<script lang="ts">
  // Damage on the board: what was there, what this bench did. Marked with the pen on the board or on a photo.
  import Select from '$lib/ui/Select.svelte';
  import { placeName } from '$lib/diagnose/place';
  import { layOver, useDesk } from '$lib/jobs/desk.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import TakeBack from '$lib/jobs/TakeBack.svelte';
  import PhotoPick from '$lib/photos/PhotoPick.svelte';
  import type { JobView } from '$lib/jobs/view';
  import { DAMAGE_KINDS, type DamageKind, type JobState } from '@orthos/core/job';
  import { onDestroy, untrack } from 'svelte';
  import { damageMarks, damageWords } from './damage';
  import PhotoPen from './PhotoPen.svelte';

  let { view, job, recorder }: { view: JobView; job: JobState; recorder: Recorder } = $props();
  const desk = useDesk();
  type Stroke = [number, number][];
  let kind = $state<DamageKind>('heat mark');
  // before any work everything was there; afterwards one has to say
  let whose = $state<'found' | 'ours'>(untrack(() => (job.beforeWork === null ? 'found' : 'ours')));
  let note = $state('');
  let photoId = $state('');
  let pen = $state(false);
  let strokes = $state.raw<Stroke[]>([]);
  let drawing = false;
  const round = (v: number) => Math.round(v * 100) / 100;

  const onPhoto = $derived(view.photos.find((p) => p.id === photoId));
  $effect(() => {
    // another photo: its strokes mean nothing on this one
    void photoId;
    strokes = [];
  });
  $effect(() => {
    desk.tool =
      pen && !photoId
        ? {
            cross: true,
            down(p) {
              drawing = true;
              strokes = [...strokes, [[round(p.x_mm), round(p.y_mm)]]];
              return true;
            },
            move(p) {
              if (!drawing) return false;
              const last = strokes[strokes.length - 1];
              const [x, y] = last[last.length - 1];
              if (last.length < 400 && Math.hypot(p.x_mm - x, p.y_mm - y) > 2 * p.mm_px)
                strokes = [...strokes.slice(0, -1), [...last, [round(p.x_mm), round(p.y_mm)]]];
              return true;
            },
            up() {
              if (!drawing) return false;
              drawing = false;
              strokes = strokes.filter((s) => s.length > 1);
              return true;
            },
          }
        : undefined;
  });
  layOver(desk, () =>
    photoId || strokes.length === 0
      ? {}
      : {
          penMarks: [
            ...damageMarks(job.intake.damage),
            { id: 'now', tone: 'now', side: desk.side, strokes, label: '' },
          ],
        },
  );
  onDestroy(() => {
    desk.tool = undefined;
  });

  async function add(event: SubmitEvent) {
    event.preventDefault();
    const drawn = strokes.filter((s) => s.length > 1);
    const [first] = drawn[0] ?? [];
    const place = photoId
      ? undefined
      : drawn.length > 0
        ? { x_mm: first[0], y_mm: first[1], side: desk.side }
        : (desk.place ?? undefined);
    if (!place && !photoId)
      return (recorder.problem = 'Click the place on the board, draw round it with the pen, or choose a photo.');
    const stored = await recorder.record({
      type: 'damage',
      kind,
      whose,
      note: note.trim(),
      ...(place ? { place } : {}),
      ...(photoId ? { photoId } : {}),
      ...(drawn.length > 0 ? { pen: { on: photoId ? ('photo' as const) : ('board' as const), strokes: drawn } } : {}),
    });
    if (!stored) return;
    note = '';
    strokes = [];
    pen = false;
  }
</script>

<h2 class="mb-1 text-lg">Damage</h2>
<p class="mb-2 text-[13px] text-ink2">
  <span class="font-semibold">◇ found</span> dotted: there when it came in.
  <span class="font-semibold text-stop">▲ ours</span>
  drawn through: done on this bench. Nothing tells them apart later but this.
</p>
<ol aria-label="Damage">
  {#each job.intake.damage as d, n (d.id)}
    <li class="flex items-center gap-2 border-t border-faint py-1.5">
      <span class="w-6 font-semibold">{n + 1}</span>
      <span class="w-16 text-[13px] font-semibold {d.whose === 'ours' ? 'text-stop' : 'text-ink2'}"
        >{d.whose === 'ours' ? '▲ ours' : '◇ found'}</span
      >
      <span class="min-w-0 flex-1">{damageWords(view.board, d)}</span>
      {#if d.photoId && view.photos.some((p) => p.id === d.photoId)}
        <button
          type="button"
          class="shrink-0"
          aria-label="Photo of damage {n + 1}"
          onclick={() => (photoId = d.photoId ?? '')}
          ><img class="h-9 w-12 border border-line object-cover" src="/api/photos/{d.photoId}?small" alt="" /></button
        >
      {/if}
      <TakeBack
        what={damageWords(view.board, d)}
        onclick={() => recorder.record({ type: 'withdrawn', eventId: d.id, why: 'taken back' })}
      />
    </li>
  {:else}
    <li class="border-t border-faint py-2 text-ink2">None marked. Look before anything is heated.</li>
  {/each}
</ol>
<form onsubmit={add} class="mt-2 grid grid-cols-2 gap-2 border-t border-line pt-3" aria-label="Damage to mark">
  <Select choices={DAMAGE_KINDS} bind:value={kind} aria-label="Kind of damage" />
  <div class="flex gap-2" role="group" aria-label="Whose">
    {#each [['found', '◇ found'], ['ours', '▲ ours']] as const as [id, label] (id)}
      <button
        type="button"
        class="button flex-1 justify-center px-2 {whose === id ? 'button-main' : ''}"
        aria-pressed={whose === id}
        onclick={() => (whose = id)}>{label}</button
      >
    {/each}
  </div>
  <input
    class="field col-span-2"
    bind:value={note}
    placeholder="what it looks like"
    aria-label="Note"
    maxlength="2000"
  />
  <div class="col-span-2"><PhotoPick {view} bind:photoId /></div>
  {#if onPhoto}
    <div class="col-span-2">
      <PhotoPen
        photo={onPhoto}
        before={job.intake.damage.filter((d) => d.photoId === photoId && d.pen?.on === 'photo')}
        bind:strokes
      />
    </div>
  {:else}
    <p class="col-span-2 flex items-center gap-2 text-[13px] text-ink2">
      <button
        type="button"
        class="button px-3 {pen ? 'button-main' : ''}"
        aria-pressed={pen}
        onclick={() => (pen = !pen)}>Pen</button
      >
      {#if pen}draw round it on the board{:else if desk.place}at {placeName(view.board, desk.place)}{:else}or click the
        place on the board{/if}
    </p>
  {/if}
  <div class="col-span-2 flex gap-2">
    <button class="button button-main">Mark it</button>
    {#if strokes.length > 0}<button type="button" class="button" onclick={() => (strokes = strokes.slice(0, -1))}
        >Last stroke off</button
      >{/if}
  </div>
</form>
