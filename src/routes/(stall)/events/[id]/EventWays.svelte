<script lang="ts">
  import type { Row } from '$lib/core/books/tables';
  import { setEventWays } from '$lib/core/payment/set-way';
  import { allWays, waysOpen } from '$lib/core/payment/ways';
  import { newId } from '$lib/device/new-id';
  import { moved } from '$lib/ui/forms/moved';
  import MoveButtons from '../../MoveButtons.svelte';
  import { StallForm as Form } from '../../forms/stall-form.svelte';
  import StallForm from '../../forms/StallForm.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const all = $derived(allWays(stall.wayRows).filter(({ isActive }) => isActive));
  // svelte-ignore state_referenced_locally
  const start = event;
  const form = new Form({
    about: `ways of ${start.id}`,
    from: start.waysStamp,
    begin: { open: waysOpen(stall.wayRows, start).map(({ id }) => id) },
    command: (typed) => {
      const asUsual = all.map(({ id }) => id).join(' ');
      const ways = typed.open.join(' ') === asUsual ? null : typed.open;
      return () => setEventWays(newId, start, ways);
    },
    // Nothing of it is ever refused.
    says: () => ({ field: '', says: '' }),
    saved: () => `${event.short} takes these from now on.`,
  });
  const open = $derived(form.typed.open);
  const opens = (ways: readonly string[]): void => void (form.typed.open = [...ways]);
  const now = $derived(waysOpen(stall.wayRows, event).map(({ id }) => id));
  const isChanged = $derived(open.join(' ') !== now.join(' '));
  const closed = $derived(all.filter(({ id }) => !open.includes(id)));
  const nameOf = (id: string): string => all.find((way) => way.id === id)?.name ?? '';
</script>

<section class="sheet grid content-start gap-3" aria-labelledby="event-ways">
  <h2 id="event-ways">Ways to pay here</h2>
  <StallForm {form} right="event.plan" {isChanged} class="grid gap-3">
    <ul class="grid gap-1">
      {#each open as id, at (id)}
        <li class="flex flex-wrap items-center gap-2">
          <label class="flex min-h-12 min-w-0 flex-1 items-center gap-3">
            <input
              type="checkbox"
              class="checkbox size-6 !rounded-md"
              checked
              disabled={open.length === 1}
              onchange={() => opens(open.filter((each) => each !== id))}
            />
            {nameOf(id)}
          </label>
          <MoveButtons
            name={nameOf(id)}
            {at}
            count={open.length}
            onmove={(to) => opens(moved(open, at, to))}
          />
        </li>
      {/each}
      {#each closed as way (way.id)}
        <li>
          <label class="soft flex min-h-12 items-center gap-3">
            <input
              type="checkbox"
              class="checkbox size-6 !rounded-md"
              onchange={() => opens([...open, way.id])}
            />
            {way.name}, not here
          </label>
        </li>
      {/each}
    </ul>
  </StallForm>
</section>
