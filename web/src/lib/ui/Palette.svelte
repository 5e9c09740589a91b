<script lang="ts">
  import { goto } from '$app/navigation';
  import { Command, computeCommandScore, Dialog } from 'bits-ui';
  import { offeredCommands } from './palette.svelte';

  interface FoundJob {
    id: string;
    number: number;
    device: string;
    customer: string;
    complaint: string;
  }

  interface FoundPart {
    id: string;
    number: number;
    device: string;
    ref: string;
    partId: string;
    what: string;
  }
  interface Found {
    /** What was asked; an answer to something else is none. */
    search: string;
    jobs: FoundJob[];
    parts: FoundPart[];
  }

  /** `begin`: what was typed before it was there. */
  let { open = $bindable(), begin = '' }: { open: boolean; begin?: string } = $props();
  // svelte-ignore state_referenced_locally
  let search = $state(begin);
  let found = $state.raw<Found>({ search: '', jobs: [], parts: [] });
  const mine = $derived(found.search === search.trim() ? found : { jobs: [], parts: [] });

  $effect(() => {
    if (!open) return;
    const abort = new AbortController();
    const query = search;
    // a short wait, so that typing does not ask for every letter
    const timer = setTimeout(async () => {
      try {
        const answer = await fetch(`/api/find?q=${encodeURIComponent(query)}`, { signal: abort.signal });
        if (answer.ok) found = await answer.json();
      } catch {
        // offline or overtaken by the next letter: the other commands still work
      }
    }, 120);
    return () => {
      clearTimeout(timer);
      abort.abort();
    };
  });

  /** What begins with the very word comes first: C14 before C1 with a 4 somewhere. */
  const commands = $derived.by(() => {
    const word = search.trim().toLowerCase();
    const exact = (title: string) => Number(title.toLowerCase().split(/\s/, 1)[0] === word);
    return offeredCommands().toSorted((a, b) => exact(b.title) - exact(a.title));
  });
  function score(command: string, wanted: string, keywords?: string[]): number {
    const word = wanted.trim().toLowerCase();
    return Number(command.toLowerCase().split(/\s/, 1)[0] === word) + computeCommandScore(command, wanted, keywords);
  }

  function choose(run: () => void) {
    open = false;
    search = '';
    run();
  }
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Content
      class="fixed top-[12vh] left-1/2 z-50 w-[min(640px,92vw)] -translate-x-1/2 overflow-hidden rounded-md border border-line bg-sheet"
    >
      <Dialog.Title class="sr-only">Find</Dialog.Title>
      <Dialog.Description class="sr-only">Places, jobs, parts of this board, actions</Dialog.Description>
      <Command.Root filter={score}>
        <Command.Input
          bind:value={search}
          placeholder="Go to a place, a job, a part, an action"
          class="h-12 w-full border-b border-line bg-transparent px-4 text-base outline-none"
        />
        <Command.List class="max-h-[50vh] overflow-auto p-2">
          <Command.Empty class="p-4 text-ink2">Nothing by that name.</Command.Empty>
          {#each commands as command (command.title)}
            <Command.Item value={command.title} onSelect={() => choose(command.run)} class="item">
              <span>{command.title}</span>
              <span class="text-ink3">{command.hint ?? ''}</span>
            </Command.Item>
          {/each}
          {#each mine.parts as part (part.id + part.partId)}
            <Command.Item
              value={`${part.ref} ${part.what} No. ${part.number}`}
              onSelect={() => choose(() => goto(`/jobs/${part.id}?part=${encodeURIComponent(part.partId)}`))}
              class="item"
            >
              <span>{part.ref} {part.what}</span>
              <span class="text-ink3">part, No. {part.number} {part.device}</span>
            </Command.Item>
          {/each}
          {#each mine.jobs as job (job.id)}
            <Command.Item
              value={`No. ${job.number} ${job.device} ${job.customer} ${job.complaint}`}
              onSelect={() => choose(() => goto(`/jobs/${job.id}`))}
              class="item"
            >
              <span>No. {job.number} {job.device}</span>
              <span class="text-ink3">{job.customer}</span>
            </Command.Item>
          {/each}
        </Command.List>
      </Command.Root>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>

<style>
  :global(.item) {
    display: flex;
    justify-content: space-between;
    gap: 1rem;
    padding: 0.55rem 0.75rem;
    border-radius: 2px;
    cursor: pointer;
  }
  :global(.item[data-selected]) {
    background: var(--evidence-soft);
  }
</style>
