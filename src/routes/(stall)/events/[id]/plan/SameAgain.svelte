<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { isMade, sameAgain } from '$lib/core/event/plan-event';
  import { nextDays, nthOf, type Recurrence } from '$lib/core/event/same-again';
  import { firstDay } from '$lib/core/event/todays-event';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { dayWords, weekdayName } from '$lib/ui/words/date-words';
  import { eventFault, recurrenceWords } from '$lib/ui/words/event-words';
  import { StallForm as Form } from '../../../forms/stall-form.svelte';
  import StallForm from '../../../forms/StallForm.svelte';
  import { useStall } from '../../../stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  const tables = live(() => () => db.books.tables.toArray(), []);
  /** Tables that are laid out for it come along; that is set-up. */
  const hasTables = $derived(
    tables.value.some((table) => table.isActive && table.event === event.id),
  );
  const first = $derived(firstDay(event));
  const choices = $derived<readonly Recurrence[]>([
    { every: 'weeks', count: 1 },
    { every: 'weeks', count: 2 },
    { every: 'weeks', count: 3 },
    { every: 'weeks', count: 4 },
    { every: 'month', nth: nthOf(first) },
    { every: 'year' },
  ]);
  // svelte-ignore state_referenced_locally
  const form = new Form({
    about: `again ${event.id}`,
    from: '',
    begin: { choice: 1 },
    command:
      ({ choice }) =>
      () =>
        sameAgain({
          newId,
          business: stall.identity.business,
          event,
          recurrence: choices[choice]!,
          events: stall.events,
          tables: tables.value,
          today: stall.today,
        }),
    says: eventFault,
    saved: () =>
      'The next edition is planned, with its hours, fee, prices, people, taxes, ways to pay and tables.',
    then: (id) => goto(`/events/${id}/plan`),
  });
  const days = $derived(nextDays(event.days, choices[form.typed.choice]!, stall.today));
  const weekday = $derived(weekdayName(first, stall.business.locale));
</script>

<StallForm
  {form}
  right={hasTables ? 'set-up' : 'event.plan'}
  class="sheet grid gap-3"
  name="The same again"
  label="Plan the next edition"
  look="btn-quiet"
>
  <h2>The same again</h2>
  <label class="grid gap-1 font-[560]">
    It is held
    <select class="select min-h-12 w-full" bind:value={form.typed.choice}>
      {#each choices as choice, at (at)}
        <option value={at}>{recurrenceWords(choice, weekday)}</option>
      {/each}
    </select>
  </label>
  {#if days !== null}
    <p data-testid="next-edition">
      Next on {dayWords(days[0]?.date ?? '', stall.business.locale)}{days.length === 1
        ? ''
        : `, ${String(days.length)} days`}.
      {#if isMade(event, days, stall.events)}<b class="font-[600]">It is planned already.</b>{/if}
    </p>
  {/if}
</StallForm>
