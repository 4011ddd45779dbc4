<script lang="ts">
  import { toast } from 'svelte-sonner';
  import type { Row } from '$lib/core/books/tables';
  import { setEventTaxes } from '$lib/core/event/set-taxes';
  import { newId } from '$lib/device/new-id';
  import RightButton from '../../RightButton.svelte';
  import { useStall } from '../../stall.svelte';

  interface Props {
    event: Row<'events'>;
  }
  const { event }: Props = $props();
  const stall = useStall();
  const NONE = 'none';
  // svelte-ignore state_referenced_locally
  let chosen = $state(
    Object.fromEntries(event.swaps.map(({ from, to }) => [from, to ?? NONE])) as Record<
      string,
      string
    >,
  );
  const isChanged = $derived(
    stall.taxes.some(({ id }) => {
      const swap = event.swaps.find(({ from }) => from === id);
      return (chosen[id] ?? id) !== (swap === undefined ? id : (swap.to ?? NONE));
    }),
  );

  async function save(lentBy?: string): Promise<void> {
    const swaps = stall.taxes.map(({ id }) => {
      const to = chosen[id] ?? id;
      return { from: id, to: to === NONE ? null : to };
    });
    await stall.daybook.append(
      () => setEventTaxes(newId, event, swaps),
      lentBy === undefined ? {} : { lentBy },
    );
    toast(`${event.short} charges these taxes from now on. Earlier sales stay as they were.`);
  }
</script>

<section class="sheet grid content-start gap-3" aria-labelledby="event-taxes">
  <h2 id="event-taxes">Taxes here</h2>
  <p class="soft">Another county, another rate: what goods carry is charged here as</p>
  {#each stall.taxes as tax (tax.id)}
    <label class="flex flex-wrap items-center justify-between gap-2 font-[560]">
      {tax.name}
      <select
        class="select min-h-12 w-56"
        value={chosen[tax.id] ?? tax.id}
        onchange={(changed) => (chosen[tax.id] = changed.currentTarget.value)}
      >
        {#each stall.taxes as each (each.id)}
          <option value={each.id}
            >{each.id === tax.id ? 'itself' : `${each.name}, ${each.rate} %`}</option
          >
        {/each}
        <option value={NONE}>not charged</option>
      </select>
    </label>
  {:else}
    <p class="soft">No taxes are set up.</p>
  {/each}
  {#if isChanged}<RightButton right="event.plan" label="Save" onGo={save} />{/if}
</section>
