<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { isOverMidnight } from '$lib/core/event/event-days';
  import { setEvent } from '$lib/core/event/plan-event';
  import { newId } from '$lib/device/new-id';
  import Choice from '$lib/ui/forms/Choice.svelte';
  import Field from '$lib/ui/forms/Field.svelte';
  import Saying from '$lib/ui/forms/Saying.svelte';
  import { eventFault } from '$lib/ui/words/event-words';
  import { timeZones } from '$lib/ui/words/places-words';
  import { StallForm as Form } from '../forms/stall-form.svelte';
  import StallForm from '../forms/StallForm.svelte';
  import { useStall } from '../stall.svelte';

  interface Props {
    /** None yet for a new one. */
    event?: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  const start = event;
  const form = new Form({
    about: `event ${start?.id ?? 'new'}`,
    from: start?.setStamp ?? '',
    begin: {
      name: start?.name ?? '',
      short: start?.short ?? '',
      organiser: start?.organiser ?? '',
      place: start?.place ?? '',
      pitch: start?.pitch ?? '',
      days: (start?.days ?? [{ date: '', opens: '09:00', closes: '16:00' }]).map((day) => ({
        ...day,
      })),
      timeZone: start?.timeZone ?? stall.business.timeZone,
      stripe: start?.stripe ?? '#1c684c',
      cloth: start?.cloth ?? '#fffaf0',
      notes: start?.notes ?? '',
    },
    command: (typed) => () => setEvent(newId, start?.id ?? null, typed, stall.events),
    says: eventFault,
    saved: ({ name }) => `${name.trim()} is saved.`,
    then: (id) => goto(`/events/${id}`),
  });
  const { typed } = form;
  function addDay(): void {
    const last = typed.days.at(-1);
    typed.days.push({
      date: '',
      opens: last?.opens ?? '09:00',
      closes: last?.closes ?? '16:00',
    });
  }
</script>

<StallForm {form} right="event.plan">
  <section class="sheet grid items-start gap-4 sm:grid-cols-2" aria-label="What it is">
    <Field label="Name" at="name" bind:value={typed.name} maxlength={80} autocomplete="off" />
    <Field
      label="On the awning"
      bind:value={typed.short}
      maxlength={24}
      help="Short; left empty, the name as far as it fits"
    />
    <Field label="Place" bind:value={typed.place} maxlength={120} />
    <Field label="Pitch" bind:value={typed.pitch} maxlength={40} />
    <Field label="Organiser" bind:value={typed.organiser} maxlength={80} />
    <Choice
      label="Time zone"
      options={timeZones(typed.timeZone)}
      bind:value={typed.timeZone}
      isWrong={form.faults.at('timeZone') !== ''}
    />
  </section>
  <section class="sheet grid grid-cols-[minmax(0,1fr)] gap-3" aria-labelledby="days">
    <h2 id="days">Days and hours</h2>
    {#each typed.days as day, at (at)}
      <div
        class="grid grid-cols-[repeat(auto-fit,minmax(9rem,1fr))] items-end gap-3 sm:grid-cols-[1fr_8rem_8rem_auto]"
      >
        <div class="max-sm:col-span-full">
          <Field
            label={typed.days.length === 1 ? 'Day' : `Day ${String(at + 1)}`}
            type="date"
            bind:value={day.date}
          />
        </div>
        <Field label="Opens" type="time" bind:value={day.opens} />
        <Field label="Closes" type="time" bind:value={day.closes} />
        {#if typed.days.length > 1}
          <button
            type="button"
            class="btn btn-quiet"
            aria-label="Remove day {at + 1}"
            onclick={() => (typed.days = typed.days.filter((_, i) => i !== at))}>Remove</button
          >
        {/if}
        {#if day.closes !== '' && isOverMidnight(day)}
          <p class="soft col-span-full text-sm">It closes at {day.closes} on the day after.</p>
        {/if}
      </div>
    {/each}
    <Saying at="days" />
    <button type="button" class="btn btn-quiet justify-self-start" onclick={addDay}
      >Add a day</button
    >
  </section>
  <section class="sheet grid items-start gap-4 sm:grid-cols-2" aria-labelledby="looks">
    <h2 id="looks" class="sm:col-span-2">Looks and notes</h2>
    <label class="grid gap-1 font-[560]">
      Stripes of the awning
      <input type="color" class="h-12 w-24 rounded-lg" bind:value={typed.stripe} />
    </label>
    <label class="grid gap-1 font-[560]">
      Between the stripes
      <input type="color" class="h-12 w-24 rounded-lg" bind:value={typed.cloth} />
    </label>
    <div class="sm:col-span-2">
      <Field label="Notes" bind:value={typed.notes} maxlength={500} />
    </div>
  </section>
</StallForm>
