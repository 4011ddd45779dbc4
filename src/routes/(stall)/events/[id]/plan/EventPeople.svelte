<script lang="ts">
  /** Who is on duty when, and which devices are there. */
  import type { Row } from '$lib/core/books/tables';
  import { setPeople } from '$lib/core/event/set-groups';
  import { firstDay } from '$lib/core/event/todays-event';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import Saying from '$lib/ui/forms/Saying.svelte';
  import Tick from '$lib/ui/forms/Tick.svelte';
  import { shortDayWords } from '$lib/ui/words/date-words';
  import { groupFault } from '$lib/ui/words/event-words';
  import { StallForm as Form } from '../../../forms/stall-form.svelte';
  import StallForm from '../../../forms/StallForm.svelte';
  import { useStall } from '../../../stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  // svelte-ignore state_referenced_locally
  const start = event;
  const form = new Form({
    about: `people ${start.id}`,
    from: start.peopleStamp,
    begin: {
      duty: start.duty.map((each) => ({ ...each })),
      devices: [...start.devices] as string[],
    },
    command:
      ({ duty, devices }) =>
      () =>
        setPeople(newId, start, duty, devices),
    says: groupFault,
    saved: () => `Who is at ${start.short} is saved.`,
  });
  const { typed } = form;
  function add(): void {
    const last = typed.duty.at(-1);
    const date = last?.date ?? firstDay(start);
    const day = start.days.find((each) => each.date === date);
    typed.duty.push({
      person: '',
      date,
      from: day?.opens ?? '09:00',
      until: day?.closes ?? '16:00',
    });
  }
  const tick = (device: string, isOn: boolean): void => {
    typed.devices = isOn
      ? [...typed.devices, device]
      : typed.devices.filter((each) => each !== device);
  };
</script>

<section class="sheet" aria-labelledby="on-duty">
  <h2 id="on-duty" class="mb-3">Who is there</h2>
  <StallForm
    {form}
    right="event.plan"
    look="btn-quiet"
    label="Save who is there"
    name="Who is there"
  >
    {#each typed.duty as each, at (at)}
      <div class="grid grid-cols-2 items-end gap-3 sm:grid-cols-[1.3fr_1.2fr_1fr_1fr_auto]">
        <label class="grid gap-1 font-[560]">
          Who
          <select
            class={[
              'select min-h-12 w-full',
              form.faults.at(`person ${at}`) !== '' && '!border-error',
            ]}
            bind:value={each.person}
          >
            <option value="">choose</option>
            {#each stall.staff as { id, name } (id)}<option value={id}>{name}</option>{/each}
          </select>
        </label>
        <label class="grid gap-1 font-[560]">
          Day
          <select class="select min-h-12 w-full" bind:value={each.date}>
            {#each event.days as { date } (date)}
              <option value={date}>{shortDayWords(date, stall.business.locale)}</option>
            {/each}
          </select>
        </label>
        <Field label="From" at="from {at}" type="time" bind:value={each.from} />
        <Field label="Until" type="time" bind:value={each.until} />
        <button
          type="button"
          class="btn btn-quiet justify-self-start"
          aria-label="Remove this duty"
          onclick={() => (typed.duty = typed.duty.filter((_, i) => i !== at))}>×</button
        >
        <div class="col-span-full"><Saying at="person {at}" /></div>
      </div>
    {:else}
      <p class="soft">Nobody is on duty yet.</p>
    {/each}
    <button type="button" class="btn btn-quiet justify-self-start" onclick={add}>Add a duty</button>
    {#if stall.devices.length > 0}
      <fieldset class="grid gap-1">
        <legend class="font-[560]">Devices</legend>
        {#each stall.devices as { id, name } (id)}
          <Tick
            label={name}
            bind:checked={() => typed.devices.includes(id), (isOn) => tick(id, isOn)}
          />
        {/each}
      </fieldset>
    {/if}
  </StallForm>
</section>
