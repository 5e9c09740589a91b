<script lang="ts">
  // Photos of the board, before, during and after: made smaller here, stripped of everything else on the server.
  import Notice from '$lib/ui/Notice.svelte';
  import { reload, send } from '$lib/jobs/send';
  import type { JobView } from '$lib/jobs/view';
  import Camera from '@lucide/svelte/icons/camera';
  import Trash2 from '@lucide/svelte/icons/trash-2';
  import { storePhoto, type Taken } from './incoming';

  let { view, taken, title }: { view: JobView; taken: Taken; title: string } = $props();
  const photos = $derived(view.photos.filter((p) => p.taken === taken));
  let problem = $state<string | null>(null);
  /** The photo that is being stored, of how many. */
  let storing = $state<{ at: number; of: number } | null>(null);
  /** The photo asked to go: a second press means it. */
  let doomed = $state<string | null>(null);

  async function add(files: FileList | null) {
    problem = null;
    const all = [...(files ?? [])];
    for (const [i, file] of all.entries()) {
      storing = { at: i + 1, of: all.length };
      try {
        await storePhoto(view.ticket.id, file, taken);
      } catch (e) {
        problem = (e as Error).message;
      }
    }
    storing = null;
    await reload('job:view');
  }
  async function remove(id: string) {
    await send('DELETE', `/api/photos/${id}`).catch((e: Error) => {
      problem = `It could not be taken out: ${e.message}`;
    });
    await reload('job:view');
  }
</script>

<section class="mt-5" aria-label={title}>
  <h3 class="mb-1 flex items-center text-[13px] text-ink2">
    {title}
    <label class="button ml-auto cursor-pointer px-3 focus-within:outline-2 focus-within:outline-evidence">
      <Camera size={16} aria-hidden="true" />
      {storing ? (storing.of > 1 ? `Storing ${storing.at} of ${storing.of}` : 'Storing') : 'Add photos'}
      <input
        class="sr-only"
        type="file"
        accept="image/*"
        multiple
        disabled={storing !== null}
        aria-label="Add photos, {taken}"
        onchange={(e) => {
          const { files } = e.currentTarget;
          const input = e.currentTarget;
          void add(files).then(() => (input.value = ''));
        }}
      />
    </label>
  </h3>
  <Notice text={problem} />
  {#if photos.length === 0}
    <p class="border-t border-faint py-1.5 text-[13px] text-ink2">
      None. Paste or drop them anywhere on the page, or choose them here. Location and camera data are removed.
    </p>
  {:else}
    <ul class="grid grid-cols-3 gap-2">
      {#each photos as p, i (p.id)}
        <li class="relative">
          <a href="/api/photos/{p.id}" target="_blank" rel="noopener">
            <img
              class="aspect-[4/3] w-full border border-line object-cover"
              src="/api/photos/{p.id}?small"
              alt="{taken}, {i + 1}"
              width={p.width}
              height={p.height}
              loading="lazy"
            />
          </a>
          <button
            class="absolute top-1 right-1 flex h-9 min-w-9 items-center justify-center gap-1 bg-sheet px-2 text-[13px] font-semibold {doomed ===
            p.id
              ? 'text-stop'
              : 'text-ink2'}"
            aria-label="Take out photo {i + 1}, {taken}"
            onclick={() => (doomed === p.id ? remove(p.id) : (doomed = p.id))}
            onblur={() => (doomed = null)}
          >
            <Trash2 size={16} aria-hidden="true" />{doomed === p.id ? 'for good?' : ''}
          </button>
        </li>
      {/each}
    </ul>
  {/if}
</section>
