<script lang="ts">
  /** Things to bring that are no goods, ticked off; they come back at the next edition. */
  import type { Row } from '$lib/core/books/tables';
  import { addThing, removeThing, tickThing } from '$lib/core/event/set-groups';
  import { live } from '$lib/device/live.svelte';
  import { newId } from '$lib/device/new-id';
  import { useStall } from '../../stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const { books } = stall.db;
  const ticks = live(() => {
    const { id } = event;
    return async () =>
      new Map(
        (await books.ticks.where('event').equals(id).toArray()).map((row) => [
          row.thing,
          row.isDone,
        ]),
      );
  }, new Map<string, boolean>());
  let name = $state('');
  const left = $derived(event.things.filter(({ id }) => ticks.value.get(id) !== true).length);

  /** By the things as they are: what somebody else has added meanwhile stays. */
  const change = (command: (row: Row<'events'>) => ReturnType<typeof addThing>): Promise<unknown> =>
    stall.daybook.decide(
      async () => (await books.events.get(event.id)) ?? event,
      (row) => ({ ok: true as const, drafts: command(row) }),
    );
  async function add(submitted: SubmitEvent): Promise<void> {
    submitted.preventDefault();
    const said = name;
    name = '';
    await change((row) => addThing(newId, row, row.things, said));
  }
  const tick = (thing: string, isDone: boolean): Promise<unknown> =>
    stall.daybook
      .append(() => ({ ok: true as const, drafts: tickThing(newId, event, thing, isDone) }))
      .then(() => stall.daybook.settle());
</script>

<section class="sheet grid gap-2" aria-labelledby="bring">
  <div class="flex flex-wrap items-baseline justify-between gap-x-4">
    <h2 id="bring">Things to bring</h2>
    <span class="soft" role="status"
      >{event.things.length === 0
        ? ''
        : left === 0
          ? 'all there'
          : `${String(left)} still to bring`}</span
    >
  </div>
  <ul class="grid gap-x-6 sm:grid-cols-2">
    {#each event.things as { id, name: thing } (id)}
      <li class="flex items-center gap-2">
        <label class="flex min-h-12 flex-1 items-center gap-3">
          <input
            type="checkbox"
            class="checkbox"
            checked={ticks.value.get(id) === true}
            onchange={(changed) => tick(id, changed.currentTarget.checked)}
          />
          <span class={[ticks.value.get(id) === true && 'soft line-through']}>{thing}</span>
        </label>
        <button
          type="button"
          class="soft min-h-12 min-w-12"
          aria-label="Remove {thing}"
          onclick={() => change((row) => removeThing(newId, row, row.things, id))}>×</button
        >
      </li>
    {/each}
  </ul>
  <form class="flex gap-2" onsubmit={add}>
    <label class="min-w-0 flex-1">
      <span class="sr-only">Something to bring</span>
      <input
        class="input w-full"
        placeholder="Something to bring: cloth, weights, change"
        bind:value={name}
        maxlength="80"
        autocomplete="off"
      />
    </label>
    <button class="btn btn-quiet">Add</button>
  </form>
</section>
