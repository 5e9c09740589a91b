<script lang="ts">
  // The numbers of a `DateField` with the month that opens. Loaded by it, and used by nobody else.
  import { type DateValue, parseDate } from '@internationalized/date';
  import CalendarDays from '@lucide/svelte/icons/calendar-days';
  import ChevronLeft from '@lucide/svelte/icons/chevron-left';
  import ChevronRight from '@lucide/svelte/icons/chevron-right';
  import { DatePicker } from 'bits-ui';
  import Notice from './Notice.svelte';

  interface Props {
    id: string;
    value: string;
    label: string;
    'aria-describedby'?: string;
    'aria-invalid'?: true;
    ontake: (value: string) => void;
  }
  let { id, value, label, ontake, ...named }: Props = $props();

  const day = $derived.by(() => {
    try {
      return value ? parseDate(value) : undefined;
    } catch {
      return undefined;
    }
  });
  let field = $state<HTMLElement | null>(null);
  let open = $state(false);
  /** Left with a number missing: nothing is kept, which must not go unseen. */
  let half = $state(false);

  const take = (next: DateValue | undefined) => {
    const said = next?.toString() ?? '';
    if (said === value) return;
    half = false;
    ontake(said);
  };
  function left(event: FocusEvent) {
    if (field?.contains(event.relatedTarget as Node | null)) return;
    // nobody types the century
    if (day && day.year < 100) take(day.set({ year: 2000 + day.year }));
    const numbers = [...(field?.querySelectorAll('[role=spinbutton]') ?? [])];
    half = !day && numbers.some((n) => /\d/.test(n.textContent));
  }
</script>

<DatePicker.Root
  bind:value={() => day, take}
  bind:open
  locale="en-GB"
  granularity="day"
  weekStartsOn={1}
  weekdayFormat="short"
  fixedWeeks
  calendarLabel={label}
>
  <DatePicker.Input
    {id}
    bind:ref={field}
    class="field flex items-center"
    aria-label={label}
    {...named}
    onfocusout={left}
    aria-invalid={half || named['aria-invalid'] ? true : undefined}
  >
    {#snippet children({ segments })}
      {#each segments as { part, value: text }, n (n)}
        {#if part === 'literal'}<span class="text-ink3" aria-hidden="true">{text}</span>
        {:else}<DatePicker.Segment
            {part}
            class="rounded-sm px-0.5 py-1 focus:bg-evidence-soft aria-[valuetext=Empty]:text-ink3"
            >{text}</DatePicker.Segment
          >{/if}
      {/each}
      <DatePicker.Trigger
        class="-mr-2.5 ml-auto grid h-9 w-9 place-items-center text-ink2"
        aria-label="{label}: a month to pick from"
      >
        <CalendarDays size={18} aria-hidden="true" />
      </DatePicker.Trigger>
    {/snippet}
  </DatePicker.Input>
  <DatePicker.Portal>
    <DatePicker.Content class="choices p-2" align="end" sideOffset={2} collisionPadding={8}>
      <DatePicker.Calendar>
        {#snippet children({ months, weekdays })}
          <DatePicker.Header class="flex items-center">
            <DatePicker.PrevButton class="grid h-10 w-10 place-items-center" aria-label="The month before">
              <ChevronLeft size={18} aria-hidden="true" />
            </DatePicker.PrevButton>
            <DatePicker.Heading class="flex-1 text-center font-semibold" />
            <DatePicker.NextButton class="grid h-10 w-10 place-items-center" aria-label="The month after">
              <ChevronRight size={18} aria-hidden="true" />
            </DatePicker.NextButton>
          </DatePicker.Header>
          {#each months as month (month.value.toString())}
            <DatePicker.Grid class="text-center">
              <DatePicker.GridHead>
                <DatePicker.GridRow>
                  {#each weekdays as weekday (weekday)}
                    <DatePicker.HeadCell class="w-10 py-1 text-[12px] font-normal text-ink2"
                      >{weekday}</DatePicker.HeadCell
                    >
                  {/each}
                </DatePicker.GridRow>
              </DatePicker.GridHead>
              <DatePicker.GridBody>
                {#each month.weeks as week (week[0].toString())}
                  <DatePicker.GridRow>
                    {#each week as date (date.toString())}
                      <DatePicker.Cell {date} month={month.value}>
                        <DatePicker.Day class="day" />
                      </DatePicker.Cell>
                    {/each}
                  </DatePicker.GridRow>
                {/each}
              </DatePicker.GridBody>
            </DatePicker.Grid>
          {/each}
        {/snippet}
      </DatePicker.Calendar>
      {#if day}<button
          type="button"
          class="button mt-1 w-full justify-center"
          onclick={() => {
            take(undefined);
            open = false;
          }}>No day</button
        >{/if}
    </DatePicker.Content>
  </DatePicker.Portal>
</DatePicker.Root>
{#if half}<Notice text="Day, month and year: a part of it is missing." at="field" class="mt-1" />{/if}
