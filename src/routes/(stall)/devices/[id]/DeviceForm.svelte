<script lang="ts">
  import { goto } from '$app/navigation';
  import type { Row } from '$lib/core/books/tables';
  import { lastDay } from '$lib/core/event/todays-event';
  import { setDevice } from '$lib/core/people/set-device';
  import { live, type Live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    device: Row<'devices'>;
  }
  const { device }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  // svelte-ignore state_referenced_locally
  const start = device;
  const form = new Form({
    about: `device ${start.id}`,
    from: start.setStamp,
    begin: { name: start.name, event: start.event ?? '', drawer: start.drawer ?? '' },
    command:
      ({ name, event, drawer }) =>
      () =>
        setDevice({
          newId,
          device: start,
          name,
          event: event === '' ? null : event,
          drawer: drawers.value.some(({ id }) => id === drawer) ? drawer : null,
        }),
    says: () => ({
      field: 'name',
      says: 'Give the device a name, so that people know which one it is.',
    }),
    saved: () => `D${String(start.number)} is saved.`,
    then: () => goto('/devices'),
  });
  const { typed } = form;
  const events = $derived(
    stall.events.filter((each) => each.id === start.event || lastDay(each) >= stall.today),
  );
  const drawers: Live<Row<'drawers'>[]> = live(() => {
    const of = typed.event === '' ? stall.event?.id : typed.event;
    return async () => {
      if (of === undefined) return [];
      const [opened, read] = await Promise.all([
        db.books.drawers.where('event').equals(of).sortBy('at'),
        db.books.drawerReads.where('event').equals(of).toArray(),
      ]);
      return opened.filter(({ id }) => !read.some((each) => each.drawer === id));
    };
  }, []);
</script>

<StallForm {form} class="sheet grid gap-4">
  <Field label="Name" at="name" bind:value={typed.name} maxlength={80} />
  <label class="grid gap-1 font-[560]">
    Sells for
    <select class="select min-h-12 w-full" bind:value={typed.event}>
      <option value="">whichever event is on</option>
      {#each events as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
    </select>
    <span class="soft text-sm font-normal">
      Given an event, it sells for that one on its days, also when another is on as well.
    </span>
  </label>
  <label class="grid gap-1 font-[560]">
    Drawer
    <select class="select min-h-12 w-full" bind:value={typed.drawer}>
      <option value="">as chosen on the device</option>
      {#each drawers.value as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
    </select>
  </label>
</StallForm>
