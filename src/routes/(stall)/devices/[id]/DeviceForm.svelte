<script lang="ts">
  import { goto } from '$app/navigation';
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { lastDay } from '$lib/core/event/todays-event';
  import { setDevice } from '$lib/core/people/set-device';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import Field from '$lib/ui/forms/Field.svelte';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    device: Row<'devices'>;
  }
  const { device }: Props = $props();
  const stall = useStall();
  const { db } = stall;
  // svelte-ignore state_referenced_locally
  const start = device;
  let name = $state(start.name);
  let event = $state(start.event ?? '');
  let drawer = $state(start.drawer ?? '');
  let wrong = $state('');
  const events = $derived(
    stall.events.filter((each) => each.id === start.event || lastDay(each) >= stall.today),
  );
  const drawers = live(() => {
    const of = event === '' ? stall.event?.id : event;
    return async () => {
      if (of === undefined) return [];
      const [opened, read] = await Promise.all([
        db.books.drawers.where('event').equals(of).sortBy('at'),
        db.books.drawerReads.where('event').equals(of).toArray(),
      ]);
      return opened.filter(({ id }) => !read.some((each) => each.drawer === id));
    };
  }, []);

  async function save(lentBy?: string): Promise<void> {
    const given = {
      event: event === '' ? null : event,
      drawer: drawers.value.some(({ id }) => id === drawer) ? drawer : null,
    };
    const outcome = await stall.daybook.append(
      () => setDevice({ newId, device: start, name, ...given }),
      lentBy === undefined ? {} : { lentBy },
    );
    if (!outcome.ok) {
      wrong = 'Give the device a name, so that people know which one it is.';
      return;
    }
    await stall.daybook.settle();
    toast(`D${String(start.number)} is saved.`);
    await goto('/devices');
  }
</script>

<form class="sheet grid gap-4" onsubmit={(submitted) => submitted.preventDefault()}>
  <Field label="Name" bind:value={name} maxlength={80} isWrong={wrong !== ''} />
  <label class="grid gap-1 font-[560]">
    Sells for
    <select class="select min-h-12 w-full" bind:value={event}>
      <option value="">whichever event is on</option>
      {#each events as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
    </select>
    <span class="soft text-sm font-normal">
      Given an event, it sells for that one on its days, also when another is on as well.
    </span>
  </label>
  <label class="grid gap-1 font-[560]">
    Drawer
    <select class="select min-h-12 w-full" bind:value={drawer}>
      <option value="">as chosen on the device</option>
      {#each drawers.value as each (each.id)}<option value={each.id}>{each.name}</option>{/each}
    </select>
  </label>
  {#if wrong !== ''}<p class="text-error" role="alert">{wrong}</p>{/if}
  <RightButton right="set-up" label="Save" onGo={save} />
</form>
