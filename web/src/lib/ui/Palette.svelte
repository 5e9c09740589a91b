<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import type { Found } from '$lib/jobs/found';
  import { Command, Dialog } from 'bits-ui';
  import { type Command as Offered, leaves, offeredCommands } from './palette.svelte';
  import { ordered } from './paletteOrder';

  /** `search`: what is typed, some of it perhaps before the field had the focus. */
  let { open = $bindable(), search = $bindable() }: { open: boolean; search: string } = $props();
  let found = $state.raw<Found | null>(null);
  /** Somebody went to a row on purpose since the last letter. */
  let meant = $state(false);
  let chosen = $state('');
  /** Row that would leave the job and was asked for once. */
  let asked = $state('');
  const inJob = $derived(/^\/(jobs|run)\/[0-9a-f-]{36}/.test(page.url.pathname));

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

  const to = (href: string) => () => void goto(href);
  /** The server's answer to what stands there now; an answer to something else is none. */
  const remote = $derived.by((): Offered[] => {
    if (found?.search !== search.trim()) return [];
    return [
      ...found.jobs.map((j) => ({
        group: 'job' as const,
        title: `No. ${j.number} ${j.device}`,
        hint: j.customer,
        words: `${j.complaint} ${found?.search}`,
        run: to(`/jobs/${j.id}`),
      })),
      ...found.boards.map((b) => ({
        group: 'board' as const,
        title: b.name,
        hint: 'board',
        run: to(`/boards/${b.id}`),
      })),
      ...found.parts.map((p) => ({
        group: 'elsewhere' as const,
        title: `${p.ref} ${p.what}`.trim(),
        hint: `No. ${p.number} ${p.device}`,
        run: to(`/jobs/${p.id}?part=${encodeURIComponent(p.partId)}`),
      })),
    ];
  });
  const groups = $derived(ordered([...offeredCommands(), ...remote], search));
  const idOf = (group: string, n: number) => `${group} ${n}`;
  const first = $derived(groups.length > 0 ? idOf(groups[0].title, 0) : '');
  $effect(() => {
    if (!meant) chosen = first;
  });

  function select(command: Offered, id: string) {
    if (inJob && leaves(command) && !meant && asked !== id) {
      asked = id;
      return;
    }
    open = false;
    search = '';
    meant = false;
    asked = '';
    command.run();
  }
</script>

<Dialog.Root bind:open>
  <Dialog.Portal>
    <Dialog.Overlay class="fixed inset-0 z-40 bg-black/40" />
    <Dialog.Content
      class="fixed top-[12vh] left-1/2 z-50 w-[min(640px,92vw)] -translate-x-1/2 overflow-hidden rounded-md border border-line bg-sheet"
    >
      <Dialog.Title class="sr-only">Find</Dialog.Title>
      <Dialog.Description class="sr-only">Parts of this board, places, jobs, boards, calculators</Dialog.Description>
      <Command.Root
        shouldFilter={false}
        bind:value={chosen}
        onkeydown={(e) => {
          if (e.key.startsWith('Arrow')) meant = true;
        }}
      >
        <Command.Input
          bind:value={search}
          oninput={() => {
            meant = false;
            asked = '';
          }}
          placeholder="Go to a place, a job, a part, an action"
          class="h-12 w-full border-b border-line bg-transparent px-4 text-base outline-none"
        />
        <Command.List class="max-h-[56vh] overflow-auto p-2" onpointermove={() => (meant = true)}>
          {#if groups.length === 0}<p class="p-4 text-ink2" role="status">Nothing by that name.</p>{/if}
          {#each groups as group (group.title)}
            <Command.Group value={group.title}>
              <Command.GroupHeading class="px-3 pt-2 pb-1 text-[12px] text-ink3">{group.title}</Command.GroupHeading>
              <Command.GroupItems>
                {#each group.commands as command, n (n)}
                  {@const id = idOf(group.title, n)}
                  <Command.Item
                    value={id}
                    onSelect={() => select(command, id)}
                    class="flex min-h-9 cursor-pointer items-center justify-between gap-4 rounded-sm px-3 py-1.5 data-[selected]:bg-evidence-soft"
                  >
                    <span class="min-w-0 truncate">{command.title}</span>
                    {#if asked === id}<span class="shrink-0 font-semibold text-caution" role="status"
                        >leaves this job: Enter again</span
                      >
                    {:else}<span class="max-w-[50%] shrink-0 truncate text-ink3">{command.hint ?? ''}</span>{/if}
                  </Command.Item>
                {/each}
              </Command.GroupItems>
            </Command.Group>
          {/each}
        </Command.List>
      </Command.Root>
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
