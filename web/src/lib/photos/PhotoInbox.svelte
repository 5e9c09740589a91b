<script lang="ts">
  // Photos that come to an open job by themselves: pasted, dropped anywhere on the page, or put into the shop's folder by a phone or microscope.
  import { reload, send } from '$lib/jobs/send';
  import { tell } from '$lib/ui/tell';
  import type { Step } from '@orthos/core/hands';
  import { onMount, untrack } from 'svelte';
  import { type Arrived, arrivedSince, fetchArrived, picturesIn, storePhoto, takenAt } from './incoming';

  interface Props {
    ticketId: string;
    /** The step that is open. */
    step: Step;
    /** Whether the shop has a folder to look into. */
    watches: boolean;
  }
  let { ticketId, step, watches }: Props = $props();
  /** The folder is looked into this often, ms. */
  const EACH_MS = 700;

  const taken = $derived(takenAt(step));
  let over = $state(false);
  /** What is on its way in, or could not be read: asked for once. */
  const met = new Set<string>();
  // one after the other, whichever page of this browser it comes to: a hand full of pictures must not be read all at once
  let last: Promise<unknown> = Promise.resolve();

  function take(pictures: readonly { of: () => Promise<Blob>; id?: string }[]) {
    for (const { of, id } of pictures)
      last = last
        .then(() => navigator.locks.request('photos', async () => store(await of(), id)))
        .catch((e: Error) => tell(e.message, { tone: 'stop' }));
    last = last.then(() => reload('job:view'));
  }
  async function store(picture: Blob, id?: string) {
    const added = await storePhoto(ticketId, picture, taken, id);
    if (!added.stored) return;
    tell(`Photo stored, ${taken} the work.`, {
      undo: async () => {
        await send('DELETE', `/api/photos/${added.id}`);
        await reload('job:view');
      },
    });
  }

  function onpaste(e: ClipboardEvent) {
    const files = picturesIn(e.clipboardData);
    // cells of a table come as text and as a picture of it: in a field the text is meant
    const typed = (e.target as Element).closest('input, textarea') && e.clipboardData?.types.includes('text/plain');
    if (files.length === 0 || typed) return;
    e.preventDefault();
    take(files.map((f) => ({ of: async () => f })));
  }
  const hasFiles = (e: DragEvent) => e.dataTransfer?.types.includes('Files') ?? false;
  function ondrop(e: DragEvent) {
    over = false;
    if (!hasFiles(e) || e.defaultPrevented) return;
    // a file beside the mark must not take the page away
    e.preventDefault();
    const files = picturesIn(e.dataTransfer);
    if (files.length === 0) return tell('That is no picture. Nothing was stored.', { tone: 'stop' });
    take(files.map((f) => ({ of: async () => f })));
  }

  onMount(() => {
    if (!untrack(() => watches)) return;
    let since: number | null = null;
    let ended = false;
    let timer: ReturnType<typeof setTimeout>;
    async function look() {
      if (document.visibilityState === 'visible')
        try {
          const { now, photos } = await arrivedSince(since);
          since ??= now;
          const fresh: Arrived[] = photos.filter((p) => !met.has(p.id));
          for (const p of fresh) met.add(p.id);
          if (fresh.length > 0) take(fresh.map((p) => ({ of: () => fetchArrived(p), id: p.id })));
        } catch {
          // the server is away: what comes meanwhile is there when it is back
        }
      if (!ended) timer = setTimeout(look, EACH_MS);
    }
    void look();
    return () => {
      ended = true;
      clearTimeout(timer);
    };
  });
</script>

<svelte:window
  {onpaste}
  {ondrop}
  ondragover={(e) => {
    if (!hasFiles(e)) return;
    e.preventDefault();
    over = true;
  }}
  ondragleave={(e) => {
    if (e.relatedTarget === null) over = false;
  }}
/>

{#if over}
  <p
    class="pointer-events-none fixed inset-x-0 top-0 z-40 border-b-[3px] border-evidence bg-sheet py-2 text-center font-semibold"
  >
    Drop it: a photo of this job, {taken} the work
  </p>
{/if}
