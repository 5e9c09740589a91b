<script lang="ts">
  import '../app.css';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { CALCULATORS } from '$lib/calculate/places';
  import LeaveGuard from '$lib/ui/LeaveGuard.svelte';
  import KeyLine from '$lib/ui/KeyLine.svelte';
  import { dispatchKey, useKeys } from '$lib/ui/keys.svelte';
  import { tipShown } from '$lib/ui/tip.svelte';
  import { useCommands } from '$lib/ui/palette.svelte';
  import { currentTheme, setTheme } from '$lib/ui/theme';
  import CircuitBoard from '@lucide/svelte/icons/circuit-board';
  import ListTodo from '@lucide/svelte/icons/list-todo';
  import Settings2 from '@lucide/svelte/icons/settings-2';
  import Sigma from '@lucide/svelte/icons/sigma';
  import Wrench from '@lucide/svelte/icons/wrench';

  import { onMount } from 'svelte';

  let { children } = $props();
  let palette = $state(false);
  let sheet = $state(false);
  /** Loaded when they are first opened; what is typed until the field has the focus is the beginning of the search. */
  let Palette = $state.raw<typeof import('$lib/ui/Palette.svelte').default>();
  let KeySheet = $state.raw<typeof import('$lib/ui/KeySheet.svelte').default>();
  let TipLayer = $state.raw<typeof import('$lib/ui/TipLayer.svelte').default>();
  let search = $state('');
  $effect(() => {
    // without a server it may not be there: the keys go on as before
    if (palette && !Palette)
      import('$lib/ui/Palette.svelte').then(
        (m) => (Palette = m.default),
        () => (palette = false),
      );
    if (sheet && !KeySheet)
      import('$lib/ui/KeySheet.svelte').then(
        (m) => (KeySheet = m.default),
        () => (sheet = false),
      );
    if (tipShown() && !TipLayer)
      import('$lib/ui/TipLayer.svelte').then(
        (m) => (TipLayer = m.default),
        () => {},
      );
  });
  /** In a browser, not on the server. */
  let here = $state(false);
  /** Busy hands need the whole screen. */
  const whole = $derived(page.route.id?.startsWith('/run') ?? false);

  const places = [
    { href: '/jobs', label: 'Jobs', icon: ListTodo },
    { href: '/boards', label: 'Boards', icon: CircuitBoard },
    { href: '/kit', label: 'Kit', icon: Wrench },
    { href: '/calculate', label: 'Calculate', icon: Sigma },
    { href: '/settings', label: 'Settings', icon: Settings2 },
  ];
  onMount(() => {
    document.documentElement.dataset.listens = '';
    // whatever an earlier visit could not send goes out from any page
    here = true;
  });
  const toggleTheme = () => setTheme(currentTheme() === 'day' ? 'scope' : 'day');

  function find() {
    search = '';
    palette = true;
  }

  useKeys('Everywhere', () => [
    { keys: ['/'], label: 'find a place, job, part', run: find, line: true },
    { keys: ['?'], label: 'all keys', run: () => (sheet = true) },
    { keys: ['d'], label: 'day or scope theme', run: toggleTheme },
  ]);
  const to = (href: string) => () => void goto(href);
  useCommands(() => [
    ...places.map((p) => ({ group: 'place' as const, title: p.label, run: to(p.href) })),
    { group: 'place', title: 'New job', run: to('/jobs/new') },
    { group: 'place', title: 'Express job', run: to('/jobs/express') },
    { group: 'place', title: 'New board', run: to('/boards/new') },
    { group: 'place', title: 'Packages', run: to('/boards/packages') },
    ...CALCULATORS.map((c) => ({ group: 'calculator' as const, title: c.name, run: to(c.href) })),
    { group: 'act', title: 'Change day or scope theme', run: toggleTheme },
  ]);

  function onkeydown(event: KeyboardEvent) {
    if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'k') {
      event.preventDefault();
      find();
      return;
    }
    if (palette && event.key.length === 1 && !(event.target instanceof HTMLInputElement)) {
      event.preventDefault();
      search += event.key;
      return;
    }
    if (!palette && !sheet && !event.defaultPrevented) dispatchKey(event);
  }
</script>

<LeaveGuard />
<svelte:window {onkeydown} />

<div
  class={whole
    ? 'h-dvh'
    : 'grid h-dvh grid-cols-[76px_minmax(0,1fr)] grid-rows-[minmax(0,1fr)_auto_auto] print:block print:h-auto'}
>
  {#if !whole}
    <nav class="isolate row-span-3 flex flex-col border-r border-line bg-bench print:hidden" aria-label="Places">
      <a href="/jobs" class="grid h-10 place-items-center pt-1 text-[15px] font-bold [font-stretch:115%]">Orthos</a>
      {#each places as place (place.href)}
        {@const here = page.url.pathname.startsWith(place.href)}
        <a
          href={place.href}
          aria-current={here ? 'page' : undefined}
          class="flex h-[58px] flex-col items-center justify-center gap-1 border-l-[3px] text-[13px] {here
            ? 'border-hot font-semibold text-ink'
            : 'border-transparent text-ink2 hover:text-ink'}"
        >
          <place.icon size={20} strokeWidth={1.75} aria-hidden="true" />
          {place.label}
        </a>
      {/each}
    </nav>
  {/if}
  <main class="min-h-0 min-w-0 overflow-hidden print:overflow-visible {whole ? 'h-full' : ''}">
    {@render children()}
  </main>
  {#if !whole}
    <div>
      {#if here}{#await import('$lib/ui/KeptHere.svelte') then { default: KeptHere }}<KeptHere />{/await}{/if}
    </div>
    <KeyLine onHelp={() => (sheet = true)} />
  {/if}
</div>

{#if Palette}<Palette bind:open={palette} bind:search />{/if}
{#if TipLayer}<TipLayer tip={tipShown()} />{/if}
{#if KeySheet}<KeySheet bind:open={sheet} />{/if}
