<script lang="ts" module>
  import type DateSegments from './DateSegments.svelte';

  // a calendar is as heavy as a page: it comes after it
  let segments = $state.raw<typeof DateSegments>();
  const load = async () => void (segments ??= (await import('./DateSegments.svelte')).default);
</script>

<script lang="ts">
  // A day: typed as day, month, year, or picked from the month that opens.
  import { onMount } from 'svelte';
  import { calendarDay } from './dates';

  interface Props {
    /** As 2026-03-04; none is empty. */
    value?: string;
    /** Names it, and stands above unless `beside`. */
    label: string;
    /** The label stands on the left, or elsewhere. */
    beside?: boolean | 'elsewhere';
    id?: string;
    /** Its name in a form that is posted. */
    name?: string;
    class?: string;
    'aria-describedby'?: string;
    'aria-invalid'?: true;
  }
  const own = $props.id();
  let { value = $bindable(''), label, beside = false, id = own, name, class: size = '', ...named }: Props = $props();

  let root = $state<HTMLElement>();
  onMount(() => void load().catch(() => {}));

  function take(next: string) {
    value = next;
    // for the form around, which hears only of what is typed
    root?.dispatchEvent(new Event('change', { bubbles: true }));
  }
</script>

<div class="min-w-0 {size} {beside === true ? 'flex items-center gap-2' : ''}" bind:this={root}>
  {#if beside !== 'elsewhere'}<span
      class={beside ? 'text-[13px] whitespace-nowrap text-ink2' : 'label'}
      aria-hidden="true">{label}</span
    >{/if}
  {#if name}<input type="hidden" {name} {value} />{/if}
  {#if segments}
    {@const Segments = segments}
    <Segments {id} {value} {label} {...named} ontake={take} />
  {:else}
    <div {id} class="field flex items-center text-ink3" role="group" aria-label={label} {...named}>
      {calendarDay(value || null)}
    </div>
  {/if}
</div>
