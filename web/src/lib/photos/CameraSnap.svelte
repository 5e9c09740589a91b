<script lang="ts">
  // A live picture from a camera or microscope; one key takes it.
  import Select from '$lib/ui/Select.svelte';
  import Notice from '$lib/ui/Notice.svelte';
  import { useKeys } from '$lib/ui/keys.svelte';
  import { onMount, tick } from 'svelte';
  import { listCameras, openCamera, type CameraChoice } from './camera';

  let { onsnap, onclose }: { onsnap: (picture: Blob) => void; onclose: () => void } = $props();
  let video = $state<HTMLVideoElement>();
  let cameras = $state.raw<CameraChoice[]>([]);
  let chosen = $state('');
  let problem = $state<string | null>(null);
  let live = $state(false);
  let button = $state<HTMLButtonElement>();
  let end = () => {};

  async function start(id: string) {
    end();
    live = false;
    problem = null;
    chosen = id;
    try {
      const opened = await openCamera(id);
      end = opened.end;
      if (!video) return end();
      video.srcObject = opened.stream;
      await video.play();
      live = true;
      await tick();
      // the next press of Space is for the picture, not for the button that opened the camera
      button?.focus();
      cameras = await listCameras();
    } catch (e) {
      problem = `The camera gives no picture: ${(e as Error).message}`;
    }
  }
  function snap() {
    if (!live || !video) return;
    const canvas = document.createElement('canvas');
    canvas.width = video.videoWidth;
    canvas.height = video.videoHeight;
    canvas.getContext('2d')?.drawImage(video, 0, 0);
    canvas.toBlob((b) => b && onsnap(b), 'image/jpeg', 0.92);
  }
  onMount(() => {
    void listCameras().then((found) => {
      cameras = found;
      void start(found[0].id);
    });
    return () => end();
  });
  useKeys('Camera', () => [
    { keys: [' ', 'Enter'], shown: ['Space'], label: 'take the picture', run: snap, line: true },
    { keys: ['Escape'], label: 'close the camera', run: onclose },
  ]);
</script>

<section class="border border-line p-2" aria-label="Camera">
  <video bind:this={video} class="aspect-video w-full bg-ink object-contain" muted playsinline></video>
  <div class="mt-2 flex gap-2">
    <Select
      class="min-w-0 flex-1"
      choices={cameras.map((c) => ({ value: c.id, label: c.label }))}
      aria-label="Camera"
      value={chosen}
      onchange={(v) => start(v)}
    />
    <button bind:this={button} type="button" class="button button-main px-3" disabled={!live} onclick={snap}
      >Take it</button
    >
    <button type="button" class="button px-3" onclick={onclose}>Close</button>
  </div>
  <Notice text={problem} class="mt-2" />
</section>
