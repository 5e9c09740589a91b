<script lang="ts">
  // A photo of this place, or what a camera shows now, laid over the drawing: tied by two points, faded in and out.
  import Notice from '$lib/ui/Notice.svelte';
  import OneOf from '$lib/ui/OneOf.svelte';
  import Select from '$lib/ui/Select.svelte';
  import Slider from '$lib/ui/Slider.svelte';
  import type { Recorder } from '$lib/jobs/recorder.svelte';
  import { stateOf } from '$lib/jobs/stateOf';
  import type { JobView } from '$lib/jobs/view';
  import { type CameraChoice, listCameras, openCamera } from '$lib/photos/camera';
  import { type PlacedPhoto, tiePoints, type Wanted } from '$lib/photos/placed';
  import { fitPhoto, type Homography, type PlacedPart, type PointPair, type Side } from '@orthos/core/board';
  import { onDestroy, untrack } from 'svelte';

  interface Props {
    view: JobView;
    target: PlacedPart;
    side: Side;
    recorder: Recorder;
    /** What lies over the drawing. */
    photo: PlacedPhoto | undefined;
    clearness: number;
    /** What is being tied: it takes the drawing's place. */
    tying: Tying | undefined;
  }
  interface Tying {
    href: string;
    w_px: number;
    h_px: number;
    wanted: readonly Wanted[];
    onTied: (pairs: PointPair[]) => void;
  }
  let {
    view,
    target,
    side,
    recorder,
    photo = $bindable(),
    clearness = $bindable(),
    tying = $bindable(),
  }: Props = $props();

  const placed = $derived(stateOf(view.events).photosPlaced);
  let by = $state<'lands' | 'body'>('lands');
  /** A photo's id, or a camera's behind `live:`; empty: none. */
  let chosen = $state('');
  let cameras = $state.raw<CameraChoice[]>([]);
  let problem = $state<string | null>(null);
  let live: { stream: MediaStream; end: () => void } | null = null;
  void listCameras().then((found) => (cameras = found));

  function stop() {
    live?.end();
    live = null;
    photo = undefined;
    tying = undefined;
  }
  onDestroy(() => untrack(stop));

  function fitted(pairs: PointPair[]) {
    const fit = fitPhoto(pairs, side);
    if (!fit) problem = 'The two taps lie in one place. Tie it again.';
    return fit?.toBoard;
  }
  async function choose(what: string) {
    stop();
    problem = null;
    chosen = what;
    const camera = what.startsWith('live:') ? what.slice(5) : null;
    if (camera !== null) return openLive(camera);
    const is = placed.get(what);
    if (is?.side === side) show(what, is.toBoard);
    else if (what) tie();
  }
  function show(id: string, toBoard: Homography) {
    const p = view.photos.find((own) => own.id === id);
    if (p) photo = { of: { href: `/api/photos/${id}` }, w_px: p.width, h_px: p.height, toBoard };
  }
  function tie() {
    if (live) return tieLive(live.stream);
    const p = view.photos.find((own) => own.id === chosen);
    if (!p) return;
    tying = {
      ...{ href: `/api/photos/${p.id}`, w_px: p.width, h_px: p.height, wanted: tiePoints(target, by) },
      onTied: async (pairs) => {
        tying = undefined;
        const toBoard = fitted(pairs);
        if (!toBoard) return;
        if (await recorder.record({ type: 'photo-placed', photoId: p.id, side, toBoard: [...toBoard] }))
          show(p.id, toBoard);
      },
    };
  }

  async function openLive(id: string) {
    try {
      live = await openCamera(id);
      await tieLive(live.stream);
    } catch (e) {
      problem = `The camera gives no picture: ${(e as Error).message}`;
    }
  }
  /** Points are shown in a still of it: a hand at the microscope moves. */
  async function tieLive(stream: MediaStream) {
    const video = document.createElement('video');
    video.muted = true;
    video.srcObject = stream;
    await video.play();
    const [w_px, h_px] = [video.videoWidth, video.videoHeight];
    const canvas = Object.assign(document.createElement('canvas'), { width: w_px, height: h_px });
    canvas.getContext('2d')?.drawImage(video, 0, 0);
    video.srcObject = null;
    tying = {
      ...{ href: canvas.toDataURL('image/jpeg', 0.9), w_px, h_px, wanted: tiePoints(target, by) },
      onTied: (pairs) => {
        tying = undefined;
        const toBoard = fitted(pairs);
        if (toBoard) photo = { of: { stream }, w_px, h_px, toBoard };
      },
    };
  }
  const offered = $derived([
    ...view.photos.map((p, n) => ({
      value: p.id,
      label: `photo ${n + 1}, ${p.taken}${placed.get(p.id)?.side === side ? ', tied' : ''}`,
    })),
    ...cameras.map((c) => ({ value: `live:${c.id}`, label: `live: ${c.label}` })),
  ]);
</script>

<div class="mt-1 flex flex-wrap items-center gap-x-3 gap-y-1">
  <Select
    class="w-64"
    none="no photo over it"
    choices={offered}
    value={chosen}
    onchange={(v) => void choose(v)}
    aria-label="Photo laid over the drawing"
  />
  {#if chosen}
    <OneOf aria-label="Tied by" choices={{ lands: 'two lands', body: 'its body' }} bind:value={by} onchange={tie} />
    {#if photo}
      <button class="button px-3" onclick={tie}>Tie again</button>
      <Slider class="w-40" aria-label="How clear the photo is" min={10} bind:value={clearness} />
    {/if}
  {/if}
</div>
<Notice text={problem} />
